package lesson

// Seats proposes who sits where: rows of at most so many across, the front one first, of
// players by their index. Who plays the same sits together, in one row where they fit into
// one. The players come in the order in which they are to sit, from the front.
func Seats(plays []string, across int) [][]int {
	across = max(across, 1)
	var rows [][]int
	for from := 0; from < len(plays); {
		to := from
		for to < len(plays) && plays[to] == plays[from] {
			to++
		}
		last := len(rows) - 1
		if last < 0 || len(rows[last])+to-from > across && len(rows[last]) > 0 {
			rows, last = append(rows, nil), last+1
		}
		for ; from < to; from++ {
			if len(rows[last]) == across {
				rows, last = append(rows, nil), last+1
			}
			rows[last] = append(rows[last], from)
		}
	}
	return rows
}
