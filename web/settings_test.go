package web

import (
	"fmt"
	"net/url"
	"reflect"
	"strings"
	"testing"

	"unhurriedbench/core/count"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
)

// Saving says what has changed and for whom, and nothing else.
func TestSettingsSayWhatChanged(t *testing.T) {
	t.Parallel()
	s := open(t)
	v, account := s.teacher(t, "a@school.example")
	b := furnish(t, s.store, account.ID)
	section := fmt.Sprintf("section-%d", b.section)
	said := func(form url.Values) string {
		t.Helper()
		v.post("/settings", form)
		_, page := v.get("/settings")
		_, rest, _ := strings.Cut(page, `<div class="flash" role="status">`)
		_, rest, _ = strings.Cut(rest, "<span>")
		text, _, _ := strings.Cut(rest, "</span>")
		return text
	}
	for _, step := range []struct {
		form url.Values
		want string
	}{
		{url.Values{"school": {"numbers"}}, "Saved for all your students: counting is Numbers."},
		{url.Values{"school": {"numbers"}}, "Nothing was changed."},
		{url.Values{"school": {"takadimi"}, "rests": {"word"}, section: {"gordon"}},
			"Saved for all your students: counting is Takadimi; rests are the word “rest”. Tuesday brass counts in its own way, Du-de."},
		{url.Values{"school": {"kodaly"}, "rests": {"word"}, section: {"gordon"}, "cue-2": {"play"}},
			"Saved for all your students: counting is Syllables by value; the count-off ends with “ready”, “play”. Tuesday brass keeps its own way of counting, Du-de."},
		{url.Values{"school": {"kodaly"}, "rests": {"word"}, section: {""}, "cue-2": {"play"}}, "Tuesday brass counts as all others do, Syllables by value."},
	} {
		if got := said(step.form); got != step.want {
			t.Errorf("%s says\n%s, want\n%s", step.form.Encode(), got, step.want)
		}
	}
	v.post(fmt.Sprintf("/sections/%d/school", b.section), url.Values{"school": {"pulsed"}, "back": {fmt.Sprintf("/bench/%d?stage=name", b.exercise)}})
	_, page := v.get(fmt.Sprintf("/bench/%d", b.exercise))
	wants(t, page, "Tuesday brass counts in Pulsed numbers from now on, on every exercise.")
	v.post(fmt.Sprintf("/sections/%d/year", b.section), url.Values{"year": {"2"}})
	_, page = v.get("/people")
	wants(t, page, "Tuesday brass is in its second year")
	v.post("/fingerings/euphonium-bc/kind", url.Values{"kind": {"4"}})
	_, page = v.get("/fingerings/euphonium-bc")
	wants(t, page, "Euphonium in bass clef, for all your students: four valves.")
}

// Every setting that is kept has words for having changed.
func TestEverySettingHasWords(t *testing.T) {
	t.Parallel()
	for key := range (preferences{}).settings() {
		said := saidOf(preferences{}, store.Settings{key: ""}, nil, nil)
		if !strings.HasPrefix(said, "Saved for all your students: ") || strings.HasSuffix(said, " .") {
			t.Errorf("%s: %q", key, said)
		}
	}
}

// Colours that are hard to tell apart are named, among strings of one instrument.
func TestAlikeColours(t *testing.T) {
	t.Parallel()
	s := open(t)
	v, _ := s.teacher(t, "a@school.example")
	_, page := v.get("/settings")
	if strings.Contains(page, "hard to tell apart") {
		t.Error("our own colours are called alike")
	}
	v.post("/settings", url.Values{"colour-D": {"#a04a3a"}, "colour-C": {ownColours["E"]}})
	_, page = v.get("/settings")
	wants(t, page, "The colours of D and A are hard to tell apart.")
	for _, tt := range []struct {
		colours map[string]string
		want    [][2]string
	}{
		{nil, nil},
		{map[string]string{"C": ownColours["E"]}, nil}, // no instrument has both
		{map[string]string{"G": "#000000", "D": "#101010", "A": "#0a0a0a"}, [][2]string{{"G", "D"}, {"G", "A"}, {"D", "A"}}},
		{map[string]string{"G": "#00ff00", "D": "#ff0000", "A": "#0000ff", "E": "#ffff00", "C": "#000000"}, nil},
	} {
		if got := (preferences{Colours: tt.colours}).alikeStrings(); !reflect.DeepEqual(got, tt.want) {
			t.Errorf("%v: alike are %v, want %v", tt.colours, got, tt.want)
		}
	}
}

// The words of the Count stage speak of brackets and square rests only where the way of
// counting has them.
func TestCountWordsFollowTheSchool(t *testing.T) {
	t.Parallel()
	horn, _ := instrument.ByID("horn-f")
	for _, tt := range []struct {
		options count.Options
		says    string
		not     string
	}{
		{count.Options{School: count.Numbers}, "the rests, in square ones", "silent"},
		{count.Options{School: count.Numbers, Rests: count.AsWord}, "“rest”", "square"},
		{count.Options{School: count.Numbers, Rests: count.AtPlace}, "at its place", "square"},
		{count.Options{School: count.Pulsed}, "every eighth", "silent"},
		{count.Options{School: count.Values}, "vowel", "square"},
		{count.Options{School: count.Places}, "Rests are silent", "square"},
		{count.Options{School: count.Function}, "Rests are silent", "square"},
		{count.Options{School: count.OneTa}, "Say ta", "square"},
		{count.Options{School: count.Words}, "Say the words", "square"},
	} {
		w := work{Stage: routine.Count, Counting: tt.options}
		w.Instrument = horn
		if said := w.StageWords(); !strings.Contains(said, tt.says) || strings.Contains(said, tt.not) {
			t.Errorf("%+v: %s", tt.options, said)
		}
	}
	s := open(t)
	v, account := s.teacher(t, "a@school.example")
	b := furnish(t, s.store, account.ID)
	v.post("/settings", url.Values{"school": {"takadimi"}})
	_, page := v.get(fmt.Sprintf("/bench/%d?stage=count", b.exercise))
	wants(t, page, "hold it through the dashes")
	// A mark brings the stage's words along, and keeps to the school.
	_, page = v.script(fmt.Sprintf("/bench/%d/attempts", b.exercise), url.Values{"instrument": {"trombone"}, "section": {fmt.Sprint(b.section)},
		"student": {fmt.Sprint(b.student)}, "piece": {"3-4"}, "stage": {"count"}, "result": {"clean"}})
	wants(t, page, "hold it through the dashes")
}
