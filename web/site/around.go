package site

import (
	"fmt"
	"net/http"
	"strings"

	"unhurriedbench/store"
)

// BoardAround is what the Board's other views have in common.
type BoardAround struct {
	Sections []store.Section
	Section  store.Section
	View     string // "heat"
}

// Link is the address of a view of a section, "" for the Board itself.
func (v BoardAround) Link(view string, section store.SectionID) string {
	return "/" + strings.TrimSuffix("board/"+view, "/") + fmt.Sprintf("?section=%d", section)
}

// BoardAround reads what stands around a view of the Board.
func (s *Site) BoardAround(r *http.Request, view string) (BoardAround, error) {
	v := BoardAround{View: view}
	var err error
	v.Sections, v.Section, err = ClassOf(r).ChooseSection(r.Context(), store.SectionID(Number(r, "section")))
	return v, err
}
