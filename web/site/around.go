package site

import (
	"fmt"
	"net/http"
	"strings"

	"unhurriedbench/store"
)

// BoardAround is what the Board's other views have in common.
type BoardAround struct {
	Classes []store.Class
	Class   store.Class
	View    string // "heat"
}

// Link is the address of a view of a class, "" for the Board itself.
func (v BoardAround) Link(view string, class store.ClassID) string {
	return "/" + strings.TrimSuffix("board/"+view, "/") + fmt.Sprintf("?class=%d", class)
}

// BoardAround reads what stands around a view of the Board.
func (s *Site) BoardAround(r *http.Request, view string) (BoardAround, error) {
	v := BoardAround{View: view}
	var err error
	v.Classes, v.Class, err = ClassOf(r).ChooseClass(r.Context(), store.ClassID(Number(r, "class")))
	return v, err
}
