package bench

import (
	"context"
	"fmt"
	"net/http"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/count"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// compareView lays two passages over one ruler of pulses.
type compareView struct {
	Exercises []store.Exercise
	A, B      passage
	Result    *count.Compared
	Problem   string
	Proposed  []proposedPair
}

// proposedPair is two passages of the book worth laying beside each other.
type proposedPair struct{ Link, One, Other, Why string }

// mostProposed is how many pairs are proposed at a time.
const mostProposed = 6

// propose finds pairs in the teacher's books.
func (s *handlers) propose(ctx context.Context, desk *teach.Class, exercises []store.Exercise) ([]proposedPair, error) {
	var sources []breakdown.Source
	titles := map[int64]string{}
	for _, x := range exercises {
		if x.Unread != "" {
			continue // the Shelf says that it cannot be read
		}
		part, err := s.Reader.SourcePart(ctx, desk, x)
		if err != nil {
			return nil, err
		}
		id := int64(x.ID)
		sources = append(sources, breakdown.Source{ID: id, Part: part})
		titles[id] = fmt.Sprintf("%d · %s", x.Number, x.Title)
	}
	var list []proposedPair
	for _, p := range breakdown.Pairs(sources, mostProposed) {
		list = append(list, proposedPair{
			Link: fmt.Sprintf("/compare?a=%d&a-from=%d&a-to=%d&b=%d&b-from=%d&b-to=%d", p.A.ID, p.A.From, p.A.To,
				p.B.ID, p.B.From, p.B.To),
			One:   fmt.Sprintf("%s, m. %d–%d", titles[p.A.ID], p.A.From, p.A.To),
			Other: fmt.Sprintf("%s, m. %d–%d", titles[p.B.ID], p.B.From, p.B.To), Why: p.Why,
		})
	}
	return list, nil
}

// passage is some measures of an exercise; 0 leaves an end open.
type passage struct {
	Exercise store.ExerciseID
	From, To int
}

func (s *handlers) compare(w http.ResponseWriter, r *http.Request) error {
	ctx, desk := r.Context(), site.ClassOf(r)
	v := compareView{
		A: passage{store.ExerciseID(site.Number(r, "a")), int(site.Number(r, "a-from")), int(site.Number(r, "a-to"))},
		B: passage{store.ExerciseID(site.Number(r, "b")), int(site.Number(r, "b-from")), int(site.Number(r, "b-to"))},
	}
	var err error
	if v.Exercises, err = desk.Exercises(ctx); err != nil {
		return err
	}
	if v.A.Exercise == 0 || v.B.Exercise == 0 {
		if v.Proposed, err = s.propose(ctx, desk, v.Exercises); err != nil {
			return err
		}
		s.Page(w, r, http.StatusOK, "compare", "Same or different", v)
		return nil
	}
	a, problemA, errA := s.measures(r, v.A)
	b, problemB, errB := s.measures(r, v.B)
	if errA != nil || errB != nil {
		if errA == nil {
			errA = errB
		}
		return errA
	}
	if v.Problem = problemA + problemB; v.Problem == "" {
		saved, err := desk.Settings(ctx)
		if err != nil {
			return err
		}
		result := count.Compare(a, b, count.Options{SlowBeat: teach.PreferencesOf(saved).SlowBeat})
		v.Result = &result
	}
	s.Page(w, r, http.StatusOK, "compare", "Same or different", v)
	return nil
}

// measures takes a passage out of its exercise, or says what is wrong with it.
func (s *handlers) measures(r *http.Request, p passage) (score.Part, string, error) {
	x, err := site.ClassOf(r).Exercise(r.Context(), p.Exercise)
	if err != nil {
		return score.Part{}, "", err
	}
	if x.Unread != "" {
		return score.Part{}, x.Title + " cannot be read any more: edit it first. ", nil
	}
	part, err := s.Reader.SourcePart(r.Context(), site.ClassOf(r), x)
	if err != nil {
		return score.Part{}, "", err
	}
	var taken []score.Measure
	for _, m := range part.Measures {
		if (p.From == 0 || m.Number >= p.From) && (p.To == 0 || m.Number <= p.To) {
			taken = append(taken, m)
		}
	}
	if len(taken) == 0 {
		return score.Part{}, x.Title + " has no such measures: choose from 1 to its last. ", nil
	}
	return score.Part{Measures: taken}, "", nil
}
