package shelf

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"io"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/format"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
	"unhurriedbench/reading"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// manyView is several exercises that are brought in together.
type manyView struct {
	Book        string
	WrittenFor  string
	Rows        []manyRow
	Saved       []int64 // that have just been put on the Shelf
	Problems    []string
	Books       []store.Book
	Instruments []instrument.Instrument
	Reading     readingView
}

// manyRow is what one of them will be.
type manyRow struct {
	Name       string // of its file
	Number     string
	Title      string
	Kind, Text string // what is kept of it
	For        string // the instrument it says it is written for
	Left       bool   // it is left out
	Signatures string // "4/4, B flat major, 8 measures"
	Remarks    []string
	Wrong      []string // why it cannot be kept
}

// Mendable says whether its text can be mended by hand.
func (r manyRow) Mendable() bool { return r.Kind == format.ABC && r.Text != "" }

func (s *handlers) chooseMany(w http.ResponseWriter, r *http.Request) error {
	v := manyView{Book: site.Text(r, "book")}
	return s.showMany(w, r, http.StatusOK, v)
}

func (s *handlers) showMany(w http.ResponseWriter, r *http.Request, status int, v manyView) error {
	var err error
	if v.Books, err = site.ClassOf(r).Books(r.Context()); err != nil {
		return err
	}
	if v.Book == "" && len(v.Books) > 0 {
		v.Book = v.Books[0].Title
	}
	v.Instruments = instrument.All()
	s.Page(w, r, status, "many", "Import several", v)
	return nil
}

// lookAtMany says what each of the chosen files will be.
func (s *handlers) lookAtMany(w http.ResponseWriter, r *http.Request) error {
	v := manyView{Book: site.Text(r, "book"), WrittenFor: site.Text(r, "written_for")}
	if site.FormError(r) != nil {
		v.Problems = []string{"The files are larger than 5 MB each or 30 MB together. Bring them in in several lots."}
		return s.showMany(w, r, http.StatusRequestEntityTooLarge, v)
	}
	files, err := filesOf(r)
	var items []format.Item
	if err == nil {
		items, err = format.Items(r.Context(), files)
	}
	if err != nil {
		v.Problems = []string{problemsOf(err)[0].Error()}
		return s.showMany(w, r, http.StatusUnprocessableEntity, v)
	}
	taken, err := numbersIn(r.Context(), site.ClassOf(r), v.Book)
	if err != nil {
		return err
	}
	for _, item := range items {
		v.Rows = append(v.Rows, rowOf(item, v.WrittenFor))
	}
	v.number(items, taken)
	return s.showMany(w, r, http.StatusOK, v)
}

// filesOf reads the files of a form.
func filesOf(r *http.Request) ([]format.Named, error) {
	var files []format.Named
	if r.MultipartForm == nil {
		return nil, nil
	}
	for _, header := range r.MultipartForm.File["files"] {
		if header.Filename == "" {
			continue
		}
		file, err := header.Open()
		if err != nil {
			return nil, score.Problems{score.General(fmt.Sprintf("%s did not arrive whole.", header.Filename),
				"Choose it again.")}
		}
		data, err := io.ReadAll(io.LimitReader(file, format.MostTogether+1))
		file.Close()
		if err != nil {
			return nil, score.Problems{score.General(fmt.Sprintf("%s did not arrive whole.", header.Filename),
				"Choose it again.")}
		}
		files = append(files, format.Named{Name: header.Filename, Data: data})
	}
	return files, nil
}

// rowOf is what an item will be.
func rowOf(item format.Item, writtenFor string) manyRow {
	row := manyRow{Name: item.Name, Title: item.File.Score.Title, Kind: item.File.Kind, Text: item.File.Text,
		For: item.File.For}
	if item.Err != nil {
		for _, p := range problemsOf(item.Err) {
			row.Wrong = append(row.Wrong, p.Error())
		}
		return row
	}
	row.describe(item.File.Score, cmp.Or(writtenFor, row.For))
	return row
}

// describe says of a score what a teacher wants to know of it.
func (row *manyRow) describe(sc score.Score, writtenFor string) {
	part := reading.SourceOf(store.Exercise{WrittenFor: writtenFor}, sc).Source
	outline := breakdown.OutlineOf(part)
	row.Signatures = outline.Signatures + ", " + teach.Plural(outline.Measures, "measure", "measures")
	if n := len(sc.Parts); n > 1 {
		row.Signatures += fmt.Sprintf(", %d parts", n)
	}
	row.Remarks = nil
	if words := against(sc.Parts[0], writtenFor); words != "" {
		row.Remarks = append(row.Remarks, words)
	}
	for _, p := range sc.Remarks {
		row.Remarks = append(row.Remarks, p.Error())
	}
}

// numbersIn lists the numbers of a book's exercises.
func numbersIn(ctx context.Context, desk *teach.Class, book string) ([]int, error) {
	list, err := desk.Exercises(ctx)
	var numbers []int
	for _, x := range list {
		if x.Book == book {
			numbers = append(numbers, x.Number)
		}
	}
	return numbers, err
}

// number gives each row the number its file has, and others the next that is free.
func (v *manyView) number(items []format.Item, taken []int) {
	next := 1
	if len(taken) > 0 {
		next = slices.Max(taken) + 1
	}
	given := slices.Clone(taken)
	for k, item := range items {
		if item.Number > 0 && !slices.Contains(given, item.Number) {
			v.Rows[k].Number = strconv.Itoa(item.Number)
			given = append(given, item.Number)
		}
	}
	for k := range v.Rows {
		if v.Rows[k].Number != "" {
			continue
		}
		for slices.Contains(given, next) {
			next++
		}
		v.Rows[k].Number = strconv.Itoa(next)
		given = append(given, next)
	}
}

// saveMany puts what can be kept on the Shelf, all of it at once; the rest stays on the page
// with its reasons.
func (s *handlers) saveMany(w http.ResponseWriter, r *http.Request) error {
	v := manyView{Book: site.Text(r, "book"), WrittenFor: site.Text(r, "written_for")}
	if site.FormError(r) != nil {
		v.Problems = []string{"The exercises are larger than 30 MB together. Bring them in in several lots."}
		return s.showMany(w, r, http.StatusRequestEntityTooLarge, v)
	}
	var problem string
	if v.Rows, problem = rowsIn(r); problem != "" {
		v.Problems = []string{problem}
		return s.showMany(w, r, http.StatusUnprocessableEntity, v)
	}
	good, err := s.good(r.Context(), site.ClassOf(r), &v)
	if err != nil {
		return err
	}
	if len(v.Problems) > 0 || len(good) == 0 {
		if len(v.Problems) == 0 {
			v.Problems = []string{"None of them can be kept as they stand."}
		}
		return s.showMany(w, r, http.StatusUnprocessableEntity, v)
	}
	ids, err := site.ClassOf(r).AddExercises(r.Context(), v.Book, good)
	if errors.Is(err, store.ErrTaken) {
		v.Problems = []string{"A number has been given to another exercise of the book meanwhile. Nothing is kept yet; choose another, and keep them again."}
		return s.showMany(w, r, http.StatusConflict, v)
	}
	if err != nil {
		return err
	}
	for _, id := range ids {
		v.Saved = append(v.Saved, int64(id))
	}
	v.Rows = slices.DeleteFunc(v.Rows, func(row manyRow) bool { return len(row.Wrong) == 0 })
	v.Reading = readingView{IDs: idsText(v.Saved), Of: len(v.Saved)}
	return s.showMany(w, r, http.StatusOK, v)
}

// rowsIn reads the rows of a form, or says what is wrong with it as a whole.
func rowsIn(r *http.Request) ([]manyRow, string) {
	field := func(name string) []string { return r.Form[name] }
	n := len(field("name"))
	if n == 0 || n > format.MostItems {
		return nil, "There is no exercise yet. Choose files."
	}
	for _, name := range []string{"number", "title", "kind", "text", "for"} {
		if len(field(name)) != n {
			return nil, "The list did not arrive whole. Choose the files again."
		}
	}
	rows := make([]manyRow, n)
	for k := range rows {
		rows[k] = manyRow{
			Name: field("name")[k], Number: strings.TrimSpace(field("number")[k]), Title: strings.TrimSpace(field("title")[k]),
			Kind: field("kind")[k], Text: field("text")[k], For: field("for")[k], Left: !slices.Contains(field("take"),
				strconv.Itoa(k)),
		}
	}
	return rows, ""
}

// good reads the rows that are taken and lists those that can be kept; the others get their
// reasons.
func (s *handlers) good(ctx context.Context, desk *teach.Class, v *manyView) ([]store.Sourced, error) {
	if v.Book == "" || len(v.Book) > 120 {
		v.Problems = append(v.Problems, "The book's title is missing, or longer than 120 letters. Choose a book, or type a title for a new one.")
	}
	if _, known := instrument.ByID(v.WrittenFor); !known && v.WrittenFor != "" && v.WrittenFor != reading.Concert {
		v.Problems = append(v.Problems, "Choose for whom they are written from the list.")
	}
	taken, err := numbersIn(ctx, desk, v.Book)
	if err != nil {
		return nil, err
	}
	var list []store.Sourced
	for k := range v.Rows {
		row := &v.Rows[k]
		if row.Left {
			continue
		}
		source := store.Source{Format: row.Kind, Content: row.Text}
		sc, err := s.Reader.Score(ctx, source)
		switch {
		case ctx.Err() != nil:
			return nil, fmt.Errorf("read what was brought in: %w", ctx.Err())
		case err != nil:
			for _, p := range problemsOf(err) {
				row.Wrong = append(row.Wrong, p.Error())
			}
			continue
		}
		if _, known := instrument.ByID(row.For); !known {
			row.For = ""
		}
		x := store.Exercise{Book: v.Book, WrittenFor: cmp.Or(v.WrittenFor, row.For),
			Title: cmp.Or(row.Title, sc.Title, "Untitled")}
		row.describe(sc, x.WrittenFor)
		n, err := strconv.Atoi(row.Number)
		switch {
		case err != nil || n < 1 || n > 9999:
			row.Wrong = append(row.Wrong, fmt.Sprintf("The number “%s” is not one from 1 to 9999. Type the exercise's number in the book.", score.Clip(row.Number)))
		case slices.Contains(taken, n):
			row.Wrong = append(row.Wrong, fmt.Sprintf("%s has a number %d already, or it stands twice in the list. Choose another.", v.Book, n))
		case len(x.Title) > 120:
			row.Wrong = append(row.Wrong, "A title is longer than 120 letters. Shorten it.")
		}
		for i, p := range instrument.Unplayable(reading.SourceOf(x, sc).Source) {
			if i < 3 {
				row.Wrong = append(row.Wrong, p.Error())
			}
		}
		if len(row.Wrong) > 0 {
			continue
		}
		x.Number = n
		taken = append(taken, n)
		list = append(list, store.Sourced{Exercise: x, Source: source})
	}
	return list, nil
}

// readingView is how far new exercises have been read for every instrument.
type readingView struct {
	IDs      string // of those that are left
	Done, Of int
}

func idsText(ids []int64) string {
	var words []string
	for _, id := range ids {
		words = append(words, strconv.FormatInt(id, 10))
	}
	return strings.Join(words, ",")
}

func idsIn(r *http.Request) []int64 {
	var ids []int64
	for _, word := range strings.SplitN(site.Text(r, "ids"), ",", format.MostItems+1) {
		if n, err := strconv.ParseInt(word, 10, 64); err == nil && len(ids) < format.MostItems {
			ids = append(ids, n)
		}
	}
	return ids
}

// readAtOnce is how many exercises are read between two sights of the progress bar.
const readAtOnce = 8

// readMany reads the next of some new exercises for every instrument, so that the Shelf has
// not to, and says how far it has come.
func (s *handlers) readMany(w http.ResponseWriter, r *http.Request) error {
	ids := idsIn(r)
	of := max(int(site.Number(r, "of")), len(ids))
	now := min(readAtOnce, len(ids))
	for _, id := range ids[:now] {
		_, err := site.ClassOf(r).Exercise(r.Context(), store.ExerciseID(id))
		if err != nil && !errors.Is(err, store.ErrNotFound) { // which was taken away meanwhile
			return err
		}
	}
	left := ids[now:]
	s.Fragment(w, "many", "reading", readingView{idsText(left), of - len(left), of})
	return nil
}

// undoMany takes exercises that were brought in together off the Shelf again.
func (s *handlers) undoMany(w http.ResponseWriter, r *http.Request) error {
	ids := idsIn(r)
	err := site.ClassOf(r).MoveToTrash(r.Context(), store.TrashExercise, ids...)
	switch {
	case errors.Is(err, store.ErrNotFound):
		s.Flash(r, "Some of them are deleted already. Nothing was changed.")
	case err != nil:
		return err
	default:
		s.Flash(r, fmt.Sprintf("%s deleted again. For 30 days you can restore them.",
			teach.Plural(len(ids), "exercise is", "exercises are")))
	}
	http.Redirect(w, r, "/", http.StatusSeeOther)
	return nil
}
