package musicxml

import (
	"fmt"
	"regexp"
	"strings"

	"unhurriedbench/core/score"
)

// HasMeter says whether a file gives a time signature anywhere.
func HasMeter(text string) bool { return strings.Contains(text, "<beats") }

// freeTime is a time signature that says there is none.
var freeTime = regexp.MustCompile(`(?s)<time\b[^>]*>\s*<senza-misura.*?</time>`)

// WithMeter writes a time signature into the first measure of every part of a file that
// gives none, in the place that the standard's order of elements has for it.
func WithMeter(text string, m score.Meter) string {
	time := fmt.Sprintf("<time><beats>%d</beats><beat-type>%d</beat-type></time>", m.Beats, m.Unit)
	parts := strings.Split(freeTime.ReplaceAllString(text, ""), "<part ")
	for k := 1; k < len(parts); k++ {
		parts[k] = partWithMeter(parts[k], time)
	}
	return strings.Join(parts, "<part ")
}

func partWithMeter(part, time string) string {
	measure := strings.Index(part, "<measure")
	if measure < 0 {
		return part
	}
	first := measure + strings.Index(part[measure:], ">") + 1
	end := strings.Index(part[first:], "</measure>")
	if first == measure || end < 0 {
		return part
	}
	inside := part[first : first+end]
	open, shut := strings.Index(inside, "<attributes>"), strings.Index(inside, "</attributes>")
	if open < 0 || shut < open {
		return part[:first] + "<attributes>" + time + "</attributes>" + part[first:]
	}
	at := first + open + len("<attributes>")
	for _, before := range []string{"</divisions>", "</key>"} { // of what may stand before it, the last
		if k := strings.LastIndex(inside[:shut], before); k >= 0 {
			at = max(at, first+k+len(before))
		}
	}
	return part[:at] + time + part[at:]
}
