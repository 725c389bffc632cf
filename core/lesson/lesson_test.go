package lesson

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
)

var chunkA, chunkB = breakdown.ChunkKey{First: 1, Last: 2}, breakdown.ChunkKey{First: 3, Last: 4}

// The time of a step is its words, its count-offs and beats at the tempo, and what lies
// between.
func TestSeconds(t *testing.T) {
	for _, tt := range []struct {
		name   string
		s      Step
		want   float64
		halves int
	}{
		{"once through eight beats at 60, four before", Step{Times: 1, Tempo: 60, Beats: 8, CountOff: 4}, 12, 1},
		{"twice", Step{Times: 2, Tempo: 60, Beats: 8, CountOff: 4}, 12 + between + 12, 2},
		{"with words", Step{Times: 2, Tempo: 60, Beats: 8, CountOff: 4, Talk: 40}, 40 + 24 + between, 3},
		{"twice as fast", Step{Times: 2, Tempo: 120, Beats: 8, CountOff: 4}, 12 + between, 1},
		{"lips rest as long as they played", Step{Times: 2, Tempo: 60, Beats: 8, CountOff: 4, Rests: true}, 48 + between, 2},
		{"out of time", Step{Times: 1, Tempo: 60, Beats: 8, CountOff: 4, Rule: routine.Free}, 8 * freely, 1},
		{"no tempo", Step{Times: 1, Beats: 8}, 8 * freely, 1},
		// Longer values first at 75: six notes as whole notes at 88, as halves at 80, then as written.
		{"longer values first", Step{Times: 1, Tempo: 75, Beats: 8, CountOff: 4, Notes: 6, Rule: routine.LongerFirst},
			(4+24)*60.0/88 + (4+12)*60.0/80 + 12*60.0/75, 2},
		{"three notes, four beats each", Step{Times: 1, Tempo: 60, Beats: 99, CountOff: 4, Warm: true}, 16, 1},
		{"exactly a half minute", Step{Times: 1, Tempo: 60, Beats: 26, CountOff: 4}, 30, 1},
		{"a little over", Step{Times: 1, Tempo: 60, Beats: 27, CountOff: 4}, 31, 2},
	} {
		if got := tt.s.Seconds(); math.Abs(got-tt.want) > 1e-6 || tt.s.Halves() != tt.halves {
			t.Errorf("%s takes %.2f s, %d halves; want %.2f, %d", tt.name, got, tt.s.Halves(), tt.want, tt.halves)
		}
	}
	for halves, want := range map[int]string{1: "½ min", 2: "1 min", 9: "4½ min", 0: "0 min"} {
		if got := Time(halves); got != want {
			t.Errorf("%d half minutes are %q, want %q", halves, got, want)
		}
	}
}

// of is a step of a chunk that takes n half minutes.
func of(chunk breakdown.ChunkKey, halves int) Step {
	return Step{Exercise: 1, Chunk: chunk, Talk: 30 * halves, Times: 0, Tempo: 60}
}

// What does not fit is left in its order, no stage before the one it needs; what closes
// the lesson has its time kept.
func TestFit(t *testing.T) {
	closing := of(breakdown.ChunkKey{First: 9, Last: 9}, 4)
	closing.Closing = true
	for _, tt := range []struct {
		name     string
		minutes  int
		steps    []Step
		in, left []int
		halves   int
	}{
		{"nothing", 10, nil, nil, nil, 0},
		{"all fits", 3, []Step{of(chunkA, 2), of(chunkA, 4)}, []int{0, 1}, nil, 6},
		{"the last does not", 3, []Step{of(chunkA, 2), of(chunkA, 5)}, []int{0}, []int{1}, 2},
		{"a shorter chunk after it does", 3, []Step{of(chunkA, 2), of(chunkA, 5), of(chunkB, 4)}, []int{0, 2}, []int{1}, 6},
		{"but no later stage of the same chunk", 3, []Step{of(chunkA, 2), of(chunkA, 5), of(chunkA, 1)}, []int{0}, []int{1, 2}, 2},
		{"the end is kept", 3, []Step{of(chunkA, 2), of(chunkB, 3), closing}, []int{0, 2}, []int{1}, 6},
		{"an end that is longer than all is left", 1, []Step{of(chunkA, 2), closing}, []int{0}, []int{1}, 2},
	} {
		got := Plan{tt.minutes, tt.steps}.Fit()
		if !slices.Equal(got.In, tt.in) || !slices.Equal(got.Left, tt.left) || got.Halves != tt.halves {
			t.Errorf("%s: in %v, left %v, %d halves; want %v, %v, %d", tt.name, got.In, got.Left, got.Halves, tt.in, tt.left, tt.halves)
		}
	}
}

// Minutes add up, never beyond what there is; every step is in or left, once; no stage of a
// chunk is in while an earlier one is left.
func TestMinutesAddUp(t *testing.T) {
	chance := rand.New(rand.NewPCG(5, 8))
	for range 500 {
		p := Plan{Minutes: 1 + chance.IntN(60)}
		for range chance.IntN(20) {
			s := Step{
				Exercise: int64(1 + chance.IntN(3)), Chunk: []breakdown.ChunkKey{chunkA, chunkB}[chance.IntN(2)], Times: 1 + chance.IntN(4), Tempo: 50 + chance.IntN(60),
				Talk: chance.IntN(90), Beats: float64(4 + chance.IntN(60)), CountOff: 4, Notes: chance.IntN(30), Rests: chance.IntN(3) == 0, Closing: chance.IntN(9) == 0,
				Rule: routine.TempoRules()[chance.IntN(4)],
			}
			p.Steps = append(p.Steps, s)
		}
		f := p.Fit()
		sum := 0
		for _, k := range f.In {
			sum += p.Steps[k].Halves()
			if s := p.Steps[k]; float64(s.Halves())*30 < s.Seconds()-1e-6 || float64(s.Halves()-1)*30 > s.Seconds() && s.Halves() > 1 {
				t.Fatalf("%.1f s take %d half minutes", s.Seconds(), s.Halves())
			}
		}
		if sum != f.Halves || sum > 2*p.Minutes || len(f.In)+len(f.Left) != len(p.Steps) {
			t.Fatalf("%d halves of %d are said to be %d; %d in, %d left of %d", sum, 2*p.Minutes, f.Halves, len(f.In), len(f.Left), len(p.Steps))
		}
		for _, left := range f.Left {
			for _, in := range f.In {
				if in > left && p.Steps[in].same(p.Steps[left]) && !p.Steps[in].Closing && !p.Steps[left].Closing {
					t.Fatalf("step %d is in, and %d before it at the same chunk is left", in, left)
				}
			}
		}
	}
}

// chunk is one with the class at some stages.
func chunk(number int, key breakdown.ChunkKey, states ...routine.State) Chunk {
	return Chunk{Exercise: int64(number), Number: number, Title: "Lamp", Key: key, Label: "A", Steps: routine.Standard(), States: states, Beats: 8, CountOff: 4, Notes: 6, Tempo: 60}
}

func at(stage routine.Stage, n int) []routine.State {
	return slices.Repeat([]routine.State{{Stage: stage, Tries: 2}}, n)
}

func stuck(stage routine.Stage, over routine.Cause, n int) []routine.State {
	s := routine.State{Stage: stage, Tries: 5, Stumbles: 4}
	s.Over[slices.Index(routine.AllCauses(), over)] = 4
	return slices.Repeat([]routine.State{s}, n)
}

// The class goes on together from where half of it is.
func TestWhereTheClassIs(t *testing.T) {
	for _, tt := range []struct {
		states []routine.State
		want   routine.Stage
	}{
		{nil, routine.Count},
		{at(routine.Count, 3), routine.Count},
		{slices.Concat(at(routine.Count, 1), at(routine.Play, 2)), routine.Play},
		{slices.Concat(at(routine.Count, 2), at(routine.Play, 2)), routine.Count},
		{slices.Concat(at(routine.Name, 2), at(routine.Done, 3)), routine.Done},
		{slices.Concat(at("gone", 2), at(routine.Play, 1)), routine.Count},
	} {
		if got := chunk(1, chunkA, tt.states...).Stage(); got != tt.want {
			t.Errorf("of %v the class is at %s, want %s", tt.states, got, tt.want)
		}
	}
}

func TestPropose(t *testing.T) {
	say := func(p Plan) []string {
		var list []string
		for _, s := range p.Steps {
			list = append(list, fmt.Sprintf("%d%s %s", s.Number, map[bool]string{true: "*"}[s.Closing], s.Word))
		}
		return list
	}
	left := []Step{chunk(3, chunkA).Do(routine.Play, 10, "x")}
	known := chunk(2, chunkA, at(routine.Done, 4)...)
	for _, tt := range []struct {
		name        string
		left        []Step
		begun, next []Chunk
		known       *Chunk
		want        []string
	}{
		{"nothing at all", nil, nil, nil, nil, nil},
		{"what is next", nil, nil, []Chunk{chunk(5, chunkA)}, nil, []string{"5 Warm up", "5 Count", "5 Name", "5 Finger", "5 Play"}},
		{"what is begun goes on from where half are, before what is next", nil, []Chunk{chunk(4, chunkA, at(routine.Finger, 3)...)}, []Chunk{chunk(5, chunkA)}, &known,
			[]string{"4 Warm up", "4 Finger", "4 Play", "5 Count", "5 Name", "5 Finger", "5 Play", "2* Play"}},
		{"what half are stuck on comes first, at the stage that mends it", nil,
			[]Chunk{chunk(4, chunkA, at(routine.Finger, 3)...), chunk(6, chunkB, slices.Concat(stuck(routine.Play, routine.WrongName, 2), at(routine.Play, 2))...)}, nil, nil,
			[]string{"6 Warm up", "6 Name", "6 Play", "4 Finger", "4 Play"}},
		{"one of four who is stuck does not hold up the class", nil, []Chunk{chunk(6, chunkB, slices.Concat(stuck(routine.Play, routine.WrongName, 1), at(routine.Play, 3))...)}, nil, nil,
			[]string{"6 Warm up", "6 Play"}},
		{"what was left comes before everything, and once", left, []Chunk{chunk(3, chunkA, at(routine.Play, 2)...)}, nil, nil, []string{"3 Warm up", "3 Play"}},
		{"what is done is not taken again", nil, []Chunk{chunk(4, chunkA, at(routine.Done, 3)...)}, []Chunk{chunk(5, chunkA, at(routine.Done, 3)...)}, nil, nil},
	} {
		got := Propose(30, tt.left, tt.begun, tt.next, tt.known)
		if !slices.Equal(say(got), tt.want) {
			t.Errorf("%s: %q, want %q", tt.name, say(got), tt.want)
		}
	}
	p := Propose(30, nil, []Chunk{chunk(6, chunkB, stuck(routine.Play, routine.WrongName, 2)...)}, nil, nil)
	if p.Steps[1].Why != "2 of 2 are stuck on the note names" {
		t.Errorf("the reason is %q", p.Steps[1].Why)
	}
}

// Lips rest where the class has not played the chunk yet.
func TestStepOfAChunk(t *testing.T) {
	fresh, lips := chunk(1, chunkA), chunk(1, chunkA, at(routine.Play, 3)...)
	fresh.Lips, lips.Lips = true, true
	if !fresh.Do(routine.Play, 0, "").Rests || fresh.Do(routine.Count, 0, "").Rests || lips.Do(routine.Play, 0, "").Rests || chunk(1, chunkA).Do(routine.Play, 0, "").Rests {
		t.Error("lips rest where they need not, or do not where they should")
	}
	if s := fresh.Do(routine.Count, 0, ""); s.Times != 3 || s.Name() != "1 · Lamp, A: Count" {
		t.Errorf("clapped, on air and on one note is %d times: %s", s.Times, s.Name())
	}
	free := fresh
	free.Steps = routine.Routine{{Stage: routine.Name, Word: "Name", Tempo: routine.Free}}
	if s := free.Do(routine.Name, 0, ""); s.Tempo != 0 {
		t.Errorf("out of time is at %d", s.Tempo)
	}
}

// A lesson for a class of sixty, forty chunks begun.
func BenchmarkPropose(b *testing.B) {
	var begun []Chunk
	for n := range 40 {
		begun = append(begun, chunk(n, chunkA, slices.Concat(stuck(routine.Play, routine.Sound, 31), at(routine.Finger, 29))...))
	}
	for b.Loop() {
		if f := Propose(60, nil, begun, nil, nil).Fit(); len(f.In) == 0 {
			b.Fatal("nothing fits an hour")
		}
	}
}

// What was done, by whom not, and with what the next lesson begins.
func TestAfter(t *testing.T) {
	count, name := of(chunkA, 2), of(chunkA, 2)
	count.Form, name.Form = routine.Count, routine.Name
	later, long := of(chunkB, 2), of(breakdown.ChunkKey{First: 5, Last: 6}, 9)
	plan := Plan{Minutes: 3, Steps: []Step{count, name, later, long}}
	mark := func(student int64, form routine.Stage, cause routine.Cause) Mark {
		return Mark{Student: student, Exercise: 1, Chunk: chunkA, Form: form, Clean: cause == routine.None, Cause: cause}
	}
	students, absent := []int64{1, 2, 3, 4}, []int64{4}
	marks := []Mark{
		mark(1, routine.Count, routine.Rhythm), mark(1, routine.Count, routine.None), mark(2, routine.Count, routine.None), // the last try counts
		mark(1, routine.Name, routine.WrongName), mark(2, routine.Name, routine.None),
		{Student: 3, Exercise: 2, Chunk: chunkA, Form: routine.Count, Clean: true}, // of another exercise
	}
	list, next := After(plan, 1, students, absent, marks)
	var said []string
	for _, o := range list {
		said = append(said, fmt.Sprint(o.Reached, o.Marked, o.Clean, len(o.Stumbled), o.Without, o.Absent))
	}
	want := []string{"true true 2 0 [3] [4]", "true true 1 1 [3] [4]", "false false 0 0 [1 2 3] [4]"}
	if !slices.Equal(said, want) {
		t.Errorf("the outcomes are %q, want %q", said, want)
	}
	var begins []string
	for _, s := range next {
		begins = append(begins, fmt.Sprintf("%s %s: %s", s.Chunk, s.Form, s.Why))
	}
	if want := []string{"1-2 name: 1 of 2 stumbled", "3-4 : not reached", "5-6 : did not fit"}; !slices.Equal(begins, want) {
		t.Errorf("the next lesson begins with %q, want %q", begins, want)
	}
	group := count
	group.Group = []int64{2}
	list, _ = After(Plan{Minutes: 3, Steps: []Step{group}}, 0, students, nil, marks)
	if list[0].Clean != 1 || len(list[0].Without) != 0 {
		t.Errorf("of a group the outcome is %+v", list[0])
	}
}

// Steps go in where there is room for them, all or none.
func TestInsert(t *testing.T) {
	p := Plan{Steps: []Step{of(chunkA, 1), of(chunkB, 1)}}
	if !p.Insert(1, of(chunkA, 3)) || p.Steps[1].Talk != 90 || !p.Insert(99, of(chunkA, 4)) || p.Steps[3].Talk != 120 {
		t.Errorf("the steps are %v", p.Steps)
	}
	if p.Insert(0, slices.Repeat([]Step{of(chunkA, 1)}, MostSteps-3)...) || len(p.Steps) != 4 {
		t.Errorf("more than %d steps are in a plan: %d", MostSteps, len(p.Steps))
	}
}
