package count

import (
	"fmt"
	"strings"

	"unhurriedbench/core/score"
)

// WordTable gives a word to the pattern of one beat. A pattern has a letter for
// every quarter of a simple beat, or sixth of a compound one or of one that a
// triplet divides: x where a note starts, - where one goes on, . where there is
// rest. A triplet that fills two beats has a pattern of its own, in sixths of the
// whole, with "2:" before it. The word's syllables, parted by hyphens, go to the notes
// that start.
type WordTable map[string]string

// DefaultWords is our own set, from a harbour. The teacher may change any.
func DefaultWords() WordTable {
	return WordTable{
		"x---": "sail", "x-x-": "an-chor", "xxxx": "har-bor-mas-ter", "xxx-": "o-ver-board",
		"x-xx": "tide-wa-ter", "x--x": "steam-er", "xx--": "a-hoy", "xx-x": "com-pass-rose",
		"--x-": "ho", "---x": "to", "--xx": "heave-ho", "-xx-": "to-shore", "-x--": "shore",
		"..x-": "ho", ".xxx": "to-the-sea", "x-..": "rope", "..xx": "heave-ho", "...x": "to",
		"x-----": "sail", "x-x-x-": "pas-sen-ger", "x---x-": "row-ing", "x-x---": "a-way",
		"xxxxxx": "is-land-hop-ping-fer-ry",
		"xxx-x-": "cap-tain-of-it", "x-xxx-": "float-ing-is-land", "x-x-xx": "star-board-har-bor", "x--xx-": "lan-tern-light",
		"----x-": "ing", "--x-x-": "sen-ger", "x-x-..": "a-way", "..x-x-": "cast-off", "....x-": "off",
		"..x---": "out", ".....x": "to",
		"2:x-x-x-": "o-cean-wide", "2:x---x-": "deep-sea", "2:x-x---": "far-out",
	}
}

// Pattern describes a WordTable's keys in words, for the settings page.
func Pattern(key string) string {
	names := map[byte]string{'x': "note", '-': "held", '.': "rest"}
	if broad, found := strings.CutPrefix(key, broadTriplet); found {
		return "a triplet of two beats: " + Pattern(broad)
	}
	parts := make([]string, len(key))
	for i := range len(key) {
		parts[i] = names[key[i]]
	}
	return strings.Join(parts, ", ")
}

// CheckWords says what is wrong with a teacher's table: a key that is no
// pattern, or a word whose syllables do not fit the notes that start.
func CheckWords(table WordTable) error {
	for key, word := range table {
		key, broad := strings.CutPrefix(key, broadTriplet)
		if len(key) != 4 && len(key) != 6 || broad && len(key) != 6 || strings.Trim(key, "x-.") != "" ||
			!strings.Contains(key, "x") {
			return fmt.Errorf("the pattern %q is not four or six of x, - and . with at least one x", key)
		}
		if got, want := len(strings.Split(word, "-")), strings.Count(key, "x"); got != want || strings.TrimSpace(word) == "" {
			return fmt.Errorf(
				"the word %q has %d syllables, but %d notes start in its pattern %s: part the syllables with hyphens",
				word,
				got,
				want,
				key,
			)
		}
	}
	return nil
}

// broadTriplet begins the pattern of a triplet that fills two beats.
const broadTriplet = "2:"

// words is what is said at each place of each measure.
type words []map[score.Fraction]string

func (w words) at(now moment) string {
	if word, ok := w[now.measure][now.place]; ok {
		return word
	}
	return now.pace.at(Numbers, now.place, now.tuplet)
}

// wordsOf finds each beat's word and deals its syllables out. A beat whose
// pattern has no word is counted in numbers.
func wordsOf(p score.Part, o Options) words {
	if o.School != Words {
		return nil
	}
	table := o.Words
	if table == nil {
		table = DefaultWords()
	}
	said := make(words, len(p.Measures))
	for i, m := range p.Measures {
		said[i] = map[score.Fraction]string{}
		pc := paceOf(m.Meter, o)
		end := m.Offset.Add(m.Length)
		for at := m.Offset.Sub(m.Offset.Within(pc.beat)); at.Less(end); at = at.Add(pc.beat) {
			key, starts := beatPattern(m, at, pc)
			if broad := broadAt(m, at, pc); !broad.IsZero() {
				wide := pc
				wide.beat = broad
				key, starts = beatPattern(m, at, wide)
				key = broadTriplet + key
				at = at.Add(pc.beat)
			}
			syllables := strings.Split(table[key], "-")
			if table[key] == "" || len(syllables) != len(starts) {
				continue
			}
			for k, place := range starts {
				said[i][place] = syllables[k]
			}
		}
	}
	return said
}

// broadAt is the length of the triplet of two beats that begins at a place, 0 where
// there is none.
func broadAt(m score.Measure, at score.Fraction, pc pace) score.Fraction {
	for j, e := range m.Events {
		if e.Start != at || !e.TupletStarts || e.Value.Tuplet.Actual != 3 {
			continue
		}
		if _, length := tupletFrom(m, j); length == pc.beat.Add(pc.beat) {
			return length
		}
	}
	return score.Fraction{}
}

// beatPattern writes the beat that begins at from as a WordTable key, "" when
// its notes do not lie on the grid, and lists where notes start in it.
func beatPattern(m score.Measure, from score.Fraction, pc pace) (string, []score.Fraction) {
	parts := int64(4)
	if pc.compound {
		parts = 6
	}
	for _, e := range m.Events {
		if inside := e.Start.Sub(from); e.Value.Tuplet.Actual == 3 && !inside.Less(score.Fraction{}) && inside.Less(pc.beat) {
			parts = 6
		}
	}
	step := pc.beat.Div(score.Frac(parts, 1))
	key := make([]byte, parts)
	var starts []score.Fraction
	for k := range key {
		place := from.Add(step.Mul(score.Frac(int64(k), 1)))
		key[k] = '.'
		for _, e := range m.Events {
			switch {
			case e.Kind == score.Rest:
			case e.Start == place && !e.Tied:
				key[k] = 'x'
				starts = append(starts, place)
			case !place.Less(e.Start) && place.Less(e.Start.Add(e.Length)):
				key[k] = '-'
			}
		}
	}
	for _, e := range m.Events {
		inside := e.Start.Sub(from)
		if !inside.Less(score.Fraction{}) && inside.Less(pc.beat) && !inside.Within(step).IsZero() {
			return "", nil
		}
	}
	return string(key), starts
}
