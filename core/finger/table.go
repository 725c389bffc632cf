package finger

import (
	"strings"

	"unhurriedbench/core/score"
)

// table is a woodwind's fingerings by MIDI number of the written note, default
// first.
type table map[int][]Fingering

// parseTable reads lines of a note and its ways to be played, parted by " / ";
// behind each alternate a colon and when to use it. It panics on a bad line,
// which a test would show.
func parseTable(text string) table {
	t := table{}
	for _, line := range strings.Split(strings.TrimSpace(text), "\n") {
		note, ways, found := strings.Cut(strings.TrimSpace(line), " ")
		if !found {
			continue
		}
		midi := score.MustPitch(note).MIDI()
		for _, way := range strings.Split(ways, " / ") {
			keys, why, _ := strings.Cut(way, ": ")
			t[midi] = append(t[midi], Fingering{Text: strings.TrimSpace(keys), Why: why})
		}
	}
	return t
}

// woodwindTables is each woodwind's table.
var woodwindTables = map[string]table{
	"flute": parseTable(fluteTable), "piccolo": parseTable(fluteTable), "oboe": parseTable(oboeTable),
	"clarinet": parseTable(clarinetTable), "eb-clarinet": parseTable(clarinetTable),
	"bass-clarinet": parseTable(bassClarinetLow + clarinetTable),
	"soprano-sax":   parseTable(saxTable), "alto-sax": parseTable(saxTable), "tenor-sax": parseTable(saxTable), "bari-sax": parseTable(saxTable),
}
