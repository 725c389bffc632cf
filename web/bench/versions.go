package bench

import (
	"errors"
	"fmt"
	"net/http"
	"net/url"
	"strconv"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/format"
	"unhurriedbench/core/format/abc"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
	"unhurriedbench/web/site"
)

// ExportLink is the address of the part, or of the line in its place, as a file.
func (v benchView) ExportLink(as string) string {
	q := url.Values{}
	q.Set("instrument", v.Instrument.ID)
	q.Set("as", as)
	if v.InDrill() {
		v.Ask.LineInto(q)
		if v.Class.ID != 0 {
			q.Set("class", strconv.FormatInt(int64(v.Class.ID), 10))
		}
	}
	return fmt.Sprintf("/exercises/%d/export?%s", v.Exercise.ID, q.Encode())
}

// Saved is the student at hand, also while nobody is marked; 0 for none.
func (v benchView) Saved() store.StudentID { return max(v.Student.ID, v.Ask.Student) }

// OneNoteAsked is the concert note that was asked for, "" for the class's.
func (v benchView) OneNoteAsked() string { return v.Ask.OneNote }

// Firsts are how many notes adding a note may begin with, and First how many it does.
func (v benchView) Firsts() []int {
	var list []int
	for n := breakdown.FewestFirst; n <= breakdown.MostFirst; n++ {
		list = append(list, n)
	}
	return list
}

// First is how many notes adding a note begins with.
func (v benchView) First() int {
	return breakdown.FirstNotes(v.Ask.First)
}

// saveLine makes the drill or another line of an exercise an exercise of the same book,
// with the next number that is free.
func (s *handlers) saveLine(w http.ResponseWriter, r *http.Request) error {
	ctx, desk, ask := r.Context(), site.ClassOf(r), askOf(r)
	v, err := loadBench(ctx, desk, ask)
	if err != nil {
		return err
	}
	if !v.InDrill() {
		s.Flash(r, "There is nothing here to make an exercise of.")
		http.Redirect(w, r, v.Link("line", ""), http.StatusSeeOther)
		return nil
	}
	number, err := desk.NextNumber(ctx, v.Exercise.BookID)
	if err != nil {
		return err
	}
	title := fmt.Sprintf("%s %d, %s", v.LineTitle(), v.Exercise.Number, v.Instrument.Name)
	music := score.Score{Title: title, Parts: []score.Part{v.Report.Part}}
	id, err := desk.AddExercise(ctx, store.Exercise{Book: v.Exercise.Book, Number: number, Title: title,
		WrittenFor: v.Instrument.ID},
		store.Source{Format: format.ABC, Content: abc.Write(music)})
	if errors.Is(err, store.ErrTaken) {
		err = fmt.Errorf("number %d was taken meanwhile: %w", number, err)
	}
	if err != nil {
		return err
	}
	s.Flash(r, fmt.Sprintf("The %s is exercise %d of %s now, with stages and marks of its own.", v.LineWord(),
		number, v.Exercise.Book))
	http.Redirect(w, r, fmt.Sprintf("/bench/%d?instrument=%s", id, v.Instrument.ID), http.StatusSeeOther)
	return nil
}
