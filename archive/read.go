package archive

import (
	"archive/zip"
	"bytes"
	"cmp"
	"encoding/csv"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"slices"
	"strconv"
	"strings"
	"time"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/format"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
	"unhurriedbench/core/voice"
	"unhurriedbench/internal/table"
	"unhurriedbench/store"
)

// Largest is the most bytes an archive may have, packed; mostUnpacked is the same of what
// is in it.
const (
	Largest      = 30 << 20
	mostUnpacked = 300 << 20
)

// The most that an archive may hold.
const (
	mostFiles    = 20_000
	mostStudents = 10_000
	mostTries    = 300_000
	mostClasses  = 1_000
	mostBooks    = 1_000
	mostOfBooks  = 20_000 // exercises
	mostChosen   = 50_000 // fingerings, octaves, own parts, marks and chunks
	mostSettings = 200
	mostWords    = 1_000 // recorded
	largestTable = 200 << 20
)

// Problem is why a file is not taken, in a sentence for the reader.
type Problem string

func (p Problem) Error() string { return string(p) }

func problem(words string, args ...any) error { return Problem(fmt.Sprintf(words, args...)) }

// Read reads an archive that Write wrote, here or in another installation. The error is a
// Problem.
func Read(r io.ReaderAt, size int64) (store.Everything, error) {
	if size > Largest {
		return store.Everything{}, problem("The archive is larger than %d MB.", Largest>>20)
	}
	z, err := zip.NewReader(r, size)
	if err != nil {
		return store.Everything{}, problem("This file is no archive of a teacher’s records. Choose one that was made under Your account.")
	}
	if len(z.File) > mostFiles {
		return store.Everything{}, problem("The archive holds more than %d files.", mostFiles)
	}
	in := unpacking{files: map[string]*zip.File{}, left: mostUnpacked}
	for _, f := range z.File {
		in.files[f.Name] = f
	}
	e, err := in.everything()
	if err != nil {
		return store.Everything{}, err
	}
	return e, check(e)
}

// unpacking is an archive with what may still be unpacked of it, in bytes.
type unpacking struct {
	files  map[string]*zip.File
	left   int64
	format int // of owned.json
}

func (u *unpacking) content(name string, most int64) ([]byte, error) {
	f := u.files[name]
	if f == nil {
		return nil, problem("The archive lacks the file %s.", name)
	}
	in, err := f.Open()
	if err != nil {
		return nil, problem("The file %s in the archive cannot be unpacked.", name)
	}
	defer in.Close()
	most = min(most, u.left)
	content, err := io.ReadAll(io.LimitReader(in, most+1))
	if err != nil {
		return nil, problem("The file %s in the archive is broken.", name)
	}
	if int64(len(content)) > most {
		return nil, problem("The file %s in the archive is larger than a file may be here.", name)
	}
	u.left -= int64(len(content))
	return content, nil
}

func (u *unpacking) everything() (store.Everything, error) {
	text, err := u.content(ownedFile, largestTable)
	if err != nil {
		return store.Everything{}, err
	}
	var o owned
	err = json.Unmarshal(text, &o)
	if u.format = o.Format; err == nil && o.Format == 1 {
		if text, err = fromFormat1(text); err == nil {
			o = owned{}
			err = json.Unmarshal(text, &o)
		}
	}
	if err != nil {
		return store.Everything{}, problem("The file %s in the archive cannot be read as JSON.", ownedFile)
	}
	if u.format != 1 && u.format != formatNumber {
		return store.Everything{}, problem("The archive is of format %d, and this program reads format %d.",
			o.Format, formatNumber)
	}
	e := o.Everything
	if e.Students, err = students(u); err != nil {
		return e, err
	}
	if e.Tries, err = tries(u); err != nil {
		return e, err
	}
	if err := u.sounds(&e); err != nil {
		return e, err
	}
	e.Music = map[string]store.Source{}
	for name := range u.files {
		hash, is := strings.CutPrefix(name, musicFolder)
		if !is || hash == "" {
			continue
		}
		for kind, ending := range endings {
			bare, is := strings.CutSuffix(hash, ending)
			if !is {
				continue
			}
			content, err := u.content(name, format.Largest)
			if err != nil {
				return e, err
			}
			e.Music[bare] = store.Source{Format: kind, Content: strings.ReplaceAll(strings.ToValidUTF8(string(content),
				"�"), "\x00", "")}
		}
	}
	return e, nil
}

// sounds reads the recorded words.
func (u *unpacking) sounds(e *store.Everything) error {
	e.Sounds = map[string][]byte{}
	if len(e.Spoken) > mostWords {
		return problem("The archive has more than %d recorded words.", mostWords)
	}
	for _, w := range e.Spoken {
		content, err := u.content(voiceFolder+w.Word+soundEnding, voice.LargestWord)
		if err != nil {
			return err
		}
		if _, err := voice.ReadWAV(content); err != nil {
			return problem("The recorded word %q in the archive cannot be read as sound.", score.Clip(w.Word))
		}
		e.Sounds[w.Word] = content
	}
	return nil
}

// row is a line of a CSV file that is being read; the first thing wrong with it stays.
type row struct {
	file  string
	line  int
	cells []string
	err   error
}

// rows reads a CSV file, and gives each of its lines to read.
func (u *unpacking) rows(name string, columns []string, most int, read func(*row)) error {
	text, err := u.content(name, largestTable)
	if err != nil {
		return err
	}
	in := csv.NewReader(bytes.NewReader(bytes.TrimPrefix(text, []byte("\ufeff"))))
	in.FieldsPerRecord, in.ReuseRecord = len(columns), true
	head, err := in.Read()
	if u.format == 1 {
		for k, name := range head {
			head[k] = cmp.Or(renamedColumns[name], name)
		}
	}
	if err != nil || !slices.Equal(head, columns) {
		return problem("The file %s in the archive does not begin with the line %s.", name, strings.Join(columns, ","))
	}
	for line := 2; ; line++ {
		cells, err := in.Read()
		if errors.Is(err, io.EOF) {
			return nil
		}
		if err != nil {
			return problem("Line %d of %s in the archive is not one of %d cells.", line, name, len(columns))
		}
		if line-1 > most {
			return problem("The file %s in the archive has more than %d lines.", name, most)
		}
		r := row{file: name, line: line, cells: cells}
		if read(&r); r.err != nil {
			return r.err
		}
	}
}

func (r *row) wrong(column int, columns []string) {
	if r.err == nil {
		r.err = problem("Line %d of %s in the archive: %q is no %s.", r.line, r.file, score.Clip(r.cells[column]),
			columns[column])
	}
}

func (r *row) text(column int) string { return strings.Clone(table.Typed(r.cells[column])) }

func (r *row) number(column int, columns []string) int {
	if r.cells[column] == "" {
		return 0
	}
	n, err := strconv.Atoi(r.text(column))
	if err != nil {
		r.wrong(column, columns)
	}
	return n
}

func (r *row) moment(column int, columns []string) *time.Time {
	if r.cells[column] == "" {
		return nil
	}
	at, err := time.Parse(time.RFC3339Nano, r.text(column))
	if err != nil || !sensible(at) {
		r.wrong(column, columns)
	}
	return &at
}

func students(u *unpacking) ([]store.ArchivedStudent, error) {
	var list []store.ArchivedStudent
	err := u.rows(studentsFile, studentColumns, mostStudents, func(r *row) {
		list = append(list, store.ArchivedStudent{
			No: r.number(0, studentColumns), Class: r.number(1, studentColumns),
			Student: store.Student{FirstName: r.text(2), Initial: r.text(3), Instrument: r.text(4)},
			Left:    r.moment(5, studentColumns), Removed: r.moment(6, studentColumns),
		})
	})
	return list, err
}

func tries(u *unpacking) ([]store.ArchivedTry, error) {
	var list []store.ArchivedTry
	err := u.rows(triesFile, tryColumns, mostTries, func(r *row) {
		t := store.ArchivedTry{
			No: r.number(0, tryColumns), Student: r.number(2, tryColumns), Exercise: r.number(3, tryColumns),
			Chunk: breakdown.ChunkKey{First: r.number(4, tryColumns), Last: r.number(5, tryColumns)},
			Try: routine.Try{Stage: routine.Stage(r.text(6)), Clean: r.text(7) == cleanResult,
				Moved: r.text(7) == movedResult},
			Tempo: r.number(8, tryColumns), TakesBack: r.number(9, tryColumns), Together: r.number(10, tryColumns),
		}
		if at := r.moment(1, tryColumns); at != nil {
			t.At = *at
		} else {
			r.wrong(1, tryColumns)
		}
		if !t.Clean && !t.Moved {
			stumble, known := routine.ParseStumble(r.text(7))
			if !known {
				r.wrong(7, tryColumns)
			}
			t.Cause, t.Measure = stumble.Cause, stumble.Measure
		}
		list = append(list, t)
	})
	return list, err
}
