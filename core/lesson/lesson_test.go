package lesson

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
)

var chunkA, chunkB = breakdown.ChunkKey{First: 1, Last: 2}, breakdown.ChunkKey{First: 3, Last: 4}

// The time of a step is its words, changing over and marking, its count-offs and beats at the
// tempo, and what lies between.
func TestSeconds(t *testing.T) {
	part := func(form routine.Stage, times int) Part {
		return Part{Form: form, Times: times, Beats: 8, CountOff: 4}
	}
	for _, tt := range []struct {
		name           string
		s              Step
		want, sounding float64
		halves         int
	}{
		{"once through eight beats at 60, four before", Step{Times: 1, Tempo: 60, Beats: 8, CountOff: 4}, 12, 0, 1},
		{"twice", Step{Times: 2, Tempo: 60, Beats: 8, CountOff: 4}, 12 + between + 12, 0, 1},
		{"with words", Step{Times: 2, Tempo: 60, Beats: 8, CountOff: 4, Talk: 40}, 40 + 24 + between, 0, 3},
		{"three exceptions are named", Step{Times: 1, Tempo: 60, Beats: 8, CountOff: 4, Names: 3}, 12 + 9, 0, 1},
		{"twice as fast", Step{Times: 2, Tempo: 120, Beats: 8, CountOff: 4}, 12 + between, 0, 1},
		{"played", Step{Times: 2, Tempo: 60, Beats: 8, CountOff: 4, Form: routine.Play}, 24 + between, 16, 1},
		{"lips rest as long as they played", Step{Times: 2, Tempo: 60, Beats: 8, CountOff: 4, Form: routine.Play, Rests: true}, 24 + 16 + between, 16, 2},
		{"out of time", Step{Times: 1, Tempo: 60, Beats: 8, CountOff: 4, Rule: routine.Free}, 8 * freely, 0, 1},
		{"no tempo", Step{Times: 1, Beats: 8}, 8 * freely, 0, 1},
		// Longer values first at 75: six notes as whole notes at 88, as halves at 80, then as written.
		{"longer values first", Step{Times: 1, Tempo: 75, Beats: 8, CountOff: 4, Notes: 6, Rule: routine.LongerFirst},
			(4+24)*60.0/88 + (4+12)*60.0/80 + 12*60.0/75, 0, 2},
		{"fingered, then played", Step{Tempo: 60, Parts: []Part{part(routine.Finger, 1), part(routine.Play, 2)}}, 3*12 + 2*between, 16, 2},
	} {
		if tt.s.Seconds() > tt.want+1e-6 {
			t.Errorf("%s takes %.2f s at home, want %.2f", tt.name, tt.s.Seconds(), tt.want)
		}
		tt.s.Phase = New
		if got := tt.s.Seconds(); math.Abs(got-tt.want-changeOver) > 1e-6 || tt.s.Halves() != tt.halves || math.Abs(tt.s.Sounding(false)-tt.sounding) > 1e-6 {
			t.Errorf("%s takes %.2f s, %d halves, sounds %.0f s; want %.2f, %d, %.0f", tt.name, got, tt.s.Halves(), tt.s.Sounding(false), tt.want+changeOver, tt.halves, tt.sounding)
		}
	}
	if aloud := (Step{Times: 2, Tempo: 60, Beats: 8, Form: routine.Count}); aloud.Sounding(true) != 16 || aloud.Sounding(false) != 0 {
		t.Error("counting aloud sounds for the young alone")
	}
	for halves, want := range map[int]string{1: "½ min", 2: "1 min", 9: "4½ min", 0: "0 min"} {
		if got := Time(halves); got != want {
			t.Errorf("%d half minutes are %q, want %q", halves, got, want)
		}
	}
}

// of is a step of a chunk of an exercise that takes n half minutes.
func of(exercise int64, chunk breakdown.ChunkKey, halves int) Step {
	return Step{Exercise: exercise, Chunk: chunk, Talk: 30*halves - changeOver, Tempo: 60, Phase: New}
}

// What does not fit is left in its order, no step of a line before the one it needs; what
// closes the lesson has its time kept.
func TestFit(t *testing.T) {
	closing := of(9, chunkA, 4)
	closing.Closing = true
	for _, tt := range []struct {
		name     string
		minutes  int
		steps    []Step
		in, left []int
		halves   int
	}{
		{"nothing", 10, nil, nil, nil, 0},
		{"all fits", 3, []Step{of(1, chunkA, 2), of(1, chunkA, 4)}, []int{0, 1}, nil, 6},
		{"the last does not", 3, []Step{of(1, chunkA, 2), of(1, chunkA, 5)}, []int{0}, []int{1}, 2},
		{"another line after it does", 3, []Step{of(1, chunkA, 2), of(1, chunkA, 5), of(2, chunkB, 4)}, []int{0, 2}, []int{1}, 6},
		{"but no later step of the same line", 3, []Step{of(1, chunkA, 2), of(1, chunkA, 5), of(1, chunkB, 1)}, []int{0}, []int{1, 2}, 2},
		{"the end is kept", 3, []Step{of(1, chunkA, 2), of(1, chunkB, 3), closing}, []int{0, 2}, []int{1}, 6},
		{"an end that is longer than all is left", 1, []Step{of(1, chunkA, 2), closing}, []int{0}, []int{1}, 2},
	} {
		got := Plan{tt.minutes, tt.steps}.Fit()
		if !slices.Equal(got.In, tt.in) || !slices.Equal(got.Left, tt.left) || got.Halves != tt.halves {
			t.Errorf("%s: in %v, left %v, %d halves; want %v, %v, %d", tt.name, got.In, got.Left, got.Halves, tt.in, tt.left, tt.halves)
		}
	}
}

// A step of several chunks is opened out by them, and all of it is said in a line.
func TestScenes(t *testing.T) {
	l := line(4, 5)
	steps := Usual.Steps(l, nil)
	var said []string
	for _, s := range steps {
		said = append(said, s.Does()+" · "+s.At())
	}
	if want := []string{"Count · the line", "Name · the line", "Finger, then play · m. 1–2, 3–4, joined, 5–6, 7–8, joined", "Play · the line"}; !slices.Equal(said, want) {
		t.Errorf("the steps are %q", said)
	}
	var scenes []string
	for _, s := range (Plan{Minutes: 60, Steps: steps}).Scenes() {
		scenes = append(scenes, fmt.Sprint(s.Place, " ", s.Does(), " ", s.At(), " ", s.Of, s.Several, s.LastOfIt))
	}
	want := []string{
		"0 Count the line 1-8 false true", "1 Name the line 1-8 false true", "2 Finger, then play m. 1–2 1-2 true false", "2 Finger, then play m. 3–4 3-4 true false",
		"2 Play m. 1–4 1-4 true false", "2 Finger, then play m. 5–6 5-6 true false", "2 Finger, then play m. 7–8 7-8 true false", "2 Play m. 5–8 5-8 true true", "3 Play the line 1-8 false true",
	}
	if !slices.Equal(scenes, want) {
		t.Errorf("the scenes are\n%s, want\n%s", strings.Join(scenes, "\n"), strings.Join(want, "\n"))
	}
	if p := (Plan{Minutes: 60, Steps: steps}); p.PlaceOf(5) != 2 || p.PlaceOf(99) != 3 || (Plan{}).PlaceOf(3) != 0 {
		t.Error("a scene is not found in its step")
	}
}

// chunk is one with the class at some stages.
func chunk(number int, key breakdown.ChunkKey, states ...routine.State) Chunk {
	return Chunk{Exercise: int64(number), Number: number, Title: "Lamp", Key: key, Label: "A", Where: key.Words(), Same: key, Steps: routine.Standard(), States: states, Beats: 8, CountOff: 4, Notes: 6, Tempo: 60}
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

// line is a line of chunks of two measures, at a grade, with the class at some states.
func line(chunks, grade int, states ...routine.State) Line {
	l := Line{Exercise: int64(10*chunks + grade), Number: chunks, Title: "Lamp", Grade: grade}
	for n := range chunks {
		key := breakdown.ChunkKey{First: 2*n + 1, Last: 2*n + 2}
		p := chunk(chunks, key, states...)
		p.Exercise, p.Label, p.Same, p.Where = l.Exercise, string(rune('A'+n)), key, key.Words()
		l.Chunks = append(l.Chunks, p)
	}
	whole := chunk(chunks, breakdown.ChunkKey{First: 1, Last: 2 * chunks}, states...)
	whole.Exercise, whole.Label, whole.Same, whole.Beats, whole.Notes, whole.Where = l.Exercise, "Whole", whole.Key, float64(8*chunks), 6*chunks, ""
	if chunks == 1 {
		l.Chunks = nil
	}
	l.Chunks = append(l.Chunks, whole)
	return l
}

// Each unit takes a line as it says. A class that stumbles nowhere is marked eight times at most
// for a line of four chunks. Source: common practice.
func TestUnits(t *testing.T) {
	hard := line(4, 5)
	hard.Chunks[2].Hard = true
	again := line(4, 5)
	again.Chunks[2].Same = again.Chunks[0].Key
	halfway := line(4, 5, at(routine.Finger, 3)...)
	easy := line(4, 1)
	for _, tt := range []struct {
		name    string
		unit    Unit
		l       Line
		without []routine.Stage
		want    string
	}{
		{"usual", Usual, line(4, 5), nil, "Count the line|Name the line|Finger, then play m. 1–2, 3–4, joined, 5–6, 7–8, joined|Play the line"},
		{"usual, C is A again", Usual, again, nil, "Count the line|Name the line|Finger, then play m. 1–2, 3–4, joined, 7–8|Play the line"},
		{"usual, counted and named", Usual, halfway, nil, "Finger, then play m. 1–2, 3–4, joined, 5–6, 7–8, joined|Play the line"},
		{"usual, easy", Usual, easy, nil, "Count the line|Name the line|Finger the line|Play the line"},
		{"usual, without naming", Usual, line(2, 5), []routine.Stage{routine.Name}, "Count the line|Finger, then play m. 1–2, 3–4|Play the line"},
		{"the whole line", WholeLine, line(4, 5), nil, "Count the line|Name the line|Finger the line|Play the line"},
		{"chunk by chunk", ChunkByChunk, line(2, 5), nil, "Count, name, finger, then play m. 1–2|Count, name, finger, then play m. 3–4|Play the line"},
		{"hard spots", HardSpots, hard, nil, "Count, name, finger, then play m. 5–6|Play the line"},
		{"hard spots where none is", HardSpots, line(4, 5), nil, "Count the line|Name the line|Finger the line|Play the line"},
		{"done", Usual, line(4, 5, at(routine.Done, 3)...), nil, ""},
		{"of one chunk", ChunkByChunk, line(1, 5), nil, "Count the line|Name the line|Finger the line|Play the line"},
	} {
		var said []string
		for _, s := range tt.unit.Steps(tt.l, tt.without) {
			said = append(said, s.Does()+" "+s.At())
		}
		if got := strings.Join(said, "|"); got != tt.want {
			t.Errorf("%s: %s, want %s", tt.name, got, tt.want)
		}
		if len(said) > 8 {
			t.Errorf("%s: %d marks", tt.name, len(said))
		}
		if does := tt.unit.Said(tt.l, tt.without); len(said) > 0 && !strings.Contains(does, " min. "+said[0]) {
			t.Errorf("%s does %q", tt.name, does)
		}
	}
	for _, u := range Units() {
		if got, ok := ParseUnit(string(u)); !ok || got != u || u.Word() == "" || u.Words() == "" {
			t.Errorf("%q is not a unit in words", u)
		}
	}
}

// The class's own technique is in the warm-up, whole and once, within its minutes.
func TestTechniqueInTheWarmUp(t *testing.T) {
	t.Parallel()
	next, scale := line(2, 3), line(1, 1)
	scale.Exercise, scale.Title = 99, "The scale"
	for k := range scale.Chunks {
		scale.Chunks[k].Exercise, scale.Chunks[k].Title, scale.Chunks[k].Beats, scale.Chunks[k].Tempo = 99, "The scale", 16, 60
	}
	w := Wants{Minutes: 30, Students: 10, New: []Line{next}, Warm: Warmth{"D", "D, E", 2}}
	without := Suggest(w)
	w.Technique = &scale
	with := Suggest(w)
	seconds := func(p Plan) (sum float64, technique int) {
		for _, s := range p.Steps {
			if s.Phase == WarmUp {
				sum += s.Seconds()
				if s.Exercise == 99 {
					technique++
				}
			}
		}
		return sum, technique
	}
	before, none := seconds(without)
	after, once := seconds(with)
	if none != 0 || once != 1 || with.Steps[1].Exercise != 99 {
		t.Errorf("the technique is there %d times", once)
	}
	if most := w.Shape.seconds(WarmUp, 30); after > max(most, before) {
		t.Errorf("the warm-up takes %.0f s of %.0f", after, most)
	}
}

// A lesson as a teacher lays it out, whatever the class: so many steps for its minutes, two hard
// lines at most, no music twice at a stage, and the minutes add up.
func TestSuggestForAnyClass(t *testing.T) {
	chance := rand.New(rand.NewPCG(8, 13))
	for n := range 600 {
		minutes := 15 + 5*chance.IntN(10)
		w := Wants{Minutes: minutes, Students: 1 + chance.IntN(40), First: chance.IntN(4) == 0, Aloud: chance.IntN(2) == 0, Warm: Warmth{"D", "D, E", 2}, Finished: chance.IntN(5)}
		w.Shape.Unit = Units()[chance.IntN(4)]
		number := 0
		some := func(states []routine.State) Line {
			number++
			l := line(1+chance.IntN(5), chance.IntN(9), states...)
			l.Exercise, l.Number = int64(number), number
			for k := range l.Chunks {
				l.Chunks[k].Exercise, l.Chunks[k].Number, l.Chunks[k].Lips = l.Exercise, number, chance.IntN(2) == 0
			}
			if l.New = ""; n%2 == 0 && chance.IntN(3) == 0 {
				l.New = "a note"
			} else if n%2 == 1 {
				l.Grade = min(l.Grade, w.Finished)
			}
			return l
		}
		for range chance.IntN(12) {
			w.New = append(w.New, some(at(routine.Forms()[chance.IntN(4)], w.Students)))
		}
		for range chance.IntN(14) {
			w.Known = append(w.Known, some(at(routine.Done, w.Students)))
		}
		if chance.IntN(2) == 0 {
			review, closing := some(at(routine.Done, w.Students)), some(at(routine.Done, w.Students))
			w.Review, w.Close = &review, &closing
		}
		if chance.IntN(2) == 0 {
			l := some(stuck(routine.Play, routine.AllCauses()[chance.IntN(4)], w.Students))
			_, cause := l.Chunks[0].Stuck()
			w.Repair = []Broken{{Line: l, Chunk: l.Chunks[0], Cause: cause, Why: "all stumbled"}}
		}
		p := Suggest(w)
		fitted := p.Fit()
		sum, phase, hard := 0, 0, map[int64]bool{}
		music := map[string]bool{}
		for _, k := range fitted.In {
			s := p.Steps[k]
			sum += s.Halves()
			at := slices.Index(Phases(), s.Phase)
			if at < phase {
				t.Fatalf("%d: %s comes after %s", n, s.Phase, Phases()[phase])
			}
			phase = at
			if s.Phase == New || s.Phase == Close {
				for _, l := range w.New {
					if l.Exercise == s.Exercise && l.Hard(w.Finished) {
						hard[s.Exercise] = true
					}
				}
			}
			for _, part := range s.All() {
				if key := fmt.Sprint(s.Exercise, part.Chunk, part.Stage); !s.Warm && music[key] {
					t.Fatalf("%d: %s is taken twice", n, key)
				} else {
					music[key] = !s.Warm
				}
			}
		}
		if len(fitted.Left) > 0 || sum != fitted.Halves || sum > 2*minutes {
			t.Fatalf("%d: %d half minutes of %d, %d left out:\n%s", n, sum, 2*minutes, len(fitted.Left), p.Text(w.Aloud))
		}
		if len(fitted.In) > MostStepsOf(minutes) || len(hard) > mostHard {
			t.Fatalf("%d: %d steps, %d hard lines in %d min:\n%s", n, len(fitted.In), len(hard), minutes, p.Text(w.Aloud))
		}
		easy := !slices.ContainsFunc(w.New, func(l Line) bool { return l.Hard(w.Finished) })
		if easy && len(w.New) > 8 && len(fitted.In) < MostStepsOf(minutes) && float64(sum) < 1.7*float64(minutes) {
			t.Fatalf("%d: %d half minutes of %d are used:\n%s", n, sum, 2*minutes, p.Text(w.Aloud))
		}
	}
}

// What most stumbled over is mended slower and put back into the line, with what is said.
func TestRepair(t *testing.T) {
	l := line(4, 3, stuck(routine.Play, routine.WrongName, 6)...)
	w := Wants{Minutes: 30, Students: 6, Warm: Warmth{"D", "", 0}, Repair: []Broken{{Line: l, Chunk: l.Chunks[1], Cause: routine.WrongName, Why: "6 of 6 stumbled over the note names."}}}
	var said []string
	for _, s := range Suggest(w).Steps {
		said = append(said, string(s.Phase)+": "+s.Line())
	}
	want := []string{"warm-up: Long D together · 6 times at 60 · 2 min", "repair: Name · m. 3–4 · 3 times at 58 · 1½ min", "repair: Play · the line · twice at 60 · 2 min"}
	if !slices.Equal(said, want) {
		t.Errorf("the lesson is %q, want %q", said, want)
	}
}

// A teacher's own shape: no review, a scale in the warm-up, no naming.
func TestShape(t *testing.T) {
	known := line(3, 1, at(routine.Done, 4)...)
	s := Shape{Minutes: map[Phase]int{Review: 0, WarmUp: 5}, Without: []routine.Stage{routine.Name}, Scale: true}
	text := Suggest(Wants{Minutes: 30, Shape: s, Students: 4, Warm: Warmth{"D", "", 0}, Review: &known, New: []Line{line(4, 5)}}).Text(true)
	for _, lacks := range []string{"Review", "Name"} {
		if strings.Contains(text, lacks) {
			t.Errorf("there is %s in\n%s", lacks, text)
		}
	}
	if !strings.Contains(text, "then five notes up and back") || s.MinutesOf(New) != 30-5-6-2 {
		t.Errorf("new has %d min in\n%s", s.MinutesOf(New), text)
	}
}

// Lips rest where the class has not played the chunk yet.
func TestStepOfAChunk(t *testing.T) {
	fresh, lips := chunk(1, chunkA), chunk(1, chunkA, at(routine.Play, 3)...)
	fresh.Lips, lips.Lips = true, true
	if !fresh.Do(routine.Play, 0, "").Rests || fresh.Do(routine.Count, 0, "").Rests || lips.Do(routine.Play, 0, "").Rests || chunk(1, chunkA).Do(routine.Play, 0, "").Rests {
		t.Error("lips rest where they need not, or do not where they should")
	}
	if s := fresh.Do(routine.Count, 0, ""); s.Times != 2 || s.Name() != "1 · Lamp, m. 1–2: Count" {
		t.Errorf("clapped, on air or on one note is %d times: %s", s.Times, s.Name())
	}
	free := fresh
	free.Steps = routine.Routine{{Stage: routine.Name, Word: "Name", Tempo: routine.Free}}
	if s := free.Do(routine.Name, 0, ""); s.Tempo != 0 {
		t.Errorf("out of time is at %d", s.Tempo)
	}
}

// A lesson of an hour for a class of sixty.
func BenchmarkSuggest(b *testing.B) {
	w := Wants{Minutes: 60, Students: 60}
	for range 12 {
		w.New = append(w.New, line(5, 4, at(routine.Count, 60)...))
	}
	for b.Loop() {
		if len(Suggest(w).Steps) == 0 {
			b.Fatal("nothing fits an hour")
		}
	}
}

// What was done, by whom not, and with what the next lesson begins.
func TestAfter(t *testing.T) {
	count, name := of(1, chunkA, 2), of(1, chunkA, 2)
	count.Form, name.Form = routine.Count, routine.Name
	later, long := of(1, chunkB, 2), of(2, breakdown.ChunkKey{First: 5, Last: 6}, 9)
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
	p := Plan{Steps: []Step{of(1, chunkA, 1), of(1, chunkB, 1)}}
	if !p.Insert(1, of(1, chunkA, 3)) || p.Steps[1].Talk != 80 || !p.Insert(99, of(1, chunkA, 4)) || p.Steps[3].Talk != 110 {
		t.Errorf("the steps are %v", p.Steps)
	}
	if p.Insert(0, slices.Repeat([]Step{of(1, chunkA, 1)}, MostSteps-3)...) || len(p.Steps) != 4 {
		t.Errorf("more than %d steps are in a plan: %d", MostSteps, len(p.Steps))
	}
}
