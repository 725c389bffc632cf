package web

import (
	"errors"
	"fmt"
	"net/http"
	"net/url"
	"strconv"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/finger"
	"unhurriedbench/core/format"
	"unhurriedbench/core/format/abc"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
)

// openLine puts the line that is asked for in place of the exercise, with pieces of its
// own; one that cannot be made leaves the exercise.
func (x *explained) openLine(c *choice) error {
	x.Of = x.Report.Pieces
	x.From, _ = breakdown.ParsePieceKey(c.ask.of)
	within := breakdown.Piece{}
	for _, p := range x.Of {
		if p.Key() == x.From || len(within.At) == 0 {
			within = p
		}
	}
	x.From = within.Key()
	c.ask.of = x.From.String()
	switch {
	case c.ask.line == drillLine && len(x.Drills) > 0:
		music, pieces := x.Report.DrillScore(x.Drills)
		x.Options.Finger.Preferred, x.Options.Finger.Placed, x.Options.Finger.Plain = x.drillFingerings(), nil, true
		x.stand(c, music, pieces)
		return nil
	case x.canMake(c.ask.line):
		d, err := breakdown.Derive(c.ask.line, x.Report.Title, x.Report.Part, x.Of, within, c.oneNotePitch())
		if err != nil {
			return fmt.Errorf("derive a line: %w", err)
		}
		x.Options.Finger.Placed = placedInLine(d, x.Options.Finger.Placed)
		x.stand(c, d.Score, d.Pieces)
		return nil
	}
	c.ask.line = ""
	return nil
}

func (x *explained) canMake(line breakdown.Line) bool {
	for _, l := range x.Lines {
		if l == line {
			return true
		}
	}
	return false
}

// stand puts music written for the instrument in place of the exercise.
func (x *explained) stand(c *choice, music score.Score, pieces []breakdown.Piece) {
	x.Line, x.Options.Placed.Chosen = c.ask.line, false
	o := x.Options
	o.Pencils, o.Pieces = nil, nil // they belong to the exercise
	beat := x.Report.Part.Meter().Beat()
	x.Report = breakdown.Read(music, music.Parts[0], c.Instrument.ID, c.Instrument, nil, o)
	if x.Report.Part.Meter().Beat() != beat { // a tempo in other beats says nothing of it
		x.Tempo = x.Report.Tempo.Suggested
	}
	x.Report.Pieces, x.Octaves, x.Remarks, x.tempo, x.tempoWords = pieces, nil, nil, score.Tempo{}, ""
	c.piecesOf(x.Report)
}

// placedInLine takes what the teacher chose for single places along to a line.
func placedInLine(d breakdown.Derived, placed map[score.Place]finger.Spot) map[score.Place]finger.Spot {
	there := map[score.Place]finger.Spot{}
	for i, m := range d.Score.Parts[0].Measures {
		for j := range m.Events {
			at := score.Place{Measure: i, Event: j}
			if from, ok := d.From(at); ok {
				if spot, chosen := placed[from]; chosen {
					there[at] = spot
				}
			}
		}
	}
	return there
}

// oneNotePitch is the written pitch of the concert note that was asked for, or that suits
// the section.
func (c *choice) oneNotePitch() score.Pitch {
	class := instrument.SuggestOneNote(c.present())
	for _, known := range instrument.OneNotes() {
		if keyOf(known) == c.ask.oneNote {
			class = known
		}
	}
	return instrument.WrittenFor(class, c.Instrument)
}

// present lists the instruments of the section.
func (c *choice) present() []instrument.Instrument {
	var list []instrument.Instrument
	for _, tab := range c.Tabs {
		if tab.Students > 0 {
			list = append(list, tab.Instrument)
		}
	}
	return list
}

// lineInto writes which line is asked for into an address.
func (a benchAsk) lineInto(q url.Values) {
	q.Set("line", string(a.line))
	if a.of != "" {
		q.Set("of", a.of)
	}
	if a.line == breakdown.OneNote && a.oneNote != "" {
		q.Set("one", a.oneNote)
	}
}

// ExportLink is the address of the part, or of the line in its place, as a file.
func (v benchView) ExportLink(as string) string {
	q := url.Values{}
	q.Set("instrument", v.Instrument.ID)
	q.Set("as", as)
	if v.InDrill() {
		v.ask.lineInto(q)
		if v.Section.ID != 0 {
			q.Set("section", strconv.FormatInt(int64(v.Section.ID), 10))
		}
	}
	return fmt.Sprintf("/exercises/%d/export?%s", v.Exercise.ID, q.Encode())
}

// LineTitle leads the title of the exercise where a line stands in its place.
func (x explained) LineTitle() string {
	switch x.Line {
	case "":
		return ""
	case drillLine:
		return "Hard changes of"
	}
	return x.Line.Title() + ":"
}

// LineWhy says what the line is for.
func (x explained) LineWhy() string {
	if x.Line == drillLine {
		return "Two notes at a time, longer values first, hardest change first."
	}
	return x.Line.Why()
}

// TakesPiece says whether the line is made of one piece.
func (x explained) TakesPiece() bool {
	return x.Line.TakesPiece()
}

// Kept is the student at hand, also while nobody is marked; 0 for none.
func (v benchView) Kept() store.StudentID { return max(v.Student.ID, v.ask.student) }

// OneNoteAsked is the concert note that was asked for, "" for the section's.
func (v benchView) OneNoteAsked() string { return v.ask.oneNote }

// drillFingerings are the ways of the drilled notes in the exercise.
func (x *explained) drillFingerings() finger.Preferred {
	ways := finger.Preferred{}
	for midi, text := range x.Options.Finger.Preferred {
		ways[midi] = text
	}
	for _, d := range x.Drills {
		ways[d.From.Pitch.MIDI()], ways[d.To.Pitch.MIDI()] = d.From.Text, d.To.Text
	}
	return ways
}

// keepLine makes the drill or another line of an exercise an exercise of the same book,
// with the next number that is free.
func (s *Server) keepLine(w http.ResponseWriter, r *http.Request) {
	ctx, desk, ask := r.Context(), deskOf(r), askOf(r)
	v, err := loadBench(ctx, desk, ask)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	if !v.InDrill() {
		s.flash(r, "There is nothing here that is worth a line of its own.")
		http.Redirect(w, r, v.Link("line", ""), http.StatusSeeOther)
		return
	}
	number, err := desk.NextNumber(ctx, v.Exercise.BookID)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	title := fmt.Sprintf("%s %d, %s", v.LineTitle(), v.Exercise.Number, v.Instrument.Name)
	music := score.Score{Title: title, Parts: []score.Part{v.Report.Part}}
	id, err := desk.AddExercise(ctx, store.Exercise{Book: v.Exercise.Book, Number: number, Title: title, WrittenFor: v.Instrument.ID},
		store.Source{Format: format.ABC, Content: abc.Write(music)})
	if errors.Is(err, store.ErrTaken) {
		err = fmt.Errorf("number %d was taken meanwhile: %w", number, err)
	}
	if err != nil {
		s.failed(w, r, err)
		return
	}
	s.flash(r, fmt.Sprintf("The %s is exercise %d of %s now, with stages and marks of its own.", v.LineWord(), number, v.Exercise.Book))
	http.Redirect(w, r, fmt.Sprintf("/bench/%d?instrument=%s", id, v.Instrument.ID), http.StatusSeeOther)
}

func (x explained) LineWord() string {
	if x.Line == drillLine {
		return "drill"
	}
	return "line"
}
