package my_test

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"net/url"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/go-chi/chi/v5"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/music"
	"unhurriedbench/web/my"
)

// aTry is what a page sends of a try at the second chunk of the fixture's exercise.
func aTry(b testsite.Belongings, press, result string) url.Values {
	return url.Values{"exercise": {fmt.Sprint(b.Exercise)}, "chunk": {"3-4"}, "stage": {"name"}, "result": {result}, "tempo": {"60"}, "beside": {"better"}, "changed": {"slower"}, "request_key": {press}, "at": {fmt.Sprint(time.Now().UnixMilli())}}
}

// A teacher makes the link; the student opens it without account or cookie, finds the day's
// steps with their music, says how it was, ticks and answers; the teacher sees it once, as the
// student's word, and what the teacher has marked is as it was.
func TestAStudentsOwnPage(t *testing.T) {
	t.Parallel()
	s, v, b := testsite.BoardOf(t)
	ctx, desk := context.Background(), s.Store.For(b.Teacher)
	alma := testsite.StudentCalled(t, desk, b.Class, "Alma")
	plan := fmt.Sprintf("/students/%d/plan", alma)
	if status, _ := v.Post(plan, url.Values{"day": testsite.EveryDay, "minutes": {"15"}, "until": {time.Now().AddDate(0, 0, 5).Format(time.DateOnly)}}); status != http.StatusSeeOther {
		t.Fatalf("the plan gives %d", status)
	}
	_, page := v.Get(plan)
	testsite.Wants(t, page, "Make the link")
	if status, _ := v.Post(fmt.Sprintf("/students/%d/own-page", alma), nil); status != http.StatusSeeOther {
		t.Fatalf("the link gives %d", status)
	}
	_, page = v.Get(plan)
	testsite.Wants(t, page, "Alma’s practice page", `<svg class="code"`)
	link := regexp.MustCompile(`value="http://[^"/]*(/my/[A-Z0-9]{26}/)"`).FindStringSubmatch(page)
	if link == nil {
		t.Fatalf("there is no link on\n%s", page)
	}
	at := link[1]

	student := s.Visitor(t)
	answer, err := student.Client.Do(student.Request(http.MethodGet, at, nil))
	if err != nil {
		t.Fatal(err)
	}
	answer.Body.Close()
	h := answer.Header
	if answer.StatusCode != http.StatusOK || h.Get("Set-Cookie") != "" || h.Get("Referrer-Policy") != "no-referrer" || !strings.Contains(h.Get("X-Robots-Tag"), "noindex") || !strings.Contains(h.Get("Cache-Control"), "no-store") {
		t.Errorf("the page gives %d, %v", answer.StatusCode, h)
	}
	_, page = student.Get(at)
	testsite.Wants(t, page, ", Alma</h1>", "Long bows on the open strings", "1 · First Lamp, chunk B", `data-stage="name"`, `name="robots" content="noindex`, "Cards")
	for _, not := range []string{"Ines", "Bo", "Cleo", "Wren", "Sign out", `href="/board`, "sectionword"} {
		if strings.Contains(page, ">"+not) || strings.Contains(page, not+"<") {
			t.Errorf("the page has %s", not)
		}
	}
	for _, other := range []string{"cards", "notes", "care", "worker.js", "plan.ics"} {
		if status, _ := student.Get(at + other); status != http.StatusOK {
			t.Errorf("%s gives %d", other, status)
		}
	}

	before, err := desk.StudentStandings(ctx, alma)
	if err != nil {
		t.Fatal(err)
	}
	today := time.Now().Format(time.DateOnly)
	for range 2 { // sent again, as after a lost answer
		for _, status := range []int{
			student.Answered(at+"tries", aTry(b, "one", "clean")), student.Answered(at+"tries", aTry(b, "two", "fingering")),
			student.Answered(at+"ticks", url.Values{"on": {today}, "line": {"warm"}}),
			student.Answered(at+"answers", url.Values{"card": {"name:G2:D5"}, "right": {"yes"}, "millis": {"2500"}, "request_key": {"three"}}),
		} {
			if status != http.StatusNoContent {
				t.Errorf("what the page sends gives %d", status)
			}
		}
	}
	for what, bad := range map[string]url.Values{
		"no key of a press": {"request_key": {""}}, "an unknown result": {"result": {"fine"}}, "no chunk": {"chunk": {"x"}}, "a stage there is not": {"stage": {"dance"}},
		"a tempo off the scale": {"tempo": {"4000"}}, "a word of their own": {"changed": {"<b>"}}, "beside nothing": {"beside": {"much"}}, "no exercise": {"exercise": {"0"}},
	} {
		form := aTry(b, "bad "+what, "clean")
		for key, value := range bad {
			form[key] = value
		}
		if status := student.Answered(at+"tries", form); status != http.StatusUnprocessableEntity {
			t.Errorf("%s gives %d", what, status)
		}
	}
	for _, bad := range []url.Values{{"on": {"someday"}, "line": {"warm"}}, {"on": {today}, "line": {""}}, {"on": {today}, "line": {strings.Repeat("x", 81)}}, {"on": {"2020-01-01"}, "line": {"warm"}}} {
		if status := student.Answered(at+"ticks", bad); status != http.StatusUnprocessableEntity {
			t.Errorf("%v gives %d", bad, status)
		}
	}
	for _, bad := range []url.Values{{"card": {"joke:C4"}, "request_key": {"x"}}, {"card": {"name:" + strings.Repeat("x", 200)}, "request_key": {"x"}}, {"card": {"name:G2:D5"}}} {
		if status := student.Answered(at+"answers", bad); status != http.StatusUnprocessableEntity {
			t.Errorf("%v gives %d", bad, status)
		}
	}

	_, page = v.Get(plan)
	testsite.Wants(t, page, "What Alma did and says", "1 day, 1 of", "2 tries, 1 clean as they say", "Name at 60: clean; better than before, changed: slower", "Name at 60: stumble over the fingering", "the student’s word")
	if n := strings.Count(page, "the student’s word"); n != 2 {
		t.Errorf("the teacher sees %d tries, want 2", n)
	}
	_, page = v.Get(fmt.Sprintf("/plans?class=%d", b.Class))
	testsite.Wants(t, page, "done: 1 day", "for the 3 without")
	v.Post(fmt.Sprintf("/plans/own-pages?class=%d", b.Class), nil)
	if saved, err := desk.OwnPageOf(ctx, alma); err != nil || !strings.Contains(at, saved.Key) {
		t.Errorf("pages for the others change a link that is there: %v", err)
	}
	if pages, err := desk.OwnPages(ctx, b.Class); err != nil || len(pages) != 4 {
		t.Errorf("%d have a page, %v", len(pages), err)
	}
	after, err := desk.StudentStandings(ctx, alma)
	if err != nil || fmt.Sprintf("%+v", after) == "" {
		t.Fatal(err)
	}
	task := store.Task{Student: alma, Exercise: b.Exercise}
	if fmt.Sprint(before[task]) != fmt.Sprint(after[task]) {
		t.Errorf("what the student says changes where they stand: %v, then %v", before[task], after[task])
	}
	_, page = student.Get(at)
	testsite.Wants(t, page, `class="own-step play done" data-line="warm"`)
	v.Post(fmt.Sprintf("/check-ins?class=%d", b.Class), url.Values{"on": {today}, "minutes": {"10"}, "student": {fmt.Sprint(alma)}})
	checkins, err := desk.StudentCheckins(ctx, alma, 1)
	if err != nil || len(checkins) == 0 {
		t.Fatalf("there is no check-in: %v", err)
	}
	_, page = v.Get(fmt.Sprintf("/check-ins/%d?class=%d", checkins[0].ID, b.Class))
	testsite.Wants(t, page, "At home, as Alma says: Name at 60: stumble over the fingering")
	_, page = v.Get(fmt.Sprintf("/students/%d", alma))
	testsite.Wants(t, page, "At home", "the student’s word", "Cards: 1 answered, 0 known")

	if text := s.Log.String(); strings.Contains(text, "Alma") || strings.Contains(text, strings.Trim(at, "/")) || !strings.Contains(text, "route=/my/{key}/tries") {
		t.Error("the log tells of a student or a key")
	}
}

// Every route of a student's own wants their key: with none, with an old one or one that was
// ended there is a page that says so; with another student's there is nothing of this one.
func TestEveryStudentsRouteNeedsTheirKey(t *testing.T) {
	t.Parallel()
	s, v, b := testsite.BoardOf(t)
	ctx, desk := context.Background(), s.Store.For(b.Teacher)
	alma, bo := testsite.StudentCalled(t, desk, b.Class, "Alma"), testsite.StudentCalled(t, desk, b.Class, "Bo")
	almas, bos := testsite.OwnPageOf(t, s, b, alma), testsite.OwnPageOf(t, s, b, bo)
	_, other := s.Teacher(t, "stranger@school.example")
	theirs := testsite.Furnish(t, s.Store, other.ID)
	strangers := testsite.OwnPageOf(t, s, theirs, theirs.Student)
	old := testsite.OwnPageOf(t, s, b, testsite.StudentCalled(t, desk, b.Class, "Cleo"))
	testsite.OwnPageOf(t, s, b, testsite.StudentCalled(t, desk, b.Class, "Cleo")) // made again
	anyone, walked := s.Visitor(t), 0
	var routes []string
	if err := chi.Walk(s.Routes, func(method, route string, _ http.Handler, _ ...func(http.Handler) http.Handler) error {
		if strings.HasPrefix(route, "/my/{key}/") {
			routes = append(routes, method+" "+strings.TrimPrefix(route, "/my/{key}/"))
		}
		return nil
	}); err != nil {
		t.Fatal(err)
	}
	form := aTry(b, "stolen", "clean")
	form.Set("line", "warm")
	form.Set("on", time.Now().Format(time.DateOnly))
	form.Set("card", "name:G2:D5")
	form.Set("student", fmt.Sprint(alma))
	form.Set("class", fmt.Sprint(b.Class))
	for _, route := range routes {
		method, page, _ := strings.Cut(route, " ")
		ask := func(v *testsite.Visitor, at string) (int, string) {
			if method == http.MethodGet {
				return v.Get(at + page + "?" + form.Encode())
			}
			return v.Answered(at+page, form), ""
		}
		for what, at := range map[string]string{"no key": "/my/NOBODYSKEYATALLNOBODYSKEYA/", "an old key": old} {
			for who, visitor := range map[string]*testsite.Visitor{"anyone": anyone, "the teacher": v} {
				if status, text := ask(visitor, at); status != http.StatusNotFound || strings.Contains(text, "Alma") {
					t.Errorf("%s by %s with %s gives %d", route, who, what, status)
				}
			}
		}
		for _, at := range []string{bos, strangers} {
			if _, text := ask(anyone, at); strings.Contains(text, "Alma") {
				t.Errorf("%s with another's key shows Alma", route)
			}
		}
		walked++
	}
	if walked < 9 {
		t.Errorf("only %d routes were tried", walked)
	}
	tries, err := desk.HomeTries(ctx, 0, alma, time.Time{})
	if err != nil || len(tries) > 0 {
		t.Errorf("Alma has %v, %v", tries, err)
	}
	if tries, err := s.Store.For(other.ID).HomeTries(ctx, 0, theirs.Student, time.Time{}); err != nil || len(tries) > 0 {
		t.Errorf("a try at another teacher's exercise is kept: %v, %v", tries, err)
	}
	// A student's key opens no teacher's page, nor does the page make one a teacher.
	for _, path := range []string{"/", "/board", fmt.Sprintf("/students/%d", alma), fmt.Sprintf("/students/%d/plan", alma), fmt.Sprintf("/bench/%d", b.Exercise)} {
		if status, _ := anyone.Get(path); status != http.StatusSeeOther {
			t.Errorf("%s gives %d to a student", path, status)
		}
	}
	if status, _ := v.Post(fmt.Sprintf("/students/%d/own-page/end", alma), nil); status != http.StatusSeeOther {
		t.Fatalf("ending the page gives %d", status)
	}
	if status, page := anyone.Get(almas); status != http.StatusNotFound || !strings.Contains(page, "This link leads nowhere") {
		t.Errorf("an ended page gives %d", status)
	}
}

func TestAPageWithAPIN(t *testing.T) {
	t.Parallel()
	s, v, b := testsite.BoardOf(t)
	desk := s.Store.For(b.Teacher)
	alma := testsite.StudentCalled(t, desk, b.Class, "Alma")
	at, set := testsite.OwnPageOf(t, s, b, alma), fmt.Sprintf("/students/%d/own-page/pin", alma)
	for _, bad := range []string{"12", "12345", "abcd", "12 4"} {
		if status, page := v.Post(set, url.Values{"pin": {bad}}); status != http.StatusUnprocessableEntity || !strings.Contains(page, "four figures") {
			t.Errorf("the PIN %q gives %d", bad, status)
		}
	}
	v.Post(set, url.Values{"pin": {"0417"}})
	student := s.Visitor(t)
	if status, page := student.Get(at); status != http.StatusUnauthorized || !strings.Contains(page, `name="pin"`) || strings.Contains(page, "Alma, ") {
		t.Errorf("without the PIN the page gives %d", status)
	}
	if status := student.Answered(at+"tries", aTry(b, "x", "clean")); status != http.StatusUnauthorized {
		t.Errorf("without the PIN a try gives %d", status)
	}
	if status, page := student.Post(at+"pin", url.Values{"pin": {"04"}}); status != http.StatusUnprocessableEntity || !strings.Contains(page, "It is four figures") {
		t.Errorf("half a PIN gives %d", status)
	}
	for k := range 5 {
		status, page := student.Post(at+"pin", url.Values{"pin": {"1111"}})
		if want := []string{"not the right figures", "Too many were wrong"}[k/4]; status != http.StatusUnprocessableEntity || !strings.Contains(page, want) {
			t.Errorf("wrong PIN %d gives %d, want %q", k+1, status, want)
		}
	}
	if _, page := student.Post(at+"pin", url.Values{"pin": {"0417"}}); !strings.Contains(page, "Too many were wrong") {
		t.Error("after five wrong ones the right one opens the page at once")
	}
	v.Post(set, url.Values{"pin": {"2605"}})
	if status, to := student.Post(at+"pin", url.Values{"pin": {"2605"}}); status != http.StatusSeeOther || to != at {
		t.Errorf("the right PIN gives %d, %s", status, to)
	}
	if status, page := student.Get(at); status != http.StatusOK || !strings.Contains(page, "Alma") {
		t.Errorf("with the PIN the page gives %d", status)
	}
	if status, _ := s.Visitor(t).Get(at); status != http.StatusUnauthorized {
		t.Errorf("in another browser it gives %d", status)
	}
	v.Post(set, url.Values{"pin": {"1234"}})
	if status, _ := student.Get(at); status != http.StatusUnauthorized {
		t.Errorf("after the PIN has changed the page gives %d", status)
	}
	v.Post(set, url.Values{"pin": {""}})
	if status, _ := student.Get(at); status != http.StatusOK {
		t.Errorf("without a PIN any more the page gives %d", status)
	}
}

// Without a plan a student finds what comes next, without anything tried a word, and after the
// plan's end that it has ended.
func TestAnOwnPageWithoutAPlan(t *testing.T) {
	t.Parallel()
	s, v, b := testsite.BoardOf(t)
	desk := s.Store.For(b.Teacher)
	student := s.Visitor(t)
	_, page := student.Get(testsite.OwnPageOf(t, s, b, testsite.StudentCalled(t, desk, b.Class, "Alma")))
	testsite.Wants(t, page, "There is no plan yet", "1 · First Lamp, chunk B")
	cleo := testsite.StudentCalled(t, desk, b.Class, "Cleo")
	at := testsite.OwnPageOf(t, s, b, cleo)
	_, page = student.Get(at)
	testsite.Wants(t, page, "There is nothing to practise yet")
	_, page = student.Get(at + "cards")
	testsite.Wants(t, page, "There are no cards yet")
	_, page = student.Get(at + "notes")
	testsite.Wants(t, page, "No notes yet")
	if status, _ := student.Get(at + "plan.ics"); status != http.StatusNotFound {
		t.Errorf("a calendar without a plan gives %d", status)
	}
	// A plan for another day of the week: today says so.
	weekday := (int(time.Now().Weekday()) + 2) % 7
	v.Post(fmt.Sprintf("/students/%d/plan", cleo), url.Values{"day": {strconv.Itoa(weekday)}, "minutes": {"15"}, "until": {time.Now().AddDate(0, 0, 6).Format(time.DateOnly)}})
	_, page = student.Get(at)
	testsite.Wants(t, page, ">"+time.Now().Weekday().String()+", Cleo</h1>", "Nothing is planned for today.", "Next: "+time.Weekday(weekday).String())
}

// The cards of a round are the student's own: what was stumbled over first, with answers for
// their instrument; and once they are answered right there are none left for now.
func TestARoundOfCards(t *testing.T) {
	t.Parallel()
	s, v, b := testsite.BoardOf(t)
	desk := s.Store.For(b.Teacher)
	at := testsite.OwnPageOf(t, s, b, testsite.StudentCalled(t, desk, b.Class, "Alma")) // who plays the violin, and stumbled over names
	// A clean try since does not mend what was stumbled over: its cards are asked all the same.
	if err := desk.AddAttempts(context.Background(), store.Attempt{StudentID: testsite.StudentCalled(t, desk, b.Class, "Alma"), ExerciseID: b.Exercise, Chunk: breakdown.ChunkKey{First: 3, Last: 4}, Try: routine.Try{Stage: routine.Count, Clean: true}}); err != nil {
		t.Fatal(err)
	}
	student := s.Visitor(t)
	round := func() []music.OwnCard {
		_, page := student.Get(at + "cards")
		text := regexp.MustCompile(`(?s)<script type="application/json" id="round">(.*?)</script>`).FindStringSubmatch(page)
		if text == nil {
			t.Fatalf("there is no round on\n%s", page)
		}
		var cards []music.OwnCard
		if err := json.Unmarshal([]byte(text[1]), &cards); err != nil {
			t.Fatal(err)
		}
		return cards
	}
	cards := round()
	if len(cards) == 0 || len(cards) > 4 || cards[0].Kind != "name" || cards[0].Why != "why.stumble" || !cards[0].New || !strings.Contains(cards[0].MEI, "<note") {
		t.Fatalf("the round is %+v", cards)
	}
	for _, c := range cards {
		right := 0
		for _, choice := range c.Choices {
			if choice.Right {
				right++
			}
		}
		if c.Answer == "" || len(c.Choices) > 0 && right != 1 {
			t.Errorf("%s is answered %q, %d of %d are right", c.ID, c.Answer, right, len(c.Choices))
		}
		student.Answered(at+"answers", url.Values{"card": {c.ID}, "right": {"yes"}, "millis": {"3000"}, "new": {"yes"}, "request_key": {c.ID}})
	}
	if left := round(); len(left) != 0 {
		t.Errorf("after the day's new cards were right there are %+v", left)
	}
	// Whose tries were all clean has stumbled over nothing.
	almas := at
	at = testsite.OwnPageOf(t, s, b, b.Student)
	for _, c := range round() {
		if c.Why != "why.new" {
			t.Errorf("%s is asked because of %s", c.ID, c.Why)
		}
	}
	at = almas
	// The teacher chooses what is asked.
	if status, page := v.Post("/cards", url.Values{"new": {"4"}}); status != http.StatusUnprocessableEntity || !strings.Contains(page, "Choose at least one") {
		t.Errorf("asking nothing gives %d", status)
	}
	if status, page := v.Post("/cards", url.Values{"kind": {"place"}, "new": {"many"}}); status != http.StatusUnprocessableEntity || !strings.Contains(page, `value="many"`) {
		t.Errorf("many new cards give %d", status)
	}
	v.Post("/cards", url.Values{"kind": {"place", "rhythm"}, "new": {"12"}})
	left := round()
	if len(left) == 0 || slices.ContainsFunc(left, func(c music.OwnCard) bool { return c.Kind != "place" && c.Kind != "rhythm" }) {
		t.Errorf("of places and rhythms the round is %+v", left)
	}
}

// A form for a plan that was refused keeps what was typed.
func TestARefusedPlanKeepsWhatWasTyped(t *testing.T) {
	t.Parallel()
	s, v, b := testsite.BoardOf(t)
	alma := testsite.StudentCalled(t, s.Store.For(b.Teacher), b.Class, "Alma")
	for _, path := range []string{fmt.Sprintf("/students/%d/plan", alma), fmt.Sprintf("/plans?class=%d", b.Class)} {
		_, page := v.Post(path, url.Values{"day": {"0", "5"}, "minutes": {"abc"}, "until": {"2030-01-01"}})
		testsite.Wants(t, page, `value="abc"`, `value="2030-01-01"`, `name="day" value="0" checked`, `name="day" value="5" checked`)
		if strings.Contains(page, `name="day" value="1" checked`) {
			t.Errorf("%s checks a day that was not", path)
		}
	}
}

// Everything a student's page says stands in its file of words, and nothing there is unused.
func TestAllWordingIsInOneFile(t *testing.T) {
	t.Parallel()
	words, err := teach.English()
	if err != nil {
		t.Fatal(err)
	}
	var all strings.Builder
	for _, pattern := range []string{"*.go", "../../teach/*.go", "../site/templates/_own.html", "templates/*.html", "../site/static/own*.js", "../site/static/player.js"} {
		names, err := filepath.Glob(pattern)
		if err != nil || len(names) == 0 {
			t.Fatalf("%s: %v", pattern, err)
		}
		for _, name := range names {
			text, err := os.ReadFile(name)
			if err != nil {
				t.Fatal(err)
			}
			if !strings.HasSuffix(name, "_test.go") {
				all.Write(text)
			}
		}
	}
	said := regexp.MustCompile(`[Ss]ay\(? ?"([a-z]+\.[a-zA-Z0-9]+)"`).FindAllStringSubmatch(all.String(), -1)
	if len(said) < 60 {
		t.Errorf("only %d are said", len(said))
	}
	for _, key := range said {
		if words[key[1]] == "" {
			t.Errorf("%s is said, and not in the file", key[1])
		}
	}
	put := regexp.MustCompile(`"(careful|kind|warm|times|ask|changed|q|why|pin|gone|away|refused|weekday|short|month|number|date)\.?`)
	for key := range words {
		beginning, _, _ := strings.Cut(key, ".")
		whole := strings.Contains(all.String(), `"`+key+`"`)
		madeUp := put.MatchString(`"`+beginning) && (strings.Contains(all.String(), `"`+beginning+`."`) || strings.Contains(all.String(), `"`+beginning+`.%`) || strings.Contains(all.String(), `"`+beginning+`"`))
		if !whole && !madeUp {
			t.Errorf("%s is in the file, and never said", key)
		}
	}
	day := time.Date(2026, 12, 1, 0, 0, 0, 0, time.UTC)
	got := fmt.Sprint(words.Say("round.of", 2, 9), "; ", words.Date(day, true), "; ", words.Date(day, false), "; ", words.Short(day), "; ", words.Number(7), " ", words.Number(40))
	if got != "2 of 9; Tuesday 1 December; 1 December; Tue; seven 40" {
		t.Errorf("it says %q", got)
	}
}

// The worker keeps files that are there.
func TestTheWorkersFiles(t *testing.T) {
	t.Parallel()
	s, _, b := testsite.BoardOf(t)
	at := testsite.OwnPageOf(t, s, b, b.Student)
	v := s.Visitor(t)
	_, script := v.Get(at + "worker.js")
	files := regexp.MustCompile(`"(/static/[^"]+)"`).FindAllStringSubmatch(script, -1)
	if len(files) < len(my.OwnFiles)+3 {
		t.Errorf("%d files are kept", len(files))
	}
	for _, file := range files {
		if status, _ := v.Get(file[1]); status != http.StatusOK {
			t.Errorf("%s gives %d", file[1], status)
		}
	}
}

// What a day begins with has its music: the open strings, or the first notes of its first
// chunk, as long as eight slow counts.
func TestLongNotes(t *testing.T) {
	t.Parallel()
	s, v, b := testsite.BoardOf(t)
	desk := s.Store.For(b.Teacher)
	v.Post(fmt.Sprintf("/students/%d/plan", b.Student), url.Values{"day": testsite.EveryDay, "minutes": {"15"}, "until": {time.Now().AddDate(0, 0, 5).Format(time.DateOnly)}})
	for student, want := range map[store.StudentID]string{
		testsite.StudentCalled(t, desk, b.Class, "Alma"): "violin: G D A E",
		b.Student: "trombone: E♭ - D - C -",
	} {
		_, page := s.Visitor(t).Get(testsite.OwnPageOf(t, s, b, student))
		_, text := s.Visitor(t).Get(testsite.OwnPageOf(t, s, b, student) + "music")
		var music map[string]struct {
			Sheet struct {
				Measures []struct {
					Events []struct{ Name string }
				}
			}
		}
		if err := json.Unmarshal([]byte(text), &music); err != nil {
			t.Fatal(err)
		}
		instrument, _, _ := strings.Cut(want, ":")
		got := instrument + ":"
		first := regexp.MustCompile(`data-kind="warm" data-form="play" data-music="([^"]+)"`).FindStringSubmatch(page)
		if first == nil {
			t.Fatalf("there are no long notes on\n%s", page)
		}
		for _, measure := range music[first[1]].Sheet.Measures {
			name := "-" // it is held
			for _, e := range measure.Events {
				name = e.Name
			}
			got += " " + name
		}
		if got != want {
			t.Errorf("long notes are %q, want %q", got, want)
		}
	}
}

// What waited under an earlier link is taken over: the page knows which links were its student's,
// also after it was ended and made anew, and nobody else's.
func TestEarlierLinks(t *testing.T) {
	t.Parallel()
	s, _, b := testsite.BoardOf(t)
	ctx, desk := context.Background(), s.Store.For(b.Teacher)
	alma, bo := testsite.StudentCalled(t, desk, b.Class, "Alma"), testsite.StudentCalled(t, desk, b.Class, "Bo")
	key := func(path string) string { return strings.Split(path, "/")[2] }
	first, bos := key(testsite.OwnPageOf(t, s, b, alma)), key(testsite.OwnPageOf(t, s, b, bo))
	second := key(testsite.OwnPageOf(t, s, b, alma))
	if err := desk.EndOwnPage(ctx, alma); err != nil {
		t.Fatal(err)
	}
	now := testsite.OwnPageOf(t, s, b, alma)
	asked := url.Values{"key": {first, bos, "nonsense", second}}
	status, answer := s.Visitor(t).Post(now+"earlier", asked)
	var known []string
	if err := json.Unmarshal([]byte(answer), &known); err != nil || status != http.StatusOK {
		t.Fatalf("it gives %d, %q: %v", status, answer, err)
	}
	slices.Sort(known)
	want := []string{first, second}
	if slices.Sort(want); !slices.Equal(known, want) {
		t.Errorf("of %v the page knows %v, want %v", asked["key"], known, want)
	}
	many := url.Values{}
	for range 1000 {
		many.Add("key", "x")
	}
	if status, answer := s.Visitor(t).Post(now+"earlier", many); status != http.StatusOK || strings.TrimSpace(answer) != "[]" {
		t.Errorf("a thousand keys give %d, %q", status, answer)
	}
}

// Where the teacher lets them, a student picks which days, as many as there are, and the page that
// was given stands in each.
func TestAStudentPicksDays(t *testing.T) {
	t.Parallel()
	s, v, b := testsite.BoardOf(t)
	ctx, desk := context.Background(), s.Store.For(b.Teacher)
	alma := testsite.StudentCalled(t, desk, b.Class, "Alma")
	form := url.Values{"day": {"1", "2", "4", "6"}, "minutes": {"20"}, "until": {time.Now().AddDate(0, 0, 14).Format(time.DateOnly)},
		"page_from": {fmt.Sprint(b.Exercise)}, "page_to": {"0"}}
	plan := fmt.Sprintf("/students/%d/plan", alma)
	status, page := v.Post(plan, form)
	if testsite.Wants(t, page, "Choose the first and the last line of the page"); status != http.StatusUnprocessableEntity {
		t.Errorf("half a page gives %d", status)
	}
	form.Set("page_to", fmt.Sprint(b.Exercise))
	if status, _ := v.Post(plan, form); status != http.StatusSeeOther {
		t.Fatalf("the plan gives %d", status)
	}
	_, page = v.Get(plan)
	testsite.Wants(t, page, "twice through", "the page, twice through, one line after another")
	at := testsite.OwnPageOf(t, s, b, alma)
	if _, page := s.Visitor(t).Get(at); strings.Contains(page, "Pick your days") {
		t.Error("days are picked that the teacher chose")
	}
	if status, _ := s.Visitor(t).Post(at+"days", url.Values{"day": {"0", "1", "2", "3"}}); status != http.StatusNotFound {
		t.Errorf("picking them gives %d", status)
	}
	form.Set("picks", "yes")
	v.Post(plan, form)
	student := s.Visitor(t)
	_, page = student.Get(at)
	testsite.Wants(t, page, "Pick your days", "Tick four of the seven.")
	status, page = student.Post(at+"days", url.Values{"day": {"0", "1", "2"}})
	if testsite.Wants(t, page, "Tick four days, no more and no fewer."); status != http.StatusUnprocessableEntity {
		t.Errorf("three days give %d", status)
	}
	if status, _ := student.Post(at+"days", url.Values{"day": {"0", "3", "5", "6", "9"}}); status != http.StatusSeeOther {
		t.Errorf("four days give %d", status)
	}
	kept, err := desk.HomePlan(ctx, alma)
	if err != nil || !slices.Equal(kept.Weekdays, []int{0, 3, 5, 6}) || !kept.Plan.Picks || len(kept.Plan.Page) != 1 {
		t.Errorf("the plan is %+v, %v", kept, err)
	}
	for _, d := range kept.Plan.Days {
		if on := teach.DayOf(d.On); !slices.Contains(kept.Weekdays, int(on.Weekday())) {
			t.Errorf("a day of the plan is %s", on.Weekday())
		}
	}
}
