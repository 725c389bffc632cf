// Package malformed makes broken music files out of sound ones, for tests of what takes
// files in.
package malformed

import (
	"archive/zip"
	"bytes"
	"context"
	"math/rand/v2"
	"os"
	"path/filepath"
	"strconv"
	"testing"

	"unhurriedbench/core/format"
	"unhurriedbench/core/format/midi"
)

// File is a file with the name it is brought in under.
type File struct {
	Name string
	Data []byte
}

// Sound reads the readers' own test files from a folder that leads to core/format, and
// adds to each MusicXML file its compressed form and to some ABC files their MIDI form.
func Sound(t testing.TB, formats string) []File {
	t.Helper()
	var files []File
	for _, pattern := range []string{"abc/testdata/*.abc", "abc/testdata/by-hand/*.abc", "musicxml/testdata/*.musicxml"} {
		names, err := filepath.Glob(filepath.Join(formats, pattern))
		if err != nil || len(names) < 5 {
			t.Fatalf("%s: %d files, %v", pattern, len(names), err)
		}
		for k, name := range names {
			data, err := os.ReadFile(name)
			if err != nil {
				t.Fatal(err)
			}
			files = append(files, File{filepath.Base(name), data})
			switch {
			case filepath.Ext(name) == ".musicxml":
				files = append(files, File{filepath.Base(name) + ".mxl", packed(t, data)})
			case k%4 == 0:
				f, err := format.Read(context.Background(), name, data)
				if err != nil {
					continue // it is there to be refused
				}
				played, err := midi.Write(f.Score.Parts[0], midi.Options{})
				if err != nil {
					t.Fatal(err)
				}
				files = append(files, File{filepath.Base(name) + ".mid", played})
			}
		}
	}
	return files
}

func packed(t testing.TB, score []byte) []byte {
	t.Helper()
	var b bytes.Buffer
	w := zip.NewWriter(&b)
	for _, f := range []File{
		{"META-INF/container.xml", []byte(`<container><rootfiles><rootfile full-path="score.xml"/></rootfiles></container>`)},
		{"score.xml", score},
	} {
		out, err := w.Create(f.Name)
		if err == nil {
			_, err = out.Write(f.Data)
		}
		if err != nil {
			t.Fatal(err)
		}
	}
	if err := w.Close(); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}

// Broken makes n files out of sound ones, the same for the same seed: numbers become
// absurd, stretches are cut out, doubled, repeated many times or taken from another
// file, and bytes change.
func Broken(sound []File, seed uint64, n int) []File {
	r := rand.New(rand.NewPCG(seed, 1))
	files := make([]File, n)
	for k := range files {
		f := sound[r.IntN(len(sound))]
		data := bytes.Clone(f.Data)
		for range 1 + r.IntN(2) {
			data = broken(r, data, sound[r.IntN(len(sound))].Data)
		}
		files[k] = File{f.Name, data[:min(len(data), format.Largest)]}
	}
	return files
}

// absurd are numbers no score has.
var absurd = []string{"0", "-1", "99999", "2147483648", "9223372036854775807", "18446744073709551616", "1e308", "99991", "63", "NaN"}

func broken(r *rand.Rand, data, other []byte) []byte {
	if len(data) == 0 {
		return data
	}
	from := r.IntN(len(data))
	to := min(from+1+r.IntN(60), len(data))
	chunk := data[from:to]
	join := func(parts ...[]byte) []byte { return bytes.Join(parts, nil) }
	switch r.IntN(10) {
	case 0: // a number after this place
		at := bytes.IndexAny(data[from:], "0123456789")
		if at < 0 {
			return data
		}
		end := from + at
		for end < len(data) && data[end] >= '0' && data[end] <= '9' {
			end++
		}
		return join(data[:from+at], []byte(absurd[r.IntN(len(absurd))]), data[end:])
	case 1:
		return join(data[:from], data[to:])
	case 2:
		return join(data[:from], chunk, chunk, data[to:])
	case 3:
		return join(data[:from], bytes.Repeat(chunk, 1+r.IntN(200000/len(chunk))), data[to:])
	case 4:
		at := r.IntN(len(other) + 1)
		return join(data[:from], other[at:min(at+200, len(other))], data[to:])
	case 5:
		for range 1 + r.IntN(6) {
			data[r.IntN(len(data))] = byte(r.IntN(256))
		}
		return data
	case 6:
		return join(data[:from], []byte(strconv.Itoa(r.IntN(1000))), data[from:])
	}
	for k := range data[from:] { // another digit or letter: most of these are read
		switch c := &data[from+k]; {
		case *c >= '0' && *c <= '9':
			*c = byte('0' + r.IntN(10))
			return data
		case *c >= 'a' && *c <= 'g' || *c >= 'A' && *c <= 'G':
			*c = "abcdefgABCDEFGz"[r.IntN(15)]
			return data
		}
	}
	return data
}
