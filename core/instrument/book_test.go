package instrument_test

import (
	"context"
	"os"
	"path/filepath"
	"slices"
	"testing"

	"unhurriedbench/core/format"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
	"unhurriedbench/internal/testabc"
)

// middle is twice the middle of a part's lowest and highest note.
func middle(part score.Part) int {
	var midis []int
	for _, at := range part.Notes() {
		midis = append(midis, part.At(at).Pitch.MIDI())
	}
	return slices.Min(midis) + slices.Max(midis)
}

// On every instrument the middles of two demo lines that follow each other lie at most a sixth
// apart.
func TestABookKeepsItsRegister(t *testing.T) {
	files, err := filepath.Glob("../../demo/exercises/*.abc")
	if err != nil || len(files) < 40 {
		t.Fatalf("%d exercises, %v", len(files), err)
	}
	var lines []instrument.BookLine
	for _, name := range files {
		data, err := os.ReadFile(name)
		if err != nil {
			t.Fatal(err)
		}
		f, err := format.Read(context.Background(), name, data)
		if err != nil {
			t.Fatal(err)
		}
		lines = append(lines, instrument.BookLine{Source: f.Score.Parts[0]})
	}
	for _, i := range instrument.All() {
		if i.Unpitched() || i.Mechanism == instrument.Drums {
			continue
		}
		before := 0
		for n, octaves := range instrument.InBook(lines, i) {
			if lines[n].Source.Unpitched() {
				continue
			}
			made := instrument.Make(lines[n].Source, "", i, instrument.OctaveChoice{Beside: &octaves})
			if len(made.Outside) > 0 {
				t.Errorf("%s: %s has notes beyond it", i.ID, files[n])
			}
			now := middle(made.Part)
			if far := max(now-before, before-now); before > 0 && far > 18 {
				t.Errorf("%s: %s lies %d half steps from the line before", i.ID, files[n], far/2)
			}
			before = now
		}
	}
}

// A line keeps the octave of its neighbours only where it would leap away from them, and not
// where it is written for the instrument.
func TestInBook(t *testing.T) {
	line := func(abc string) instrument.BookLine {
		return instrument.BookLine{Source: testabc.Part(t, "M:4/4\nL:1/4\nK:C\n"+abc)}
	}
	low, high, wide := line("A, B, C D|E4|]"), line("f g a b|c'4|]"), line("C D E F|G4|]")
	for _, tt := range []struct {
		name  string
		id    string
		lines []instrument.BookLine
		alone bool // every line lies as it would alone
	}{
		{"one line", "trumpet", []instrument.BookLine{low}, true},
		{"lines near each other", "trumpet", []instrument.BookLine{wide, wide, wide}, true},
		{"lines of one compass", "flute", []instrument.BookLine{low, high}, true},
	} {
		i, _ := instrument.ByID(tt.id)
		for n, octaves := range instrument.InBook(tt.lines, i) {
			beside := instrument.Make(tt.lines[n].Source, "", i, instrument.OctaveChoice{Beside: &octaves})
			alone := instrument.Make(tt.lines[n].Source, "", i, instrument.OctaveChoice{})
			if same := middle(beside.Part) == middle(alone.Part); same != tt.alone {
				t.Errorf("%s: line %d has its own octave: %v, want %v", tt.name, n+1, same, tt.alone)
			}
		}
	}
	viola, _ := instrument.ByID("viola")
	first, second := line("_B2 c2|d4|]"), line("_B c d _e|f4|]") // alone B flat 4 to D5, and B flat 3 to F4
	if got := instrument.InBook([]instrument.BookLine{first, second}, viola); got[0] != got[1] {
		t.Errorf("two viola lines on one scale lie %v octaves from it", got)
	}
	first.WrittenFor = "viola"
	if got := instrument.InBook([]instrument.BookLine{first, second}, viola); got[0] != 0 {
		t.Errorf("what is written for viola is moved %d octaves", got[0])
	}
}

// A note or two that pass by do not move a line, and are listed; three do, or a long one.
func TestPassingNotes(t *testing.T) {
	tenor, _ := instrument.ByID("tenor-sax")
	for _, tt := range []struct{ name, abc, low string }{
		{"without low B", "B c d e|f4|]", "C4"},
		{"one low B", "B c A d|e4|]", "B3"},
		{"two of them", "B A B A|f4|]", "B3"},
		{"three", "B A A A|f4|]", "B4"},
		{"a long one", "B c d f|A4|]", "B4"},
		{"tied to a long one", "B c d A-|A f d2|]", "B4"},
	} {
		made := instrument.Make(testabc.Part(t, "M:4/4\nL:1/4\nK:Bb\n"+tt.abc), "", tenor, instrument.OctaveChoice{})
		low := score.MustPitch("C9")
		for _, at := range made.Part.Notes() {
			if p := made.Part.At(at).Pitch; p.MIDI() < low.MIDI() {
				low = p
			}
		}
		if low.String() != tt.low {
			t.Errorf("%s: the lowest note is %s, want %s: %s", tt.name, low, tt.low, made.Why)
		}
	}
}
