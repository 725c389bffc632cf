package site

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"strings"

	"unhurriedbench/core/format"
)

// What a request may bring. A form without a file is far below the first; a file is
// refused well below the second, with its form kept.
const (
	smallForm   = 256 << 10
	largestForm = 32 << 20
)

// FormError is what was wrong with the form of a request that may bring a file, nil for
// nothing.
func FormError(r *http.Request) error {
	err, _ := r.Context().Value(formErrorKey).(error)
	return err
}

// TakesForms reads the form of a request, all of it in memory, and refuses one that is
// larger than smallForm or broken.
func (s *Site) TakesForms(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if err := readForm(w, r, smallForm, smallForm); err != nil {
			s.refuseForm(w, r, err)
			return
		}
		next.ServeHTTP(w, r)
	})
}

// TakesFiles reads the form of a request that may bring a file. What is wrong with it is
// for the handler, which knows what was typed; see formError. Files that were put aside
// on disk are taken away.
func (s *Site) TakesFiles(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		err := readForm(w, r, largestForm, format.Largest+1<<20)
		defer func() {
			if r.MultipartForm == nil {
				return
			}
			if err := r.MultipartForm.RemoveAll(); err != nil {
				s.Log.Error("take away uploaded files", "error", err)
			}
		}()
		next.ServeHTTP(w, r.WithContext(context.WithValue(r.Context(), formErrorKey, err)))
	})
}

// readForm reads a form of at most that many bytes, as many of a file's in memory. Bytes
// that no text has are taken out of what was typed.
func readForm(w http.ResponseWriter, r *http.Request, most, inMemory int64) error {
	r.Body = http.MaxBytesReader(w, r.Body, most)
	err := r.ParseForm()
	if err == nil && strings.HasPrefix(r.Header.Get("Content-Type"), "multipart/") {
		err = r.ParseMultipartForm(inMemory)
	}
	for _, values := range r.Form {
		for k, value := range values {
			values[k] = readable(value)
		}
	}
	return err
}

// readable takes out of a text what is no UTF-8, and the zero byte, which no table keeps.
func readable(text string) string {
	return strings.ReplaceAll(strings.ToValidUTF8(text, "�"), "\x00", "")
}

// refuseForm answers a form that could not be taken in.
func (s *Site) refuseForm(w http.ResponseWriter, r *http.Request, err error) {
	status, what := http.StatusBadRequest, Message{"That did not arrive whole", "Go back, and send the form again."}
	var large *http.MaxBytesError
	if errors.As(err, &large) {
		status = http.StatusRequestEntityTooLarge
		what = Message{"That is too much at once", fmt.Sprintf(
			"A form without a file may hold %d KB. Go back and send less.", large.Limit>>10)}
	}
	s.Render(w, status, "message", "layout", LayoutData{Title: what.Heading, Teacher: ActorOf(r).Teacher, Content: what})
}
