package my

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"time"

	"github.com/go-chi/chi/v5"
	"github.com/go-chi/chi/v5/middleware"
	"github.com/go-chi/httprate"

	"unhurriedbench/core/care"
	"unhurriedbench/core/instrument"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/music"
	"unhurriedbench/web/site"
)

// studentKey is the key under which a request carries whose own page it is.
type studentKey struct{}

// athome is the student who has opened their own page.
func athome(r *http.Request) store.AtHome {
	h, _ := r.Context().Value(studentKey{}).(store.AtHome)
	return h
}

// ownFrame is what every page of a student's own needs around it.
type ownFrame struct {
	teach.Catalog
	Language string
	Title    string
	Screen   string
	First    string // name
	Key      string // of the link, "" where there is nobody
	Care     care.Kind
}

// Path is the address of a page of the student's own.
func (f ownFrame) Path(page string) string { return "/my/" + f.Key + "/" + page }

// newOwnFrame is the frame of a page for anyone who has opened it.
func newOwnFrame(r *http.Request, screen string) (ownFrame, error) {
	words, err := teach.English()
	f := ownFrame{Catalog: words, Language: "en", Screen: screen}
	if h := athome(r); h.Key != "" {
		f.First, f.Key = h.Student.FirstName, h.Key
		i, _ := instrument.ByID(h.Student.Instrument)
		f.Care = care.KindOf(i)
		f.Title = words.Say("page.title", f.First)
	}
	return f, err
}

// ownMessage is a page of a heading and a sentence.
type ownMessage struct {
	ownFrame
	Heading, Text string
}

// sayOwn answers with a page of a heading and a sentence.
func (s *handlers) sayOwn(w http.ResponseWriter, r *http.Request, status int, what string) {
	f, err := newOwnFrame(r, "message")
	if err != nil {
		s.Log.Error("words", "error", err)
	}
	f.Title = f.Say(what + ".title")
	s.Render(w, status, "ownmessage", "own-layout", ownMessage{f, f.Title, f.Say(what + ".text")})
}

// handle is site.Handle for a student's page.
func (s *handlers) handle(h func(w http.ResponseWriter, r *http.Request) error) http.HandlerFunc {
	return func(w http.ResponseWriter, r *http.Request) {
		if err := h(w, r); err != nil {
			s.failedOwn(w, r, err)
		}
	}
}

// failedOwn answers what went wrong on a student's page.
func (s *handlers) failedOwn(w http.ResponseWriter, r *http.Request, err error) {
	switch {
	case errors.Is(err, store.ErrNotFound):
		s.sayOwn(w, r, http.StatusNotFound, "gone")
	case errors.Is(err, context.Canceled):
	default:
		s.Log.Error("a student's page", "route", chi.RouteContext(r.Context()).RoutePattern(), "error", err)
		s.sayOwn(w, r, http.StatusServiceUnavailable, "away")
	}
}

// ownHeaders keep a student's page out of search engines and its address out of what other
// sites learn.
func ownHeaders(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		w.Header().Set("Referrer-Policy", "no-referrer")
		w.Header().Set("X-Robots-Tag", "noindex, nofollow, noarchive")
		w.Header().Set("Cache-Control", "no-store")
		next.ServeHTTP(w, r)
	})
}

// Asking for students' pages is bounded for each network, so that no faulty browser is
// in the way of others: a whole school behind one address opens its pages within a minute.
const ownPagesPerMinute = 6000

func (s *handlers) limitOwnPages(next http.Handler) http.Handler {
	return httprate.LimitBy(ownPagesPerMinute, time.Minute, site.CallerNetwork,
		httprate.WithLimitHandler(func(w http.ResponseWriter, r *http.Request) {
			s.sayOwn(w, r, http.StatusTooManyRequests, "away")
		}))(next)
}

// requireStudent lets a student in by the key of their link.
func (s *handlers) requireStudent(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		h, err := s.Store.AtHome(r.Context(), chi.URLParam(r, "key"))
		if err != nil {
			s.failedOwn(w, r, err)
			return
		}
		r = r.WithContext(context.WithValue(r.Context(), studentKey{}, h))
		class := teach.OfStudent(h.Desk(), s.Reader, h.Student)
		class.Clock = s.Now
		next.ServeHTTP(w, site.WithActor(r, site.Actor{Class: class}))
	})
}

// pinGiven is the session's key for the PIN that opened a page.
func pinGiven(h store.AtHome) string { return "pin " + h.Key }

// requirePIN asks for the PIN where there is one and it was not given in this session.
func (s *handlers) requirePIN(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		h := athome(r)
		if h.PIN && s.Sessions.GetString(r.Context(), pinGiven(h)) != h.Stamp {
			if r.Method != http.MethodGet {
				w.WriteHeader(http.StatusUnauthorized) // a script sends it again once the PIN is given
				return
			}
			if err := s.askPIN(w, r, http.StatusUnauthorized, ""); err != nil {
				s.failedOwn(w, r, err)
			}
			return
		}
		next.ServeHTTP(w, r)
	})
}

// ownPIN is the page that asks for a PIN.
type ownPIN struct {
	ownFrame
	Problem string
	Closed  bool
}

func (s *handlers) askPIN(w http.ResponseWriter, r *http.Request, status int, problem string) error {
	f, err := newOwnFrame(r, "pin")
	if err != nil {
		return err
	}
	f.Title = f.Say("pin.title")
	v := ownPIN{ownFrame: f, Closed: problem == "pin.closed"}
	if problem != "" {
		v.Problem = f.Say(problem)
	}
	s.Render(w, status, "ownpin", "own-layout", v)
	return nil
}

// givePIN opens a page with a PIN.
func (s *handlers) givePIN(w http.ResponseWriter, r *http.Request) error {
	h, pin := athome(r), site.Text(r, "pin")
	if !h.PIN {
		http.Redirect(w, r, "/my/"+h.Key+"/", http.StatusSeeOther)
		return nil
	}
	if !site.FourFigures.MatchString(pin) {
		return s.askPIN(w, r, http.StatusUnprocessableEntity, "pin.four")
	}
	came, err := h.TryPIN(r.Context(), pin)
	if err != nil {
		return err
	}
	if came != store.PINRight {
		return s.askPIN(w, r, http.StatusUnprocessableEntity, map[store.Tried]string{store.PINWrong: "pin.wrong",
			store.PINWaits: "pin.waits", store.PINClosed: "pin.closed"}[came])
	}
	s.Sessions.Put(r.Context(), pinGiven(h), h.Stamp)
	http.Redirect(w, r, "/my/"+h.Key+"/", http.StatusSeeOther)
	return nil
}

// ownRoutes are the pages of a student's own. They know one student, whom the key in their
// address names; no route of a teacher's leads here, and none of these there.
func (s *handlers) ownRoutes(r chi.Router) {
	r.Use(ownHeaders, s.limitOwnPages, s.TakesForms, s.requireStudent, middleware.Compress(2))
	r.Post("/pin", s.handle(s.givePIN))
	r.Get("/worker.js", s.handle(s.ownWorker))
	r.Group(func(r chi.Router) {
		r.Use(s.requirePIN)
		r.Get("/", s.handle(s.ownToday))
		r.Get("/music", s.handle(s.musicOfSteps))
		r.Get("/voice.wav", s.handle(music.ServeWords))
		r.Get("/voice.json", s.handle(music.ServeWords))
		r.Get("/cards", s.handle(s.ownCards))
		r.Get("/notes", s.handle(s.ownNotes))
		r.Get("/care", s.handle(s.ownCare))
		r.Get("/plan.ics", s.handle(s.ownCalendar))
		r.Post("/earlier", s.handle(s.earlierKeys))
		r.Post("/tries", s.handle(s.sayTry))
		r.Post("/days", s.handle(s.pickDays))
		r.Post("/ticks", s.handle(s.tickLine))
		r.Post("/answers", s.handle(s.answerCards))
	})
}

// ownCareView is what there is to know of the student's instrument.
type ownCareView struct {
	ownFrame
	Topics []teach.CareTopic
}

func (s *handlers) ownCare(w http.ResponseWriter, r *http.Request) error {
	f, err := newOwnFrame(r, "care")
	if err != nil {
		return err
	}
	saved, err := site.ClassOf(r).Settings(r.Context())
	if err != nil {
		return err
	}
	f.Title = f.Say("page.care")
	s.Render(w, http.StatusOK, "owncare", "own-layout", ownCareView{f, teach.CareTopics(saved, f.Care)})
	return nil
}

// ownCalendar is the plan for a calendar.
func (s *handlers) ownCalendar(w http.ResponseWriter, r *http.Request) error {
	v, err := teach.LoadPracticePlan(r.Context(), site.ClassOf(r), athome(r).Student.ID)
	if err == nil && !v.Has {
		err = fmt.Errorf("find the plan: %w", store.ErrNotFound)
	}
	if err != nil {
		return err
	}
	s.SendCalendar(w, v)
	return nil
}
