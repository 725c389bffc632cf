package progress

import (
	"context"
	"fmt"
	"strings"
	"testing"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/format"
	"unhurriedbench/core/routine"
)

// outlineOf reads the outline of a tune of our own.
func outlineOf(t *testing.T, abc string) breakdown.Outline {
	t.Helper()
	read, err := format.Read(context.Background(), "tune.abc", []byte("X:1\nT:Tune\nM:4/4\nL:1/4\nK:C\n"+abc+"\n"))
	if err != nil {
		t.Fatal(err)
	}
	return breakdown.OutlineOf(read.Score.Parts[0])
}

// A line of four chunks, of which C is A again and D has the rhythm of B.
const fourChunks = "C D E2|F E D2|G G A B|c c B2|C D E2|F E D2|E E F G|A A G2|]"

func key(first, last int) breakdown.ChunkKey { return breakdown.ChunkKey{First: first, Last: last} }

func TestFold(t *testing.T) {
	r, o := routine.Standard(), outlineOf(t, fourChunks)
	if got := fmt.Sprint(o.Chunks); got != "[1-2 3-4 5-6 7-8 1-8]" {
		t.Fatalf("the line is cut %s", got)
	}
	clean := func(unit breakdown.ChunkKey, stage routine.Stage, n int) (list []Logged) {
		for range n {
			list = append(list, Logged{unit, routine.Try{Stage: stage, Clean: true}})
		}
		return list
	}
	together := func(unit breakdown.ChunkKey, stages ...routine.Stage) (list []Logged) {
		for _, stage := range stages {
			list = append(list, Logged{unit, routine.Try{Stage: stage, Clean: true, Class: true}})
		}
		return list
	}
	join := func(lists ...[]Logged) (all []Logged) {
		for _, l := range lists {
			all = append(all, l...)
		}
		return all
	}
	stumble := func(unit breakdown.ChunkKey, stage routine.Stage) []Logged {
		return []Logged{{unit, routine.Try{Stage: stage, Cause: routine.Rhythm}}}
	}
	stumbleIn := func(unit breakdown.ChunkKey, stage routine.Stage, measure int) []Logged {
		return []Logged{{unit, routine.Try{Stage: stage, Cause: routine.Rhythm, Measure: measure}}}
	}
	whole, joined := key(1, 8), key(1, 4)
	const count, name, finger, play = routine.Count, routine.Name, routine.Finger, routine.Play
	for _, tt := range []struct {
		name string
		log  []Logged
		want string // each unit with its stage, and what is earned in bits from the last stage to the first
	}{
		{"nothing", nil, "[]"},
		{"A counted twice counts for C, which is A again", clean(key(1, 2), count, 2), "[1-2 name 0001, 5-6 name 0001]"},
		{"B counted counts for D, of the same rhythm", clean(key(3, 4), count, 2), "[3-4 name 0001, 7-8 name 0001]"},
		{"B named is not D named", clean(key(3, 4), name, 2), "[3-4 finger 0010]"},
		{"the line counted by the class", together(whole, count), "[1-2 name 0001, 3-4 name 0001, 5-6 name 0001, 7-8 name 0001, 1-8 name 0001]"},
		{"A and B joined", together(joined, count), "[1-2 name 0001, 3-4 name 0001, 5-6 name 0001, 7-8 name 0001, 1-8 name 0001, 1-4 name 0001]"},
		{
			"all chunks counted is the line counted, but played it is not", join(together(key(1, 2), count, name, finger, play), together(key(3, 4), count, name, finger, play), together(key(7, 8), name, finger, play)),
			"[1-2 done 1111, 3-4 done 1111, 5-6 done 1111, 7-8 done 1111, 1-8 play 0111]",
		},
		{"played twice and nothing else", join(clean(key(1, 2), play, 2)), "[1-2 done 1000, 5-6 done 1000]"},
		{"a stumble at the line is the line's", join(clean(key(1, 2), count, 1), stumble(whole, count)), "[1-2 count 0000, 5-6 count 0000, 1-8 count 0000]"},
		{"a stumble at the line in a measure of C is one at C, and at A", join(clean(key(1, 2), count, 1), stumbleIn(whole, count, 5), clean(key(1, 2), count, 1)), "[1-2 count 0000, 5-6 count 0000, 1-8 count 0000]"},
		{"in a measure of B, none at A", join(clean(key(1, 2), count, 1), stumbleIn(whole, count, 3), clean(key(1, 2), count, 1)), "[1-2 name 0001, 3-4 count 0000, 5-6 name 0001, 1-8 count 0000]"},
		{"a stumble at C is one at A", join(clean(key(1, 2), count, 1), stumble(key(5, 6), count), clean(key(1, 2), count, 1)), "[1-2 count 0000, 5-6 count 0000]"},
		{"the line put at Done", []Logged{{whole, routine.Try{Stage: routine.Done, Moved: true}}}, "[1-2 done 1000, 3-4 done 1000, 5-6 done 1000, 7-8 done 1000, 1-8 done 1000]"},
	} {
		var got []string
		for _, f := range Fold(r, o, tt.log) {
			got = append(got, fmt.Sprintf("%v %s %04b", f.Unit, f.Stage, f.Earned))
		}
		if text := "[" + strings.Join(got, ", ") + "]"; text != tt.want {
			t.Errorf("%s:\n%s, want\n%s", tt.name, text, tt.want)
		}
	}
	// Of a part that nothing is known of but its chunks, nothing is shared.
	bare := breakdown.Outline{Chunks: o.Chunks}
	if got := Fold(r, bare, clean(key(1, 2), count, 2)); len(got) != 1 || got[0].Own != 2 || !got[0].LastOwn || got[0].Last != 1 {
		t.Errorf("without its music it adds up to %+v", got)
	}
	// Eight marks of the class at most for a line of four chunks where nobody stumbles.
	whole4 := Fold(r, o, join(together(whole, count, name), together(key(1, 2), finger, play), together(key(3, 4), finger, play), together(key(7, 8), finger, play)))
	for _, f := range whole4[:4] {
		if f.Stage != routine.Done || f.Earned != 0b1111 {
			t.Errorf("after eight marks %v is at %s with %b earned", f.Unit, f.Stage, f.Earned)
		}
	}
}
