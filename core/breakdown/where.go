package breakdown

import (
	"fmt"
	"strings"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
)

// ReadNotes makes the part for an instrument from its source and explains its notes and how
// hard its measures are, without what a whole page needs: no lanes, no chunks, no lines.
func ReadNotes(s score.Score, source score.Part, writtenFor string, target instrument.Instrument, o Options) Report {
	o.ForPage = false
	r := readNotes(s, source, writtenFor, target, nil, o)
	r.addDifficulty(target, o.Finger.Year)
	return r
}

// Where says at which measure of a chunk a stumble of a cause most likely lies, and at what:
// "m. 4, C to F: the slide goes out, 5 positions". It is the measure that is hardest in what
// stumbled: its rhythm, its reading, its changes, or, for the sound, how high it goes, and on
// brass the change where that is harder. It is "" where nothing there is hard.
func (r Report) Where(key ChunkKey, cause routine.Cause, target instrument.Instrument) string {
	part := map[routine.Cause]int{routine.Rhythm: rhythmPart, routine.WrongName: readingPart,
		routine.Fingering: changePart, routine.Sound: rangePart}[cause]
	at := r.hardestIn(key, part)
	if cause == routine.Sound && target.Family == "brass" {
		if leap := r.hardestIn(key, changePart); leap >= 0 &&
			(at < 0 || r.weight(leap, changePart) > r.weight(at, rangePart)) {
			at, part = leap, changePart
		}
	}
	if at < 0 || cause == routine.None {
		return ""
	}
	var why string
	switch part {
	case rhythmPart:
		said, shortest := r.rhythmOf(at)
		if why = ": " + lowerFirst(said); said == "" {
			why = ": rhythm (" + score.ValueName(shortest, false) + "s)"
		}
	case readingPart:
		word, said := r.readingTrouble(at)
		if why = ": " + lowerFirst(said); word == "steps" { // which tells nothing
			why = ""
		}
	case changePart:
		why = ", " + r.changeTrouble(at)
	case rangePart:
		_, way, note := r.reach(at, target)
		why = ": it goes " + way + " to " + note
	}
	first, _, _ := strings.Cut(why, ". ")
	return fmt.Sprintf("m. %d%s", r.Measures[at].Number, strings.TrimSuffix(first, "."))
}

// hardestIn is the measure of a chunk, by its index, that is hardest in a part of the
// difficulty, the first of equals; -1 where none is hard in it.
func (r Report) hardestIn(key ChunkKey, part int) int {
	hardest := -1
	for i, m := range r.Measures {
		if m.Number < key.First || m.Number > key.Last || r.weight(i, part) == 0 {
			continue
		}
		if hardest < 0 || r.weight(i, part) > r.weight(hardest, part) {
			hardest = i
		}
	}
	return hardest
}

func (r Report) weight(i, part int) float64 {
	return weights[part] * *r.Measures[i].Difficulty.Parts.all()[part]
}

// lowerFirst begins a sentence small, unless it begins with a note's letter.
func lowerFirst(words string) string {
	first, _, _ := strings.Cut(words, " ")
	if len([]rune(first)) < 3 && first != "It" && first != "A" {
		return words
	}
	return strings.ToLower(words[:1]) + words[1:]
}
