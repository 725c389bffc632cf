package instrument

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"testing"

	"unhurriedbench/core/format/abc"
	"unhurriedbench/core/score"
	"unhurriedbench/internal/testabc"
)

func byID(t *testing.T, id string) Instrument {
	t.Helper()
	i, ok := ByID(id)
	if !ok {
		t.Fatalf("no instrument %s", id)
	}
	return i
}

func pitches(p score.Part) string {
	var words []string
	for _, at := range p.Notes() {
		words = append(words, p.At(at).Pitch.String())
	}
	return strings.Join(words, " ")
}

func TestCatalogue(t *testing.T) {
	ids := map[string]bool{}
	for _, i := range All() {
		if ids[i.ID] {
			t.Errorf("%s is listed twice", i.ID)
		}
		ids[i.ID] = true
		if i.Start == "" || i.Family == "" || i.Program < 0 || i.Program > 128 {
			t.Errorf("%s: its start, family or program is missing", i.ID)
		}
		if i.Unpitched() {
			continue
		}
		all := Range{i.Lowest, i.Highest}
		for k, year := range i.Years {
			if !all.Holds(year.Low) || !all.Holds(year.High) || year.Low.MIDI() >= year.High.MIDI() {
				t.Errorf("%s: the range of year %d, %s to %s, lies outside %s to %s", i.ID, k+1, year.Low, year.High, i.Lowest, i.Highest)
			}
			if k > 0 && (!year.Holds(i.Years[k-1].Low) || !year.Holds(i.Years[k-1].High)) {
				t.Errorf("%s: year %d is narrower than the year before", i.ID, k+1)
			}
		}
		if !i.Comfort(1).Holds(i.Tessitura) || !i.Comfort(1).Holds(i.OneNote) {
			t.Errorf("%s: its home %s or its drill note %s is beyond the first year", i.ID, i.Tessitura, i.OneNote)
		}
	}
	if len(ids) < 26 {
		t.Errorf("%d instruments are listed", len(ids))
	}
}

// Written pitch against concert pitch: common practice.
func TestMake(t *testing.T) {
	const scale = "M:4/4\nL:1/4\nK:Bb\nB c d e|f4|]"
	tests := []struct{ id, key, notes, clef string }{
		{"clarinet", "C major", "C4 D4 E4 F4 G4", "treble"},
		{"trumpet", "C major", "C4 D4 E4 F4 G4", "treble"},
		{"trombone", "B flat major", "Bb2 C3 D3 Eb3 F3", "bass"},
		{"violin", "B flat major", "Bb4 C5 D5 Eb5 F5", "treble"},
		{"cello", "B flat major", "Bb2 C3 D3 Eb3 F3", "bass"},
		{"flute", "B flat major", "Bb4 C5 D5 Eb5 F5", "treble"},
		{"piccolo", "B flat major", "Bb4 C5 D5 Eb5 F5", "treble"},
		{"oboe", "B flat major", "Bb4 C5 D5 Eb5 F5", "treble"},
		{"bassoon", "B flat major", "Bb2 C3 D3 Eb3 F3", "bass"},
		{"eb-clarinet", "G major", "G3 A3 B3 C4 D4", "treble"},
		{"bass-clarinet", "C major", "C4 D4 E4 F4 G4", "treble"},
		{"alto-sax", "G major", "G4 A4 B4 C5 D5", "treble"},
		{"tenor-sax", "C major", "C4 D4 E4 F4 G4", "treble"},
		{"bari-sax", "G major", "G4 A4 B4 C5 D5", "treble"},
		{"horn-f", "F major", "F4 G4 A4 Bb4 C5", "treble"},
		{"euphonium-tc", "C major", "C4 D4 E4 F4 G4", "treble"},
		{"tuba-bb", "B flat major", "Bb1 C2 D2 Eb2 F2", "bass"},
		{"viola", "B flat major", "Bb3 C4 D4 Eb4 F4", "alto"},
		{"bass", "B flat major", "Bb2 C3 D3 Eb3 F3", "bass"},
		{"bells", "B flat major", "Bb4 C5 D5 Eb5 F5", "treble"},
	}
	for _, tt := range tests {
		made := Make(testabc.Part(t, scale), "", byID(t, tt.id), OctaveChoice{})
		if got := pitches(made.Part); got != tt.notes {
			t.Errorf("%s: %s, want %s", tt.id, got, tt.notes)
		}
		if made.Part.Key().Name() != tt.key || made.Part.Clef().Name() != tt.clef {
			t.Errorf("%s: %s in the %s clef", tt.id, made.Part.Key().Name(), made.Part.Clef().Name())
		}
		if made.Why == "" {
			t.Errorf("%s: no reason is given", tt.id)
		}
	}
}

func TestPartSoundsAsItsSource(t *testing.T) {
	source := testabc.Part(t, "M:4/4\nL:1/4\nK:Eb\nE =A _d ^f|B4|]")
	for _, i := range All() {
		if i.Unpitched() || i.Mechanism == Drums {
			continue
		}
		made := Make(source, "", i, OctaveChoice{}).Part
		for _, at := range source.Notes() {
			want, got := source.At(at).Pitch.MIDI(), made.At(at).Pitch.Transpose(i.Transposition).MIDI()
			if (got-want)%12 != 0 {
				t.Errorf("%s: note %v sounds %d, the source %d", i.ID, at, got, want)
			}
		}
	}
}

func TestMakeKeepsWhatWasWrittenForIt(t *testing.T) {
	source := testabc.Part(t, "M:4/4\nL:1/4\nK:C\nc' a' c' z|]")
	source.Transposition = byID(t, "clarinet").Transposition
	made := Make(source, "clarinet", byID(t, "clarinet"), OctaveChoice{})
	if got := pitches(made.Part); got != "C6 A6 C6" {
		t.Errorf("the clarinet's own part became %s", got)
	}
	if len(made.Outside) != 1 {
		t.Errorf("%d notes are out of range, want the A6 alone", len(made.Outside))
	}
	if got := pitches(Make(source, "clarinet", byID(t, "violin"), OctaveChoice{}).Part); got != "Bb4 G5 Bb4" {
		t.Errorf("the violin reads %s", got)
	}
}

func TestStrokesBothWays(t *testing.T) {
	strokes := Make(testabc.Part(t, "M:2/4\nL:1/4\nK:D\n(d e)|d2|]"), "", byID(t, "snare"), OctaveChoice{}).Part
	if !strokes.Unpitched() || strokes.Measures[0].Events[0].SlurStarts != 0 {
		t.Error("the snare part keeps pitches or slurs")
	}
	drum := testabc.Part(t, "M:2/4\nL:1/4\nK:C clef=perc\nc c|]")
	// Concert D and what it is for each: common practice.
	for id, want := range map[string]string{"violin": "D4 D4", "cello": "D3 D3", "trombone": "D3 D3", "clarinet": "E4 E4", "trumpet": "E4 E4"} {
		if got := pitches(Make(drum, "", byID(t, id), OctaveChoice{}).Part); got != want {
			t.Errorf("%s plays a drum rhythm on %s, want %s", id, got, want)
		}
	}
}

// Tonic and fifth under a melody for two drums: common practice.
func TestTimpaniPart(t *testing.T) {
	tests := []struct{ music, want string }{
		{"K:Bb\nB d c A|B4|]", "Bb2 Bb2 F3 F3 Bb2"},
		{"K:C\nc e d B|G4|]", "C3 C3 G2 G2 G2"},
		{"K:Dm\nD F E ^C|D4|]", "D3 D3 A2 A2 D3"},
	}
	for _, tt := range tests {
		made := Make(testabc.Part(t, "M:4/4\nL:1/4\n"+tt.music), "", byID(t, "timpani"), OctaveChoice{})
		if got := pitches(made.Part); got != tt.want || len(made.Outside) > 0 || made.Part.Clef().Name() != "bass" {
			t.Errorf("%s: the timpani play %s, want %s", tt.music, got, tt.want)
		}
	}
	for fifths := -6; fifths <= 6; fifths++ {
		tonic, fifth := tunedTo(score.Key{Fifths: fifths}, byID(t, "timpani"))
		if away := tonic.MIDI() - fifth.MIDI(); away != 5 && away != -7 {
			t.Errorf("with %d fifths the drums are %s and %s", fifths, tonic, fifth)
		}
	}
}

func TestOneNote(t *testing.T) {
	// Concert D: D for flutes, trombones and baritones, E for trumpets and
	// clarinets, B for alto saxophones (common practice).
	for id, want := range map[string]string{"flute": "D", "trombone": "D", "euphonium-bc": "D", "trumpet": "E", "clarinet": "E", "alto-sax": "B", "horn-f": "A"} {
		i := byID(t, id)
		p := WrittenFor(DefaultOneNote, i)
		if got := p.Step.String() + score.AccidentalText(p.Alter); got != want {
			t.Errorf("concert D is %s for %s, want %s", got, id, want)
		}
		if !i.Comfort(1).Holds(p) {
			t.Errorf("concert D is %s for %s, beyond its first year", p, id)
		}
	}
	if got := SuggestOneNote(nil); got != DefaultOneNote {
		t.Errorf("with nobody there %v is suggested", got)
	}
	for _, ids := range [][]string{{"violin", "cello"}, {"clarinet", "trumpet", "trombone"}, {"flute", "alto-sax", "tuba-bb", "snare"}} {
		var present []Instrument
		for _, id := range ids {
			present = append(present, byID(t, id))
		}
		class := SuggestOneNote(present)
		if want := map[bool]PitchClass{true: {score.D, 0}, false: {score.B, -1}}[present[0].Bowed()]; class != want {
			t.Errorf("for %v %v is suggested, want %v", ids, class, want) // common practice
		}
		for _, i := range present {
			if p := WrittenFor(class, i); !i.Unpitched() && !i.Comfort(1).Holds(p) {
				t.Errorf("for %v the suggestion is %s for %s", ids, p, i.Name)
			}
		}
	}
}

func TestUnplayable(t *testing.T) {
	if found := Unplayable(testabc.Part(t, "M:4/4\nL:1/4\nK:C\nF,,, c g b|]")); len(found) != 0 {
		t.Errorf("notes in range are refused: %v", found)
	}
	found := Unplayable(testabc.Part(t, "M:4/4\nL:1/4\nK:C\nc d e f|c d'''' e f|]"))
	if len(found) != 1 || !strings.Contains(found[0].Error(), "Measure 2, note 2") {
		t.Errorf("D9 is refused as %v", found)
	}
}

// The lowest and the highest note that any instrument sounds are taken, and those a half
// step beyond refused.
func TestUnplayableAtItsEdges(t *testing.T) {
	lowest, highest := 999, 0
	for _, i := range All() {
		if !i.Unpitched() {
			lowest, highest = min(lowest, i.Lowest.Transpose(i.Transposition).MIDI()), max(highest, i.Highest.Transpose(i.Transposition).MIDI())
		}
	}
	for midi, refused := range map[int]bool{lowest - 1: true, lowest: false, highest: false, highest + 1: true} {
		var p score.Pitch
		for _, step := range []score.Step{score.C, score.D, score.E, score.F, score.G, score.A, score.B} {
			for alter := range 2 {
				if at := (score.Pitch{Step: step, Alter: alter, Octave: midi/12 - 1}); at.MIDI() == midi {
					p = at
				}
			}
		}
		part := score.Part{Measures: []score.Measure{{Number: 1, Events: []score.Event{{Kind: score.Note, Pitch: p}}}}}
		if found := Unplayable(part); (len(found) > 0) != refused {
			t.Errorf("%s (%d) is refused as %v", p, midi, found)
		}
	}
}

func BenchmarkMake(b *testing.B) {
	s, err := abc.Read(context.Background(), "M:4/4\nL:1/4\nK:Bb\nB c d e|f4|]\n")
	if err != nil {
		b.Fatal(err)
	}
	i, _ := ByID("clarinet")
	for b.Loop() {
		Make(s.Parts[0], "", i, OctaveChoice{})
	}
}

func TestGuess(t *testing.T) {
	for name, want := range map[string]string{
		"Clarinet in Bb 1": "clarinet", "Bass Clarinet": "bass-clarinet", "Horn in F": "horn-f", "Baritone T.C.": "euphonium-tc",
		"Baritone Sax.": "bari-sax", "String Bass": "bass", "Tuba in Eb": "tuba-eb", "Tuba": "tuba-bb", "Violoncello": "cello", "Bassoon": "bassoon", "Theremin": "",
		"Alto Flute": "", "Flute 1": "flute", "English Horn": "", "Contrabassoon": "", "Contrabass Clarinet": "", "Alto Clarinet in Eb": "", "Basset Horn in F": "",
		"Bass Saxophone": "", "Piccolo Trumpet in A": "", "Piccolo": "piccolo", "Flugelhorn": "", "Tenor Horn in Eb": "", "Baritone Horn": "euphonium-bc", "Oboe d'amore": "", "Oboe": "oboe",
		"Electric Bass": "", "Contrabass": "bass", "Viola da gamba": "", "Viola": "viola", "Tubular Bells": "", "Double Bass": "bass", "Bass Drum": "bass-drum", "Bass Trombone": "trombone",
	} {
		if got, _ := Guess(name); got.ID != want {
			t.Errorf("%q is taken for %q, want %q", name, got.ID, want)
		}
	}
}

func TestNamedOtherwise(t *testing.T) {
	tests := []struct {
		name, id, key string
		otherwise     bool
	}{
		{"Clarinet in A", "clarinet", "A", true}, {"Clarinet in Bb 1", "clarinet", "B flat", false}, {"Clarinet", "clarinet", "", false},
		{"Horn in E flat", "horn-f", "E flat", true}, {"Horn in F", "horn-f", "F", false}, {"Trumpet in C", "trumpet", "C", true},
		{"Tuba in B♭", "tuba-bb", "", false}, {"Alto Sax in E♭", "alto-sax", "E flat", false}, {"Flute in C", "flute", "C", false},
	}
	for _, tt := range tests {
		if key, otherwise := NamedOtherwise(tt.name, byID(t, tt.id)); key != tt.key || otherwise != tt.otherwise {
			t.Errorf("%s is in %q, otherwise than ours: %v", tt.name, key, otherwise)
		}
	}
}

func TestOctaveChoices(t *testing.T) {
	source := testabc.Part(t, "M:4/4\nL:1/4\nK:Bb\nd e f2|g f e d|B4|]")
	choices := OctaveOptions(source, "", byID(t, "clarinet"), 1, nil)
	var words []string
	for _, c := range choices {
		words = append(words, fmt.Sprintf("%s-%s %v %s", c.Low, c.High, c.Suggested, c.Why))
	}
	want := []string{
		"C4-A4 true every note lies in the first-year range E3 to A4; it stays below the break",
		"C5-A5 false 8 of 8 notes lie outside the first-year range E3 to A4; it stays above the break",
	}
	if !slices.Equal(words, want) {
		t.Errorf("the clarinet may choose\n%s\nwant\n%s", strings.Join(words, "\n"), strings.Join(want, "\n"))
	}
	crossing := OctaveOptions(testabc.Part(t, "M:4/4\nL:1/4\nK:C\nG A G A|G4|]"), "", byID(t, "clarinet"), 1, nil)
	if got := crossing[1].Why; !strings.Contains(got, "it crosses the break 4 times") {
		t.Errorf("a line over the break says %q", got)
	}
	high := testabc.Part(t, "M:4/4\nL:1/4\nK:C\na b c' b|a4|]")
	if got := OctaveOptions(high, "", byID(t, "clarinet"), 2, nil)[1].Why; !strings.Contains(got, "the second-year range E3 to G5") {
		t.Errorf("the octave's reason is %q", got)
	}
	if got := OctaveOptions(source, "", byID(t, "snare"), 1, nil); got != nil {
		t.Errorf("a drum may choose %v", got)
	}
	for _, id := range []string{"horn-f", "bass"} {
		if got := OctaveOptions(testabc.Part(t, "M:4/4\nL:1/4\nK:Bb\nB c B2|]"), "", byID(t, id), 1, nil); len(got) < 2 {
			t.Errorf("%s may choose %v", id, got)
		}
	}
	made := Make(source, "", byID(t, "horn-f"), OctaveChoice{Chosen: true, Octaves: 0})
	if got := pitches(made.Part); !strings.HasPrefix(got, "A5") {
		t.Errorf("with the octave chosen the horn reads %s", got)
	}
}

// A breath lasts longer from year to year, of every wind instrument and of no other.
func TestBreath(t *testing.T) {
	for _, i := range All() {
		first, second, third := i.BreathSeconds(1), i.BreathSeconds(2), i.BreathSeconds(3)
		if i.breath != [3]float64{} && !i.Blown {
			t.Errorf("%s has a breath and is not blown", i.ID)
		}
		if i.Blown && !(4 < first && first < second && second < third && third < 20) || !i.Blown && third != 0 {
			t.Errorf("%s: %g, %g and %g seconds", i.ID, first, second, third)
		}
	}
}

// What lists of students call instruments. Source: common abbreviations of score order, in five
// languages; what speaks of several is not guessed.
func TestNamed(t *testing.T) {
	for text, want := range map[string]string{
		"Fl": "flute", "Fl. 2": "flute", "Ob.": "oboe", "Cl": "clarinet", "B. Cl": "bass-clarinet", "B.Cl.": "bass-clarinet", "Bass Cl": "bass-clarinet", "Bb Cl 3": "clarinet",
		"A. Sax": "alto-sax", "T.Sax": "tenor-sax", "Tenor": "tenor-sax", "Bari": "bari-sax", "Bari. Sax": "bari-sax", "Tpt. 1st": "trumpet", "Hn": "horn-f", "F Horn": "horn-f",
		"Tbn": "trombone", "Euph": "euphonium-bc", "Bar. T.C.": "euphonium-tc", "Bar. B. C.": "euphonium-bc", "Bar": "euphonium-bc euphonium-tc", "Tba": "tuba-bb", "Sousaphone": "tuba-bb",
		"SD": "snare", "Timp": "timpani", "Vln II": "violin", "Vla": "viola", "Vc": "cello", "DB": "bass", "Mallets": "bells marimba xylophone", "Alto": "alto-sax viola",
		"Bass": "bass bass-clarinet tuba-bb", "Perc": "bass-drum bells small-percussion snare", "Percussion": "bass-drum bells small-percussion snare", "Schlagzeug": "bass-drum bells small-percussion snare",
		"Klarinette": "clarinet", "Posaune": "trombone", "Querflöte": "flute", "Hautbois": "oboe", "Clarinette basse": "bass-clarinet", "Contrebasse": "bass",
		"Trombón": "trombone", "Clarinete bajo": "bass-clarinet", "Violonchelo": "cello", "Fagotto": "bassoon", "Corno": "horn-f", "Rullante": "snare", "Platillos": "small-percussion",
		"Horn in F": "horn-f", "Trombone": "trombone", "Kazoo": "", "": "", "T. C.": "",
	} {
		var ids []string
		for _, i := range Named(text) {
			ids = append(ids, i.ID)
		}
		slices.Sort(ids)
		if got := strings.Join(ids, " "); got != want {
			t.Errorf("%q speaks of %q, want %q", text, got, want)
		}
	}
	for _, i := range catalogue {
		for _, word := range i.short {
			if word != strings.ToLower(word) || strings.Contains(word, ".") || !slices.ContainsFunc(Named(word), func(n Instrument) bool { return n.ID == i.ID }) {
				t.Errorf("%s is not found as %q", i.ID, word)
			}
		}
	}
	for text, c := range map[string]struct{ others, want string }{
		"Alto": {"clarinet trumpet", "alto-sax"}, "alto": {"violin cello", "viola"}, "ALTO": {"violin flute", "alto-sax viola"}, "Bass": {"violin", "bass"}, "bass": {"trumpet", "bass bass-clarinet tuba-bb"},
	} {
		var others []Instrument
		for _, id := range strings.Fields(c.others) {
			others = append(others, byID(t, id))
		}
		var ids []string
		for _, i := range Among(Named(text), others) {
			ids = append(ids, i.ID)
		}
		slices.Sort(ids)
		if got := strings.Join(ids, " "); got != c.want {
			t.Errorf("%s among %s is %q, want %q", text, c.others, got, c.want)
		}
	}
}
