package students

import (
	"fmt"
	"net/http"

	"unhurriedbench/store"
	"unhurriedbench/web/site"
)

// shareClass gives a class to a colleague, to teach or to look at.
func (s *handlers) shareClass(w http.ResponseWriter, r *http.Request) error {
	_, class, err := site.ClassOf(r).ChooseClass(r.Context(), site.ID[store.ClassID](r))
	if err != nil {
		return err
	}
	var f givingForm
	problem := site.First(s.Forms.Read(r, &f))
	if site.ActorOf(r).Teacher.Demo {
		problem = "The demo’s classes are everybody’s already: who opens it works in them."
	}
	if problem != "" {
		return s.showPeople(w, r, http.StatusUnprocessableEntity, peopleView{Problem: problem})
	}
	if err := site.ClassOf(r).ShareClass(r.Context(), class.ID, store.TeacherID(f.Colleague),
		f.May == "teach"); err != nil {
		return err
	}
	s.Flash(r, fmt.Sprintf("%s is shared. Your colleague finds it in Students and on the Board.", class.Name))
	http.Redirect(w, r, "/people", http.StatusSeeOther)
	return nil
}

// takeClassBack ends what a colleague had of a class.
func (s *handlers) takeClassBack(w http.ResponseWriter, r *http.Request) error {
	if err := site.ClassOf(r).StopSharing(r.Context(), site.ID[store.ClassID](r),
		store.TeacherID(site.Number(r, "colleague"))); err != nil {
		return err
	}
	s.Flash(r, "It is no longer shared. What your colleague marked is kept.")
	http.Redirect(w, r, "/people", http.StatusSeeOther)
	return nil
}
