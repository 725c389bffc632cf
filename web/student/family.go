package student

import (
	"net/http"

	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// family is the page for a student's family, to be printed for a talk with the teacher.
func (s *handlers) family(w http.ResponseWriter, r *http.Request) error {
	h, err := teach.LoadRecord(r.Context(), site.ClassOf(r), site.ID[store.StudentID](r), 0)
	if err != nil {
		return err
	}
	v := teach.NewFamilyPage(h, s.Now())
	if v.Plan, err = teach.LoadPracticePlan(r.Context(), site.ClassOf(r), h.Student.ID); err != nil {
		return err
	}
	s.Page(w, r, http.StatusOK, "family", v.Student.Name()+" for the family", v)
	return nil
}
