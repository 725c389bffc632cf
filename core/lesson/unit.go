package lesson

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"unhurriedbench/core/routine"
)

// Unit is how much of a line a class takes at a time. Teachers disagree, so it is a setting.
type Unit string

// The units. Source: common practice, of which the first is the most common.
const (
	Usual        Unit = "usual"
	WholeLine    Unit = "line"
	ChunkByChunk Unit = "chunk"
	HardSpots    Unit = "hard"
)

// Units lists them.
func Units() []Unit { return []Unit{Usual, WholeLine, ChunkByChunk, HardSpots} }

// ParseUnit reads a unit's text; ok is false for anything else.
func ParseUnit(text string) (Unit, bool) {
	u := Unit(text)
	return u, slices.Contains(Units(), u)
}

// Word names a unit.
func (u Unit) Word() string {
	return map[Unit]string{
		Usual: "Usual", WholeLine: "Whole line", ChunkByChunk: "Chunk by chunk", HardSpots: "Hard spots",
	}[u]
}

// Words say what a unit does.
func (u Unit) Words() string {
	return map[Unit]string{
		Usual:        "Count and name the whole line, then finger and play it chunk by chunk, then the line.",
		WholeLine:    "Every stage with the whole line. Chunks only where it breaks.",
		ChunkByChunk: "Each chunk through all its stages, then the next, then the line.",
		HardSpots:    "Only the hard measures, then the whole line.",
	}[u]
}

// Steps are the steps that a line takes by a unit from where the class stands, without the
// stages of the kinds that are left out. The first says what the line is about.
func (u Unit) Steps(l Line, without []routine.Stage) []Step {
	b := builder{line: l, routine: stagesWithout(l.Whole().Steps, without)}
	if len(b.routine) == 0 {
		return nil
	}
	parts := l.parts()
	slices.SortStableFunc(parts, func(a, b Chunk) int { // as the music goes
		return cmp.Or(cmp.Compare(a.Key.First, b.Key.First), cmp.Compare(a.Key.Last, b.Key.Last))
	})
	switch aloud := b.aloud(); {
	case len(l.Chunks) == 1, u == WholeLine, u == Usual && b.easy():
		b.whole(b.routine[:len(b.routine)-1])
	case u == ChunkByChunk:
		for _, p := range parts {
			b.chunks(b.routine, p)
		}
	case u == HardSpots:
		hard := slices.DeleteFunc(slices.Clone(parts), func(p Chunk) bool { return !p.Hard })
		if len(hard) == 0 {
			b.whole(b.routine[:len(b.routine)-1])
		}
		for _, p := range hard {
			b.chunks(b.routine, p)
		}
	default:
		b.whole(b.routine[:aloud])
		b.chunks(b.routine[aloud:], parts...)
	}
	b.whole(b.routine[len(b.routine)-1:])
	return b.steps
}

// builder makes the steps of a line.
type builder struct {
	line    Line
	routine routine.Routine
	steps   []Step
}

// stagesWithout are the stages of a routine but for some kinds; the last one stays.
func stagesWithout(r routine.Routine, kinds []routine.Stage) routine.Routine {
	last := r.Last()
	return slices.DeleteFunc(slices.Clone(r), func(s routine.Step) bool {
		return s.Stage != last && slices.Contains(kinds, s.Form())
	})
}

// aloud is how many stages come up to the last one at which the line is counted or named:
// they are done with the whole line.
func (b builder) aloud() int {
	n := 0
	for k, s := range b.routine {
		if f := s.Form(); (f == routine.Count || f == routine.Name) && k < len(b.routine)-1 {
			n = k + 1
		}
	}
	return n
}

// easy says whether the line is so easy for the room that its chunks are joined.
func (b builder) easy() bool { return b.line.New == "" && b.line.Grade <= easyGrade }

// easyGrade is up to which grade a line without anything new is taken whole; the figure is ours.
const easyGrade = 2

// whole adds stages of the whole line, a step each.
func (b *builder) whole(stages routine.Routine) {
	whole := b.line.Whole()
	for _, s := range stages {
		if !whole.past(s.Stage) {
			b.steps = append(b.steps, b.line.join([]Part{whole.do(s.Stage)}, ""))
		}
	}
}

// chunks adds a step of stages of chunks, each chunk through all of them.
func (b *builder) chunks(stages routine.Routine, chunks ...Chunk) {
	var parts []Part
	for k, p := range chunks {
		done := len(parts)
		for _, s := range stages {
			if !p.past(s.Stage) {
				parts = append(parts, p.do(s.Stage))
			}
		}
		if k%2 == 1 && len(chunks) > 2 && done > 0 && len(parts) > done {
			if joined, follows := b.joined(chunks[k-1], p); follows {
				parts = append(parts, joined)
			}
		}
	}
	if len(parts) > 0 {
		b.steps = append(b.steps, b.line.join(parts, ""))
	}
}

// joined is two chunks, of which one follows the other, done together at the last stage, once.
func (b *builder) joined(first, second Chunk) (part Part, follows bool) {
	if second.Key.First != first.Key.Last+1 {
		return part, false
	}
	part = second.do(b.routine.Last())
	part.Chunk.First, part.Label = first.Key.First, first.Label+second.Label
	part.Where = "m. " + strings.TrimPrefix(part.Chunk.Words(), "m. ")
	part.Joined = true
	part.Times, part.Beats, part.Notes, part.CountOff = 1, first.Beats+second.Beats, first.Notes+second.Notes, first.CountOff
	return part, true
}

// Said is what a unit does to a line: "4 steps, 9 min: Count · whole line; …".
func (u Unit) Said(l Line, without []routine.Stage) string {
	steps, halves := u.Steps(l, without), 0
	text := ""
	for k, s := range steps {
		halves += s.Halves()
		if k > 0 {
			text += "; "
		}
		text += s.Does() + " " + s.At()
	}
	if text == "" {
		return "Nothing is left to do of it."
	}
	return fmt.Sprintf("%s. %s.", Time(halves), text)
}
