package breakdown

import (
	"fmt"
	"strings"

	"unhurriedbench/core/score"
)

// Source is an exercise whose rhythms are looked through for pairs.
type Source struct {
	ID   int64
	Part score.Part
}

// Stretch is two measures of an exercise, by their numbers.
type Stretch struct {
	ID       int64
	From, To int
}

// Pair is two stretches worth laying beside each other.
type Pair struct {
	A, B Stretch
	Why  string
}

const (
	// mostStretches bounds how much of a book is looked through for pairs.
	mostStretches = 600
	// fewestNotes is how many notes a stretch has that is worth comparing.
	fewestNotes = 4
)

// Pairs finds stretches of two measures in different exercises that are worth
// comparing, at most n: first those that count the same and are written differently,
// then those of which one note stands elsewhere, then those that are the same.
func Pairs(sources []Source, n int) []Pair {
	var differ, near, same []Pair
	counted, without := map[string]heardStretch{}, map[string]heardStretch{}
	looked := 0
	for _, s := range sources {
		for i := 0; i+1 < len(s.Part.Measures) && looked < mostStretches; i++ {
			h, worth := hearStretch(s, i)
			if !worth {
				continue
			}
			looked++
			if other, known := counted[h.rhythm]; known && other.ID != h.ID {
				if other.look != h.look {
					differ = append(differ, Pair{other.Stretch, h.Stretch, "they look different"})
				} else {
					same = append(same, Pair{other.Stretch, h.Stretch, "they look alike"})
				}
			} else if !known {
				counted[h.rhythm] = h
			}
			for _, key := range h.without {
				if other, known := without[key]; known && other.ID != h.ID && other.rhythm != h.rhythm {
					near = append(near, Pair{other.Stretch, h.Stretch, "they look nearly alike"})
				} else if !known {
					without[key] = h
				}
			}
		}
	}
	return spread([][]Pair{differ, near, same}, n)
}

// spread takes pairs from each list in turn, each exercise pair once.
func spread(lists [][]Pair, n int) []Pair {
	var found []Pair
	seen := map[[2]int64]bool{}
	for round := 0; len(found) < n && round < mostStretches; round++ {
		for k := range lists {
			for len(lists[k]) > 0 {
				p := lists[k][0]
				lists[k] = lists[k][1:]
				if between := [2]int64{p.A.ID, p.B.ID}; !seen[between] {
					seen[between] = true
					found = append(found, p)
					break
				}
			}
		}
	}
	return found[:min(len(found), n)]
}

// heardStretch is a stretch as it sounds and as it looks.
type heardStretch struct {
	Stretch
	rhythm  string   // meter, onsets and lengths
	look    string   // the values as written
	without []string // the onsets but for one
}

func hearStretch(s Source, i int) (heardStretch, bool) {
	a, b := s.Part.Measures[i], s.Part.Measures[i+1]
	h := heardStretch{Stretch: Stretch{s.ID, a.Number, b.Number}}
	if a.Number < 1 || b.Number != a.Number+1 || a.Meter != b.Meter || b.EndingStart || a.RepeatEnd {
		return h, false
	}
	var sounds []sound
	var look strings.Builder
	for _, m := range []score.Measure{a, b} {
		from := score.Fraction{}
		if m.Number == b.Number {
			from = a.Length
		}
		for _, e := range m.Events {
			fmt.Fprintf(&look, "%v%v", e.Kind, e.Value)
			if e.Kind == score.Note {
				sounds = joinSound(sounds, e, from.Add(e.Start))
			}
		}
	}
	if len(sounds) < fewestNotes {
		return h, false
	}
	var onsets []string
	var rhythm strings.Builder
	for _, n := range sounds {
		fmt.Fprintf(&rhythm, "%s+%s,%v ", n.start, n.length, n.struck)
		onsets = append(onsets, n.start.String())
	}
	h.rhythm, h.look = a.Meter.String()+" "+rhythm.String(), look.String()
	for k := range onsets {
		h.without = append(
			h.without,
			fmt.Sprintf("%s %d %s", a.Meter, len(onsets), strings.Join(append(append([]string{}, onsets[:k]...),
				onsets[k+1:]...), " ")),
		)
	}
	return h, true
}
