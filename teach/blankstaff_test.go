package teach

import (
	"fmt"
	"testing"

	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
	"unhurriedbench/internal/testabc"
)

// Where the signs of a key signature stand. Source: common practice of engraving; each stands on
// its own letter, and below the sign before and above it by turns.
func TestSignature(t *testing.T) {
	t.Parallel()
	treble, bass := score.Treble, score.Clef{Sign: "F", Line: 4}
	alto, tenor := score.Clef{Sign: "C", Line: 3}, score.Clef{Sign: "C", Line: 4}
	for _, c := range []struct {
		clef   score.Clef
		fifths int
		want   string
	}{
		{treble, 3, "[8 5 9]"}, {treble, -4, "[4 7 3 6]"}, {bass, 2, "[6 3]"}, {bass, -2, "[2 5]"},
		{alto, 3, "[7 4 8]"}, {alto, -3, "[3 6 2]"}, {tenor, 3, "[2 6 3]"}, {tenor, -3, "[5 8 4]"}, {treble, 0, "[]"},
	} {
		if got := fmt.Sprint(Signature(score.Key{Fifths: c.fifths}, c.clef)); got != c.want {
			t.Errorf("%v, %d: %s, want %s", c.clef, c.fifths, got, c.want)
		}
	}
	sharps := []score.Step{score.F, score.C, score.G, score.D, score.A, score.E, score.B}
	for _, clef := range []score.Clef{treble, bass, alto, tenor} {
		for fifths := -7; fifths <= 7; fifths++ {
			for k, at := range Signature(score.Key{Fifths: fifths}, clef) {
				want := sharps[k]
				if fifths < 0 {
					want = sharps[6-k]
				}
				if got := score.Step((clef.BottomLine().Diatonic() + at) % 7); got != want || at < -1 || at > 9 {
					t.Errorf("%v, %d: sign %d is on %s, place %d", clef, fifths, k+1, got, at)
				}
			}
		}
	}
}

func TestNotesToWrite(t *testing.T) {
	t.Parallel()
	part := testabc.Part(t, "T:To write\nM:4/4\nL:1/4\nK:Bb clef=bass\nB,, B,, D, =E,-|E, F, z D,|[K:C]C4|]\n")
	var got []string
	for _, n := range NotesToWrite(part, name.Options{}) {
		got = append(got, fmt.Sprintf("%s %d/%d %v %s", n.Name, n.Alter, n.ByKey, n.Places, n.Stands))
	}
	want := []string{"B flat -1/-1 [-5 2 9] line 2", "D 0/0 [-3 4 11] line 3", "E natural 0/-1 [-2 5 12] space 3", "F 0/0 [-1 6 13] line 4"}
	if fmt.Sprint(got) != fmt.Sprint(want) {
		t.Errorf("to write:\n%q\nwant\n%q", got, want)
	}
	if drums := testabc.Part(t, "T:Drums\nM:4/4\nL:1/4\nK:C clef=perc\nBBBB|]\n"); len(NotesToWrite(drums, name.Options{})) != 0 {
		t.Error("strokes without pitch are to be written")
	}
	if n := len(PlacesOfStaff(score.Treble)); n != HighestStaff-LowestStaff+1 || PlacesOfStaff(score.Treble)[-LowestStaff] != "line 1" {
		t.Errorf("the places of a staff are %v", PlacesOfStaff(score.Treble))
	}
}
