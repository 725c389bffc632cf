package routine

import (
	"strings"
	"testing"
)

func after(tries ...Try) State {
	var s State
	for _, t := range tries {
		if t.Stage < 0 {
			t.Stage = s.Stage
		}
		s = s.After(t)
	}
	return s
}

// at is a try at whatever stage the student has reached.
const at = Stage(-1)

func clean() Try          { return Try{Stage: at, Clean: true} }
func stumble(c Cause) Try { return Try{Stage: at, Cause: c} }

func TestGoOnAndBack(t *testing.T) {
	toPlay := []Try{clean(), clean(), clean(), clean(), clean(), clean()}
	from := func(more ...Try) []Try { return append(append([]Try{}, toPlay...), more...) }
	tests := []struct {
		name  string
		tries []Try
		stage Stage
		clean int
	}{
		{"fresh", nil, Count, 0},
		{"one clean stays", []Try{clean()}, Count, 1},
		{"two clean go on", []Try{clean(), clean()}, Name, 0},
		{"a stumble between starts over", []Try{clean(), stumble(Rhythm), clean()}, Count, 1},
		{"six clean reach Play", toPlay, Play, 0},
		{"eight clean are done", from(clean(), clean()), Done, 0},
		{"one stumble stays", from(stumble(Rhythm)), Play, 0},
		{"two over rhythm go to Count", from(stumble(Rhythm), stumble(Rhythm)), Count, 0},
		{"two over names go to Name", from(stumble(WrongName), stumble(WrongName)), Name, 0},
		{"two over fingering go to Finger", from(stumble(Fingering), stumble(Fingering)), Finger, 0},
		{"two over sound stay in Play", from(stumble(Sound), stumble(Sound)), Play, 0},
		{"the more basic cause decides", from(stumble(Fingering), stumble(Rhythm)), Count, 0},
		{"and in the other order", from(stumble(Rhythm), stumble(Fingering)), Count, 0},
		{"a clean try forgets the stumble", from(stumble(Rhythm), clean(), stumble(Rhythm)), Play, 0},
		{"at Count rhythm has nowhere to go back", []Try{stumble(Rhythm), stumble(Rhythm)}, Count, 0},
		{"a later stage by choice", []Try{{Stage: Finger, Clean: true}}, Finger, 1},
		{"done stays done when clean", from(clean(), clean(), Try{Stage: Play, Clean: true}), Done, 0},
		{"done can stumble", from(clean(), clean(), Try{Stage: Play, Cause: Sound}), Play, 0},
	}
	for _, tt := range tests {
		got := after(tt.tries...)
		if got.Stage != tt.stage || got.Clean != tt.clean {
			t.Errorf("%s: at %s with %d clean, want %s with %d", tt.name, got.Stage, got.Clean, tt.stage, tt.clean)
		}
		if got.Tries != len(tt.tries) {
			t.Errorf("%s: %d tries are counted, want %d", tt.name, got.Tries, len(tt.tries))
		}
	}
}

func TestSlowerWhereThereIsNoWayBack(t *testing.T) {
	s := after(stumble(Rhythm), stumble(Rhythm))
	if !s.Slower || !strings.Contains(s.Advice, "a notch slower") {
		t.Errorf("two stumbles at Count advise %q", s.Advice)
	}
	if after(stumble(Rhythm), stumble(Rhythm), clean()).Slower {
		t.Error("a clean try still asks for a slower tempo")
	}
}

func TestCells(t *testing.T) {
	if got := after(clean(), clean(), clean()).Cells(); got != [4]float64{1, .5, 0, 0} {
		t.Errorf("the bar is filled %v", got)
	}
	if got := (State{Stage: Done}).Cells(); got != [4]float64{1, 1, 1, 1} {
		t.Errorf("a done bar is filled %v", got)
	}
}

// The traditional Maelzel marks.
func TestNotches(t *testing.T) {
	for _, mark := range []int{40, 60, 63, 66, 69, 72, 76, 80, 120, 126, 132, 208} {
		if Notch(mark, 0) != mark {
			t.Errorf("%d is not a mark of the scale", mark)
		}
	}
	tests := []struct{ tempo, steps, want int }{
		{60, 1, 63}, {72, -1, 69}, {120, 1, 126}, {40, -1, 40}, {208, 3, 208}, {75, 0, 72}, {75, 1, 76}, {30, 0, 40},
	}
	for _, tt := range tests {
		if got := Notch(tt.tempo, tt.steps); got != tt.want {
			t.Errorf("%d notches from %d is %d, want %d", tt.steps, tt.tempo, got, tt.want)
		}
	}
	for marked, want := range map[int]int{0: 60, 72: 66, 120: 80, 48: 50} {
		if got := StartTempo(marked); got != want {
			t.Errorf("an exercise marked %d starts at %d, want %d", marked, got, want)
		}
	}
}
