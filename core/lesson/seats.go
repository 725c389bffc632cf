package lesson

import (
	"slices"

	"unhurriedbench/core/instrument"
)

// frontToBack is how families sit. Source: common practice of orchestras and mixed ensembles.
var frontToBack = []string{"strings", "woodwind", "brass", "percussion"}

// Seats proposes who sits where: rows of at most n across, the front one first, of
// players by their index, who play the instruments given. Families sit from strings to
// percussion, instruments in score order within them; who plays the same sits together, in one
// row where they fit into one.
func Seats(plays []string, across int) [][]int {
	across = max(across, 1)
	order := seatOrder(plays)
	var rows [][]int
	for from := 0; from < len(order); {
		to := from
		for to < len(order) && plays[order[to]] == plays[order[from]] {
			to++
		}
		last := len(rows) - 1
		if last < 0 || len(rows[last])+to-from > across {
			rows, last = append(rows, nil), last+1
		}
		for ; from < to; from++ {
			if len(rows[last]) == across {
				rows, last = append(rows, nil), last+1
			}
			rows[last] = append(rows[last], order[from])
		}
	}
	return rows
}

// seatOrder is the players in the order in which they sit, from the front.
func seatOrder(plays []string) []int {
	place := map[string]int{}
	for k, i := range instrument.All() {
		place[i.ID] = 1000*slices.Index(frontToBack, i.Family) + k
	}
	order := make([]int, len(plays))
	for k := range order {
		order[k] = k
	}
	slices.SortStableFunc(order, func(a, b int) int { return place[plays[a]] - place[plays[b]] })
	return order
}
