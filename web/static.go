package web

import (
	"compress/gzip"
	"embed"
	"io"
	"net/http"
	"path"
	"strings"
)

//go:embed static
var static embed.FS

// staticFiles serves the embedded files. Names under static/lib and
// static/fonts change only with a release and are kept for a long time. A file
// that is there only as name.gz is sent gzipped.
func staticFiles() http.Handler {
	files := http.FileServerFS(static)
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		name := strings.TrimPrefix(path.Clean(r.URL.Path), "/")
		if strings.HasPrefix(name, "static/lib/") || strings.HasPrefix(name, "static/fonts/") {
			w.Header().Set("Cache-Control", "public, max-age=2592000")
		} else {
			w.Header().Set("Cache-Control", "no-cache")
		}
		if packed, err := static.Open(name + ".gz"); err == nil {
			defer packed.Close()
			servePacked(w, r, packed)
			return
		}
		files.ServeHTTP(w, r)
	})
}

func servePacked(w http.ResponseWriter, r *http.Request, packed io.Reader) {
	w.Header().Set("Content-Type", "text/javascript; charset=utf-8")
	w.Header().Set("Vary", "Accept-Encoding")
	if strings.Contains(r.Header.Get("Accept-Encoding"), "gzip") {
		w.Header().Set("Content-Encoding", "gzip")
		_, _ = io.Copy(w, packed) // the reader has gone when this fails
		return
	}
	plain, err := gzip.NewReader(packed)
	if err != nil {
		http.Error(w, "The file is damaged.", http.StatusInternalServerError)
		return
	}
	_, _ = io.Copy(w, plain)
}
