package shelf

import (
	"context"
	"errors"
	"fmt"
	"html/template"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/instrument"
	"unhurriedbench/demo"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// shelfBook is a book with its exercises in order, and what comes next for anyone who is
// chosen.
type shelfBook struct {
	store.Book
	Exercises []shelfExercise
	Next      []shelfNext
	Worked    int  // how many exercises the chosen student or class has worked on
	Moved     bool // the teacher put them in an order of their own
}

// shelfExercise is an exercise with how far the class is.
type shelfExercise struct {
	store.Exercise
	Bar   template.HTML
	Up    store.ExerciseID // the one it would stand before when moved up, 0 for the first
	Down  store.ExerciseID // and down; 0 is last
	First bool
	Last  bool
}

// shelfNext is an exercise in the order of ease, with the address of its Bench.
type shelfNext struct {
	teach.NextExercise
	Link string
}

// shelfFor is who may be chosen: a class, one instrument of it, or a student.
type shelfFor struct {
	Value, Words string
	Current      bool
}

// shelfView is the Shelf.
type shelfView struct {
	Books   []shelfBook
	Query   string // what is searched for
	For     []shelfFor
	ForName string // who is chosen, in words; "" where there is nobody
	Who     string // the same as the address has it
	Easier  bool   // what comes next is in the order of ease, not of the book
	Removed int    // what can be put back
}

func (s *handlers) shelf(w http.ResponseWriter, r *http.Request) error {
	v, err := loadShelf(r.Context(), site.ClassOf(r), shelfAsk{site.Text(r, "for"), site.Text(r, "q"),
		site.Text(r, "order") == "easier"})
	if err != nil {
		return err
	}
	s.Page(w, r, http.StatusOK, "shelf", "Shelf", v)
	return nil
}

// shelfAsk is what is asked of the Shelf: for the student or class named in the form of the page,
// "" for the class chosen last; what is searched for; and whether the easier come first.
type shelfAsk struct {
	who, query string
	easier     bool
}

func loadShelf(ctx context.Context, desk *teach.Class, ask shelfAsk) (shelfView, error) {
	v := shelfView{Query: ask.query, Who: ask.who, Easier: ask.easier}
	books, err := desk.Books(ctx)
	if err != nil {
		return v, err
	}
	exercises, err := desk.Exercises(ctx)
	if err != nil {
		return v, err
	}
	room, err := chooseRoom(ctx, desk, &v, ask.who)
	if err != nil {
		return v, err
	}
	counts, err := desk.EarnedCounts(ctx, room.Class.ID)
	if err != nil {
		return v, err
	}
	rules, err := desk.Rules(ctx)
	if err != nil {
		return v, err
	}
	bars := site.NewClassBars(rules, room.Class.ID, counts)
	v.Books = make([]shelfBook, len(books))
	at := map[store.BookID]int{}
	for i, b := range books {
		v.Books[i].Book = b
		at[b.ID] = i
	}
	for _, x := range exercises {
		book := &v.Books[at[x.BookID]]
		book.Moved = book.Moved || x.Placed
		book.Exercises = append(book.Exercises, shelfExercise{Exercise: x,
			Bar: bars.Of(x.ID, room.Students*len(x.Outline.Parts()))})
	}
	next, err := teach.WhatNext(ctx, desk, room, exercises)
	if err != nil {
		return v, err
	}
	for k := range v.Books {
		v.Books[k].Worked = next[v.Books[k].ID].Worked
		order := next[v.Books[k].ID].InOrder
		if v.Easier {
			order = next[v.Books[k].ID].Easier
		}
		for _, x := range order {
			v.Books[k].Next = append(v.Books[k].Next, shelfNext{x, nextLink(room, x.ID)})
		}
		v.Books[k].neighbours()
		if v.Query != "" {
			v.Books[k].Exercises = slices.DeleteFunc(v.Books[k].Exercises,
				func(x shelfExercise) bool { return !x.matches(v.Query) })
		}
	}
	if v.Query != "" {
		v.Books = slices.DeleteFunc(v.Books, func(b shelfBook) bool { return len(b.Exercises) == 0 })
	}
	removed, err := desk.Trash(ctx)
	v.Removed = len(removed)
	return v, err
}

// neighbours finds where each exercise goes when it is moved by one.
func (b *shelfBook) neighbours() {
	for k := range b.Exercises {
		x := &b.Exercises[k]
		x.First, x.Last = k == 0, k == len(b.Exercises)-1
		if !x.First {
			x.Up = b.Exercises[k-1].ID
		}
		if k+2 < len(b.Exercises) {
			x.Down = b.Exercises[k+2].ID
		}
	}
}

// matches says whether an exercise is what is searched for: by its number, or by words in
// its title.
func (x shelfExercise) matches(query string) bool {
	for word := range strings.FieldsSeq(strings.ToLower(query)) {
		if strconv.Itoa(x.Number) != word && !strings.Contains(strings.ToLower(x.Title), word) {
			return false
		}
	}
	return true
}

// chooseRoom finds who is asked for: "class-3", "class-3-trombone" or "student-12"; the
// class chosen last where nobody is.
func chooseRoom(ctx context.Context, desk *teach.Class, v *shelfView, who string) (teach.Room, error) {
	var room teach.Room
	what, rest, _ := strings.Cut(who, "-")
	number, only, _ := strings.Cut(rest, "-")
	id, _ := strconv.ParseInt(number, 10, 64) // 0, which no row has, for none
	desired := store.ClassID(0)
	var err error
	switch what {
	case "student":
		if room.Student, err = desk.StudentByID(ctx, store.StudentID(id)); err != nil {
			return room, err
		}
		desired = room.Student.ClassID
	case "class":
		desired = store.ClassID(id)
	}
	classes, class, err := desk.ChooseClass(ctx, desired)
	if err != nil || class.ID == 0 {
		return room, err
	}
	room.Class = class
	students, err := desk.Students(ctx, class.ID)
	if err != nil {
		return room, err
	}
	room.Students = len(students)
	playing := map[string]int{}
	for _, student := range students {
		playing[student.Instrument]++
	}
	if room.Student.ID != 0 {
		name := fmt.Sprintf("%s, %s", room.Student.Name(), teach.InstrumentName(room.Student.Instrument))
		v.For, v.ForName = append(v.For, shelfFor{fmt.Sprintf("student-%d", room.Student.ID), name, true}), name
		playing = map[string]int{room.Student.Instrument: 1}
	}
	for _, other := range classes {
		value := fmt.Sprintf("class-%d", other.ID)
		current := room.Student.ID == 0 && other.ID == class.ID
		v.For = append(v.For, shelfFor{value, other.Name, current && playing[only] == 0})
		if current && playing[only] == 0 {
			v.ForName = other.Name
		}
		if other.ID != class.ID || room.Student.ID != 0 {
			continue
		}
		for _, i := range instrument.All() {
			if playing[i.ID] > 0 && len(playing) > 1 {
				words := fmt.Sprintf("%s: %s alone", other.Name, i.Name)
				v.For = append(v.For, shelfFor{value + "-" + i.ID, words, only == i.ID})
				if only == i.ID {
					v.ForName = words
				}
			}
		}
	}
	room.AddPlayers(playing, only)
	return room, nil
}

// OrderLink is the address of the Shelf with what comes next in the other order.
func (v shelfView) OrderLink(easier bool) string {
	q := url.Values{}
	if v.Who != "" {
		q.Set("for", v.Who)
	}
	if easier {
		q.Set("order", "easier")
	}
	return "/?" + q.Encode()
}

// Audiences are whom an exercise may be for.
func (shelfExercise) Audiences() []breakdown.Audience { return breakdown.Audiences() }

// saveAudience says whom an exercise is for; "music" leaves it to its music.
func (s *handlers) saveAudience(w http.ResponseWriter, r *http.Request) error {
	id := site.ID[store.ExerciseID](r)
	var chosen *breakdown.Audience
	if text := site.Text(r, "audience"); text != "music" {
		a, known := breakdown.ParseAudience(text)
		if !known {
			s.Flash(r, "Choose from the list whom the exercise is for.")
			http.Redirect(w, r, "/", http.StatusSeeOther)
			return nil
		}
		chosen = &a
	}
	if err := site.ClassOf(r).SaveAudience(r.Context(), id, chosen); err != nil {
		return err
	}
	http.Redirect(w, r, fmt.Sprintf("/#exercise-%d", id), http.StatusSeeOther)
	return nil
}

// nextLink is the address of the Bench of an exercise for who is chosen.
func nextLink(room teach.Room, x store.ExerciseID) string {
	switch {
	case room.Student.ID != 0:
		return fmt.Sprintf("/bench/%d?student=%d", x, room.Student.ID)
	case len(room.Players) == 1:
		return fmt.Sprintf("/bench/%d?class=%d&instrument=%s", x, room.Class.ID, room.Players[0].Instrument)
	}
	return fmt.Sprintf("/bench/%d?class=%d", x, room.Class.ID)
}

// moveExercise puts an exercise elsewhere in its book.
func (s *handlers) moveExercise(w http.ResponseWriter, r *http.Request) error {
	ctx, desk, id := r.Context(), site.ClassOf(r), site.ID[store.ExerciseID](r)
	x, err := desk.ExerciseByID(ctx, id)
	if err != nil {
		return err
	}
	_, after, err := desk.Neighbours(ctx, id)
	if err != nil {
		return err
	}
	if err := desk.MoveExercise(ctx, id, store.ExerciseID(site.Number(r, "before"))); err != nil {
		return err
	}
	s.Flash(r, fmt.Sprintf("%d · %s is moved.", x.Number, x.Title))
	s.Sessions.Put(ctx, "undo", fmt.Sprintf("/exercises/%d/move?before=%d", id, after.ID))
	http.Redirect(w, r, fmt.Sprintf("/#exercise-%d", id), http.StatusSeeOther)
	return nil
}

// orderByNumber puts a book back in the order of its numbers.
func (s *handlers) orderByNumber(w http.ResponseWriter, r *http.Request) error {
	if err := site.ClassOf(r).OrderByNumber(r.Context(), site.ID[store.BookID](r)); err != nil {
		return err
	}
	s.Flash(r, "The exercises are in the order of their numbers again.")
	http.Redirect(w, r, "/", http.StatusSeeOther)
	return nil
}

// addFerryBook puts the book that comes with the program on the Shelf.
func (s *handlers) addFerryBook(w http.ResponseWriter, r *http.Request) error {
	err := demo.AddBook(r.Context(), site.ClassOf(r).Desk)
	switch {
	case errors.Is(err, store.ErrTaken):
		s.Flash(r, demo.BookTitle+" is on the Shelf already, or numbers of it are.")
	case err != nil:
		return err
	default:
		s.Flash(r, demo.BookTitle+" is on the Shelf: forty exercises, free to copy.")
	}
	http.Redirect(w, r, "/", http.StatusSeeOther)
	return nil
}
