package e2e

import (
	"testing"

	"unhurriedbench/core/instrument"
)

// A whole exercise of eight measures with its lanes is in sight at 1280 by 800, on every
// instrument.
func TestWholeExerciseInSight(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("a long one, for bin/test --all")
	}
	p, address := signedIn(t, 1280)
	bench(p, address+"/bench/6?instrument=snare")
	for _, i := range instrument.All() {
		p.MustEval(`(id) => { performance.clearMarks("bench:drawn"); [...document.querySelectorAll(".instruments a")].find((a) => new URL(a.href).searchParams.get("instrument") === id).click(); }`, i.ID)
		until(t, p, i.ID, `() => performance.getEntriesByName("bench:drawn").length > 0`)
		bottom := p.MustEval(`() => scrollY + Math.max(...[...document.querySelectorAll("svg.lanes g[aria-hidden] > *")].map((e) => e.getBoundingClientRect().bottom))`).Num()
		if bottom > 800 {
			t.Errorf("the lanes of %s end at %.0f pixels", i.Name, bottom)
		}
	}
}
