package breakdown

import "unhurriedbench/core/score"

// Met is what a player has met in earlier exercises. A nil one is nothing.
type Met struct {
	letters map[score.Step]map[int]bool // with which alterations
	places  map[int]bool                // on the staff, by their letter counted from C0
	known   []score.Pitch               // one for each place, in the order met
}

// PitchesOf lists the written pitches of a part, each once, in the order met.
func PitchesOf(part score.Part) []score.Pitch {
	var list []score.Pitch
	seen := map[score.Pitch]bool{}
	for _, at := range part.Notes() {
		if e := part.At(at); !e.Unpitched && !seen[e.Pitch] {
			seen[e.Pitch] = true
			list = append(list, e.Pitch)
		}
	}
	return list
}

// MetIn is what is met in some written pitches.
func MetIn(pitches ...score.Pitch) *Met {
	m := &Met{letters: map[score.Step]map[int]bool{}, places: map[int]bool{}}
	for _, p := range pitches {
		m.Add(p)
	}
	return m
}

// Add records a written pitch.
func (m *Met) Add(p score.Pitch) {
	if m.letters[p.Step] == nil {
		m.letters[p.Step] = map[int]bool{}
	}
	m.letters[p.Step][p.Alter] = true
	if place := p.Diatonic(); !m.places[place] {
		m.places[place] = true
		m.known = append(m.known, p)
	}
}

// Holds says whether a place on the staff has been met, and its letter as it is now.
func (m *Met) Holds(p score.Pitch) bool { return m.places[p.Diatonic()] && m.letters[p.Step][p.Alter] }

// as says with which alterations a letter has been met.
func (m *Met) as(step score.Step) map[int]bool {
	if m == nil {
		return nil
	}
	return m.letters[step]
}

// Places lists the places on the staff that have been met, each by its first pitch.
func (m *Met) Places() []score.Pitch {
	if m == nil {
		return nil
	}
	return m.known
}
