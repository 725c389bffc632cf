package teach

import (
	"slices"

	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
)

// NoteToWrite is a note that is asked for by its name, to be drawn on a blank staff.
type NoteToWrite struct {
	Name   string `json:"name"`
	Alter  int    `json:"alter"`
	ByKey  int    `json:"byKey"`  // what the key signature makes of its letter
	Places []int  `json:"places"` // where it may stand: steps from the bottom line, in every octave of the instrument that is in reach
	Stands string `json:"stands"` // where it stands in the line: "line 3"
}

// LowestStaff and HighestStaff are how far from the bottom line notes are written, in steps: two
// ledger lines and the space beyond, which beginners write.
const (
	LowestStaff  = -5
	HighestStaff = 13
)

// mostToWrite is how many notes are asked for at most; the figure is ours.
const mostToWrite = 8

// NotesToWrite are the notes of a part in the order met, each once; what comes after a change of
// clef or key, a note beyond two ledger lines, and all of a part without pitch are left out.
func NotesToWrite(part score.Part, o name.Options) []NoteToWrite {
	list := []NoteToWrite{}
	if part.Unpitched() {
		return list
	}
	var met []score.Pitch
	clef, key := part.Clef(), part.Key()
	for _, m := range part.Measures {
		if m.Clef != clef || m.Key != key {
			break // the staff shows those of the beginning
		}
		for _, e := range m.Events {
			step := e.Pitch.Diatonic() - clef.BottomLine().Diatonic()
			if e.Kind != score.Note || step < LowestStaff || step > HighestStaff || slices.Contains(met, e.Pitch) || len(list) == mostToWrite {
				continue
			}
			met = append(met, e.Pitch)
			n := NoteToWrite{Alter: e.Pitch.Alter, ByKey: key.Alter(e.Pitch.Step), Stands: name.Place(e.Pitch, clef)}
			n.Name = o.Say(e.Pitch, n.ByKey != 0, key)
			for at := LowestStaff; at <= HighestStaff; at++ {
				if (at-step)%7 == 0 {
					n.Places = append(n.Places, at)
				}
			}
			list = append(list, n)
		}
	}
	return list
}

// PlacesOfStaff names every place of a staff from the lowest that is written to the highest.
func PlacesOfStaff(c score.Clef) []string {
	var list []string
	bottom := c.BottomLine().Diatonic()
	for at := bottom + LowestStaff; at <= bottom+HighestStaff; at++ {
		list = append(list, name.Place(score.NaturalAt(at), c))
	}
	return list
}

// Signature lists where the signs of a key signature stand, in steps from the bottom line, in their
// order. Source: common practice of engraving; the tenor clef's sharps climb otherwise.
func Signature(k score.Key, c score.Clef) []int {
	sharps, flats := []int{8, 5, 9, 6, 3, 7, 4}, []int{4, 7, 3, 6, 2, 5, 1} // under a treble clef
	shift := (score.MustPitch("E4").Diatonic() - c.BottomLine().Diatonic()) % 7
	if shift > 3 {
		shift -= 7
	}
	if c.Sign == "C" && c.Line == 4 && k.Fifths > 0 {
		return slices.Clone([]int{2, 6, 3, 7, 4, 8, 5}[:k.Fifths])
	}
	order := sharps[:max(k.Fifths, 0)]
	if k.Fifths < 0 {
		order = flats[:-k.Fifths]
	}
	var list []int
	for _, step := range order {
		list = append(list, step+shift)
	}
	return list
}
