package routine

import (
	"fmt"
)

// CleanToGoOn is how many clean tries in a row of a student alone move a chunk on where a
// routine says nothing else, CleanTogether how many of a class, and StumblesToGoBack how
// many stumbles running send it back. Source: common practice.
const (
	CleanToGoOn      = 2
	CleanTogether    = 1
	StumblesToGoBack = 2
)

// Try is one attempt at a chunk.
type Try struct {
	Stage   Stage // the stage that was tried
	Clean   bool
	Cause   Cause // of a stumble
	Measure int   // the number of the one that stumbled, 0 where that was not said
	Moved   bool  // nothing was tried: the teacher put the chunk at the stage, which may be Done

	Class bool // it was marked for a class at once
}

// State is where a student stands on a chunk. The zero value is a fresh start.
type State struct {
	Stage     Stage // "" is the routine's first
	Clean     int   // clean tries in a row at this stage
	Stumble   int   // stumbles in a row at this stage
	Cause     Cause // the most basic of those stumbles, or of the two that sent the chunk back
	Tries     int
	TempoStep int    // notches climbed at this stage
	Slowed    int    // notches gone down since it was last clean
	Slower    bool   // the last step was to take it one step slower
	Faster    bool   // or one step faster
	Fewer     bool   // or to take fewer notes
	Advice    string // what to do next and why, "" before the first try

	Earned StageSet // clean as often in a row as the routine says
	Tried  StageSet
	runs   [MostSteps]uint8 // clean tries in a row at each stage

	// What has gone wrong since the chunk last went on to another stage.
	Stumbles int    // in all
	Over     Causes // of each cause
	Since    int    // which try was the first of them, from 1
}

// TroubleFrom is from how many stumbles on, with nothing gone on between, a chunk counts as one
// in trouble. The figure is ours.
const TroubleFrom = 3

// InTrouble says whether the chunk has gone wrong again and again since it went on last.
func (s State) InTrouble() bool { return s.Stumbles >= TroubleFrom && s.Stage != Done }

// trouble adds what went wrong in a try to what has since the chunk last went on.
func (s State) trouble(t Try) State {
	if t.Clean {
		return s
	}
	if s.Stumbles == 0 {
		s.Since = s.Tries
	}
	s.Stumbles++
	s.Over.Add(t.Cause)
	return s
}

// keeping is a new state with the count of tries and the troubles of this one.
func (s State) keeping(n State) State {
	n.Stumbles, n.Over, n.Since = s.Stumbles, s.Over, s.Since
	return s.remembering(n)
}

// Settled is the state as it is kept: without the runs of clean tries that only those who go
// on through a log need.
func (s State) Settled() State {
	s.runs = [MostSteps]uint8{}
	return s
}

// remembering is a new state with what was tried and earned until this one.
func (s State) remembering(n State) State {
	n.Tries, n.Earned, n.Tried, n.runs = s.Tries, s.Earned, s.Tried, s.runs
	return n
}

// Fold is where a log of tries at one chunk leads, oldest first.
func (r Routine) Fold(log []Try) State {
	s := r.Start()
	for _, t := range log {
		s = r.After(s, t)
	}
	return s
}

// Start is where a chunk begins.
func (r Routine) Start() State { return State{Stage: r.First()} }

// After gives the state after one more try. As many clean in a row as the stage asks for
// go on, on a ladder to the next rung. Two stumbles running go back to the stage where
// their cause is mended, the more basic of the two causes when they differ; a cause that
// is mended at this stage, or later, takes the tempo a notch down instead, and where that
// did not help, fewer notes. A try at a stage that the routine does not have is counted,
// and moves nothing. A move by the teacher holds, whatever came before.
func (r Routine) After(s State, t Try) State {
	if s.Stage == "" {
		s.Stage = r.First()
	}
	if t.Moved {
		return r.moved(s, t.Stage)
	}
	s.Tries++
	if !r.Has(t.Stage) {
		return s
	}
	k := r.Index(t.Stage)
	s.Slower, s.Faster, s.Fewer = false, false, false
	s.Tried = s.Tried.With(k)
	if s.Stage == Done && t.Clean {
		return r.stillDone(s, t)
	}
	if t.Stage != s.Stage { // work at another stage by choice, or at a chunk that was done, counts from there
		if s.Stage == Done && !t.Clean && k == len(r)-1 {
			s.Earned = s.Earned.Without(k)
		}
		s = s.keeping(State{Stage: t.Stage, Clean: min(int(s.runs[k]), r.need(k, t)-1)})
	}
	s = s.trouble(t)
	if t.Clean {
		return r.clean(s, t)
	}
	return r.stumbled(s, t.Cause)
}

// Within gives the state of a chunk after a try at more than it: at joined chunks or the
// whole that it lies in, or at the rhythm it shares. A clean try counts for the chunk, and
// never sends it back; a stumble, which may have been elsewhere, ends its run of clean tries
// and no more.
func (r Routine) Within(s State, t Try) State {
	k := r.Index(t.Stage)
	if s.Stage == "" {
		s.Stage = r.First()
	}
	switch {
	case t.Moved && t.Stage == Done:
		return r.moved(s, Done)
	case t.Moved, k < 0:
		return s
	case !t.Clean:
		s.runs[k] = 0
		if s.Stage == t.Stage {
			s.Clean = 0
		}
		return s
	case t.Stage == s.Stage:
		return r.After(s, t)
	}
	s.Tries++
	s.Tried = s.Tried.With(k)
	if s.Stage == Done {
		return r.stillDone(s, t)
	}
	s.runs[k] = min(s.runs[k]+1, mostRun)
	if int(s.runs[k]) < r.need(k, t)*(r[k].faster()+1) {
		return s
	}
	s.Earned = s.Earned.With(k)
	if k < r.Index(s.Stage) {
		return s
	}
	word := r[k].Word
	s = s.remembering(State{Stage: r.after(s, t.Stage)})
	s.Advice = fmt.Sprintf("%s is clean in the line: on to %s.", word, r.Word(s.Stage))
	if s.Stage == Done {
		s.Advice = word + " is clean in the line: this chunk is done."
	}
	return s
}

// stillDone counts a clean try at a chunk that is done: the stage may be earned by it.
func (r Routine) stillDone(s State, t Try) State {
	k := r.Index(t.Stage)
	s.runs[k] = min(s.runs[k]+1, mostRun)
	if int(s.runs[k]) >= r.need(k, t)*(r[k].faster()+1) {
		s.Earned = s.Earned.With(k)
	}
	s.Advice = "Still clean: this chunk stays done."
	return s
}

// mostRun is the longest run that is counted.
const mostRun = 200

// need is how many clean tries in a row a stage asks for, of one alone or of a class.
func (r Routine) need(k int, t Try) int {
	if t.Class {
		return r[k].ToGoOnTogether()
	}
	return r[k].ToGoOn()
}

// moved is the state once the teacher has put the chunk at a stage.
func (r Routine) moved(s State, to Stage) State {
	if r.Index(to) < 0 {
		return s
	}
	n := State{Stage: to, Tries: s.Tries, Tried: s.Tried, Earned: s.Earned.Before(r.Index(to)),
		Advice: fmt.Sprintf("Put at %s by you: it goes on from there.", r.Word(to))}
	if to == Done { // the teacher's word for the last stage
		n.Earned = n.Earned.With(len(r) - 1)
	}
	return n
}

func (r Routine) clean(s State, t Try) State {
	k, step := r.Index(s.Stage), r.Step(s.Stage)
	s.Clean++
	s.runs[k] = min(s.runs[k]+1, mostRun)
	s.Stumble, s.Cause, s.Slowed = 0, None, 0
	need := r.need(k, t)
	if s.Clean < need {
		s.Advice = fmt.Sprintf("%d of %d clean in a row, then on to %s.", s.Clean, need, r.next(s))
		return s
	}
	held := step.Word + " is clean" + running(need)
	if tempoSteps := step.faster(); s.TempoStep < tempoSteps {
		s.TempoStep++
		s.Clean, s.Faster = 0, true
		s.Advice = fmt.Sprintf("%s: again one step faster, step %d of %d.", held, s.TempoStep, tempoSteps)
		return s
	}
	s.Earned = s.Earned.With(k)
	s = s.remembering(State{Stage: r.after(s, s.Stage)})
	s.Advice = fmt.Sprintf("%s: on to %s.", held, r.Word(s.Stage))
	if s.Stage == Done {
		s.Advice = held + ": this chunk is done."
	}
	return s
}

// running says how often in a row: "", " twice running", " three times running".
func running(n int) string {
	switch n {
	case 1:
		return ""
	case 2:
		return " twice running"
	}
	return fmt.Sprintf(" %d times running", n)
}

// next is what comes after clean tries, in words.
func (r Routine) next(s State) string {
	if s.TempoStep < r.Step(s.Stage).faster() {
		return "one step faster"
	}
	if after := r.after(s, s.Stage); after != Done {
		return r.Word(after)
	}
	return "the next chunk"
}

func (r Routine) stumbled(s State, cause Cause) State {
	k := r.Index(s.Stage)
	s.Clean, s.runs[k] = 0, 0
	s.Stumble++
	if s.Stumble == 1 || r.mends(cause) < r.mends(s.Cause) {
		s.Cause = cause
	}
	if s.Stumble < StumblesToGoBack {
		s.Advice = "One stumble: again, the same way."
		return s
	}
	s.Earned = s.Earned.Without(k)
	if back := r.mends(s.Cause); back < k && !r.Step(s.Stage).Stay {
		for n := range s.runs[back:] { // it and what builds on it are earned again
			s.runs[back+n] = 0
		}
		s.Earned = s.Earned.Before(back)
		return s.keeping(State{
			Stage: r[back].Stage, Cause: s.Cause,
			Advice: fmt.Sprintf("Two stumbles over %s: back to %s.", s.Cause.Words(), r[back].Word),
		})
	}
	again := s.keeping(State{Stage: s.Stage, Cause: s.Cause, TempoStep: max(s.TempoStep-1, 0), Slowed: s.Slowed + 1})
	switch {
	case s.Slowed > 0: // slower did not help
		again.TempoStep, again.Slowed, again.Fewer = s.TempoStep, s.Slowed, true
		again.Advice = "Two stumbles though it was slower: fewer notes. Leave off the end of it, and add a note each time it is clean."
	case s.Cause == Sound && s.Stage == r.Last():
		again.Slower = true
		again.Advice = fmt.Sprintf("Two stumbles in the sound: stay in %s, one step slower, and mend the sound first.",
			r.Word(s.Stage))
	default:
		again.Slower, again.Advice = true, "Two stumbles: the same again, one step slower."
	}
	return again
}

// RulesVersion counts the changes to what a log adds up to. A standing that was added up by
// another version is added up again.
const RulesVersion = 2
