package teach

import (
	"cmp"
	"context"
	"fmt"
	"slices"
	"strings"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/name"
	"unhurriedbench/core/progress"
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
)

// studentDepth is what a student's page has beside the log: the notes they hold, the changes
// that failed, their tries day by day, the check-ins.
type studentDepth struct {
	Staff    []StaffRow
	notes    []progress.OwnNote // of the staff
	naming   name.Options
	Doubts   []noteDoubt
	Changes  []failedChange
	Days     DayPlot
	Checkins []checkinNote // the one to come first
	Untried  []store.Exercise
	Looked   int // exercises that were looked into for notes and changes, those tried last
	More     int // that were not
}

// noteDoubt says why some notes are in question.
type noteDoubt struct {
	Names []string
	Why   string
}

// Words say it: "C and D are in question: 2 · Two Oars, B goes wrong over the sound".
func (d noteDoubt) Words() string {
	last := len(d.Names) - 1
	if last == 0 {
		return d.Names[0] + " is in question: " + d.Why
	}
	return strings.Join(d.Names[:last], ", ") + " and " + d.Names[last] + " are in question: " + d.Why
}

// failedChange is a change that has failed, in words.
type failedChange struct {
	progress.FailedChange
	Names string // "A to B♭"
	Link  string // to its drill
}

// checkinNote is a check-in on the student's page.
type checkinNote struct {
	store.Checkin
	When string
	Asks string
}

// mostCheckins is how many check-ins a student's page lists.
const mostCheckins = 8

// mostLooked bounds how many exercises are looked into for notes and changes.
const mostLooked = 24

// addDepth fills a student's page.
func addDepth(ctx context.Context, desk *Class, v *Record, reads PartReader, exercises []store.Exercise,
	standings store.Standings, own store.OwnOutlines, rules store.Rules, tries map[store.ExerciseID][]LoggedTry) error {
	var all []LoggedTry
	for _, x := range exercises {
		all = append(all, tries[x.ID]...)
		if len(tries[x.ID]) == 0 && x.Unread == "" {
			v.Depth.Untried = append(v.Depth.Untried, x)
		}
	}
	v.Depth.Days = NewDayPlot(all, desk.Now())
	checkins, err := desk.StudentCheckins(ctx, v.Student.ID, mostCheckins)
	if err != nil {
		return err
	}
	for _, c := range checkins {
		note := checkinNote{Checkin: c, When: DayWords(c.On, desk.Now()), Asks: DueWords(c.Due)}
		if c.Heard != nil {
			note.When = Day(*c.Heard, desk.Now())
			v.Depth.Days.Heard[v.Depth.Days.Day(*c.Heard)] = "check-in, " + note.When
		}
		v.Depth.Checkins = append(v.Depth.Checkins, note)
	}
	recent := tried(exercises, tries)
	v.Depth.More = max(0, len(recent)-mostLooked)
	recent = recent[:len(recent)-v.Depth.More]
	v.Depth.Looked = len(recent)
	if v.Instrument.Unpitched() || len(recent) == 0 {
		return nil
	}
	return addNotes(ctx, desk, v, reads, recent, standings, own, rules, tries)
}

// tried lists the exercises that somebody has tried, the one tried last first.
func tried(exercises []store.Exercise, tries map[store.ExerciseID][]LoggedTry) []store.Exercise {
	list := slices.DeleteFunc(slices.Clone(exercises),
		func(x store.Exercise) bool { return len(tries[x.ID]) == 0 || x.Unread != "" })
	slices.SortStableFunc(list, func(a, b store.Exercise) int { return cmp.Compare(tries[b.ID][0].ID, tries[a.ID][0].ID) })
	return list
}

// addNotes reads the student's parts of what they have tried for the notes and the changes in
// them.
func addNotes(ctx context.Context, desk *Class, v *Record, reads PartReader, recent []store.Exercise,
	standings store.Standings, own store.OwnOutlines, rules store.Rules, tries map[store.ExerciseID][]LoggedTry) error {
	var chunks []progress.Worked
	var failed []progress.Failed
	for _, x := range recent {
		steps, outline, standing := rules.For(v.Student.ID, x.ID), own.Of(x, v.Student.Instrument),
			standings[store.Task{Student: v.Student.ID, Exercise: x.ID}]
		if standing == nil {
			continue
		}
		report, err := notesOf(ctx, desk, reads, x)
		if err != nil {
			return err
		}
		if report == nil {
			continue
		}
		for _, key := range outline.Chunks {
			state, tried := standing.Chunks[key]
			if !tried || state.Tries == 0 {
				continue
			}
			where := fmt.Sprintf("%d · %s, %s", x.Number, x.Title, outline.Label(key))
			chunks = append(chunks, progress.Worked{Name: where, Pitches: report.PitchesIn(key), Steps: steps, State: state})
			if from, to, change, ok := report.HardestChange(key); ok {
				stumbles, holds := progress.FailedAt(triesAt(tries[x.ID], key), state)
				failed = append(failed, progress.Failed{From: from, To: to, Why: change.Why, Exercise: int64(x.ID),
					Where: where, Stumbles: stumbles, Holds: holds})
			}
		}
	}
	naming := reads.Settings.Preferences.Options(reads.Class).Name
	v.Depth.notes, v.Depth.naming = progress.Notes(chunks), naming
	v.Depth.Staff = NewStaffRows(v.Depth.notes, reads.Instrument, naming)
	for _, row := range v.Depth.Staff {
		for _, n := range row.Notes {
			if n.Doubt == "" {
				continue
			}
			k := slices.IndexFunc(v.Depth.Doubts, func(d noteDoubt) bool { return d.Why == n.Doubt })
			if k < 0 {
				k = len(v.Depth.Doubts)
				v.Depth.Doubts = append(v.Depth.Doubts, noteDoubt{Why: n.Doubt})
			}
			v.Depth.Doubts[k].Names = append(v.Depth.Doubts[k].Names, n.Name)
		}
	}
	for _, f := range progress.Changes(failed) {
		v.Depth.Changes = append(v.Depth.Changes, failedChange{
			f, ShortPitch(f.From) + " to " + ShortPitch(f.To),
			fmt.Sprintf("/bench/%d?student=%d&line=%s&stage=finger", f.Exercise, v.Student.ID, DrillVersion),
		})
	}
	return nil
}

// triesAt are the tries at a chunk, oldest first, without those taken back.
func triesAt(tries []LoggedTry, key breakdown.ChunkKey) []routine.Try {
	var list []routine.Try
	for _, t := range slices.Backward(tries) {
		if t.Chunk == key && !t.Undone {
			list = append(list, t.Try)
		}
	}
	return list
}
