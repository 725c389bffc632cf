package my

import (
	"net/http"
	"strings"

	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// ownNotesView is what a student can play, for themselves.
type ownNotesView struct {
	ownFrame
	Family teach.FamilyPage
	Staff  []teach.StaffRow
	Drums  bool // their instrument has no pitch
}

// ownNotes shows what a student can play: of nobody else, and without comparing.
func (s *handlers) ownNotes(w http.ResponseWriter, r *http.Request) error {
	f, err := newOwnFrame(r, "notes")
	if err != nil {
		return err
	}
	h, err := teach.LoadRecord(r.Context(), site.ClassOf(r), athome(r).Student.ID, 0)
	if err != nil {
		return err
	}
	f.Title = f.Say("notes.title")
	rows := h.Depth.Staff
	for k := range rows { // what is in question is for the teacher to mend
		for n := range rows[k].Notes {
			rows[k].Notes[n].Doubt = ""
		}
	}
	s.Render(w, http.StatusOK, "ownnotes", "own-layout", ownNotesView{f, teach.NewFamilyPage(h, s.Now()), rows,
		h.Instrument.Unpitched()})
	return nil
}

// Holds lists the changes that were hard and hold now.
func (v ownNotesView) Holds() string { return strings.Join(v.Family.Holds, "; ") }
