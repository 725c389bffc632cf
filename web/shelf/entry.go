package shelf

import (
	"cmp"
	"errors"
	"fmt"
	"io"
	"net/http"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/format"
	"unhurriedbench/core/format/mei"
	"unhurriedbench/core/format/musicxml"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
	"unhurriedbench/reading"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// way is a way in for an exercise: what is typed or chosen.
type way string

// The ways, the default first.
const (
	byCount way = "count" // a line that counts it and one that names it
	byFile  way = "file"
	byABC   way = "abc"
)

// Title is the way's name on its tab.
func (w way) Title() string {
	return map[way]string{byCount: "Type it in", byFile: "A file", byABC: "ABC"}[w]
}

// wayIn is the way that a form says, another one where it says none.
func wayIn(r *http.Request, field string, other way) way {
	if w := way(site.Text(r, field)); w == byFile || w == byABC || w == byCount {
		return w
	}
	return other
}

// entry is the form for a new or edited exercise, with all that was typed.
type entry struct {
	Way         way
	Typed       typed
	saved       teach.Settings
	ID          store.ExerciseID
	Books       []store.Book
	Book        string
	Number      string
	Title       string
	WrittenFor  string
	ABC         string
	Meter       string // taken for a file that gives none, "3/4"
	Latin       bool   // it is read as Latin-1
	Bars        bool   // its measures are read as their bar lines make them
	Saved       bool   // the MusicXML brought in earlier stays unless replaced
	Instruments []instrument.Instrument
	Problems    []string
	Seen        string // which version of the exercise was opened
	Unsaved     bool   // what it holds came from the form
	Said        string // what was left out in turning one way into another
	Preview     preview
	Sheet       countedSheet
	Again       bool // the notes to start near are others now
	Marked      bool // the marks line is another now
}

// Names is how the teacher names notes, and so types them: scale degrees are typed as letters.
func (e entry) Names() name.System { return e.saved.Preferences.Options(store.Class{}).Name.System }

// Ways lists the ways in.
func (e entry) Ways() []way { return []way{byCount, byFile, byABC} }

// preview is what the typed text looks like, or what is wrong with it.
type preview struct {
	MEI        string
	Signatures string
	Problems   []score.Problem
	Remarks    []score.Problem
	Against    string // how it sounds, where that is not what the file says
	NotUTF8    bool   // its letters are not read as they stand
	Latin      bool   // and are read as Latin-1
	Uneven     bool   // measures hold more or less than their meter
	Bars       bool   // and are read by their bar lines
	NoMeter    bool   // the file gives none
	Meter      string // that was taken for it, "" for what its bar lines make
	Meters     []string
}

// takenMeters are offered for a file that gives no meter.
var takenMeters = []string{"2/4", "3/4", "4/4", "2/2", "6/8", "3/8", "9/8", "12/8", "5/4"}

// startingABC is what a new form holds, for the teacher to type over.
const startingABC = "X:1\nT:\nM:4/4\nL:1/4\nK:Bb\nB c d e | f2 d2 | c d c B | B4 |]\n"

func (s *handlers) newExercise(w http.ResponseWriter, r *http.Request) error {
	saved, err := teach.LoadSettings(r.Context(), site.ClassOf(r))
	if err != nil {
		return err
	}
	e := entry{Way: wayIn(r, "way", byCount), saved: saved}
	books, err := site.ClassOf(r).Books(r.Context())
	if err != nil {
		return err
	}
	book := store.BookID(site.Number(r, "book"))
	for _, b := range books {
		if b.ID != book && book != 0 {
			continue
		}
		next, err := site.ClassOf(r).NextNumber(r.Context(), b.ID)
		if err != nil {
			return err
		}
		e.Book, e.Number = b.Title, strconv.Itoa(next)
		if err := s.startLike(r.Context(), site.ClassOf(r), &e, b.ID); err != nil {
			return err
		}
		break
	}
	if e.Way != byCount {
		e.WrittenFor = "" // what is carried over is for typing; a file's own word leads
	}
	if e.Typed == (typed{}) {
		e.Typed = typed{Meter: "4/4", Key: "Bb"}
	}
	e.ABC = startingABC
	return s.showEntry(w, r, http.StatusOK, e)
}

func (s *handlers) showEntry(w http.ResponseWriter, r *http.Request, status int, e entry) error {
	books, err := site.ClassOf(r).Books(r.Context())
	if err != nil {
		return err
	}
	e.Books, e.Instruments = books, instrument.All()
	if e.Way == byCount {
		e.Sheet = e.countedSheet(e.lines().Draft(r.Context()))
	} else if strings.TrimSpace(e.ABC) != "" || e.Way == byABC {
		sc, err := s.Reader.Score(r.Context(), store.Source{Format: format.ABC, Content: e.ABC})
		e.Preview = previewOf(sc, err, e.WrittenFor)
	}
	title := "Add an exercise"
	if e.ID != 0 {
		title = "Edit the exercise"
	}
	s.Page(w, r, status, "entry", title, e)
	return nil
}

// previewOf shows a score as it would be saved, or what is wrong with it.
func previewOf(sc score.Score, err error, writtenFor string) preview {
	if err != nil {
		problems := score.Problems(problemsOf(err))
		return preview{Problems: problems, Uneven: problems.OfLengths()}
	}
	part := reading.SourceOf(store.Exercise{WrittenFor: writtenFor}, sc).Source
	return preview{
		MEI:        mei.Write(part, mei.Options{TempoWords: sc.TempoWords}),
		Signatures: breakdown.OutlineOf(part).Signatures,
		Problems:   instrument.Unplayable(part),
		Remarks:    sc.Remarks,
		Against:    against(sc.Parts[0], writtenFor),
	}
}

// against says how music that is read as written for an instrument sounds, where that is
// not what the file itself says; "" where they agree.
func against(part score.Part, writtenFor string) string {
	sounds, title := score.Interval{}, "in concert pitch"
	if i, known := instrument.ByID(writtenFor); known {
		sounds, title = i.Transposition, "for "+i.Name
	} else if writtenFor != reading.Concert {
		return ""
	}
	if part.Unpitched() || sounds == part.Transposition {
		return ""
	}
	return fmt.Sprintf("Written %s: sounds %s. The file says: %s.", title, instrument.SoundsWords(sounds),
		instrument.SoundsWords(part.Transposition))
}

// problemsOf lists what a reader found wrong.
func problemsOf(err error) []score.Problem {
	var found score.Problems
	if errors.As(err, &found) {
		return found
	}
	return []score.Problem{score.General(err.Error(), "")}
}

func (s *handlers) previewExercise(w http.ResponseWriter, r *http.Request) error {
	e, err := entryIn(r)
	if err != nil {
		return err
	}
	if e.Way == byCount {
		d := e.toggled(r.Context(), site.Text(r, "mark_from"), site.Text(r, "mark_to"), site.Text(r, "mark"))
		e.Sheet, e.Again = e.countedSheet(d), site.Text(r, "starts_for") != e.WrittenFor
		s.Fragment(w, "entry", "counted-again", e)
		return nil
	}
	b, err := s.readSource(r, e, store.Source{})
	v := previewOf(b.score, err, e.WrittenFor)
	v.Meter, v.Meters, v.Latin, v.Bars = e.Meter, takenMeters, e.Latin, e.Bars
	v.NotUTF8 = e.Latin || err != nil && !utf8.ValidString(b.source.Content)
	v.Uneven = v.Uneven || e.Bars // both are shown once pressed, so that they can be taken back
	v.NoMeter = b.source.Format == format.MusicXML && (e.Meter != "" || !musicxml.HasMeter(b.source.Content))
	s.Fragment(w, "entry", "preview", v)
	return nil
}

// entryIn is what a form holds.
func entryIn(r *http.Request) (entry, error) {
	saved, err := teach.LoadSettings(r.Context(), site.ClassOf(r))
	other := byFile // what is sent without a way, by a script say
	if r.FormValue("abc") != "" {
		other = byABC
	}
	return entry{
		Way: wayIn(r, "way", other), Typed: typedIn(r),
		Book: site.Text(r, "book"), Number: site.Text(r, "number"), Title: site.Text(r, "title"),
		WrittenFor: site.Text(r, "written_for"), ABC: r.FormValue("abc"), Meter: site.Text(r, "meter"),
		Latin: site.Text(r, "encoding") == "latin-1", Bars: site.Text(r, "bars") == "yes",
		Seen: site.Text(r, "seen"), Unsaved: true, saved: saved,
	}, err
}

// versionOf tells one state of an exercise from another.
func versionOf(x store.Exercise) string {
	return fmt.Sprintf("%s %d %d %s %s %s", x.Hash, x.Part, x.Number, x.WrittenFor, x.Book, x.Title)
}

func (s *handlers) editExercise(w http.ResponseWriter, r *http.Request) error {
	x, err := site.ClassOf(r).ExerciseByID(r.Context(), site.ID[store.ExerciseID](r))
	if err != nil {
		return err
	}
	e := entry{ID: x.ID, Book: x.Book, Number: strconv.Itoa(x.Number), Title: x.Title, WrittenFor: x.WrittenFor,
		Seen: versionOf(x)}
	if e.saved, err = teach.LoadSettings(r.Context(), site.ClassOf(r)); err != nil {
		return err
	}
	if x.Format == format.ABC {
		source, err := site.ClassOf(r).Source(r.Context(), x.Hash)
		if err != nil {
			return err
		}
		e.Way, e.ABC = byABC, source.Content
		if sc, err := s.Reader.Score(r.Context(), source); err == nil && wayIn(r, "way", byCount) != byABC {
			if typed, whole, _ := typedOf(r.Context(), sc, e.Names()); whole { // else it stays as it is typed
				e.Way, e.Typed = byCount, typed
			}
		}
	} else {
		e.Way, e.Saved = byFile, true
	}
	return s.showEntry(w, r, http.StatusOK, e)
}

func (s *handlers) addExercise(w http.ResponseWriter, r *http.Request) error {
	return s.saveExercise(w, r, store.Exercise{}, store.Source{})
}

func (s *handlers) changeExercise(w http.ResponseWriter, r *http.Request) error {
	x, err := site.ClassOf(r).ExerciseByID(r.Context(), site.ID[store.ExerciseID](r))
	if err != nil {
		return err
	}
	source, err := site.ClassOf(r).Source(r.Context(), x.Hash)
	if err != nil {
		return err
	}
	return s.saveExercise(w, r, x, source)
}

// tooLargeFile is said of a file over format.Largest.
const tooLargeFile = "The file is larger than 5 MB. Bring in one exercise at a time."

// saveExercise checks the form and saves it as a new exercise, or over an old
// one. When anything is wrong nothing is saved and the form comes back.
func (s *handlers) saveExercise(w http.ResponseWriter, r *http.Request, old store.Exercise, saved store.Source) error {
	e, err := entryIn(r)
	if err != nil {
		return err
	}
	e.ID, e.Saved = old.ID, saved.Format == format.MusicXML
	if now := versionOf(old); old.ID != 0 && e.Seen != "" && e.Seen != now {
		e.Seen = now
		e.Problems = []string{fmt.Sprintf("%d · %s was changed meanwhile, in another window or by somebody else. What you typed stands here. Save again to replace the other, or open it first.", old.Number, old.Title)}
		return s.showEntry(w, r, http.StatusConflict, e)
	}
	if site.FormError(r) != nil {
		e.Problems = []string{tooLargeFile}
		return s.showEntry(w, r, http.StatusRequestEntityTooLarge, e)
	}
	x, source, problems := s.readEntry(r, e, old, saved)
	if len(problems) > 0 {
		e.Problems = problems
		return s.showEntry(w, r, http.StatusUnprocessableEntity, e)
	}
	return s.writeExercise(w, r, e, x, source)
}

// readEntry turns the form into an exercise, or lists what is wrong with it.
func (s *handlers) readEntry(r *http.Request, e entry, old store.Exercise, saved store.Source) (store.Exercise,
	store.Source, []string) {
	var f exerciseForm
	problems := s.Forms.Read(r, &f)
	x := store.Exercise{ID: old.ID, Book: f.Book, Part: old.Part, Number: f.Number, Title: f.Title,
		WrittenFor: f.WrittenFor, Hash: old.Hash}
	b, err := s.readSource(r, e, saved)
	if err != nil {
		for _, p := range problemsOf(err) {
			problems = append(problems, p.Error())
		}
		return x, b.source, problems
	}
	if b.uploaded {
		x.Part, x.WrittenFor = 0, cmp.Or(x.WrittenFor, b.target)
	}
	for i, p := range instrument.Unplayable(reading.SourceOf(x, b.score).Source) {
		if i == 3 {
			problems = append(problems, "And more notes like these.")
			break
		}
		problems = append(problems, p.Error())
	}
	x.Title = cmp.Or(x.Title, b.score.Title, "Untitled")
	return x, b.source, problems
}

// brought is what a form brings: a file, typed text, or what was there before.
type brought struct {
	source   store.Source
	score    score.Score
	uploaded bool
	target   string // that the file says it is written for
}

// readSource reads the uploaded file, or the typed text when there is none, or
// keeps the MusicXML an edited exercise had.
func (s *handlers) readSource(r *http.Request, e entry, saved store.Source) (brought, error) {
	if e.Way == byCount {
		return e.readTyped(r.Context())
	}
	file, header, err := r.FormFile("file")
	if err != nil || header.Filename == "" {
		b := brought{source: store.Source{Format: format.ABC, Content: e.ABC}}
		switch typed := e.Way == byABC && strings.TrimSpace(e.ABC) != ""; {
		case !typed && e.Saved:
			b.source = saved
		case !typed:
			return b, score.Problems{score.General("There is no exercise yet.", "Choose a file, or type the notes.")}
		}
		if e.Bars && b.source.Content == e.ABC {
			b.source.Content = format.ByBarLines(format.ABC, b.source.Content)
		}
		b.score, err = s.Reader.Score(r.Context(), b.source)
		return b, err
	}
	defer file.Close()
	data, err := io.ReadAll(io.LimitReader(file, format.Largest+1))
	if err != nil {
		return brought{}, score.Problems{score.General("The file did not arrive whole.", "Choose it again.")}
	}
	if e.Latin && !utf8.Valid(data) {
		if data, err = format.FromLatin1(data); err != nil {
			return brought{}, score.Problems{score.General("The file cannot be read as Latin-1 either.",
				"Export it again as UTF-8.")}
		}
	}
	f, err := s.Reader.File(r.Context(), header.Filename, data)
	if e.Bars && f.Text != "" && (f.Kind == format.ABC || f.Kind == format.MusicXML) {
		f.Text = format.ByBarLines(f.Kind, f.Text)
		f.Score, err = s.Reader.Score(r.Context(), store.Source{Format: f.Kind, Content: f.Text})
	}
	b := brought{source: store.Source{Format: f.Kind, Content: f.Text}, score: f.Score, uploaded: true, target: f.For}
	if err == nil && f.Kind == format.MusicXML && slices.Contains(takenMeters, e.Meter) && !musicxml.HasMeter(f.Text) {
		b.source.Content, err = withMeter(f.Text, e.Meter)
		if err == nil {
			b.score, err = s.Reader.Score(r.Context(), b.source)
		}
	}
	if err != nil {
		return b, err
	}
	if !utf8.ValidString(f.Text) || strings.ContainsRune(f.Text, 0) {
		return b, score.Problems{score.General("The file is not UTF-8 text.", "Export it again as UTF-8.")}
	}
	return b, nil
}

func (s *handlers) writeExercise(w http.ResponseWriter, r *http.Request, e entry, x store.Exercise,
	source store.Source) error {
	ctx, desk := r.Context(), site.ClassOf(r)
	var err error
	if x.ID == 0 {
		x.ID, err = desk.AddExercise(ctx, x, source)
	} else {
		err = desk.ChangeExercise(ctx, x, source)
	}
	if errors.Is(err, store.ErrTaken) {
		e.Problems = []string{fmt.Sprintf("%s already has a number %d. Choose another number, or edit that exercise.",
			e.Book, x.Number)}
		return s.showEntry(w, r, http.StatusConflict, e)
	}
	if err != nil {
		return err
	}
	saved, err := desk.Exercise(ctx, x.ID)
	if err != nil {
		return err
	}
	if saved.Hash != x.Hash && saved.FileParts > 1 {
		s.Flash(r, "It is on the Shelf. The file holds several parts: say which is which.")
		http.Redirect(w, r, fmt.Sprintf("/exercises/%d/parts", x.ID), http.StatusSeeOther)
		return nil
	}
	to := fmt.Sprintf("/bench/%d", x.ID)
	if i, known := instrument.ByID(x.WrittenFor); known && x.Hash == "" { // a new one opens for whom it is written
		to += "?instrument=" + i.ID
	}
	s.Flash(r, fmt.Sprintf("Saved: %d · %s in %s.", x.Number, x.Title, x.Book))
	http.Redirect(w, r, to, http.StatusSeeOther)
	return nil
}

func (s *handlers) removeExercise(w http.ResponseWriter, r *http.Request) error {
	id := site.ID[store.ExerciseID](r)
	x, err := site.ClassOf(r).ExerciseByID(r.Context(), id)
	if err == nil {
		err = site.ClassOf(r).MoveToTrash(r.Context(), store.TrashExercise, int64(id))
	}
	if err != nil {
		return err
	}
	s.Flash(r, fmt.Sprintf("%d · %s is deleted. Its log is kept.", x.Number, x.Title))
	s.Sessions.Put(r.Context(), "undo", fmt.Sprintf("/removed/exercises/%d/back", id))
	http.Redirect(w, r, "/", http.StatusSeeOther)
	return nil
}

// withMeter writes the meter that the teacher takes into a file that gives none.
func withMeter(text, desired string) (string, error) {
	upper, lower, _ := strings.Cut(desired, "/")
	m, ok := score.ParseMeter(upper, lower)
	if !ok {
		return text, fmt.Errorf("take the meter %s: it is none", desired)
	}
	return musicxml.WithMeter(text, m), nil
}
