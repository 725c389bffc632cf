// Package simulate holds lessons with invented students, so that what the program proposes can
// be read and counted before a teacher meets it.
package simulate

import (
	"math/rand/v2"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/finger"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
)

// Habit is what a student stumbles over most.
type Habit string

// The habits.
const (
	Steady  Habit = ""
	Rushes  Habit = "rushes"
	Thirds  Habit = "misreads thirds"
	NoBreak Habit = "does not cross the break"
	Late    Habit = "slow fingers"
	Airy    Habit = "airy sound"
)

// Cause is what a habit makes a student stumble over.
func (h Habit) Cause() routine.Cause {
	return map[Habit]routine.Cause{Rushes: routine.Rhythm, Thirds: routine.WrongName, NoBreak: routine.Fingering,
		Late: routine.Fingering, Airy: routine.Sound}[h]
}

// Student is an invented student.
type Student struct {
	First, Initial, Instrument string
	Quick                      int // how often of ten a try is clean
	Habit                      Habit
	Misses                     []int // the lessons they are absent from, from 1
}

// mostTrips is how often of ten a habit trips a student where it is met.
const mostTrips = 8

// trips is whether a student's habit makes them stumble at a stage of a chunk; the more often
// they have met it, the less.
func (s Student) trips(chance *rand.Rand, stage routine.Stage, r breakdown.Report, chunk breakdown.ChunkKey,
	learned int) bool {
	return meets(s.Habit, stage, r, chunk) && chance.IntN(10) < mostTrips-min(learned, 6)
}

// slips is whether a student stumbles at a step by chance, and over what.
func (s Student) slips(chance *rand.Rand, stage routine.Stage) (routine.Cause, bool) {
	if chance.IntN(100) >= 3*(10-s.Quick) {
		return routine.None, false
	}
	over := map[routine.Stage][]routine.Cause{
		routine.Count: {routine.Rhythm}, routine.Name: {routine.Rhythm, routine.WrongName},
		routine.Finger: {routine.WrongName, routine.Fingering}, routine.Play: routine.AllCauses(),
	}[stage]
	if len(over) == 0 {
		over = routine.AllCauses()
	}
	return over[chance.IntN(len(over))], true
}

// meets says whether a habit is met at a stage of a chunk.
func meets(h Habit, stage routine.Stage, r breakdown.Report, chunk breakdown.ChunkKey) bool {
	switch h {
	case Rushes:
		return (stage == routine.Count || stage == routine.Play) && carries(r, chunk, breakdown.Long, breakdown.Skip)
	case Thirds:
		return stage == routine.Name && carries(r, chunk, breakdown.LookAlike)
	case Late:
		return (stage == routine.Finger || stage == routine.Play) && moves(r, chunk)
	case NoBreak:
		return (stage == routine.Finger || stage == routine.Play) && carries(r, chunk, breakdown.HardChange)
	case Airy:
		return stage == routine.Play
	}
	return false
}

// slowAt is from which cost on slow fingers come late: two valves one way and one the other.
const slowAt = 3

// moves says whether a change of a chunk is one that slow fingers do not make in time.
func moves(r breakdown.Report, chunk breakdown.ChunkKey) bool {
	for _, m := range r.Measures {
		if m.Number < chunk.First || m.Number > chunk.Last {
			continue
		}
		for _, e := range m.Events {
			if e.Change != nil && e.Change.Cost >= slowAt {
				return true
			}
		}
	}
	return false
}

// carries says whether a note or rest of a chunk has one of some alerts.
func carries(r breakdown.Report, chunk breakdown.ChunkKey, alerts ...breakdown.Alert) bool {
	for i, m := range r.Measures {
		if m.Number < chunk.First || m.Number > chunk.Last {
			continue
		}
		for j := range m.Events {
			for _, a := range alerts {
				if r.Measures[i].Events[j].Has(a) {
					return true
				}
			}
		}
	}
	return false
}

// reports are the exercises as each instrument has them.
type reports map[string]breakdown.Report

// of is an exercise for an instrument.
func (list reports) of(sc score.Score, title, id string, year int) breakdown.Report {
	key := title + "/" + id
	if r, read := list[key]; read {
		return r
	}
	target, _ := instrument.ByID(id)
	r := breakdown.Read(sc, sc.Parts[0], "", target, nil, breakdown.Options{Finger: finger.Options{Year: year}})
	list[key] = r
	return r
}
