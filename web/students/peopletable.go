package students

import (
	"cmp"
	"errors"
	"fmt"
	"io"
	"net/http"
	"slices"
	"strings"
	"time"
	"unicode/utf8"

	"unhurriedbench/core/instrument"
	"unhurriedbench/internal/table"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// tableView is a table of students as it was understood, before anything is kept.
type tableView struct {
	Text    string // as it came
	Lines   []tableLine
	Counts  []string // "3 are new", "1 moves"
	Wrong   int
	Changes int // lines that change something
	Problem string
}

// tableLine says what a line of the table will do.
type tableLine struct {
	Number  int
	Text    string
	Does    string // "is new in Tuesday brass", "moves from Tuesday brass to Friday"
	Student store.Student
	Plays   string
	Problem string
	change  store.RosterChange
	about   store.StudentID // who is there already, 0 for who is not
	kind    string          // of what it does, for the counts
}

// columnWords are what the columns of such a table are called, in lower case.
var columnWords = map[string][]string{
	"first":      {"first name", "first", "name", "given name", "student", "forename"},
	"initial":    {"initial", "last initial", "last name", "surname", "family name", "last"},
	"instrument": {"instrument", "plays"}, "class": {"class", "class", "group", "ensemble", "period"},
	"line": {"line", "part"}, "note": {"note", "notes", "remark", "remarks"},
	"second": {"second instrument", "second"},
}

// usualColumns is their order where the table has no line of names.
var usualColumns = []string{"first", "initial", "instrument", "class", "line", "note", "second"}

// columnsOf finds which column is which; named says whether the first line says so.
func columnsOf(first []string, columns int) (at map[string]int, named bool) {
	at = map[string]int{}
	for k, cell := range first {
		for column, words := range columnWords {
			if _, known := at[column]; !known && slices.Contains(words, strings.ToLower(cell)) {
				at[column] = k
			}
		}
	}
	if _, has := at["instrument"]; has && len(at) > 1 {
		return at, true
	}
	at = map[string]int{}
	for k, column := range usualColumns[:min(len(usualColumns), columns)] {
		at[column] = k
	}
	return at, false
}

// roster is who is there already, to whom a table is held.
type roster struct {
	classes  []store.Class
	students []store.Student
	left     []store.Student
	firsts   []store.RosterChange // that earlier lines of the table make
}

func (s *handlers) roster(r *http.Request) (roster, error) {
	var known roster
	var err error
	if known.classes, err = site.ClassOf(r).WholeClasses(r.Context()); err != nil {
		return known, err
	}
	for _, class := range known.classes {
		students, err := site.ClassOf(r).Students(r.Context(), class.ID)
		if err != nil {
			return known, err
		}
		known.students = append(known.students, students...)
	}
	left, err := site.ClassOf(r).StudentsWhoLeft(r.Context())
	for _, l := range left {
		known.left = append(known.left, l.Student)
	}
	return known, err
}

func (k roster) className(id store.ClassID) string {
	for _, s := range k.classes {
		if s.ID == id {
			return s.Name
		}
	}
	return ""
}

// readTable says what every line of a table will do.
func readTable(rows []table.Row, known roster) []tableLine {
	if len(rows) == 0 {
		return nil
	}
	columns := 0
	for _, row := range rows {
		columns = max(columns, len(row.Cells))
	}
	at, named := columnsOf(rows[0].Cells, columns)
	if named {
		rows = rows[1:]
	}
	var lines []tableLine
	seen := map[store.StudentID]int{}
	for _, row := range rows {
		line := readTableLine(row, at, known)
		known.firsts = append(known.firsts, line.change)
		if id := line.about; id != 0 && line.Problem == "" {
			if before := seen[id]; before > 0 {
				line.Problem = fmt.Sprintf("Line %d is about the same student.", before)
			}
			seen[id] = line.Number
		}
		lines = append(lines, line)
	}
	return lines
}

func readTableLine(row table.Row, at map[string]int, known roster) tableLine {
	line := tableLine{Number: row.Line, Text: strings.Join(row.Cells, " · ")}
	cell := func(column string) string {
		if k, has := at[column]; has && k < len(row.Cells) {
			return row.Cells[k]
		}
		return ""
	}
	desired := store.Student{FirstName: teach.OneLine(cell("first")), DuetPart: strings.ToUpper(cell("line")),
		Note: strings.TrimSpace(cell("note"))}
	if first, _ := utf8.DecodeRuneInString(strings.TrimSuffix(cell("initial"), ".")); first != utf8.RuneError {
		desired.Initial = strings.ToUpper(string(first))
	}
	second, is := yesNo(cell("second"))
	plays := instrumentsNamed(cell("instrument"))
	if len(plays) == 1 {
		desired.Instrument = plays[0].ID
	}
	class := teach.OneLine(cell("class"))
	switch {
	case desired.FirstName == "":
		line.Problem = "The first name is missing."
	case utf8.RuneCountInString(desired.FirstName) > 40:
		line.Problem = "The first name is longer than 40 letters."
	case cell("instrument") == "":
		line.Problem = "The instrument is missing."
	case len(plays) == 0:
		line.Problem = fmt.Sprintf("No instrument is called “%s” here.", cell("instrument"))
	case len(plays) > 1:
		line.Problem = doubtful(cell("instrument"), plays)
	case desired.DuetPart != "" && desired.DuetPart != "A" && desired.DuetPart != "B":
		line.Problem = "The duet part is A, B or nothing."
	case !is:
		line.Problem = "Under “second instrument” stands yes or nothing."
	case utf8.RuneCountInString(desired.Note) > store.LongestNote:
		line.Problem = fmt.Sprintf("The note is longer than %d letters.", store.LongestNote)
	case utf8.RuneCountInString(class) > 80:
		line.Problem = "The class's name is longer than 80 letters."
	}
	if line.Problem == "" {
		line.Student, line.Plays = desired, plays[0].Name
		_, noted := at["note"]
		_, lined := at["line"]
		line.change.Second = second
		line.settle(desired, class, known, noted, lined)
	}
	return line
}

// settle finds whom a line is about, and what it does to them.
func (l *tableLine) settle(desired store.Student, class string, known roster, noted, lined bool) {
	for _, s := range known.classes {
		if strings.EqualFold(s.Name, class) {
			desired.ClassID, class = s.ID, s.Name
		}
	}
	same := func(list []store.Student) []store.Student {
		return slices.DeleteFunc(slices.Clone(list), func(s store.Student) bool {
			return !strings.EqualFold(s.FirstName, desired.FirstName) || !strings.EqualFold(s.Initial, desired.Initial)
		})
	}
	there, back := same(known.students), false
	if len(there) == 0 {
		there, back = same(known.left), true
	}
	if l.change.Second {
		firsts := slices.DeleteFunc(slices.Clone(there), func(s store.Student) bool { return s.AlsoOf != 0 })
		there = slices.DeleteFunc(there, func(s store.Student) bool { return s.AlsoOf == 0 })
		if len(there) == 0 {
			l.takesUp(desired, class, known, firsts, back)
			return
		}
	} else if only := slices.DeleteFunc(slices.Clone(there), func(s store.Student) bool {
		return s.AlsoOf != 0 &&
			s.Instrument != desired.Instrument
	}); len(only) > 0 {
		there = only
	}
	if len(there) > 1 { // the instrument, then the class, tell them apart
		for _, differs := range []func(store.Student) bool{
			func(s store.Student) bool { return s.Instrument != desired.Instrument },
			func(s store.Student) bool { return s.ClassID != desired.ClassID },
		} {
			if narrowed := slices.DeleteFunc(slices.Clone(there), differs); len(narrowed) > 0 {
				there = narrowed
			}
		}
	}
	switch {
	case len(there) > 1:
		l.Problem = fmt.Sprintf("%d students are called %s. Change the one you mean in Students.", len(there),
			strings.TrimSuffix(desired.Name(), "."))
	case len(there) == 1:
		l.becomes(there[0], desired, class, known, back, noted, lined)
	case class == "" && len(known.classes) != 1:
		l.Problem = "The class is missing."
	default:
		if class == "" {
			desired.ClassID, class = known.classes[0].ID, known.classes[0].Name
		}
		l.Does, l.kind = "is new in "+class, "new"
		if desired.ClassID == 0 {
			l.Does = "is new in " + class + ", a new class"
		}
		l.change = store.RosterChange{Student: desired, NewClass: class}
	}
}

// takesUp says that somebody gets a second instrument: one who is there, or who is new in the
// table.
func (l *tableLine) takesUp(desired store.Student, class string, known roster, firsts []store.Student, left bool) {
	in := class
	for _, c := range known.firsts {
		if c.ID == 0 && !c.Second && strings.EqualFold(c.FirstName, desired.FirstName) && strings.EqualFold(c.Initial,
			desired.Initial) {
			firsts, left = append(firsts, c.Student), false
			in = cmp.Or(in, c.NewClass)
		}
	}
	switch {
	case len(firsts) == 0 || left:
		l.Problem = fmt.Sprintf("Nobody called %s has a first instrument here. Give that a line above this one.",
			desired.Name())
		return
	case len(firsts) > 1:
		l.Problem = fmt.Sprintf("%d students are called %s. Add the instrument to the one you mean in Students.",
			len(firsts), strings.TrimSuffix(desired.Name(), "."))
		return
	case firsts[0].Instrument == desired.Instrument:
		l.Problem = fmt.Sprintf("%s plays that already.", desired.Name())
		return
	}
	if desired.ClassID == 0 && class == "" {
		desired.ClassID = firsts[0].ClassID
		in = cmp.Or(known.className(desired.ClassID), in)
	}
	l.Does, l.kind = fmt.Sprintf("takes up the %s too, in %s", teach.InstrumentName(desired.Instrument), in), "also"
	l.change = store.RosterChange{Student: desired, NewClass: in, Second: true}
}

// yesNo reads what a table says of a yes or no; is says that it is one.
func yesNo(text string) (yes, is bool) {
	switch strings.ToLower(text) {
	case "yes", "y", "x", "true", "1":
		return true, true
	case "", "no", "n", "false", "0":
		return false, true
	}
	return false, false
}

// becomes says what of a student changes.
func (l *tableLine) becomes(is, desired store.Student, class string, known roster, back, noted, lined bool) {
	l.about = is.ID
	desired.ID, desired.FirstName, desired.Initial = is.ID, is.FirstName, is.Initial
	if class == "" {
		desired.ClassID, class = is.ClassID, known.className(is.ClassID)
	}
	if !noted {
		desired.Note = is.Note
	}
	if !lined {
		desired.DuetPart = is.DuetPart
	}
	var does []string
	if back {
		does, l.kind = append(does, "comes back to "+class), "back"
	} else if desired.ClassID != is.ClassID {
		does, l.kind = append(does, fmt.Sprintf("moves from %s to %s", known.className(is.ClassID), class)), "moved"
	}
	if desired.Instrument != is.Instrument {
		does = append(does, fmt.Sprintf("plays the %s instead of the %s", teach.InstrumentName(desired.Instrument),
			teach.InstrumentName(is.Instrument)))
	}
	if desired.DuetPart != is.DuetPart {
		does = append(does, "has part "+cmp.Or(desired.DuetPart, "of the class"))
	}
	if desired.Note != is.Note {
		does = append(does, "has another note")
	}
	l.kind = cmp.Or(l.kind, map[bool]string{true: "changed", false: "same"}[len(does) > 0])
	if l.Does = strings.Join(does, ", "); l.kind == "same" {
		l.Does = "is there already"
		return
	}
	l.change = store.RosterChange{Student: desired, NewClass: class, Back: back}
}

// instrumentsNamed are the instruments that a table may speak of.
func instrumentsNamed(text string) []instrument.Instrument {
	_, list := instrumentIn(strings.Fields(text))
	return list
}

// peopleTable is the page that takes a table in.
func (s *handlers) peopleTable(w http.ResponseWriter, r *http.Request) error {
	s.Page(w, r, http.StatusOK, "peopletable", "A table of students", tableView{})
	return nil
}

// importTable shows what a table will do, and does it when that has been seen.
func (s *handlers) importTable(w http.ResponseWriter, r *http.Request) error {
	if site.FormError(r) != nil {
		s.Page(w, r, http.StatusRequestEntityTooLarge, "peopletable", "A table of students",
			tableView{Text: r.FormValue("table"), Problem: "The file is too large, or did not arrive whole."})
		return nil
	}
	v, err := s.tableView(r)
	var problem table.Problem
	if errors.As(err, &problem) {
		v.Problem = string(problem)
	} else if err != nil {
		return err
	}
	if v.Problem == "" && site.Text(r, "seen") == "yes" {
		var changes []store.RosterChange
		for _, line := range v.Lines {
			if line.kind != "same" {
				changes = append(changes, line.change)
			}
		}
		err := site.ClassOf(r).BringRoster(r.Context(), changes)
		switch {
		case errors.Is(err, store.ErrTaken), errors.Is(err, store.ErrNotFound):
			v.Problem = "Since you looked at it, classes or students have changed. Nothing is kept: look again."
		case err != nil:
			return err
		default:
			s.Flash(r, "The table is in: "+strings.Join(v.Counts, ", ")+".")
			http.Redirect(w, r, "/people", http.StatusSeeOther)
			return nil
		}
	}
	status := http.StatusOK
	if v.Problem != "" {
		status = http.StatusUnprocessableEntity
	}
	s.Page(w, r, status, "peopletable", "A table of students", v)
	return nil
}

// tableView reads the table of a form: a file, or what was pasted.
func (s *handlers) tableView(r *http.Request) (tableView, error) {
	v := tableView{Text: r.FormValue("table")}
	if file, _, err := r.FormFile("file"); err == nil {
		defer file.Close()
		data, err := io.ReadAll(io.LimitReader(file, table.Largest+1))
		if err != nil {
			return v, fmt.Errorf("read the file: %w", err)
		}
		if len(data) > 0 {
			if v.Text, err = table.Text(data); err != nil {
				v.Text = ""
				return v, err
			}
		}
	}
	rows, err := table.Read(v.Text)
	if err != nil {
		return v, err
	}
	known, err := s.roster(r)
	if err != nil {
		return v, err
	}
	v.Lines = readTable(rows, known)
	v.count()
	return v, nil
}

// count says how many lines do what, and what is wrong.
func (v *tableView) count() {
	kinds := map[string]int{}
	for _, line := range v.Lines {
		if line.Problem != "" {
			v.Wrong++
			continue
		}
		kinds[line.kind]++
	}
	for _, some := range []struct{ kind, one, many string }{
		{"new", "is new", "are new"}, {"also", "takes up a second instrument", "take up a second instrument"},
		{"moved", "moves", "move"}, {"back", "comes back", "come back"}, {"changed", "changes", "change"},
		{"same", "is there already", "are there already"},
	} {
		if n := kinds[some.kind]; n > 0 {
			v.Counts = append(v.Counts, teach.Plural(n, some.one, some.many))
		}
	}
	v.Changes = len(v.Lines) - v.Wrong - kinds["same"]
	switch {
	case len(v.Lines) == 0:
		v.Problem = "There is no student in the table. Choose a file, or paste it below."
	case v.Wrong > 0:
		v.Problem = fmt.Sprintf("%s not understood; nothing is kept. Mend the table below, and look again.",
			teach.Plural(v.Wrong, "line was", "lines were"))
	}
}

// takeTable sends all classes with their students as one table.
func (s *handlers) takeTable(w http.ResponseWriter, r *http.Request) error {
	known, err := s.roster(r)
	if err != nil {
		return err
	}
	var rows [][]string
	for _, student := range known.students {
		rows = append(rows, []string{student.FirstName, student.Initial, teach.InstrumentName(student.Instrument),
			known.className(student.ClassID), student.DuetPart, student.Note, map[bool]string{true: "yes"}[student.AlsoOf != 0]})
	}
	w.Header().Set("Content-Type", "text/csv; charset=utf-8")
	w.Header().Set("Content-Disposition", fmt.Sprintf(`attachment; filename="students-%s.csv"`,
		s.Now().Format(time.DateOnly)))
	_, _ = w.Write(table.Write([]string{"First name", "Initial", "Instrument", "Class", "Line", "Note",
		"Second instrument"}, rows)) // the reader has gone when this fails
	return nil
}

// saveNote keeps what the teacher notes of a student.
func (s *handlers) saveNote(w http.ResponseWriter, r *http.Request) error {
	id := site.ID[store.StudentID](r)
	if _, err := site.ClassOf(r).StudentByID(r.Context(), id); err != nil {
		return err
	}
	note := strings.TrimSpace(r.FormValue("note"))
	if utf8.RuneCountInString(note) > store.LongestNote {
		s.Flash(r, fmt.Sprintf("The note is longer than %d letters. Shorten it; nothing was changed.", store.LongestNote))
	} else if err := site.ClassOf(r).SaveNote(r.Context(), id, note); err != nil {
		return err
	} else {
		s.Flash(r, "The note is saved.")
	}
	http.Redirect(w, r, fmt.Sprintf("/students/%d", id), http.StatusSeeOther)
	return nil
}
