package lesson

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"unhurriedbench/core/routine"
)

// Shape is how a class's lessons are laid out, as its teacher has it. The zero value is the
// usual.
type Shape struct {
	Minutes map[Phase]int   `json:"minutes,omitempty"` // of a lesson of UsualMinutes, where they are not the usual
	Unit    Unit            `json:"unit,omitempty"`
	Without []routine.Stage `json:"without,omitempty"` // kinds of stages that are left out: "no naming"
	Scale   bool            `json:"scale,omitempty"`   // the warm-up always has five notes up and back
	Note    string          `json:"note,omitempty"`    // the one note for everyone, "Bb"; "" for what suits them

	Technique int64 `json:"technique,omitempty"` // an exercise that the warm-up has too, 0 for none
}

// Valid says whether the shape is one: minutes that fit in a lesson of UsualMinutes, a unit and
// stages that there are, a note of three letters at most.
func (s Shape) Valid() bool {
	sum := 0
	for p, minutes := range s.Minutes {
		if !slices.Contains(Phases(), p) || minutes < 0 || minutes > UsualMinutes {
			return false
		}
		sum += minutes
	}
	_, known := ParseUnit(string(s.Unit))
	return sum <= UsualMinutes && (known || s.Unit == "") && len(s.Note) <= 3 && len(s.Without) <= len(routine.Forms()) &&
		!slices.ContainsFunc(s.Without, func(stage routine.Stage) bool { return !slices.Contains(routine.Forms(), stage) })
}

// UsualMinutes is how long a lesson is that Shape and the usual minutes of the phases are of.
const UsualMinutes = 30

// usual are the minutes of the phases; what is new takes the rest. Source: common practice.
var usual = map[Phase]int{WarmUp: 3, Review: 3, Repair: 6, New: 14, Close: 2}

// MinutesOf are the minutes of a phase in a lesson of UsualMinutes; what is new has the rest.
func (s Shape) MinutesOf(p Phase) int {
	if p == New {
		rest := UsualMinutes
		for _, other := range Phases() {
			if other != New {
				rest -= s.MinutesOf(other)
			}
		}
		return max(rest, 0)
	}
	if n, chosen := s.Minutes[p]; chosen {
		return n
	}
	return usual[p]
}

// UnitOf is the unit of the shape.
func (s Shape) UnitOf() Unit {
	if s.Unit == "" {
		return Usual
	}
	return s.Unit
}

// seconds is what a phase has of a lesson of some minutes.
func (s Shape) seconds(p Phase, minutes int) float64 {
	return float64(s.MinutesOf(p)*60) * float64(minutes) / UsualMinutes
}

// Broken is a place that a class stumbled over: a chunk, the stage that mends it, and in words
// how many stumbled over what, and what helps.
type Broken struct {
	Line  Line
	Chunk Chunk
	Cause routine.Cause
	Why   string
}

// Warmth is what a class begins with.
type Warmth struct {
	Note  string // the long note for everybody in concert pitch, "B flat"; "" where nobody has a pitch
	Notes string // the first notes of the lines to come, "F, G, A"
	Count int    // how many notes these are
}

// Wants is what a lesson is made of.
type Wants struct {
	Minutes int
	Shape   Shape
	Warm    Warmth
	Review  *Line    // that the class can play
	Repair  []Broken // the worst first
	New     []Line   // in the order in which they come

	Technique *Line  // that belongs to the warm-up, nil for none
	Close     *Line  // that the class can play
	Known     []Line // what else the class can play, what was played longest ago first
	Finished  int    // the grade of what the class finished last
	Students  int
	First     bool // the class has not had a lesson: stages are said the first time
	Aloud     bool // counting and naming aloud count as sounding
}

// mostHard is how many hard lines a lesson has at most. Source: common practice.
const mostHard = 2

// Hard says whether a line is hard for a class that has finished one of some grade: it has
// something new, or is two grades above it.
func (l Line) Hard(finished int) bool { return l.New != "" || l.Grade >= finished+2 }

// Suggest lays out a lesson as a teacher would: a warm-up, a line the class can play, what most
// of the room stumbled over last time, the next lines as far as there is time, and at the end a
// line that everybody plays whole. Minutes are filled by music: what is left over is the next
// line, never more repeats. No music is taken twice at a stage.
func Suggest(w Wants) Plan {
	b := suggesting{Wants: w, plan: Plan{Minutes: w.Minutes}}
	b.warmUp()
	if w.Review != nil {
		b.review()
	}
	b.repair()
	b.close()
	b.news()
	b.fill()
	b.plan.Steps = append(b.plan.Steps, b.closing...)
	return b.plan
}

// suggesting is a plan on its way.
type suggesting struct {
	Wants
	plan    Plan
	closing []Step // what ends the lesson
	talked  map[routine.Stage]bool
}

// left is how many half minutes are not taken yet.
func (b *suggesting) left() int {
	n := 2 * b.plan.Minutes
	for _, s := range append(slices.Clone(b.plan.Steps), b.closing...) {
		n -= s.Halves()
	}
	return n
}

// has says whether the plan takes some music at a stage already.
func (b *suggesting) has(s Step) bool {
	for _, t := range append(slices.Clone(b.plan.Steps), b.closing...) {
		if t.Exercise != s.Exercise || t.Warm {
			continue
		}
		for _, p := range t.All() {
			for _, q := range s.All() {
				if p.Chunk == q.Chunk && p.Stage == q.Stage {
					return true
				}
			}
		}
	}
	return false
}

// names is how many exceptions a teacher names in marking a step: one in ten of those there,
// and who stumbled on it last.
func (b *suggesting) names(stumbled int) int { return max((b.Students+9)/10, stumbled) }

// mostWarm is how often the warm-up is played at most.
const mostWarm = 6

// warmUp adds the long note and the first notes of what comes, as often as there is time.
func (b *suggesting) warmUp() {
	about := b.About()
	if about == nil || b.Shape.MinutesOf(WarmUp) == 0 {
		return
	}
	first := about.Chunks[0] // whose music is shown
	s := first.Do(first.Steps.Last(), TalkStage, "")
	s.Warm, s.Phase, s.Rests, s.Rule, s.Tempo, s.Names = true, WarmUp, false, routine.OneTempo, WarmTempo, 0
	s.Stage, s.Form, s.Times = routine.Play, routine.Play, 1
	s.CountOff, s.Notes = 4, 1+b.Warm.Count
	switch {
	case b.Warm.Note == "":
		s.Word, s.Beats = "Even strokes together, then the first measure", 16
	case b.Shape.Scale:
		s.Word, s.Beats = fmt.Sprintf("Long %s together, then five notes up and back", b.Warm.Note), 8+2*9
	case b.Warm.Notes == "":
		s.Word, s.Beats = fmt.Sprintf("Long %s together", b.Warm.Note), 8
	default:
		s.Word, s.Beats = fmt.Sprintf("Long %s together, then %s", b.Warm.Note, b.Warm.Notes), 8+2*float64(b.Warm.Count)
	}
	technique, room := b.technique(), b.Shape.seconds(WarmUp, b.Minutes)
	for _, t := range technique {
		room -= t.Seconds()
	}
	for s.Times < mostWarm {
		more := s
		more.Times++
		if more.Seconds() > room {
			break
		}
		s = more
	}
	b.plan.Steps = append(append(b.plan.Steps, s), technique...)
}

// technique is the class's own exercise, whole, once; nothing where it has none.
func (b *suggesting) technique() []Step {
	if b.Technique == nil {
		return nil
	}
	whole := b.Technique.Whole()
	s := whole.Do(whole.Steps.Last(), TalkKnown, "")
	s.Phase, s.Times, s.Rule = WarmUp, 1, routine.OneTempo
	return []Step{s}
}

// WarmTempo is how fast long notes are counted. Source: common practice.
const WarmTempo = 60

// About is the line that the warm-up prepares, nil where there is none.
func (w Wants) About() *Line {
	switch {
	case len(w.New) > 0:
		return &w.New[0]
	case len(w.Repair) > 0:
		return &w.Repair[0].Line
	case w.Review != nil:
		return w.Review
	}
	return w.Close
}

// played is the whole of a line that the class can play, a number of times.
func (b *suggesting) played(l Line, phase Phase, times int) Step {
	whole := l.Whole()
	s := whole.Do(whole.Steps.Last(), TalkKnown, l.Why)
	s.Phase, s.Times, s.Rests, s.Names = phase, times, false, b.names(0)
	return s
}

// review adds a line that the class can play, twice where there is time.
func (b *suggesting) review() {
	if b.Shape.MinutesOf(Review) == 0 {
		return
	}
	s := b.played(*b.Review, Review, 2)
	if s.Seconds() > b.Shape.seconds(Review, b.Minutes)+30 {
		s.Times = 1
	}
	b.plan.Steps = append(b.plan.Steps, s)
}

// repair adds what most of the room stumbled over: its chunk at the stage that mends it, one
// step slower, then in the line. One place, or as many as there is time for.
func (b *suggesting) repair() {
	room := b.Shape.seconds(Repair, b.Minutes)
	for k, r := range b.Repair {
		whole := r.Line.Whole()
		mend := r.Chunk.Do(r.Chunk.Steps.Mends(r.Cause), TalkRemedy, r.Why)
		if mend.Tempo > 0 {
			mend.Tempo = routine.StepTempo(mend.Tempo, -1)
		}
		mend.Times = max(mend.Times, 3)
		back := whole.Do(whole.Steps.Last(), TalkKnown, "")
		stumbled, _ := r.Chunk.Stuck()
		steps := []Step{mend, back}
		if mend.Chunk == back.Chunk && mend.Stage == back.Stage {
			steps = steps[:1]
		}
		seconds := 0.0
		for n := range steps {
			steps[n].Phase, steps[n].Rests, steps[n].Names = Repair, false, b.names(stumbled)
			seconds += steps[n].Seconds()
		}
		if k > 0 && seconds > room || b.has(mend) || b.has(back) || room == 0 {
			continue
		}
		room -= seconds
		b.plan.Steps = append(b.plan.Steps, steps...)
	}
}

// close saves the time of what ends the lesson.
func (b *suggesting) close() {
	if b.Close == nil || b.Shape.MinutesOf(Close) == 0 {
		return
	}
	s := b.played(*b.Close, Close, 1)
	s.Closing = true
	if !b.has(s) {
		b.closing = []Step{s}
	}
}

// fill plays more of what the class knows with the time that is left, after the line that is
// reviewed.
func (b *suggesting) fill() {
	for _, l := range b.Known {
		at := 0
		for k, s := range b.plan.Steps {
			if s.Phase == WarmUp || s.Phase == Review {
				at = k + 1
			}
		}
		s := b.played(l, Review, 2)
		if s.Halves() > b.left() {
			s.Times = 1
		}
		if s.Halves() > b.left() || b.has(s) || len(b.plan.Steps)+len(b.closing) >= MostStepsOf(b.Minutes) {
			continue
		}
		b.plan.Steps = slices.Insert(b.plan.Steps, at, s)
	}
}

// worth is from how many half minutes on a line is begun that is not finished today.
const worth = 6

// news adds the next lines. A line that does not fit whole is begun where there is time for some
// of it, and no further line comes after it. Where nothing else ends the lesson, the whole of
// its last line does.
func (b *suggesting) news() {
	b.talked = map[routine.Stage]bool{}
	hard := 0
	most := MostStepsOf(b.Minutes) - len(b.closing)
	for _, l := range b.New {
		if l.Hard(b.Finished) {
			if hard == mostHard {
				continue
			}
			hard++
		}
		steps, whole := b.fitting(b.lineSteps(l), most-len(b.plan.Steps))
		b.plan.Steps = append(b.plan.Steps, steps...)
		if !whole {
			break
		}
	}
	if last := len(b.plan.Steps) - 1; len(b.closing) == 0 && last > 0 && b.Shape.MinutesOf(Close) > 0 {
		if s := &b.plan.Steps[last]; s.Phase == New && s.Where == "" && len(s.Parts) == 0 && s.Form == routine.Play {
			s.Phase = Close
		}
	}
}

// fitting are the first of a line's steps that there is time for, at most so many; whole says
// whether they are all.
func (b *suggesting) fitting(steps []Step, most int) (fit []Step, whole bool) {
	left := b.left()
	total := 0
	for _, s := range steps {
		total += s.Halves()
	}
	if total > left && left < worth && len(b.plan.Steps) > 1 || len(steps) == 0 {
		return nil, len(steps) == 0
	}
	for k, s := range steps {
		if s.Halves() > left {
			s = shorter(s, left)
		}
		if s.Halves() > left || k >= most {
			return fit, false
		}
		fit, left = append(fit, s), left-s.Halves()
	}
	return fit, true
}

// shorter is a step with as many of its chunks as there is time for, whole ones from the first.
func shorter(s Step, halves int) Step {
	for len(s.Parts) > 1 && s.Halves() > halves {
		last := s.Parts[len(s.Parts)-1].Chunk
		kept := slices.DeleteFunc(slices.Clone(s.Parts), func(p Part) bool { return p.Chunk == last })
		if len(kept) == 0 {
			return s
		}
		s.Parts = kept
	}
	return s
}

// lineSteps are the steps of a line, with what is said before each.
func (b *suggesting) lineSteps(l Line) []Step {
	steps := b.Shape.UnitOf().Steps(l, b.Shape.Without)
	steps = slices.DeleteFunc(steps, b.has)
	why := l.Why
	for _, more := range []string{newWords(l.New), l.Again} {
		if more != "" {
			why = strings.TrimSpace(why + " " + more)
		}
	}
	for k := range steps {
		s := &steps[k]
		s.Phase, s.Names = New, b.names(0)
		s.Talk = TalkKnown
		if k == 0 {
			if s.Why = why; l.New != "" {
				s.Talk = TalkLine
			}
		}
		for _, p := range s.All() {
			if b.First && !b.talked[p.Stage] {
				b.talked[p.Stage] = true
				s.Talk += TalkStage
			}
		}
		last := k == len(steps)-1
		s.Rests = last && l.Hard(b.Finished) && l.Whole().Lips && s.Form == routine.Play && len(s.Parts) == 0 && s.Times > 1
	}
	return steps
}

// newWords says what is new in a line: "New: a pickup."
func newWords(new string) string {
	if new == "" {
		return ""
	}
	return "New: " + new + "."
}

// MostStepsOf is how many steps a suggested lesson of some minutes has at most: 14 for thirty.
// Source: what a class can follow, common practice.
func MostStepsOf(minutes int) int { return max(4, int(math.Ceil(14*float64(minutes)/UsualMinutes))) }

// Sounding is how many of a plan's seconds sound, of all that it takes, counting and naming
// aloud with them where a class is young.
func (p Plan) Sounding(aloud bool) (sounding, all float64) {
	for _, k := range p.Fit().In {
		sounding += p.Steps[k].Sounding(aloud)
		all += p.Steps[k].Seconds()
	}
	return sounding, all
}
