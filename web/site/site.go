// Package site is what all pages share: who asks, sessions, pages and forms, errors, and the
// files that browsers fetch.
package site

import (
	"context"
	"errors"
	"fmt"
	"html/template"
	"io/fs"
	"log/slog"
	"net/http"
	"net/netip"
	"time"

	"github.com/alexedwards/scs/postgresstore"
	"github.com/alexedwards/scs/v2"

	"unhurriedbench/reading"
	"unhurriedbench/store"
)

// Site holds what the handlers share.
type Site struct {
	Store    *store.Store
	Reader   *reading.Reader
	Sessions *scs.SessionManager
	Assets   *Assets
	Log      *slog.Logger
	Forms    forms

	Clock        func() time.Time // what time it is; tests set it
	BackupNights int              // how many nightly backups are kept, 0 for none

	pages   pages
	proxies []netip.Prefix // that may say whom they ask for
	https   bool
	metrics *metrics
}

// Now is what time it is.
func (s *Site) Now() time.Time { return s.Clock() }

// New makes a site on an open store, without pages: see Pages.
func New(s *store.Store, log *slog.Logger) (*Site, error) {
	browserFiles, err := Files()
	if err != nil {
		return nil, err
	}
	forms, err := NewForms()
	if err != nil {
		return nil, err
	}
	sessions := scs.New()
	sessions.Store = postgresstore.NewWithCleanupInterval(s.DB(), 0) // store.DeleteExpired sweeps them
	sessions.Lifetime = longestSession                               // an owner's limits are shorter; see holds
	sessions.Cookie.Name = "bench"
	sessions.Cookie.HttpOnly = true
	sessions.Cookie.SameSite = http.SameSiteLaxMode
	sessions.Cookie.Persist = false // but where the computer is one's own
	site := &Site{Store: s, Clock: time.Now, Reader: reading.New(reading.Memory), Sessions: sessions, Assets: browserFiles,
		Forms: forms, Log: log}
	sessions.ErrorFunc = site.unavailable
	site.metrics = site.newMetrics()
	return site, nil
}

// Pages reads the templates of all rooms, which may call more functions beside those that all
// pages have.
func (s *Site) Pages(more template.FuncMap, rooms ...fs.FS) error {
	shared, err := template.New("").Funcs(functions).Funcs(more).
		Funcs(template.FuncMap{"asset": s.Assets.Address, "module": s.Assets.Module}).ParseFS(templateFiles, "templates/_*.html")
	if err != nil {
		return fmt.Errorf("read the shared templates: %w", err)
	}
	s.pages, err = parsePages(shared, append(rooms, templateFiles))
	return err
}

func (s *Site) fromAnotherSite(w http.ResponseWriter, _ *http.Request) {
	const heading = "That came from another site"
	s.Render(w, http.StatusForbidden, "message", "layout", LayoutData{Title: heading,
		Content: Message{heading, "Nothing was changed: this form came from another site than this one. Open the page here and send it again."}})
}

// Serve listens on an address such as 127.0.0.1:8080 until ctx ends.
func Serve(ctx context.Context, address string, handler http.Handler) error {
	server := &http.Server{
		Addr: address, Handler: handler,
		ReadHeaderTimeout: 10 * time.Second, ReadTimeout: time.Minute, WriteTimeout: 2 * time.Minute,
		IdleTimeout:    2 * time.Minute,
		MaxHeaderBytes: 64 << 10,
	}
	ended := make(chan error, 1)
	go func() { ended <- server.ListenAndServe() }()
	select {
	case err := <-ended:
		return fmt.Errorf("serve on %s: %w", address, err)
	case <-ctx.Done():
	}
	closing, cancel := context.WithTimeout(context.Background(), 5*time.Second)
	defer cancel()
	if err := server.Shutdown(closing); err != nil && !errors.Is(err, context.DeadlineExceeded) {
		return fmt.Errorf("stop serving: %w", err)
	}
	return nil
}
