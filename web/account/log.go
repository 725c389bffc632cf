package account

import (
	"cmp"
	"fmt"
	"net/http"
	"time"

	"unhurriedbench/store"
	"unhurriedbench/web/site"
)

// deedLine is what somebody did, in a line.
type deedLine struct {
	At    time.Time
	Words string
}

// logView is the log of who did what: to one's own sections and students and, for the
// owner, to accounts.
type logView struct{ Own, Accounts []deedLine }

func (s *handlers) deeds(w http.ResponseWriter, r *http.Request) error {
	own, err := site.ClassOf(r).Deeds(r.Context())
	if err != nil {
		return err
	}
	v := logView{Own: deedLines(own)}
	if site.ActorOf(r).Teacher.Owner {
		accounts, err := s.Store.AccountDeeds(r.Context())
		if err != nil {
			return err
		}
		v.Accounts = deedLines(accounts)
	}
	s.Page(w, r, http.StatusOK, "log", "Who did what", v)
	return nil
}

func deedLines(list []store.Logged) []deedLine {
	lines := make([]deedLine, len(list))
	for i, l := range list {
		lines[i] = deedLine{l.At, deedWords(l)}
	}
	return lines
}

// deedWords tells a deed in a sentence. Students are told by their number: who may see
// their name finds it by the number in the address of their page.
func deedWords(l store.Logged) string {
	erased := func(name string, id store.TeacherID) string {
		return cmp.Or(name, fmt.Sprintf("teacher %d, since erased,", id))
	}
	by := "A command on the machine"
	if l.By != 0 {
		by = erased(l.ByName, l.By)
	}
	of, other := erased(l.OfName, l.Teacher), erased(l.OtherIs, l.Other)
	own := l.By == l.Teacher
	section := cmp.Or(l.SectionName, "a section since erased")
	student := fmt.Sprintf("student %d", l.Student)
	switch l.Deed {
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
	case store.AccountPutBack:
		return by + " put the account of " + of + " back."
	case store.AccountErased:
		return fmt.Sprintf("The account of teacher %d was erased.", l.Teacher)
	case store.OwnerChanged:
		return by + " handed the installation over to " + of + "."
	case store.HouseChanged:
		return by + " changed the limits of the installation."
	case store.SectionMade:
		return by + " made the section " + l.Detail + "."
	case store.SectionGiven:
		return by + " gave " + section + " to " + other + " " + l.Detail + "."
	case store.SectionTaken:
		return by + " took " + section + " back from " + other + "."
	case store.StudentsAdded:
		if l.Student != 0 {
			return by + " added " + student + " to " + section + "."
		}
		return by + " added " + l.Detail + " students to " + section + "."
	case store.StudentChanged:
		return by + " changed what is kept of " + student + "."
	case store.StudentMoved:
		return by + " moved " + student + " to " + section + "."
	case store.StudentLeft:
		return by + " noted that " + student + " has left " + section + "."
	case store.StudentBack:
		return by + " noted that " + student + " is back in " + section + "."
	case store.StudentRemoved:
		return by + " took " + student + " away."
	case store.StudentPutBack:
		return by + " put " + student + " back."
	case store.StudentErased:
		return by + " erased " + student + " for good."
	case store.SectionRemoved, store.BookRemoved:
		return by + " took " + l.Detail + " away."
	case store.SectionPutBack, store.BookPutBack:
		return by + " put " + l.Detail + " back."
	case store.SectionErased, store.BookErased:
		return by + " erased " + l.Detail + " for good."
	case store.OwnPageMade:
		return by + " made a page of their own for " + student + "."
	case store.OwnPageEnded:
		return by + " ended the page of " + student + "."
	case store.MaterialTaken:
		return by + " exported everything."
	case store.MaterialGiven:
		return by + " imported an archive."
	}
	return by + ": " + string(l.Deed) + "."
}
