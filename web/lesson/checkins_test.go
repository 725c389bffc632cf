package lesson_test

import (
	"context"
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"testing"
	"time"

	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
)

// A class is given a day with what is due for each; it is heard in a queue; what was marked
// stands in the log and in the check-in, and the next one asks for what was not clean.
func TestCheckins(t *testing.T) {
	t.Parallel()
	s, v, b := testsite.BoardOf(t) // Ines has done A; Alma and Bo are stuck on B; Cleo has tried nothing
	ctx, today := context.Background(), time.Now().Format(time.DateOnly)
	desk := s.Store.For(b.Teacher)
	at := fmt.Sprintf("/check-ins?class=%d", b.Class)
	_, page := v.Get(at)
	testsite.Wants(t, page, "No check-ins due today.", "none yet", "Schedule the class")
	for _, bad := range []url.Values{{"on": {"soon"}, "minutes": {"10"}}, {"on": {today}, "minutes": {"many"}}, {"on": {today}, "minutes": {"0"}}} {
		status, page := v.Post(at, bad)
		if status != http.StatusUnprocessableEntity || !strings.Contains(page, `role="alert"`) || !strings.Contains(page, `value="`+bad.Get("minutes")+`"`) {
			t.Errorf("%v gives %d", bad, status)
		}
	}
	if status, _ := v.Get(at[:10] + "/queue" + at[10:] + "&minutes=10"); status != http.StatusUnprocessableEntity {
		t.Errorf("a queue of nobody gives %d", status)
	}
	v.Post(at, url.Values{"on": {today}, "minutes": {"10"}})
	_, page = v.Get(at)
	testsite.Wants(t, page, "Today for 4 students.", "Start check-ins, 4 students", "There is time for all of them", "1 · First Lamp, m. 3–4: Name", "needs help: name", "nothing is begun yet")
	status, first := v.Get(at[:10] + "/queue" + at[10:] + "&minutes=10")
	if status != http.StatusSeeOther || !strings.Contains(first, "&queue=10&begun=") {
		t.Fatalf("the queue gives %d, %s", status, first)
	}
	var heard []string
	var alma string
	for path := first; strings.HasPrefix(path, "/check-ins/"); {
		status, page := v.Get(path)
		if status != http.StatusOK {
			t.Fatalf("%s gives %d", path, status)
		}
		name, _, _ := strings.Cut(strings.SplitN(page, "<h1>", 2)[1], " <small>")
		heard = append(heard, name)
		of, query, _ := strings.Cut(path, "?")
		if name == "Alma" {
			alma = of
			testsite.Wants(t, page, `name="stage" value="name" checked`, `data-music="`+fmt.Sprint(b.Exercise)+`/3-4"`, `"mei"`, "3 wait")
			mark := url.Values{"chunk": {"0"}, "exercise": {fmt.Sprint(b.Exercise)}, "stage": {"name"}, "result": {"sound"}, "tempo": {"58"}, "request_key": {"once"}}
			for range 2 { // its answer had not arrived
				if status, _ := v.Post(of+"/mark?"+query, mark); status != http.StatusSeeOther {
					t.Errorf("a mark gives %d", status)
				}
			}
			for what, change := range map[string][2]string{"no result": {"result", ""}, "another stage": {"stage", "dance"}, "a chunk that is not asked for": {"chunk", "7"}, "another exercise": {"exercise", "999"}, "no tempo": {"tempo", "9999"}} {
				bad := url.Values{}
				for k, values := range mark {
					bad[k] = values
				}
				bad.Set(change[0], change[1])
				if status, page := v.Post(of+"/mark?"+query, bad); status != http.StatusUnprocessableEntity || !strings.Contains(page, `role="alert"`) {
					t.Errorf("%s gives %d", what, status)
				}
			}
			_, page = v.Get(path)
			testsite.Wants(t, page, "was-stumble", "Name: stumble, sound</b> at 58")
			if strings.Contains(page, "before that") {
				t.Error("a press that was sent twice is marked twice")
			}
		}
		if long := strings.Repeat("ö", store.LongestComment+1); len(heard) == 1 {
			status, page := v.Post(of+"/end?"+query, url.Values{"comment": {long}, "on": {today}})
			if status != http.StatusUnprocessableEntity || !strings.Contains(page, long) {
				t.Errorf("a comment that is too long gives %d", status)
			}
		}
		status, path = v.Post(of+"/end?"+query, url.Values{"comment": {"Heard " + name + "."}, "on": {time.Now().AddDate(0, 0, 14).Format(time.DateOnly)}})
		if status != http.StatusSeeOther {
			t.Fatalf("the end gives %d", status)
		}
	}
	if got := strings.Join(heard, " "); got != "Ines P. Alma Bo Cleo" {
		t.Errorf("heard are %s", got)
	}
	_, page = v.Get(at)
	testsite.Wants(t, page, "Everybody who was waiting has been heard.", "No check-ins due today.", "Heard Alma.", "left from the last check-in")
	log, err := desk.StudentAttempts(ctx, testsite.StudentCalled(t, desk, b.Class, "Alma"))
	if err != nil || len(log) != 4 || log[0].Tempo != 58 || log[0].Cause != "sound" {
		t.Errorf("the log has %+v, %v", log, err)
	}
	if status, _ := v.Post(alma+"/undo?class="+fmt.Sprint(b.Class), url.Values{"try": {fmt.Sprint(log[0].ID)}}); status != http.StatusSeeOther {
		t.Errorf("undo gives %d", status)
	}
	_, page = v.Get(alma + "?class=" + fmt.Sprint(b.Class))
	if strings.Contains(page, "stumble, sound") {
		t.Error("what was taken back stands in the check-in")
	}
	v.Post(alma+"/undo?class="+fmt.Sprint(b.Class), url.Values{"try": {fmt.Sprint(log[1].ID)}}) // of no check-in
	if again, err := desk.StudentAttempts(ctx, log[0].StudentID); err != nil || !again[0].Undone || again[1].Undone {
		t.Errorf("after undo the log is %+v, %v", again, err)
	}
	if text := s.Log.String(); strings.Contains(text, "Alma") {
		t.Error("a student is named in the log")
	}
}

// What is due is changed by hand: a chunk more, one less, a bound.
// Days are counted from the clock of the site: what is set for today is late tomorrow.
func TestTheClockOfTheSite(t *testing.T) {
	t.Parallel()
	s, v, b := testsite.BoardOf(t)
	at := fmt.Sprintf("/check-ins?class=%d", b.Class)
	noon := time.Date(2027, 3, 2, 12, 0, 0, 0, time.UTC)
	s.Whole.Site().Clock = func() time.Time { return noon }
	v.Post(at, url.Values{"on": {"2027-03-03"}, "minutes": {"10"}})
	for days, said := range []string{"tomorrow", "today", "yesterday", "Wed 3 Mar"} {
		s.Whole.Site().Clock = func() time.Time { return noon.AddDate(0, 0, days) }
		_, page := v.Get(at)
		if !strings.Contains(page, said) {
			t.Errorf("%d days on, the page does not say %s", days, said)
		}
	}
}

func TestWhatIsDue(t *testing.T) {
	t.Parallel()
	s, v, b := testsite.BoardOf(t)
	class, today := fmt.Sprint(b.Class), time.Now().Format(time.DateOnly)
	desk := s.Store.For(b.Teacher)
	cleo := testsite.StudentCalled(t, desk, b.Class, "Cleo")
	v.Post("/check-ins?class="+class, url.Values{"on": {today}, "minutes": {"10"}, "student": {fmt.Sprint(cleo)}})
	list, err := desk.ClassCheckins(context.Background(), b.Class)
	if err != nil || len(list) != 1 || list[0].Student != cleo {
		t.Fatalf("the check-ins are %+v, %v", list, err)
	}
	at := fmt.Sprintf("/check-ins/%d", list[0].ID)
	more := func(chunk string) (int, string) {
		return v.Post(at+"/due?class="+class, url.Values{"more": {fmt.Sprintf("%d/%s", b.Exercise, chunk)}})
	}
	_, page := v.Get(at + "?class=" + class)
	testsite.Wants(t, page, "Nothing is asked for yet.", fmt.Sprintf(`<option value="%d/3-4">1: B, m. 3–4</option>`, b.Exercise))
	if status, _ := more("3-4"); status != http.StatusSeeOther {
		t.Errorf("a chunk more gives %d", status)
	}
	_, page = v.Get(at + "?class=" + class)
	testsite.Wants(t, page, "asked for by you", "chunk B, m. 3–4", `name="stage" value="count" checked`)
	for _, bad := range []string{"3-4", "7-9", "x", ""} {
		if status, page := more(bad); status != http.StatusUnprocessableEntity || !strings.Contains(page, `role="alert"`) {
			t.Errorf("asking for %q gives %d", bad, status)
		}
	}
	v.Post(at+"/due?class="+class, url.Values{"do": {"drop"}, "chunk": {"0"}, "exercise": {"999"}})
	_, page = v.Get(at + "?class=" + class)
	testsite.Wants(t, page, "chunk B, m. 3–4")
	v.Post(at+"/due?class="+class, url.Values{"do": {"drop"}, "chunk": {"0"}, "exercise": {fmt.Sprint(b.Exercise)}})
	_, page = v.Get(at + "?class=" + class)
	testsite.Wants(t, page, "Nothing is asked for yet.")
	v.Post(at+"/drop?class="+class, nil)
	if status, _ := v.Get(at + "?class=" + class); status != http.StatusNotFound {
		t.Errorf("a check-in that was taken away gives %d", status)
	}
}
