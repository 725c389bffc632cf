package shelf_test

import (
	"context"
	"fmt"
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
)

// listed lists the numbers of exercises in a part of a page, in order.
func listed(page, from, to, number string) string {
	_, part, _ := strings.Cut(page, from)
	part, _, _ = strings.Cut(part, to)
	var numbers []string
	for _, found := range regexp.MustCompile(number).FindAllStringSubmatch(part, -1) {
		numbers = append(numbers, found[1])
	}
	return strings.Join(numbers, " ")
}

func inBook(page string) string {
	return listed(page, `<ol class="exercises"`, "</ol>", `class="num">(\d+)<`)
}

func comesNext(page string) string {
	return listed(page, `class="next-easiest"`, "</ol>", `<b>(\d+) ·`)
}

// The next numbers of the book that are meant for who is chosen come next; as another choice a
// later number that is easier comes before an earlier one, for the class, for an instrument of
// it and for a student, each by what they have worked on.
func TestNextOnTheShelf(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID) // with a trombone, and First Lamp in The Ferry Book
	desk, ctx := s.Store.For(account.ID), context.Background()
	plain := s.Exercise(t, account.ID, 1, "Plain", "", "T:x\nM:4/4\nL:1/4\nK:Bb\nB c d c|B4|d c B c|B4|]\n")
	s.Exercise(t, account.ID, 2, "Thorny", "", "T:x\nM:4/4\nL:1/4\nK:Bb\nB>^c e>^f|g2 z2|f/^f/g/_a/ f z/ ^c/|B4|]\n")
	s.Exercise(t, account.ID, 3, "Plain again", "", "T:x\nM:4/4\nL:1/4\nK:Bb\nd c B c|d4|B c d c|B4|]\n")
	try := store.Attempt{StudentID: b.Student, ExerciseID: plain, Chunk: breakdown.ChunkKey{First: 1, Last: 2}, Try: routine.Try{Stage: routine.Count, Clean: true}, Tempo: 60}
	if err := desk.AddAttempts(ctx, try); err != nil {
		t.Fatal(err)
	}
	for _, who := range []string{fmt.Sprintf("class-%d", b.Class), fmt.Sprintf("student-%d", b.Student), ""} {
		_, page := v.Get("/?for=" + who)
		_, book, _ := strings.Cut(page, ">B</h2>")
		if got := comesNext(book); got != "2 3" {
			t.Errorf("for %s next come %s", who, got)
		}
		_, easier := v.Get("/?order=easier&for=" + who)
		_, easier, _ = strings.Cut(easier, ">B</h2>")
		if got := comesNext(easier); got != "3 2" {
			t.Errorf("for %s the easier first are %s", who, got)
		}
		if strings.Contains(book, "data-exercise") && inBook(book) != "1 2 3" {
			t.Errorf("in the book stand %s", inBook(book))
		}
		testsite.Wants(t, page, "<h3>Next <small>", "Easier first", "stage-bar")
	}
	drums := s.Exercise(t, account.ID, 4, "Sticks", "", "T:x\nM:4/4\nL:1/4\nK:C clef=perc\nc c c c|c4|]\n")
	for _, tt := range []struct{ audience, want string }{{"music", "2 3"}, {"brass", "2 3 4"}, {"strings", "2 3"}, {"", "2 3 4"}, {"everyone", "2 3 4"}} {
		v.Post(fmt.Sprintf("/exercises/%d/audience", drums), url.Values{"audience": {tt.audience}})
		_, page := v.Get("/")
		if _, book, _ := strings.Cut(page, ">B</h2>"); comesNext(book) != tt.want {
			t.Errorf("with a line for %q next come %s, want %s", tt.audience, comesNext(book), tt.want)
		}
	}
	if _, err := desk.AddStudent(ctx, store.Student{ClassID: b.Class, FirstName: "Marlo", Instrument: "clarinet"}); err != nil {
		t.Fatal(err)
	}
	_, page := v.Get(fmt.Sprintf("/?for=class-%d-clarinet", b.Class))
	testsite.Wants(t, page, "clarinet alone</small>", "instrument=clarinet", fmt.Sprintf(`<option value="class-%d-clarinet" selected>`, b.Class))
	if status, _ := v.Get("/?for=student-999"); status != http.StatusNotFound {
		t.Errorf("for nobody there is gives %d", status)
	}
}

// Exercises are found by number and by words, in whatever case.
func TestFindOnTheShelf(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	for k, title := range []string{"Two Oars", "Net Mending", "Slow Tide", "Tide <two>"} {
		s.Exercise(t, account.ID, k+1, title, "", testsite.Lamp)
	}
	for query, want := range map[string]string{"tide": "3 4", "TIDE slow": "3", "2": "2", "two": "1 4", "<two>": "4"} {
		_, page := v.Get("/?q=" + url.QueryEscape(query))
		if got := inBook(page); got != want {
			t.Errorf("%s finds %s, want %s", query, got, want)
		}
	}
	_, page := v.Get("/?q=" + url.QueryEscape("<none>"))
	testsite.Wants(t, page, "Nothing on the Shelf is called “&lt;none&gt;”.")
}

// Exercises are put in another order, undone, and put back by their numbers.
func TestOrderOnTheShelf(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	ids := map[int]store.ExerciseID{}
	for n := 1; n <= 3; n++ {
		ids[n] = s.Exercise(t, account.ID, n, "x", "", testsite.Lamp)
	}
	order := func(want string) string {
		t.Helper()
		_, page := v.Get("/")
		if got := inBook(page); got != want {
			t.Errorf("the order is %s, want %s", got, want)
		}
		return page
	}
	move := func(path string, form url.Values) {
		t.Helper()
		if status, _ := v.Post(path, form); status != http.StatusSeeOther {
			t.Fatalf("%s gives %d", path, status)
		}
	}
	move(fmt.Sprintf("/exercises/%d/move", ids[3]), url.Values{"before": {fmt.Sprint(ids[1])}})
	page := order("3 1 2")
	testsite.Wants(t, page, "3 · x is moved.", "Order by number")
	undo := regexp.MustCompile(`action="(/exercises/\d+/move\?before=\d+)"`).FindStringSubmatch(page)
	if undo == nil {
		t.Fatal("it cannot be undone")
	}
	move(undo[1], nil)
	order("1 2 3")
	move(fmt.Sprintf("/exercises/%d/move", ids[1]), url.Values{"before": {"0"}})
	order("2 3 1")
	x, err := s.Store.For(account.ID).ExerciseByID(context.Background(), ids[1])
	if err != nil {
		t.Fatal(err)
	}
	move(fmt.Sprintf("/books/%d/order", x.BookID), nil)
	order("1 2 3")
}

// Anyone who begins with an empty shelf can teach from the book that comes along.
func TestTheBookThatComesAlong(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, _ := s.Teacher(t, "a@school.example")
	_, page := v.Get("/")
	testsite.Wants(t, page, "An empty shelf", "Put The Ferry Book on the Shelf", "free to copy")
	if status, _ := v.Post("/books/ferry", nil); status != http.StatusSeeOther {
		t.Fatalf("it gives %d", status)
	}
	_, page = v.Get("/")
	if got := inBook(page); !strings.HasPrefix(got, "1 2 3 ") || !strings.HasSuffix(got, " 39 40") {
		t.Errorf("on the Shelf stand %s", got)
	}
	_, _ = v.Post("/books/ferry", nil)
	_, page = v.Get("/")
	testsite.Wants(t, page, "is on the Shelf already")
}
