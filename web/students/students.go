package students

import (
	"errors"
	"fmt"
	"net/http"
	"slices"

	"unhurriedbench/core/instrument"
	"unhurriedbench/store"
	"unhurriedbench/web/site"
)

// peopleView is the classes with their students, and a form with what was
// typed when it could not be saved.
type peopleView struct {
	Classes     []peopleClass
	Instruments []instrument.Instrument
	NewClass    string
	List        string // of the new class
	New         store.Student
	Problem     string
	Typed       *peopleGroup    // what could not be kept of a group
	Colleagues  []store.Teacher // to whom a class may be given
	Given       []store.Guest   // by colleagues
	Removed     int             // what is taken away, and who has left
	Overdue     int             // of those who left, whose records are to be erased
}

type peopleClass struct {
	store.Class
	Students []store.Student
	Groups   []peopleGroup // the last one a form for another
	Shares   []store.Share
}

func (s *handlers) people(w http.ResponseWriter, r *http.Request) error {
	return s.showPeople(w, r, http.StatusOK, peopleView{})
}

func (s *handlers) showPeople(w http.ResponseWriter, r *http.Request, status int, v peopleView) error {
	classes, err := site.ClassOf(r).WholeClasses(r.Context())
	if err != nil {
		return err
	}
	shares, err := site.ClassOf(r).Shares(r.Context())
	if err != nil {
		return err
	}
	members, err := site.ClassOf(r).GroupMembers(r.Context())
	if err != nil {
		return err
	}
	for _, class := range classes {
		students, err := site.ClassOf(r).Students(r.Context(), class.ID)
		if err != nil {
			return err
		}
		shown := peopleClass{Class: class, Students: students}
		if shown.Groups, err = s.groupsOf(r, class.ID, members, v.Typed); err != nil {
			return err
		}
		for _, share := range shares {
			if share.Class == class.ID {
				shown.Shares = append(shown.Shares, share)
			}
		}
		v.Classes = append(v.Classes, shown)
	}
	if err := s.aroundPeople(r, &v); err != nil {
		return err
	}
	v.Instruments = instrument.All()
	s.Page(w, r, status, "people", "Students", v)
	return nil
}

// aroundPeople finds who else there is: colleagues, what they have given, who has left.
func (s *handlers) aroundPeople(r *http.Request, v *peopleView) error {
	me := site.ActorOf(r).Teacher
	colleagues, err := s.Store.Colleagues(r.Context())
	if err != nil {
		return err
	}
	if !me.Demo {
		v.Colleagues = slices.DeleteFunc(colleagues, func(t store.Teacher) bool { return t.ID == me.ID })
	}
	if v.Given, err = s.Store.Given(r.Context(), me.ID); err != nil {
		return err
	}
	left, err := site.ClassOf(r).StudentsWhoLeft(r.Context())
	if err != nil {
		return err
	}
	for _, student := range left {
		if student.Overdue {
			v.Overdue++
		}
	}
	bin, err := site.ClassOf(r).Trash(r.Context())
	v.Removed = len(left) + len(bin)
	return err
}

func (s *handlers) addClass(w http.ResponseWriter, r *http.Request) error {
	var f classForm
	problem := site.First(s.Forms.Read(r, &f))
	v := peopleView{NewClass: f.Name, List: r.FormValue("list"), Problem: problem}
	if v.Problem == "" && site.Text(r, "list") != "" {
		return s.addRoster(w, r)
	}
	if v.Problem == "" {
		_, err := site.ClassOf(r).AddClass(r.Context(), v.NewClass)
		if errors.Is(err, store.ErrTaken) {
			v.Problem = classTaken(v.NewClass)
		} else if err != nil {
			return err
		}
	}
	if v.Problem != "" {
		return s.showPeople(w, r, http.StatusUnprocessableEntity, v)
	}
	http.Redirect(w, r, "/people", http.StatusSeeOther)
	return nil
}

func classTaken(name string) string {
	return fmt.Sprintf("There is a class called %s already. Choose another name.", name)
}

// saveYear sets which year of playing a class is in.
func (s *handlers) saveYear(w http.ResponseWriter, r *http.Request) error {
	_, class, err := site.ClassOf(r).ChooseClass(r.Context(), site.ID[store.ClassID](r))
	if err != nil {
		return err
	}
	var f yearForm
	if problem := site.First(s.Forms.Read(r, &f)); problem != "" {
		return s.showPeople(w, r, http.StatusUnprocessableEntity, peopleView{Problem: problem})
	}
	if err := site.ClassOf(r).SaveYear(r.Context(), class.ID, f.Year); err != nil {
		return err
	}
	s.Flash(r, fmt.Sprintf("%s is in its %s year: its parts are put in the octave and fingered as suits that year from now on.",
		class.Name, [...]string{1: "first", 2: "second", 3: "third"}[f.Year]))
	http.Redirect(w, r, "/people", http.StatusSeeOther)
	return nil
}

// readStudent reads the student form and says what is wrong with it.
func (s *handlers) readStudent(r *http.Request) (store.Student, string) {
	var f studentForm
	problem := site.First(s.Forms.Read(r, &f))
	return store.Student{ClassID: store.ClassID(f.Class), FirstName: f.FirstName, Initial: string(f.Initial),
		Instrument: f.Instrument}, problem
}

func (s *handlers) addStudent(w http.ResponseWriter, r *http.Request) error {
	student, problem := s.readStudent(r)
	if problem != "" {
		return s.showPeople(w, r, http.StatusUnprocessableEntity, peopleView{New: student, Problem: problem})
	}
	if _, err := site.ClassOf(r).AddStudent(r.Context(), student); err != nil {
		return err
	}
	http.Redirect(w, r, "/people", http.StatusSeeOther)
	return nil
}

func (s *handlers) changeStudent(w http.ResponseWriter, r *http.Request) error {
	student, problem := s.readStudent(r)
	student.ID = site.ID[store.StudentID](r)
	if _, err := site.ClassOf(r).StudentByID(r.Context(), student.ID); err != nil {
		return err
	}
	if problem != "" {
		return s.showPeople(w, r, http.StatusUnprocessableEntity, peopleView{Problem: problem})
	}
	if err := site.ClassOf(r).ChangeStudent(r.Context(), student); err != nil {
		return err
	}
	http.Redirect(w, r, "/people", http.StatusSeeOther)
	return nil
}
