package teach

import (
	"context"
	"fmt"
	"slices"

	"unhurriedbench/store"
)

// PageField is where the lines of a page are chosen that is given as a whole.
type PageField struct {
	Exercises []store.Exercise // that may stand on it, in the order of the books
	From, To  store.ExerciseID // 0 for no page
}

// NewPageField is the field with a page of some exercises, by their ids.
func NewPageField(ctx context.Context, desk *Class, page []int64) (PageField, error) {
	list, err := desk.Exercises(ctx)
	f := PageField{Exercises: slices.DeleteFunc(list, func(x store.Exercise) bool { return x.Unread != "" })}
	return f.Of(page), err
}

// Of is the field with another page.
func (f PageField) Of(page []int64) PageField {
	f.From, f.To = 0, 0
	if len(page) > 0 {
		f.From, f.To = store.ExerciseID(page[0]), store.ExerciseID(page[len(page)-1])
	}
	return f
}

// Lines lists the exercises from the first to the last, or says what is wrong with them; none
// where no page is chosen.
func (f PageField) Lines() (page []int64, problem string) {
	if f.From == 0 && f.To == 0 {
		return nil, ""
	}
	at := func(id store.ExerciseID) int {
		return slices.IndexFunc(f.Exercises, func(x store.Exercise) bool { return x.ID == id })
	}
	from, to := at(f.From), at(f.To)
	switch {
	case from < 0 || to < 0:
		return nil, "Choose the first and the last line of the page, or none."
	case f.Exercises[from].BookID != f.Exercises[to].BookID:
		return nil, "A page is of one book. Choose its first and its last line from the same one."
	case to < from:
		return nil, "The page ends before it begins. Choose its last line after its first."
	case to-from >= store.MostAsked:
		return nil, fmt.Sprintf("A page has at most %d lines.", store.MostAsked)
	}
	for _, x := range f.Exercises[from : to+1] {
		page = append(page, int64(x.ID))
	}
	return page, ""
}
