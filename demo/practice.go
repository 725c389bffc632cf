package demo

import (
	"math/rand/v2"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/finger"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
)

// practice is an invented student's term.
type practice struct {
	who    student
	target instrument.Instrument
	year   int
	scores []Exercise
	chance *rand.Rand
}

// startsAt is the tempo that everybody begins at.
const startsAt = 60

// term logs some weeks of tries: a number of them that grows with the student's quickness,
// chunk by chunk, with stumbles where the student's habit makes them.
func (p practice) term(steps routine.Routine, id store.StudentID, exercises []store.Exercise) []store.Attempt {
	var log []store.Attempt
	left := 35*p.who.quick + p.chance.IntN(60)
	for _, x := range exercises {
		report := p.report(x)
		for _, chunk := range x.Outline.Chunks {
			state, tempo := steps.Start(), startsAt
			for tries := 0; state.Stage != routine.Done && tries < 16; tries++ {
				if left == 0 {
					spreadOverWeeks(log)
					return log
				}
				left--
				try := p.try(steps, state, report, chunk)
				log = append(log, store.Attempt{StudentID: id, ExerciseID: x.ID, Chunk: chunk, Try: try, Tempo: tempo})
				state = steps.After(state, try)
				tempo = max(state.NextTempo(tempo), startsAt-12)
				if try.Clean && try.Stage == routine.Play {
					tempo = min(routine.StepTempo(tempo, 1), startsAt+24)
				}
			}
		}
	}
	spreadOverWeeks(log)
	return log
}

// report reads the exercise for a student with a habit; for others nothing need be known.
func (p practice) report(x store.Exercise) *breakdown.Report {
	if p.who.habit == steady {
		return nil
	}
	for _, known := range p.scores {
		if known.Number == x.Number {
			r := breakdown.Read(known.Score, known.Score.Parts[0], "", p.target, nil,
				breakdown.Options{Finger: finger.Options{Year: p.year}})
			return &r
		}
	}
	return nil
}

// try is one try at a chunk: by chance, and where the habit is met it stumbles seven times
// of ten, with the cause it has.
func (p practice) try(steps routine.Routine, state routine.State, report *breakdown.Report,
	chunk breakdown.ChunkKey) routine.Try {
	try := routine.Try{Stage: state.Stage, Clean: p.chance.IntN(20) < 10+p.who.quick}
	if cause := p.trips(state.Stage, report, chunk); cause != routine.None && p.chance.IntN(10) < 7 {
		return routine.Try{Stage: state.Stage, Cause: cause}
	}
	if !try.Clean {
		try.Cause = routine.AllCauses()[p.chance.IntN(steps.Index(state.Stage)+1)]
	}
	return try
}

// trips is the cause that a habit has at a stage of a chunk, none where it is not met.
func (p practice) trips(stage routine.Stage, report *breakdown.Report, chunk breakdown.ChunkKey) routine.Cause {
	if report == nil {
		return routine.None
	}
	switch {
	case p.who.habit == rushes && (stage == routine.Count || stage == routine.Play) &&
		carries(report, chunk, breakdown.Long, breakdown.Skip):
		return routine.Rhythm
	case p.who.habit == thirds && stage == routine.Name && carries(report, chunk, breakdown.LookAlike):
		return routine.WrongName
	case (p.who.habit == late || p.who.habit == noBreak) && (stage == routine.Finger || stage == routine.Play) &&
		carries(report, chunk, breakdown.HardChange):
		return routine.Fingering
	}
	return routine.None
}

// carries says whether a note or rest of a chunk has one of some alerts.
func carries(r *breakdown.Report, chunk breakdown.ChunkKey, alerts ...breakdown.Alert) bool {
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
