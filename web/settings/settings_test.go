package settings_test

import (
	"fmt"
	"net/url"
	"reflect"
	"strings"
	"testing"

	"unhurriedbench/core/count"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/settings"
)

// Saving says what has changed and for whom, and nothing else.
func TestSettingsSayWhatChanged(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	class := fmt.Sprintf("class-%d", b.Class)
	said := func(form url.Values) string {
		t.Helper()
		v.Post("/settings", form)
		_, page := v.Get("/settings")
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
		{url.Values{"school": {"takadimi"}, "rests": {"word"}, class: {"gordon"}},
			"Saved for all your students: counting is Takadimi; rests are the word “rest”. Tuesday brass counts in its own way, Du-de."},
		{url.Values{"school": {"kodaly"}, "rests": {"word"}, class: {"gordon"}, "cue-2": {"play"}},
			"Saved for all your students: counting is Syllables by value; the count-off ends with “ready”, “play”. Tuesday brass keeps its own way of counting, Du-de."},
		{url.Values{"school": {"kodaly"}, "rests": {"word"}, class: {""}, "cue-2": {"play"}}, "Tuesday brass counts as all others do, Syllables by value."},
	} {
		if got := said(step.form); got != step.want {
			t.Errorf("%s says\n%s, want\n%s", step.form.Encode(), got, step.want)
		}
	}
	v.Post(fmt.Sprintf("/classes/%d/school", b.Class), url.Values{"school": {"pulsed"}, "back": {fmt.Sprintf("/bench/%d?stage=name", b.Exercise)}})
	_, page := v.Get(fmt.Sprintf("/bench/%d", b.Exercise))
	testsite.Wants(t, page, "Tuesday brass counts in Pulsed numbers from now on, on every exercise.")
	v.Post(fmt.Sprintf("/classes/%d/year", b.Class), url.Values{"year": {"2"}})
	_, page = v.Get("/people")
	testsite.Wants(t, page, "Tuesday brass is in its second year")
	v.Post("/fingerings/euphonium-bc/kind", url.Values{"kind": {"4"}})
	_, page = v.Get("/fingerings/euphonium-bc")
	testsite.Wants(t, page, "Euphonium in bass clef, for all your students: four valves.")
}

// Every setting that is kept has words for having changed.
func TestEverySettingHasWords(t *testing.T) {
	t.Parallel()
	for key := range (teach.Preferences{}).Settings() {
		said := settings.SaidOf(teach.Preferences{}, store.Settings{key: ""}, nil, nil)
		if !strings.HasPrefix(said, "Saved for all your students: ") || strings.HasSuffix(said, " .") {
			t.Errorf("%s: %q", key, said)
		}
	}
}

// Colours that are hard to tell apart are named, among strings of one instrument.
func TestAlikeColours(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, _ := s.Teacher(t, "a@school.example")
	_, page := v.Get("/settings")
	if strings.Contains(page, "hard to tell apart") {
		t.Error("our own colours are called alike")
	}
	v.Post("/settings", url.Values{"colour-D": {"#a04a3a"}, "colour-C": {teach.OwnColours["E"]}})
	_, page = v.Get("/settings")
	testsite.Wants(t, page, "The colours of D and A are hard to tell apart.")
	for _, tt := range []struct {
		colours map[string]string
		want    [][2]string
	}{
		{nil, nil},
		{map[string]string{"C": teach.OwnColours["E"]}, nil}, // no instrument has both
		{map[string]string{"G": "#000000", "D": "#101010", "A": "#0a0a0a"}, [][2]string{{"G", "D"}, {"G", "A"}, {"D", "A"}}},
		{map[string]string{"G": "#00ff00", "D": "#ff0000", "A": "#0000ff", "E": "#ffff00", "C": "#000000"}, nil},
	} {
		if got := (teach.Preferences{Colours: tt.colours}).AlikeStrings(); !reflect.DeepEqual(got, tt.want) {
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
		w := teach.Work{Stage: routine.Count, Counting: tt.options}
		w.Instrument = horn
		if said := w.StageWords(); !strings.Contains(said, tt.says) || strings.Contains(said, tt.not) {
			t.Errorf("%+v: %s", tt.options, said)
		}
	}
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	v.Post("/settings", url.Values{"school": {"takadimi"}})
	_, page := v.Get(fmt.Sprintf("/bench/%d?stage=count", b.Exercise))
	testsite.Wants(t, page, "hold it through the dashes")
	// A mark brings the stage's words along, and keeps to the school.
	_, page = v.Script(fmt.Sprintf("/bench/%d/attempts", b.Exercise), url.Values{"instrument": {"trombone"}, "class": {fmt.Sprint(b.Class)},
		"student": {fmt.Sprint(b.Student)}, "chunk": {"3-4"}, "stage": {"count"}, "cause": {"rhythm"}})
	testsite.Wants(t, page, "hold it through the dashes")
}
