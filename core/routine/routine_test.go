package routine

import (
	"slices"
	"strings"
	"testing"
)

func after(r Routine, tries ...Try) State {
	s := r.Start()
	for _, t := range tries {
		if t.Stage == at {
			t.Stage = s.Stage
		}
		s = r.After(s, t)
	}
	return s
}

// at is a try at whatever stage the student has reached.
const at = Stage("")

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
		cause Cause
	}{
		{"fresh", nil, Count, 0, None},
		{"one clean stays", []Try{clean()}, Count, 1, None},
		{"two clean go on", []Try{clean(), clean()}, Name, 0, None},
		{"a stumble between starts over", []Try{clean(), stumble(Rhythm), clean()}, Count, 1, None},
		{"six clean reach Play", toPlay, Play, 0, None},
		{"eight clean are done", from(clean(), clean()), Done, 0, None},
		{"one stumble stays", from(stumble(Rhythm)), Play, 0, Rhythm},
		{"two over rhythm go to Count", from(stumble(Rhythm), stumble(Rhythm)), Count, 0, Rhythm},
		{"two over names go to Name", from(stumble(WrongName), stumble(WrongName)), Name, 0, WrongName},
		{"two over fingering go to Finger", from(stumble(Fingering), stumble(Fingering)), Finger, 0, Fingering},
		{"two over sound stay in Play", from(stumble(Sound), stumble(Sound)), Play, 0, Sound},
		{"the more basic cause decides", from(stumble(Fingering), stumble(Rhythm)), Count, 0, Rhythm},
		{"and in the other order", from(stumble(Rhythm), stumble(Fingering)), Count, 0, Rhythm},
		{"a clean try forgets the stumble", from(stumble(Rhythm), clean(), stumble(Rhythm)), Play, 0, Rhythm},
		{"and its cause", from(stumble(Rhythm), clean(), stumble(Fingering), stumble(Fingering)), Finger, 0, Fingering},
		{"at Count rhythm has nowhere to go back", []Try{stumble(Rhythm), stumble(Rhythm)}, Count, 0, Rhythm},
		{"a later stage by choice", []Try{{Stage: Finger, Clean: true}}, Finger, 1, None},
		{"a stage that is not there moves nothing", []Try{clean(), {Stage: "sing", Clean: true}}, Count, 1, None},
		{"done stays done when clean", from(clean(), clean(), Try{Stage: Play, Clean: true}), Done, 0, None},
		{"done can stumble", from(clean(), clean(), Try{Stage: Play, Cause: Sound}), Play, 0, Sound},
	}
	for _, tt := range tests {
		got := after(Standard(), tt.tries...)
		if got.Stage != tt.stage || got.Clean != tt.clean || got.Cause != tt.cause {
			t.Errorf(
				"%s: at %s with %d clean over %q, want %s with %d over %q",
				tt.name,
				got.Stage,
				got.Clean,
				got.Cause,
				tt.stage,
				tt.clean,
				tt.cause,
			)
		}
		if got.Tries != len(tt.tries) {
			t.Errorf("%s: %d tries are counted, want %d", tt.name, got.Tries, len(tt.tries))
		}
	}
}

func TestSlowerWhereThereIsNoWayBack(t *testing.T) {
	s := after(Standard(), stumble(Rhythm), stumble(Rhythm))
	if !s.Slower || !strings.Contains(s.Advice, "one step slower") {
		t.Errorf("two stumbles at Count advise %q", s.Advice)
	}
	if after(Standard(), stumble(Rhythm), stumble(Rhythm), clean()).Slower {
		t.Error("a clean try still asks for a slower tempo")
	}
}

// What is said after a try.
func TestAdvice(t *testing.T) {
	r := Standard()
	passed := func(stages int, more ...Try) []Try {
		var list []Try
		for range CleanToGoOn * stages {
			list = append(list, clean())
		}
		return append(list, more...)
	}
	tests := []struct {
		tries []Try
		want  string
	}{
		{passed(0), ""},
		{passed(0, clean()), "1 of 2 clean in a row, then on to Name."},
		{passed(3, clean()), "1 of 2 clean in a row, then on to the next chunk."},
		{passed(1), "Count is clean twice running: on to Name."},
		{passed(4), "Play is clean twice running: this chunk is done."},
		{passed(4, Try{Stage: Play, Clean: true}), "Still clean: this chunk stays done."},
		{passed(2, stumble(Rhythm)), "One stumble: again, the same way."},
		{passed(2, stumble(Rhythm), stumble(Rhythm)), "Two stumbles over the rhythm: back to Count."},
		{passed(2, stumble(Fingering), stumble(Fingering)), "Two stumbles: the same again, one step slower."},
		{passed(2, stumble(Sound), stumble(Sound)), "Two stumbles: the same again, one step slower."},
		{passed(3, stumble(Sound), stumble(Sound)), "Two stumbles in the sound: stay in Play, one step slower, and mend the sound first."},
	}
	for _, tt := range tests {
		if got := after(r, tt.tries...).Advice; got != tt.want {
			t.Errorf("after %v it says %q, want %q", tt.tries, got, tt.want)
		}
	}
	// Two causes that are mended at one stage: the first is kept.
	three := Routine{{Stage: Count, Word: "Count", Mends: []Cause{Rhythm, WrongName}}, {Stage: Play, Word: "Play", Mends: []Cause{Sound}}}
	if got := after(three, passed(1, stumble(WrongName), stumble(Rhythm))...); got.Cause != WrongName || got.Stage != Count {
		t.Errorf("of two causes mended at one stage %q is kept, at %s", got.Cause, got.Stage)
	}
}

// filled is how full the cells of a state are.
func filled(r Routine, s State) []float64 {
	var list []float64
	for _, c := range r.Cells(s) {
		list = append(list, c.Filled)
	}
	return list
}

func TestCells(t *testing.T) {
	r := Standard()
	if got := filled(r, after(r, clean(), clean(), clean())); !slices.Equal(got, []float64{1, .5, 0, 0}) {
		t.Errorf("the bar is filled %v", got)
	}
	if got := filled(r, after(r, slices.Repeat([]Try{clean()}, 8)...)); !slices.Equal(got, []float64{1, 1, 1, 1}) {
		t.Errorf("a done bar is filled %v", got)
	}
	if got := filled(r, r.Start()); !slices.Equal(got, []float64{0, 0, 0, 0}) {
		t.Errorf("a fresh bar is filled %v", got)
	}
}

// Routines other than the standard one: the rule reads their order, and nothing else.
func TestOtherRoutines(t *testing.T) {
	three := Routine{{Stage: Count, Word: "Clap", Mends: []Cause{Rhythm}}, {Stage: Finger, Word: "Hands", Mends: []Cause{WrongName, Fingering}}, {Stage: Play, Word: "Play", Mends: []Cause{Sound}}}
	six := Routine{
		{Stage: "sing", Word: "Sing", Mends: []Cause{Sound}}, {Stage: Count, Word: "Count", Mends: []Cause{Rhythm}}, {Stage: Name, Word: "Name", Mends: []Cause{WrongName}},
		{Stage: Finger, Word: "Finger", Mends: []Cause{Fingering}}, {Stage: Play, Word: "Play", Mends: nil}, {Stage: "perform", Word: "Perform", Mends: nil},
	}
	reordered := Routine{Standard()[1], Standard()[0], Standard()[2], Standard()[3]}
	to := func(r Routine, stages int, more ...Try) []Try {
		var list []Try
		for range CleanToGoOn * stages {
			list = append(list, clean())
		}
		return append(list, more...)
	}
	tests := []struct {
		name   string
		r      Routine
		tries  []Try
		stage  Stage
		advice string
	}{
		{"three begin", three, nil, Count, ""},
		{"three: on by the order", three, to(three, 1), Finger, "Clap is clean twice running: on to Hands."},
		{"three are done after the third", three, to(three, 3), Done, "Play is clean twice running: this chunk is done."},
		{
			"three: names are mended with the hands",
			three,
			to(three, 2, stumble(WrongName), stumble(WrongName)),
			Finger,
			"Two stumbles over the note names: back to Hands.",
		},
		{"three: a try at a stage of another routine", three, []Try{{Stage: Name, Clean: true}, {Stage: Name, Clean: true}}, Count, ""},
		{"six begin", six, nil, "sing", ""},
		{"six: after five", six, to(six, 5), "perform", "Play is clean twice running: on to Perform."},
		{"six are done after the sixth", six, to(six, 6), Done, "Perform is clean twice running: this chunk is done."},
		{
			"six: sound goes back to singing",
			six,
			to(six, 4, stumble(Sound), stumble(Sound)),
			"sing",
			"Two stumbles over the sound: back to Sing.",
		},
		{
			"six: the earlier stage decides, not the more basic cause",
			six,
			to(six, 5, stumble(Rhythm), stumble(Sound)),
			"sing",
			"Two stumbles over the sound: back to Sing.",
		},
		{
			"reordered: names first",
			reordered,
			to(reordered, 2, stumble(Rhythm), stumble(WrongName)),
			Name,
			"Two stumbles over the note names: back to Name.",
		},
	}
	for _, tt := range tests {
		got := after(tt.r, tt.tries...)
		if got.Stage != tt.stage || got.Advice != tt.advice {
			t.Errorf("%s: at %s, %q, want %s, %q", tt.name, got.Stage, got.Advice, tt.stage, tt.advice)
		}
		if cells := tt.r.Cells(got); len(cells) != len(tt.r) {
			t.Errorf("%s: the bar has %d cells", tt.name, len(cells))
		}
	}
	if got := three.Word(Name); got != "name" {
		t.Errorf("a stage of another routine is called %q", got)
	}
}

func TestFoldIsOneTryAfterAnother(t *testing.T) {
	r := Standard()
	log := []Try{{Stage: Count, Clean: true}, {Stage: Count, Clean: true}, {Stage: Name, Cause: Rhythm}, {Stage: Name, Cause: WrongName}, {Stage: Count, Clean: true}}
	s := State{}
	for _, try := range log {
		s = r.After(s, try)
	}
	if got := r.Fold(log); got != s || got.Stage != Count || got.Clean != 1 || got.Tries != 5 {
		t.Errorf("the log adds up to %+v, want %+v", got, s)
	}
}

// The traditional Maelzel marks.
func TestNotches(t *testing.T) {
	for _, mark := range []int{40, 60, 63, 66, 69, 72, 76, 80, 120, 126, 132, 208} {
		if StepTempo(mark, 0) != mark {
			t.Errorf("%d is not a mark of the scale", mark)
		}
	}
	tests := []struct{ tempo, steps, want int }{
		{60, 1, 63}, {72, -1, 69}, {120, 1, 126}, {40, -1, 40}, {208, 3, 208}, {75, 0, 72}, {75, 1, 76}, {75, -1, 72}, {75, -2, 69},
		{30, 0, 40}, {30, 1, 40}, {230, -1, 208},
	}
	for _, tt := range tests {
		if got := StepTempo(tt.tempo, tt.steps); got != tt.want {
			t.Errorf("%d notches from %d is %d, want %d", tt.steps, tt.tempo, got, tt.want)
		}
	}
	for _, tempo := range []int{40, 75, 76, 208} {
		ladder := Ladder(tempo)
		at := slices.Index(ladder, tempo)
		if at < 0 || !slices.IsSorted(ladder) {
			t.Fatalf("the ladder of %d is %v", tempo, ladder)
		}
		if slower := ladder[max(at-1, 0)]; slower != StepTempo(tempo, -1) {
			t.Errorf("a rung under %d is %d, a notch is %d", tempo, slower, StepTempo(tempo, -1))
		}
		if faster := ladder[min(at+1, len(ladder)-1)]; faster != StepTempo(tempo, 1) {
			t.Errorf("a rung over %d is %d, a notch is %d", tempo, faster, StepTempo(tempo, 1))
		}
	}
	for marked, want := range map[int]int{0: 60, 72: 66, 120: 80, 48: 50} {
		if got := StartTempo(marked); got != want {
			t.Errorf("an exercise marked %d starts at %d, want %d", marked, got, want)
		}
	}
}

// What has gone wrong is counted until the chunk goes on to another stage: clean tries
// and ways back between do not end it.
func TestTroubles(t *testing.T) {
	r := Standard()
	toPlay := []Try{clean(), clean(), clean(), clean(), clean(), clean()}
	tests := []struct {
		name     string
		tries    []Try
		stumbles int
		main     Cause
		since    int
		stuck    bool
	}{
		{"none", toPlay, 0, None, 0, false},
		{"two", append(toPlay[:6:6], stumble(Sound), stumble(Fingering)), 2, Fingering, 7, false},
		{"clean twice, not in a row", append(toPlay[:6:6], clean(), stumble(Sound), clean(), stumble(Sound)), 2, Sound, 8, false},
		{"one clean between", append(toPlay[:6:6], stumble(Sound), clean(), stumble(Rhythm), stumble(Rhythm)), 3, Rhythm, 7, true},
		{"sent back and stumbled again", append(toPlay[:6:6], stumble(Rhythm), stumble(Rhythm), stumble(Rhythm)), 3, Rhythm, 7, true},
		{"gone on again", append(toPlay[:6:6], stumble(Rhythm), stumble(Rhythm), stumble(Rhythm), clean(), clean()), 0, None, 0, false},
		{"at one stage all along", []Try{stumble(Rhythm), stumble(WrongName), stumble(Rhythm), stumble(WrongName)}, 4, Rhythm, 1, true},
	}
	for _, tt := range tests {
		got := after(r, tt.tries...)
		if got.Stumbles != tt.stumbles || got.Over.Main() != tt.main || got.InTrouble() != tt.stuck || tt.stumbles > 0 && got.Since != tt.since {
			t.Errorf("%s: %d stumbles over %q since %d, stuck %v; want %d over %q since %d, %v", tt.name, got.Stumbles, got.Over.Main(), got.Since,
				got.InTrouble(), tt.stumbles, tt.main, tt.since, tt.stuck)
		}
	}
	if (State{Stage: Done, Stumbles: 5}).InTrouble() {
		t.Error("a done chunk is stuck")
	}
}
