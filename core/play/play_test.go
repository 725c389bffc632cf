package play

import (
	"fmt"
	"strings"
	"testing"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/score"
	"unhurriedbench/internal/testabc"
)

// whole plays every measure in order.
func whole(part score.Part) []breakdown.Passage {
	var list []breakdown.Passage
	for _, i := range part.Order() {
		m := part.Measures[i]
		list = append(list, breakdown.Passage{At: i, From: m.Offset, To: m.Offset.Add(m.Length)})
	}
	return list
}

// said writes notes as "onset:MIDI/sounds", chords with +, strokes as x, joined ones with ~.
func said(r Round) string {
	var list []string
	for _, n := range r.Notes {
		pitch := strings.ReplaceAll(strings.Trim(fmt.Sprint(n.MIDI), "[]"), " ", "+")
		if pitch == "" {
			pitch = "x"
		}
		if n.Joined {
			pitch = "~" + pitch
		}
		list = append(list, fmt.Sprintf("%s:%s/%s", n.At, pitch, n.Sounds))
	}
	return strings.Join(list, " ")
}

// Worked by hand from the notation (common practice).
func TestRound(t *testing.T) {
	for _, c := range []struct{ text, heard, length string }{
		{"M:4/4\nL:1/4\nK:C\nC D E2 |", "0:60/1/4 1/4:62/1/4 1/2:64/1/2", "1"},
		{"M:4/4\nL:1/4\nK:Bb\nB A z E |", "0:70/1/4 1/4:69/1/4 3/4:63/1/4", "1"},
		{"M:4/4\nL:1/4\nK:C\nC3 D- | D E F G |", "0:60/3/4 3/4:62/1/2 5/4:64/1/4 3/2:65/1/4 7/4:67/1/4", "2"},
		{"M:4/4\nL:1/4\nK:C\n.C .D (E F) |", "0:60/1/8 1/4:62/1/8 1/2:64/1/4 3/4:~65/1/4", "1"},
		{"M:3/4\nL:1/4\nK:C\nG | C2 D |]", "0:67/1/4 1/4:60/1/2 3/4:62/1/4", "1"},
		{"M:2/4\nL:1/4\nK:C\n|: C D :| E2 |]", "0:60/1/4 1/4:62/1/4 1/2:60/1/4 3/4:62/1/4 1:64/1/2", "3/2"},
		{"M:2/4\nL:1/4\nK:C\n[CE] [CE]- | [CE] z |]", "0:64+60/1/4 1/4:64+60/1/2", "1"},
		// A tie to the second ending of a repeat sounds once only the first time it is met in order.
		{"M:2/4\nL:1/4\nK:C\nC D- |1 D E :|2 D C |]", "0:60/1/4 1/4:62/1/2 3/4:64/1/4 1:60/1/4 5/4:62/1/2 7/4:60/1/4", "2"},
	} {
		part := testabc.Part(t, "X:1\nT:Round\n"+c.text)
		r := RoundOf(part, whole(part))
		if heard := said(r); heard != c.heard || r.Length.String() != c.length {
			t.Errorf("%s\n got %s, %s long\nwant %s, %s long", c.text, heard, r.Length, c.heard, c.length)
		}
	}
}

// A chunk that begins and ends inside a measure hears what sounds there, and waits until
// the measure has come round.
func TestChunk(t *testing.T) {
	part := testabc.Part(t, "X:1\nT:Chunk\nM:4/4\nL:1/4\nK:C\nC2 D2- | D2 E F | G4 |]")
	half := score.Frac(1, 2)
	r := RoundOf(part, []breakdown.Passage{{At: 1, From: score.Fraction{}, To: score.Frac(3, 4)}})
	if got := said(r); got != "0:62/1/2 1/2:64/1/4" || r.Rest != score.Frac(1, 4) {
		t.Errorf("the second measure without its last beat: %s, then %s", got, r.Rest)
	}
	r = RoundOf(part, []breakdown.Passage{{At: 0, From: half, To: score.Frac(1, 1)}, {At: 1, From: score.Fraction{}, To: half}})
	if got := said(r); got != "0:62/1" || !r.Rest.IsZero() {
		t.Errorf("from the middle to the middle: %s, then %s", got, r.Rest)
	}
	if r := RoundOf(part, nil); len(r.Notes) != 0 || !r.Length.IsZero() {
		t.Errorf("nothing to play: %v", r)
	}
}

func TestSounding(t *testing.T) {
	part := testabc.Part(t, "X:1\nT:Clarinet\nM:4/4\nL:1/4\nK:C\nC D E F |")
	part.Transposition = score.Interval{Steps: -1, Semitones: -2}
	if got := said(RoundOf(part, whole(part))); !strings.HasPrefix(got, "0:58/1/4 1/4:60") {
		t.Errorf("written C for a clarinet in B flat: %s", got)
	}
}

func TestLoudness(t *testing.T) {
	part := testabc.Part(t, "X:1\nT:Loud\nM:4/4\nL:1/4\nK:C\n!p!C !accent!D !f!E F | !sfz!G A !pp!B c |")
	var got []string
	for _, n := range RoundOf(part, whole(part)).Notes {
		got = append(got, fmt.Sprintf("%.1f", n.Loud))
	}
	if want := "0.5 0.7 0.8 0.8 0.9 0.8 0.4 0.4"; strings.Join(got, " ") != want {
		t.Errorf("loudness %s, want %s", strings.Join(got, " "), want)
	}
}

// The tap that ends a roll is struck; a tie between two rolls goes on.
func TestRolls(t *testing.T) {
	part := testabc.Part(t, "X:1\nT:Rolls\nM:4/4\nL:1/4\nK:C clef=perc\n!///!B2- B z | !///!B2- !///!B2 |")
	if got := said(RoundOf(part, whole(part))); got != "0:x/1/2 1/2:x/1/4 1:x/1" {
		t.Errorf("rolls: %s", got)
	}
}

// A breath takes its time from the note before it, a quarter of it, and at most a sixteenth.
func TestBreathsAreHeard(t *testing.T) {
	t.Parallel()
	part := testabc.Part(t, "T:Breaths\nM:4/4\nL:1/4\nK:C\nc !breath!d2 e/ !breath!f/|]\n")
	round := RoundOf(part, []breakdown.Passage{{At: 0, To: score.Frac(1, 1)}})
	for k, want := range []score.Fraction{score.Frac(3, 16), score.Frac(1, 2), score.Frac(3, 32), score.Frac(1, 8)} {
		if got := round.Notes[k].Sounds; got.Cmp(want) != 0 {
			t.Errorf("note %d sounds for %s, want %s", k+1, got, want)
		}
	}
}

// A fermata adds as many beats as its note has, one at least and two at most, and what follows waits.
func TestFermatas(t *testing.T) {
	t.Parallel()
	for _, c := range []struct{ text, sounds, holds string }{
		{"c !fermata!d e f |]", "1/4 1/2 1/4 1/4", "[{1/2 1/4}]"},
		{"c2 !fermata!d2 |]", "1/2 1", "[{1 1/2}]"},
		{"!fermata!c4 |]", "3/2", "[{1 1/2}]"},
		{"c3 d- | !fermata!d2 e2 |]", "3/4 5/4 1/2", "[{3/2 1/2}]"},
		{"c d !fermata!z2 | e4 |]", "1/4 1/4 1", "[{1 1/2}]"},
		{"c/ !fermata!d/ e f g |]", "1/8 3/8 1/4 1/4 1/4", "[{1/4 1/4}]"},
	} {
		part := testabc.Part(t, "X:1\nT:Held\nM:4/4\nL:1/4\nK:C\n"+c.text)
		r := RoundOf(part, whole(part))
		var sounds []string
		for _, n := range r.Notes {
			sounds = append(sounds, n.Sounds.String())
		}
		if got := strings.Join(sounds, " "); got != c.sounds || fmt.Sprint(r.Holds) != c.holds {
			t.Errorf("%s: sounds %s, holds %v; want %s, %s", c.text, got, r.Holds, c.sounds, c.holds)
		}
	}
	part := testabc.Part(t, "X:1\nT:Cut\nM:4/4\nL:1/4\nK:C\nc !fermata!d2 e |]")
	if r := RoundOf(part, []breakdown.Passage{{At: 0, To: score.Frac(1, 2)}}); len(r.Holds) != 0 {
		t.Errorf("a chunk that ends before the held note does holds it: %v", r.Holds)
	}
}

// A hairpin leads to the dynamic at its end, in even steps of time, or one step on where none is
// written.
func TestHairpinsSwell(t *testing.T) {
	t.Parallel()
	for _, c := range []struct{ text, want string }{
		{"!p!!<(!c d e f | !<)!!f!g4 |]", "0.500-0.575 0.575-0.650 0.650-0.725 0.725-0.800 0.800-0.800"},
		{"!p!!<(!c d e !<)!f | !f!g4 |]", "0.500-0.575 0.575-0.650 0.650-0.725 0.725-0.800 0.800-0.800"},
		{"!<(!c d e !<)!f | g4 |]", "0.700-0.725 0.725-0.750 0.750-0.775 0.775-0.800 0.800-0.800"},
		{"!f!c4 | !>(!!>)!d4 | e4 |]", "0.800-0.800 0.800-0.700 0.700-0.700"},
		{"!f!!>(!c2 z !>)!d | !p!e4 |]", "0.800-0.650 0.575-0.500 0.500-0.500"},
		{"!mf!!<(!c2 !<)!d2 | !p!e4 |]", "0.700-0.750 0.750-0.800 0.500-0.500"},
	} {
		part := testabc.Part(t, "X:1\nT:Swelling\nM:4/4\nL:1/4\nK:C\n"+c.text)
		var got []string
		for _, n := range RoundOf(part, whole(part)).Notes {
			got = append(got, fmt.Sprintf("%.3f-%.3f", n.Loud, n.Ends))
		}
		if strings.Join(got, " ") != c.want {
			t.Errorf("%s\n got %s\nwant %s", c.text, strings.Join(got, " "), c.want)
		}
	}
}
