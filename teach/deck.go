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
	o := reads.Settings.Preferences.Options(reads.Section)
	d.Reader = card.Reader{Instrument: reads.Instrument, Names: o.Name, Words: reads.Settings.Preferences.FingerWords(), Year: reads.Section.Year}
	if d.Reader.Preferred, err = desk.Preferred(ctx, reads.Instrument.ID); err != nil {
		return d, err
	}
	if d.Log, err = desk.CardAnswers(ctx, student.ID, student.Instrument); err != nil {
		return d, err
	}
	home, err := TriesAtHome(ctx, desk, student.ID, time.Now().AddDate(0, -3, 0))
	if err != nil {
		return d, err
	}
	stumbled, err := lastStumbles(ctx, desk, student.ID, home)
	if err != nil {
		return d, err
	}
	worked, err := workedPieces(ctx, desk, reads, home)
	if err != nil {
		return d, err
	}
	var pieces []card.Piece
	var notes []progress.Worked
	for _, w := range worked {
		pieces, notes = append(pieces, w.Piece), append(notes, w.notes)
	}
	d.Deck = card.Deck(reads.Instrument, pieces)
	d.addStumbles(worked, stumbled, progress.Notes(notes))
	return d, nil
}

// pieceAt names a piece of an exercise.
type pieceAt struct {
	exercise store.ExerciseID
	key      breakdown.PieceKey
}

// workedPiece is a piece that a student has worked on, with the notes in it.
type workedPiece struct {
	card.Piece
	at    pieceAt
	notes progress.Worked
}

// workedPieces are the pieces that a student has tried, as the teacher heard or they say, of
// the
// exercises tried last, in the order of the books.
func workedPieces(ctx context.Context, desk *Class, reads PartReader, home []store.HomeTry) ([]workedPiece, error) {
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
	slices.SortStableFunc(worked, func(a, b store.Exercise) int { return cmp.Or(cmp.Compare(a.Book, b.Book), a.Number-b.Number) })
	var list []workedPiece
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
		for _, key := range outline.Pieces {
			state, at := standing.State(steps, key), pieceAt{x.ID, key}
			if state.Tries == 0 && !slices.ContainsFunc(home, func(t store.HomeTry) bool { return pieceAt{t.Exercise, t.Piece} == at }) {
				continue
			}
			where := fmt.Sprintf("%d · %s, %s", x.Number, x.Title, outline.Label(key))
			list = append(list, workedPiece{
				card.Piece{Where: where, Report: *report, Key: key}, at,
				progress.Worked{Name: where, Pitches: report.PitchesIn(key), Steps: steps, State: state},
			})
		}
	}
	return list, nil
}

// stumbledOver is what was stumbled over, and where.
type stumbledOver struct {
	pieceAt
	over routine.Cause
}

// lastStumbles says when a student stumbled last over what, as the teacher heard or they say.
func lastStumbles(ctx context.Context, desk *Class, student store.StudentID, home []store.HomeTry) (map[stumbledOver]time.Time, error) {
	log, err := desk.StudentAttempts(ctx, student)
	if err != nil {
		return nil, err
	}
	last := map[stumbledOver]time.Time{}
	add := func(at pieceAt, t routine.Try, when time.Time) {
		if over := (stumbledOver{at, t.Cause}); t.Cause != routine.None && when.After(last[over]) {
			last[over] = when
		}
	}
	for _, a := range log {
		if !a.Undone {
			add(pieceAt{a.ExerciseID, a.Piece}, a.Try, a.At)
		}
	}
	for _, t := range home {
		add(pieceAt{t.Exercise, t.Piece}, t.Try, t.At)
	}
	return last, nil
}

// addStumbles says which cards were stumbled over, and when last. Where no note of a piece is
// in question, all of its are.
func (d *Deck) addStumbles(pieces []workedPiece, stumbled map[stumbledOver]time.Time, notes []progress.OwnNote) {
	d.Stumbles = map[string]time.Time{}
	for _, p := range pieces {
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
			for _, id := range card.Stumbled(p.Piece, over, doubtful) {
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
