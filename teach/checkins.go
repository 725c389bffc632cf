package teach

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"unhurriedbench/core/checkin"
	"unhurriedbench/core/lesson"
	"unhurriedbench/core/progress"
	"unhurriedbench/store"
)

// UsualHearing is how many minutes hearing a class takes where nothing is said.
const UsualHearing = 10

// MostHearing is the most minutes of it.
const MostHearing = 180

// DueWords says what is due in a line: "6 · Ferry Landing, B: Play; …".
func DueWords(due []lesson.Step) string {
	words := make([]string, len(due))
	for k, s := range due {
		words[k] = s.Name()
	}
	return strings.Join(words, "; ")
}

// Waiting are those of a class's check-ins whose day has come, in score order.
func Waiting(list []store.Checkin, students []store.Student, today time.Time) []checkin.Waiting {
	heard := map[store.StudentID]int64{}
	for _, c := range list {
		if c.Heard != nil {
			heard[c.Student] = c.Heard.Unix()
		}
	}
	var some []checkin.Waiting
	for _, student := range InScoreOrder(students) {
		for _, c := range list {
			if c.Student == student.ID && c.Heard == nil && !c.On.After(today) {
				some = append(some, checkin.Waiting{ID: int64(c.ID), On: c.On.Unix(), Heard: heard[c.Student],
					Seconds: checkin.Seconds(c.Due)})
			}
		}
	}
	return some
}

// CheckinQueue is who of a class waits to be heard today, in order.
func CheckinQueue(ctx context.Context, desk *Class, class store.ClassID) ([]checkin.Waiting, error) {
	students, err := desk.Students(ctx, class)
	if err != nil {
		return nil, err
	}
	list, err := desk.ClassCheckins(ctx, class)
	if err != nil {
		return nil, err
	}
	queue, _ := checkin.Queue(Waiting(list, students, DateOf(desk.Now())), 0) // who fits is not asked
	return queue, nil
}

// mostAsked bounds how many exercises are looked into for what is due.
const mostAsked = 6

// ProposeDue says what is due for some students of a class in a given number of seconds each.
func ProposeDue(ctx context.Context, desk *Class, class store.ClassID, students []store.Student,
	list []store.Checkin, seconds float64) (map[store.StudentID][]lesson.Step, error) {
	w, err := LoadClassWork(ctx, desk, class)
	if err != nil {
		return nil, err
	}
	standings, err := desk.ClassStandings(ctx, class)
	if err != nil {
		return nil, err
	}
	missed, err := notClean(ctx, desk, students, list)
	if err != nil {
		return nil, err
	}
	needs, err := ClassNeeds(ctx, desk, w, class, standings)
	if err != nil {
		return nil, err
	}
	laidOut := map[store.ExerciseID][]lesson.Chunk{}
	due := map[store.StudentID][]lesson.Step{}
	for _, student := range students {
		var chunks []checkin.Chunk
		mine := store.Standings{}
		for task, standing := range standings {
			if task.Student == student.ID {
				mine[task] = standing
			}
		}
		recent := RecentFirst(w.Exercises, mine)
		recent = recent[:min(len(recent), mostAsked)]
		need, needy := needs[student.ID]
		for _, x := range w.Exercises {
			known := slices.ContainsFunc(recent, func(r store.Exercise) bool { return r.ID == x.ID })
			if needy && int64(x.ID) == need.Exercise && !known && x.Unread == "" {
				recent = append(recent, x)
			}
		}
		for _, x := range recent {
			if _, known := laidOut[x.ID]; !known {
				if laidOut[x.ID], err = LessonChunks(ctx, desk, class, x.ID, standings); err != nil {
					return nil, fmt.Errorf("lay out exercise %d: %w", x.Number, err)
				}
			}
			standing := mine[store.Task{Student: student.ID, Exercise: x.ID}]
			mine := CheckinChunks(laidOut[x.ID], w, student, x, standing, missed)
			for k := range mine {
				mine[k].Need = needy && int64(x.ID) == need.Exercise && mine[k].Key == need.Unit
			}
			chunks = append(chunks, mine...)
		}
		due[student.ID] = checkin.Due(chunks, seconds, store.MostDue)
	}
	return due, nil
}

// dueKey is a chunk of an exercise that a student may be asked for.
type dueKey struct {
	student  store.StudentID
	exercise int64
	chunk    string
}

// notClean are the chunks that students were asked for at their last check-in, and that were
// not heard there, or not clean.
func notClean(ctx context.Context, desk *Class, students []store.Student,
	list []store.Checkin) (map[dueKey]bool, error) {
	missed := map[dueKey]bool{}
	for _, c := range list {
		if c.Heard == nil || !slices.ContainsFunc(students, func(s store.Student) bool { return s.ID == c.Student }) {
			continue
		}
		tries, err := desk.CheckinTries(ctx, c)
		if err != nil {
			return nil, err
		}
		for _, step := range c.Due {
			if try, heard := heardAt(tries, step); !heard || !try.Clean {
				missed[dueKey{c.Student, step.Exercise, step.Chunk.String()}] = true
			}
		}
	}
	return missed, nil
}

// heardAt is the last try at a chunk among those of a check-in.
func heardAt(tries []store.Attempt, step lesson.Step) (try store.Attempt, heard bool) {
	for _, a := range slices.Backward(tries) {
		if int64(a.ExerciseID) == step.Exercise && a.Chunk == step.Chunk {
			return a, true
		}
	}
	return try, false
}

// CheckinChunks are the chunks of an exercise as they are to a student.
func CheckinChunks(laidOut []lesson.Chunk, w ClassWork, student store.Student, x store.Exercise,
	standing *progress.Standing, missed map[dueKey]bool) []checkin.Chunk {
	steps, outline := w.Rules.For(student.ID, x.ID), w.Own.Of(x, student.Instrument)
	var chunks []checkin.Chunk
	for _, key := range outline.Chunks {
		k := slices.IndexFunc(laidOut, func(p lesson.Chunk) bool { return p.Key == key })
		if k < 0 {
			continue
		}
		p := checkin.Chunk{Chunk: laidOut[k], Steps: steps, State: standing.State(steps, key),
			Asked: missed[dueKey{student.ID, int64(x.ID), key.String()}]}
		p.Label = outline.Label(key)
		if standing != nil {
			p.Last = standing.Times[key].Last
			if tempo := p.State.NextTempo(standing.Times[key].Tempo); tempo > 0 {
				p.Tempo = tempo
			}
		}
		chunks = append(chunks, p)
	}
	return chunks
}
