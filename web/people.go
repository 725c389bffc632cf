package web

import (
	"errors"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"unicode/utf8"

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
	bin, err := deskOf(r).Bin(r.Context())
	v.Removed = len(left) + len(bin)
	return err
}

func (s *Server) addSection(w http.ResponseWriter, r *http.Request) {
	v := peopleView{NewSection: text(r, "name"), List: r.FormValue("list")}
	switch {
	case v.NewSection == "":
		v.Problem = "The section has no name. Type one, such as Tuesday brass."
	case utf8.RuneCountInString(v.NewSection) > 80:
		v.Problem = "The section's name is longer than 80 letters. Shorten it."
	}
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
	_, section, err := s.chooseSection(r, idOf[store.SectionID](r))
	if err != nil {
		s.failed(w, r, err)
		return
	}
	year := int(number(r, "year"))
	if year < 1 || year > 3 {
		s.showPeople(
			w,
			r,
			http.StatusUnprocessableEntity,
			peopleView{Problem: "Choose the first, second or third year of playing from the list."},
		)
		return
	}
	if err := deskOf(r).KeepYear(r.Context(), section.ID, year); err != nil {
		s.failed(w, r, err)
		return
	}
	s.flash(r, fmt.Sprintf("%s is in its %s year: its parts are put in the octave and fingered as suits that year from now on.",
		section.Name, [...]string{1: "first", 2: "second", 3: "third"}[year]))
	http.Redirect(w, r, "/people", http.StatusSeeOther)
}

// longestFirstName bounds a first name, in letters; what refuses one says the figure.
const longestFirstName = 40

// readStudent reads the student form and says what is wrong with it.
func readStudent(r *http.Request) (store.Student, string) {
	student := store.Student{
		SectionID: store.SectionID(number(r, "section")), FirstName: text(r, "first_name"),
		Initial:    strings.ToUpper(strings.TrimSuffix(text(r, "initial"), ".")),
		Instrument: text(r, "instrument"),
	}
	_, known := instrument.ByID(student.Instrument)
	switch {
	case student.FirstName == "":
		return student, "The first name is missing. Type it, without the family name."
	case utf8.RuneCountInString(student.FirstName) > longestFirstName:
		return student, "The first name is longer than 40 letters. Shorten it."
	case utf8.RuneCountInString(student.Initial) > 1:
		return student, "The initial is one letter: family names are not kept here."
	case !known:
		return student, "Choose the student's instrument from the list."
	}
	return student, ""
}

func (s *Server) addStudent(w http.ResponseWriter, r *http.Request) {
	student, problem := readStudent(r)
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
	student, problem := readStudent(r)
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
