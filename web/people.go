package web

import (
	"errors"
	"fmt"
	"net/http"
	"slices"

	"unhurriedbench/core/instrument"
	"unhurriedbench/store"
)

// peopleView is the sections with their students, and a form with what was
// typed when it could not be saved.
type peopleView struct {
	Sections    []peopleSection
	Instruments []instrument.Instrument
	NewSection  string
	List        string // of the new section
	New         store.Student
	Problem     string
	Colleagues  []store.Teacher // to whom a section may be given
	Given       []store.Guest   // by colleagues
	Removed     int             // what is taken away, and who has left
	Overdue     int             // of those who left, whose records are to be erased
}

type peopleSection struct {
	store.Section
	Students []store.Student
	Shares   []store.Share
}

func (s *Server) people(w http.ResponseWriter, r *http.Request) {
	s.showPeople(w, r, http.StatusOK, peopleView{})
}

func (s *Server) showPeople(w http.ResponseWriter, r *http.Request, status int, v peopleView) {
	sections, err := deskOf(r).Sections(r.Context())
	if err != nil {
		s.failed(w, r, err)
		return
	}
	shares, err := deskOf(r).Shares(r.Context())
	if err != nil {
		s.failed(w, r, err)
		return
	}
	for _, section := range sections {
		students, err := deskOf(r).Students(r.Context(), section.ID)
		if err != nil {
			s.failed(w, r, err)
			return
		}
		shown := peopleSection{Section: section, Students: students}
		for _, share := range shares {
			if share.Section == section.ID {
				shown.Shares = append(shown.Shares, share)
			}
		}
		v.Sections = append(v.Sections, shown)
	}
	if err := s.aroundPeople(r, &v); err != nil {
		s.failed(w, r, err)
		return
	}
	v.Instruments = instrument.All()
	s.page(w, r, status, "people", "People", v)
}

// aroundPeople finds who else there is: colleagues, what they have given, who has left.
func (s *Server) aroundPeople(r *http.Request, v *peopleView) error {
	me := asking(r).Teacher
	colleagues, err := s.store.Colleagues(r.Context())
	if err != nil {
		return err
	}
	if !me.Demo {
		v.Colleagues = slices.DeleteFunc(colleagues, func(t store.Teacher) bool { return t.ID == me.ID })
	}
	if v.Given, err = s.store.Given(r.Context(), me.ID); err != nil {
		return err
	}
	left, err := deskOf(r).StudentsWhoLeft(r.Context())
	if err != nil {
		return err
	}
	for _, student := range left {
		if student.Overdue {
			v.Overdue++
		}
	}
	bin, err := deskOf(r).Bin(r.Context())
	v.Removed = len(left) + len(bin)
	return err
}

func (s *Server) addSection(w http.ResponseWriter, r *http.Request) {
	var f sectionForm
	problem := first(s.forms.read(r, &f))
	v := peopleView{NewSection: f.Name, List: r.FormValue("list"), Problem: problem}
	if v.Problem == "" && text(r, "list") != "" {
		s.addRoster(w, r)
		return
	}
	if v.Problem == "" {
		_, err := deskOf(r).AddSection(r.Context(), v.NewSection)
		if errors.Is(err, store.ErrTaken) {
			v.Problem = sectionTaken(v.NewSection)
		} else if err != nil {
			s.failed(w, r, err)
			return
		}
	}
	if v.Problem != "" {
		s.showPeople(w, r, http.StatusUnprocessableEntity, v)
		return
	}
	http.Redirect(w, r, "/people", http.StatusSeeOther)
}

func sectionTaken(name string) string {
	return fmt.Sprintf("There is a section called %s already. Choose another name.", name)
}

// keepYear sets which year of playing a section is in.
func (s *Server) keepYear(w http.ResponseWriter, r *http.Request) {
	_, section, err := deskOf(r).ChooseSection(r.Context(), idOf[store.SectionID](r))
	if err != nil {
		s.failed(w, r, err)
		return
	}
	var f yearForm
	if problem := first(s.forms.read(r, &f)); problem != "" {
		s.showPeople(w, r, http.StatusUnprocessableEntity, peopleView{Problem: problem})
		return
	}
	if err := deskOf(r).KeepYear(r.Context(), section.ID, f.Year); err != nil {
		s.failed(w, r, err)
		return
	}
	s.flash(r, fmt.Sprintf("%s is in its %s year: its parts are put in the octave and fingered as suits that year from now on.",
		section.Name, [...]string{1: "first", 2: "second", 3: "third"}[f.Year]))
	http.Redirect(w, r, "/people", http.StatusSeeOther)
}

// readStudent reads the student form and says what is wrong with it.
func (s *Server) readStudent(r *http.Request) (store.Student, string) {
	var f studentForm
	problem := first(s.forms.read(r, &f))
	return store.Student{SectionID: store.SectionID(f.Section), FirstName: f.FirstName, Initial: string(f.Initial), Instrument: f.Instrument}, problem
}

func (s *Server) addStudent(w http.ResponseWriter, r *http.Request) {
	student, problem := s.readStudent(r)
	if problem != "" {
		s.showPeople(w, r, http.StatusUnprocessableEntity, peopleView{New: student, Problem: problem})
		return
	}
	if _, err := deskOf(r).AddStudent(r.Context(), student); err != nil {
		s.failed(w, r, err)
		return
	}
	http.Redirect(w, r, "/people", http.StatusSeeOther)
}

func (s *Server) changeStudent(w http.ResponseWriter, r *http.Request) {
	student, problem := s.readStudent(r)
	student.ID = idOf[store.StudentID](r)
	if _, err := deskOf(r).StudentByID(r.Context(), student.ID); err != nil {
		s.failed(w, r, err)
		return
	}
	if problem != "" {
		s.showPeople(w, r, http.StatusUnprocessableEntity, peopleView{Problem: problem})
		return
	}
	if err := deskOf(r).ChangeStudent(r.Context(), student); err != nil {
		s.failed(w, r, err)
		return
	}
	http.Redirect(w, r, "/people", http.StatusSeeOther)
}
