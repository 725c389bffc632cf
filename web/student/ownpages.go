package student

import (
	"errors"
	"fmt"
	"net/http"
	"strings"

	"github.com/skip2/go-qrcode"

	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

func (s *handlers) newOwnLink(r *http.Request, page store.OwnPage) (*teach.OwnLink, error) {
	l := &teach.OwnLink{OwnPage: page, Address: s.BaseAddress(r) + "/my/" + page.Key + "/"}
	code, err := qrcode.New(l.Address, qrcode.Medium)
	if err != nil {
		return nil, fmt.Errorf("make the code of a link: %w", err)
	}
	l.QR = drawCode(code.Bitmap())
	return l, nil
}

// addOwnLinks adds, to the plans of a class, the students' own pages.
func (s *handlers) addOwnLinks(r *http.Request, class store.ClassID, plans []teach.PracticePlan) error {
	pages, err := site.ClassOf(r).OwnPages(r.Context(), class)
	if err != nil {
		return err
	}
	for _, page := range pages {
		for k := range plans {
			if plans[k].Student.ID != page.Student {
				continue
			}
			if plans[k].Own, err = s.newOwnLink(r, page); err != nil {
				return err
			}
		}
	}
	return nil
}

// drawCode draws the modules of a code, dark ones black, with the quiet zone around them.
func drawCode(modules [][]bool) string {
	var path strings.Builder
	for y, row := range modules {
		for x, dark := range row {
			if dark {
				fmt.Fprintf(&path, "M%d %dh1v1h-1z", x, y)
			}
		}
	}
	size := len(modules)
	return fmt.Sprintf(`<svg class="code" viewBox="0 0 %d %d" role="img" aria-label="The link as a code to scan" shape-rendering="crispEdges"><path fill="#fff" d="M0 0h%dv%dH0z"/><path fill="#000" d="%s"/></svg>`, size, size, size, size, path.String())
}

// ownLinkOf is a student's page; nil where there is none, or it is not for this viewer.
func (s *handlers) ownLinkOf(r *http.Request, student store.StudentID) (*teach.OwnLink, error) {
	page, err := site.ClassOf(r).OwnPageOf(r.Context(), student)
	if errors.Is(err, store.ErrNotFound) {
		return nil, nil
	}
	if err != nil {
		return nil, err
	}
	return s.newOwnLink(r, page)
}

// makeOwnPage gives a student a page of their own, or another link to it.
func (s *handlers) makeOwnPage(w http.ResponseWriter, r *http.Request) error {
	id := site.ID[store.StudentID](r)
	return s.afterOwnPage(w, r, id, site.ClassOf(r).MakeOwnPages(r.Context(), id),
		"The link is made; an earlier one leads nowhere now.")
}

// endOwnPage ends a student's page.
func (s *handlers) endOwnPage(w http.ResponseWriter, r *http.Request) error {
	id := site.ID[store.StudentID](r)
	return s.afterOwnPage(w, r, id, site.ClassOf(r).EndOwnPage(r.Context(), id),
		"The page is ended: its link leads nowhere now. What was said and done there is kept.")
}

// setPIN has a student's page ask for four figures, or for nothing.
func (s *handlers) setPIN(w http.ResponseWriter, r *http.Request) error {
	id, pin := site.ID[store.StudentID](r), site.Text(r, "pin")
	if pin != "" && !site.FourFigures.MatchString(pin) {
		return s.showHomePlan(w, r, http.StatusUnprocessableEntity,
			"A PIN is four figures, such as 0417. Type four, or nothing for none.")
	}
	said := "The page asks for the PIN from now on. It is not shown again: write it on the student’s sheet."
	if pin == "" {
		said = "The page asks for no PIN."
	}
	return s.afterOwnPage(w, r, id, site.ClassOf(r).SetPIN(r.Context(), id, pin), said)
}

func (s *handlers) afterOwnPage(w http.ResponseWriter, r *http.Request, id store.StudentID, err error,
	said string) error {
	if err != nil {
		return err
	}
	s.Flash(r, said)
	http.Redirect(w, r, fmt.Sprintf("/students/%d/plan", id), http.StatusSeeOther)
	return nil
}

// makeOwnPages gives everybody in a class a page of their own who has none.
func (s *handlers) makeOwnPages(w http.ResponseWriter, r *http.Request) error {
	ctx, desk := r.Context(), site.ClassOf(r)
	_, class, err := desk.ChooseClass(ctx, store.ClassID(site.Number(r, "class")))
	if err != nil {
		return err
	}
	students, err := desk.Students(ctx, class.ID)
	if err != nil {
		return err
	}
	pages, err := desk.OwnPages(ctx, class.ID)
	if err != nil {
		return err
	}
	has := map[store.StudentID]bool{}
	for _, p := range pages {
		has[p.Student] = true
	}
	var without []store.StudentID
	for _, student := range students {
		if !has[student.ID] {
			without = append(without, student.ID)
		}
	}
	if err := desk.MakeOwnPages(ctx, without...); err != nil {
		return err
	}
	s.Flash(r, fmt.Sprintf("%s made. The links stand on the printed plans.", teach.Plural(len(without),
		"page is", "pages are")))
	http.Redirect(w, r, fmt.Sprintf("/plans?class=%d", class.ID), http.StatusSeeOther)
	return nil
}
