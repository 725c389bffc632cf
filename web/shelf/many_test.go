package shelf_test

import (
	"archive/zip"
	"bytes"
	"context"
	"fmt"
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"unhurriedbench/core/format"
	"unhurriedbench/internal/testsite"
)

const threeTunes = "X:4\nT:Quay Four\nM:4/4\nL:1/4\nK:C\nC D E F|G4|]\n\nX:5\nT:Quay Five\nM:3/4\nL:1/4\nK:F\nF G A|B Q|]\n\nX:1\nT:Quay One\nM:4/4\nL:1/4\nK:G\nG A B c|]\n"

// rowsOfPage is the form that a list of many has, as a browser would send it.
func rowsOfPage(page string) url.Values {
	form := url.Values{}
	for _, found := range regexp.MustCompile(`(?s)<input[^>]*name="(number|title|name|kind|for)"[^>]*value="([^"]*)"`).FindAllStringSubmatch(page, -1) {
		form.Add(found[1], found[2])
	}
	for _, found := range regexp.MustCompile(`(?s)<textarea[^>]*name="text"[^>]*>\n(.*?)</textarea>`).FindAllStringSubmatch(page, -1) {
		form.Add("text", strings.NewReplacer("&#34;", `"`, "&amp;", "&", "&#39;", "'", "&lt;", "<", "&gt;", ">").Replace(found[1]))
	}
	for _, found := range regexp.MustCompile(`name="take" value="(\d+)" checked`).FindAllStringSubmatch(page, -1) {
		form.Add("take", found[1])
	}
	return form
}

func TestManyAtOnce(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	testsite.Furnish(t, s.Store, account.ID) // The Ferry Book has a number 1
	status, page := v.SendAs("files", "/exercises/many", map[string]string{"book": "The Ferry Book"}, [2]string{"quay.abc", threeTunes},
		[2]string{"more.zip", zipOf(t, [2]string{"07 tide.counted", "title: Tide\nfor: clarinet\ncount: 1 2 3 4 | 1\nname: gabc d"}, [2]string{"readme.txt", "hello"})})
	if status != http.StatusOK {
		t.Fatalf("looking gives %d", status)
	}
	testsite.Wants(t, page, "Quay Four", "4/4, C major, 2 measures", "quay.abc, tune 2", "“Q” is not something this reads", `value="Quay One"`,
		"Tide", "4/4, C major, 2 measures", "This is neither MusicXML nor ABC nor MIDI.")
	form := rowsOfPage(page)
	if got := fmt.Sprint(form["number"], form["take"]); got != "[4 5 2 7 3] [0 1 2 3]" {
		t.Errorf("numbers and taken: %s; the book has a 1 already, and what is no music has the next free one", got)
	}

	// What is wrong stays behind, the rest goes on the Shelf at once.
	form.Set("book", "The Ferry Book")
	form["title"][0] = "Quay the Fourth"
	status, page = v.Post("/exercises/many/keep", form)
	if status != http.StatusOK {
		t.Fatalf("keeping gives %d", status)
	}
	testsite.Wants(t, page, "3 exercises are in The Ferry Book.", "1 stays behind", "“Q” is not something this reads", "F G A|B Q|]")
	if strings.Contains(page, "Quay One") {
		t.Error("what is kept stands among what stays behind")
	}
	ids := regexp.MustCompile(`name="ids" value="([\d,]+)"`).FindStringSubmatch(page)[1]
	_, shelf := v.Get("/")
	testsite.Wants(t, shelf, "Quay the Fourth", "Tide", "Quay One")
	tide := strings.Split(ids, ",")[2]
	_, edit := v.Get("/exercises/" + tide + "/edit")
	testsite.Wants(t, edit, `<option value="clarinet" selected>`)

	// It is mended on the spot.
	again := rowsOfPage(page)
	again.Set("book", "The Ferry Book")
	again["text"][0] = strings.Replace(again["text"][0], "B Q", "B c d", 1)
	_, page = v.Post("/exercises/many/keep", again)
	testsite.Wants(t, page, "1 exercise is in The Ferry Book.")

	// They are read for every instrument in steps.
	if _, part := v.Post("/exercises/many/read", url.Values{"ids": {ids}}); !strings.Contains(part, "All are read") || strings.Contains(part, "hx-post") {
		t.Errorf("reading gives %s", part)
	}

	// All of it is undone at once, once.
	v.Post("/exercises/many/undo", url.Values{"ids": {ids}})
	_, shelf = v.Get("/")
	testsite.Wants(t, shelf, "3 exercises are deleted again.", "Quay Five")
	if strings.Contains(shelf, "Quay the Fourth") {
		t.Error("what was undone stands on the Shelf")
	}
	v.Post("/exercises/many/undo", url.Values{"ids": {ids}})
	_, shelf = v.Get("/")
	testsite.Wants(t, shelf, "Some of them are deleted already.")

	// Nobody undoes or reads another's.
	other, account := s.Teacher(t, "b@school.example")
	theirs := testsite.Furnish(t, s.Store, account.ID)
	other.Post("/exercises/many/undo", url.Values{"ids": {fmt.Sprint(theirs.Exercise - 1)}})
	v.Post("/exercises/many/undo", url.Values{"ids": {fmt.Sprint(theirs.Exercise)}})
	if _, shelf = other.Get("/"); !strings.Contains(shelf, "First Lamp") {
		t.Error("another teacher took an exercise away")
	}
}

// Nothing is kept where nothing can be, and what was typed stays.
func TestManyThatCannotBe(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	testsite.Furnish(t, s.Store, account.ID)
	status, page := v.SendAs("files", "/exercises/many", map[string]string{"book": "B"})
	if status != http.StatusUnprocessableEntity {
		t.Errorf("no files give %d", status)
	}
	testsite.Wants(t, page, "There is no exercise in what was chosen.")
	row := func(number, text string) url.Values {
		return url.Values{"book": {"The Ferry Book"}, "name": {"a.abc"}, "number": {number}, "title": {"Mine"}, "kind": {"abc"}, "text": {text}, "for": {""}, "take": {"0"}}
	}
	const tune = "M:4/4\nL:1/4\nK:C\nC D E F|]"
	for number, want := range map[string]string{"1": "The Ferry Book has a number 1 already", "x": "The number “x” is not one from 1 to 9999.", "0": "not one from 1 to 9999"} {
		status, page = v.Post("/exercises/many/keep", row(number, tune))
		if status != http.StatusUnprocessableEntity {
			t.Errorf("number %s gives %d", number, status)
		}
		testsite.Wants(t, page, want, `value="Mine"`, "None of them can be kept as they stand.", "C D E F|]")
	}
	status, _ = v.Post("/exercises/many/keep", row("9", "M:4/4\nL:1/4\nK:C\nC'''''' D E F|]"))
	if status != http.StatusUnprocessableEntity {
		t.Errorf("a note out of reach gives %d", status)
	}
	kazoo := row("9", tune)
	kazoo.Set("written_for", "kazoo")
	kazoo.Set("book", "")
	if status, page = v.Post("/exercises/many/keep", kazoo); status != http.StatusUnprocessableEntity {
		t.Errorf("a kazoo without a book gives %d", status)
	}
	testsite.Wants(t, page, "The book&#39;s title is missing", "Choose for whom they are written from the list.")
	broken := row("9", tune)
	broken.Del("kind")
	if status, page = v.Post("/exercises/many/keep", broken); status != http.StatusUnprocessableEntity {
		t.Errorf("a torn list gives %d", status)
	}
	testsite.Wants(t, page, "The list did not arrive whole.")
	status, page = v.Post("/exercises/many/keep", url.Values{"book": {"The Ferry Book"}, "name": {"a", "b"}, "number": {"8", "8"}, "title": {"A", "B"}, "kind": {"abc", "abc"}, "text": {tune, tune}, "for": {"", ""}, "take": {"0", "1"}})
	if status != http.StatusOK {
		t.Errorf("two of one number give %d", status)
	}
	testsite.Wants(t, page, "1 exercise is in The Ferry Book.", "1 stays behind", "has a number 8 already, or it stands twice in the list")
}

// A book that goes out comes back in as it was.
func TestWholeBook(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	form := url.Values{"book": {"The Ferry Book"}, "name": {"a"}, "number": {"12"}, "title": {"Own Title"}, "kind": {"abc"}, "text": {"X:3\nT:Another\nM:3/4\nL:1/4\nK:G\nG A B|]"}, "for": {""}, "take": {"0"}}
	v.Post("/exercises/many/keep", form)
	_, book := v.Get(fmt.Sprintf("/books/%d/export?as=abc", b.Book))
	items, err := format.Items(context.Background(), []format.Named{{Name: "book.abc", Data: []byte(book)}})
	if err != nil || len(items) != 2 || items[0].Number != 1 || items[1].Number != 12 || items[1].File.Score.Title != "Own Title" || items[0].Err != nil || items[1].File.Score.Parts[0].Meter().String() != "3/4" {
		t.Errorf("the book is %v %v\n%s", items, err, book)
	}
	_, packed := v.Get(fmt.Sprintf("/books/%d/export?as=zip", b.Book))
	items, err = format.Items(context.Background(), []format.Named{{Name: "book.zip", Data: []byte(packed)}})
	if err != nil || len(items) != 2 || items[1].Number != 12 || items[1].Err != nil || items[1].File.Kind != format.MusicXML || items[1].File.Score.Title != "Own Title" {
		t.Errorf("the .zip is %v %v", items, err)
	}
}

func zipOf(t *testing.T, files ...[2]string) string {
	t.Helper()
	var out bytes.Buffer
	z := zip.NewWriter(&out)
	for _, f := range files {
		w, err := z.Create(f[0])
		if err == nil {
			_, err = w.Write([]byte(f[1]))
		}
		if err != nil {
			t.Fatal(err)
		}
	}
	if err := z.Close(); err != nil {
		t.Fatal(err)
	}
	return out.String()
}
