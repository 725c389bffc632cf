package progress

import (
	"cmp"
	"fmt"
	"slices"

	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
)

// Worked is a chunk that a student has tried, with the written pitches in it.
type Worked struct {
	Name    string // "6 · Ferry Landing, B"
	Pitches []score.Pitch
	Steps   routine.Routine
	State   routine.State
}

// Hold is how far a note is held.
type Hold string

// The holds, the least first.
const (
	HeldMet      Hold = "introduced" // it stands in something that was tried
	HeldNamed    Hold = "named"      // a chunk with it is past Name
	HeldFingered Hold = "fingered"   // past Finger
	HeldPlayed   Hold = "played"     // past Play, in one chunk
	HeldOwned    Hold = "secure"     // past Play, in two chunks or more
)

// Holds lists them, the least first.
func Holds() []Hold { return []Hold{HeldMet, HeldNamed, HeldFingered, HeldPlayed, HeldOwned} }

// ownedIn is in how many chunks a note is played before it is owned: once may be luck, or the
// finger that lay there already. The figure is ours.
const ownedIn = 2

// OwnNote is a written note that a student has met.
type OwnNote struct {
	Pitch score.Pitch
	Hold  Hold
	In    int    // chunks that it is held in so far
	Doubt string // why it is in question, "" where it is not
}

// rank is the place of a hold, from 0.
func (h Hold) rank() int { return slices.Index(Holds(), h) }

// Notes says how far every note is held that stands in what a student has worked on, the
// lowest first. A note is held as far as in the chunk where it is furthest. Where a chunk
// goes wrong over names, fingerings or sound, those of its notes that are held least are in
// question.
func Notes(chunks []Worked) []OwnNote {
	best := map[score.Pitch]*OwnNote{}
	for _, w := range chunks {
		hold := w.hold()
		for _, p := range w.Pitches {
			n := best[p]
			if n == nil {
				n = &OwnNote{Pitch: p, Hold: HeldMet}
				best[p] = n
			}
			switch {
			case hold.rank() > n.Hold.rank():
				n.Hold, n.In = hold, 1
			case hold == n.Hold:
				n.In++
			}
		}
	}
	for _, n := range best {
		if n.Hold == HeldPlayed && n.In >= ownedIn {
			n.Hold = HeldOwned
		}
	}
	for _, w := range chunks {
		why := w.trouble()
		if why == "" {
			continue
		}
		least := HeldOwned
		for _, p := range w.Pitches {
			if h := best[p].Hold; h.rank() < least.rank() {
				least = h
			}
		}
		for _, p := range w.Pitches {
			if n := best[p]; n.Hold == least && least != HeldOwned && n.Doubt == "" {
				n.Doubt = why
			}
		}
	}
	list := make([]OwnNote, 0, len(best))
	for _, n := range best {
		list = append(list, *n)
	}
	slices.SortFunc(list, func(a, b OwnNote) int {
		return cmp.Or(a.Pitch.Diatonic()-b.Pitch.Diatonic(), a.Pitch.Alter-b.Pitch.Alter)
	})
	return list
}

// hold is how far the notes of a chunk are held by it: past which kinds of stages it is.
func (w Worked) hold() Hold {
	held := HeldMet
	for k, step := range w.Steps {
		if k >= w.Steps.Index(w.State.Stage) && w.State.Stage != routine.Done {
			break
		}
		by := map[routine.Stage]Hold{routine.Name: HeldNamed, routine.Finger: HeldFingered,
			routine.Play: HeldPlayed}[step.Form()]
		if by.rank() > held.rank() {
			held = by
		}
	}
	return held
}

// trouble says what is wrong now in a chunk that its notes may be to blame for.
func (w Worked) trouble() string {
	cause := w.State.Cause
	if w.State.InTrouble() {
		cause = w.State.Over.Main()
	}
	if w.State.Stage == routine.Done || w.State.Stumble == 0 && !w.State.InTrouble() || cause == routine.Rhythm ||
		cause == routine.None {
		return ""
	}
	return fmt.Sprintf("%s goes wrong over %s", w.Name, cause.Words())
}
