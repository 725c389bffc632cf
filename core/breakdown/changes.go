package breakdown

import (
	"fmt"

	"unhurriedbench/core/finger"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// addChanges gives every struck note what it takes to get there from the one
// before, marks the hard ones at their first and their quickest place, and where a
// rest stands between asks the hand to move in the rest.
func (r *Report) addChanges(target instrument.Instrument, year int) {
	var before, beforeThat finger.Played
	var stopped finger.Played // on strings, where the hand was last
	rested := false
	r.changes = make([]madeChange, 0, r.Part.Events())
	for i, m := range r.Part.Measures {
		for j, e := range m.Events {
			x := &r.Measures[i].Events[j]
			switch {
			case e.Kind == score.Rest:
				rested = true
				continue
			case e.Tied || x.Fingering == "":
				continue
			}
			now := x.Played.On(e.Pitch)
			if before.Text != "" {
				change := finger.ChangeBetween(target, before, now, year)
				if !rested {
					change = finger.AcrossANote(target, beforeThat, before, now, change, year)
				}
				change = finger.AcrossOpen(target, stopped, before, now, change)
				r.changes = append(r.changes, madeChange{before, now, change, score.Place{Measure: i, Event: j}, rested})
				x.Change = &r.changes[len(r.changes)-1].change
				if rested && change.Cost >= prepareFrom {
					x.mark(Prepare, "Move the hand during the rest, not at its end.")
				}
			}
			if now.Stopped(target) {
				stopped = now
			}
			beforeThat, before = before, now
			if rested {
				beforeThat = finger.Played{}
			}
			rested = false
		}
	}
	r.markHard()
}

// prepareFrom is from which cost on a change after a rest is worth a mark; the
// figure is ours.
const prepareFrom = 2

// madeChange is a change between two neighbouring notes of the part.
type madeChange struct {
	from, to finger.Played
	change   finger.Change
	at       score.Place // of the second note
	rested   bool        // a rest stands between
}

// either is a change and its way back.
type either [2]finger.Played

func (c madeChange) either() either {
	if c.to.Pitch.MIDI() < c.from.Pitch.MIDI() || c.to.Pitch == c.from.Pitch && c.to.Text < c.from.Text {
		return either{c.to, c.from}
	}
	return either{c.from, c.to}
}

// markHard marks each hard change, there and back being one, at its first place in
// the exercise and, where the note before it is shorter later on, at its quickest.
func (r *Report) markHard() {
	quickest := map[either]score.Fraction{}
	length := func(c madeChange) score.Fraction {
		event := r.Part.At(c.at)
		return event.Length
	}
	for _, c := range r.changes {
		if known, met := quickest[c.either()]; c.change.Hard && (!met || length(c).Less(known)) {
			quickest[c.either()] = length(c)
		}
	}
	marked := map[either]bool{}
	for _, c := range r.changes {
		if !c.change.Hard {
			continue
		}
		pair := c.either()
		x := &r.Measures[c.at.Measure].Events[c.at.Event]
		if shortest, waits := quickest[pair]; !marked[pair] || waits && length(c) == shortest {
			x.mark(HardChange, fmt.Sprintf("A hard change: %s.", c.change.Why))
			if length(c) == shortest {
				delete(quickest, pair)
			}
		}
		marked[pair] = true
	}
}

// mark adds an alert with its reason.
func (e *Event) mark(a Alert, why string) {
	e.Alerts = append(e.Alerts, a)
	e.tell(why)
}

// tell adds a reason that is there on request, without an alert.
func (e *Event) tell(why string) {
	if e.Why != "" {
		e.Why += " "
	}
	e.Why += why
}
