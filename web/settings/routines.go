package settings

import (
	"errors"
	"fmt"
	"net/http"
	"slices"
	"strings"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
	"unhurriedbench/web/site"
)

// routinesView is the routines there are, and who follows which.
type routinesView struct {
	Routines    []routineCard
	Usual       string // the teacher's choice for all who have none, "" for the standard one
	Classes     []follower
	Instruments []follower
	Exercises   []followed
}

// routineCard is a routine with what may be done to it.
type routineCard struct {
	routine.Named
	Own bool
}

// follower is a class or an instrument, with the routine it has chosen and those it may.
type follower struct {
	Field, Value, Name, Chosen string
	May                        []routine.Named
}

// followed is an exercise with a routine of its own.
type followed struct {
	store.Exercise
	Routine string // its title
}

func (s *handlers) routines(w http.ResponseWriter, r *http.Request) error {
	v, err := s.routinesView(r)
	if err != nil {
		return err
	}
	s.Page(w, r, http.StatusOK, "routines", "Routines", v)
	return nil
}

func (s *handlers) routinesView(r *http.Request) (routinesView, error) {
	ctx, desk := r.Context(), site.ClassOf(r)
	var v routinesView
	list, err := desk.Routines(ctx)
	if err != nil {
		return v, err
	}
	rules, err := desk.Rules(ctx)
	if err != nil {
		return v, err
	}
	classes, err := desk.WholeClasses(ctx)
	if err != nil {
		return v, err
	}
	exercises, err := desk.Exercises(ctx)
	if err != nil {
		return v, err
	}
	for _, n := range list {
		v.Routines = append(v.Routines, routineCard{n, !isShipped(n.ID)})
	}
	v.Usual = rules.Chosen(store.Chooser{})
	played := map[string]bool{}
	for _, class := range classes {
		v.Classes = append(v.Classes, follower{"class", fmt.Sprint(class.ID), class.Name,
			rules.Chosen(store.Chooser{Class: class.ID}), list})
		students, err := desk.Students(ctx, class.ID)
		if err != nil {
			return v, err
		}
		for _, student := range students {
			played[student.Instrument] = true
		}
	}
	for _, i := range instrument.All() {
		chosen := rules.Chosen(store.Chooser{Instrument: i.ID})
		if !played[i.ID] && chosen == "" {
			continue
		}
		may := slices.DeleteFunc(slices.Clone(list), func(n routine.Named) bool { return !n.Suits(i.Family) })
		v.Instruments = append(v.Instruments, follower{"instrument", i.ID, i.Title(), chosen, may})
	}
	for _, x := range exercises {
		if n, is := rules.Named(rules.Chosen(store.Chooser{Exercise: x.ID})); is {
			v.Exercises = append(v.Exercises, followed{x, n.Title})
		}
	}
	return v, nil
}

func isShipped(id string) bool {
	_, is := routine.ShippedAs(id)
	return is
}

// chooseRoutine has a class, an instrument, an exercise or everybody else follow a
// routine.
func (s *handlers) chooseRoutine(w http.ResponseWriter, r *http.Request) error {
	desk, id := site.ClassOf(r), site.Text(r, "routine")
	by := store.Chooser{Exercise: store.ExerciseID(site.Number(r, "exercise"))}
	if by.Exercise == 0 {
		by.Class = store.ClassID(site.Number(r, "class"))
	}
	if by == (store.Chooser{}) {
		by.Instrument = site.Text(r, "instrument")
	}
	if i, known := instrument.ByID(by.Instrument); by.Instrument != "" && (!known || i.ID == "") {
		s.NotFound(w, r)
		return nil
	}
	if err := desk.ChooseRoutine(r.Context(), by, id); err != nil {
		return err
	}
	said := "It follows what it would without a routine of its own."
	rules, err := desk.Rules(r.Context())
	if err != nil {
		return err
	}
	if n, is := rules.Named(id); is {
		said = "It follows " + n.Title + " from now on, and where everybody stands is added up by it."
	}
	s.Flash(r, said)
	http.Redirect(w, r, site.BackToBench(r, "/routines"), http.StatusSeeOther)
	return nil
}

// deleteRoutine takes a routine of the teacher's own away, for which a press gives it back.
func (s *handlers) deleteRoutine(w http.ResponseWriter, r *http.Request) error {
	if err := site.ClassOf(r).DeleteRoutine(r.Context(), site.Text(r, "id")); err != nil {
		return err
	}
	s.Flash(r, "The routine is deleted. Instruments that followed it follow the class’s again.")
	http.Redirect(w, r, "/routines", http.StatusSeeOther)
	return nil
}

// editRoutine opens a routine of the teacher's own, or a copy of one, to be changed.
func (s *handlers) editRoutine(w http.ResponseWriter, r *http.Request) error {
	rules, err := site.ClassOf(r).Rules(r.Context())
	if err != nil {
		return err
	}
	n, is := rules.Named(site.Text(r, "id"))
	if !is {
		s.NotFound(w, r)
		return nil
	}
	if site.Text(r, "copy") != "" || isShipped(n.ID) {
		n.ID = ""
		n.Title = strings.TrimSpace("Our " + strings.ToLower(n.Title[:1]) + n.Title[1:])
	}
	s.showRoutine(w, r, http.StatusOK, routineView{Named: n})
	return nil
}

// saveRoutine keeps a routine as it was typed, or changes the order on the page first.
func (s *handlers) saveRoutine(w http.ResponseWriter, r *http.Request) error {
	v := readRoutine(r)
	if do := site.Text(r, "do"); do != "" {
		v.change(do)
		s.showRoutine(w, r, http.StatusOK, v)
		return nil
	}
	if v.Problems = v.Check(); len(v.Problems) > 0 {
		s.showRoutine(w, r, http.StatusUnprocessableEntity, v)
		return nil
	}
	_, err := site.ClassOf(r).SaveRoutine(r.Context(), v.Named)
	switch {
	case errors.Is(err, store.ErrTaken):
		v.Problems = []string{fmt.Sprintf("There is a routine called %s already. Give this one another name.", v.Title)}
	case errors.Is(err, store.ErrTooMany):
		v.Problems = []string{fmt.Sprintf("There are %d routines of your own, as many as are kept. Take one away first.", store.MostRoutines)}
	case err != nil:
		return err
	default:
		s.Flash(r, v.Title+" is kept.")
		http.Redirect(w, r, "/routines", http.StatusSeeOther)
		return nil
	}
	s.showRoutine(w, r, http.StatusUnprocessableEntity, v)
	return nil
}

func (s *handlers) showRoutine(w http.ResponseWriter, r *http.Request, status int, v routineView) {
	title := "A new routine"
	if v.ID != "" {
		title = v.Title
	}
	s.Page(w, r, status, "routine", title, v)
}
