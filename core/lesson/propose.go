package lesson

import (
	"fmt"
	"slices"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
)

// Chunk is a chunk of an exercise with where the class stands on it.
type Chunk struct {
	Exercise int64
	Number   int
	Title    string
	Key      breakdown.ChunkKey
	Label    string // "A", "Whole"
	Steps    routine.Routine
	States   []routine.State // of everybody whose part has it
	Beats    float64
	CountOff float64 // beats
	Notes    int
	Tempo    int  // at which everybody's hardest place works
	Lips     bool // somebody's lips tire on it
}

// TalkOn is how many seconds of words a next stage of the same chunk takes. The figure is
// ours; a teacher changes it.
const TalkOn = 20

const (
	talkFirst = 40 // what the chunk is, and how the stage goes
	talkKnown = 15 // what the class knows
)

// Stage is where at least half of the class are, or beyond: from there the class goes on
// together. Done is where half of them have done it.
func (p Chunk) Stage() routine.Stage {
	if len(p.States) == 0 {
		return p.Steps.First()
	}
	var at []int
	for _, s := range p.States {
		at = append(at, max(p.Steps.Index(s.Stage), 0))
	}
	slices.Sort(at)
	middle := at[(len(at)-1)/2]
	if middle >= len(p.Steps) {
		return routine.Done
	}
	return p.Steps[middle].Stage
}

// Stuck is how many are stuck on it, and on what most of them stumbled.
func (p Chunk) Stuck() (students int, cause routine.Cause) {
	var over routine.Causes
	for _, s := range p.States {
		if !s.Stuck() {
			continue
		}
		students++
		for k := range over {
			over[k] += s.Over[k]
		}
	}
	return students, over.Main()
}

// tried is how many have tried it.
func (p Chunk) tried() int {
	n := 0
	for _, s := range p.States {
		if s.Tries > 0 {
			n++
		}
	}
	return n
}

// Do is a step at a stage of the chunk.
func (p Chunk) Do(stage routine.Stage, talk int, why string) Step {
	step := p.Steps.Step(stage)
	s := Step{
		Exercise: p.Exercise, Number: p.Number, Title: p.Title, Chunk: p.Key, Label: p.Label, Stage: stage,
		Word: step.Word, Form: step.Form(), Why: why,
		Times: max(step.Often(), len(step.Ways)), Tempo: p.Tempo, Rule: step.Tempo, Talk: talk, Beats: p.Beats,
		CountOff: p.CountOff, Notes: p.Notes,
	}
	s.Rests = p.Lips && s.Form == routine.Play && !p.played()
	if s.Rule == routine.Free {
		s.Tempo = 0
	}
	return s
}

// played says whether half of the class have played it already, so that it is new no more.
func (p Chunk) played() bool {
	past := 0
	for _, s := range p.States {
		if p.Steps.Index(s.Stage) >= len(p.Steps)-1 {
			past++
		}
	}
	return 2*past >= len(p.States) && past > 0
}

// From are the steps from a stage to the end of the chunk's routine.
func (p Chunk) From(stage routine.Stage, why string) []Step {
	var list []Step
	for k, step := range p.Steps {
		if k < p.Steps.Index(stage) {
			continue
		}
		talk := TalkOn
		if len(list) == 0 {
			talk = talkFirst
		}
		list = append(list, p.Do(step.Stage, talk, why))
	}
	return list
}

// beyond is how many half minutes more than there are a proposal goes on for, so that a
// teacher has something to choose from. The figure is ours.
const beyond = 8

// Propose lays out a lesson: a warm-up; what the last lesson left; what at least half of
// those who tried it are stuck on, at the stage that mends it; what is begun and not done,
// in the order given; what comes next; and at the end, where there is time, something that
// the class can play. Chunks are in the order in which they are learned.
func Propose(minutes int, left []Step, begun, next []Chunk, known *Chunk) Plan {
	plan, halves := Plan{Minutes: minutes}, 0
	has := func(s Step) bool {
		return slices.ContainsFunc(plan.Steps, func(t Step) bool { return t.same(s) && t.Stage == s.Stage && !t.Warm })
	}
	add := func(list ...Step) {
		for _, s := range list {
			if !has(s) && halves < 2*minutes+beyond {
				plan.Steps = append(plan.Steps, s)
				halves += s.Halves()
			}
		}
	}
	for _, s := range left {
		s.Why = "left from the last lesson"
		if !s.Closing && !s.Warm {
			add(s)
		}
	}
	for _, p := range begun {
		stuck, cause := p.Stuck()
		if stuck == 0 || 2*stuck < p.tried() {
			continue
		}
		why := fmt.Sprintf("%d of %d are stuck on %s", stuck, p.tried(), cause.Words())
		mend := p.Steps.Mends(cause)
		at := p.Stage()
		add(p.Do(mend, talkFirst, why))
		if at != mend && at != routine.Done {
			add(p.Do(at, TalkOn, why))
		}
	}
	for _, p := range begun {
		if at := p.Stage(); at != routine.Done {
			why := fmt.Sprintf("begun: half are at %s", p.Steps.Word(at))
			add(p.From(at, why)...)
		}
	}
	for _, p := range next {
		if at := p.Stage(); at != routine.Done {
			add(p.From(at, "next")...)
		}
	}
	plan.open()
	if known != nil {
		s := known.Do(known.Steps.Last(), talkKnown, "to end with what you can play")
		s.Times, s.Closing, s.Rests = 1, true, false
		plan.Steps = append(plan.Steps, s)
	}
	return plan
}

// open begins the plan with its first three notes.
func (p *Plan) open() {
	if len(p.Steps) == 0 {
		return
	}
	s := p.Steps[0]
	s.Warm, s.Times, s.Talk, s.Why, s.Rests, s.Rule = true, 1, TalkOn, "everybody hears and feels where it begins",
		false, routine.OneTempo
	s.Stage, s.Word, s.Form = routine.Play, "Warm up", routine.Play
	p.Steps = slices.Insert(p.Steps, 0, s)
}
