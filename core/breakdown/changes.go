package breakdown

import (
	"fmt"

	"unhurriedbench/core/finger"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// addChanges gives every struck note what it takes to get there from the one
// before, marks the hard ones, and where a rest stands between asks the hand to
// move in the rest.
func (r *Report) addChanges(target instrument.Instrument) {
	var before finger.Played
	rested := false
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
			now := finger.Played{Pitch: e.Pitch, Text: x.Fingering}
			if before.Text != "" {
				change := finger.ChangeBetween(target, before, now)
				x.Change = &change
				x.markChange(change, rested && before.Text != now.Text)
				if !rested {
					r.changes = append(r.changes, madeChange{before, now, change, m.Number})
				}
			}
			before, rested = now, false
		}
	}
}

// madeChange is a change between two neighbouring notes of the part.
type madeChange struct {
	from, to finger.Played
	change   finger.Change
	measure  int
}

func (e *Event) markChange(c finger.Change, afterRest bool) {
	if c.Hard {
		e.mark(HardChange, fmt.Sprintf("A hard change: %s.", c.Why))
	}
	if afterRest {
		e.mark(Prepare, "Move the hand during the rest, not at its end.")
	}
}

// mark adds an alert with its reason.
func (e *Event) mark(a Alert, why string) {
	e.Alerts = append(e.Alerts, a)
	if e.Why != "" {
		e.Why += " "
	}
	e.Why += why
}
