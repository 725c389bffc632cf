package lesson

import (
	"fmt"
	"math"
	"strings"
)

// Text writes a plan as a teacher would on paper, a line a step.
func (p Plan) Text(aloud bool) string {
	var b strings.Builder
	fitted := p.Fit()
	sounding, all := p.Sounding(aloud)
	share := 0.0
	if all > 0 {
		share = 100 * sounding / all
	}
	fmt.Fprintf(&b, "%d steps, %s of %d min; sounding %.0f min, %.0f %%\n", len(fitted.In), Time(fitted.Halves), p.Minutes,
		math.Round(sounding/60), share)
	phase, exercise := Phase(""), int64(0)
	for _, k := range fitted.In {
		s := p.Steps[k]
		if s.Phase != phase {
			fmt.Fprintf(&b, "%s\n", s.Phase.Word())
			exercise = 0
		}
		if s.Exercise != exercise && !s.Warm {
			fmt.Fprintf(&b, "  %d · %s. %s\n", s.Number, s.Title, s.Why)
		}
		phase, exercise = s.Phase, s.Exercise
		fmt.Fprintf(&b, "    %s\n", s.Line())
	}
	return b.String()
}

// Line says a step in a line: "Count · the line · twice at 60 · 1½ min".
func (s Step) Line() string {
	words := []string{s.Does(), s.At(), s.Often()}
	if s.Warm {
		words = []string{s.Word, s.Often()}
	}
	return strings.Join(append(words, Time(s.Halves())), " · ")
}

// Often says how often, and at which tempo: "twice at 60".
func (s Step) Often() string {
	often := fmt.Sprintf("%d times", s.Times)
	if few := [...]string{1: "once", 2: "twice"}; s.Times < len(few) {
		often = few[s.Times]
	}
	if len(s.Parts) > 0 && s.Times > 1 {
		often += " each"
	}
	if s.Tempo > 0 {
		often += fmt.Sprintf(" at %d", s.Tempo)
	}
	return often
}
