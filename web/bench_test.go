package web

import (
	"context"
	"fmt"
	"net/http"
	"net/http/httptest"
	"net/url"
	"strings"
	"testing"

	"unhurriedbench/core/format/musicxml"
	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testscore"
	"unhurriedbench/store"
)

// school is a site with a signed-in teacher who has a large book and a section.
type school struct {
	*site
	visitor  *visitor
	desk     *store.Desk
	section  store.SectionID
	students []store.StudentID
	list     []store.Exercise
}

// furnishSchool makes so many short exercises and full scores of 3 MB, and students
// who have tried some of them.
func furnishSchool(b testing.TB, exercises, scores, students, triesEach int) *school {
	b.Helper()
	s := &school{site: open(b)}
	v, account := s.teacher(b, "a@school.example")
	s.visitor, s.desk = v, s.store.For(account.ID)
	ctx := context.Background()
	fail := func(err error) {
		b.Helper()
		if err != nil {
			b.Fatal(err)
		}
	}
	var err error
	s.section, err = s.desk.AddSection(ctx, "Section")
	fail(err)
	large := string(musicxml.Write(testscore.Long(b)))
	for n := range exercises {
		source := store.Source{Format: "abc", Content: strings.Replace(lamp, "First Lamp", fmt.Sprint("Lamp ", n), 1)}
		if n < scores {
			source = store.Source{Format: "musicxml", Content: large + fmt.Sprintf("<!-- %d -->", n)}
		}
		_, err := s.desk.AddExercise(ctx, store.Exercise{Book: "Book", Number: n + 1, Title: fmt.Sprint("Lamp ", n)}, source)
		fail(err)
	}
	s.visitor.get("/") // which reads them
	s.list, err = s.desk.Exercises(ctx)
	fail(err)
	steps := routine.Standard()
	for k := range students {
		id, err := s.desk.AddStudent(
			ctx,
			store.Student{SectionID: s.section, FirstName: "A", Initial: "B", Instrument: []string{"violin", "trombone", "clarinet"}[k%3]},
		)
		fail(err)
		s.students = append(s.students, id)
		var log []store.Attempt
		for n := range triesEach {
			x := s.list[n/20%len(s.list)]
			a := store.Attempt{StudentID: id, ExerciseID: x.ID, Piece: x.Outline.Pieces[n%2],
				Try: routine.Try{Stage: steps[n/6%len(steps)].Stage, Clean: n%3 > 0}, Tempo: 60}
			if !a.Clean {
				a.Cause = routine.Rhythm
			}
			log = append(log, a)
		}
		fail(s.desk.AddAttempts(ctx, log...))
	}
	_, err = s.store.DB().ExecContext(ctx, "ANALYZE")
	fail(err)
	return s
}

// serve asks the server for a page, sending nothing over a wire.
func (s *school) serve(b *testing.B, method, path string, form url.Values) string {
	b.Helper()
	address, err := url.Parse(s.URL)
	if err != nil {
		b.Fatal(err)
	}
	r := httptest.NewRequest(method, path, strings.NewReader(form.Encode()))
	for _, c := range s.visitor.client.Jar.Cookies(address) {
		r.AddCookie(c)
	}
	if method == "POST" {
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		r.Header.Set("HX-Request", "true")
	}
	w := httptest.NewRecorder()
	s.routes.ServeHTTP(w, r)
	if w.Code != http.StatusOK {
		b.Fatalf("%s %s gives %d: %s", method, path, w.Code, w.Body.String())
	}
	return w.Body.String()
}

// BenchmarkBoard: 60 students by 40 exercises and 50,000 tries.
func BenchmarkBoard(b *testing.B) {
	s := furnishSchool(b, 40, 0, 60, 834)
	for b.Loop() {
		if page := s.serve(b, "GET", "/board", nil); !strings.Contains(page, "60 students") {
			b.Fatal("the Board has not 60 students")
		}
	}
}

// BenchmarkLargeBook: 500 exercises, three of them scores of 3 MB, and 24 students.
func BenchmarkLargeBook(b *testing.B) {
	s := furnishSchool(b, 500, 3, 24, 800)
	score, short := s.list[0].ID, s.list[400].ID
	mark := func(x store.Exercise) url.Values {
		return url.Values{"student": {fmt.Sprint(s.students[1])}, "instrument": {"trombone"}, "piece": {x.Outline.Pieces[0].String()},
			"stage": {"count"}, "result": {"clean"}, "tempo": {"60"}}
	}
	for _, page := range []struct{ name, path string }{
		{"Shelf", "/"}, {"Board", "/board"}, {"History", fmt.Sprintf("/students/%d", s.students[1])},
		{"Bench", fmt.Sprintf("/bench/%d?instrument=trombone", short)}, {"BenchOfScore", fmt.Sprintf("/bench/%d?instrument=trombone", score)},
	} {
		b.Run(page.name, func(b *testing.B) {
			s.serve(b, "GET", page.path, nil)
			for b.Loop() {
				s.serve(b, "GET", page.path, nil)
			}
		})
	}
	for _, at := range []int{0, 400} {
		x := s.list[at]
		b.Run("Mark"+map[int]string{0: "AtScore", 400: ""}[at], func(b *testing.B) {
			for b.Loop() {
				s.serve(b, "POST", fmt.Sprintf("/bench/%d/attempts", x.ID), mark(x))
			}
		})
	}
}

// BenchmarkBench: one exercise of 40 before a section of 60 with 12,000 tries.
func BenchmarkBench(b *testing.B) {
	s := furnishSchool(b, 40, 0, 60, 200)
	x := s.list[20]
	page := fmt.Sprintf("/bench/%d?instrument=trombone&student=%d", x.ID, s.students[1])
	b.Run("Page", func(b *testing.B) {
		for b.Loop() {
			s.serve(b, "GET", page, nil)
		}
	})
	b.Run("Mark", func(b *testing.B) {
		form := url.Values{"student": {fmt.Sprint(s.students[1])}, "instrument": {"trombone"}, "piece": {x.Outline.Pieces[0].String()}, "stage": {"count"}, "result": {"clean"}, "tempo": {"60"}}
		for b.Loop() {
			s.serve(b, "POST", fmt.Sprintf("/bench/%d/attempts", x.ID), form)
		}
	})
}
