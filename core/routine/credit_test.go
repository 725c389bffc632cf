package routine

import "testing"

// each is as many tries of a kind.
func each(n int, t Try) []Try {
	list := make([]Try, n)
	for k := range list {
		list[k] = t
	}
	return list
}

// Earned, by playing, passed over and open are told apart. Source: the rule that a grade
// rests on, common practice where many teachers skip stages on purpose.
func TestCredit(t *testing.T) {
	play, count := Try{Stage: Play, Clean: true}, Try{Stage: Count, Clean: true}
	class := Try{Stage: Count, Clean: true, Class: true}
	for _, tt := range []struct {
		name  string
		tries []Try
		stage Stage
		want  [4]Credit
	}{
		{"nothing", nil, Count, [4]Credit{}},
		{"clean twice at Play and nothing else", each(2, play), Done, [4]Credit{ByPlaying, ByPlaying, ByPlaying, Earned}},
		{"clean once at Play", each(1, play), Play, [4]Credit{PassedOver, PassedOver, PassedOver, Open}},
		{"once alone at Count", each(1, count), Count, [4]Credit{}},
		{"once with the class at Count", each(1, class), Name, [4]Credit{Earned}},
		{"twice alone at Count", each(2, count), Name, [4]Credit{Earned}},
		{"counted, then played", append(each(2, count), each(2, play)...), Done, [4]Credit{Earned, ByPlaying, ByPlaying, Earned}},
		{"put at Play by the teacher", []Try{{Stage: Play, Moved: true}}, Play, [4]Credit{}},
		{"put at Done by the teacher", []Try{{Stage: Done, Moved: true}}, Done, [4]Credit{ByPlaying, ByPlaying, ByPlaying, Earned}},
		{"one stumble at Count later leaves it", append(each(2, count), Try{Stage: Count, Cause: Rhythm}), Count, [4]Credit{Earned}},
		{"two take it back", append(each(2, count), each(2, Try{Stage: Count, Cause: Rhythm})...), Count, [4]Credit{}},
		{
			"sent back from Play to Count, all is to be earned again",
			append(each(8, clean()), each(2, Try{Stage: Play, Cause: Rhythm})...),
			Count,
			[4]Credit{},
		},
		{
			"Play went wrong once after it was done",
			append(append(each(2, count), each(2, play)...), Try{Stage: Play, Cause: Sound}),
			Play,
			[4]Credit{Earned, PassedOver, PassedOver, Open},
		},
	} {
		s := after(Standard(), tt.tries...)
		if s.Stage != tt.stage {
			t.Errorf("%s: at %s, want %s", tt.name, s.Stage, tt.stage)
		}
		for k, want := range tt.want {
			if got := Standard().Credit(s, k); got != want {
				t.Errorf("%s: %s is %s, want %s", tt.name, Standard()[k].Word, got.Words(), want.Words())
			}
		}
	}
}

// What is clean in the line counts for a chunk in it and never sends it back; a stumble in
// the line ends a run of clean tries, and no more.
func TestWithin(t *testing.T) {
	r := Standard()
	within := func(s State, tries ...Try) State {
		for _, try := range tries {
			s = r.Within(s, try)
		}
		return s
	}
	count, play := Try{Stage: Count, Clean: true}, Try{Stage: Play, Clean: true}
	atPlay := after(r, each(6, clean())...)
	for _, tt := range []struct {
		name   string
		got    State
		stage  Stage
		earned StageSet
	}{
		{"counted twice in the line", within(r.Start(), count, count), Name, StageSet(0).With(0)},
		{"counted once by a class", within(r.Start(), Try{Stage: Count, Clean: true, Class: true}), Name, StageSet(0).With(0)},
		{"a stumble in the line", within(r.Start(), count, Try{Stage: Count, Cause: Rhythm}, count), Count, 0},
		{"a stumble in the line at another stage", within(r.Start(), count, Try{Stage: Play, Cause: Rhythm}, count), Name, StageSet(0).With(0)},
		{"counted again at Play", within(atPlay, count), Play, 0b111},
		{"played twice in the line from Count", within(r.Start(), play, play), Done, StageSet(0).With(3)},
		{"played once in the line from Count", within(r.Start(), play), Count, 0},
		{"the line is put at Play", within(r.Start(), Try{Stage: Play, Moved: true}), Count, 0},
		{"the line is put at Done", within(r.Start(), Try{Stage: Done, Moved: true}), Done, StageSet(0).With(3)},
	} {
		if tt.got.Stage != tt.stage || tt.got.Earned != tt.earned {
			t.Errorf("%s: at %s with %b earned, want %s with %b", tt.name, tt.got.Stage, tt.got.Earned, tt.stage, tt.earned)
		}
	}
}
