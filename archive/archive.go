// Package archive writes everything a teacher owns to a file that other programs can read,
// and reads such a file: a zip of JSON, CSV and the music itself.
package archive

import (
	"archive/zip"
	_ "embed"
	"encoding/json"
	"fmt"
	"io"
	"slices"
	"strconv"
	"time"

	"unhurriedbench/core/format"
	"unhurriedbench/core/routine"
	"unhurriedbench/internal/table"
	"unhurriedbench/store"
)

// The files of an archive, beside the music.
const (
	ownedFile    = "owned.json"
	schemaFile   = "owned.schema.json"
	studentsFile = "students.csv"
	triesFile    = "tries.csv"

	cleanResult = "clean"
	movedResult = "moved" // the teacher put the chunk there
	readMeFile  = "READ ME.txt"
	musicFolder = "music/"
	voiceFolder = "voice/"
	soundEnding = ".wav"
)

//go:embed owned.schema.json
var schema []byte

//go:embed readme.txt
var readMe []byte

// formatNumber is raised when older programs could not read an archive rightly.
const formatNumber = 2

// owned is what stands in owned.json.
type owned struct {
	Format int `json:"format"`
	store.Everything
}

var (
	studentColumns = []string{"student", "class", "first name", "initial", "instrument", "left", "deleted"}
	tryColumns     = []string{"try", "at", "student", "exercise", "from measure", "to measure", "stage", "result",
		"tempo", "takes back", "together"}
)

// endings are the ends of the names of the music's files, by format.
var endings = endingsOf(format.Kept())

func endingsOf(formats []format.Format) map[string]string {
	of := map[string]string{}
	for _, f := range formats {
		of[f.ID] = f.Ending()
	}
	return of
}

// Write writes an archive.
func Write(w io.Writer, e store.Everything) error {
	z := zip.NewWriter(w)
	text, err := json.MarshalIndent(owned{formatNumber, e}, "", "  ")
	if err != nil {
		return fmt.Errorf("write the archive: %w", err)
	}
	add := func(name string, content []byte) {
		if err != nil {
			return
		}
		var out io.Writer
		if out, err = z.Create(name); err == nil {
			_, err = out.Write(content)
		}
	}
	add(readMeFile, readMe)
	add(schemaFile, schema)
	add(ownedFile, append(text, '\n'))
	add(studentsFile, rowsOf(studentColumns, len(e.Students), func(k int) []string {
		s := e.Students[k]
		return []string{strconv.Itoa(s.No), strconv.Itoa(s.Class), s.FirstName, s.Initial, s.Instrument,
			moment(s.Left), moment(s.Removed)}
	}))
	add(triesFile, rowsOf(tryColumns, len(e.Tries), func(k int) []string {
		t := e.Tries[k]
		result := routine.Stumble{Cause: t.Cause, Measure: t.Measure}.String()
		switch {
		case t.Moved:
			result = movedResult
		case t.Clean:
			result = cleanResult
		}
		return []string{
			strconv.Itoa(t.No), moment(&t.At), strconv.Itoa(t.Student), strconv.Itoa(t.Exercise),
			strconv.Itoa(t.Chunk.First), strconv.Itoa(t.Chunk.Last),
			string(t.Stage), result, strconv.Itoa(t.Tempo), orNothing(t.TakesBack), orNothing(t.Together),
		}
	}))
	var hashes []string
	for hash := range e.Music {
		hashes = append(hashes, hash)
	}
	slices.Sort(hashes)
	for _, hash := range hashes {
		add(musicFolder+hash+endings[e.Music[hash].Format], []byte(e.Music[hash].Content))
	}
	for _, w := range e.Spoken {
		add(voiceFolder+w.Word+soundEnding, e.Sounds[w.Word])
	}
	if err == nil {
		err = z.Close()
	}
	if err != nil {
		return fmt.Errorf("write the archive: %w", err)
	}
	return nil
}

// rowsOf writes a CSV file with a line of column names.
func rowsOf(columns []string, rows int, row func(int) []string) []byte {
	list := make([][]string, rows)
	for k := range list {
		list[k] = row(k)
	}
	return table.Write(columns, list)
}

func moment(at *time.Time) string {
	if at == nil {
		return ""
	}
	return at.UTC().Format(time.RFC3339Nano)
}

func orNothing(n int) string {
	if n == 0 {
		return ""
	}
	return strconv.Itoa(n)
}
