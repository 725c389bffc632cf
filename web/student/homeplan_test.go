package student_test

import (
	"context"
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"testing"
	"time"

	"github.com/apognu/gocal"

	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
	"unhurriedbench/teach"
)

// A plan is laid out until the check-in, changed for a day, printed, sent as a calendar that
// another reader reads, and taken away.
func TestAPlanForHome(t *testing.T) {
	t.Parallel()
	s, v, b := testsite.BoardOf(t) // Alma is stuck on B
	ctx, now := context.Background(), time.Now()
	desk := s.Store.For(b.Teacher)
	alma := testsite.StudentCalled(t, desk, b.Class, "Alma")
	at := fmt.Sprintf("/students/%d/plan", alma)
	_, page := v.Get(at)
	testsite.Wants(t, page, "No plan yet", "No check-in is scheduled", `name="minutes" inputmode="numeric" value="15"`)
	until := now.AddDate(0, 0, 5).Format(time.DateOnly)
	for _, bad := range []url.Values{
		{"minutes": {"15"}, "until": {until}}, {"day": testsite.EveryDay, "minutes": {"many"}, "until": {until}}, {"day": testsite.EveryDay, "minutes": {"61"}, "until": {until}}, {"day": testsite.EveryDay, "minutes": {"15"}, "until": {"soon"}},
		{"day": testsite.EveryDay, "minutes": {"15"}, "until": {now.Format(time.DateOnly)}}, {"day": testsite.EveryDay, "minutes": {"15"}, "until": {now.AddDate(0, 0, 90).Format(time.DateOnly)}},
	} {
		if status, page := v.Post(at, bad); status != http.StatusUnprocessableEntity || !strings.Contains(page, `role="alert"`) {
			t.Errorf("%v gives %d", bad, status)
		}
	}
	v.Post(fmt.Sprintf("/check-ins?class=%d", b.Class), url.Values{"on": {until}, "minutes": {"10"}, "student": {fmt.Sprint(alma)}})
	if status, _ := v.Post(at, url.Values{"day": testsite.EveryDay, "minutes": {"15"}, "until": {until}}); status != http.StatusSeeOther {
		t.Fatalf("a plan gives %d", status)
	}
	p, err := desk.HomePlan(ctx, alma)
	if err != nil || len(p.Plan.Days) != 5 {
		t.Fatalf("the plan is %+v, %v", p, err)
	}
	for _, d := range p.Plan.Days {
		if d.Halves() > 2*15 {
			t.Errorf("a day of 15 minutes has %d half minutes", d.Halves())
		}
	}
	_, page = v.Get(at)
	testsite.Wants(t, page, "Long bows on the open strings", "1 · First Lamp, m. 3–4: Name, finger, then play", "for the check-in", "as you will play it, twice in a row", "For a calendar", now.Format("Mon 2 Jan"))
	tomorrow := now.AddDate(0, 0, 1).Format(time.DateOnly)
	for _, bad := range []url.Values{{"on": {tomorrow}, "minutes": {"x"}}, {"on": {tomorrow}, "minutes": {"99"}}, {"on": {until}, "minutes": {"5"}}, {"on": {now.AddDate(0, 0, -1).Format(time.DateOnly)}, "minutes": {"5"}}} {
		if status, page := v.Post(at+"/day", bad); status != http.StatusUnprocessableEntity || !strings.Contains(page, `role="alert"`) {
			t.Errorf("%v gives %d", bad, status)
		}
	}
	v.Post(at+"/day", url.Values{"on": {tomorrow}, "minutes": {"0"}})
	changed, err := desk.HomePlan(ctx, alma)
	if err != nil || len(changed.Plan.Days) != 4 || changed.Changed[tomorrow] != 0 {
		t.Errorf("with a day off the plan is %+v, %v", changed.Plan.Days, err)
	}
	_, text := v.Get(at + ".ics")
	calendar := gocal.NewParser(strings.NewReader(text))
	first, after := now.AddDate(0, 0, -2), now.AddDate(0, 0, 9)
	calendar.Start, calendar.End = &first, &after
	if err := calendar.Parse(); err != nil || len(calendar.Events) != 4 {
		t.Fatalf("another reader finds %d events, %v, in\n%s", len(calendar.Events), err, text)
	}
	e := calendar.Events[0]
	if !strings.HasPrefix(e.Summary, "Practise: violin, ") || !strings.Contains(e.Description, "m. 3–4: Name") || e.Start.Format(time.DateOnly) != now.Format(time.DateOnly) || e.Uid == calendar.Events[1].Uid {
		t.Errorf("the first event is %q, %q, %v", e.Summary, e.Description, e.Start)
	}
	for _, line := range strings.Split(strings.TrimSuffix(text, "\r\n"), "\r\n") {
		if len(line) > 75 || strings.Contains(line, "\n") { // RFC 5545, 3.1
			t.Errorf("a line of the calendar has %d octets: %s", len(line), line)
		}
	}
	if strings.Contains(text, "Alma") {
		t.Error("the calendar names the student")
	}
	v.Post(at+"/drop", nil)
	if status, _ := v.Get(at + ".ics"); status != http.StatusNotFound {
		t.Errorf("the calendar of no plan gives %d", status)
	}
}

// A class's plans are laid out together, each until the own check-in, and stand on paper.
func TestPlansOfAClass(t *testing.T) {
	t.Parallel()
	s, v, b := testsite.BoardOf(t)
	desk, now := s.Store.For(b.Teacher), time.Now()
	alma := testsite.StudentCalled(t, desk, b.Class, "Alma")
	at := fmt.Sprintf("/plans?class=%d", b.Class)
	_, page := v.Get(at)
	testsite.Wants(t, page, "no plan yet", "Make everybody’s plans")
	if status, page := v.Post(at, url.Values{"minutes": {"15"}, "until": {"2026-01-01"}}); status != http.StatusUnprocessableEntity || !strings.Contains(page, "Choose at least one day") && !strings.Contains(page, "role=\"alert\"") {
		t.Errorf("plans without days give %d", status)
	}
	v.Post(fmt.Sprintf("/check-ins?class=%d", b.Class), url.Values{"on": {now.AddDate(0, 0, 3).Format(time.DateOnly)}, "minutes": {"10"}, "student": {fmt.Sprint(alma)}})
	if status, _ := v.Post(at, url.Values{"day": testsite.EveryDay, "minutes": {"12"}, "until": {now.AddDate(0, 0, 6).Format(time.DateOnly)}}); status != http.StatusSeeOther {
		t.Fatalf("plans give %d", status)
	}
	plans, err := desk.HomePlans(context.Background(), b.Class)
	if err != nil || len(plans) != 4 {
		t.Fatalf("there are %d plans, %v", len(plans), err)
	}
	for _, p := range plans {
		want := 6
		if p.Student == alma {
			want = 3
		}
		if len(p.Plan.Days) != want {
			t.Errorf("student %d has %d days, want %d", p.Student, len(p.Plan.Days), want)
		}
	}
	_, page = v.Get(at)
	testsite.Wants(t, page, "4 plans are made.", "Print 4 plans", `class="tick-box paper-only"`)
	if n := strings.Count(page, `class="home-week"`); n != 4 {
		t.Errorf("%d weeks stand on paper", n)
	}
}

// What follows a change of the log stands in the plan that is laid out again; the days that are
// past stay as they were.
func TestPastDaysOfAPlanStay(t *testing.T) {
	t.Parallel()
	s, v, b := testsite.BoardOf(t)
	ctx, now := context.Background(), teach.DateOf(time.Now())
	desk := s.Store.For(b.Teacher)
	alma := testsite.StudentCalled(t, desk, b.Class, "Alma")
	at := fmt.Sprintf("/students/%d/plan", alma)
	v.Post(at, url.Values{"day": testsite.EveryDay, "minutes": {"15"}, "until": {now.AddDate(0, 0, 3).Format(time.DateOnly)}})
	p, err := desk.HomePlan(ctx, alma)
	if err != nil {
		t.Fatal(err)
	}
	p.From = now.AddDate(0, 0, -2) // as if it had been laid out two days ago
	for k := range p.Plan.Days {
		p.Plan.Days[k].On -= 2
	}
	past := fmt.Sprint(p.Plan.Days[:2])
	if err := desk.SaveHomePlans(ctx, store.HomePlan{Student: alma, From: p.From, Until: p.Until, Weekdays: p.Weekdays, Minutes: p.Minutes, Plan: p.Plan}); err != nil {
		t.Fatal(err)
	}
	v.Post(at+"/day", url.Values{"on": {now.AddDate(0, 0, 1).Format(time.DateOnly)}, "minutes": {"20"}})
	after, err := desk.HomePlan(ctx, alma)
	if err != nil || fmt.Sprint(after.Plan.Days[:2]) != past || len(after.Plan.Days) != 5 || after.Plan.Days[3].Minutes != 20 {
		t.Errorf("after a change the plan is %+v, %v, past %s", after.Plan.Days, err, past)
	}
}
