package finger

import "unhurriedbench/core/score"

// naturalSticking gives the right hand the strong places: the measure is laid
// on a grid of halves of the beat, or of its quarters where any stroke falls
// between them, and the hands alternate on the grid from the right. In compound
// meters the grid is thirds or sixths of the beat and starts afresh with the
// right hand on each beat. Written sticking is kept. Source: common practice.
func naturalSticking(m score.Measure, choices []Choice) {
	beat := m.Meter.Beat()
	parts := int64(2)
	if m.Meter.Compound() {
		parts = 3
	}
	grid := beat.Div(score.Frac(parts, 1))
	for _, e := range m.Events {
		if e.Kind == score.Note && !e.Start.Within(grid).IsZero() {
			grid = grid.Mul(score.Frac(1, 2))
			break
		}
	}
	for j, e := range m.Events {
		if e.Kind != score.Note || e.Tied {
			continue
		}
		hand := "R"
		if e.Start.Within(beat).Div(grid).Floor()%2 == 1 {
			hand = "L"
		}
		if e.Sticking != "" {
			hand = e.Sticking
		}
		choices[j].Fingering = Fingering{Text: hand}
	}
}
