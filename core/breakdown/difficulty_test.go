package breakdown

import (
	"context"
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"unhurriedbench/core/finger"
	"unhurriedbench/core/format/abc"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
	"unhurriedbench/internal/testabc"
)

// hardness reads an ABC text, in quarters, for an instrument in its first year.
func hardness(t *testing.T, id, text string, met *Met) Report {
	t.Helper()
	tempo := ""
	if strings.HasPrefix(text, "Q:") {
		first, rest, _ := strings.Cut(text, "\n")
		tempo, text = first+"\n", rest
	}
	if !strings.HasPrefix(text, "K:") {
		text = "K:C\n" + text
	}
	target, known := instrument.ByID(id)
	if !known {
		t.Fatalf("there is no %s", id)
	}
	s, err := abc.Read(context.Background(), "M:4/4\nL:1/4\n"+tempo+text+"\n")
	if err != nil {
		t.Fatalf("%s: %v", text, err)
	}
	return Read(s, s.Parts[0], id, target, met, Options{Finger: finger.Options{Year: 1}})
}

// clearly is by how much a harder line is harder at least.
const clearly = 0.03

// Pairs that a teacher would order without thinking, the easier first. Source: common
// practice.
func TestTheEasierOfTwo(t *testing.T) {
	met := MetIn(score.MustPitch("C4"), score.MustPitch("D4"), score.MustPitch("E4"), score.MustPitch("F4"), score.MustPitch("G4"))
	for what, tt := range map[string]struct {
		instrument   string
		easy, harder string
		met          *Met
	}{
		"entries on 1 and 3, on 2 and 4":         {"trumpet", "CzDz|EzFz|G4|]", "zCzD|zEzF|G4|]", nil},
		"alternation, paradiddles":               {"snare", `"^R"c/"^L"c/"^R"c/"^L"c/"^R"c/"^L"c/"^R"c/"^L"c/|c4|]`, `"^R"c/"^L"c/"^R"c/"^R"c/"^L"c/"^R"c/"^L"c/"^L"c/|c4|]`, nil},
		"common time, cut time":                  {"trumpet", "CDEF|GFED|C4|]", "[M:2/2]CDEF|GFED|C4|]", nil},
		"the middle, the bottom of the alto":     {"alto-sax", "GAGA|GAGA|G4|]", "B,CB,C|B,CB,C|C4|]", nil},
		"the middle, the bottom of the flute":    {"flute", "GAGA|GAGA|G4|]", "CDCD|CDCD|C4|]", nil},
		"four beats tied, twelve":                {"trumpet", "C4|D4|E4|]", "C4-|C4-|C4|]", nil},
		"plain, staccato and accents":            {"trumpet", "CDEF|GFED|C4|]", ".CLD.ELF|.GLF.ELD|C4|]", nil},
		"halves, quarters":                       {"trumpet", "C2D2|E2D2|C4|]", "CDEF|EDCD|C4|]", nil},
		"quarters, eighths":                      {"trumpet", "CDEF|EDCD|C4|]", "C/D/E/F/G/F/E/D/|C/D/E/F/G/F/E/D/|C4|]", nil},
		"eighths, sixteenths":                    {"trumpet", "C/D/E/F/G/F/E/D/|C4|]", "C//D//E//F//G//F//E//D//C//D//E//F//G//F//E//D//|C4|]", nil},
		"steps, leaps":                           {"trumpet", "CDEF|GFED|C4|]", "CGDG|EGCG|C4|]", nil},
		"no sign, a sign":                        {"trumpet", "CDEF|GFED|C4|]", "CDE^F|GFED|C4|]", nil},
		"one sign, two":                          {"trumpet", "CDE^F|GFED|C4|]", "CD_E^F|GFED|C4|]", nil},
		"even, dotted":                           {"trumpet", "CDEF|GFED|C4|]", "C>DE>F|G>FE>D|C4|]", nil},
		"on the beat, syncopated":                {"trumpet", "CDEF|GFED|C4|]", "C/DE/ F/GF/|E/DC/ D/EF/|C4|]", nil},
		"untied, tied over the bar":              {"trumpet", "C2D2|E2F2|G4|]", "C2D2-|D2F2-|F4|]", nil},
		"halves of the beat, thirds":             {"trumpet", "C/D/E/F/ G2|C4|]", "(3C/D/E/ (3F/E/D/ G2|C4|]", nil},
		"rests on the beat, between beats":       {"trumpet", "CzDz|EzFz|G4|]", "C/z/z/D/E/z/z/F/|z/E/z/D/z/E/z/F/|G4|]", nil},
		"one meter, two":                         {"trumpet", "CDEF|GFED|C4|]", "CDEF|[M:3/4]GFE|C3|]", nil},
		"low, high on the trumpet":               {"trumpet", "CDEF|GFED|C4|]", "cdef|gfed|c4|]", nil},
		"below the clarinet's break, over it":    {"clarinet", "CDEF|GFED|C4|]", "GABc|BAGA|B4|]", nil},
		"the flute's B A G, its C D":             {"flute", "BAGA|BAGA|B4|]", "cdcd|cdcd|c4|]", nil},
		"near slides, far slides":                {"trombone", "K:Bb clef=bass\nB,,C,B,,C,|D,C,B,,C,|B,,4|]", "K:Bb clef=bass\nB,,=B,,B,,=B,,|F,=E,F,=B,,|B,,4|]", nil},
		"one string, across strings and a shift": {"violin", "K:D\nDEFG|FEDE|D4|]", "K:D\nGdBe|c'eDd|d'4|]", nil},
		"short slurs, one of five measures":      {"trumpet", "(C2D2)|(E2F2)|(G2F2)|(E2D2)|C4|]", "(C2D2|E2F2|G2F2|E2D2|C4)|]", nil},
		"notes that were met, one that was not":  {"trumpet", "CDEF|GFED|C4|]", "CDEF|GAFD|C4|]", met},
		"strokes, flams":                         {"snare", "K:C clef=perc\ncccc|cccc|c4|]", "K:C clef=perc\n{c}cc{c}cc|{c}cc{c}cc|c4|]", nil},
		"quarters, strokes between beats":        {"snare", "K:C clef=perc\ncccc|cccc|c4|]", "K:C clef=perc\nc/cc/ c/cc/|c/cc/ c/cc/|c4|]", nil},
		"eighths at 60, at 132":                  {"trumpet", "Q:1/4=60\nC/D/E/F/ G2|C4|]", "Q:1/4=132\nC/D/E/F/ G2|C4|]", nil},
		"an eighth line, the same faster in 2/2": {"trumpet", "C/D/E/F/G/F/E/D/|C4|]", "C/D/E/F/G/F/E/D/|C/E/G/E/C/E/^F/E/|C4|]", nil},
	} {
		easy, harder := hardness(t, tt.instrument, tt.easy, tt.met), hardness(t, tt.instrument, tt.harder, tt.met)
		if harder.Difficulty.Total-easy.Difficulty.Total < clearly {
			t.Errorf("%s: %.3f %+v, and %.3f %+v", what, easy.Difficulty.Total, easy.Difficulty.Parts, harder.Difficulty.Total, harder.Difficulty.Parts)
		}
	}
}

// No part grows less where a note on the beat is cut in two, a sign is added, or a note is
// put higher from the middle on: for every note of a line, on every instrument that reads it.
func TestDifficultyDoesNotFall(t *testing.T) {
	const line = "CDEF|G2E2|C>DE2|D/E/F/G/ A2|c4|]"
	for _, i := range instrument.All() {
		if i.Unpitched() || i.Mechanism == instrument.Drums {
			continue
		}
		source := testabc.Part(t, "M:4/4\nL:1/4\nK:C\n"+line)
		made := instrument.Make(source, "", i, instrument.OctaveChoice{}).Part
		read := func(part score.Part) Report {
			return Read(score.Score{Parts: []score.Part{part}}, part, i.ID, i, nil, Options{Finger: finger.Options{Year: 1}})
		}
		before := read(made)
		for _, at := range made.Notes() {
			e := made.At(at)
			part := func(p func(DifficultyParts) float64, r Report) float64 {
				return p(r.Measures[at.Measure].Difficulty.Parts)
			}
			rhythm := func(p DifficultyParts) float64 { return p.Rhythm }
			if beat := score.Frac(1, 4); e.Start.Within(beat).IsZero() && e.Value.Dots == 0 {
				cut := changed(made, at, func(events []score.Event) []score.Event {
					first, second := events[at.Event], events[at.Event]
					first.Value.Base *= 2
					first.Length = first.Value.Length()
					second.Value, second.Length, second.Start = first.Value, first.Length, first.Start.Add(first.Length)
					return append(append(append([]score.Event{}, events[:at.Event]...), first, second), events[at.Event+1:]...)
				})
				if was, is := part(rhythm, before), part(rhythm, read(cut)); is < was {
					t.Errorf("%s: m. %d cut in two falls from %.3f to %.3f", i.ID, at.Measure+1, was, is)
				}
			}
			signed := changed(made, at, func(events []score.Event) []score.Event {
				list := append([]score.Event{}, events...)
				list[at.Event].Pitch.Alter++
				return list
			})
			signed.MarkAccidentals()
			reading := func(p DifficultyParts) float64 { return p.Reading }
			if was, is := part(reading, before), part(reading, read(signed)); is < was && list(made, e.Pitch) == 1 {
				t.Errorf("%s: m. %d with a sign more falls from %.3f to %.3f", i.ID, at.Measure+1, was, is)
			}
			higher := changed(made, at, func(events []score.Event) []score.Event {
				list := append([]score.Event{}, events...)
				list[at.Event].Pitch = score.Pitch{Step: e.Pitch.Step, Alter: e.Pitch.Alter, Octave: e.Pitch.Octave + 1}
				return list
			})
			reach := func(p DifficultyParts) float64 { return p.Range }
			if was, is := part(reach, before), part(reach, read(higher)); is < was && e.Pitch.MIDI() >= i.Tessitura.MIDI() {
				t.Errorf("%s: m. %d put higher falls from %.3f to %.3f", i.ID, at.Measure+1, was, is)
			}
		}
	}
}

// list counts the notes of a part with the letter and place of a pitch.
func list(part score.Part, p score.Pitch) int {
	n := 0
	for _, at := range part.Notes() {
		if part.At(at).Pitch.Step == p.Step {
			n++
		}
	}
	return n
}

// changed is a part with the events of a place's measure changed.
func changed(part score.Part, at score.Place, change func([]score.Event) []score.Event) score.Part {
	measures := append([]score.Measure{}, part.Measures...)
	measures[at.Measure].Events = change(measures[at.Measure].Events)
	part.Measures = measures
	return part
}

// A sharper change makes its measure no easier, and the whole grows with each of its parts.
func TestDifficultyGrows(t *testing.T) {
	r := hardness(t, "trombone", "K:Bb clef=bass\nB,,C,D,E,|F,E,D,C,|B,,4|]", nil)
	for k := range r.changes {
		points := func() float64 {
			each := make([]points, len(r.Measures))
			r.changePoints(each)
			return each[r.changes[k].at.Measure][changePart]
		}
		was := points()
		r.changes[k].change.Cost++
		if is := points(); is <= was {
			t.Errorf("a change that costs a point more: from %.3f to %.3f", was, is)
		}
	}
	parts := DifficultyParts{0.1, 0.2, 0.3, 0.1, 0.2, 0.1}
	for k, part := range parts.all() {
		was := parts.Total()
		*part += 0.1
		if is := parts.Total(); is <= was || is > 1 {
			t.Errorf("part %d grows, and the whole goes from %.3f to %.3f", k, was, is)
		}
	}
}

// What is shown stays between 0 and 1, also for the worst there is, and a measure of rest
// and one that is silent count for nothing.
func TestDifficultyStaysInBounds(t *testing.T) {
	worst := hardness(t, "flute", strings.Repeat("^c''//_d//^f''//_g//=c''//^d//_b''//a//^c''//_d//^f''//_g//=c''//^d//_b''//a//|", 8), MetIn())
	if d := worst.Difficulty; d.Total < 0.9 || d.Total > 1 || d.Parts.Rhythm > 1 || d.Parts.Change > 1 {
		t.Errorf("the worst is %+v", d)
	}
	silent := hardness(t, "flute", "C4|z4|C4|]", nil)
	if silent.Measures[1].Difficulty.Total != 0 || silent.Difficulty.Total != hardness(t, "flute", "C4|C4|]", nil).Difficulty.Total {
		t.Errorf("with a measure of rest it is %+v", silent.Difficulty)
	}
	text, err := json.Marshal(worst)
	if err != nil {
		t.Fatal(err)
	}
	var seen struct {
		Difficulty struct {
			Total float64
			Parts map[string]float64
		}
		Chunks []struct{ Difficulty float64 }
		Tempo  map[string]int
	}
	if err := json.Unmarshal(text, &seen); err != nil || len(seen.Difficulty.Parts) != 6 || seen.Chunks[0].Difficulty == 0 || len(seen.Tempo) != 2 {
		t.Errorf("written it is %+v, %v", seen, err)
	}
	if shown := fmt.Sprint(seen.Difficulty.Total); len(shown) > 4 {
		t.Errorf("the whole is written as %s", shown)
	}
}

// One tempo holds throughout, set by the measure that limits it; the quicker it is, the
// slower the start. Source: common practice; the figures are ours.
func TestTheMeasureThatSetsTheTempo(t *testing.T) {
	for what, tt := range map[string]struct {
		instrument, text string
		limit            int
		least, most      int
	}{
		"sixteenths set it":       {"trumpet", "CDEF|GFED|C//D//E//F//G//F//E//D// C2|C4|]", 3, 40, 44},
		"quarters do not":         {"trumpet", "CDEF|GFED|C4|]", 1, 60, 60},
		"the far slide":           {"trombone", "K:Bb clef=bass\nB,,C,D,E,|F,/E,/F,/=B,,/ F,2|B,,4|]", 2, 40, 60},
		"a quick mark is kept to": {"trumpet", "Q:1/4=100\nCDEF|GFED|C4|]", 1, 80, 80},
		"a slow mark too":         {"trumpet", "Q:1/4=60\nCDEF|GFED|C4|]", 1, 56, 56},
		"one note":                {"trumpet", "C4|]", 0, 60, 60},
	} {
		r := hardness(t, tt.instrument, tt.text, nil)
		if got := r.Tempo; got.LimitMeasure != tt.limit || got.Suggested < tt.least || got.Suggested > tt.most {
			t.Errorf("%s: measure %d at %d", what, got.LimitMeasure, got.Suggested)
		}
	}
	for year, before := 1, 0; year <= 3; year++ {
		part := testabc.Part(t, "M:4/4\nL:1/4\nK:C\nC//D//E//F//G//F//E//D// C2|C4|]")
		trumpet, _ := instrument.ByID("trumpet")
		r := Read(score.Score{Parts: []score.Part{part}}, part, "trumpet", trumpet, nil, Options{Finger: finger.Options{Year: year}})
		if r.Tempo.Suggested < before {
			t.Errorf("in year %d it starts at %d, slower than at %d the year before", year, r.Tempo.Suggested, before)
		}
		before = r.Tempo.Suggested
	}
}

// With a history, work begins at the tempo that was clean on what is like it: not above the
// mark, and not by what is easier or harder.
func TestTheTempoOfAHistory(t *testing.T) {
	line := "M:4/4\nL:1/4\nQ:1/4=84\nK:C\nc d e f|g4|f e d c|c4|]"
	plain := read(t, line, "flute", nil)
	here := plain.Difficulty.Parts
	harder := here
	harder.Rhythm += 0.3
	for _, test := range []struct {
		history []Clean
		mark    int
		want    int
		like    string
	}{
		{nil, 84, plain.Tempo.Suggested, ""},
		{[]Clean{{"harder", harder, 60}}, 84, plain.Tempo.Suggested, ""},
		{[]Clean{{"slow", here, 54}, {"like", here, 69}, {"harder", harder, 80}}, 84, 69, "like"},
		{[]Clean{{"fast", here, 120}}, 84, 84, "fast"},
		{[]Clean{{"fast", here, 120}}, 0, 120, "fast"},
	} {
		r := read(t, line, "flute", nil)
		r.StartFrom(test.history, test.mark)
		if r.Tempo.Suggested != test.want || r.Tempo.Like != test.like {
			t.Errorf("from %v it starts at %d as on %q, want %d, %q", test.history, r.Tempo.Suggested, r.Tempo.Like, test.want, test.like)
		}
	}
}
