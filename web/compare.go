package web

import (
	"fmt"
	"net/http"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/count"
	"unhurriedbench/core/format"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
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
func propose(exercises []store.Exercise) []proposedPair {
	var sources []breakdown.Source
	titles := map[int64]string{}
	for _, x := range exercises {
		sc, err := format.ReadKind(x.Format, []byte(x.Source))
		if err != nil {
			continue // the Shelf says that it cannot be read
		}
		part, _ := sourcePart(x, sc)
		sources = append(sources, breakdown.Source{ID: x.ID, Part: part})
		titles[x.ID] = fmt.Sprintf("%d · %s", x.Number, x.Title)
	}
	var list []proposedPair
	for _, p := range breakdown.Pairs(sources, mostProposed) {
		list = append(list, proposedPair{
			Link:  fmt.Sprintf("/compare?a=%d&a-from=%d&a-to=%d&b=%d&b-from=%d&b-to=%d", p.A.ID, p.A.From, p.A.To, p.B.ID, p.B.From, p.B.To),
			One:   fmt.Sprintf("%s, m. %d–%d", titles[p.A.ID], p.A.From, p.A.To),
			Other: fmt.Sprintf("%s, m. %d–%d", titles[p.B.ID], p.B.From, p.B.To), Why: p.Why,
		})
	}
	return list
}

// passage is some measures of an exercise; 0 leaves an end open.
type passage struct {
	Exercise int64
	From, To int
}

func (s *Server) compare(w http.ResponseWriter, r *http.Request) {
	ctx, t := r.Context(), teacher(r).ID
	v := compareView{
		A: passage{number(r, "a"), int(number(r, "a-from")), int(number(r, "a-to"))},
		B: passage{number(r, "b"), int(number(r, "b-from")), int(number(r, "b-to"))},
	}
	var err error
	if v.Exercises, err = s.store.Exercises(ctx, t); err != nil {
		s.failed(w, r, err)
		return
	}
	if v.A.Exercise == 0 || v.B.Exercise == 0 {
		v.Proposed = propose(v.Exercises)
		s.page(w, r, http.StatusOK, "compare", "Same or different", v)
		return
	}
	a, problemA, errA := s.measures(r, v.A)
	b, problemB, errB := s.measures(r, v.B)
	if errA != nil || errB != nil {
		if errA == nil {
			errA = errB
		}
		s.failed(w, r, errA)
		return
	}
	if v.Problem = problemA + problemB; v.Problem == "" {
		kept, err := s.store.Settings(ctx, t)
		if err != nil {
			s.failed(w, r, err)
			return
		}
		result := count.Compare(a, b, count.Options{SlowBeat: kept.SlowBeat})
		v.Result = &result
	}
	s.page(w, r, http.StatusOK, "compare", "Same or different", v)
}

// measures takes a passage out of its exercise, or says what is wrong with it.
func (s *Server) measures(r *http.Request, p passage) (score.Part, string, error) {
	x, err := s.store.ExerciseByID(r.Context(), teacher(r).ID, p.Exercise)
	if err != nil {
		return score.Part{}, "", err
	}
	sc, err := format.ReadKind(x.Format, []byte(x.Source))
	if err != nil {
		return score.Part{}, x.Title + " cannot be read any more: edit it first. ", nil
	}
	part, _ := sourcePart(x, sc)
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
