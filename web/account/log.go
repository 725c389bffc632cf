package account

import (
	"cmp"
	"fmt"
	"net/http"
	"time"

	"unhurriedbench/store"
	"unhurriedbench/web/site"
)

// activityLine is what somebody did, in a line.
type activityLine struct {
	At    time.Time
	Words string
}

// logView is the log of who did what: to one's own classes and students and, for the
// owner, to accounts.
type logView struct{ Own, Accounts []activityLine }

func (s *handlers) activity(w http.ResponseWriter, r *http.Request) error {
	own, err := site.ClassOf(r).Activity(r.Context())
	if err != nil {
		return err
	}
	v := logView{Own: activityLines(own)}
	if site.ActorOf(r).Teacher.Owner {
		accounts, err := s.Store.AccountActivity(r.Context())
		if err != nil {
			return err
		}
		v.Accounts = activityLines(accounts)
	}
	s.Page(w, r, http.StatusOK, "log", "Activity log", v)
	return nil
}

func activityLines(list []store.LogEntry) []activityLine {
	lines := make([]activityLine, len(list))
	for i, l := range list {
		lines[i] = activityLine{l.At, activityWords(l)}
	}
	return lines
}

// activityWords tells a deed in a sentence. Students are named by their number: who may see
// their name finds it by the number in the address of their page.
func activityWords(l store.LogEntry) string {
	erased := func(name string, id store.TeacherID) string {
		return cmp.Or(name, fmt.Sprintf("teacher %d, since erased,", id))
	}
	by := "A command on the machine"
	if l.By != 0 {
		by = erased(l.ByName, l.By)
	}
	of, other := erased(l.OfName, l.Teacher), erased(l.OtherIs, l.Other)
	own := l.By == l.Teacher
	class := cmp.Or(l.ClassName, "a class since erased")
	student := fmt.Sprintf("student %d", l.Student)
	switch l.Action {
	case store.AccountMade:
		return by + " made an account."
	case store.AccountInvited:
		return by + " made a link for a new teacher."
	case store.PasswordLink:
		return by + " made a link with which " + of + " may choose another password."
	case store.PasswordChanged:
		if own {
			return by + " chose another password."
		}
		return by + " gave " + of + " another password."
	case store.SessionsEnded:
		return by + " signed out everywhere else."
	case store.AccountRemoved:
		if own {
			return by + " took their own account away."
		}
		return by + " took the account of " + of + " away."
	case store.AccountRestored:
		return by + " put the account of " + of + " back."
	case store.AccountErased:
		return fmt.Sprintf("The account of teacher %d was erased.", l.Teacher)
	case store.OwnerChanged:
		return by + " handed the installation over to " + of + "."
	case store.PolicyChanged:
		return by + " changed the limits of the installation."
	case store.ClassMade:
		return by + " made the class " + l.Detail + "."
	case store.ClassShared:
		return by + " shared " + class + " with " + other + ", " + l.Detail + "."
	case store.SharingStopped:
		return by + " stopped sharing " + class + " with " + other + "."
	case store.StudentsAdded:
		if l.Student != 0 {
			return by + " added " + student + " to " + class + "."
		}
		return by + " added " + l.Detail + " students to " + class + "."
	case store.StudentChanged:
		return by + " changed what is kept of " + student + "."
	case store.StudentMoved:
		return by + " moved " + student + " to " + class + "."
	case store.StudentLeft:
		return by + " noted that " + student + " has left " + class + "."
	case store.StudentBack:
		return by + " noted that " + student + " is back in " + class + "."
	case store.StudentRemoved:
		return by + " deleted " + student + "."
	case store.StudentRestored:
		return by + " restored " + student + "."
	case store.StudentErased:
		return by + " deleted " + student + " for good."
	case store.ClassRemoved, store.BookRemoved:
		return by + " deleted " + l.Detail + "."
	case store.ClassRestored, store.BookRestored:
		return by + " restored " + l.Detail + "."
	case store.ClassErased, store.BookErased:
		return by + " deleted " + l.Detail + " for good."
	case store.OwnPageMade:
		return by + " made a practice page for " + student + "."
	case store.OwnPageEnded:
		return by + " turned off the link of " + student + "."
	case store.MaterialExported:
		return by + " exported everything."
	case store.MaterialImported:
		return by + " imported an archive."
	}
	return by + ": " + string(l.Action) + "."
}
