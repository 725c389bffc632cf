package musicxml

import (
	"context"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"unhurriedbench/core/score"
)

// played lists the pitches that sound, in the order they are played, ties joined.
func played(p score.Part) string {
	var words []string
	for _, s := range p.Sounding(p.Order()) {
		words = append(words, s.Pitch.Transpose(p.Transposition).String())
	}
	return strings.Join(words, " ")
}

// What each file sounds, written by hand from it (MusicXML 4.0; common practice), and
// what its reading says.
func TestFiles(t *testing.T) {
	tests := []struct{ name, sounds, says string }{
		{"ending-numbers", "C4 D4 E4 F4 G4 G4 G4 G4 C4 D4 E4 F4 G4 G4 G4 G4 C4 D4 E4 F4 A4 A4 A4 A4", ""},
		{"ending-without-stop", "C4 D4 E4 F4 G4 G4 G4 G4 C4 D4 E4 F4 A4 A4 A4 A4 B4 B4 B4 B4", ""},
		{"transposition-changes", "C4 D4 F4 G4 C#4 E4 F#4 A4", "Measure 2: the part is for another transposition from here on"},
		{"chord-across-staves", "E4 G4 F4", "only the upper staff is read"},
		{"measure-repeat", "C4 D4 E4 F4 C4 D4 E4 F4 G4 G4 G4 G4", ""},
		{"no-meter", "C4 D4 E4 F4 G4 A4", "There is no meter in it; it is read by its bar lines, as 3/4"},
		{"utf-8-said-to-be-utf-16", "C4 D4 E4 F4", ""},
		{"jumps-in-words", "C4 D4 E4 F4 G4 G4 G4 G4 A4 A4 A4 A4 C4 D4 E4 F4 G4 G4 G4 G4", ""},
		{"printed-fingerings", "A4 E5 F#4 G4", ""},
		{"words-over-the-first-note", "C4 D4 E4 F4", ""},
		{"voices-of-two-parts", "C5 D5 E5 F5", "Clarinet, measure 1: a second voice is left out. So in 3 measures"},
		{"tied-chords", "E4", "the lanes follow the highest"},
		{"rests-of-a-measure", "C4 D4 E4 C4 C4 C4 C4", ""},
	}
	seen := map[string]bool{"harbor-steps": true}
	for _, tt := range tests {
		seen[tt.name] = true
		data, err := os.ReadFile("testdata/" + tt.name + ".musicxml")
		if err != nil {
			t.Fatal(err)
		}
		s, err := Read(context.Background(), Text(data))
		if err != nil {
			t.Errorf("%s: %v", tt.name, err)
			continue
		}
		if got := played(s.Parts[0]); got != tt.sounds {
			t.Errorf("%s sounds %s, want %s", tt.name, got, tt.sounds)
		}
		said := ""
		for _, r := range s.Remarks {
			said += r.Error() + "\n"
		}
		if !strings.Contains(said, tt.says) || tt.says == "" && said != "" && tt.name != "printed-fingerings" {
			t.Errorf("%s says %q, want %q", tt.name, said, tt.says)
		}
		// Written and read again it sounds the same.
		again, err := Read(context.Background(), Write(s))
		if err != nil || played(again.Parts[0]) != tt.sounds {
			t.Errorf("%s, written and read again, sounds %s (%v)", tt.name, played(again.Parts[0]), err)
		}
	}
	names, _ := filepath.Glob("testdata/*.musicxml")
	for _, name := range names {
		if !seen[strings.TrimSuffix(filepath.Base(name), ".musicxml")] {
			t.Errorf("%s is in no test", name)
		}
	}
}

// Fingerings that are printed are read, kept and written.
func TestPrintedFingerings(t *testing.T) {
	data, err := os.ReadFile("testdata/printed-fingerings.musicxml")
	if err != nil {
		t.Fatal(err)
	}
	s, err := Read(context.Background(), data)
	for range 2 {
		if err != nil {
			t.Fatal(err)
		}
		var words []string
		for _, e := range s.Parts[0].Measures[0].Events {
			words = append(words, fmt.Sprintf("%s/%d", e.Fingering, e.String))
		}
		if got := strings.Join(words, " "); got != "4/3 0/0 3/0 harmonic/0" {
			t.Errorf("the fingerings are %s", got)
		}
		s, err = Read(context.Background(), Write(s))
	}
}

func TestWordsOverTheFirstNote(t *testing.T) {
	data, err := os.ReadFile("testdata/words-over-the-first-note.musicxml")
	if err != nil {
		t.Fatal(err)
	}
	s, err := Read(context.Background(), data)
	if err != nil || s.TempoWords != "" || s.Parts[0].Measures[0].Events[0].Text != "all together" {
		t.Errorf("words over the first note are the tempo %q (%v)", s.TempoWords, err)
	}
	s.TempoWords = "With the tide"
	if back, err := Read(context.Background(), Write(s)); err != nil || back.TempoWords != "With the tide" ||
		back.Parts[0].Measures[0].Events[0].Text != "all together" {
		t.Errorf("tempo words come back as %q (%v)", back.TempoWords, err)
	}
}

// A tie stands on every note of a chord that has one.
func TestTiesOfChords(t *testing.T) {
	data, err := os.ReadFile("testdata/tied-chords.musicxml")
	if err != nil {
		t.Fatal(err)
	}
	s, err := Read(context.Background(), data)
	if err != nil {
		t.Fatal(err)
	}
	text := string(Write(s))
	for part, want := range map[string]int{`<tied type="start"/>`: 2, `<tied type="stop"/>`: 2, `<tie type="start"/>`: 2} {
		if got := strings.Count(text, part); got != want {
			t.Errorf("%s stands %d times, want %d", part, got, want)
		}
	}
}

// A file without a meter takes the one that is chosen, in the standard's order.
func TestWithMeter(t *testing.T) {
	data, err := os.ReadFile("testdata/no-meter.musicxml")
	if err != nil {
		t.Fatal(err)
	}
	text := string(data)
	meter := score.Meter{Beats: 6, Unit: 8}
	taken := WithMeter(text, meter)
	s, err := Read(context.Background(), []byte(taken))
	if HasMeter(text) || !HasMeter(taken) || err != nil || s.Parts[0].Meter() != meter || len(s.Remarks) > 0 {
		t.Errorf("with 6/8 the file is in %v, %v (%v)", s.Parts[0].Meter(), s.Remarks, err)
	}
	if !strings.Contains(taken, "</key><time>") {
		t.Errorf("the meter stands in the wrong place: %s", taken)
	}
	bare := strings.NewReplacer("<attributes><divisions>1</divisions><key><fifths>0</fifths></key><clef><sign>G</sign><line>2</line></clef></attributes>", "").
		Replace(text)
	if s, err := Read(context.Background(), []byte(WithMeter(bare, score.Meter{Beats: 3, Unit: 4}))); err != nil || s.Parts[0].Meter().String() != "3/4" {
		t.Errorf("without attributes it is in %v (%v)", s, err)
	}
	if got := WithMeter("<part id='P1'/>", meter); got != "<part id='P1'/>" {
		t.Errorf("a part without measures becomes %s", got)
	}
}

// A sum of figures and two signatures of one unit are meters; a free one is read by the
// bar lines, and takes a meter like a file that says nothing.
func TestMetersThatAreNotPlain(t *testing.T) {
	data, err := os.ReadFile("testdata/no-meter.musicxml")
	if err != nil {
		t.Fatal(err)
	}
	for time, want := range map[string]string{
		"<time><beats>2+1</beats><beat-type>4</beat-type></time>":                                       "3/4",
		"<time><beats>2</beats><beat-type>4</beat-type><beats>1</beats><beat-type>4</beat-type></time>": "3/4",
		"<time><senza-misura/></time>":                                                                  "3/4, by its bar lines",
		"<time><beats>2</beats><beat-type>4</beat-type><beats>2</beats><beat-type>8</beat-type></time>": "mixed or free",
		"<time><beats>2+x</beats><beat-type>4</beat-type></time>":                                       "2+x/4 is not one this reads",
		"<time><beats>40+40</beats><beat-type>4</beat-type></time>":                                     "not one this reads",
		"<time><beats>3</beats><beat-type>4</beat-type></time><time><senza-misura/></time>":             "mixed or free",
	} {
		text := strings.ReplaceAll(string(data), "</key>", "</key>"+time)
		s, err := Read(context.Background(), []byte(text))
		if err != nil {
			if !strings.Contains(err.Error(), want) {
				t.Errorf("%s says %v, want %q", time, err, want)
			}
			continue
		}
		got := s.Parts[0].Meter().String()
		if len(s.Remarks) > 0 {
			got += ", by its bar lines"
		}
		if free := strings.Contains(time, "senza"); got != want || HasMeter(text) == free {
			t.Errorf("%s is read as %s, want %s; has a meter: %v", time, got, want, HasMeter(text))
		}
		if taken, err := Read(context.Background(), []byte(WithMeter(text, score.Meter{Beats: 6, Unit: 8}))); want == "3/4, by its bar lines" &&
			(err != nil || taken.Parts[0].Meter().String() != "6/8") {
			t.Errorf("%s takes no meter: %v", time, err)
		}
	}
	triplets := strings.Replace(string(data), "<note>", "<note><time-modification/>", 1)
	if HasMeter(triplets) {
		t.Error("a triplet is taken for a meter")
	}
}

// A slur from a grace note goes with it; one that does not end is said and left out.
func TestSlursThatDoNotEnd(t *testing.T) {
	data, err := os.ReadFile("testdata/no-meter.musicxml")
	if err != nil {
		t.Fatal(err)
	}
	slur := func(kind string) string {
		return `<notations><slur type="` + kind + `" number="1"/></notations></note>`
	}
	notes := strings.SplitAfter(string(data), "</note>")
	notes[0] = strings.Replace(
		notes[0],
		"<note>",
		"<note><grace/><pitch><step>B</step><octave>3</octave></pitch><voice>1</voice><type>eighth</type>"+slur("start")+"<note>",
		1,
	)
	notes[0] = strings.Replace(notes[0], "</type></note>", "</type>"+slur("stop"), 1)
	notes[1] = strings.Replace(notes[1], "</note>", slur("start"), 1)
	notes[2] = strings.Replace(notes[2], "</note>", slur("stop"), 1)
	notes[4] = strings.Replace(notes[4], "</note>", slur("start"), 1)
	s, err := Read(context.Background(), []byte(strings.Join(notes, "")))
	if err != nil {
		t.Fatal(err)
	}
	got := ""
	for _, m := range s.Parts[0].Measures {
		for _, e := range m.Events {
			got += strings.Repeat(")", e.SlurEnds) + strings.Repeat("(", e.SlurStarts) + e.Pitch.Step.String()
		}
	}
	if got != "C(D)EFGA" {
		t.Errorf("the slurs are read as %s", got)
	}
	said := 0
	for _, p := range s.Remarks {
		if strings.Contains(p.Error(), "Measure 2: a slur begins that does not end") {
			said++
		}
	}
	if said != 1 || len(s.Remarks) != 3 {
		t.Errorf("it says %v", s.Remarks)
	}
}
