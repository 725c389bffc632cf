package bench

import (
	"fmt"
	"net/http"
	"net/url"
	"strings"

	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// beforeView is what a line needs that is not earned yet, each with where it is first met.
type beforeView struct {
	teach.Choice
	Needed []teach.Needed
}

// Who names those who have not earned something: everybody, where all have not.
func (v beforeView) Who(n teach.Needed) string {
	if v.Student.ID != 0 {
		return v.Student.Name()
	}
	all := 0
	for _, tab := range v.Tabs {
		if v.Plays(tab) {
			all++
		}
	}
	if len(n.Who) == all {
		return "everybody"
	}
	var names []string
	for _, i := range n.Who {
		names = append(names, i.Name)
	}
	return strings.Join(names, ", ")
}

// place is who is at hand, for an address.
func (v beforeView) place(n teach.Needed) url.Values {
	q := atHand(v.Choice)
	q.Set("instrument", n.Who[0].ID)
	return q
}

// BenchLink is the address of the line where it is first met.
func (v beforeView) BenchLink(n teach.Needed) string {
	return fmt.Sprintf("/bench/%d?%s", n.Met.ID, v.place(n).Encode())
}

// shortRun is how many minutes a run through what is missing takes.
const shortRun = 2

// RunLink is the address of a short run through that line.
func (v beforeView) RunLink(n teach.Needed) string {
	q := v.place(n)
	q.Set("minutes", fmt.Sprint(shortRun))
	q.Set("unit", "line")
	return fmt.Sprintf("/bench/%d/walk?%s", n.Met.ID, q.Encode())
}

// BackLink leads to the Bench.
func (v beforeView) BackLink() string { return backTo(v.Choice) }

// beforeLine shows what a line needs that the class, or the student at hand, has not earned yet.
func (s *handlers) beforeLine(w http.ResponseWriter, r *http.Request) error {
	ctx, desk := r.Context(), site.ClassOf(r)
	if _, err := desk.Exercises(ctx); err != nil { // the one at hand is among them
		return err
	}
	c, err := teach.Choose(ctx, desk, askOf(r))
	if err != nil {
		return err
	}
	v := beforeView{Choice: c}
	if v.Needed, err = teach.BeforeLine(ctx, desk, c); err != nil {
		return err
	}
	s.Page(w, r, http.StatusOK, "before", "Before "+c.Exercise.Title, v)
	return nil
}
