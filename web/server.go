// Package web serves the pages. Each screen has a file of its own.
package web

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
	"github.com/go-chi/chi/v5"
	"github.com/go-chi/chi/v5/middleware"

	"unhurriedbench/reading"
	"unhurriedbench/store"
)

// Server holds what the handlers share.
type Server struct {
	store      *store.Store
	reader     *reading.Reader
	sessions   *scs.SessionManager
	assets     *assets
	recordings recordings
	pages      pages
	log        *slog.Logger
	proxies    []netip.Prefix // that may say whom they ask for
	https      bool

	forms        forms
	metrics      *metrics
	backupNights int // how many nightly backups are kept, 0 for none
}

// New makes a server on an open store.
func New(s *store.Store, log *slog.Logger) (*Server, error) {
	browserFiles, err := packedAssets()
	if err != nil {
		return nil, err
	}
	recorded, err := readRecordings(browserFiles)
	if err != nil {
		return nil, err
	}
	shared, err := template.New("").Funcs(functions).Funcs(musicFunctions()).Funcs(benchFunctions(recorded)).
		Funcs(template.FuncMap{"asset": browserFiles.address}).ParseFS(templateFiles, "templates/_*.html")
	if err != nil {
		return nil, fmt.Errorf("read the shared templates: %w", err)
	}
	pages, err := parsePages(shared, []fs.FS{templateFiles})
	if err != nil {
		return nil, err
	}
	forms, err := newForms()
	if err != nil {
		return nil, err
	}
	sessions := scs.New()
	sessions.Store = postgresstore.New(s.DB())
	sessions.Lifetime = longestSession // an owner's limits are shorter; see holds
	sessions.Cookie.Name = "bench"
	sessions.Cookie.HttpOnly = true
	sessions.Cookie.SameSite = http.SameSiteLaxMode
	sessions.Cookie.Persist = false // but where the computer is one's own
	server := &Server{store: s, reader: reading.New(reading.Memory), sessions: sessions, assets: browserFiles, recordings: recorded, pages: pages, forms: forms, log: log}
	sessions.ErrorFunc = server.away
	server.metrics = server.newMetrics()
	return server, nil
}

func (s *Server) fromAnotherSite(w http.ResponseWriter, _ *http.Request) {
	const heading = "That came from another site"
	s.render(w, http.StatusForbidden, "message", "layout", layoutData{Title: heading,
		Content: message{heading, "Nothing was changed: this form came from another site than this one. Open the page here and send it again."}})
}

// Routes is the whole site.
func (s *Server) Routes() chi.Router {
	r := chi.NewRouter()
	sameSite := http.NewCrossOriginProtection()
	sameSite.SetDenyHandler(http.HandlerFunc(s.fromAnotherSite))
	sameSite.AddInsecureBypassPattern("/my/{key}/") // a student's key is in the address, which another site does not know
	r.Use(s.fromProxies, s.logRequests, middleware.Recoverer, securityHeaders, sameSite.Handler, middleware.GetHead)
	r.Handle("/static/*", s.assets)
	r.Get("/health", s.health)
	r.Get("/ready", s.ready)

	r.Group(func(r chi.Router) {
		r.Use(s.sessions.LoadAndSave)
		r.NotFound(s.notFound)
		r.Group(func(r chi.Router) {
			r.Use(s.takesForms)
			r.Get("/sign-in", s.signInPage)
			r.Get("/welcome", s.welcomePage)
			r.With(s.limitSignIns).Post("/sign-in", s.signIn)
			r.With(s.limitSignIns).Post("/welcome", s.welcome)
			r.Get("/join/{link}", s.joinPage)
			r.With(s.limitSignIns).Post("/join/{link}", s.join)
			r.Post("/sign-in/demo", s.signInDemo)
			r.Post("/sign-out", s.signOut)
		})
		r.Route("/my/{key}", s.ownRoutes)
		r.Group(func(r chi.Router) {
			r.Use(s.requireTeacher, s.takesFiles, middleware.Compress(2))
			r.Post("/exercises", s.addExercise)
			r.Post("/exercises/preview", s.previewExercise)
			r.Post("/exercises/turn", s.turnExercise)
			r.Post("/exercises/many", s.lookAtMany)
			r.Post("/exercises/many/keep", s.keepMany)
			r.Post("/exercises/{id}", s.changeExercise)
			r.Post("/exercises/{id}/parts/own", s.keepPart)
			r.Post("/account/archive", s.bringArchive)
			r.Post("/people/table", s.bringTable)
		})
		r.Group(func(r chi.Router) {
			r.Use(s.requireTeacher, s.takesForms, middleware.Compress(2))
			r.Get("/", s.shelf)

			r.Get("/exercises/new", s.newExercise)
			r.Get("/exercises/many", s.chooseMany)
			r.Post("/exercises/many/read", s.readMany)
			r.Post("/exercises/many/undo", s.undoMany)
			r.Get("/books/{id}/export", s.exportBook)
			r.Get("/removed", s.removed)
			r.Post("/removed/{what}/{id}/back", s.putBack)
			r.Post("/removed/{what}/{id}/erase", s.eraseNow)
			r.Post("/removed/overdue", s.eraseOverdue)
			r.Post("/books/{id}/remove", s.takeAway(store.ABook, "/"))
			r.Post("/sections/{id}/remove", s.takeAway(store.ASection, "/people"))
			r.Post("/students/{id}/remove", s.takeAway(store.AStudent, "/people"))
			r.Post("/students/{id}/left", s.studentLeft)
			r.Post("/students/{id}/return", s.studentBack)

			r.Get("/exercises/{id}/edit", s.editExercise)
			r.Post("/exercises/{id}/remove", s.removeExercise)

			r.Get("/exercises/{id}/export", s.exportExercise)
			r.Get("/exercises/{id}/parts", s.parts)
			r.Post("/exercises/{id}/parts", s.dealParts)
			r.Post("/exercises/{id}/parts/drop", s.dropPart)
			r.Post("/exercises/{id}/second", s.keepSecond)
			r.Post("/lines/give", s.giveLine)
			r.Post("/exercises/{id}/octave", s.keepOctave)
			r.Post("/exercises/{id}/move", s.moveExercise)
			r.Post("/books/{id}/order", s.orderByNumber)
			r.Post("/books/ferry", s.addFerryBook)
			r.Post("/sheets/recipes", s.keepRecipe)
			r.Get("/tune", s.tune)
			r.Get("/compare", s.compare)
			r.Get("/fingerings/{instrument}", s.chart)
			r.Get("/fingerings/{instrument}/near", s.near)
			r.Post("/fingerings/{instrument}", s.prefer)
			r.Post("/fingerings/{instrument}/kind", s.keepKind)

			r.Group(func(r chi.Router) {
				r.Use(s.inGiven)
				r.Get("/bench/{id}", s.bench)
				r.Get("/bench/{id}/hardest", s.hardest)
				r.Get("/bench/{id}/sheets", s.sheets)
				r.Get("/bench/{id}/first-notes", s.firstNotes)
				r.Post("/bench/{id}/attempts", s.addAttempt)
				r.Post("/bench/{id}/everybody", s.everybodyClean)
				r.Post("/bench/{id}/move", s.moveStudent)
				r.Post("/attempts/{id}/undo", s.undoAttempt)
				r.Post("/batches/{id}/undo", s.undoBatch)
				r.Get("/lessons", s.lessons)
				r.Post("/lessons", s.planLesson)
				r.Get("/lessons/{id}", s.lesson)
				r.Post("/lessons/{id}/plan", s.changePlan)
				r.Post("/lessons/{id}/drop", s.dropLesson)
				r.Post("/lessons/{id}/begin", s.beginLesson)
				r.Post("/lessons/{id}/end", s.endLesson)
				r.Get("/lessons/{id}/run", s.runLesson)
				r.Post("/lessons/{id}/at", s.lessonAt)
				r.Post("/lessons/{id}/mark", s.markLesson)
				r.Post("/lessons/{id}/undo", s.undoLesson)
				r.Post("/lessons/group", s.takeGroup)
				r.Get("/check-ins", s.checkins)
				r.Post("/check-ins", s.setCheckins)
				r.Get("/check-ins/queue", s.startQueue)
				r.Get("/check-ins/{id}", s.checkin)
				r.Post("/check-ins/{id}/mark", s.markCheckin)
				r.Post("/check-ins/{id}/undo", s.undoCheckin)
				r.Post("/check-ins/{id}/due", s.changeDue)
				r.Post("/check-ins/{id}/end", s.endCheckin)
				r.Post("/check-ins/{id}/drop", s.dropCheckin)
				r.Get("/cards", s.classCards)
				r.Get("/plans", s.plans)
				r.Post("/plans", s.makePlans)
				r.Get("/students/{id}/plan", s.homePlan)
				r.Post("/students/{id}/plan", s.makeHomePlan)
				r.Post("/students/{id}/plan/day", s.changeHomeDay)
				r.Post("/students/{id}/plan/drop", s.dropHomePlan)
				r.Get("/students/{id}/plan.ics", s.homeCalendar)
				r.Get("/students/{id}/family", s.family)
				r.Get("/board", s.board)
				r.Get("/board/pulse", s.pulse)
				r.Get("/board/where", s.where)
				r.Get("/board/heat", s.heat)
				r.Get("/board/weeks", s.weeks)
				r.Get("/board/groups", s.groups)
				r.Get("/board/grades", s.grades)
				r.Get("/students/{id}", s.history)
				r.Post("/students/{id}/undo", s.undoTry)
			})
			r.Post("/bench/{id}/line", s.keepLine)
			r.Post("/bench/{id}/fingering", s.keepFingering)
			r.Post("/bench/{id}/pencil", s.pencil)
			r.Post("/bench/{id}/pieces", s.cutPieces)

			r.Get("/account", s.account)
			r.With(s.limitSignIns).Post("/account/password", s.changePassword)
			r.Post("/account/sessions", s.endSessions)
			r.Post("/account/invite", s.invite)
			r.Post("/account/reset/{id}", s.inviteToReset)
			r.With(s.limitSignIns).Post("/account/remove/{id}", s.removeTeacher)
			r.Post("/account/back/{id}", s.putTeacherBack)
			r.Post("/account/erase/{id}", s.eraseTeacher)
			r.Post("/account/owner/{id}", s.handInstallationOver)
			r.Post("/account/house", s.keepHouse)
			r.Get("/account/log", s.deeds)
			r.Get("/account/archive", s.takeArchive)

			r.Get("/settings", s.settings)
			r.Post("/settings", s.keepSettings)

			r.Get("/care/{kind}", s.care)
			r.Post("/care/{kind}", s.keepCare)
			r.Get("/routines", s.routines)
			r.Get("/routines/edit", s.editRoutine)
			r.Post("/routines", s.keepRoutine)
			r.Post("/routines/choose", s.chooseRoutine)
			r.Post("/routines/drop", s.dropRoutine)

			r.Get("/people", s.people)
			r.Get("/people/table", s.peopleTable)
			r.Get("/people/students.csv", s.takeTable)
			r.Post("/students/{id}/note", s.keepNote)
			r.Post("/students/{id}/own-page", s.makeOwnPage)
			r.Post("/students/{id}/own-page/end", s.endOwnPage)
			r.Post("/students/{id}/own-page/pin", s.setPIN)
			r.Post("/plans/own-pages", s.makeOwnPages)
			r.Post("/cards", s.keepCards)
			r.Post("/students/{id}/second", s.addSecond)
			r.Get("/sections/{id}/seats", s.seats)
			r.Post("/sections/{id}/seats", s.keepSeats)
			r.Post("/sections", s.addSection)
			r.Post("/sections/{id}/list", s.addRoster)
			r.Post("/sections/{id}/school", s.keepSchool)
			r.Post("/sections/{id}/year", s.keepYear)
			r.Post("/sections/{id}/give", s.giveSection)
			r.Post("/sections/{id}/take", s.takeSectionBack)
			r.Post("/students", s.addStudent)
			r.Post("/students/{id}", s.changeStudent)
			r.Post("/students/{id}/rule", s.keepRule)
		})
	})
	return r
}

// Serve listens on an address such as 127.0.0.1:8080 until ctx ends.
func (s *Server) Serve(ctx context.Context, address string) error {
	return serve(ctx, address, s.Routes())
}

// ServeMetrics is Serve for Metrics.
func (s *Server) ServeMetrics(ctx context.Context, address string) error {
	return serve(ctx, address, s.Metrics())
}

func serve(ctx context.Context, address string, handler http.Handler) error {
	server := &http.Server{
		Addr: address, Handler: handler,
		ReadHeaderTimeout: 10 * time.Second, ReadTimeout: time.Minute, WriteTimeout: 2 * time.Minute, IdleTimeout: 2 * time.Minute,
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
