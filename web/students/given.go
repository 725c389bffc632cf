package students

import (
	"fmt"
	"net/http"

	"unhurriedbench/store"
	"unhurriedbench/web/site"
)

// giveSection gives a section to a colleague, to teach or to look at.
func (s *handlers) giveSection(w http.ResponseWriter, r *http.Request) {
	_, section, err := site.ClassOf(r).ChooseSection(r.Context(), site.ID[store.SectionID](r))
	if err != nil {
		s.Failed(w, r, err)
		return
	}
	var f givingForm
	problem := site.First(s.Forms.Read(r, &f))
	if site.ActorOf(r).Teacher.Demo {
		problem = "The demo’s sections are everybody’s already: who opens it works in them."
	}
	if problem != "" {
		s.showPeople(w, r, http.StatusUnprocessableEntity, peopleView{Problem: problem})
		return
	}
	if err := site.ClassOf(r).GiveSection(r.Context(), section.ID, store.TeacherID(f.Colleague), f.May == "teach"); err != nil {
		s.Failed(w, r, err)
		return
	}
	s.Flash(r, fmt.Sprintf("%s is given. Your colleague finds it in People and on the Board.", section.Name))
	http.Redirect(w, r, "/people", http.StatusSeeOther)
}

// takeSectionBack ends what a colleague had of a section.
func (s *handlers) takeSectionBack(w http.ResponseWriter, r *http.Request) {
	if err := site.ClassOf(r).TakeSectionBack(r.Context(), site.ID[store.SectionID](r), store.TeacherID(site.Number(r, "colleague"))); err != nil {
		s.Failed(w, r, err)
		return
	}
	s.Flash(r, "It is yours alone again. What your colleague marked is kept.")
	http.Redirect(w, r, "/people", http.StatusSeeOther)
}
