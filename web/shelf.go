package web

import (
	"net/http"

	"unhurriedbench/core/format"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
)

// shelfBook is a book with its exercises in order.
type shelfBook struct {
	store.Book
	Exercises []shelfExercise
}

type shelfExercise struct {
	store.Exercise
	Frame    string // "4/4, 8 measures, B flat major"
	Unread   bool   // its source no longer reads
	Measures int
}

func (s *Server) shelf(w http.ResponseWriter, r *http.Request) {
	ctx, t := r.Context(), teacher(r)
	books, err := s.store.Books(ctx, t.ID)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	exercises, err := s.store.Exercises(ctx, t.ID)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	list := make([]shelfBook, len(books))
	at := map[int64]int{}
	for i, b := range books {
		list[i].Book = b
		at[b.ID] = i
	}
	for _, x := range exercises {
		book := &list[at[x.BookID]]
		book.Exercises = append(book.Exercises, describe(x))
	}
	s.page(w, r, http.StatusOK, "shelf", "Shelf", list)
}

func describe(x store.Exercise) shelfExercise {
	d := shelfExercise{Exercise: x}
	sc, err := format.ReadKind(x.Format, []byte(x.Source))
	if err != nil {
		d.Unread = true
		return d
	}
	d.Measures = fullMeasures(sc.Parts[0])
	d.Frame = frameWords(sc.Parts[0])
	return d
}

func fullMeasures(p score.Part) int {
	return p.Measures[len(p.Measures)-1].Number
}

// frameWords is the meter and, for pitched parts, the key of the source.
func frameWords(p score.Part) string {
	words := p.Meter().String()
	if !p.Unpitched() {
		words += ", " + p.Key().Name()
	}
	return words
}
