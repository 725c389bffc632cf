package teach

import (
	"strings"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/name"
	"unhurriedbench/core/progress"
	"unhurriedbench/core/score"
)

// StaffRow is notes on a staff, each with how far it is held.
type StaffRow struct {
	Clef  score.Clef
	Notes []StaffNote
}

// StaffNote is a note on a staff with its name.
type StaffNote struct {
	progress.OwnNote
	Name string
}

// MostOnRow is how many notes are.
const MostOnRow = 16

// NewStaffRows lays out the notes that a student has met, some to a row.
func NewStaffRows(notes []progress.OwnNote, i instrument.Instrument, o name.Options) []StaffRow {
	if o.System == name.Degrees { // which need a key
		o.System = name.Letters
	}
	var rows []StaffRow
	for k, n := range notes {
		if k%MostOnRow == 0 {
			rows = append(rows, StaffRow{Clef: i.Clef})
		}
		row := &rows[len(rows)-1]
		row.Notes = append(row.Notes, StaffNote{n, o.Show(n.Pitch, false, score.Key{})})
	}
	return rows
}

// Words are what a picture of the row is called.
func (r StaffRow) Words() string {
	words := make([]string, len(r.Notes))
	for k, n := range r.Notes {
		words[k] = n.Name + " " + string(n.Hold)
		if n.Doubt != "" {
			words[k] += ", in question"
		}
	}
	return strings.Join(words, "; ")
}
