package site

import (
	"context"
	"io"
	"net/http"
	"time"
)

// health answers anyone who watches the program that it runs.
func (s *Site) health(w http.ResponseWriter, _ *http.Request) {
	answerWatch(w, http.StatusOK, "running")
}

// ready answers whether the records can be reached, so that pages can be served.
func (s *Site) ready(w http.ResponseWriter, r *http.Request) {
	ctx, cancel := context.WithTimeout(r.Context(), 2*time.Second)
	defer cancel()
	if err := s.Store.DB().PingContext(ctx); err != nil {
		s.Log.Error("not ready", "error", err)
		answerWatch(w, http.StatusServiceUnavailable, "the records cannot be reached")
		return
	}
	answerWatch(w, http.StatusOK, "ready")
}

func answerWatch(w http.ResponseWriter, status int, text string) {
	w.Header().Set("Content-Type", "text/plain; charset=utf-8")
	w.Header().Set("Cache-Control", "no-store")
	w.WriteHeader(status)
	_, _ = io.WriteString(w, text+"\n") // the asker has gone when this fails
}
