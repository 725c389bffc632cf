package teach

import (
	"time"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/progress"
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
)

// FamilyPage is what a family reads of a student: on one page, in its words, and of nobody
// else.
type FamilyPage struct {
	Student    store.Student
	Instrument instrument.Instrument
	Today      string
	Plays      []StaffRow // the notes that are played, in one chunk or more
	Learning   []string   // the others that were met, by name
	Holds      []string   // changes that failed once, and hold now
	Passed     []recordExercise
	UnderWay   []recordExercise
	MorePassed int
	Next       []HelpCard
	Said       []checkinNote // of the last check-ins, what the teacher said
	CheckIn    *checkinNote  // that is to come, nil for none
	Plan       PracticePlan
	Days       string
}

// What stands on one page.
const (
	familyExercises = 5
	familySaid      = 3
)

// NewFamilyPage says a student's record in a family's words.
func NewFamilyPage(h Record, now time.Time) FamilyPage {
	v := FamilyPage{Student: h.Student, Instrument: h.Instrument, Today: now.Format("2 January 2006"),
		Next: h.Next, Days: h.Depth.Days.Words()}
	var plays []progress.OwnNote
	for _, n := range h.Depth.notes {
		n.Doubt = ""
		if n.Hold == progress.HeldPlayed || n.Hold == progress.HeldOwned {
			plays = append(plays, n)
			continue
		}
		for _, row := range NewStaffRows([]progress.OwnNote{n}, h.Instrument, h.Depth.naming) {
			v.Learning = append(v.Learning, row.Notes[0].Name)
		}
	}
	v.Plays = NewStaffRows(plays, h.Instrument, h.Depth.naming)
	for _, c := range h.Depth.Changes {
		if c.Holds {
			v.Holds = append(v.Holds, c.Names)
		}
	}
	for _, x := range h.Exercises {
		switch {
		case !x.isDone():
			v.UnderWay = append(v.UnderWay, x)
		case len(v.Passed) < familyExercises:
			v.Passed = append(v.Passed, x)
		default:
			v.MorePassed++
		}
	}
	v.UnderWay = v.UnderWay[:min(len(v.UnderWay), familyExercises)]
	for k := range h.Depth.Checkins {
		c := &h.Depth.Checkins[k]
		switch {
		case c.Heard == nil:
			v.CheckIn = c
		case c.Comment != "" && len(v.Said) < familySaid:
			v.Said = append(v.Said, *c)
		}
	}
	return v
}

// InPlainWords says the stage of a card as a family understands it.
func (c HelpCard) InPlainWords() string {
	return map[routine.Stage]string{
		routine.Count: "count it aloud and tap", routine.Name: "name its notes aloud",
		routine.Finger: "finger it silently", routine.Play: "play it",
	}[c.Stage]
}

// isDone says whether every chunk of the exercise is.
func (x recordExercise) isDone() bool { return x.Word == x.Routine.Word(routine.Done) }

// HomeDays are the days of a plan that are still to come and have something to do.
func (v FamilyPage) HomeDays() int {
	n := 0
	for _, d := range v.Plan.Days {
		if !d.Past && len(d.Items) > 0 {
			n++
		}
	}
	return n
}
