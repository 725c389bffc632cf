package students

import (
	"errors"
	"fmt"
	"net/http"
	"strings"
	"unicode/utf8"

	"unhurriedbench/core/instrument"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// rosterView is a pasted list as it was understood, before it is kept.
type rosterView struct {
	Class   store.Class // ID 0 for one that is still to be made
	List    string      // as it was typed
	Lines   []rosterLine
	Wrong   int // lines that were not understood
	Problem string
}

// rosterLine is one student of a list.
type rosterLine struct {
	Number     int
	Text       string
	Student    store.Student
	Instrument instrument.Instrument
	Note       string // what is kept otherwise than it was typed
	Problem    string
	Doubtful   bool // its instrument may be one of several
}

// longestRoster bounds a list, in lines.
const longestRoster = 200

// readRoster reads a student from every line that is not empty: a first name, an
// initial or a family name, and an instrument, parted by commas, tabs or spaces.
func readRoster(list string) []rosterLine {
	var lines []rosterLine
	for n, text := range strings.Split(list, "\n") {
		if text = strings.TrimSpace(text); text == "" {
			continue
		}
		line := readRosterLine(text, nil)
		line.Number, line.Text = n+1, text
		if len(lines) == longestRoster { // the rest is not read
			line.Problem = fmt.Sprintf("A list holds at most %d students. Take this line and those below it into a list of their own.", longestRoster)
			return append(lines, line)
		}
		lines = append(lines, line)
	}
	var played []instrument.Instrument
	for _, line := range lines {
		if line.Problem == "" {
			played = append(played, line.Instrument)
		}
	}
	for k, line := range lines {
		if line.Doubtful {
			again := readRosterLine(line.Text, played)
			again.Number, again.Text = line.Number, line.Text
			lines[k] = again
		}
	}
	return lines
}

// readRosterLine reads a line; played is what others of the list play, where that is known.
func readRosterLine(text string, played []instrument.Instrument) rosterLine {
	var line rosterLine
	words := strings.FieldsFunc(text, func(c rune) bool { return strings.ContainsRune(",;\t |", c) || c == '\u00a0' })
	at, list := instrumentIn(words)
	list = instrument.Among(list, played)
	switch {
	case len(words) < 2:
		line.Problem = "A line is a first name, an initial and an instrument: Ines P trombone."
		return line
	case len(list) == 0:
		line.Problem = "No instrument is recognised in it. End the line with one, as it is called on the Bench."
		return line
	case at == 0:
		line.Problem = "The first name is missing."
		return line
	case len(list) > 1:
		line.Doubtful, line.Problem = true, doubtful(strings.Join(words[at:], " "), list)
		return line
	}
	i := list[0]
	line.Instrument = i
	s := store.Student{FirstName: words[0], Instrument: i.ID}
	if at > 1 {
		last := strings.TrimSuffix(words[at-1], ".")
		first, _ := utf8.DecodeRuneInString(last)
		s.FirstName, s.Initial = strings.Join(words[:at-1], " "), strings.ToUpper(string(first))
		if utf8.RuneCountInString(last) > 1 {
			line.Note = fmt.Sprintf("“%s” is kept as %s: family names are not kept here.", last, s.Initial)
		}
	}
	if utf8.RuneCountInString(s.FirstName) > 40 { // as studentForm has it
		line.Problem = "The first name is longer than 40 letters."
	}
	line.Student = s
	return line
}

// doubtful asks which of several instruments is meant.
func doubtful(name string, list []instrument.Instrument) string {
	return fmt.Sprintf("“%s” may be %s. Write which.", name, instrument.OneOf(list))
}

// instrumentIn finds the instruments that a line may end with and where the name begins: as it is
// called here or in lists of schools, else the longest run of words that speaks of one. A single
// letter before a name may be an initial: "Tom B Cl".
func instrumentIn(words []string) (at int, list []instrument.Instrument) {
	for at := range words {
		list := instrument.Named(strings.Join(words[at:], " "))
		if len(list) == 0 {
			continue
		}
		if without := at + 1; at == 1 && without < len(words) && len(words[at]) == 1 {
			list = append(list, instrument.Named(strings.Join(words[without:], " "))...)
		}
		return at, list
	}
	for at := range words {
		if i, known := instrument.Guess(strings.Join(words[at:], " ")); known && speaks(words[at]) {
			return at, []instrument.Instrument{i}
		}
	}
	return 0, nil
}

// speaks says whether a word may begin the name of an instrument: a first name or an
// initial before one does not.
func speaks(word string) bool {
	word = strings.ToLower(word)
	for _, i := range instrument.All() {
		for _, part := range strings.Fields(strings.ToLower(i.Name)) {
			if len(part) > 2 && strings.HasPrefix(part, word) && len(word) > 2 || part == word && len(word) > 1 {
				return true
			}
		}
	}
	_, known := instrument.Guess(word)
	return known
}

// addRoster shows a pasted list as it was understood, and keeps it when it has been
// seen: in a class that is there, or in a new one.
func (s *handlers) addRoster(w http.ResponseWriter, r *http.Request) error {
	ctx, desk := r.Context(), site.ClassOf(r)
	v := rosterView{List: r.FormValue("list"), Class: store.Class{Name: site.Text(r, "name")}}
	if id := site.ID[store.ClassID](r); id != 0 {
		var err error
		if _, v.Class, err = desk.ChooseClass(ctx, id); err != nil {
			return err
		}
	}
	v.Lines = readRoster(v.List)
	students := make([]store.Student, len(v.Lines))
	for k, line := range v.Lines {
		students[k] = line.Student
		if line.Problem != "" {
			v.Wrong++
		}
	}
	switch {
	case len(v.Lines) == 0:
		v.Problem = "The list is empty. Write a line for each student: first name, initial, instrument."
	case v.Wrong > 0:
		v.Problem = fmt.Sprintf("%s not understood; nothing is kept yet. Mend the list below and look again.",
			teach.Plural(v.Wrong, "line was", "lines were"))
	}
	if v.Problem != "" || site.Text(r, "seen") != "yes" {
		status := http.StatusOK
		if v.Problem != "" {
			status = http.StatusUnprocessableEntity
		}
		s.Page(w, r, status, "roster", "A list of students", v)
		return nil
	}
	var err error
	if v.Class.ID == 0 {
		_, err = desk.AddClass(ctx, v.Class.Name, students...)
	} else {
		err = desk.AddStudents(ctx, v.Class.ID, students...)
	}
	if errors.Is(err, store.ErrTaken) {
		v.Problem = classTaken(v.Class.Name)
		s.Page(w, r, http.StatusConflict, "roster", "A list of students", v)
		return nil
	}
	if err != nil {
		return err
	}
	s.Flash(r, fmt.Sprintf("%s now in %s.", teach.Plural(len(students), "student is", "students are"), v.Class.Name))
	http.Redirect(w, r, "/people", http.StatusSeeOther)
	return nil
}
