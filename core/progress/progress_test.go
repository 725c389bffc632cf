package progress

import (
	"testing"

	"unhurriedbench/core/routine"
)

func TestRead(t *testing.T) {
	a, b := Span{1, 2}, Span{3, 4}
	clean := func(student int64, piece Span, stage routine.Stage) Try {
		return Try{Student: student, Exercise: 7, Piece: piece, Try: routine.Try{Stage: stage, Clean: true}}
	}
	log := []Try{
		clean(1, a, routine.Count), clean(2, a, routine.Count), clean(1, a, routine.Count),
		clean(1, b, routine.Count), clean(1, a, routine.Name),
	}
	standings := Read(log)
	first := standings[Task{1, 7}]
	if got := first.State(a); got.Stage != routine.Name || got.Clean != 1 {
		t.Errorf("the first student is at %s with %d clean", got.Stage, got.Clean)
	}
	if first.Latest != a || first.Tries != 4 {
		t.Errorf("the latest piece is %v after %d tries", first.Latest, first.Tries)
	}
	if got := first.Cells([]Span{a, b}); got != [4]float64{.75, .25, 0, 0} {
		t.Errorf("the exercise's bar is filled %v", got)
	}
	if first.Done([]Span{a, b}) {
		t.Error("the exercise counts as done")
	}
	var nobody *Standing
	if nobody.State(a).Tries != 0 || nobody.Cells([]Span{a}) != [4]float64{} || nobody.Done([]Span{a}) {
		t.Error("a student without tries has some")
	}
}
