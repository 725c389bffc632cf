package teach

import (
	"cmp"
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/card"
	"unhurriedbench/core/progress"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
)

// Deck is a student's cards and where they stand with them.
type Deck struct {
	Reader   card.Reader
	Deck     []card.Card
	Log      []card.Answered
	Stumbles map[string]time.Time
	Settings Settings
}

// LoadDeck reads the exercises that a student has worked on, those of the last weeks, and what
// they have answered.
func LoadDeck(ctx context.Context, desk *Class, student store.Student) (Deck, error) {
	var d Deck
	reads, err := NewPartReader(ctx, desk, student)
	if err != nil {
		return d, err
	}
	d.Settings = reads.Settings
	o := reads.Settings.Preferences.Options(reads.Class)
	d.Reader = card.Reader{Instrument: reads.Instrument, Names: o.Name,
		Words: reads.Settings.Preferences.FingerWords(), Year: reads.Class.Year}
	if d.Reader.Preferred, err = desk.Preferred(ctx, reads.Instrument.ID); err != nil {
		return d, err
	}
	if d.Log, err = desk.CardAnswers(ctx, student.ID, student.Instrument); err != nil {
		return d, err
	}
	home, err := TriesAtHome(ctx, desk, student.ID, desk.Now().AddDate(0, -3, 0))
	if err != nil {
		return d, err
	}
	stumbled, err := lastStumbles(ctx, desk, student.ID, home)
	if err != nil {
		return d, err
	}
	worked, err := workedChunks(ctx, desk, reads, home)
	if err != nil {
		return d, err
	}
	var chunks []card.Chunk
	var notes []progress.Worked
	for _, w := range worked {
		chunks, notes = append(chunks, w.Chunk), append(notes, w.notes)
	}
	d.Deck = card.Deck(reads.Instrument, chunks)
	d.addStumbles(worked, stumbled, progress.Notes(notes))
	return d, nil
}

// chunkAt names a chunk of an exercise.
type chunkAt struct {
	exercise store.ExerciseID
	key      breakdown.ChunkKey
}

// workedChunk is a chunk that a student has worked on, with the notes in it.
type workedChunk struct {
	card.Chunk
	at    chunkAt
	notes progress.Worked
}

// workedChunks are the chunks that a student has tried, as the teacher heard or they say, of
// the exercises tried last, in the order of the books.
func workedChunks(ctx context.Context, desk *Class, reads PartReader, home []store.HomeTry) ([]workedChunk, error) {
	student := reads.Student
	standings, err := desk.StudentStandings(ctx, student.ID)
	if err != nil {
		return nil, err
	}
	exercises, err := desk.Exercises(ctx)
	if err != nil {
		return nil, err
	}
	own, err := desk.OwnOutlines(ctx)
	if err != nil {
		return nil, err
	}
	rules, err := desk.Rules(ctx)
	if err != nil {
		return nil, err
	}
	worked := RecentFirst(exercises, standings)
	worked = worked[:min(len(worked), mostLooked)]
	slices.SortStableFunc(worked, func(a, b store.Exercise) int {
		return cmp.Or(cmp.Compare(a.Book, b.Book),
			a.Number-b.Number)
	})
	var list []workedChunk
	for _, x := range worked {
		report, err := notesOf(ctx, desk, reads, x)
		if err != nil {
			return nil, err
		}
		if report == nil {
			continue
		}
		standing := standings[store.Task{Student: student.ID, Exercise: x.ID}]
		outline, steps := own.Of(x, student.Instrument), rules.For(student.ID, x.ID)
		for _, key := range outline.Chunks {
			state, at := standing.State(steps, key), chunkAt{x.ID, key}
			if state.Tries == 0 && !slices.ContainsFunc(home, func(t store.HomeTry) bool {
				return chunkAt{t.Exercise,
					t.Chunk} == at
			}) {
				continue
			}
			where := fmt.Sprintf("%d · %s, %s", x.Number, x.Title, outline.Label(key))
			list = append(list, workedChunk{
				card.Chunk{Where: where, Report: *report, Key: key}, at,
				progress.Worked{Name: where, Pitches: report.PitchesIn(key), Steps: steps, State: state},
			})
		}
	}
	return list, nil
}

// stumbledOver is what was stumbled over, and where.
type stumbledOver struct {
	chunkAt
	over routine.Cause
}

// lastStumbles says when a student stumbled last over what, as the teacher heard or they say.
func lastStumbles(ctx context.Context, desk *Class, student store.StudentID,
	home []store.HomeTry) (map[stumbledOver]time.Time, error) {
	log, err := desk.StudentAttempts(ctx, student)
	if err != nil {
		return nil, err
	}
	last := map[stumbledOver]time.Time{}
	add := func(at chunkAt, t routine.Try, when time.Time) {
		if over := (stumbledOver{at, t.Cause}); t.Cause != routine.None && when.After(last[over]) {
			last[over] = when
		}
	}
	for _, a := range log {
		if !a.Undone {
			add(chunkAt{a.ExerciseID, a.Chunk}, a.Try, a.At)
		}
	}
	for _, t := range home {
		add(chunkAt{t.Exercise, t.Chunk}, t.Try, t.At)
	}
	return last, nil
}

// addStumbles says which cards were stumbled over, and when last. Where no note of a chunk is
// in question, all of its are.
func (d *Deck) addStumbles(chunks []workedChunk, stumbled map[stumbledOver]time.Time, notes []progress.OwnNote) {
	d.Stumbles = map[string]time.Time{}
	for _, p := range chunks {
		var doubtful []score.Pitch
		for _, n := range notes {
			if n.Doubt != "" && slices.Contains(p.notes.Pitches, n.Pitch) {
				doubtful = append(doubtful, n.Pitch)
			}
		}
		if len(doubtful) == 0 {
			doubtful = p.notes.Pitches
		}
		for _, over := range routine.AllCauses() {
			at, is := stumbled[stumbledOver{p.at, over}]
			if !is {
				continue
			}
			for _, id := range card.Stumbled(p.Chunk, over, doubtful) {
				if at.After(d.Stumbles[id]) {
					d.Stumbles[id] = at
				}
			}
		}
	}
}

// Round is what is asked now.
func (d Deck) Round(now time.Time, w card.Wanted) []card.Asked {
	return card.Round(d.Deck, d.Log, d.Stumbles, now, w)
}

// SpeedPlot is how quickly notes are named, day by day.
type SpeedPlot struct {
	Days    []card.Speed
	Catalog Catalog
}

// NewSpeedPlot is the plot of the last thirty days.
func NewSpeedPlot(days []card.Speed, words Catalog) SpeedPlot {
	return SpeedPlot{days[max(0, len(days)-30):], words}
}

// Shown says whether there is a way to see in it.
func (p SpeedPlot) Shown() bool { return len(p.Days) > 1 }

// Last is how quickly it was on the last day.
func (p SpeedPlot) Last() string { return Seconds(p.Days[len(p.Days)-1].Median) }

// Seconds writes milliseconds: "2.4".
func Seconds(millis int) string { return fmt.Sprintf("%.1f", float64(millis)/1000) }

// Words say it day by day.
func (p SpeedPlot) Words() string {
	words := make([]string, len(p.Days))
	for k, d := range p.Days {
		words[k] = p.Catalog.Say("round.lineWords", p.Catalog.Date(d.Day, false), Seconds(d.Median))
	}
	return strings.Join(words, "; ")
}
