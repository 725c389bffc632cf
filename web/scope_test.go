package web_test

import (
	"context"
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"strings"
	"testing"

	"github.com/go-chi/chi/v5"

	"unhurriedbench/core/finger"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
)

// What a signed-in stranger gets who puts the owner's ids into an address and a form.
type answer string

const (
	refused answer = "not found"      // 404: it is the owner's
	own     answer = "their own"      // a page of the stranger's own rows
	made    answer = "made"           // a change to the stranger's own rows, and a redirect
	open401 answer = "open to anyone" // needs no teacher
	byKey   answer = "by a key"       // a student's, whom a key names: see TestEveryStudentsRouteNeedsTheirKey
)

// routeCases has a row for every route of the site; a new route fails without one.
var routeCases = map[string]answer{
	"GET /sign-in": open401, "POST /sign-in": open401, "POST /sign-in/demo": open401, "POST /sign-out": open401,
	"GET /welcome": open401, "POST /welcome": open401, "* /static/*": open401, "GET /account": own, "POST /account/password": own, "GET /removed": own, "GET /account/log": own, "GET /account/archive": own, "POST /account/archive": own, "POST /account/house": refused, "POST /account/back/{id}": refused, "POST /account/erase/{id}": refused,
	"POST /account/owner/{id}": refused, "POST /account/remove/{id}": refused, "POST /account/sessions": made, "POST /account/invite": refused, "POST /account/reset/{id}": refused,
	"GET /join/{link}": open401, "POST /join/{link}": open401, "GET /health": open401, "GET /ready": open401,

	"GET /":                           own,
	"GET /exercises/new":              own,
	"POST /exercises/turn":            own,
	"GET /exercises/many":             own,
	"POST /exercises/many":            own,
	"POST /exercises/many/keep":       own,
	"POST /exercises/many/read":       own,
	"POST /exercises/many/undo":       made,
	"GET /books/{id}/export":          refused,
	"POST /exercises":                 made,
	"POST /exercises/preview":         own,
	"GET /exercises/{id}/edit":        refused,
	"POST /exercises/{id}":            refused,
	"POST /exercises/{id}/remove":     refused,
	"POST /books/{id}/remove":         refused,
	"GET /exercises/{id}/export":      refused,
	"GET /exercises/{id}/parts":       refused,
	"POST /exercises/{id}/parts":      refused,
	"POST /exercises/{id}/parts/own":  refused,
	"POST /exercises/{id}/parts/drop": refused,
	"POST /exercises/{id}/octave":     refused,
	"POST /exercises/{id}/move":       refused, "POST /exercises/{id}/audience": refused,
	"POST /books/{id}/order": refused,
	"POST /books/ferry":      made,

	"GET /compare":                       refused,
	"GET /fingerings/{instrument}":       own,
	"GET /fingerings/{instrument}/near":  own,
	"POST /fingerings/{instrument}":      made,
	"POST /fingerings/{instrument}/kind": made,

	"GET /bench/{id}":             refused,
	"GET /bench/{id}/hardest":     refused,
	"GET /bench/{id}/before":      refused,
	"GET /bench/{id}/ear":         refused,
	"GET /bench/{id}/write":       refused,
	"GET /bench/{id}/walk":        refused,
	"GET /bench/{id}/walk/data":   refused,
	"GET /bench/{id}/first-notes": refused,
	"POST /exercises/{id}/second": refused,
	"POST /lines/give":            refused,
	"POST /sheets/recipes":        made,
	"GET /tune":                   refused,
	"GET /technique":              refused,
	"POST /technique":             refused,
	"GET /bench/{id}/sheets":      refused,
	"POST /bench/{id}/attempts":   refused,
	"POST /bench/{id}/line":       refused,
	"POST /bench/{id}/fingering":  refused,
	"POST /bench/{id}/pencil":     refused,
	"POST /bench/{id}/chunks":     refused,
	"POST /bench/{id}/everybody":  refused,
	"POST /attempts/{id}/undo":    refused,
	"POST /students/{id}/undo":    refused,
	"POST /batches/{id}/undo":     refused,

	"GET /board":         refused, // by the class that is asked for
	"GET /students/{id}": refused,

	"GET /settings/voice": own, "GET /settings/voice/word": refused, "POST /settings/voice/drop": refused, "POST /settings/voice": own,
	"GET /voice/own.wav": own, "GET /voice/own.json": own,

	"GET /settings":  own,
	"POST /settings": made,

	"GET /care/{kind}": refused, "POST /care/{kind}": refused,
	"GET /routines": own, "GET /routines/edit": refused, "POST /routines": own, "POST /routines/choose": refused, "POST /routines/drop": refused,
	"GET /board/pulse": refused, "GET /board/where": refused, "GET /board/heat": refused, "GET /board/weeks": refused, "GET /board/groups": refused, "GET /board/grades": refused, "POST /lessons/group": refused,
	"GET /plans": refused, "POST /plans": refused, "GET /students/{id}/plan": refused, "POST /students/{id}/plan": refused, "POST /students/{id}/catch-up": refused, "POST /students/{id}/plan/day": refused, "POST /students/{id}/plan/drop": refused,
	"GET /students/{id}/plan.ics": refused, "GET /students/{id}/family": refused, "GET /cards": refused, "POST /cards": refused,
	"POST /students/{id}/own-page": refused, "POST /students/{id}/own-page/end": refused, "POST /students/{id}/own-page/pin": refused, "POST /plans/own-pages": refused,
	"POST /my/{key}/pin": byKey, "GET /my/{key}/worker.js": byKey, "GET /my/{key}/": byKey, "GET /my/{key}/cards": byKey, "GET /my/{key}/music": byKey, "GET /my/{key}/notes": byKey, "GET /my/{key}/care": byKey, "GET /my/{key}/voice.wav": byKey, "GET /my/{key}/voice.json": byKey,
	"GET /my/{key}/plan.ics": byKey, "POST /my/{key}/tries": byKey, "POST /my/{key}/ticks": byKey, "POST /my/{key}/answers": byKey, "POST /my/{key}/earlier": byKey, "POST /my/{key}/days": byKey,
	"GET /check-ins": refused, "POST /check-ins": refused, "GET /check-ins/queue": refused, "GET /check-ins/{id}": refused, "POST /check-ins/{id}/mark": refused, "POST /check-ins/{id}/undo": refused,
	"POST /check-ins/{id}/due": refused, "POST /check-ins/{id}/end": refused, "POST /check-ins/{id}/drop": refused,
	"GET /lessons": refused, "POST /lessons": refused, "GET /lessons/{id}": refused, "GET /lessons/{id}/run": refused, "POST /lessons/{id}/plan": refused, "POST /lessons/{id}/shape": refused, "GET /lessons/{id}/pulse": refused, "POST /lessons/{id}/drop": refused,
	"POST /lessons/{id}/begin": refused, "POST /lessons/{id}/end": refused, "POST /lessons/{id}/at": refused, "POST /lessons/{id}/mark": refused, "POST /lessons/{id}/undo": refused,
	"POST /bench/{id}/move": refused, "POST /students/{id}/rule": refused,

	"GET /people": own, "GET /people/table": own, "POST /people/table": own, "GET /people/students.csv": own, "POST /students/{id}/note": refused,
	"POST /students/{id}/second": refused, "GET /classes/{id}/seats": refused, "POST /classes/{id}/seats": refused,
	"POST /classes":              made,
	"POST /classes/{id}/list":    refused,
	"POST /classes/{id}/groups":  refused,
	"POST /groups/{id}":          refused,
	"POST /classes/{id}/school":  refused,
	"POST /classes/{id}/year":    refused,
	"POST /students":             refused, // into the owner's class
	"POST /students/{id}":        refused,
	"POST /students/{id}/remove": refused,
	"POST /students/{id}/left":   refused,
	"POST /students/{id}/return": refused,
	"POST /classes/{id}/remove":  refused,
	"POST /classes/{id}/give":    refused,
	"POST /classes/{id}/take":    refused,

	"POST /removed/{what}/{id}/back":  refused,
	"POST /removed/{what}/{id}/erase": refused,
	"POST /removed/overdue":           made,
}

// Two teachers have one of everything. The router is walked: a visitor who is not signed in
// is sent to sign in, and a stranger with the owner's ids finds and changes nothing of
// the owner's.
func TestAnotherTeacherIsRefusedOnEveryRoute(t *testing.T) {
	t.Parallel()
	s, ctx := testsite.Open(t), context.Background()
	home, owner := s.Teacher(t, "owner@school.example")
	mine := testsite.Furnish(t, s.Store, owner.ID)
	desk := s.Store.For(owner.ID)
	for _, err := range []error{
		desk.SaveOverrides(ctx, mine.Exercise, store.OwnPart{Instrument: "horn-f", Source: store.Source{Format: "abc", Content: strings.Replace(testsite.Lamp, "First", "Horn's", 1)}}),
		desk.SaveOctaveChoice(ctx, mine.Exercise, "trombone", instrument.OctaveChoice{Chosen: true, Octaves: -1}), desk.SaveSettings(ctx, store.Settings{"two": "ownersword"}),
		desk.SaveFingering(ctx, mine.Exercise, "oboe", score.Place{Event: 1}, finger.Spot{Pitch: 60, Text: "1 2 3 | 4 5 6 C"}),
		desk.Prefer(ctx, "oboe", 65, "1 2 3 | 4 6"), desk.SaveModel(ctx, "oboe", "left-f"),
	} {
		if err != nil {
			t.Fatal(err)
		}
	}
	lesson, err := desk.AddLesson(ctx, mine.Class, testsite.LessonOf(mine, 30))
	if err == nil {
		err = desk.BeginLesson(ctx, lesson)
	}
	if err != nil {
		t.Fatal(err)
	}
	mine.Lesson = lesson
	stranger, other := s.Teacher(t, "stranger@school.example")
	theirs := testsite.Furnish(t, s.Store, other.ID)
	if err := s.Store.For(other.ID).ChangeStudent(ctx,
		store.Student{ID: theirs.Student, ClassID: theirs.Class, FirstName: "Tomo", Instrument: "violin"}); err != nil {
		t.Fatal(err)
	}
	anonymous := s.Visitor(t)
	testsite.Everything(home, mine) // so that what is remembered of a visit is
	before := testsite.Everything(home, mine)

	// Ids of the owner's that a stranger may put into forms and addresses.
	form := url.Values{
		"student": {fmt.Sprint(mine.Student)}, "class": {fmt.Sprint(mine.Class)}, "exercise": {fmt.Sprint(mine.Exercise)},
		"book": {fmt.Sprint(mine.Book)}, "a": {fmt.Sprint(mine.Exercise)}, "b": {fmt.Sprint(theirs.Exercise)},
		"first_name": {"Mallory"}, "instrument": {"horn-f"}, "sure": {"yes"}, "result": {"clean"}, "stage": {"count"}, "chunk": {"1-2"},
		"number": {"5"}, "abc": {testsite.Lamp}, "octaves": {"1"}, "year": {"3"}, "school": {"numbers"}, "name": {"Mine"}, "kind": {"left-f"}, "do": {"way"}, "way": {"measures-1"},
		"note": {"65"}, "colleague": {fmt.Sprint(other.ID)}, "may": {"teach"}, "fingering": {"1 2 3 | 4 6"}, "measure": {"0"}, "event": {"0"}, "scope": {"here"}, "instrument-0": {"horn-f"},
	}
	var walked []string
	err = chi.Walk(s.Routes, func(method, route string, _ http.Handler, _ ...func(http.Handler) http.Handler) error {
		if route == "/static/*" {
			method = "*"
		}
		name := method + " " + route
		if !slices.Contains(walked, name) {
			walked = append(walked, name)
		}
		want, has := routeCases[name]
		if !has {
			t.Errorf("%s has no case in routeCases", name)
		}
		if want == open401 || want == byKey {
			return nil
		}
		path := mine.Path(route)
		ask := func(v *testsite.Visitor) (int, string) {
			if method == "GET" {
				return v.Get(path + "?" + form.Encode())
			}
			return v.Post(path, form)
		}
		if status, page := ask(anonymous); status != http.StatusSeeOther || !strings.HasPrefix(page, "/sign-in") {
			t.Errorf("without signing in, %s gives %d", name, status)
		}
		status, page := ask(stranger)
		got := map[int]answer{http.StatusNotFound: refused, http.StatusOK: own, http.StatusSeeOther: made, http.StatusUnprocessableEntity: own}[status]
		if got != want {
			t.Errorf("%s with another's ids gives %d, want %s", name, status, want)
		}
		if strings.Contains(page, "Ines") || strings.Contains(page, "ownersword") || strings.Contains(page, "Horn's") {
			t.Errorf("%s shows what is another's", name)
		}
		for path, page := range testsite.Everything(home, mine) {
			if page != before[path] {
				k := 0
				for k < min(len(page), len(before[path])) && page[k] == before[path][k] {
					k++
				}
				from := max(0, k-80)
				t.Errorf("%s by a stranger changes the owner's %s: from …%.200q to …%.200q", name, path, before[path][from:], page[from:])
				before[path] = page
			}
		}
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
	for name := range routeCases {
		if !slices.Contains(walked, name) {
			t.Errorf("%s has a case and is no route", name)
		}
	}
	// A stranger's own bench with the owner's student or class.
	for _, ask := range []string{fmt.Sprintf("student=%d", mine.Student), fmt.Sprintf("class=%d", mine.Class)} {
		if status, _ := stranger.Get(fmt.Sprintf("/bench/%d?%s", theirs.Exercise, ask)); status != http.StatusNotFound {
			t.Errorf("a bench with another teacher's %s gives %d", ask, status)
		}
	}
}
