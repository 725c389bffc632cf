package web

import (
	"cmp"
	"context"
	"fmt"
	"net/http"
	"net/url"
	"strconv"
	"strings"

	"unhurriedbench/core/format/mei"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/play"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
	"unhurriedbench/teach"
)

// otherLine is the line that goes with the one at hand: line A or B of an exercise of two, or
// a later voice of a round.
type otherLine struct {
	Lines  store.SecondLine
	Letter string      // of the line at hand, "" of a round
	Other  string      // of the other line
	Shown  string      // how it stands over the music: "small", "large" or "none"
	Part   *score.Part // as the instrument at hand reads it, nil where it does not go with the line
	Why    string      // it does not
	Given  string      // the line that the student at hand has, or the section
}

// The ways to show the other line, the first where nothing is asked for.
var otherShown = []offered{{"small", "small above it"}, {"large", "as large"}, {"none", "left out"}}

// scales are how large the other line is, in hundredths.
var scales = map[string]int{"small": 64, "large": 100}

// otherLine finds the line that goes with what was chosen. A derived line has none.
func loadOtherLine(ctx context.Context, desk *teach.Class, kept taughtBy, c choice, x explained) (otherLine, error) {
	if x.InDrill() {
		return otherLine{}, nil
	}
	lines, err := desk.SecondLine(ctx, c.Exercise.ID)
	if err != nil || lines == (store.SecondLine{}) {
		return otherLine{}, err
	}
	o := otherLine{Lines: lines, Letter: lines.Letter(c.Exercise.ID), Shown: otherShown[0].Value, Given: cmp.Or(c.Student.Line, c.Section.Line)}
	for _, known := range otherShown {
		if known.Value == c.ask.other {
			o.Shown = known.Value
		}
	}
	part := x.Report.Part
	if lines.B == 0 {
		later := part.Delayed(lines.Entry)
		o.Part, o.Other = &later, "the next voice"
		return o, nil
	}
	other := lines.B
	o.Other = "line B"
	if o.Letter == "B" {
		other, o.Other = lines.A, "line A"
	}
	made, err := madePart(ctx, desk, kept, other, c.Instrument)
	if err != nil {
		o.Why = fmt.Sprintf("%s cannot be read any more.", strings.ToUpper(o.Other[:1])+o.Other[1:])
		return o, nil
	}
	if !score.SameMeasures(part, made) {
		o.Why = "The two lines do not have the same measures, so they cannot stand together."
		return o, nil
	}
	o.Part = &made
	return o, nil
}

// madePart is an exercise as an instrument's Bench has it, without what is explained.
func madePart(ctx context.Context, desk *teach.Class, kept taughtBy, id store.ExerciseID, target instrument.Instrument) (score.Part, error) {
	x, err := desk.Exercise(ctx, id)
	if err != nil {
		return score.Part{}, err
	}
	part, err := desk.Reader.Part(ctx, desk, x, target.ID)
	if err != nil {
		return score.Part{}, err
	}
	placed, err := desk.Placed(ctx, x, target)
	return instrument.Make(part.Source, part.WrittenFor, target, placed).Part, err
}

// markEntries writes over a round where the next voices enter: 2 after the first entry, 3
// after the second, and so on, four voices at most (common practice).
func markEntries(part score.Part, entry int) score.Part {
	part.Measures = append([]score.Measure(nil), part.Measures...)
	for voice := 2; voice <= 4; voice++ {
		for i := range part.Measures {
			if m := &part.Measures[i]; m.Number == entry*(voice-1)+1 && !m.Split && m.Rehearsal == "" {
				m.Rehearsal = strconv.Itoa(voice)
			}
		}
	}
	return part
}

// engraved adds to how the Bench's music is written what goes with it.
func (o otherLine) engraved(opt mei.Options) mei.Options {
	if o.Part != nil && o.Shown != "none" {
		opt.Other, opt.OtherScale = o.Part, scales[o.Shown]
	}
	return opt
}

// Two says whether there is another line.
func (o otherLine) Two() bool { return o.Lines != store.SecondLine{} }

// Otherwise lists the ways to show the other line.
func (o otherLine) Otherwise() []offered { return otherShown }

// Letters names the two lines.
func (o otherLine) Letters() []string { return []string{"A", "B"} }

// SecondLink is the Bench of the other line, kept to whichever line is given.
func (v benchView) SecondLink(letter string) string {
	id := v.Second.Lines.A
	if letter == "B" {
		id = v.Second.Lines.B
	}
	v.ask.keep = true
	return strings.Replace(v.Here(), fmt.Sprintf("/bench/%d?", v.Exercise.ID), fmt.Sprintf("/bench/%d?", id), 1)
}

// otherInto writes into an address how the other line is shown, and that this one is kept to.
func (a benchAsk) otherInto(q url.Values) {
	if a.other != "" {
		q.Set("other", a.other)
	}
	if a.keep {
		q.Set("keep", "yes")
	}
}

// CompareLink sets line A beside line B.
func (v benchView) CompareLink() string {
	return fmt.Sprintf("/compare?a=%d&b=%d", v.Second.Lines.A, v.Second.Lines.B)
}

// heardOther is the other line as it is heard beside the piece at hand, nil for none.
func (v benchView) heardOther() *heardRound {
	if v.Second.Part == nil {
		return nil
	}
	round := newHeardRound(play.RoundOf(*v.Second.Part, v.played))
	return &round
}

// givenElsewhere is the address of the line that the student at hand, or the section, has
// been given, where it is not the one that is asked for; "" where it is, or where this one
// is asked for all the same.
func (v benchView) givenElsewhere(r *http.Request) string {
	o := v.Second
	if o.Letter == "" || o.Given == "" || o.Given == o.Letter || v.ask.keep || r.Header.Get("HX-Target") == "side" {
		return ""
	}
	return v.SecondLink(o.Given)
}

// keepSecond makes an exercise one of two lines, a round, or one of one line again.
func (s *Server) keepSecond(w http.ResponseWriter, r *http.Request) {
	ctx, desk := r.Context(), deskOf(r)
	x, err := desk.Exercise(ctx, idOf[store.ExerciseID](r))
	if err != nil {
		s.failed(w, r, err)
		return
	}
	refuse := func(problem string) {
		s.showParts(w, r, http.StatusUnprocessableEntity, partsView{Problems: []string{problem}, Entry: text(r, "entry")})
	}
	said := ""
	switch text(r, "what") {
	case "round":
		entry := int(number(r, "entry"))
		if entry < 1 || entry > store.MostEntry || entry >= x.Outline.Measures {
			refuse(fmt.Sprintf("The next voice enters after 1 to %d full measures of this exercise.", max(1, min(store.MostEntry, x.Outline.Measures-1))))
			return
		}
		err, said = desk.KeepSecondLine(ctx, store.SecondLine{A: x.ID, Entry: entry}), fmt.Sprintf("It is a round now: the next voice enters after %s.", numbered(entry, "measure", "measures"))
	case "exercise":
		other := store.ExerciseID(number(r, "other"))
		if other == 0 || other == x.ID {
			refuse("Choose the exercise that is line B.")
			return
		}
		err, said = desk.KeepSecondLine(ctx, store.SecondLine{A: x.ID, B: other}), "They are lines A and B now."
	case "part":
		err = s.addLineFromPart(ctx, desk, x, int(number(r, "part")))
		said = "The part of the file is line B now, an exercise of its own."
	default:
		err, said = desk.DropSecondLine(ctx, x.ID), "It is an exercise of one line again. The other stays on the Shelf."
	}
	if err != nil {
		s.failed(w, r, err)
		return
	}
	s.flash(r, said)
	http.Redirect(w, r, fmt.Sprintf("/exercises/%d/parts", x.ID), http.StatusSeeOther)
}

// addLineFromPart puts another part of an exercise's source on the Shelf as its line B.
func (s *Server) addLineFromPart(ctx context.Context, desk *teach.Class, x store.Exercise, part int) error {
	if part < 0 || part >= x.FileParts || part == x.Part {
		return fmt.Errorf("find the part: %w", store.ErrNotFound)
	}
	source, err := desk.Source(ctx, x.Hash)
	if err != nil {
		return err
	}
	next, err := desk.NextNumber(ctx, x.BookID)
	if err != nil {
		return err
	}
	id, err := desk.AddExercise(ctx, store.Exercise{Book: x.Book, Number: next, Title: x.Title + ", line B", Part: part, WrittenFor: x.WrittenFor}, source)
	if err != nil {
		return err
	}
	return desk.KeepSecondLine(ctx, store.SecondLine{A: x.ID, B: id})
}

// giveLine gives the student at hand a line, or the section.
func (s *Server) giveLine(w http.ResponseWriter, r *http.Request) {
	ctx, desk := r.Context(), deskOf(r)
	line := text(r, "line")
	if line != "A" && line != "B" {
		line = ""
	}
	var err error
	if student := store.StudentID(number(r, "student")); student != 0 {
		err = desk.KeepStudentLine(ctx, student, line)
	} else {
		err = desk.KeepSectionLine(ctx, store.SectionID(number(r, "section")), line)
	}
	if err != nil {
		s.failed(w, r, err)
		return
	}
	http.Redirect(w, r, backToBench(r, "/"), http.StatusSeeOther)
}
