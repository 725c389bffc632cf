package site

import (
	"bytes"
	"embed"
	"encoding/json"
	"errors"
	"fmt"
	"html/template"
	"io/fs"
	"net/http"
	"path"
	"strconv"
	"strings"

	"github.com/go-chi/chi/v5"

	"unhurriedbench/core/score"
	"unhurriedbench/store"
)

//go:embed templates/*.html
var templateFiles embed.FS

// pages holds a template set for each page: the layout, the partials, and the
// page's own file.
type pages map[string]*template.Template

// parsePages reads every template. Files that begin with _ are shared.
func parsePages(shared *template.Template, rooms []fs.FS) (pages, error) {
	set := pages{}
	for _, room := range rooms {
		names, err := fs.Glob(room, "templates/*.html")
		if err != nil {
			return nil, fmt.Errorf("list the templates: %w", err)
		}
		for _, name := range names {
			base := path.Base(name)
			if strings.HasPrefix(base, "_") {
				continue
			}
			page, err := template.Must(shared.Clone()).ParseFS(room, name)
			if err != nil {
				return nil, fmt.Errorf("read the template %s: %w", base, err)
			}
			set[strings.TrimSuffix(base, ".html")] = page
		}
	}
	return set, nil
}

// LayoutData is what the layout needs around every page.
type LayoutData struct {
	Title   string
	Screen  string // which item of the menu is current
	Teacher store.Teacher
	Flash   string
	Undo    string // where to post to take back what Flash tells of
	Bench   string // the address of the Bench as it was left, "" for none
	Content any
}

// Page renders a whole page with its layout.
func (s *Site) Page(w http.ResponseWriter, r *http.Request, status int, name, title string, content any) {
	f := LayoutData{Title: title, Screen: name, Teacher: ActorOf(r).Teacher, Content: content}
	f.Flash = s.Sessions.PopString(r.Context(), "flash")
	f.Bench = s.LastBench(r)
	f.Undo = s.Sessions.PopString(r.Context(), "undo")
	s.Render(w, status, name, "layout", f)
}

// Fragment renders one named template of a page's set, for htmx.
func (s *Site) Fragment(w http.ResponseWriter, name, part string, content any) {
	s.Render(w, http.StatusOK, name, part, content)
}

// JSON answers a script.
func (s *Site) JSON(w http.ResponseWriter, r *http.Request, v any) {
	text, err := json.Marshal(v)
	if err != nil {
		s.Failed(w, r, err)
		return
	}
	w.Header().Set("Content-Type", "application/json")
	_, _ = w.Write(text) // the reader has gone when this fails
}

// Render writes a part of a page's templates.
func (s *Site) Render(w http.ResponseWriter, status int, name, part string, data any) {
	var b bytes.Buffer
	if err := s.pages[name].ExecuteTemplate(&b, part, data); err != nil {
		s.Log.Error("render", "page", name, "error", err)
		http.Error(w, "This page could not be shown. Go back and try again.", http.StatusInternalServerError)
		return
	}
	w.Header().Set("Content-Type", "text/html; charset=utf-8")
	w.WriteHeader(status)
	_, _ = b.WriteTo(w) // the reader has gone when this fails
}

// Flash leaves a sentence for the next page.
func (s *Site) Flash(r *http.Request, text string) { s.Sessions.Put(r.Context(), "flash", text) }

// IsHTMX says whether a script asks, which takes parts of pages.
func IsHTMX(r *http.Request) bool { return r.Header.Get("HX-Request") == "true" }

// Message is the page for an error.
type Message struct{ Heading, Text string }

// NotFound says that something is not here.
func (s *Site) NotFound(w http.ResponseWriter, r *http.Request) {
	if a, err := s.SignedIn(r); err == nil && a.Class != nil {
		s.Render(w, http.StatusNotFound, "message", "layout", LayoutData{Title: "Page not found", Teacher: a.Teacher,
			Content: Message{
				"Page not found",
				"It may have been removed, or the address is wrong. Everything that is yours is on the Shelf and in Students.",
			}})
		return
	}
	s.Render(w, http.StatusNotFound, "message", "layout", LayoutData{Title: "Page not found",
		Content: Message{"Page not found", "Sign in to see your exercises."}})
}

// Handle answers requests with a handler, and with Failed where it returns an error.
func (s *Site) Handle(h func(w http.ResponseWriter, r *http.Request) error) http.HandlerFunc {
	return func(w http.ResponseWriter, r *http.Request) {
		if err := h(w, r); err != nil {
			s.Failed(w, r, err)
		}
	}
}

// Failed answers an error: not found for rows that are not the teacher's, and
// otherwise a page that says nothing was lost.
func (s *Site) Failed(w http.ResponseWriter, r *http.Request, err error) {
	if errors.Is(err, store.ErrNotFound) {
		s.NotFound(w, r)
		return
	}
	var unread score.Problems
	if errors.As(err, &unread) { // an exercise that could be read once
		s.Render(w, http.StatusUnprocessableEntity, "message", "layout", LayoutData{Title: "Cannot be read",
			Teacher: ActorOf(r).Teacher,
			Content: Message{"This exercise cannot be read any more", unread.Error()}})
		return
	}
	if errors.Is(err, store.ErrOnlyLooking) {
		s.Render(w, http.StatusForbidden, "message", "layout", LayoutData{Title: "To look at", Teacher: ActorOf(r).Teacher,
			Content: Message{"This class is yours to look at", "Nothing was marked. Ask " + ClassOf(r).Guest().Teacher +
				", whose class it is, if you are to mark in it."}})
		return
	}
	s.Log.Error("request failed", "error", err)
	s.Render(w, http.StatusInternalServerError, "message", "layout", LayoutData{Title: "Something went wrong",
		Teacher: ActorOf(r).Teacher,
		Content: Message{"Something went wrong", "It was not saved. What you had before is unchanged. Go back and try again."}})
}

// ID reads an id from the route; 0, which no row has, when it is not a number.
func ID[ID ~int64](r *http.Request) ID {
	n, err := strconv.ParseInt(chi.URLParam(r, "id"), 10, 64)
	if err != nil {
		return 0
	}
	return ID(n)
}

// Number reads a whole number from a form; 0 when it is not a number.
func Number(r *http.Request, name string) int64 {
	n, err := strconv.ParseInt(strings.TrimSpace(value(r, name)), 10, 64)
	if err != nil {
		return 0
	}
	return n
}

// Text is what was typed into a field, without the spaces around it.
func Text(r *http.Request, name string) string { return strings.TrimSpace(value(r, name)) }

// formerly are the names that fields had before: what waits in a browser, and addresses that were
// kept, have them still.
var formerly = map[string]string{"class": "section", "chunk": "piece", "request_key": "press"}

func value(r *http.Request, name string) string {
	if v := r.FormValue(name); v != "" || formerly[name] == "" {
		return v
	}
	return r.FormValue(formerly[name])
}
