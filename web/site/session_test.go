package site_test

import (
	"context"
	"net/http"
	"net/http/httptest"
	"net/url"
	"strings"
	"testing"
	"time"

	"unhurriedbench/internal/testsite"
	"unhurriedbench/web/site"
)

// On a shared computer the session ends with the browser, and after half an hour without
// use; elsewhere neither.
func TestASharedComputer(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	_, account := s.Teacher(t, "a@school.example")
	for shared, want := range map[string]bool{"": true, "yes": false} {
		v := s.Visitor(t)
		r := v.Request("POST", "/sign-in", strings.NewReader(url.Values{"email": {"a@school.example"}, "password": {testsite.Password}, "shared": {shared}}.Encode()))
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		answer, err := v.Client.Do(r)
		if err != nil {
			t.Fatal(err)
		}
		answer.Body.Close()
		stays := false
		for _, cookie := range answer.Cookies() {
			stays = stays || cookie.MaxAge > 0 || !cookie.Expires.IsZero()
		}
		if stays != want {
			t.Errorf("shared %q: the cookie outlives the browser: %v", shared, stays)
		}
	}
	for _, tt := range []struct {
		shared bool
		idle   time.Duration
		number int
		want   bool
		age    time.Duration
	}{
		{false, 100 * time.Hour, 0, true, 0},
		{false, 14*24*time.Hour + time.Minute, 0, false, 0},
		{true, -time.Hour, 0, true, 0}, // the clock was set back
		{true, 29 * time.Minute, 0, true, 0},
		{true, 31 * time.Minute, 0, false, 0},
		{false, time.Hour, 0, true, 14*24*time.Hour - time.Minute},
		{false, time.Hour, 0, false, 14*24*time.Hour + time.Minute},
		{false, 0, 1, false, 0}, // begun under a number that has ended
		{true, 6 * time.Minute, 0, true, 0},
		{true, 6 * time.Minute, 0, false, 0}, // by the owner's limits, from here on
		{false, 2*24*time.Hour - time.Minute, 0, true, 0},
		{false, 2*24*time.Hour + time.Minute, 0, false, 0},
	} {
		if !tt.want && tt.idle == 6*time.Minute {
			if _, err := s.Store.DB().Exec(`INSERT INTO policy (longest_days, idle_days, idle_minutes, retain_months) VALUES (9, 2, 5, 0)`); err != nil {
				t.Fatal(err)
			}
		}
		ctx, err := s.Whole.Site().Sessions.Load(context.Background(), "")
		if err != nil {
			t.Fatal(err)
		}
		s.Whole.Site().Sessions.Put(ctx, site.OnSharedComputer, tt.shared)
		s.Whole.Site().Sessions.Put(ctx, site.UsedLast, time.Now().Add(-tt.idle).Unix())
		s.Whole.Site().Sessions.Put(ctx, site.SessionNumber, tt.number)
		s.Whole.Site().Sessions.Put(ctx, site.SessionBegun, time.Now().Add(-tt.age).Unix())
		r := httptest.NewRequest(http.MethodGet, "/", http.NoBody).WithContext(ctx)
		_, policy, err := s.Store.SignedIn(context.Background(), account.ID)
		if err != nil {
			t.Fatal(err)
		}
		if got := s.Whole.Site().Holds(r, account, policy); got != tt.want {
			t.Errorf("%+v: the session holds: %v", tt, got)
		}
		if used := s.Whole.Site().Sessions.GetInt64(ctx, site.UsedLast); tt.shared && tt.want && time.Since(time.Unix(used, 0)) > time.Minute {
			t.Error("the use of a session is not written down")
		}
	}
}
