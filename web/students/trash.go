package students

import (
	"errors"
	"fmt"
	"net/http"

	"github.com/go-chi/chi/v5"

	"unhurriedbench/store"
	"unhurriedbench/web/site"
)

// removedView is what was taken away, and who has left.
type removedView struct {
	Trash    []store.Trashed
	Left     []store.Left
	Overdue  int // of those who have left
	Months   int // that the owner wants records kept
	Problem  string
	Backups  string // what is to be said of them
	KindWord func(store.TrashKind) string
}

// trashWords are the kinds of what can be taken away, as the page says them.
var trashWords = map[store.TrashKind]string{store.TrashExercise: "exercise", store.TrashBook: "book",
	store.TrashClass: "class", store.TrashStudent: "student"}

func (s *handlers) removed(w http.ResponseWriter, r *http.Request) error {
	return s.showRemoved(w, r, http.StatusOK, "")
}

func (s *handlers) showRemoved(w http.ResponseWriter, r *http.Request, status int, problem string) error {
	ctx, desk := r.Context(), site.ClassOf(r)
	bin, err := desk.Trash(ctx)
	if err != nil {
		return err
	}
	left, err := desk.StudentsWhoLeft(ctx)
	if err != nil {
		return err
	}
	policy, err := s.Store.Policy(ctx)
	if err != nil {
		return err
	}
	v := removedView{Trash: bin, Left: left, Months: policy.RetainMonths, Problem: problem, Backups: s.BackupWords(),
		KindWord: func(what store.TrashKind) string { return trashWords[what] }}
	for _, student := range left {
		if student.Overdue {
			v.Overdue++
		}
	}
	s.Page(w, r, status, "removed", "Trash", v)
	return nil
}

// moveToTrash puts a book, a class or a student into the bin.
func (s *handlers) moveToTrash(what store.TrashKind, page string) http.HandlerFunc {
	return s.Handle(func(w http.ResponseWriter, r *http.Request) error {
		id := site.ID[int64](r)
		if err := site.ClassOf(r).MoveToTrash(r.Context(), what, id); err != nil {
			return err
		}
		s.Flash(r, fmt.Sprintf("The %s is deleted. For 30 days you can restore it.", trashWords[what]))
		s.Sessions.Put(r.Context(), "undo", fmt.Sprintf("/removed/%s/%d/back", what, id))
		http.Redirect(w, r, page, http.StatusSeeOther)
		return nil
	})
}

// restored takes something out of the bin.
func (s *handlers) restored(w http.ResponseWriter, r *http.Request) error {
	what := store.TrashKind(chi.URLParam(r, "what"))
	err := site.ClassOf(r).Restore(r.Context(), what, site.ID[int64](r))
	if errors.Is(err, store.ErrTaken) {
		return s.showRemoved(w, r, http.StatusUnprocessableEntity, map[store.TrashKind]string{
			store.TrashExercise: "It could not be put back: another exercise has its number now. Give that one another number first.",
			store.TrashBook:     "It could not be put back: another book has its title now.",
			store.TrashClass:    "It could not be put back: another class has its name now.",
		}[what])
	}
	if err != nil {
		return err
	}
	s.Flash(r, fmt.Sprintf("The %s is restored.", trashWords[what]))
	http.Redirect(w, r, map[store.TrashKind]string{store.TrashExercise: "/", store.TrashBook: "/",
		store.TrashClass: "/people", store.TrashStudent: "/people"}[what], http.StatusSeeOther)
	return nil
}

// eraseNow deletes for good what is in the bin.
func (s *handlers) eraseNow(w http.ResponseWriter, r *http.Request) error {
	if site.Text(r, "sure") != "yes" {
		return s.showRemoved(w, r, http.StatusUnprocessableEntity, site.NotErased)
	}
	what := store.TrashKind(chi.URLParam(r, "what"))
	if err := site.ClassOf(r).Erase(r.Context(), what, site.ID[int64](r)); err != nil {
		return err
	}
	s.Flash(r, fmt.Sprintf("The %s is deleted for good, with its log. %s", trashWords[what], s.BackupWords()))
	http.Redirect(w, r, "/removed", http.StatusSeeOther)
	return nil
}

// studentLeft takes a student off every list.
func (s *handlers) studentLeft(w http.ResponseWriter, r *http.Request) error {
	id := site.ID[store.StudentID](r)
	if err := site.ClassOf(r).HasLeft(r.Context(), id); err != nil {
		return err
	}
	s.Flash(r, "The student has left. The log is kept, under Former students.")
	s.Sessions.Put(r.Context(), "undo", fmt.Sprintf("/students/%d/return", id))
	http.Redirect(w, r, "/people", http.StatusSeeOther)
	return nil
}

// studentBack puts a student who had left on the lists again.
func (s *handlers) studentBack(w http.ResponseWriter, r *http.Request) error {
	if err := site.ClassOf(r).IsBack(r.Context(), site.ID[store.StudentID](r)); err != nil {
		return err
	}
	s.Flash(r, "The student is back, with the whole log.")
	http.Redirect(w, r, "/people", http.StatusSeeOther)
	return nil
}

// eraseOverdue deletes for good who has left longer ago than the owner wants records kept.
func (s *handlers) eraseOverdue(w http.ResponseWriter, r *http.Request) error {
	if site.Text(r, "sure") != "yes" {
		return s.showRemoved(w, r, http.StatusUnprocessableEntity, site.NotErased)
	}
	n, err := site.ClassOf(r).EraseOverdue(r.Context())
	if err != nil {
		return err
	}
	s.Flash(r, fmt.Sprintf("Former students deleted for good: %d. %s", n, s.BackupWords()))
	http.Redirect(w, r, "/removed", http.StatusSeeOther)
	return nil
}
