package web

import (
	"net/http"

	"unhurriedbench/store"
)

// shelfBook is a book with its exercises in order.
type shelfBook struct {
	store.Book
	Exercises []store.Exercise
}

// shelfView is the Shelf.
type shelfView struct {
	Books   []shelfBook
	Removed int // what can be put back
}

func (s *Server) shelf(w http.ResponseWriter, r *http.Request) {
	books, err := deskOf(r).Books(r.Context())
	if err != nil {
		s.failed(w, r, err)
		return
	}
	exercises, err := s.reader.Exercises(r.Context(), deskOf(r))
	if err != nil {
		s.failed(w, r, err)
		return
	}
	list := make([]shelfBook, len(books))
	at := map[store.BookID]int{}
	for i, b := range books {
		list[i].Book = b
		at[b.ID] = i
	}
	for _, x := range exercises {
		book := &list[at[x.BookID]]
		book.Exercises = append(book.Exercises, x)
	}
	removed, err := deskOf(r).Bin(r.Context())
	if err != nil {
		s.failed(w, r, err)
		return
	}
	s.page(w, r, http.StatusOK, "shelf", "Shelf", shelfView{list, len(removed)})
}
