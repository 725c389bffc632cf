package students

import (
	"fmt"
	"net/http"

	"unhurriedbench/store"
	"unhurriedbench/web/site"
)

// giveSection gives a section to a colleague, to teach or to look at.
func (s *handlers) giveSection(w http.ResponseWriter, r *http.Request) error {
	_, section, err := site.ClassOf(r).ChooseSection(r.Context(), site.ID[store.SectionID](r))
	if err != nil {
		return err
	}
	var f givingForm
	problem := site.First(s.Forms.Read(r, &f))
	if site.ActorOf(r).Teacher.Demo {
		problem = "The demo’s sections are everybody’s already: who opens it works in them."
	}
	if problem != "" {
		return s.showPeople(w, r, http.StatusUnprocessableEntity, peopleView{Problem: problem})
	}
	if err := site.ClassOf(r).GiveSection(r.Context(), section.ID, store.TeacherID(f.Colleague), f.May == "teach"); err != nil {
		return err
	}
	s.Flash(r, fmt.Sprintf("%s is given. Your colleague finds it in People and on the Board.", section.Name))
	http.Redirect(w, r, "/people", http.StatusSeeOther)
	return nil
}

// takeSectionBack ends what a colleague had of a section.
func (s *handlers) takeSectionBack(w http.ResponseWriter, r *http.Request) error {
	if err := site.ClassOf(r).TakeSectionBack(r.Context(), site.ID[store.SectionID](r), store.TeacherID(site.Number(r, "colleague"))); err != nil {
		return err
	}
	s.Flash(r, "It is yours alone again. What your colleague marked is kept.")
	http.Redirect(w, r, "/people", http.StatusSeeOther)
	return nil
}
