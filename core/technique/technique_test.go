package technique

import (
	"slices"
	"testing"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/finger"
	"unhurriedbench/core/format/abc"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
	"unhurriedbench/demo"
)

func semitones(list []score.Pitch) []int {
	var steps []int
	for k := 1; k < len(list); k++ {
		steps = append(steps, list[k].MIDI()-list[k-1].MIDI())
	}
	return steps
}

func pitches(p score.Part) []score.Pitch {
	var list []score.Pitch
	for _, at := range p.Notes() {
		list = append(list, p.At(at).Pitch)
	}
	return list
}

// Everything that is for everybody can be made in every key, has full measures, is the same once
// it is written and read, and can be fingered on all instruments.
func TestForEverybody(t *testing.T) {
	t.Parallel()
	rhythms := demoPart(t, "Ferry Landing")
	for _, kind := range Kinds() {
		if kind.Own() {
			continue
		}
		for _, key := range Keys() {
			s, err := Make(kind, key, rhythms)
			if err != nil {
				t.Errorf("%s in %s: %v", kind, key.Name(), err)
				continue
			}
			part := s.Parts[0]
			for _, m := range part.Measures {
				total := score.Fraction{}
				for _, e := range m.Events {
					total = total.Add(e.Length)
				}
				if total.Cmp(m.Length) != 0 {
					t.Errorf("%s in %s: measure %d holds %s", kind, key.Name(), m.Number, total)
				}
			}
			again, err := abc.Read(t.Context(), abc.Write(s))
			if err != nil || !slices.Equal(pitches(again.Parts[0]), pitches(part)) {
				t.Errorf("%s in %s is read otherwise than it was written: %v", kind, key.Name(), err)
			}
			for _, i := range instrument.All() {
				r := breakdown.Read(s, part, "", i, nil, breakdown.Options{})
				if len(r.Outside) > 0 {
					t.Errorf("%s in %s: the %s has no fingering at %v", kind, key.Name(), i.Name, r.Outside)
				}
			}
		}
	}
}

// The steps of the major scale and chord. Source: theory of music, the major scale.
func TestIntervals(t *testing.T) {
	t.Parallel()
	scale := []int{2, 2, 1, 2, 2, 2, 1, -1, -2, -2, -2, -1, -2, -2}
	for kind, want := range map[Kind][]int{
		Scale: scale, FiveNotes: {2, 2, 1, 2, -2, -1, -2, -2}, Arpeggio: {4, 3, 5, -5, -3, -4},
	} {
		for _, key := range Keys() {
			s, err := Make(kind, key, score.Part{})
			if err != nil {
				t.Fatal(err)
			}
			list := pitches(s.Parts[0])
			if got := semitones(list); !slices.Equal(got, want) {
				t.Errorf("%s in %s goes by %v", kind, key.Name(), got)
			}
			if step, alter := key.Tonic(); list[0].Step != step || list[0].Alter != alter {
				t.Errorf("%s in %s begins on %s", kind, key.Name(), list[0])
			}
		}
	}
}

// Lip slurs go between the third and the fourth partial of one length of tube, which lie a fourth
// apart. Source: the harmonic series (4:3).
func TestLipSlurs(t *testing.T) {
	t.Parallel()
	brass := 0
	for _, i := range instrument.All() {
		s, err := MakeFor(LipSlurs, i)
		if (err == nil) != (i.Family == "brass") {
			t.Errorf("%s: %v", i.ID, err)
		}
		if err != nil {
			continue
		}
		brass++
		for _, m := range s.Parts[0].Measures {
			low, high := m.Events[0].Pitch, m.Events[1].Pitch
			a, _ := finger.For(i, low)
			b, _ := finger.For(i, high)
			if high.MIDI()-low.MIDI() != 5 || a.Keys != b.Keys || a.Position != b.Position || a.Partial != 3 || b.Partial != 4 {
				t.Errorf("%s slurs %s (%s) to %s (%s)", i.ID, low, a.Text, high, b.Text)
			}
		}
		if n := len(s.Parts[0].Measures); n < 4 {
			t.Errorf("%s: %d lengths of tube", i.ID, n)
		}
	}
	if brass < 9 {
		t.Errorf("%d brass have lip slurs", brass)
	}
}

// The clarinet's break lies between its B flat and its B natural. Source: common practice.
func TestOverTheBreak(t *testing.T) {
	t.Parallel()
	clarinet, _ := instrument.ByID("clarinet")
	s, err := MakeFor(OverBreak, clarinet)
	if err != nil {
		t.Fatal(err)
	}
	for _, m := range s.Parts[0].Measures {
		if low, high := m.Events[0].Pitch.MIDI(), m.Events[1].Pitch.MIDI(); low > 70 || high < 71 || m.Events[0].SlurStarts != 1 {
			t.Errorf("measure %d goes from %d to %d", m.Number, low, high)
		}
	}
	flute, _ := instrument.ByID("flute")
	if _, err := MakeFor(OverBreak, flute); err == nil {
		t.Error("a flute goes over the break")
	}
}

// The rhythm line has a line's rhythm and no other note.
func TestRhythmLine(t *testing.T) {
	t.Parallel()
	of := demoPart(t, "Ferry Landing")
	s, err := Make(RhythmLine, score.Key{Fifths: -2}, of)
	if err != nil {
		t.Fatal(err)
	}
	list := pitches(s.Parts[0])
	if len(list) != len(pitches(of)) || slices.ContainsFunc(list, func(p score.Pitch) bool { return p != list[0] }) {
		t.Errorf("the notes are %v", list)
	}
	if _, err := Make(RhythmLine, score.Key{}, score.Part{}); err == nil {
		t.Error("a rhythm line is made of nothing")
	}
}

func demoPart(t *testing.T, title string) score.Part {
	t.Helper()
	book, err := demo.Exercises()
	if err != nil {
		t.Fatal(err)
	}
	for _, x := range book {
		if x.Score.Title == title {
			return x.Score.Parts[0]
		}
	}
	t.Fatalf("%s is not in the book", title)
	return score.Part{}
}
