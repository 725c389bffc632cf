package teach

import (
	"cmp"
	"context"
	"slices"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/instrument"
	"unhurriedbench/store"
)

// Needed is something that a line needs and somebody has not earned yet.
type Needed struct {
	Element breakdown.Element
	Who     []instrument.Instrument // who have not
	Met     store.Exercise          // where it is first met; ID 0 where no other line has it
}

// BeforeLine lists what an exercise needs that a class, or one student, has not earned: it stands
// in no line at which they were clean to the end. With it comes the line where it is first met, in
// the same book before any other.
func BeforeLine(ctx context.Context, desk *Class, c Choice) ([]Needed, error) {
	all, err := desk.Exercises(ctx)
	if err != nil {
		return nil, err
	}
	worked, err := desk.workedIn(ctx, c.Class.ID)
	if err != nil {
		return nil, err
	}
	clean := worked.CleanAt(c.Student.ID)
	all = slices.DeleteFunc(slices.Clone(all), func(x store.Exercise) bool {
		return x.ID == c.Exercise.ID || x.Book == c.Exercise.Book && x.Number > c.Exercise.Number
	})
	slices.SortStableFunc(all, func(a, b store.Exercise) int {
		return cmp.Or(boolOrder(b.Book == c.Exercise.Book)-boolOrder(a.Book == c.Exercise.Book), cmp.Compare(a.Book, b.Book), a.Number-b.Number)
	})
	var list []Needed
	for _, i := range c.playing() {
		demands, err := desk.Demands(ctx, i.ID)
		if err != nil {
			return nil, err
		}
		earned := map[breakdown.Element]bool{}
		for id := range clean {
			for _, e := range demands[id].Elements {
				earned[e] = true
			}
		}
		for _, e := range demands[c.Exercise.ID].Elements {
			if earned[e] || e.Words() == "" {
				continue
			}
			k := slices.IndexFunc(list, func(n Needed) bool { return n.Element == e })
			if k < 0 {
				k = len(list)
				list = append(list, Needed{Element: e, Met: firstWith(all, demands, e)})
			}
			list[k].Who = append(list[k].Who, i)
		}
	}
	return list, nil
}

// firstWith is the first of some exercises that has a thing.
func firstWith(all []store.Exercise, demands map[store.ExerciseID]breakdown.Demands, e breakdown.Element) store.Exercise {
	for _, x := range all {
		if slices.Contains(demands[x.ID].Elements, e) {
			return x
		}
	}
	return store.Exercise{}
}

// playing are the instruments a question is about: the student's own, those of the class, or the
// one at hand.
func (c Choice) playing() []instrument.Instrument {
	if c.Student.ID != 0 {
		return []instrument.Instrument{c.Instrument}
	}
	var list []instrument.Instrument
	for _, tab := range c.Tabs {
		if c.Plays(tab) {
			list = append(list, tab.Instrument)
		}
	}
	return list
}
