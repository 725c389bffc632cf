package shelf

import (
	"context"
	"fmt"
	"net/http"

	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// saveSecond makes an exercise one of two lines, a round, or one of one line again.
func (s *handlers) saveSecond(w http.ResponseWriter, r *http.Request) error {
	ctx, desk := r.Context(), site.ClassOf(r)
	x, err := desk.Exercise(ctx, site.ID[store.ExerciseID](r))
	if err != nil {
		return err
	}
	refuse := func(problem string) error {
		return s.showParts(w, r, http.StatusUnprocessableEntity, partsView{Problems: []string{problem},
			Entry: site.Text(r, "entry")})
	}
	said := ""
	switch site.Text(r, "what") {
	case "round":
		entry := int(site.Number(r, "entry"))
		if entry < 1 || entry > store.MostEntry || entry >= x.Outline.Measures {
			return refuse(fmt.Sprintf("The next voice enters after 1 to %d full measures of this exercise.",
				max(1, min(store.MostEntry, x.Outline.Measures-1))))
		}
		err, said = desk.SaveDuetPart(ctx, store.DuetPart{A: x.ID, Entry: entry}),
			fmt.Sprintf("It is a round now: the next voice enters after %s.", teach.Plural(entry, "measure", "measures"))
	case "exercise":
		other := store.ExerciseID(site.Number(r, "other"))
		if other == 0 || other == x.ID {
			return refuse("Choose the exercise that is part B.")
		}
		err, said = desk.SaveDuetPart(ctx, store.DuetPart{A: x.ID, B: other}), "They are lines A and B now."
	case "part":
		err = s.addLineFromPart(ctx, desk, x, int(site.Number(r, "part")))
		said = "The part of the file is part B now, an exercise of its own."
	default:
		err, said = desk.DeleteDuetPart(ctx, x.ID), "It is an exercise of one line again. The other stays on the Shelf."
	}
	if err != nil {
		return err
	}
	s.Flash(r, said)
	http.Redirect(w, r, fmt.Sprintf("/exercises/%d/parts", x.ID), http.StatusSeeOther)
	return nil
}

// addLineFromPart puts another part of an exercise's source on the Shelf as its part B.
func (s *handlers) addLineFromPart(ctx context.Context, desk *teach.Class, x store.Exercise, part int) error {
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
	id, err := desk.AddExercise(ctx, store.Exercise{Book: x.Book, Number: next, Title: x.Title + ", part B",
		Part: part, WrittenFor: x.WrittenFor}, source)
	if err != nil {
		return err
	}
	return desk.SaveDuetPart(ctx, store.DuetPart{A: x.ID, B: id})
}

// giveLine gives the student at hand a line, or the class.
func (s *handlers) giveLine(w http.ResponseWriter, r *http.Request) error {
	ctx, desk := r.Context(), site.ClassOf(r)
	line := site.Text(r, "line")
	if line != "A" && line != "B" {
		line = ""
	}
	var err error
	if student := store.StudentID(site.Number(r, "student")); student != 0 {
		err = desk.SaveStudentDuetPart(ctx, student, line)
	} else {
		err = desk.SaveClassDuetPart(ctx, store.ClassID(site.Number(r, "class")), line)
	}
	if err != nil {
		return err
	}
	http.Redirect(w, r, site.BackToBench(r, "/"), http.StatusSeeOther)
	return nil
}
