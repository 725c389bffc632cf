package finger

import (
	"os"
	"strings"
	"testing"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// Outside check: testdata/plain-lines.txt, written by hand; common practice.
func TestPlainLines(t *testing.T) {
	text, err := os.ReadFile("testdata/plain-lines.txt")
	if err != nil {
		t.Fatal(err)
	}
	seen := map[string]bool{}
	for line := range strings.Lines(string(text)) {
		line = strings.TrimSpace(line)
		if line == "" || strings.HasPrefix(line, "#") {
			continue
		}
		notes, fingerings, found := strings.Cut(line, ": ")
		words := strings.Fields(notes)
		i, known := instrument.ByID(words[0])
		want := strings.Split(fingerings, ",")
		if !known || !found || len(want) != len(words)-1 {
			t.Fatalf("%d fingerings for %d notes in %s", len(want), len(words)-1, line)
		}
		seen[i.ID] = true
		m := score.Measure{Number: 1, Meter: score.Meter{Beats: 4, Unit: 4}}
		for _, note := range words[1:] {
			m.Events = append(m.Events, score.Event{Pitch: score.MustPitch(note), Length: score.Frac(1, 4)})
		}
		for k, c := range Part(i, score.Part{Measures: []score.Measure{m}}, Options{Year: 1})[0] {
			if c.Text != strings.TrimSpace(want[k]) {
				t.Errorf("%s, %s: note %d is %q, want %q", i.ID, notes, k+1, c.Text, strings.TrimSpace(want[k]))
			}
		}
	}
	for _, i := range instrument.All() {
		if !i.Unpitched() && i.Mechanism != instrument.Bars && i.Mechanism != instrument.Drums && !seen[i.ID] {
			t.Errorf("%s has no plain line", i.ID)
		}
	}
}
