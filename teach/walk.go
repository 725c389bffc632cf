package teach

import (
	"cmp"
	"context"
	"fmt"
	"slices"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/lesson"
	"unhurriedbench/core/walk"
	"unhurriedbench/store"
)

// WalkWants is what is asked of a led run; the zero value is the class's unit, for as long as it
// takes, at the tempo of the page.
type WalkWants struct {
	Unit    lesson.Unit
	Minutes int
	Tempo   int
	Fresh   bool // also what was earned is done
}

// Walk leads whoever stands at the Bench through the line on it.
func Walk(v Stand, w WalkWants) (LedPart, walk.Run) {
	ask, player := askFor(v, w), walk.Player{Instrument: v.Instrument, Report: v.Report}
	return LedPart{Stand: v, With: []walk.Playing{walk.Starts(ask, player)}}, titled(walk.Through(ask, player), v.Choice)
}

// titled names a run by its exercise, whatever is made of that.
func titled(run walk.Run, c Choice) walk.Run {
	run.Title = fmt.Sprintf("%d · %s", c.Exercise.Number, c.Exercise.Title)
	return run
}

// askFor is what a run is made of, as its teacher teaches.
func askFor(v Stand, w WalkWants) walk.Ask {
	ask := walk.Ask{
		Unit: cmp.Or(w.Unit, v.Class.Shape.UnitOf()), Routine: v.Routine, Minutes: w.Minutes, Tempo: cmp.Or(w.Tempo, v.Tempo),
		Options: v.Options, Fingers: v.Words,
	}
	if !w.Fresh {
		ask.States = v.States
	}
	if v.Line == breakdown.Alone {
		for _, c := range v.Explained.Of {
			if c.Key() == v.From {
				ask.Of, ask.Where = walk.Measures(c), c.InWords()
			}
		}
	}
	return ask
}

// LedPart is an instrument, or several whose written music is the same, in a led class.
type LedPart struct {
	Stand
	With   []walk.Playing // all that read this music, the first of them Stand's
	Others []walk.Player  // those after the first
}

// MostLedParts is how many different musics a wall has room for.
const MostLedParts = 4

// Lead leads a class through a line: a part for each different written music, at most
// MostLedParts, those that most play.
func Lead(ctx context.Context, desk *Class, ask Request, w WalkWants) ([]LedPart, walk.Run, error) {
	var parts []LedPart
	players := map[int]int{}
	_, err := ExplainEach(ctx, desk, ask, Choice.Plays, func(at Choice, tab InstrumentTab, x Explained, saved Settings) {
		if len(x.Report.Chunks) == 0 {
			return
		}
		k := slices.IndexFunc(parts, func(p LedPart) bool { return sameMusic(p.Report, x.Report) })
		if k < 0 {
			k = len(parts)
			steps := at.Rules.In(store.Chooser{Exercise: at.Exercise.ID, Class: at.Class.ID}).Steps
			parts = append(parts, LedPart{Stand: NewStand(Work{Choice: at, Routine: steps}, x, saved.Preferences)})
		}
		parts[k].With = append(parts[k].With, walk.Starts(askFor(parts[k].Stand, w), walk.Player{Instrument: tab.Instrument, Report: x.Report}))
		if tab.Instrument.ID != parts[k].Instrument.ID {
			parts[k].Others = append(parts[k].Others, walk.Player{Instrument: tab.Instrument, Report: x.Report})
		}
		players[k] += max(tab.Students, 1)
	})
	if err != nil || len(parts) == 0 {
		return parts, walk.Run{}, err
	}
	if len(parts) > MostLedParts {
		parts = mostPlayed(parts, players)
	}
	asked := askFor(parts[0].Stand, w)
	asked.Class, asked.States = true, nil
	if w.Tempo == 0 {
		asked.Tempo = slowest(parts)
	}
	var all []walk.Player
	for _, p := range parts {
		all = append(all, walk.Player{Instrument: p.Instrument, Report: p.Report})
	}
	return parts, titled(walk.Through(asked, all...), parts[0].Choice), nil
}

// sameMusic says whether two parts look alike on the page: clef, key and every written note.
func sameMusic(a, b breakdown.Report) bool {
	return a.Clef == b.Clef && a.Key == b.Key && slices.EqualFunc(a.Measures, b.Measures, func(x, y breakdown.Measure) bool {
		return slices.EqualFunc(x.Events, y.Events, func(e, f breakdown.Event) bool { return e.Pitch == f.Pitch && e.Start == f.Start })
	})
}

// mostPlayed keeps the parts that most play, in their order.
func mostPlayed(parts []LedPart, players map[int]int) []LedPart {
	order := make([]int, len(parts))
	for k := range order {
		order[k] = k
	}
	slices.SortStableFunc(order, func(a, b int) int { return players[b] - players[a] })
	order = order[:MostLedParts]
	slices.Sort(order)
	var kept []LedPart
	for _, k := range order {
		kept = append(kept, parts[k])
	}
	return kept
}

// slowest is the tempo that the hardest place of every part allows.
func slowest(parts []LedPart) int {
	tempo := parts[0].Tempo
	for _, p := range parts[1:] {
		tempo = min(tempo, p.Tempo)
	}
	return tempo
}
