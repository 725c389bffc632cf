package board

import (
	"html/template"
	"io"
	"net/http"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// where answers at which measure of a chunk, and at what, a student who is stuck on it most
// likely goes wrong. A Board asks for it once it stands.
func (s *handlers) where(w http.ResponseWriter, r *http.Request) error {
	ctx, desk := r.Context(), site.ClassOf(r)
	student, err := desk.StudentByID(ctx, store.StudentID(site.Number(r, "student")))
	if err != nil {
		return err
	}
	x, err := desk.Exercise(ctx, store.ExerciseID(site.Number(r, "exercise")))
	if err != nil {
		return err
	}
	key, is := breakdown.ParseChunkKey(site.Text(r, "chunk"))
	cause, known := routine.ParseCause(site.Text(r, "cause"))
	words := ""
	if is && known {
		reads, err := teach.NewPartReader(ctx, desk, student)
		if err == nil {
			words, err = teach.WhereIn(ctx, desk, reads, x, key, cause)
		}
		if err != nil {
			return err
		}
	}
	w.Header().Set("Content-Type", "text/html; charset=utf-8")
	_, _ = io.WriteString(w, template.HTMLEscapeString(words)) // the reader has gone when this fails
	return nil
}
