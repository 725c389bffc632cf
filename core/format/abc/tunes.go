package abc

import (
	"strconv"
	"strings"
)

// Tune is one of the tunes of a text.
type Tune struct {
	Number int    // after X:, 0 for none
	Title  string // the first after T:
	Text   string // with the fields that stand before the first tune
}

// Tunes takes a text with several tunes apart: each begins with X:. What stands before the
// first belongs to all. A text without X: is one tune.
func Tunes(text string) []Tune {
	text = strings.ReplaceAll(strings.ReplaceAll(strings.TrimPrefix(text, "\ufeff"), "\r\n", "\n"), "\r", "\n")
	var list []Tune
	var before, now strings.Builder
	close := func() {
		if len(list) > 0 {
			list[len(list)-1].Text = before.String() + strings.TrimRight(now.String(), "\n") + "\n"
			now.Reset()
		}
	}
	for row := range strings.Lines(text) {
		if value, is := strings.CutPrefix(row, "X:"); is {
			close()
			n, _ := strconv.Atoi(strings.TrimSpace(value)) // one without a number has none
			list = append(list, Tune{Number: max(n, 0)})
		}
		if len(list) == 0 {
			if strings.TrimSpace(row) != "" { // an empty line would end the tune's own fields
				before.WriteString(row)
			}
			continue
		}
		if title, is := strings.CutPrefix(row, "T:"); is && list[len(list)-1].Title == "" {
			list[len(list)-1].Title = strings.TrimSpace(title)
		}
		now.WriteString(row)
	}
	close()
	if len(list) == 0 {
		return []Tune{{Text: text}}
	}
	return list
}
