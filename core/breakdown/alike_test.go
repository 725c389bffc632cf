package breakdown

import (
	"context"
	"testing"

	"unhurriedbench/core/format"
)

// Chunks that are the same written music are told from those that are not: by their notes,
// their pickups, their slurs and marks.
func TestChunksAlike(t *testing.T) {
	key := func(first, last int) ChunkKey { return ChunkKey{First: first, Last: last} }
	for _, tt := range []struct {
		name, music   string
		a, b          ChunkKey
		music2, beats bool
	}{
		{"the same", "C D E F|G2 G2|C D E F|G2 G2|]", key(1, 2), key(3, 4), true, true},
		{"another last note", "C D E F|G2 G2|C D E F|G2 E2|]", key(1, 2), key(3, 4), false, true},
		{"another rhythm", "C D E F|G2 G2|C D E F|G4|]", key(1, 2), key(3, 4), false, false},
		{"a slur", "C D E F|G2 G2|(C D) E F|G2 G2|]", key(1, 2), key(3, 4), false, true},
		{"staccato", "C D E F|G2 G2|.C D E F|G2 G2|]", key(1, 2), key(3, 4), false, true},
		{"a tie is another rhythm", "C D E F|G2 G2|C D E F|G2-G2|]", key(1, 2), key(3, 4), false, false},
		{"the same pickups", "G|C D E F|G2 z G|C D E F|G2 z2|]", key(1, 2), key(3, 4), false, false},
		{"measure by measure", "C D E F|G2 G2|C D E F|G2 G2|]", key(1, 1), key(3, 3), true, true},
		{"one longer than the other", "C D E F|G2 G2|C D E F|G2 G2|]", key(1, 2), key(3, 3), false, false},
		{"itself", "C D E F|G2 G2|]", key(1, 2), key(1, 2), true, true},
	} {
		read, err := format.Read(context.Background(), "tune.abc", []byte("X:1\nT:Tune\nM:4/4\nL:1/4\nK:C\n"+tt.music+"\n"))
		if err != nil {
			t.Fatal(err)
		}
		o := OutlineOf(read.Score.Parts[0])
		if got := o.SameMusic(tt.a, tt.b); got != tt.music2 {
			t.Errorf("%s: the same music is %v", tt.name, got)
		}
		if got := o.SameRhythm(tt.a, tt.b); got != tt.beats {
			t.Errorf("%s: the same rhythm is %v", tt.name, got)
		}
	}
	if o := (Outline{}); o.SameMusic(key(1, 2), key(3, 4)) {
		t.Error("chunks of a part that nothing is known of are alike")
	}
}

// A chunk that a later ending is joined to what leads to it has a gap, and contains nothing
// but itself.
func TestGaps(t *testing.T) {
	const music = "X:1\nT:Tune\nM:4/4\nL:1/4\nK:C\n|:C D E F|G G A2|B A G F|1 E2 C2|G4:|2 E2 D2|C4|]\n"
	read, err := format.Read(context.Background(), "tune.abc", []byte(music))
	if err != nil {
		t.Fatal(err)
	}
	o := OutlineOf(read.Score.Parts[0])
	if len(o.Gaps) != 1 {
		t.Fatalf("of %v the gaps are %v", o.Chunks, o.Gaps)
	}
	gap := o.Gaps[0]
	for _, other := range o.Chunks {
		if o.Contains(gap, other) || other != gap && o.SameMusic(gap, other) {
			t.Errorf("%v, which has a gap, is said to hold %v", gap, other)
		}
	}
	if whole := o.Chunks[len(o.Chunks)-1]; !o.Contains(whole, gap) {
		t.Errorf("the whole, %v, does not contain %v", whole, gap)
	}
}
