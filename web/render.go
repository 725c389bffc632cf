package web

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

// layoutData is what the layout needs around every page.
type layoutData struct {
	Title   string
	Screen  string // which item of the menu is current
	Teacher store.Teacher
	Flash   string
	Undo    string // where to post to take back what Flash tells of
	Bench   string // the address of the Bench as it was left, "" for none
	Content any
}

// page renders a whole page with its layout.
func (s *Server) page(w http.ResponseWriter, r *http.Request, status int, name, title string, content any) {
	f := layoutData{Title: title, Screen: name, Teacher: asking(r).Teacher, Content: content}
	f.Flash = s.sessions.PopString(r.Context(), "flash")
	f.Bench = s.benchAgain(r)
	f.Undo = s.sessions.PopString(r.Context(), "undo")
	s.render(w, status, name, "layout", f)
}

// fragment renders one named template of a page's set, for htmx.
func (s *Server) fragment(w http.ResponseWriter, name, part string, content any) {
	s.render(w, http.StatusOK, name, part, content)
}

// json answers a script.
func (s *Server) json(w http.ResponseWriter, r *http.Request, v any) {
	text, err := json.Marshal(v)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	w.Header().Set("Content-Type", "application/json")
	_, _ = w.Write(text) // the reader has gone when this fails
}

func (s *Server) render(w http.ResponseWriter, status int, name, part string, data any) {
	var b bytes.Buffer
	if err := s.pages[name].ExecuteTemplate(&b, part, data); err != nil {
		s.log.Error("render", "page", name, "error", err)
		http.Error(w, "This page could not be shown. Go back and try again.", http.StatusInternalServerError)
		return
	}
	w.Header().Set("Content-Type", "text/html; charset=utf-8")
	w.WriteHeader(status)
	_, _ = b.WriteTo(w) // the reader has gone when this fails
}

// flash leaves a sentence for the next page.
func (s *Server) flash(r *http.Request, text string) { s.sessions.Put(r.Context(), "flash", text) }

func isHTMX(r *http.Request) bool { return r.Header.Get("HX-Request") == "true" }

// message is the page for an error.
type message struct{ Heading, Text string }

func (s *Server) notFound(w http.ResponseWriter, r *http.Request) {
	if a, err := s.signedIn(r); err == nil && a.desk != nil {
		s.render(w, http.StatusNotFound, "message", "layout", layoutData{Title: "Not here", Teacher: a.Teacher,
			Content: message{
				"That is not here",
				"It may have been removed, or the address is wrong. Everything that is yours is on the Shelf and in People.",
			}})
		return
	}
	s.render(w, http.StatusNotFound, "message", "layout", layoutData{Title: "Not here",
		Content: message{"That is not here", "Sign in to see your exercises."}})
}

// failed answers an error: not found for rows that are not the teacher's, and
// otherwise a page that says nothing was lost.
func (s *Server) failed(w http.ResponseWriter, r *http.Request, err error) {
	if errors.Is(err, store.ErrNotFound) {
		s.notFound(w, r)
		return
	}
	if errors.Is(err, store.ErrOnlyLooking) {
		s.render(w, http.StatusForbidden, "message", "layout", layoutData{Title: "To look at", Teacher: asking(r).Teacher,
			Content: message{"This section is yours to look at", "Nothing was marked. Ask " + deskOf(r).Guest().Teacher + ", whose section it is, if you are to mark in it."}})
		return
	}
	s.log.Error("request failed", "error", err)
	s.render(w, http.StatusInternalServerError, "message", "layout", layoutData{Title: "Something went wrong", Teacher: asking(r).Teacher,
		Content: message{"Something went wrong", "It was not saved. What you had before is unchanged. Go back and try again."}})
}

// idOf reads an id from the route; 0, which no row has, when it is none.
func idOf[ID ~int64](r *http.Request) ID {
	n, err := strconv.ParseInt(chi.URLParam(r, "id"), 10, 64)
	if err != nil {
		return 0
	}
	return ID(n)
}

// number reads a whole number from a form; 0 when it is none.
func number(r *http.Request, name string) int64 {
	n, err := strconv.ParseInt(strings.TrimSpace(r.FormValue(name)), 10, 64)
	if err != nil {
		return 0
	}
	return n
}

func text(r *http.Request, name string) string { return strings.TrimSpace(r.FormValue(name)) }
