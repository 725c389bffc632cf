package students

import (
	"errors"
	"fmt"
	"net/http"
	"slices"

	"unhurriedbench/store"
	"unhurriedbench/web/site"
)

// peopleGroup is a group of a class with who is in it; the zero value is the form of a new one.
type peopleGroup struct {
	store.Class
	Members map[store.StudentID]bool
}

// groupAsked is what a form says of a group.
type groupAsked struct {
	name    string
	members []store.StudentID
	problem string
}

// readGroup reads the form of a group of a class.
func readGroup(r *http.Request, students []store.Student) groupAsked {
	asked := groupAsked{name: site.Text(r, "name")}
	for _, student := range students {
		if slices.Contains(r.Form["member"], fmt.Sprint(student.ID)) {
			asked.members = append(asked.members, student.ID)
		}
	}
	switch {
	case asked.name == "":
		asked.problem = "The group has no name. Type one, such as Low brass."
	case len([]rune(asked.name)) > store.LongestGroup:
		asked.problem = fmt.Sprintf("The group's name is longer than %d letters. Shorten it.", store.LongestGroup)
	case len(asked.members) == 0:
		asked.problem = "Nobody is in the group. Tick who meets in it."
	}
	return asked
}

// addGroup makes a group of a class.
func (s *handlers) addGroup(w http.ResponseWriter, r *http.Request) error {
	return s.saveGroup(w, r, site.ID[store.ClassID](r), 0)
}

// changeGroup names a group and says who is in it.
func (s *handlers) changeGroup(w http.ResponseWriter, r *http.Request) error {
	id := site.ID[store.ClassID](r)
	group, err := site.ClassOf(r).Class(r.Context(), id)
	if err != nil || !group.Group() {
		return errors.Join(err, store.ErrNotFound)
	}
	return s.saveGroup(w, r, group.OfClass, id)
}

// saveGroup keeps what the form says of a group of a class, a new one where its id is 0.
func (s *handlers) saveGroup(w http.ResponseWriter, r *http.Request, id, group store.ClassID) error {
	ctx, desk := r.Context(), site.ClassOf(r)
	class, err := desk.Class(ctx, id)
	if err != nil || class.Group() {
		return errors.Join(err, store.ErrNotFound)
	}
	students, err := desk.Students(ctx, id)
	if err != nil {
		return err
	}
	groups, err := desk.GroupsOf(ctx, id)
	if err != nil {
		return err
	}
	asked := readGroup(r, students)
	switch {
	case asked.problem != "":
	case group != 0:
		err = desk.ChangeGroup(ctx, group, asked.name, asked.members)
	case len(groups) >= store.MostGroups:
		asked.problem = fmt.Sprintf("%s has %d groups, as many as there may be. Take one away first.", class.Name, store.MostGroups)
	default:
		_, err = desk.AddGroup(ctx, id, asked.name, asked.members)
	}
	if errors.Is(err, store.ErrTaken) {
		asked.problem, err = fmt.Sprintf("%s has a group called %s already. Choose another name.", class.Name, asked.name), nil
	}
	if err != nil {
		return err
	}
	if asked.problem != "" {
		typed := peopleGroup{Class: store.Class{ID: group, OfClass: id, Own: asked.name}, Members: memberSet(asked.members)}
		return s.showPeople(w, r, http.StatusUnprocessableEntity, peopleView{Problem: asked.problem, Typed: &typed})
	}
	s.Flash(r, fmt.Sprintf("%s: %s is kept. It has lessons, check-ins and practice plans of its own.", class.Name, asked.name))
	http.Redirect(w, r, fmt.Sprintf("/people#class-%d", id), http.StatusSeeOther)
	return nil
}

func memberSet(ids []store.StudentID) map[store.StudentID]bool {
	set := map[store.StudentID]bool{}
	for _, id := range ids {
		set[id] = true
	}
	return set
}

// groupsOf finds the groups of a class with their members, and a form for another, with what was
// typed in place of what is kept.
func (s *handlers) groupsOf(r *http.Request, class store.ClassID, members map[store.ClassID][]store.StudentID,
	typed *peopleGroup) ([]peopleGroup, error) {
	groups, err := site.ClassOf(r).GroupsOf(r.Context(), class)
	var list []peopleGroup
	for _, group := range append(groups, store.Class{OfClass: class}) {
		shown := peopleGroup{Class: group, Members: memberSet(members[group.ID])}
		if typed != nil && typed.ID == group.ID && typed.OfClass == class {
			shown = *typed
		}
		list = append(list, shown)
	}
	return list, err
}
