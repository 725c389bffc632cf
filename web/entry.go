package web

import (
	"errors"
	"fmt"
	"io"
	"net/http"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"unhurriedbench/core/format"
	"unhurriedbench/core/format/mei"
	"unhurriedbench/core/format/musicxml"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
)

// entry is the form for a new or edited exercise, with all that was typed.
type entry struct {
	ID          int64
	Books       []store.Book
	Book        string
	Number      string
	Title       string
	WrittenFor  string
	ABC         string
	Meter       string // taken for a file that gives none, "3/4"
	Kept        bool   // the MusicXML brought in earlier stays unless replaced
	Instruments []instrument.Instrument
	Problems    []string
	Preview     preview
}

// preview is what the typed text looks like, or what is wrong with it.
type preview struct {
	MEI      string
	Frame    string
	Problems []score.Problem
	Remarks  []score.Problem
	NoMeter  bool   // the file gives none
	Meter    string // that was taken for it, "" for what its bar lines make
	Meters   []string
}

// takenMeters are offered for a file that gives no meter.
var takenMeters = []string{"2/4", "3/4", "4/4", "2/2", "6/8", "3/8", "9/8", "12/8", "5/4"}

// startingABC is what a new form holds, for the teacher to type over.
const startingABC = "X:1\nT:\nM:4/4\nL:1/4\nK:Bb\nB c d e | f2 d2 | c d c B | B4 |]\n"

func (s *Server) newExercise(w http.ResponseWriter, r *http.Request) {
	e := entry{ABC: startingABC}
	books, err := s.store.Books(r.Context(), teacher(r).ID)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	book := number(r, "book")
	for _, b := range books {
		if b.ID != book && book != 0 {
			continue
		}
		next, err := s.store.NextNumber(r.Context(), teacher(r).ID, b.ID)
		if err != nil {
			s.failed(w, r, err)
			return
		}
		e.Book, e.Number = b.Title, strconv.Itoa(next)
		break
	}
	s.showEntry(w, r, http.StatusOK, e)
}

func (s *Server) showEntry(w http.ResponseWriter, r *http.Request, status int, e entry) {
	books, err := s.store.Books(r.Context(), teacher(r).ID)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	e.Books, e.Instruments = books, instrument.All()
	sc, err := format.ReadKind(format.ABC, []byte(e.ABC))
	e.Preview = previewOf(sc, err, e.WrittenFor)
	title := "Add an exercise"
	if e.ID != 0 {
		title = "Edit the exercise"
	}
	s.page(w, r, status, "entry", title, e)
}

// previewOf shows a score as it would be saved, or what is wrong with it.
func previewOf(sc score.Score, err error, writtenFor string) preview {
	if err != nil {
		return preview{Problems: problemsOf(err)}
	}
	part, _ := sourcePart(store.Exercise{WrittenFor: writtenFor}, sc)
	return preview{
		MEI:      mei.Write(part, mei.Options{TempoWords: sc.TempoWords}),
		Frame:    frameWords(part),
		Problems: instrument.Unplayable(part),
		Remarks:  sc.Remarks,
	}
}

// problemsOf lists what a reader found wrong.
func problemsOf(err error) []score.Problem {
	var found score.Problems
	if errors.As(err, &found) {
		return found
	}
	return []score.Problem{score.General(err.Error(), "")}
}

func (s *Server) previewExercise(w http.ResponseWriter, r *http.Request) {
	r.Body = http.MaxBytesReader(w, r.Body, largestForm)
	e := entry{ABC: r.FormValue("abc"), WrittenFor: text(r, "written_for"), Meter: text(r, "meter")}
	var x store.Exercise
	sc, err := readSource(r, e, store.Exercise{}, &x)
	v := previewOf(sc, err, e.WrittenFor)
	v.Meter, v.Meters = e.Meter, takenMeters
	v.NoMeter = x.Format == format.MusicXML && (e.Meter != "" || !musicxml.HasMeter(x.Source))
	s.partial(w, "entry", "preview", v)
}

func (s *Server) editExercise(w http.ResponseWriter, r *http.Request) {
	x, err := s.store.ExerciseByID(r.Context(), teacher(r).ID, idOf(r, "id"))
	if err != nil {
		s.failed(w, r, err)
		return
	}
	e := entry{ID: x.ID, Book: x.Book, Number: strconv.Itoa(x.Number), Title: x.Title, WrittenFor: x.WrittenFor}
	if x.Format == format.ABC {
		e.ABC = x.Source
	} else {
		e.Kept = true
	}
	s.showEntry(w, r, http.StatusOK, e)
}

func (s *Server) addExercise(w http.ResponseWriter, r *http.Request) {
	s.keepExercise(w, r, store.Exercise{})
}

func (s *Server) changeExercise(w http.ResponseWriter, r *http.Request) {
	x, err := s.store.ExerciseByID(r.Context(), teacher(r).ID, idOf(r, "id"))
	if err != nil {
		s.failed(w, r, err)
		return
	}
	s.keepExercise(w, r, x)
}

// largestForm bounds an upload; a file is refused well below it, with its form
// kept.
const largestForm = 32 << 20

// keepExercise checks the form and saves it as a new exercise, or over an old
// one. When anything is wrong nothing is saved and the form comes back.
func (s *Server) keepExercise(w http.ResponseWriter, r *http.Request, old store.Exercise) {
	r.Body = http.MaxBytesReader(w, r.Body, largestForm)
	tooLarge := r.ParseMultipartForm(format.Largest + 1<<20)
	e := entry{
		ID: old.ID, Book: text(r, "book"), Number: text(r, "number"), Title: text(r, "title"),
		WrittenFor: text(r, "written_for"), ABC: r.FormValue("abc"), Meter: text(r, "meter"), Kept: old.Format == format.MusicXML,
	}
	if tooLarge != nil && !errors.Is(tooLarge, http.ErrNotMultipart) {
		e.Problems = []string{fmt.Sprintf("The file is larger than %d MB. Bring in one exercise at a time.", format.Largest>>20)}
		s.showEntry(w, r, http.StatusRequestEntityTooLarge, e)
		return
	}
	x, problems := readEntry(r, e, old)
	if len(problems) > 0 {
		e.Problems = problems
		s.showEntry(w, r, http.StatusUnprocessableEntity, e)
		return
	}
	s.saveExercise(w, r, e, x, old)
}

// readEntry turns the form into an exercise, or lists what is wrong with it.
func readEntry(r *http.Request, e entry, old store.Exercise) (store.Exercise, []string) {
	var problems []string
	n, err := strconv.Atoi(e.Number)
	if err != nil || n < 1 || n > 9999 {
		problems = append(problems, fmt.Sprintf("The number “%s” is not one from 1 to 9999. Type the exercise's number in the book.", e.Number))
	}
	if e.Book == "" {
		problems = append(problems, "The book's title is missing. Choose a book, or type a title for a new one.")
	}
	if len([]rune(e.Book)) > 120 || len([]rune(e.Title)) > 120 {
		problems = append(problems, "A title is longer than 120 letters. Shorten it.")
	}
	if _, known := instrument.ByID(e.WrittenFor); !known && e.WrittenFor != "" && e.WrittenFor != "concert" {
		problems = append(problems, "Choose for whom it is written from the list.")
	}
	x := store.Exercise{ID: old.ID, Book: e.Book, Part: old.Part, Number: n, Title: e.Title, WrittenFor: e.WrittenFor}
	sc, err := readSource(r, e, old, &x)
	if err != nil {
		for _, p := range problemsOf(err) {
			problems = append(problems, p.Error())
		}
		return x, problems
	}
	part, _ := sourcePart(x, sc)
	for i, p := range instrument.Unplayable(part) {
		if i == 3 {
			problems = append(problems, "And more notes like these.")
			break
		}
		problems = append(problems, p.Error())
	}
	if x.Title == "" {
		x.Title = sc.Title
	}
	if x.Title == "" {
		x.Title = "Untitled"
	}
	return x, problems
}

// readSource reads the uploaded file, or the typed text when there is none, or
// keeps the MusicXML an edited exercise had.
func readSource(r *http.Request, e entry, old store.Exercise, x *store.Exercise) (score.Score, error) {
	file, header, err := r.FormFile("file")
	if err != nil || header.Filename == "" {
		if e.Kept && strings.TrimSpace(e.ABC) == "" {
			x.Format, x.Source = old.Format, old.Source
			return format.ReadKind(x.Format, []byte(x.Source))
		}
		x.Format, x.Source = format.ABC, e.ABC
		if strings.TrimSpace(e.ABC) == "" {
			return score.Score{}, score.Problems{score.General("There is no exercise yet.", "Choose a file, or type the notes.")}
		}
		return format.ReadKind(format.ABC, []byte(e.ABC))
	}
	defer file.Close()
	data, err := io.ReadAll(io.LimitReader(file, format.Largest+1))
	if err != nil {
		return score.Score{}, score.Problems{score.General("The file did not arrive whole.", "Choose it again.")}
	}
	f, err := format.Read(header.Filename, data)
	if err == nil && f.Kind == format.MusicXML && slices.Contains(takenMeters, e.Meter) && !musicxml.HasMeter(f.Text) {
		f, err = takeMeter(f, e.Meter)
		x.Format, x.Source = f.Kind, f.Text
	}
	if err != nil {
		return score.Score{}, err
	}
	if !utf8.ValidString(f.Text) || strings.ContainsRune(f.Text, 0) {
		return score.Score{}, score.Problems{score.General("The file is not UTF-8 text.", "Export it again as UTF-8.")}
	}
	x.Format, x.Source, x.Part = f.Kind, f.Text, 0
	return f.Score, nil
}

// sourcePart is the part others are made from, with the sounding interval the
// teacher chose, and the id of the instrument it is written for.
func sourcePart(x store.Exercise, sc score.Score) (score.Part, string) {
	part := sc.Parts[min(x.Part, len(sc.Parts)-1)]
	if x.WrittenFor == "concert" {
		part.Sounds = score.Interval{}
	}
	if i, ok := instrument.ByID(x.WrittenFor); ok {
		part.Sounds = i.Sounds
		return part, i.ID
	}
	return part, ""
}

func (s *Server) saveExercise(w http.ResponseWriter, r *http.Request, e entry, x, old store.Exercise) {
	ctx, t := r.Context(), teacher(r)
	var err error
	if x.ID == 0 {
		x.ID, err = s.store.AddExercise(ctx, t.ID, x)
	} else {
		err = s.store.ChangeExercise(ctx, t.ID, x)
	}
	if errors.Is(err, store.ErrTaken) {
		e.Problems = []string{fmt.Sprintf("%s already has a number %d. Choose another number, or edit that exercise.", e.Book, x.Number)}
		s.showEntry(w, r, http.StatusConflict, e)
		return
	}
	if err != nil {
		s.failed(w, r, err)
		return
	}
	if x.Source != old.Source {
		if parts, err := fileParts(x); err == nil && len(parts) > 1 {
			s.flash(r, "It is on the Shelf. The file holds several parts: say which is which.")
			http.Redirect(w, r, fmt.Sprintf("/exercises/%d/parts", x.ID), http.StatusSeeOther)
			return
		}
	}
	http.Redirect(w, r, fmt.Sprintf("/bench/%d", x.ID), http.StatusSeeOther)
}

func (s *Server) removeExercise(w http.ResponseWriter, r *http.Request) {
	id := idOf(r, "id")
	x, err := s.store.ExerciseByID(r.Context(), teacher(r).ID, id)
	if err == nil {
		err = s.store.RemoveExercise(r.Context(), teacher(r).ID, id)
	}
	if err != nil {
		s.failed(w, r, err)
		return
	}
	s.flash(r, fmt.Sprintf("%d · %s is off the Shelf. Its log is kept.", x.Number, x.Title))
	s.sessions.Put(r.Context(), "undo", fmt.Sprintf("/exercises/%d/restore", id))
	http.Redirect(w, r, "/", http.StatusSeeOther)
}

func (s *Server) restoreExercise(w http.ResponseWriter, r *http.Request) {
	err := s.store.RestoreExercise(r.Context(), teacher(r).ID, idOf(r, "id"))
	if errors.Is(err, store.ErrTaken) {
		s.flash(r, "It could not be put back: another exercise has its number now. Give that one another number first.")
		http.Redirect(w, r, "/", http.StatusSeeOther)
		return
	}
	if err != nil {
		s.failed(w, r, err)
		return
	}
	s.flash(r, "It is back on the Shelf.")
	http.Redirect(w, r, "/", http.StatusSeeOther)
}

// takeMeter reads a file that gives no meter again with the one the teacher takes.
func takeMeter(f format.File, wanted string) (format.File, error) {
	upper, lower, _ := strings.Cut(wanted, "/")
	m, ok := score.ParseMeter(upper, lower)
	if !ok {
		return f, fmt.Errorf("take the meter %s: it is none", wanted)
	}
	f.Text = musicxml.WithMeter(f.Text, m)
	var err error
	f.Score, err = format.ReadKind(f.Kind, []byte(f.Text))
	return f, err
}
