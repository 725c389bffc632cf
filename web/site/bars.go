package site

import (
	"html/template"

	"unhurriedbench/core/routine"
	"unhurriedbench/store"
)

// classBars say how far a class is with each exercise, of whatever routines its
// students follow.
type classBars struct {
	rules  store.Rules
	class  store.ClassID
	counts map[store.ExerciseID][]store.EarnedCount
}

// NewClassBars makes the bars of a class out of how many chunks have earned each stage.
func NewClassBars(rules store.Rules, class store.ClassID, counts []store.EarnedCount) classBars {
	b := classBars{rules, class, map[store.ExerciseID][]store.EarnedCount{}}
	for _, c := range counts {
		b.counts[c.Exercise] = append(b.counts[c.Exercise], c)
	}
	return b
}

// Of draws the bar of an exercise whose chunks, with everybody's counted, are that many: of
// each kind of stage the share that has earned it. "" where nothing was tried.
func (b classBars) Of(x store.ExerciseID, all int) template.HTML {
	kinds := FormsOf(b.rules.In(store.Chooser{Exercise: x, Class: b.class}).Steps)
	shares := b.Shares(x, kinds, all)
	if shares == nil {
		return ""
	}
	cells := make([]routine.Cell, len(shares))
	for k, share := range shares {
		cells[k].Filled = share
		if share == 1 {
			cells[k].Credit = routine.Earned
		}
	}
	return StageBar(kinds, cells)
}

// Shares is of each kind of stage the share of an exercise's chunks that has earned it, nil
// where nothing was tried.
func (b classBars) Shares(x store.ExerciseID, kinds routine.Routine, all int) []float64 {
	counts := b.counts[x]
	if len(counts) == 0 || all == 0 {
		return nil
	}
	cells := make([]float64, len(kinds))
	for _, c := range counts {
		steps := b.rules.In(store.Chooser{Exercise: x, Instrument: c.Instrument, Class: b.class}).Steps
		for k, kind := range kinds {
			cells[k] += float64(c.Chunks) / float64(all) * shareEarned(steps, kind.Form(), c.Earned)
		}
	}
	for k := range cells {
		cells[k] = min(cells[k], 1)
	}
	return cells
}

// FormsOf is a routine with one stage of each kind, the first.
func FormsOf(steps routine.Routine) routine.Routine {
	var kinds routine.Routine
	seen := map[routine.Stage]bool{}
	for _, s := range steps {
		if !seen[s.Form()] {
			kinds = append(kinds, s)
		}
		seen[s.Form()] = true
	}
	return kinds
}

// shareEarned is which share of a routine's stages of a kind is earned.
func shareEarned(steps routine.Routine, kind routine.Stage, earned routine.StageSet) float64 {
	have, all := 0, 0
	for k, s := range steps {
		if s.Form() != kind {
			continue
		}
		all++
		if earned.Has(k) {
			have++
		}
	}
	if all == 0 {
		return 0
	}
	return float64(have) / float64(all)
}
