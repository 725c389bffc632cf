package voice_test

import (
	"encoding/json"
	"os"
	"slices"
	"strings"
	"testing"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/count"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/lesson"
	"unhurriedbench/core/name"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/voice"
	"unhurriedbench/core/walk"
	"unhurriedbench/demo"
)

// Everything that a run says over the demo's book can be spoken, in all schools and systems.
func TestEverythingCanBeSaid(t *testing.T) {
	t.Parallel()
	book, err := demo.Exercises()
	if err != nil {
		t.Fatal(err)
	}
	words := voice.NewVocabulary()
	said, dumb := map[string]bool{}, map[string]bool{}
	say := func(text string) {
		if text == "" || said[text] || dumb[text] {
			return
		}
		clips, ok := words.Split(text)
		if !ok {
			dumb[text] = true
			t.Errorf("%q cannot be said beyond %q", text, clips)
			return
		}
		said[text] = true
	}
	systems := []name.System{name.Letters, name.FixedDo, name.German, name.Degrees}
	for n, x := range book {
		for k, i := range instrument.All() {
			school := count.Schools()[(n+k)%len(count.Schools())]
			o := breakdown.Options{Count: count.Options{School: school}, Name: name.Options{System: systems[(n+k)%4]}}
			r := breakdown.Read(x.Score, x.Score.Parts[0], "", i, nil, o)
			for _, named := range routine.Shipped() {
				for _, unit := range []lesson.Unit{lesson.Usual, lesson.ChunkByChunk} {
					run := walk.Through(walk.Ask{Unit: unit, Routine: named.Steps, Options: o, Class: k%2 == 0}, walk.Player{Instrument: i, Report: r})
					for _, m := range run.Moves {
						say(m.Says)
						say(m.Again)
						for _, text := range m.Minds {
							say(text)
						}
						for _, u := range m.Spoken {
							say(u.Text)
						}
						for _, c := range m.CountOff {
							say(c.Says)
						}
					}
					if run.Question != nil {
						say(run.Question.Text)
					}
				}
				if testing.Short() {
					break
				}
			}
		}
	}
	if len(said) < 500 {
		t.Errorf("only %d sentences were said", len(said))
	}
}

// Each clip is in the recorded words, with a vowel inside of it; a quick one has no more room than
// a name may have.
func TestRecordedWords(t *testing.T) {
	t.Parallel()
	text, err := os.ReadFile("../../web/site/static/voice/voice.json")
	if err != nil {
		t.Fatal(err)
	}
	var index struct {
		Clips map[string]struct{ At, Ends, Vowel float64 } `json:"clips"`
	}
	if err := json.Unmarshal(text, &index); err != nil {
		t.Fatal(err)
	}
	for _, c := range voice.Clips() {
		at, there := index.Clips[strings.ReplaceAll(c.Text, ",", "")]
		if !there || at.Ends <= at.At || at.Vowel < 0 || at.Vowel >= at.Ends-at.At {
			t.Errorf("%q is recorded as %+v: run internal/makevoice", c.Text, at)
		}
	}
	for name, at := range index.Clips {
		if strings.HasSuffix(name, "~") && at.Ends-at.At-at.Vowel > 0.65 {
			t.Errorf("%s takes %.2f s", name, at.Ends-at.At)
		}
	}
}

// Numbers in digits are said, and what begins a sentence is not taken for a note.
func TestWords(t *testing.T) {
	t.Parallel()
	words := voice.NewVocabulary()
	for text, want := range map[string][]string{
		"Measure 26: B flat this time.": {"measure", "twenty six", "B flat", "this time"},
		"Listen to measures 3 and 4.":   {"listen to", "measures", "three", "and", "four"},
		"A flat":                        {"A flat"},
		"Measure 2: ♯4 or 4?":           {"measure", "two", "sharp four", "or", "four"},
		"Say Zed.":                      nil,
	} {
		got, ok := words.Split(text)
		if want == nil {
			if ok {
				t.Errorf("%q is said as %q", text, got)
			}
			continue
		}
		joined := strings.Join(got, " ")
		if !ok || joined != strings.Join(want, " ") || slices.Contains(got, "a") {
			t.Errorf("%q is said as %q", text, got)
		}
	}
}
