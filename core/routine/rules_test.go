package routine

import (
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"unhurriedbench/core/count"
	"unhurriedbench/core/instrument"
)

// times repeats tries.
func times(n int, list ...Try) []Try { return slices.Repeat(list, n) }

// of joins lists of tries.
func of(lists ...[]Try) []Try { return slices.Concat(lists...) }

func moved(to Stage) []Try { return []Try{{Stage: to, Moved: true}} }

// changed is the standard routine with one stage changed.
func changed(stage Stage, change func(*Step)) Routine {
	r := slices.Clone(Standard())
	change(&r[r.Index(stage)])
	return r
}

func shipped(t *testing.T, id string) Routine {
	t.Helper()
	n, ok := ShippedAs(id)
	if !ok {
		t.Fatalf("there is no routine %s", id)
	}
	return n.Steps
}

// When to go on, and when to go back, whatever the routine and the student's own rule.
func TestOnAndBackByRule(t *testing.T) {
	standard := Standard()
	c, over := []Try{clean()}, func(causes ...Cause) []Try {
		var list []Try
		for _, cause := range causes {
			list = append(list, stumble(cause))
		}
		return list
	}
	ladder := changed(Play, func(s *Step) { s.Tempo, s.TempoSteps = Climb, 2 })
	steady := changed(Play, func(s *Step) { s.TempoSteps = 2 }) // rungs without a ladder are none
	once := standard.Under(Rule{Clean: 1})
	stays := standard.Under(Rule{Stay: true})
	air, name, pluck, hands, echo := shipped(t, "air-first"), shipped(t, "name-first"), shipped(t, "pluck-first"), shipped(t, "hands-first"), shipped(t, "echo-first")
	toPlay := times(6, clean())
	tests := []struct {
		name      string
		r         Routine
		tries     []Try
		stage     Stage
		clean     int
		tempoStep int
		then      string // "slower", "faster", "fewer"
		says      string
	}{
		// The pass rule, 1 to 5 clean in a row.
		{"one clean goes on", once, c, Name, 0, 0, "", "Count is clean: on to Name."},
		{"one clean each is done", once, times(4, clean()), Done, 0, 0, "", "Play is clean: this chunk is done."},
		{"of three, two stay", standard.Under(Rule{Clean: 3}), times(2, clean()), Count, 2, 0, "", "2 of 3 clean in a row, then on to Name."},
		{"of three, the third goes on", standard.Under(Rule{Clean: 3}), times(3, clean()), Name, 0, 0, "", "Count is clean 3 times running: on to Name."},
		{"of four, a stumble starts over", standard.Under(Rule{Clean: 4}), of(times(3, clean()), over(Rhythm), times(3, clean())), Count, 3, 0, "", "3 of 4"},
		{"of five, four stay", standard.Under(Rule{Clean: 5}), times(4, clean()), Count, 4, 0, "", "4 of 5"},
		{"of five, the fifth goes on", standard.Under(Rule{Clean: 5}), times(5, clean()), Name, 0, 0, "", "5 times running"},
		{"one stage asks for more", changed(Name, func(s *Step) { s.Clean = 3 }), times(4, clean()), Name, 2, 0, "", "2 of 3"},
		{"the others as usual", changed(Name, func(s *Step) { s.Clean = 3 }), times(5, clean()), Finger, 0, 0, "", "on to Finger"},
		{"the student's rule over the stage's", changed(Name, func(s *Step) { s.Clean = 3 }).Under(Rule{Clean: 1}), times(2, clean()), Finger, 0, 0, "", ""},
		{"no rule is the routine's", standard.Under(Rule{}), times(2, clean()), Name, 0, 0, "", ""},

		// Back by the cause, else slower, else fewer notes.
		{"names at Finger go to Name", standard, of(times(4, clean()), over(WrongName, WrongName)), Name, 0, 0, "", "back to Name"},
		{"rhythm at Name goes to Count", standard, of(times(2, clean()), over(Rhythm, Rhythm)), Count, 0, 0, "", "back to Count"},
		{"rhythm at Finger goes to Count", standard, of(times(4, clean()), over(Rhythm, Rhythm)), Count, 0, 0, "", "back to Count"},
		{"names at Name stay, slower", standard, of(times(2, clean()), over(WrongName, WrongName)), Name, 0, 0, "slower", "one step slower"},
		{"fingering at Finger stays, slower", standard, of(times(4, clean()), over(Fingering, Fingering)), Finger, 0, 0, "slower", "one step slower"},
		{"sound at Finger stays, slower", standard, of(times(4, clean()), over(Sound, Sound)), Finger, 0, 0, "slower", "one step slower"},
		{"fingering at Name stays: it is mended later", standard, of(times(2, clean()), over(Fingering, Fingering)), Name, 0, 0, "slower", ""},
		{"sound at Count stays", standard, over(Sound, Sound), Count, 0, 0, "slower", ""},
		{"three: one stumble after slower", standard, over(Rhythm, Rhythm, Rhythm), Count, 0, 0, "", "One stumble"},
		{"four: slower did not help, fewer notes", standard, over(Rhythm, Rhythm, Rhythm, Rhythm), Count, 0, 0, "fewer", "fewer notes"},
		{"six: fewer notes again", standard, over(Rhythm, Rhythm, Rhythm, Rhythm, Rhythm, Rhythm), Count, 0, 0, "fewer", "fewer notes"},
		{"a clean try between begins with slower", standard, of(over(Rhythm, Rhythm), c, over(Rhythm, Rhythm)), Count, 0, 0, "slower", ""},
		{"sound in Play: slower, then fewer", standard, of(toPlay, over(Sound, Sound, Sound, Sound)), Play, 0, 0, "fewer", "fewer notes"},
		{"back wins over fewer", standard, of(toPlay, over(Sound, Sound, Rhythm, Sound)), Count, 0, 0, "", "back to Count"},
		{"rhythm and sound: the more basic", standard, of(toPlay, over(Sound, Rhythm)), Count, 0, 0, "", "over the rhythm"},
		{"names and fingering: the more basic", standard, of(toPlay, over(Fingering, WrongName)), Name, 0, 0, "", "over the note names"},
		{"sent back, then on again", standard, of(toPlay, over(Fingering, Fingering), times(2, clean())), Play, 0, 0, "", "on to Play"},
		{"sent back twice", standard, of(toPlay, over(Fingering, Fingering), over(WrongName, WrongName)), Name, 0, 0, "", "back to Name"},

		// A student who stays.
		{"stays at Play, slower", stays, of(toPlay, over(Rhythm, Rhythm)), Play, 0, 0, "slower", "one step slower"},
		{"then fewer notes", stays, of(toPlay, over(Rhythm, Rhythm, Rhythm, Rhythm)), Play, 0, 0, "fewer", ""},
		{"and goes on", stays, of(toPlay, over(Rhythm, Rhythm), times(2, clean())), Done, 0, 0, "", ""},
		{"one stage that stays", changed(Finger, func(s *Step) { s.Stay = true }), of(times(4, clean()), over(Rhythm, Rhythm)), Finger, 0, 0, "slower", ""},
		{"the next goes back", changed(Finger, func(s *Step) { s.Stay = true }), of(toPlay, over(Rhythm, Rhythm)), Count, 0, 0, "", ""},

		// The ladder.
		{"two clean earn a rung", ladder, of(toPlay, times(2, clean())), Play, 0, 1, "faster", "again one step faster, step 1 of 2"},
		{"one more is on the way", ladder, of(toPlay, times(3, clean())), Play, 1, 1, "", "1 of 2 clean in a row, then on to one step faster."},
		{"two more earn the next", ladder, of(toPlay, times(4, clean())), Play, 0, 2, "faster", "step 2 of 2"},
		{"at the top it is done", ladder, of(toPlay, times(6, clean())), Done, 0, 0, "", "this chunk is done"},
		{"a stumble earns none", ladder, of(toPlay, c, over(Sound), c), Play, 1, 0, "", ""},
		{"two stumbles lose a rung", ladder, of(toPlay, times(4, clean()), over(Sound, Sound)), Play, 0, 1, "slower", ""},
		{"and no more than there are", ladder, of(toPlay, over(Sound, Sound)), Play, 0, 0, "slower", ""},
		{"fewer notes lose none", ladder, of(toPlay, times(4, clean()), over(Sound, Sound, Sound, Sound)), Play, 0, 1, "fewer", ""},
		{"back loses them all", ladder, of(toPlay, times(4, clean()), over(Rhythm, Rhythm), times(6, clean())), Play, 0, 0, "", ""},
		{"the student's rule earns rungs", ladder.Under(Rule{Clean: 1}), of(times(3, clean()), c), Play, 0, 1, "faster", "step 1 of 2"},
		{"rungs without a ladder", steady, of(toPlay, times(2, clean())), Done, 0, 0, "", ""},

		// Moved by the teacher.
		{"moved on", standard, moved(Play), Play, 0, 0, "", "Put at Play"},
		{"moved to done", standard, moved(Done), Done, 0, 0, "", "Put at Done"},
		{"moved back", standard, of(toPlay, moved(Count)), Count, 0, 0, "", "Put at Count"},
		{"moved and clean", standard, of(moved(Play), times(2, clean())), Done, 0, 0, "", ""},
		{"moved against the way back", standard, of(toPlay, over(Rhythm, Rhythm), moved(Play)), Play, 0, 0, "", ""},
		{"a move forgets half a pass", standard, of(c, moved(Count), c), Count, 1, 0, "", "1 of 2"},
		{"a move forgets a stumble", standard, of(over(Rhythm), moved(Count), over(Rhythm)), Count, 0, 0, "", "One stumble"},
		{"moved to a stage that is not there", standard, of(c, moved("sing")), Count, 1, 0, "", ""},

		// The routines that ship, to their ends and back.
		{"name first: rhythm is mended with the names", name, of(times(4, clean()), over(Rhythm, Rhythm)), Name, 0, 0, "", "back to Name"},
		{"name first: three steps", name, times(6, clean()), Done, 0, 0, "", ""},
		{"air first: rhythm goes back to Air", air, of(times(8, clean()), over(Rhythm, Rhythm)), "air", 0, 0, "", "back to Air"},
		{"air first: from Air to the mouthpiece", air, times(2, clean()), "mouthpiece", 0, 0, "", "on to Mouthpiece"},
		{"air first: sound stays in Play", air, of(times(8, clean()), over(Sound, Sound)), Play, 0, 0, "slower", "mend the sound"},
		{"air first: five steps", air, times(10, clean()), Done, 0, 0, "", ""},
		{"pluck first: fingering while bowing", pluck, of(times(8, clean()), over(Fingering, Fingering)), Finger, 0, 0, "", "back to Finger"},
		{"pluck first: sound while plucking stays", pluck, of(times(6, clean()), over(Sound, Sound)), "pluck", 0, 0, "slower", ""},
		{"pluck first: on to the bow", pluck, times(8, clean()), Play, 0, 0, "", "on to Bow"},
		{"hands first: sticking goes back to the hands", hands, of(times(6, clean()), over(Fingering, Fingering)), "hands", 0, 0, "", "back to Hands"},
		{"hands first: names too", hands, of(times(6, clean()), over(WrongName, WrongName)), "hands", 0, 0, "", "back to Hands"},
		{"hands first: rhythm on the pad", hands, of(times(4, clean()), over(Rhythm, Rhythm)), Count, 0, 0, "", "back to Count"},
		{"echo first: begins by ear", echo, c, "echo", 1, 0, "", "then on to Count"},
		{"echo first: rhythm has nowhere to go back", echo, over(Rhythm, Rhythm), "echo", 0, 0, "slower", ""},
		{"echo first: five steps", echo, times(10, clean()), Done, 0, 0, "", ""},
	}
	if len(tests) < 60 {
		t.Errorf("there are %d cases", len(tests))
	}
	for _, tt := range tests {
		got := after(tt.r, tt.tries...)
		then := map[bool]string{got.Slower: "slower", got.Faster: "faster", got.Fewer: "fewer"}[true]
		if got.Stage != tt.stage || got.Clean != tt.clean || got.TempoStep != tt.tempoStep || then != tt.then || !strings.Contains(got.Advice, tt.says) {
			t.Errorf("%s: at %s with %d clean on rung %d, %q, %q; want %s, %d, %d, %q, %q",
				tt.name, got.Stage, got.Clean, got.TempoStep, then, got.Advice, tt.stage, tt.clean, tt.tempoStep, tt.then, tt.says)
		}
	}
}

// anyRoutine is one of the shipped routines, with rules drawn by chance.
func anyRoutine(chance *rand.Rand) Routine {
	all := Shipped()
	r := slices.Clone(all[chance.IntN(len(all))].Steps)
	for k := range r {
		r[k].Clean, r[k].Stay = chance.IntN(MostClean+1), chance.IntN(4) == 0
		if chance.IntN(3) == 0 {
			r[k].Tempo, r[k].TempoSteps = Climb, chance.IntN(4)
		}
	}
	return r
}

func anyTry(chance *rand.Rand, r Routine) Try {
	t := Try{Stage: at, Clean: chance.IntN(5) < 3}
	if chance.IntN(6) == 0 {
		t.Stage = r[chance.IntN(len(r))].Stage
	}
	if !t.Clean {
		t.Cause = AllCauses()[chance.IntN(4)]
	}
	return t
}

// A stumble never moves forward, not by a stage, not by a rung.
func TestStumbleNeverMovesForward(t *testing.T) {
	chance := rand.New(rand.NewPCG(3, 5))
	for n := range 400 {
		r := anyRoutine(chance)
		s := r.Start()
		for range 60 {
			try := anyTry(chance, r)
			if try.Stage == at {
				if try.Stage = s.Stage; s.Stage == Done {
					try.Stage = r.Last()
				}
			}
			before := s
			s = r.After(s, try)
			if try.Clean {
				continue
			}
			if r.Index(s.Stage) > r.Index(try.Stage) || s.Stage == before.Stage && s.TempoStep > before.TempoStep || s.Faster || s.Clean > 0 {
				t.Fatalf("routine %d: a stumble at %s went from %+v to %+v", n, try.Stage, before, s)
			}
		}
	}
}

// From wherever a chunk stands, clean tries end every routine, and no later than each
// stage's rungs and runs add up to.
func TestEveryRoutineEnds(t *testing.T) {
	chance := rand.New(rand.NewPCG(8, 13))
	for range 400 {
		r := anyRoutine(chance)
		s := r.Start()
		for range chance.IntN(40) {
			try := anyTry(chance, r)
			if try.Stage == at {
				if try.Stage = s.Stage; s.Stage == Done {
					try.Stage = r.Last()
				}
			}
			s = r.After(s, try)
		}
		most := 0
		for _, step := range r {
			most += step.ToGoOn() * (step.faster() + 1)
		}
		left := 0
		for ; s.Stage != Done && left <= most; left++ {
			s = r.After(s, Try{Stage: s.Stage, Clean: true})
		}
		if s.Stage != Done {
			t.Fatalf("after %d clean tries running %v is at %s", left, r, s.Stage)
		}
	}
}

// A log adds up to the same, in whatever batches it is read.
func TestFoldInBatches(t *testing.T) {
	chance := rand.New(rand.NewPCG(21, 34))
	for range 200 {
		r := anyRoutine(chance)
		var log []Try
		for range 80 {
			try := anyTry(chance, r)
			if try.Stage == at {
				try.Stage = r[chance.IntN(len(r))].Stage
			}
			if chance.IntN(20) == 0 {
				try = Try{Stage: r[chance.IntN(len(r))].Stage, Moved: true}
			}
			log = append(log, try)
		}
		want := r.Fold(log)
		s := r.Start()
		for left := log; len(left) > 0; {
			batch := min(1+chance.IntN(9), len(left))
			for _, try := range left[:batch] {
				s = r.After(s, try)
			}
			left = left[batch:]
		}
		if s != want {
			t.Fatalf("in batches the log adds up to %+v, at once to %+v", s, want)
		}
	}
}

// The bar never goes beyond its cells. A stage is full where it is earned, and it is earned
// only where the log has as many clean tries in a row at it as the routine asks for; a chunk
// that is done has earned its last stage.
func TestNothingIsEarnedThatWasNot(t *testing.T) {
	chance := rand.New(rand.NewPCG(55, 89))
	for range 300 {
		r := anyRoutine(chance)
		s := r.Start()
		run, best := make([]int, len(r)), make([]int, len(r))
		for range 40 {
			try := anyTry(chance, r)
			if try.Moved {
				continue
			}
			if try.Stage == at {
				if try.Stage = s.Stage; s.Stage == Done {
					try.Stage = r.Last()
				}
			}
			if k := r.Index(try.Stage); k >= 0 && k < len(r) {
				if run[k]++; !try.Clean {
					run[k] = 0
				}
				best[k] = max(best[k], run[k])
			}
			if chance.IntN(4) == 0 && try.Clean {
				s = r.Within(s, try)
			} else {
				s = r.After(s, try)
			}
			for k, c := range r.Cells(s) {
				if c.Filled < 0 || c.Filled > 1 || (c.Filled == 1) != (c.Credit == Earned) {
					t.Fatalf("stage %d of %v at %s is %+v", k, r, s.Stage, c)
				}
				if c.Credit == Earned && best[k] < r[k].ToGoOn() {
					t.Fatalf("stage %d is called earned with %d clean running of %d", k, best[k], r[k].ToGoOn())
				}
			}
			if s.Stage == Done && !s.Earned.Has(len(r)-1) {
				t.Fatalf("done without its last stage: %+v", s)
			}
		}
	}
}

func TestNextTempoAndPasses(t *testing.T) {
	for _, tt := range []struct {
		s     State
		tempo int
		want  int
	}{{State{Slower: true}, 60, 58}, {State{Faster: true}, 60, 63}, {State{}, 60, 60}, {State{Fewer: true}, 60, 60}, {State{Slower: true}, 0, 0}, {State{Faster: true}, 208, 208}} {
		if got := tt.s.NextTempo(tt.tempo); got != tt.want {
			t.Errorf("after %+v at %d the next is at %d, want %d", tt.s, tt.tempo, got, tt.want)
		}
	}
	// A five-note scale in whole notes at 90, in halves at 80 and in quarters at 75 (common
	// practice): on the traditional marks 88 and 80 over 75.
	var tempos []int
	for _, p := range LongerFirst.Passes(75) {
		tempos = append(tempos, p.Tempo)
	}
	if !slices.Equal(tempos, []int{88, 80, 75}) {
		t.Errorf("longer values first at 75 go %v", tempos)
	}
	if got := Free.Passes(60); len(got) != 1 || got[0].Tempo != 0 {
		t.Errorf("out of time is %v", got)
	}
	if got := (Step{Tempo: Climb, TempoSteps: 3}).Target(60, 0); got != 69 {
		t.Errorf("three rungs over 60 is %d, want 69", got)
	}
	if got := (Step{TempoSteps: 3}).Target(60, 0); got != 60 {
		t.Errorf("without a ladder the target of 60 is %d", got)
	}
}

// What ships can be kept, has words for every instrument in the room, and each stage finds
// its like in every other routine that has one of its kind.
func TestShippedRoutines(t *testing.T) {
	if n := len(Shipped()); n < 6 {
		t.Errorf("%d routines ship", n)
	}
	for _, n := range Shipped() {
		if problems := n.Check(); len(problems) > 0 {
			t.Errorf("%s cannot be kept: %v", n.Title, problems)
		}
		for _, i := range instrument.All() {
			if !n.Suits(i.Family) {
				continue
			}
			for _, step := range n.Steps {
				words := step.Words(i, count.Options{})
				if step.Title(i) == "" || len(words) < 20 || len(words) > LongestWords+100 || strings.Contains(words, "  ") || strings.HasPrefix(words, " ") {
					t.Errorf("%s, %s, %s: %q, %q", n.Title, step.Word, i.Name, step.Title(i), words)
				}
			}
		}
		if _, ok := Standard().Like(n.Steps[0]); !ok {
			t.Errorf("nothing in the standard routine is like %s", n.Steps[0].Word)
		}
	}
	if _, ok := First("brass", Named{Family: "strings", Steps: Standard()}); ok {
		t.Error("a routine for strings is taken for brass")
	}
	if n, _ := First("brass", Named{ID: "none"}, Named{ID: "a", Family: "strings", Steps: Standard()}, Named{ID: "b", Steps: Standard()}); n.ID != "b" {
		t.Errorf("brass takes %q", n.ID)
	}
}

// Each cause has something that helps on every instrument, and the signs are given only for
// whom they can befall.
func TestRemedies(t *testing.T) {
	for _, i := range instrument.All() {
		for _, c := range AllCauses() {
			list := Remedies(i, c)
			if len(list) == 0 || list[0].Do == "" || list[0].Source == "" {
				t.Errorf("nothing helps %s over %s", i.Name, c.Words())
			}
		}
	}
	// No remedy names what the instrument does not have.
	has := map[string]func(instrument.Instrument) bool{
		"register key": clarinets, "octave key": saxophones, "palm": saxophones, "flick": bassoons, "left first finger": func(i instrument.Instrument) bool { return oboes(i) || bassoons(i) },
		"valve": valved, "slide": slides, "reed": reeded, "bell;": horns, "bow": bowed, "open string": bowed, "flam": drums, "bar,": bars, "head joint": fluted, "mouthpiece": blown,
	}
	for _, i := range instrument.All() {
		for _, c := range AllCauses() {
			for _, r := range Remedies(i, c) {
				for word, owns := range has {
					if strings.Contains(strings.ToLower(" "+r.Sign+" "+r.Do), " "+word) && !owns(i) {
						t.Errorf("the %s is told of a %s: %s", i.Name, word, r.Line())
					}
				}
			}
		}
		if !i.Unpitched() && (i.Blown || i.Bowed()) && !slices.ContainsFunc(Remedies(i, Sound), func(r Remedy) bool { return strings.Contains(r.Do, "tun") }) {
			t.Errorf("the %s is told nothing of being in tune", i.Name)
		}
	}
	says := func(id string, c Cause) string {
		i, ok := instrument.ByID(id)
		if !ok {
			t.Fatalf("there is no %s", id)
		}
		var lines []string
		for _, r := range Remedies(i, c) {
			lines = append(lines, r.Line())
		}
		return strings.Join(lines, " | ")
	}
	for _, tt := range []struct {
		id         string
		cause      Cause
		has, hasNo string
	}{
		{"flute", Sound, "An octave low?", "squeak"}, {"clarinet", Sound, "A squeak?", "octave"}, {"oboe", Sound, "A squeak?", "partial"},
		{"trumpet", Sound, "A partial low?", "squeak"}, {"trombone", Fingering, "3rd has its brace at the bell", "valve"}, {"tuba-bb", Fingering, "A valve that sticks?", "slide"},
		{"clarinet", Fingering, "Finger 4 makes the B flat", "slide"}, {"alto-sax", Fingering, "Fingers close", "B flat"}, {"violin", Fingering, "The third finger following", "slide"},
		{"cello", Fingering, "leave the lower ones down", "third finger"}, {"snare", WrongName, "right or left", "accidental"}, {"snare", Sound, "rebound", "air"},
		{"horn-f", Rhythm, "breathe in", "bow"}, {"viola", Rhythm, "set the bow", "breathe"}, {"bells", Fingering, "mallet", "valve"},
	} {
		if got := says(tt.id, tt.cause); !strings.Contains(got, tt.has) || strings.Contains(got, tt.hasNo) {
			t.Errorf("%s over %s is told %q", tt.id, tt.cause, got)
		}
	}
}

func TestRestForLips(t *testing.T) {
	for _, tt := range []struct {
		id          string
		fresh, high bool
		want        float64
		why         string
	}{
		{"trumpet", true, false, 12, "It is new"}, {"trumpet", false, true, 12, "It is high"}, {"clarinet", true, true, 12, "new and high"},
		{"trumpet", false, false, 0, ""}, {"flute", true, true, 0, ""}, {"violin", true, true, 0, ""}, {"snare", true, true, 0, ""}, {"bassoon", true, false, 12, "It is new"},
	} {
		i, _ := instrument.ByID(tt.id)
		if got := RestFor(i, 12, tt.fresh, tt.high); got.Seconds != tt.want || !strings.Contains(got.Why, tt.why) {
			t.Errorf("%s, new %v, high %v, rests %.0f s: %q", tt.id, tt.fresh, tt.high, got.Seconds, got.Why)
		}
	}
}

// What a teacher may have written, and what is said of it.
func TestCheck(t *testing.T) {
	good := Named{Title: "Ours", Steps: Standard()}
	with := func(change func(*Named)) Named {
		n := good
		n.Steps = slices.Clone(n.Steps)
		change(&n)
		return n
	}
	for _, tt := range []struct {
		n    Named
		want string
	}{
		{good, ""},
		{with(func(n *Named) { n.Title = " " }), "Give the routine a name"},
		{with(func(n *Named) { n.Title = strings.Repeat("a", 61) }), "61 letters"},
		{with(func(n *Named) { n.Family = "voices" }), "whom the routine is for"},
		{with(func(n *Named) { n.Steps = nil }), "one stage at least"},
		{with(func(n *Named) { n.Steps = slices.Repeat(n.Steps, 4) }), "at most 12"},
		{with(func(n *Named) { n.Steps = append(n.Steps, n.Steps[0]) }), "Stage 5: Count is in the routine already"},
		{with(func(n *Named) { n.Steps[1].Stage = "Two words" }), "Stage 2: choose which"},
		{with(func(n *Named) { n.Steps[1].Stage = Done }), "Stage 2: choose which"},
		{with(func(n *Named) { n.Steps[1].Word = "" }), "Stage 2: give it a word"},
		{with(func(n *Named) { n.Steps[1].Stage = "sing" }), "a way to count, name, finger or play"},
		{with(func(n *Named) { n.Steps[0].Clean = 6 }), "go on is 6"},
		{with(func(n *Named) { n.Steps[0].Times = 9 }), "is done is 9"},
		{with(func(n *Named) { n.Steps[0].TempoSteps = -1 }), "climbs is -1"},
		{with(func(n *Named) { n.Steps[0].Tempo = "fast" }), "tempo from the list"},
		{with(func(n *Named) { n.Steps[0].Ways = []Way{"shout"} }), "ways from the list"},
		{with(func(n *Named) { n.Steps[0].Mends = []Cause{"luck"} }), "mends from the list"},
		{with(func(n *Named) { n.Steps[0].Say = []Saying{{"", strings.Repeat("a", 301)}} }), "301 letters"},
		{with(func(n *Named) { n.Steps[0].Say = []Saying{{"voices", "La"}} }), "to whom it is said"},
	} {
		got := strings.Join(tt.n.Check(), " ")
		if tt.want == "" && got != "" || !strings.Contains(got, tt.want) {
			t.Errorf("it says %q, want %q", got, tt.want)
		}
	}
	for word, want := range map[string]Stage{"Sing it": "own-sing-it", "Ça va": "own-a-va", "": "own", "A very long word of many letters": "own-a-very-long-"} {
		stage := OwnStage(word, nil)
		if strings.TrimRight(string(want), "-") != string(stage) || !stageText.MatchString(string(stage)) {
			t.Errorf("%q is stage %q, want %q", word, stage, want)
		}
	}
	if got := OwnStage("Sing", Routine{{Stage: "own-sing"}}); got != "own-sing-2" {
		t.Errorf("a second of one word is %q", got)
	}
}

// A teacher's words go before ours, those for the family before those for all.
func TestTeachersWords(t *testing.T) {
	violin, _ := instrument.ByID("violin")
	trumpet, _ := instrument.ByID("trumpet")
	step := Standard()[3]
	step.Say = []Saying{{"", "Play, all of you."}, {"strings", "Bow it."}}
	for i, want := range map[string]string{"violin": "Bow it.", "trumpet": "Play, all of you."} {
		on := map[string]instrument.Instrument{"violin": violin, "trumpet": trumpet}[i]
		if got := step.Words(on, count.Options{}); got != want {
			t.Errorf("the %s is told %q", i, got)
		}
	}
	if got := (Step{Stage: "own-sing", Word: "Sing", Kind: Name}); got.Title(violin) != "Sing" || got.Words(violin, count.Options{}) != "" || got.WithHands() {
		t.Errorf("a stage of one's own is %q, %q, with hands %v", got.Title(violin), got.Words(violin, count.Options{}), got.WithHands())
	}
	for _, w := range Ways() {
		said := 0
		for _, i := range instrument.All() {
			if w.Words(i) != "" {
				said++
			}
		}
		if w.Word() == "" || said == 0 {
			t.Errorf("the way %s has the word %q and words for %d instruments", w, w.Word(), said)
		}
	}
}

// A way is called by what the instrument has for it. Source: common practice.
func TestWaysInShort(t *testing.T) {
	for id, want := range map[string]string{
		"flute": "head joint alone", "piccolo": "head joint alone", "oboe": "reed alone", "bassoon": "reed alone",
		"clarinet": "mouthpiece alone", "alto-sax": "mouthpiece alone", "trumpet": "mouthpiece alone", "violin": "", "snare": "",
	} {
		i, _ := instrument.ByID(id)
		if got := Mouthpiece.Short(i); got != want {
			t.Errorf("%s: %q, want %q", id, got, want)
		}
	}
	violin, _ := instrument.ByID("violin")
	snare, _ := instrument.ByID("snare")
	for way, want := range map[Way][2]string{Pluck: {"plucked first", ""}, Pad: {"", "on the pad first"}} {
		if got := [2]string{way.Short(violin), way.Short(snare)}; got != want {
			t.Errorf("%s: violin and snare drum have %q, want %q", way, got, want)
		}
	}
}

// A stumble with the measure it was in reads back as it is written; a measure that is none does not.
func TestStumble(t *testing.T) {
	for text, want := range map[string]Stumble{
		"rhythm": {Rhythm, 0}, "sound, m. 5": {Sound, 5}, "name, m. 9999": {WrongName, 9999},
	} {
		if got, ok := ParseStumble(text); !ok || got != want || got.String() != text {
			t.Errorf("%s is read as %+v, %v, and written %s", text, got, ok, got)
		}
	}
	for _, text := range []string{"", "clean", "m. 5", "rhythm, m. 0", "rhythm, m. x", "rhythm, m. 10000", "rhythm, m. "} {
		if got, ok := ParseStumble(text); ok {
			t.Errorf("%q is read as %+v", text, got)
		}
	}
}
