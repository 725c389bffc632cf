package breakdown

import (
	"context"
	"encoding/json"
	"fmt"
	"runtime"
	"slices"
	"strings"
	"sync"
	"testing"

	"unhurriedbench/core/finger"
	"unhurriedbench/core/format/abc"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

func read(t testing.TB, text, id string, met *Met) Report {
	t.Helper()
	s, err := abc.Read(context.Background(), text+"\n")
	if err != nil {
		t.Fatalf("%s: %v", text, err)
	}
	i, ok := instrument.ByID(id)
	if !ok {
		t.Fatalf("no instrument %s", id)
	}
	return Read(s, s.Parts[0], "", i, met, Options{})
}

// alerts lists where an alert is given, as measure.note from 1.
func alerts(r Report, desired Alert) string {
	var places []string
	for _, m := range r.Measures {
		for j, e := range m.Events {
			if e.Has(desired) {
				places = append(places, string(rune('0'+m.Number))+"."+string(rune('1'+j)))
			}
		}
	}
	return strings.Join(places, " ")
}

func TestAccidentals(t *testing.T) {
	r := read(t, "M:4/4\nL:1/4\nK:Bb\nd e d2|=e e f e|e f e2|]", "violin", nil)
	for alert, want := range map[Alert]string{
		InKey: "1.2", Accidental: "2.1", Carried: "2.2 2.4", Cancelled: "3.1", Trap: "2.1",
	} {
		if got := alerts(r, alert); got != want {
			t.Errorf("%s is given at %q, want %q", alert, got, want)
		}
	}
	var names []string
	for _, m := range r.Measures {
		for _, e := range m.Events {
			names = append(names, e.Name)
		}
	}
	want := "D,E flat,D,E natural,E natural,F,E natural,E flat,F,E flat"
	if got := strings.Join(names, ","); got != want {
		t.Errorf("the names are\n%s, want\n%s", got, want)
	}
}

func TestNaturalIsSaidAfterAFlatInTheMeasure(t *testing.T) {
	r := read(t, "M:4/4\nL:1/4\nK:C\n_B =B c2|B4|]", "violin", nil)
	if got := r.Measures[0].Events[1].Name; got != "B natural" {
		t.Errorf("the note after B flat is called %q", got)
	}
}

// addAll adds the pitches of a part.
func (m *Met) addAll(part score.Part) {
	for _, at := range part.Notes() {
		m.Add(noteElement(part.At(at).Pitch))
	}
}

func TestTrapsFromEarlierExercises(t *testing.T) {
	earlier, err := abc.Read(context.Background(), "M:4/4\nL:1/4\nK:Bb\nd e f e|B4|]\n")
	if err != nil {
		t.Fatal(err)
	}
	met := MetIn()
	met.addAll(earlier.Parts[0])
	r := read(t, "M:4/4\nL:1/4\nK:F\nd e f e|B4|]", "violin", met)
	if got := alerts(r, Trap); got != "1.2" {
		t.Errorf("with one flat less the traps are at %q, want the first E of the line", got)
	}
	if e := r.Measures[0].Events[3]; !strings.Contains(e.Why, "E was flat in every exercise so far") {
		t.Errorf("the second E says %q", e.Why)
	}
	if e := r.Measures[0].Events[1]; e.Name != "E natural" || !strings.Contains(e.Why, "E was flat in every exercise so far") {
		t.Errorf("the trap is called %q because %q", e.Name, e.Why)
	}
	met.addAll(r.Part)
	if got := alerts(read(t, "M:4/4\nL:1/4\nK:F\nd e f e|B4|]", "violin", met), Trap); got != "" {
		t.Errorf("once both have been met, traps remain at %q", got)
	}
}

func TestOtherAlerts(t *testing.T) {
	tests := []struct {
		name, music string
		alert       Alert
		want        string
	}{
		{"three beats beside a quarter are long", "c3 d|c d e2|c4|]", Long, "1.1"},
		{"two beats are long among eighths", "c2 d/e/ f|c2 d e|c4|]", Long, "1.1"},
		{"one a line", "c3 d|c3 d|c2 d2|c2 d2|c3 d|c4|]", Long, "1.1 5.1"},
		{"the last note", "c3 d|c4|]", Last, "2.1"},
		{"each spelling once", "^G _A G2|^G _A G2|c4|]", Respelled, "1.1 1.2"},
		{"a finger that lifts after a rest", "B z A z|", Prepare, ""},
		{"a finger that moves in a rest", "F z ^F z|", Prepare, "1.3"},
		{"and not without one", "F ^F F2|", Prepare, ""},
		{"the key once a line", "[K:F]B B c2|B4|B4|B4|B4|c4|]", InKey, "1.1 5.1"},
	}
	for _, tt := range tests {
		r := read(t, "M:4/4\nL:1/4\nK:C\n"+tt.music, "violin", nil)
		if got := alerts(r, tt.alert); got != tt.want {
			t.Errorf("%s: %s is given at %q, want %q", tt.name, tt.alert, got, tt.want)
		}
	}
	for music, want := range map[string]string{"c4|]": "until the next downbeat", "c3 z|]": "stop where the rest begins"} {
		if e := read(t, "M:4/4\nL:1/4\nK:C\n"+music, "violin", nil).Measures[0].Events[0]; !strings.Contains(e.Why, want) {
			t.Errorf("the last note of %s says %q", music, e.Why)
		}
	}
}

// A hard change is marked at its first place and at its quickest, there and back being
// one; it is said at every place.
func TestHardChangesAreMarkedOnce(t *testing.T) {
	r := read(t, "M:4/4\nL:1/4\nK:Bb\nD C D C|D2 C2|D/C/D/C/ D2|]", "trombone", nil)
	if got := alerts(r, HardChange); got != "" {
		t.Errorf("from D to C in second-nearest positions is hard at %q", got)
	}
	r = read(t, "M:4/4\nL:1/4\nK:Bb\nB, C B, C|B,2 C2|B,/C/B,/C/ D2|]", "trombone", nil)
	if got := alerts(r, HardChange); got != "1.2 3.1" {
		t.Errorf("from B flat to C, first to sixth position, is hard at %q", got)
	}
	if e := r.Measures[0].Events[2]; e.Change == nil || !e.Change.Hard {
		t.Errorf("the way back says %+v", e.Change)
	}
}

// On strings a finger that comes back to another place, with a note between, is
// hard; a shift is said across an open string.
func TestChangesWithANoteBetween(t *testing.T) {
	violin := read(t, "M:4/4\nL:1/4\nK:C\n^c d =c2|]", "violin", nil)
	if c := violin.Measures[0].Events[2].Change; !c.Hard || !strings.Contains(c.Why, "finger 2 now stands in another place") {
		t.Errorf("C sharp, D, C natural is %+v", c)
	}
	s, err := abc.Read(context.Background(), "M:4/4\nL:1/4\nK:C clef=bass\n^C, D, ^C G,|C2 C2|]\n")
	if err != nil {
		t.Fatal(err)
	}
	bass, _ := instrument.ByID("bass")
	part := Read(s, s.Parts[0], "bass", bass, nil, Options{})
	if c := part.Measures[1].Events[0].Change; !strings.Contains(c.Why, "the finger") && !strings.Contains(c.Why, "a finger goes down") {
		t.Errorf("over the open G: %+v", c)
	}
	s, _ = abc.Read(context.Background(), "M:4/4\nL:1/4\nK:C clef=bass\nA, G, C2|]\n")
	part = Read(s, s.Parts[0], "bass", bass, nil, Options{})
	if c := part.Measures[0].Events[2].Change; !strings.Contains(c.Why, "shifts to third position while the open string sounds") {
		t.Errorf("from A to C over the open G: %+v", c)
	}
}

func TestChanges(t *testing.T) {
	r := read(t, "M:4/4\nL:1/4\nK:C\nG A z2|B- B z A|", "clarinet", nil)
	// Written A B z2 | C sharp, over the break or not, as the octave has it.
	var changes []string
	for _, m := range r.Measures {
		for _, e := range m.Events {
			if e.Change != nil {
				changes = append(changes, e.Change.Why)
			}
		}
	}
	if len(changes) != 3 {
		t.Errorf("the changes are %q, want one to each struck note but the first", changes)
	}
	if got := alerts(r, Prepare); got != "2.1 2.4" {
		t.Errorf("the hand prepares at %q", got)
	}
	trombone := read(t, "M:4/4\nL:1/4\nK:Bb\nB, C B, D|F4|]", "trombone", nil)
	if got := alerts(trombone, HardChange); got == "" {
		t.Error("a far slide is not a hard change")
	}
}

func TestCut(t *testing.T) {
	tests := []struct{ name, music, want string }{
		{"every two measures, three at the end", "c4|d4|e4|f4|g4|]", "A 1 2, B 3 4 5, Whole 1 2 3 4 5"},
		{"at a rest", "c4|d4|e3 z|f4|g4|c4|c4|]", "A 1 2 3, B 4 5, C 6 7, Whole 1 2 3 4 5 6 7"},
		{"no chunk of one measure", "c3 z|d4|e4|f4|]", "A 1 2, B 3 4, Whole 1 2 3 4"},
		{"pickup goes along", "c|d4|e4|f4|g3|]", "A 0 1 2, B 3 4, Whole 0 1 2 3 4"},
		{"rests go with the chunk before", "c4|d4|z4|f4|g4|]", "A 1 2 3, B 4 5, Whole 1 2 3 4 5"},
		{"long rests stand in the whole", "c4|d4|z4|z4|z4|z4|f4|g4|]", "A 1 2, B 7 8, Whole 1 2 3 4 5 6 7 8"},
		{"and so do rests before the first note", "z4|z4|f4|g4|c4|c4|]", "A 3 4, B 5 6, Whole 1 2 3 4 5 6"},
		{"one chunk is the whole", "c4|d4|]", "A 1 2"},
		{"not inside a tie", "c4|d4-|d4|e4|f4|g4|]", "A 1 2 3, B 4 5 6, Whole 1 2 3 4 5 6"},
		{"not inside a slur", "c4|(d4|e4)|f4|f4|f4|]", "A 1 2 3, B 4 5 6, Whole 1 2 3 4 5 6"},
		{"a repeat first", "|:c4|d4|e4:|f4|g4|a4|b4|]", "A 1 2 3, B 4 5, C 6 7, Whole 1 2 3 4 5 6 7"},
		{"a second ending with the measure before", "|:c4|d4|e4|f4|1g4:|2c4|]", "A 1 2, B 3 4, C 5, D 4 6, Whole 1 2 3 4 5 6"},
		{"a first ending that a tie leads into", "|:c4|d4|e4|f4-|1f4:|2c4|]", "A 1 2, B 3 4, C 4 5, D 4 6, Whole 1 2 3 4 5 6"},
		{"one measure before its endings", "|:c4|1d4:|2e4||f4|g4|]", "A 1 2, B 1 3, C 4 5, Whole 1 2 3 4 5"},
		{"one measure between endings", "|:c4|d4|1e4:|2f4|:g4|1a4:|2b4|]", "A 1 2, B 3, C 2 4, D 5 6, E 5 7, Whole 1 2 3 4 5 6 7"},
		{"one measure after an ending", "|:c4|d4|1e4:|2f4||g4|]", "A 1 2, B 3, C 2 4 5, Whole 1 2 3 4 5"},
		{"measures that a tie fills count", "c4-|c4|z4|d4|e4|]", "A 1 2 3, B 4 5, Whole 1 2 3 4 5"},
		{"a double bar", "c4|d4|e4||f4|g4|a4|b4|]", "A 1 2 3, B 4 5, C 6 7, Whole 1 2 3 4 5 6 7"},
		{"a breath", "c4|d4|e4!breath!|f4|g4|a4|]", "A 1 2 3, B 4 5 6, Whole 1 2 3 4 5 6"},
		{"a phrase keeps its own pickup", "c d e f|g2 z c|d e f g|a4|]", "A 1 2 to 3/4, B 3/4 3 4, Whole 1 2 3 4"},
		{"a pickup slurred to its phrase", "c|f2 e d|c2 A (c|f2) e d|c3|]", "A 0 1 2 to 3/4, B 3/4 3 4, Whole 0 1 2 3 4"},
		{"an upbeat after a long note", "c|f2 e d|c3 c|f2 e d|c3|]", "A 0 1 2 to 3/4, B 3/4 3 4, Whole 0 1 2 3 4"},
		{"no upbeat without a long note before it", "c|f2 e d|c2 A c|d e f d|c3 c|f e d c|c3|]", "A 0 1 2, B 3 4 to 3/4, C 3/4 5 6, Whole 0 1 2 3 4 5 6"},
		{"an upbeat after the one longest note, on the tonic", "M:6/8\nL:1/8\nc|efg agf|edd c2g|efg agf|edB c2|]", "A 0 1 2 to 5/8, B 5/8 3 4, Whole 0 1 2 3 4"},
		{"an eighth in 6/8 that only leads on", "M:6/8\nL:1/8\nc|c2A F2A|B2G A3|c2B A2B|G3 z2c|c2A F2A|B2G A2G|F3 z2|]", "A 0 1 2, B 3 4 to 5/8, C 5/8 5 6 7, Whole 0 1 2 3 4 5 6 7"},
		{"nothing between a phrase and its last note", "d3 c|B4-|B2 c d|e4|e3 d|c4-|c2 B A|B4|]", "A 1 2 3 4, B 5 6 7 8, Whole 1 2 3 4 5 6 7 8"},
		{"nor before a long note that three measures lead to", "c d e f|g f e d|c4|d e f g|a g f e|d4|]", "A 1 2 3, B 4 5 6, Whole 1 2 3 4 5 6"},
		{"a slur that ends on the upbeat", "c|f2 e d|c2 (A c)|f2 e d|c3|]", "A 0 1 2, B 3 4, Whole 0 1 2 3 4"},
		{"a breath under a slur", "c4|(d4!breath!|e4)|f4|]", "A 1 2 3 4"},
		{"a slur over the bar that ends on the upbeat", "c|f2 e (d|c2 A c)|f2 e d|c3|]", "A 0 1 2, B 3 4, Whole 0 1 2 3 4"},
		{"rests alone", "z4|z4|]", "A 1 2"},
	}
	for _, tt := range tests {
		meter := "M:4/4\nL:1/4\n"
		if at := strings.LastIndex(tt.music, "\n"); at > 0 {
			meter, tt.music = tt.music[:at+1], tt.music[at+1:]
		}
		s, err := abc.Read(context.Background(), meter+"K:C\n"+tt.music+"\n")
		if err != nil {
			t.Fatalf("%s: %v", tt.name, err)
		}
		var words []string
		for _, p := range Cut(s.Parts[0]) {
			text := p.Label
			if p.Start != nil {
				text += " " + p.Start.String()
			}
			for _, n := range p.Measures {
				text += " " + string(rune('0'+n))
			}
			if p.End != nil {
				text += " to " + p.End.String()
			}
			words = append(words, text)
		}
		if got := strings.Join(words, ", "); got != tt.want {
			t.Errorf("%s: %s, want %s", tt.name, got, tt.want)
		}
	}
}

func TestChunksSayWhatTheyRepeat(t *testing.T) {
	for music, want := range map[string]string{
		"c d e f|g4|c d e f|g4|]":                                "A again: start there",
		"c d e f|g4|d e f g|a4|]":                                "m. 1–2 again, shifted, to the end",
		"c d e f|g4|e c g c|e4|]":                                "the rhythm of m. 1–2, to the end",
		"c d e f|g4|e2 c2|c d e f|]":                             "to the end",
		"c d e f|g4|c d e f|a2 g2|]":                             "to the end",
		"c|f2 e d|c2 A c|d e f d|c3 c|f2 e d|c2 A c|d c e2|f3|]": "A again: start there",
	} {
		chunks := read(t, "M:4/4\nL:1/4\nK:C\n"+music, "violin", nil).Chunks
		if got := chunks[1].Why; got != want {
			t.Errorf("%s: the second chunk says %q, want %q", music, got, want)
		}
	}
	open := read(t, "M:4/4\nL:1/4\nK:F\nc|f2 e d|c2 A c|d e f d|c3 c|f2 e d|c2 A c|d c e2|f3|]", "violin", nil).Chunks
	three := read(t, "M:4/4\nL:1/4\nK:C\nc d e f|(d2 e2|f4)|c d e f|(d2 e2|f4)|]", "violin", nil).Chunks
	if why := three[1].Why; why != "A again: start there" {
		t.Errorf("a chunk of three measures says %q", why)
	}
	ending := read(t, "M:4/4\nL:1/4\nK:C\n|:c4|d2 e2|1c4:|2d4|]", "violin", nil).Chunks
	if why := ending[1].Why; why != "the same as m. 1, an ending" {
		t.Errorf("an ending of one measure says %q", why)
	}
	if p := open[1]; p.Why != "A again: start there" || p.InWords() != "pickup, m. 5–6" {
		t.Errorf("the third phrase is %s because %q", p.InWords(), p.Why)
	}
}

// Of every demo-like line each note that is struck belongs to a chunk, and no chunk
// begins inside a tie.
func TestChunksHoldEveryNote(t *testing.T) {
	for _, music := range []string{"c|f2 e d|c2 A c|d e f d|c3 c|f2 e d|c2 A c|d c e2|f3|]", "|:c4|d4|e4|f4|1g4:|2c4|d4|]", "c4|d4-|d2 e2|(f4|g4)|a4|b4|]"} {
		r := read(t, "M:4/4\nL:1/4\nK:C\n"+music, "violin", nil)
		held := map[score.Place]bool{}
		for _, p := range r.Chunks {
			if p.Label == "Whole" {
				continue
			}
			for n, passage := range p.Passages(r.Part) {
				for j, e := range r.Part.Measures[passage.At].Events {
					if !e.Start.Less(passage.From) && e.Start.Less(passage.To) {
						held[score.Place{Measure: passage.At, Event: j}] = true
						if n == 0 && e.Start == passage.From && e.Tied {
							t.Errorf("%s: chunk %s begins inside a tie", music, p.Label)
						}
					}
				}
			}
		}
		for _, at := range r.Part.Notes() {
			if !held[at] {
				t.Errorf("%s: the note at %v is in no chunk", music, at)
			}
		}
	}
}

func TestFindSame(t *testing.T) {
	tests := []struct {
		name, music string
		want        []Recurrence
	}{
		{"the same again", "M:4/4\nL:1/4\nK:C\nc d e f|g4|c d e f|g4|]", []Recurrence{{[]int{3, 4}, []int{1, 2}, "same"}}},
		{"a tie is what it adds up to", "M:4/4\nL:1/8\nK:C\nc3 d e4|c2-c d e4|]", []Recurrence{{[]int{2}, []int{1}, "same"}}},
		{"shifted", "M:4/4\nL:1/4\nK:C\nc d e f|d e f g|]", []Recurrence{{[]int{2}, []int{1}, "shifted"}}},
		{"rhythm alone", "M:4/4\nL:1/4\nK:C\nc d e2|e c g2|]", []Recurrence{{[]int{2}, []int{1}, "rhythm"}}},
		{"nothing", "M:4/4\nL:1/4\nK:C\nc d e2|c4|]", []Recurrence{}},
	}
	for _, tt := range tests {
		got := read(t, tt.music, "violin", nil).Same
		if !slices.EqualFunc(got, tt.want, func(a, b Recurrence) bool {
			return a.How == b.How && slices.Equal(a.Measures, b.Measures) && slices.Equal(a.As, b.As)
		}) {
			t.Errorf("%s: %v, want %v", tt.name, got, tt.want)
		}
	}
}

func TestJSONKeepsItsContract(t *testing.T) {
	r := read(t, "T:Lamp\nM:4/4\nL:1/4\nK:Bb\nB2- B z|]", "trombone", nil)
	text, err := json.Marshal(r)
	if err != nil {
		t.Fatal(err)
	}
	for _, want := range []string{
		`"schema":2,"title":"Lamp","instrument":"trombone","clef":"bass","key":{"fifths":-2,"name":"B flat major"},"meter":"4/4"`,
		`{"kind":"note","start":"0","length":"1/2","pitch":"Bb2","concert":"Bb2","name":"B flat","place":"line 2","count":"1","held":["2","3"],"tap":"down","fingering":"1","alternates":[],"tied":false`,
		`"start":"1/2","length":"1/4","pitch":"Bb2","concert":"Bb2","name":"B flat","place":"line 2","tap":"down","tied":true`,
		`{"kind":"rest","start":"3/4","length":"1/4","count":"4","held":[],"tap":"down","tied":false,"alerts":["skip"]}`,
		`"order":[1]`, `"chunks":[{"label":"A","measures":[1],"why":"to the end","difficulty":0.16,"breath":{"seconds":3,"one":true}}]`,
		`"difficulty":{"total":0.16,"parts":{"rhythm":0.16,"reading":0.07,"change":0,"range":0.06,"breath":0,"new":0}},"tempo":{"limit_measure":0,"suggested":60}`,
	} {
		if !strings.Contains(string(text), want) {
			t.Errorf("%s is missing in\n%s", want, text)
		}
	}
}

// sixteen is a 16-measure exercise.
const sixteen = "T:Sixteen\nM:4/4\nL:1/8\nK:Bb\n" +
	"B2cd e2d2|c2d2 e4|f2ed c2B2|A2B2 c4|d2ef g2f2|e2d2 c4|=e2ef g2e2|f8|" +
	"B2cd e2d2|c2d2 e4|f2ed c2B2|A2B2 c3z|d2ef g2f2|e2d2 c4|d2c2 B2A2|B8|]\n"

func BenchmarkReadSixteenMeasures(b *testing.B) {
	i, _ := instrument.ByID("clarinet")
	for b.Loop() {
		s, err := abc.Read(context.Background(), sixteen)
		if err != nil {
			b.Fatal(err)
		}
		Read(s, s.Parts[0], "", i, nil, Options{})
	}
}

// BenchmarkEightMeasures explains a plain exercise of eight measures to one instrument as
// its page does, to all as a file is inspected, and reads what all keep of it.
func BenchmarkEightMeasures(b *testing.B) {
	s, err := abc.Read(context.Background(), "M:4/4\nL:1/4\nK:Bb\nd e f2|f>e d2|c d e z|d =e f2|d e f2|g>f e d|c/d/ e d c|B3 z|]\n")
	if err != nil {
		b.Fatal(err)
	}
	trombone, _ := instrument.ByID("trombone")
	met := MetIn()
	b.Run("one", func(b *testing.B) {
		for b.Loop() {
			Read(s, s.Parts[0], "", trombone, met, Options{ForPage: true})
		}
	})
	b.Run("all", func(b *testing.B) {
		for b.Loop() {
			for _, i := range instrument.All() {
				Read(s, s.Parts[0], "", i, met, Options{})
			}
		}
	})
	b.Run("demands", func(b *testing.B) {
		for b.Loop() {
			for _, i := range instrument.All() {
				DemandsOf(s, s.Parts[0], "", i)
			}
		}
	})
}

// BenchmarkReadThirtyTwoMeasures reads, transposes, counts and names.
func BenchmarkReadThirtyTwoMeasures(b *testing.B) {
	header, music, _ := strings.Cut(sixteen, "K:Bb\n")
	text := header + "K:Bb\n" + strings.Replace(music, "|]", "|", 1) + music
	i, _ := instrument.ByID("trumpet")
	for b.Loop() {
		s, err := abc.Read(context.Background(), text)
		if err != nil {
			b.Fatal(err)
		}
		if r := Read(s, s.Parts[0], "", i, nil, Options{}); len(r.Measures) != 32 {
			b.Fatalf("%d measures", len(r.Measures))
		}
	}
}

// BenchmarkBook explains a book of 200 exercises to 24 instruments, on as many
// cores as there are.
func BenchmarkBook(b *testing.B) {
	s, err := abc.Read(context.Background(), sixteen)
	if err != nil {
		b.Fatal(err)
	}
	instruments := instrument.All()[:24]
	for b.Loop() {
		var group sync.WaitGroup
		next := make(chan instrument.Instrument)
		for range runtime.NumCPU() {
			group.Go(func() {
				for i := range next {
					Read(s, s.Parts[0], "", i, nil, Options{})
				}
			})
		}
		for range 200 {
			for _, i := range instruments {
				next <- i
			}
		}
		close(next)
		group.Wait()
	}
}

func TestDrills(t *testing.T) {
	r := read(t, "M:4/4\nL:1/4\nK:Bb\nB, C B, C|D E2 z|B, E D2|F4|]", "trombone", nil)
	i, _ := instrument.ByID("trombone")
	drills := r.Drills(i)
	if len(drills) != 3 || drills[0].Change.Cost < drills[1].Change.Cost {
		t.Fatalf("%d drills: %+v", len(drills), drills)
	}
	d := drills[0]
	if d.From.Text+d.To.Text != "16" || !slices.Equal(d.Measures, []int{1, 1, 1}) || d.Change.Cost < finger.Hard {
		t.Errorf("the drill is %+v", d)
	}
	if d.Tempo != 69 {
		t.Errorf("it starts at %d, want 69", d.Tempo)
	}
	s, chunks := r.DrillScore(drills)
	if len(chunks) != 3 || len(s.Parts[0].Measures) != 12 || !strings.Contains(chunks[0].Why, "m. 1;") {
		t.Errorf("the drill is written as %d measures, chunk %+v", len(s.Parts[0].Measures), chunks)
	}
	if err := s.Parts[0].Finish(); err != nil {
		t.Errorf("the drill is no sound music: %v", err)
	}
	again := Read(s, s.Parts[0], "trombone", i, nil, Options{})
	if got := again.Measures[0].Events[1].Pitch; got != "C3" {
		t.Errorf("its second note is %s", got)
	}
	if got := read(t, "M:2/4\nL:1/4\nK:C clef=perc\nc c|]", "snare", nil).Drills(instrument.All()[0]); len(got) > 0 {
		t.Errorf("a drum has drills: %v", got)
	}
}

// A hard change is on the list of every chunk it is in, once, wherever it is marked.
func TestWatch(t *testing.T) {
	r := read(t, "M:4/4\nL:1/4\nK:C\nc' c c' c|e d c2|c c' c2|e f ^f f|]", "trombone", nil)
	trombone, _ := instrument.ByID("trombone")
	say := func(label string) string {
		var words []string
		for _, p := range r.Chunks {
			if p.Label == label {
				for _, w := range r.Watch(p.Passages(r.Part), trombone) {
					words = append(words, fmt.Sprintf("%d %s (%s)", w.Measure, w.Name, w.Why))
				}
			}
		}
		return strings.Join(words, "; ")
	}
	// C is sixth position, E second, F first and F sharp fifth.
	for label, want := range map[string]string{
		"A": "2 E (A third, not a step: from space 2 to space 3. A hard change: the slide goes in, 4 positions. Here for the first time: E.); " +
			"2 D (Here for the first time: D.); 2 C (Here for the first time: half note.)",
		"B": "4 F♯ (The sign in front of it makes it F sharp until the bar line. Watch out: this is F sharp, and F was natural everywhere before this. " +
			"A hard change: the slide goes out, 4 positions. Here for the first time: F sharp, sharp sign.); " +
			"4 E (A hard change: the slide goes in, 4 positions.); " +
			"4 F♯ (The sign earlier in the measure still holds: F sharp. The last note: hold it until the next downbeat.); 4 F (Here for the first time: F.)",
	} {
		if got := say(label); got != want {
			t.Errorf("in chunk %s there is to watch\n%s, want\n%s", label, got, want)
		}
	}
}
