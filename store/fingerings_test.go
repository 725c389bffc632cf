package store_test

import (
	"context"
	"testing"

	"unhurriedbench/internal/testdb"
	"unhurriedbench/store"
)

// What is chosen for a place is kept, replaced and dropped by its teacher alone.
func TestFingeringsOfPlaces(t *testing.T) {
	s, ctx := testdb.Open(t), context.Background()
	mine, other := add(t, s, "a@school.example"), add(t, s, "b@school.example")
	chosen := store.Fingering{Measure: 0, Event: 1, Pitch: 65, Fingering: "1 2 3 | 4 6"}
	keep := func(teacher int64, f store.Fingering) error {
		return s.KeepFingering(ctx, teacher, mine.exercise, "oboe", f)
	}
	list := func(teacher int64, instrument string) []store.Fingering {
		l, err := s.Fingerings(ctx, teacher, mine.exercise, instrument)
		if err != nil {
			t.Fatal(err)
		}
		return l
	}
	if err := keep(mine.teacher, chosen); err != nil {
		t.Fatal(err)
	}
	if err := keep(other.teacher, store.Fingering{Measure: 0, Event: 1, Pitch: 65, Fingering: "1 |"}); err == nil {
		t.Error("another teacher changed a fingering")
	}
	if err := keep(other.teacher, store.Fingering{Measure: 2, Event: 2, Pitch: 65, Fingering: "1 |"}); err == nil {
		t.Error("another teacher added a fingering")
	}
	if got := list(mine.teacher, "oboe"); len(got) != 1 || got[0] != chosen {
		t.Errorf("kept is %+v", got)
	}
	if len(list(other.teacher, "oboe"))+len(list(mine.teacher, "flute")) > 0 {
		t.Error("fingerings are listed for another teacher or instrument")
	}
	chosen.Fingering = "1 2 3 | 4 5 F"
	if err := keep(mine.teacher, chosen); err != nil || list(mine.teacher, "oboe")[0] != chosen {
		t.Errorf("a later choice does not take the place of the first: %v", err)
	}
	for _, drop := range []struct {
		teacher int64
		pitch   int
		left    int
	}{{other.teacher, 65, 1}, {mine.teacher, 66, 1}, {mine.teacher, 65, 0}, {mine.teacher, 65, 0}} {
		if err := s.DropFingerings(ctx, drop.teacher, mine.exercise, "oboe", drop.pitch); err != nil || len(list(mine.teacher, "oboe")) != drop.left {
			t.Errorf("dropping %+v leaves %+v, %v", drop, list(mine.teacher, "oboe"), err)
		}
	}
}
