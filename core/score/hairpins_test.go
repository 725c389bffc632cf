package score

import (
	"fmt"
	"strings"
	"testing"
)

// swelling is a part of one measure with an event for each word: "<" and ">" begin a hairpin, "o"
// ends one.
func swelling(text string) Part {
	m := Measure{Number: 1, Meter: Meter{Beats: 4, Unit: 4}}
	for _, word := range strings.Fields(text) {
		e := Event{HairpinEnds: strings.Contains(word, "o")}
		switch {
		case strings.Contains(word, "<"):
			e.Hairpin = Crescendo
		case strings.Contains(word, ">"):
			e.Hairpin = Diminuendo
		}
		m.Events = append(m.Events, e)
	}
	return Part{Measures: []Measure{m}}
}

func TestHairpins(t *testing.T) {
	for _, c := range []struct {
		text, wedges, closed string
		problems             int
	}{
		{"< . o .", "crescendo 0-2", "crescendo 0-2", 0},
		{"< o> . o", "crescendo 0-1, diminuendo 1-3", "crescendo 0-1, diminuendo 1-3", 0},
		{". o< . .", "crescendo 1-1", "crescendo 1-1", 0},
		{"< . > o", "crescendo 0-1, diminuendo 2-3", "diminuendo 2-3", 1},
		{". . > .", "diminuendo 2-3", "", 1},
		{". o . .", "", "", 1},
		{"o o o o", "", "", 1},
	} {
		part := swelling(c.text)
		if got := wedgesText(part); got != c.wedges {
			t.Errorf("%s: %s, want %s", c.text, got, c.wedges)
		}
		if got := part.CloseHairpins(); len(got) != c.problems || wedgesText(part) != c.closed {
			t.Errorf("%s: closed %s with %v, want %s", c.text, wedgesText(part), got, c.closed)
		}
		if left := part.CloseHairpins(); len(left) != 0 {
			t.Errorf("%s: closed twice: %v", c.text, left)
		}
	}
}

func wedgesText(p Part) string {
	var list []string
	for _, w := range p.Wedges() {
		list = append(list, fmt.Sprintf("%s %d-%d", w.Hairpin, w.From.Event, w.To.Event))
	}
	return strings.Join(list, ", ")
}
