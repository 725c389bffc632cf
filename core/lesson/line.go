package lesson

import (
	"slices"
	"strings"

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
	Where    string // its measures, "m. 1–2"; "" of the whole
	Steps    routine.Routine
	States   []routine.State // of everybody whose part has it
	Beats    float64
	CountOff float64 // beats
	Notes    int
	Tempo    int  // at which everybody's hardest place works
	Lips     bool // somebody's lips tire on it

	Same breakdown.ChunkKey // the first chunk that is the same written music for everybody, else itself
	Hard bool               // a measure of it is hard within its line
}

// Whole says whether it is the whole line.
func (p Chunk) Whole() bool { return p.Where == "" }

// Line is an exercise as a class has it.
type Line struct {
	Exercise int64
	Number   int
	Title    string
	Chunks   []Chunk // in learning order, the whole last
	Grade    int     // of the whole for the room, from 0 to 9
	New      string  // what is new in it, "a pickup, E flat"; "" for nothing
	Again    string  // "m. 5–6 are m. 1–2 again"; "" where nothing comes again
	Why      string  // it is next, or was chosen
}

// Whole is the chunk that is the whole line.
func (l Line) Whole() Chunk { return l.Chunks[len(l.Chunks)-1] }

// parts are the chunks without the whole, where there are several: each written music once.
func (l Line) parts() []Chunk {
	if len(l.Chunks) == 1 {
		return slices.Clone(l.Chunks)
	}
	var list []Chunk
	for _, p := range l.Chunks[:len(l.Chunks)-1] {
		if p.Same == p.Key {
			list = append(list, p)
		}
	}
	return list
}

// hardShare is which share of a line's measures may be hard spots, and hardAbove by how many
// grades they stand above its middle. Source: common practice; the figures are ours.
const (
	hardShare = 5
	hardAbove = 2
)

// HardWithin says which measures are hard within their line, by their grades from 0 to 9: the
// top fifth at most, well above the middle.
func HardWithin(grades []int) []bool {
	hard := make([]bool, len(grades))
	order := make([]int, len(grades))
	for k := range order {
		order[k] = k
	}
	slices.SortStableFunc(order, func(a, b int) int { return grades[b] - grades[a] })
	for _, k := range order[:(len(order)+hardShare-1)/hardShare] {
		hard[k] = grades[k] >= grades[order[len(order)/2]]+hardAbove
	}
	return hard
}

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

// past says whether half of the class have gone on past a stage of the chunk.
func (p Chunk) past(stage routine.Stage) bool { return p.Steps.Index(p.Stage()) > p.Steps.Index(stage) }

// Stuck is how many are stuck on it, and on what most of them stumbled.
func (p Chunk) Stuck() (students int, cause routine.Cause) {
	var over routine.Causes
	for _, s := range p.States {
		if !s.InTrouble() {
			continue
		}
		students++
		for k := range over {
			over[k] += s.Over[k]
		}
	}
	return students, over.Main()
}

// Tried is how many have tried it.
func (p Chunk) Tried() int {
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
	do := p.do(stage)
	s := Step{
		Exercise: p.Exercise, Number: p.Number, Title: p.Title, Chunk: p.Key, Label: p.Label, Where: p.Where,
		Stage: stage, Word: do.Word, Form: do.Form, Why: why, Times: do.Times, Tempo: p.Tempo,
		Rule: p.Steps.Step(stage).Tempo, Talk: talk, Beats: p.Beats, CountOff: p.CountOff, Notes: p.Notes,
	}
	s.Rests = p.Lips && s.Form == routine.Play && !p.played()
	if s.Rule == routine.Free {
		s.Tempo = 0
	}
	return s
}

// do is a stage of the chunk as a part of a step. The ways of a stage are done at the same
// time by those who have them, so they do not make it longer.
func (p Chunk) do(stage routine.Stage) Part {
	step := p.Steps.Step(stage)
	return Part{Chunk: p.Key, Label: p.Label, Where: p.Where, Stage: stage, Word: step.Word, Form: step.Form(),
		Times: step.Often(), Beats: p.Beats, CountOff: p.CountOff, Notes: p.Notes, Rule: step.Tempo}
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
		list = append(list, p.Do(step.Stage, TalkStage, why))
	}
	return list
}

// join is a step of several stages of several chunks of a line, done one after the other.
func (l Line) join(parts []Part, why string) Step {
	first := parts[0]
	whole := l.Whole()
	s := Step{
		Exercise: l.Exercise, Number: l.Number, Title: l.Title, Chunk: first.Chunk, Label: first.Label,
		Where: first.Where, Stage: first.Stage, Word: first.Word, Form: parts[len(parts)-1].Form, Why: why,
		Times: first.Times, Tempo: whole.Tempo, Beats: first.Beats, CountOff: first.CountOff, Notes: first.Notes,
	}
	if len(parts) > 1 {
		s.Parts = parts
	} else {
		s.Rule = first.Rule
	}
	if s.Rule == routine.Free {
		s.Tempo = 0
	}
	return s
}

// measuresOf says where chunks are in a few words: "m. 1–2, 3–4, joined".
func measuresOf(parts []Part) string {
	var said []string
	last := breakdown.ChunkKey{First: -1}
	for _, p := range parts {
		words := "the line"
		switch {
		case p.Chunk == last:
			continue
		case p.Joined:
			words = "joined"
		case p.Where != "" && len(said) > 0:
			words = strings.TrimPrefix(p.Where, "m. ")
		case p.Where != "":
			words = p.Where
		}
		said, last = append(said, words), p.Chunk
	}
	return strings.Join(said, ", ")
}
