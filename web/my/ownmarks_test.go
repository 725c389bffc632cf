package my_test

import (
	"fmt"
	"net/http"
	"net/http/httptest"
	"net/url"
	"strings"
	"testing"
	"time"

	"github.com/go-chi/chi/v5"

	"unhurriedbench/internal/testsite"
	"unhurriedbench/web/my"
	"unhurriedbench/web/site"
)

// An answer counts from when it was given, unless the page's clock cannot be right.
func TestWhenItWasSaid(t *testing.T) {
	t.Parallel()
	now := time.Now()
	for what, tt := range map[string]struct {
		at   string
		want time.Time
	}{
		"an hour ago":      {fmt.Sprint(now.Add(-time.Hour).UnixMilli()), now.Add(-time.Hour)},
		"thirteen days":    {fmt.Sprint(now.AddDate(0, 0, -13).UnixMilli()), now.AddDate(0, 0, -13)},
		"a month ago":      {fmt.Sprint(now.AddDate(0, -1, 0).UnixMilli()), now},
		"in the future":    {fmt.Sprint(now.Add(time.Hour).UnixMilli()), now},
		"at no time":       {"soon", now},
		"nothing is said":  {"", now},
		"before the epoch": {"-5", now},
	} {
		r, err := http.NewRequest(http.MethodPost, "/", strings.NewReader(url.Values{"at": {tt.at}}.Encode()))
		if err != nil {
			t.Fatal(err)
		}
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		if got := my.SaidAt(r, now); got.Sub(tt.want).Abs() > time.Second {
			t.Errorf("%s: %v, want %v", what, got, tt.want)
		}
	}
}

// A request that may bring a file still knows whose page it is of, who asks, and what is wrong
// with its form.
func TestTakingAFileKeepsTheStudent(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	_, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	own := testsite.OwnPageOf(t, s, b, b.Student)
	reached := false
	r := chi.NewRouter()
	r.With(my.RequireStudent(s.Whole.Site()), s.Whole.Site().TakesFiles).Post("/my/{key}/file", func(w http.ResponseWriter, r *http.Request) {
		reached = true
		if h := my.AtHome(r); h.Student.ID != b.Student {
			t.Errorf("the page is of student %d, not %d", h.Student.ID, b.Student)
		}
		if site.ActorOf(r).Class == nil {
			t.Error("nobody asks")
		}
		if site.FormError(r) == nil {
			t.Error("a form that is cut off is taken")
		}
	})
	form := httptest.NewRequest(http.MethodPost, own+"file", strings.NewReader("--x\r\nContent-Disposition: form-data; name=\"file\"; filename=\"a.abc\"\r\n\r\nX:1"))
	form.Header.Set("Content-Type", "multipart/form-data; boundary=x")
	r.ServeHTTP(httptest.NewRecorder(), form)
	if !reached {
		t.Error("the request does not arrive")
	}
}
