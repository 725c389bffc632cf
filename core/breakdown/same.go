package breakdown

import (
	"unhurriedbench/core/score"
)

// Recurrence says that some measures repeat earlier ones: in rhythm and pitch
// ("same"), in rhythm with every note moved by as many steps ("shifted"), in their notes
// with another rhythm ("notes"), or in rhythm alone ("rhythm").
type Recurrence struct {
	Measures []int  `json:"measures"`
	As       []int  `json:"as"`
	How      string `json:"how"`
}

// sound is a struck note as the measure hears it, its ties joined, or what is
// left of one that was struck before.
type sound struct {
	start, length score.Fraction
	diatonic      int
	midi          int
	struck        bool
}

// Recurrences looks for every measure's closest match among the earlier ones and
// joins neighbouring matches into runs. Measures of rest alone are not listed.
func Recurrences(part score.Part) []Recurrence {
	heard := hear(part)
	found := []Recurrence{}
	for i := 0; i < len(heard); {
		from, how := match(heard, i)
		if how == "" {
			i++
			continue
		}
		n := 1
		for i+n < len(heard) && from+n < i && goesOn(how, heard[from], heard[i], heard[from+n], heard[i+n]) {
			n++
		}
		found = append(found, Recurrence{numbers(part, i, n), numbers(part, from, n), how})
		i += n
	}
	return found
}

// goesOn says whether a run that matched in one way from measures a and b goes on
// in c and d: in the same way, and shifted by as much. A single note that is
// moved counts as shifted here.
func goesOn(how string, a, b, c, d []sound) bool {
	match := compare(c, d)
	if how != "shifted" {
		return match == how
	}
	return (match == how || match == "rhythm" && len(c) == 1) && shift(a, b) == shift(c, d)
}

func numbers(part score.Part, from, n int) []int {
	list := make([]int, n)
	for k := range list {
		list[k] = part.Measures[from+k].Number
	}
	return list
}

// match finds the earliest measure most like measure i.
func match(heard [][]sound, i int) (int, string) {
	best, found := 0, ""
	for j := range i {
		if how := compare(heard[j], heard[i]); rank[how] > rank[found] {
			best, found = j, how
		}
	}
	return best, found
}

// rank is how much a likeness saves.
var rank = map[string]int{"": 0, "rhythm": 1, "notes": 2, "shifted": 3, "same": 4}

func compare(a, b []sound) string {
	if sameNotes(a, b) {
		return "notes"
	}
	if len(a) == 0 || len(a) != len(b) {
		return ""
	}
	same, shifted := true, true
	for k := range a {
		if a[k].start != b[k].start || a[k].length != b[k].length || a[k].struck != b[k].struck {
			return ""
		}
		same = same && a[k].midi == b[k].midi
		shifted = shifted && b[k].diatonic-a[k].diatonic == shift(a, b)
	}
	switch {
	case same:
		return "same"
	case shifted && len(a) > 1 && shift(a, b) != 0:
		return "shifted"
	}
	return "rhythm"
}

// sameNotes says whether two measures strike the same notes in different rhythms: three or
// more, not all alike.
func sameNotes(a, b []sound) bool {
	if len(a) != len(b) || len(a) < 3 {
		return false
	}
	rhythm, alike := true, true
	for k := range a {
		if a[k].midi != b[k].midi || !a[k].struck || !b[k].struck {
			return false
		}
		rhythm = rhythm && a[k].start == b[k].start && a[k].length == b[k].length
		alike = alike && a[k].midi == a[0].midi
	}
	return !rhythm && !alike
}

func shift(a, b []sound) int { return b[0].diatonic - a[0].diatonic }

// hear lists what sounds in each measure: a note tied to the next one is as
// long as both together, within the measure.
func hear(part score.Part) [][]sound {
	heard := make([][]sound, len(part.Measures))
	for i, m := range part.Measures {
		heard[i] = make([]sound, 0, len(m.Events))
		for _, e := range m.Events {
			if e.Kind != score.Note {
				continue
			}
			heard[i] = joinSound(heard[i], e, e.Start)
		}
	}
	return heard
}

// joinSound adds a note to what is heard; one that is tied to the last makes it
// longer.
func joinSound(heard []sound, e score.Event, start score.Fraction) []sound {
	if n := len(heard); e.Tied && n > 0 {
		heard[n-1].length = heard[n-1].length.Add(e.Length)
		return heard
	}
	s := sound{start: start, length: e.Length, struck: !e.Tied}
	if !e.Unpitched {
		s.diatonic, s.midi = e.Pitch.Diatonic(), e.Pitch.MIDI()
	}
	return append(heard, s)
}
