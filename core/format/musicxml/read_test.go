package musicxml

import (
	"context"
	"fmt"
	"os"
	"slices"
	"strings"
	"testing"

	"unhurriedbench/core/score"
)

func harborSteps(t testing.TB) score.Score {
	t.Helper()
	data, err := os.ReadFile("testdata/harbor-steps.musicxml")
	if err != nil {
		t.Fatal(err)
	}
	s, err := Read(context.Background(), data)
	if err != nil {
		t.Fatal(err)
	}
	return s
}

func TestReadFile(t *testing.T) {
	s := harborSteps(t)
	p := s.Parts[0]
	if s.Title != "Harbor Steps" || s.Composer != "Unhurried Bench" || s.TempoWords != "Steady" || s.Tempo.PerMinute != 76 {
		t.Errorf("title %q, composer %q, words %q, tempo %v", s.Title, s.Composer, s.TempoWords, s.Tempo)
	}
	if p.Transposition != (score.Interval{Steps: -1, Semitones: -2}) || p.Key().Name() != "F major" || p.Clef() != score.Treble {
		t.Errorf("sounds %v, key %s, clef %s", p.Transposition, p.Key().Name(), p.Clef().Name())
	}
	var numbers []int
	for _, m := range p.Measures {
		numbers = append(numbers, m.Number)
	}
	if !slices.Equal(numbers, []int{0, 1, 2, 3, 4}) {
		t.Errorf("the measures are numbered %v", numbers)
	}
	if order := p.Order(); !slices.Equal(order, []int{0, 1, 2, 3, 1, 2, 4}) {
		t.Errorf("played in the order %v", order)
	}
}

func TestReadEvents(t *testing.T) {
	p := harborSteps(t).Parts[0]
	first := p.Measures[1].Events
	if first[0].Value != (score.Value{Base: 4, Dots: 1}) || first[1].Start != score.Frac(3, 8) {
		t.Errorf("the dotted quarter is %+v, the eighth starts at %s", first[0].Value, first[1].Start)
	}
	second := p.Measures[2].Events
	if !second[0].Tied || !second[1].Sign || second[1].SlurStarts != 1 || second[2].SlurEnds != 1 || second[2].Marks[0] != score.Staccato {
		t.Errorf("tie, accidental, slur or staccato was lost: %+v", second)
	}
	third := p.Measures[3].Events
	if third[0].Length != score.Frac(1, 12) || !third[0].TupletStarts || !third[2].TupletEnds {
		t.Errorf("the triplet is %+v", third[:3])
	}
	if third[3].Value != (score.Value{Base: 2, Dots: 1}) {
		t.Errorf("a note without a type is written %+v", third[3].Value)
	}
}

func TestRemarksNameWhatWasLeftOut(t *testing.T) {
	s := harborSteps(t)
	var all []string
	for _, r := range s.Remarks {
		all = append(all, r.Error())
	}
	text := strings.Join(all, "\n")
	for _, want := range []string{"Measure 4: grace notes are left out.", "Measure 4: a second voice is left out."} {
		if !strings.Contains(text, want) {
			t.Errorf("remarks are %q; %q is missing", text, want)
		}
	}
}

// partwise wraps measures in a document.
func partwise(measures string) string {
	return `<?xml version="1.0"?><score-partwise version="4.0"><part-list><score-part id="P1"><part-name>A</part-name></score-part></part-list><part id="P1">` +
		measures + `</part></score-partwise>`
}

const fourFour = `<attributes><divisions>1</divisions><time><beats>4</beats><beat-type>4</beat-type></time></attributes>`

func quarter(step string) string {
	return fmt.Sprintf(
		`<note><pitch><step>%s</step><octave>4</octave></pitch><duration>1</duration><voice>1</voice><type>quarter</type></note>`,
		step,
	)
}

func TestProblemsNameTheirPlace(t *testing.T) {
	full := `<measure number="1">` + fourFour + strings.Repeat(quarter("C"), 4) + `</measure>`
	tests := []struct{ name, text, says string }{
		{"other XML", `<?xml version="1.0"?><recipe><step/></recipe>`, "not MusicXML: it starts with <recipe>"},
		{"timewise", `<score-timewise/>`, "timewise"},
		{"plain text", "hello", "not an XML file"},
		{"cut short", `<score-partwise><part id="P1"><measure>`, "cut short"},
		{
			"too many beats",
			partwise(full + `<measure number="2">` + strings.Repeat(quarter("D"), 5) + `</measure>`),
			"Measure 2: it holds 5 quarter notes",
		},
		{
			"too few beats",
			partwise(full + `<measure number="2">` + quarter("D") + `</measure>` + strings.ReplaceAll(full, `"1"`, `"3"`)),
			"Measure 2: it holds 1 quarter note,",
		},
		{"bad pitch", partwise(`<measure number="1">` + fourFour + quarter("H") + `</measure>`), "Measure 1, note 1: its pitch"},
		{"bad meter", partwise(strings.Replace(full, "<beat-type>4", "<beat-type>7", 1)), "the meter 4/7"},
		{"no parts", `<score-partwise/>`, "no part with music"},
		{"nested too deep", strings.Repeat("<a>", 100) + strings.Repeat("</a>", 100), "nest too deeply"},
		{"unknown entity", `<score-partwise><work><work-title>&secret;</work-title></work></score-partwise>`, "broken here"},
		{"other encoding", `<?xml version="1.0" encoding="KOI8-R"?><score-partwise/>`, "KOI8-R"},
	}
	for _, tt := range tests {
		_, err := Read(context.Background(), []byte(tt.text))
		if err == nil || !strings.Contains(err.Error(), tt.says) {
			t.Errorf("%s: got %v, want it to say %q", tt.name, err, tt.says)
		}
	}
}

func TestForwardBecomesRest(t *testing.T) {
	s, err := Read(context.Background(), []byte(partwise(`<measure number="1">`+fourFour+quarter("C")+
		`<forward><duration>2</duration></forward>`+quarter("D")+`</measure>`)))
	if err != nil {
		t.Fatal(err)
	}
	events := s.Parts[0].Measures[0].Events
	if len(events) != 3 || events[1].Kind != score.Rest || events[1].Length != score.Frac(1, 2) {
		t.Errorf("the gap became %+v", events)
	}
}

func TestUnpitchedAndChords(t *testing.T) {
	stroke := `<note><unpitched><display-step>C</display-step><display-octave>5</display-octave></unpitched><duration>1</duration><type>quarter</type></note>`
	s, err := Read(context.Background(), []byte(partwise(`<measure number="1">`+fourFour+strings.Repeat(stroke, 4)+`</measure>`)))
	if err != nil {
		t.Fatal(err)
	}
	if !s.Parts[0].Unpitched() {
		t.Error("strokes were read as pitches")
	}
	upper := strings.Replace(quarter("G"), "<note>", "<note><chord/>", 1)
	s, err = Read(context.Background(), []byte(partwise(`<measure number="1">`+fourFour+strings.Repeat(quarter("C")+upper, 4)+`</measure>`)))
	if err != nil {
		t.Fatal(err)
	}
	e := s.Parts[0].Measures[0].Events[0]
	if e.Pitch.String() != "G4" || len(e.Others) != 1 || e.Others[0].String() != "C4" {
		t.Errorf("the chord is %s with %v", e.Pitch, e.Others)
	}
}

func FuzzRead(f *testing.F) {
	data, err := os.ReadFile("testdata/harbor-steps.musicxml")
	if err != nil {
		f.Fatal(err)
	}
	f.Add(data)
	f.Add([]byte(partwise(`<measure number="1">` + fourFour + strings.Repeat(quarter("C"), 4) + `</measure>`)))
	f.Fuzz(func(t *testing.T, data []byte) {
		s, err := Read(context.Background(), data)
		if err != nil {
			return
		}
		for _, p := range s.Parts {
			p.Sounding(p.Order())
		}
	})
}
