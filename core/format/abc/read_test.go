package abc

import (
	"context"
	"errors"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"unhurriedbench/core/score"
	"unhurriedbench/internal/midicheck"
)

// Outside check: abc2midi, from Debian's abcmidi, strikes the same notes at the
// same times, repeats unrolled.
func TestFilesAgreeWithABC2MIDI(t *testing.T) {
	names, err := filepath.Glob("testdata/*.abc")
	if err != nil || len(names) < 20 {
		t.Fatalf("%d files: %v", len(names), err)
	}
	for _, name := range names {
		t.Run(strings.TrimSuffix(filepath.Base(name), ".abc"), func(t *testing.T) {
			text, err := os.ReadFile(name)
			if err != nil {
				t.Fatal(err)
			}
			s, err := Read(context.Background(), string(text))
			if err != nil {
				t.Fatal(err)
			}
			midicheck.Compare(t, string(text), s.Parts...)
		})
	}
}

// byHand is what is played from testdata/by-hand, where abc2midi goes another way: it
// follows no D.C. or D.S., takes a repeat sign that closes a second ending for another
// repeat, plays :: twice only, strikes every note of a chord, where we follow the
// highest, and passes over accidentals of K: that are written together. Written by
// hand from the text; common practice.
var byHand = map[string]string{
	"fine-at-the-start": "F4 G4 A4 C5 F4 C5 Bb4 A4 G4 C5 F4 G4 A4 C5 F4",
	"jump-in-quotes":    "F4 G4 A4 C5 F4 C5 Bb4 A4 G4 C5 C5 F4 G4 A4 C5 F4",
	"jump-in-words":     "F4 G4 A4 C5 F4 C5 Bb4 A4 G4 C5 C5 F4 G4 A4 C5 F4",
	"segno-in-words":    "F4 G4 A4 Bb4 G4 A4 C5",
	"no-segno":          "F4 G4 A4 C5 F4 C5 F4 G4 A4 C5 F4 C5",
	"two-codas":         "F4 G4 A4 C5 A4 G4 F4 C5 Bb4 A4 G4 C5 F4 G4 A4 C5 A4 G4 F4 F5 F4",
	"ending-closed":     "G4 A4 B4 C5 D5 G4 A4 B4 C5 G4 B4 G4",
	"three-times":       "C5 D5 E5 F5 G5 C5 D5 E5 F5 G5 C5 D5 E5 F5 G5 C5",
	"signs-together":    "F#5 C#5 G5 D5 F#5 C#5 G5 A5",
	"tied-chords":       "E4 E4 E4 E4 G4 E4 C5",
	"tied-into-endings": "C5 D5 E5 F5 G5 A5 C5 D5 E5 F5 G5 A5 G5",
	"play-three-times":  "C5 D5 E5 F5 G5 C5 D5 E5 F5 G5 C5 D5 E5 F5 G5 C5",
}

func TestFilesPlayedByHand(t *testing.T) {
	for name, want := range byHand {
		text, err := os.ReadFile("testdata/by-hand/" + name + ".abc")
		if err != nil {
			t.Fatal(err)
		}
		if got := played(readPart(t, string(text))); got != want {
			t.Errorf("%s: %s is played, want %s", name, got, want)
		}
	}
}

// played lists the struck pitches in order.
func played(p score.Part) string {
	var words []string
	for _, s := range p.Sounding(p.Order()) {
		words = append(words, s.Pitch.String())
	}
	return strings.Join(words, " ")
}

// tune puts a line of music under a plain header.
func tune(music string) string { return "X:1\nT:Test\nM:4/4\nL:1/4\nK:Bb\n" + music + "\n" }

func readPart(t *testing.T, text string) score.Part {
	t.Helper()
	s, err := Read(context.Background(), text)
	if err != nil {
		t.Fatalf("%s: %v", text, err)
	}
	return s.Parts[0]
}

func TestHeader(t *testing.T) {
	s, err := Read(context.Background(), "X:3\nT:Lamp\nC:Someone\nM:6/8\nL:1/8\nQ:3/8=60\nK:Gm clef=bass\nG,3 B,3|]\n")
	if err != nil {
		t.Fatal(err)
	}
	p := s.Parts[0]
	if s.Title != "Lamp" || s.Composer != "Someone" || s.Tempo != (score.Tempo{Beat: score.Frac(3, 8), PerMinute: 60}) {
		t.Errorf("title %q, composer %q, tempo %v", s.Title, s.Composer, s.Tempo)
	}
	if p.Key().Name() != "G minor" || p.Clef() != score.Bass || p.Meter().String() != "6/8" {
		t.Errorf("key %s, clef %s, meter %s", p.Key().Name(), p.Clef().Name(), p.Meter())
	}
}

func TestDefaultUnitLength(t *testing.T) {
	if p := readPart(t, "M:2/4\nK:C\nC4 D4|]"); p.Measures[0].Events[0].Length != score.Frac(1, 4) {
		t.Error("below 3/4 a plain letter is a sixteenth (ABC 2.1, 3.1.7)")
	}
	if p := readPart(t, "M:4/4\nK:C\nC4 D4|]"); p.Measures[0].Events[0].Length != score.Frac(1, 2) {
		t.Error("from 3/4 on a plain letter is an eighth (ABC 2.1, 3.1.7)")
	}
}

func TestMarksAndSticking(t *testing.T) {
	if e := readPart(t, tune(`"R"B "L"c d2|]`)).Measures[0].Events; e[0].Sticking != "R" || e[1].Sticking != "L" {
		t.Errorf("hands in quotes are read as %q and %q", e[0].Sticking, e[1].Sticking)
	}
	p := readPart(t, tune(`"^R"B .c !fermata!d (3e/d/c/ | (B c) !mf!d2 |]`))
	first := p.Measures[0].Events
	if first[0].Sticking != "R" || first[1].Marks[0] != score.Staccato || first[2].Marks[0] != score.Fermata {
		t.Errorf("marks were lost: %+v", first[:3])
	}
	if !first[3].TupletStarts || !first[5].TupletEnds || first[3].Length != score.Frac(1, 12) {
		t.Errorf("the triplet is %+v", first[3:])
	}
	second := p.Measures[1].Events
	if second[0].SlurStarts != 1 || second[1].SlurEnds != 1 || second[2].Dynamic != "mf" {
		t.Errorf("slur or dynamic was lost: %+v", second)
	}
}

func TestPercussionIsUnpitched(t *testing.T) {
	p := readPart(t, "M:2/4\nL:1/4\nK:C clef=perc\nc c|]")
	if !p.Unpitched() || p.Clef() != score.Percussion {
		t.Error("a percussion clef did not make strokes")
	}
}

func TestChordsSaveTheTopNote(t *testing.T) {
	e := readPart(t, tune("[Bdf]2 f2|]")).Measures[0].Events[0]
	if e.Pitch.String() != "F5" || len(e.Others) != 2 || e.Length != score.Frac(1, 2) {
		t.Errorf("the chord is %v with %v", e.Pitch, e.Others)
	}
}

func TestVoices(t *testing.T) {
	s, err := Read(context.Background(),
		"X:1\nM:4/4\nL:1/4\nV:1 name=\"Flute\"\nV:2 name=\"Clarinet\" transpose=-2\nK:C\nV:1\nc d e f|\nV:2\nd e f g|\n[V:1]g4|]\n[V:2]a4|]\n",
	)
	if err != nil {
		t.Fatal(err)
	}
	if len(s.Parts) != 2 || len(s.Parts[0].Measures) != 2 || s.Parts[1].Name != "Clarinet" {
		t.Fatalf("%d parts: %+v", len(s.Parts), s.Parts)
	}
	if s.Parts[1].Transposition != (score.Interval{Steps: -1, Semitones: -2}) {
		t.Errorf("the clarinet sounds %v from its written pitch", s.Parts[1].Transposition)
	}
}

func TestRemarks(t *testing.T) {
	tests := []struct{ music, says string }{
		{"{c}B2 d2|]", "grace notes are left out"},
		{"B2 !D.S.!d2|]", "no sign to go back to; it is read from the beginning"},
		{"B2 d2|!D.C.alcoda!B4|]", "a coda that is not marked"},
		{"B2 !fine!d2|]", "passed over, since no D.C. or D.S. comes back"},
		{"B4|1 d4|2 f4|]", "there is no repeat sign; it is read as if there were one"},
		{"B4|!fine!d4!D.C.!|f4|]", "Measure 3, line 6: it is never played"},
		{"(B2 d2|f4|]", "Measure 1, line 6: a slur begins that does not end"},
		{"B2 d2)|f2 d2)|]", "a slur ends that does not begin; it is left out. So in 2 measures"},
		{"({c}B2) d2|]", "grace notes are left out"},
		{"{(c}B2) d2|]", "grace notes are left out"},
		{"[Bd]2 [df]2|]", "the lanes follow the highest, the others stand on the staff alone. It comes 2 times"},
		{"B2 d2|]\nw: la la", "words under the notes are left out"},
		{"[K:C ^f _b]B2 d2|]", "not one of the fifteen"},
		{"!wobble!B2 d2|]", "!wobble! is left out"},
		{`"Bb"B2 d2|]`, "chord names"},
		{"=E2 e2|]", "other octave"},
		{"B4| |d4|]", "Measure 2, line 6: two bar lines stand in front of it with nothing between them"},
	}
	for _, tt := range tests {
		s, err := Read(context.Background(), tune(tt.music))
		if err != nil {
			t.Errorf("%s: %v", tt.music, err)
			continue
		}
		if len(s.Remarks) != 1 || !strings.Contains(s.Remarks[0].Error(), tt.says) {
			t.Errorf("%s: remarks %v, want one on %q", tt.music, s.Remarks, tt.says)
		}
	}
}

func TestProblemsNameTheirPlace(t *testing.T) {
	tests := []struct{ name, text, says string }{
		{"empty", "", "no music"},
		{"no key", "X:1\nT:x\nC D E F|", "Line 3: music comes before the key"},
		{"bad sign", tune("B c ? d"), "Line 6, column 5: “?”"},
		{"too long", tune("B c d e | B c d e f |]"), "Measure 2, line 6: it holds 5 quarter notes"},
		{"too short", tune("B c d e | B c | d4 |]"), "Measure 2, line 6: it holds 2 quarter notes"},
		{"unwritable", tune("B5/4 c3/4 d2|]"), "cannot be written as one note"},
		{"bad key", "K:H\nC4|]", "Line 1: K:H is not a key"},
		{"bad meter", "M:4/5\nK:C\nC4|]", "Line 1: M:4/5 is not a meter"},
		{"open tuplet", tune("(3B c|]"), "a tuplet is not complete"},
		{"zero length", tune("B0 c|]"), "length 0"},
		{"not UTF-8", "K:C\n\xff\xfe", "not UTF-8"},
		{"broken at the bar", tune("> B4|]"), "must stand between two notes"},
		{"out of the world", tune("c''''''''4|]"), "beyond every instrument"},
	}
	for _, tt := range tests {
		_, err := Read(context.Background(), tt.text)
		if err == nil || !strings.Contains(err.Error(), tt.says) {
			t.Errorf("%s: got %v, want it to say %q", tt.name, err, tt.says)
		}
	}
}

func TestProblemsKnowTheirColumn(t *testing.T) {
	for text, want := range map[string]int{
		tune("B c d e | B c d e f |"): 11,
		tune("B c ? d"):               5,
	} {
		_, err := Read(context.Background(), text)
		var found score.Problems
		if !errors.As(err, &found) || found[0].Column != want || found[0].Line != 6 {
			t.Errorf("%q: %+v, want line 6, column %d", text, found, want)
		}
	}
}

func FuzzRead(f *testing.F) {
	names, err := filepath.Glob("testdata/*.abc")
	if err != nil {
		f.Fatal(err)
	}
	for _, name := range names {
		text, err := os.ReadFile(name)
		if err != nil {
			f.Fatal(err)
		}
		f.Add(string(text))
	}
	f.Fuzz(func(t *testing.T, text string) {
		s, err := Read(context.Background(), text)
		if err != nil {
			return
		}
		for _, p := range s.Parts {
			p.Sounding(p.Order())
		}
	})
}

// What the new testdata files are about, beyond the pitches that are played.
func TestOddities(t *testing.T) {
	file := func(name string) score.Score {
		text, err := os.ReadFile("testdata/" + name + ".abc")
		if err != nil {
			t.Fatal(err)
		}
		s, err := Read(context.Background(), string(text))
		if err != nil {
			t.Fatalf("%s: %v", name, err)
		}
		return s
	}
	if s := file("parts-order"); len(s.Remarks) != 0 {
		t.Errorf("parts in the order they stand in say %v", s.Remarks)
	}
	if s := file("parts-written-out"); len(s.Remarks) != 1 || !strings.Contains(s.Remarks[0].Error(), "P:AABA gives the order of the parts; they are written out in it.") {
		t.Errorf("parts in another order say %v", s.Remarks)
	}
	if s := file("text-and-history"); s.Parts[0].Meter().String() != "5/8" {
		t.Errorf("3+2/8 is %s", s.Parts[0].Meter())
	}
	if s := file("key-with-accidentals"); s.Parts[0].Key().Fifths != 1 || s.Parts[0].Measures[1].Key.Fifths != 0 ||
		s.Parts[0].Measures[1].Events[0].Pitch.String() != "F#5" {
		t.Errorf("K:D =c is %v, K:C ^f _b %v", s.Parts[0].Key(), s.Parts[0].Measures[1])
	}
	inside := file("ending-inside").Parts[0].Measures
	if len(inside) != 4 || !inside[2].Split || !inside[3].Split || inside[3].Number != 2 {
		t.Errorf("an ending inside a measure: %+v", inside)
	}
	if s := file("clef-octave"); s.Parts[0].Clef().Octave != -1 || s.Parts[0].Measures[0].Events[0].Pitch.String() != "C4" {
		t.Errorf("c under treble-8 is %s", s.Parts[0].Measures[0].Events[0].Pitch)
	}
	printed := file("fingerings").Parts[0].Measures
	var words []string
	for _, m := range printed {
		for _, e := range m.Events {
			words = append(words, e.Fingering)
		}
	}
	if got := strings.Join(words, ","); got != "4,3,1,0,L2,,open" {
		t.Errorf("the printed fingerings are %s", got)
	}
	if s := file("voices-with-own-fields"); s.Parts[1].Measures[1].Key.Fifths != 0 || s.Parts[0].Measures[1].Key.Fifths != 1 {
		t.Error("the key of one voice leaks into the other")
	}
	free := file("no-meter")
	if got := free.Parts[0].Measures[1].Meter.String(); got != "2/4" ||
		!strings.Contains(free.Remarks[0].Error(), "read by its bar lines, as 3/4, 2/4") {
		t.Errorf("with no meter the second measure is %s (%v)", got, free.Remarks)
	}
	sticks := readPart(t, "M:4/4\nL:1/4\nK:C clef=perc\nc c c c|c2 z c|]\nw: R L R R | L R\n")
	if got := sticks.Measures[0].Events[3].Sticking + sticks.Measures[1].Events[0].Sticking + sticks.Measures[1].Events[2].Sticking; got != "RLR" {
		t.Errorf("sticking under the strokes is read as %s", got)
	}
	var hands []string
	for _, e := range readPart(t, "M:4/4\nL:1/8\nK:C clef=perc\nz5 c c c|]\nw: R L R\n").Measures[0].Events {
		if e.Kind == score.Note {
			hands = append(hands, e.Sticking)
		}
	}
	if got := strings.Join(hands, ""); got != "RLR" {
		t.Errorf("after a rest written as two the hands are %s", got)
	}
}

func TestTempoWordsOnBothSides(t *testing.T) {
	s, err := Read(context.Background(), "M:4/4\nL:1/4\nQ:\"Allegro\" 1/4=120 \"with spirit\"\nK:C transpose=-2\nC4|]\n")
	if err != nil || s.TempoWords != "Allegro with spirit" || s.Tempo.PerMinute != 120 || s.Parts[0].Transposition.Semitones != -2 {
		t.Errorf("the tempo is %q at %d, sounding %v (%v)", s.TempoWords, s.Tempo.PerMinute, s.Parts[0].Transposition, err)
	}
}

func TestWhatFollowsABadFieldIsNotBlamed(t *testing.T) {
	_, err := Read(context.Background(), "M:4/4\nL:1/4\nK:H\nC D E F|]\n")
	if err == nil || strings.Contains(err.Error(), "before the key is known") || !strings.Contains(err.Error(), "K:H is not a key") {
		t.Errorf("a bad key says %v", err)
	}
	_, err = Read(context.Background(), "M:5/7\nL:1/4\nK:C\nC D E F|]\n")
	if err == nil || strings.Contains(err.Error(), "before the key is known") || !strings.Contains(err.Error(), "M:5/7 is not a meter") {
		t.Errorf("a bad meter says %v", err)
	}
	_, err = Read(context.Background(), "M:4/4\nL:1/4\nK:C\n"+strings.Repeat("C D E ;|\n", 12))
	var problems score.Problems
	if !errors.As(err, &problems) || len(problems) != 1 || problems[0].Times != 12 {
		t.Errorf("twelve lines of one kind are told as %v", err)
	}
}

// What tunes have that was refused or passed over silently: each is read, or said.
func TestWhatTunesHave(t *testing.T) {
	for _, tt := range []struct{ name, text, plays, sounds, says string }{
		{"transpose in V: after K:", "M:4/4\nL:1/4\nK:D\nV:1 transpose=-2\nD E F G|A4|]", "D4 E4 F#4 G4 A4", "a whole step lower", ""},
		{"transpose inline", "M:4/4\nL:1/4\nK:D\n[V:1 transpose=-2]D E F G|A4|]", "D4 E4 F#4 G4 A4", "a whole step lower", ""},
		{"transpose in [K:]", "M:4/4\nL:1/4\nK:D\n[K: transpose=-2]D E F G|A4|]", "D4 E4 F#4 G4 A4", "a whole step lower", ""},
		{"MIDI transpose", "M:4/4\nL:1/4\n%%MIDI transpose -2\nK:D\nD E F G|A4|]", "D4 E4 F#4 G4 A4", "a whole step lower", ""},
		{"I:transpose", "I:transpose 2\nM:4/4\nL:1/4\nK:D\nD E F G|A4|]", "D4 E4 F#4 G4 A4", "as written", "%%transpose 2 is left out"},
		{"%%transpose", "%%transpose 2\nM:4/4\nL:1/4\nK:D\nD E F G|A4|]", "D4 E4 F#4 G4 A4", "as written", "%%transpose 2 is left out"},
		{"shift", "M:4/4\nL:1/4\nK:D shift=CD\nD E F G|A4|]", "D4 E4 F#4 G4 A4", "as written", "shift=CD is left out"},
		{"sound", "M:4/4\nL:1/4\nK:D sound=c_B\nD E F G|A4|]", "D4 E4 F#4 G4 A4", "a whole step lower", ""},
		{"sound from C", "M:4/4\nL:1/4\nK:D\nV:1 sound=_B,\nD E F G|A4|]", "D4 E4 F#4 G4 A4", "a whole step lower", ""},
		{"another transposition later", "M:4/4\nL:1/4\nK:D transpose=-2\nD E F G|[K: transpose=0]A4|]", "D4 E4 F#4 G4 A4", "a whole step lower", "changes in the middle"},
		{"postscript", "%%beginps\nK:broken q\n%%endps\nM:4/4\nL:1/4\nK:D\nD4|]", "D4", "as written", ""},
		{"an overlay", "M:4/4\nL:1/4\nK:C\nC D E F & G4|G4|]", "C4 D4 E4 F4 G4", "as written", "lays a second voice"},
		{"K with accidentals alone", "M:4/4\nL:1/4\nK:D exp ^f\nD4|F4|]", "D4 F#4", "as written", ""},
		{"a lone figure", "M:2\nL:1/4\nK:C\nC D|E2|]", "C4 D4 E4", "as written", "M:2 is no single meter"},
		{"meters by turns", "M:2/4 3/4\nL:1/4\nK:C\nC D|E F G|A2|]", "C4 D4 E4 F4 G4 A4", "as written", "M:2/4 3/4 is no single meter"},
		{"a dotted bar inside", "M:4/4\nL:1/4\nK:C\nC D.|E F|G4|]", "C4 D4 E4 F4 G4", "as written", ""},
		{"a dotted bar between", "M:4/4\nL:1/4\nK:C\nC D E F.|G4|]", "C4 D4 E4 F4 G4", "as written", ""},
		{"microtones", "M:4/4\nL:1/4\nK:C\n^/C _3/2D E F|G4|]", "C#4 Db4 E4 F4 G4", "as written", "less than a half step"},
		{"signs without meaning", "M:4/4\nL:1/4\nK:C\nJC N D RE F|G4|]", "C4 D4 E4 F4 G4", "as written", "the sign J is left out"},
		{"a field among notes", "M:4/4\nL:1/4\nK:C\nC D [T:two]E F|G4|]", "C4 D4 E4 F4 G4", "as written", "[T:…] among the notes is left out"},
		{"three times, and no repeat", "M:4/4\nL:1/4\nK:C\n\"^play 3 times\"C4|G4|]", "C4 G4", "as written", "it says to play 3 times"},
		{"an order that cannot be read", "P:A+B\nM:4/4\nL:1/4\nK:C\nP:A\nC4|\nP:B\nG4|]", "C4 G4", "as written", "gives an order of parts that is not read"},
	} {
		s, err := Read(context.Background(), "X:1\n"+tt.text+"\n")
		if err != nil {
			t.Errorf("%s: %v", tt.name, err)
			continue
		}
		if got := played(s.Parts[0]); got != tt.plays {
			t.Errorf("%s: plays %s, want %s", tt.name, got, tt.plays)
		}
		if got := soundsLower(s.Parts[0].Transposition); got != tt.sounds {
			t.Errorf("%s: sounds %s, want %s", tt.name, got, tt.sounds)
		}
		said := ""
		for _, p := range s.Remarks {
			said += p.Error() + " "
		}
		if !strings.Contains(said, tt.says) || tt.says == "" && said != "" {
			t.Errorf("%s: says %q, want %q", tt.name, said, tt.says)
		}
	}
}

func soundsLower(i score.Interval) string {
	return map[int]string{0: "as written", -2: "a whole step lower"}[i.Semitones]
}

// Measures that hold too much or too little are refused, and read by their bar lines where
// that is wanted; the rest stays.
func TestMeasuresByBarLines(t *testing.T) {
	text := "X:1\nM:4/4\nL:1/4\nK:C\nC D E F|G A B|c d e f g|C4|]\n"
	if _, err := Read(context.Background(), text); err == nil {
		t.Fatal("uneven measures are read without a word")
	}
	s, err := Read(context.Background(), ByBarLines(text))
	if err != nil {
		t.Fatal(err)
	}
	var meters []string
	for _, m := range s.Parts[0].Measures {
		meters = append(meters, m.Meter.String())
	}
	if got := strings.Join(meters, " "); got != "4/4 3/4 5/4 4/4" {
		t.Errorf("by their bar lines the measures are %s", got)
	}
	if len(s.Remarks) != 1 || !strings.Contains(s.Remarks[0].Error(), "m. 2, 3") {
		t.Errorf("it says %v", s.Remarks)
	}
}
