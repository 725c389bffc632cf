// Package web puts the rooms of the site together.
package web

import (
	"context"
	"html/template"
	"log/slog"
	"maps"
	"net/http"
	"net/netip"

	"github.com/go-chi/chi/v5"

	"unhurriedbench/store"
	"unhurriedbench/web/account"
	"unhurriedbench/web/bench"
	"unhurriedbench/web/board"
	"unhurriedbench/web/lesson"
	"unhurriedbench/web/music"
	"unhurriedbench/web/my"
	"unhurriedbench/web/settings"
	"unhurriedbench/web/shelf"
	"unhurriedbench/web/site"
	"unhurriedbench/web/student"
	"unhurriedbench/web/students"
)

// Server is the whole site.
type Server struct {
	site       *site.Site
	recordings music.Recordings
}

// New makes a server on an open store.
func New(s *store.Store, log *slog.Logger) (*Server, error) {
	shared, err := site.New(s, log)
	if err != nil {
		return nil, err
	}
	recordings, err := music.ReadRecordings(shared.Assets)
	if err != nil {
		return nil, err
	}
	functions := template.FuncMap{}
	maps.Copy(functions, music.Functions())
	maps.Copy(functions, bench.Functions(recordings))
	return &Server{shared, recordings}, shared.Pages(functions,
		account.Templates, bench.Templates, board.Templates, lesson.Templates, my.Templates, settings.Templates,
		shelf.Templates, student.Templates, students.Templates)
}

// Site is what the rooms share.
func (s *Server) Site() *site.Site { return s.site }

// Routes is the router of the whole site.
func (s *Server) Routes() chi.Router {
	return s.site.Routes(func(r chi.Router) {
		account.Routes(r, s.site)
		shelf.Routes(r, s.site)
		bench.Routes(r, s.site, s.recordings)
		lesson.Routes(r, s.site, s.recordings)
		board.Routes(r, s.site)
		student.Routes(r, s.site)
		students.Routes(r, s.site)
		settings.Routes(r, s.site)
		my.Routes(r, s.site, s.recordings)
	})
}

// Behind tells the server that these proxies may say whom they ask for, and whether
// browsers reach them by https.
func (s *Server) Behind(proxies []netip.Prefix, https bool) { s.site.Behind(proxies, https) }

// Backups tells the server how many nightly backups are kept, 0 for none.
func (s *Server) Backups(nights int) { s.site.BackupNights = nights }

// Metrics is what a watch reads, for loopback alone.
func (s *Server) Metrics() http.Handler { return s.site.Metrics() }

// Serve listens on an address such as 127.0.0.1:8080 until ctx ends.
func (s *Server) Serve(ctx context.Context, address string) error {
	return site.Serve(ctx, address, s.Routes())
}

// ServeMetrics is Serve for Metrics.
func (s *Server) ServeMetrics(ctx context.Context, address string) error {
	return site.Serve(ctx, address, s.Metrics())
}
