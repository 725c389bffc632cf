package e2e

import (
	"context"
	"fmt"
	"testing"

	"unhurriedbench/store"
)

// An orchestral part that waits: rests of many measures are one sign with its number, and no
// label of a lane stands over another.
func TestRestsOfManyMeasures(t *testing.T) {
	t.Parallel()
	template, err := demoTemplate()
	if err != nil {
		t.Fatal(err)
	}
	s := template.Open(t)
	teacher, err := s.DemoTeacher(context.Background())
	if err != nil {
		t.Fatal(err)
	}
	id, err := s.For(teacher.ID).AddExercise(
		context.Background(),
		store.Exercise{Book: "Own", Number: 1, Title: "Waiting"},
		store.Source{Format: "abc", Content: "T:Waiting\nM:4/4\nL:1/4\nK:C\nc2e2|Z15|gfed|Z4|z4|c/d/e/f/ g2|Z12|Z2|c4|]\n"},
	)
	if err != nil {
		t.Fatal(err)
	}
	server := serve(t, s)
	p := page(t, server.URL, 1280)
	signIn(p)
	for _, target := range []string{"trumpet", "violin", "snare"} {
		bench(p, fmt.Sprintf("%s/bench/%d?instrument=%s", server.URL, id, target))
		if got := p.MustEval(`() => document.querySelectorAll(".engraving g.multiRest").length`).Int(); got != 3 {
			t.Errorf("%s: %d signs stand for several measures, want 3", target, got)
		}
		labels := p.MustEval(`() => [...document.querySelectorAll(".lanes .c-rest")].map((l) => l.textContent).join(", ")`).Str()
		if want := "15 measures, 5 measures, 14 measures"; labels != want {
			t.Errorf("%s: the count says %q, want %q", target, labels, want)
		}
		over := p.MustEval(`() => {
			const labels = [...document.querySelectorAll(".lanes text:not(.lane-name):not(.chunk-label)")].map((l) => [l.textContent, l.getBoundingClientRect()]);
			const over = [];
			labels.forEach(([a, x], k) => labels.slice(k + 1).forEach(([b, y]) => {
				const wide = Math.min(x.right, y.right) - Math.max(x.left, y.left), high = Math.min(x.bottom, y.bottom) - Math.max(x.top, y.top);
				if (wide > 1 && high > 4) over.push(a + " over " + b);
			}));
			return over.join(", ");
		}`).Str()
		if over != "" {
			t.Errorf("%s: labels stand over each other: %s", target, over)
		}
	}
}
