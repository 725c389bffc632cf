package bench_test

import (
	"fmt"
	"net/http"
	"net/http/httptest"
	"net/url"
	"strings"
	"testing"

	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
)

// serve asks the server for a page, sending nothing over a wire.
func serve(b *testing.B, s *testsite.School, method, path string, form url.Values) string {
	b.Helper()
	address, err := url.Parse(s.URL)
	if err != nil {
		b.Fatal(err)
	}
	r := httptest.NewRequest(method, path, strings.NewReader(form.Encode()))
	for _, c := range s.Visitor.Client.Jar.Cookies(address) {
		r.AddCookie(c)
	}
	if method == "POST" {
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		r.Header.Set("HX-Request", "true")
	}
	w := httptest.NewRecorder()
	s.Routes.ServeHTTP(w, r)
	if w.Code != http.StatusOK {
		b.Fatalf("%s %s gives %d: %s", method, path, w.Code, w.Body.String())
	}
	return w.Body.String()
}

// BenchmarkBoard: 60 students by 40 exercises and 50,000 tries.
func BenchmarkBoard(b *testing.B) {
	s := testsite.FurnishSchool(b, 40, 0, 60, 834)
	for b.Loop() {
		if page := serve(b, s, "GET", "/board", nil); !strings.Contains(page, "60 students") {
			b.Fatal("the Board has not 60 students")
		}
	}
}

// BenchmarkLargeBook: 500 exercises, three of them scores of 3 MB, and 24 students.
func BenchmarkLargeBook(b *testing.B) {
	s := testsite.FurnishSchool(b, 500, 3, 24, 800)
	score, short := s.List[0].ID, s.List[400].ID
	mark := func(x store.Exercise) url.Values {
		return url.Values{"student": {fmt.Sprint(s.Students[1])}, "instrument": {"trombone"}, "chunk": {x.Outline.Chunks[0].String()},
			"stage": {"count"}, "result": {"clean"}, "tempo": {"60"}}
	}
	for _, page := range []struct{ name, path string }{
		{"Shelf", "/"}, {"Board", "/board"}, {"History", fmt.Sprintf("/students/%d", s.Students[1])},
		{"Bench", fmt.Sprintf("/bench/%d?instrument=trombone", short)}, {"BenchOfScore", fmt.Sprintf("/bench/%d?instrument=trombone", score)},
	} {
		b.Run(page.name, func(b *testing.B) {
			serve(b, s, "GET", page.path, nil)
			for b.Loop() {
				serve(b, s, "GET", page.path, nil)
			}
		})
	}
	for _, at := range []int{0, 400} {
		x := s.List[at]
		b.Run("Mark"+map[int]string{0: "AtScore", 400: ""}[at], func(b *testing.B) {
			for b.Loop() {
				serve(b, s, "POST", fmt.Sprintf("/bench/%d/attempts", x.ID), mark(x))
			}
		})
	}
}

// BenchmarkBench: one exercise of 40 before a class of 60 with 12,000 tries.
func BenchmarkBench(b *testing.B) {
	s := testsite.FurnishSchool(b, 40, 0, 60, 200)
	x := s.List[20]
	page := fmt.Sprintf("/bench/%d?instrument=trombone&student=%d", x.ID, s.Students[1])
	b.Run("Page", func(b *testing.B) {
		for b.Loop() {
			serve(b, s, "GET", page, nil)
		}
	})
	b.Run("Mark", func(b *testing.B) {
		form := url.Values{"student": {fmt.Sprint(s.Students[1])}, "instrument": {"trombone"}, "chunk": {x.Outline.Chunks[0].String()}, "stage": {"count"}, "result": {"clean"}, "tempo": {"60"}}
		for b.Loop() {
			serve(b, s, "POST", fmt.Sprintf("/bench/%d/attempts", x.ID), form)
		}
	})
}
