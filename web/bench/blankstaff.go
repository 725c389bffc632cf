package bench

import (
	"fmt"
	"net/http"

	"unhurriedbench/teach"
	"unhurriedbench/web/music"
	"unhurriedbench/web/site"
)

// blankView is a staff without notes, on which those of a line are written by hand.
type blankView struct {
	teach.Stand
	Staff music.BlankStaff
}

// BackLink leads to the Bench.
func (v blankView) BackLink() string { return backTo(v.Choice) }

// WriteLink leads to the blank staff of what is on the Bench.
func (v benchView) WriteLink() string {
	return fmt.Sprintf("/bench/%d/write?%s", v.Exercise.ID, atHand(v.Choice).Encode())
}

// writtenSign is a sign to put before a note.
type writtenSign struct {
	Word, Sign string
}

// Signs are those that may be written.
func (blankView) Signs() []writtenSign {
	return []writtenSign{{"flat", "♭"}, {"natural", "♮"}, {"sharp", "♯"}}
}

// writeNotes has the notes of a line drawn on a blank staff.
func (s *handlers) writeNotes(w http.ResponseWriter, r *http.Request) error {
	b, err := loadBench(r.Context(), site.ClassOf(r), askOf(r))
	if err != nil {
		return err
	}
	v := blankView{Stand: b.Stand}
	part := v.Report.Part
	v.Staff = music.BlankStaff{Clef: part.Clef(), Key: part.Key(), Notes: teach.NotesToWrite(part, v.Options.Name)}
	s.Page(w, r, http.StatusOK, "write", "Write the notes: "+v.Exercise.Title, v)
	return nil
}
