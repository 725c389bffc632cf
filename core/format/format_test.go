package format

import (
	"archive/zip"
	"bytes"
	"context"
	"errors"
	"fmt"
	"strings"
	"testing"
	"unicode/utf16"
	"unicode/utf8"

	"unhurriedbench/core/format/abc"
	"unhurriedbench/core/format/midi"
	"unhurriedbench/core/format/musicxml"
)

func TestReadRecognises(t *testing.T) {
	abcText := []byte("X:1\nM:4/4\nL:1/4\nK:C\nC D E F|]\n")
	tests := []struct {
		name, kind, says string
		data             []byte
	}{
		{"a.abc", ABC, "", abcText},
		{"noending", ABC, "", abcText},
		{"a.xml", MusicXML, "not MusicXML", []byte("<page/>")},
		{"noending", MusicXML, "not MusicXML", []byte("\ufeff<page/>")},
		{"a.mxl", "", "compressed MusicXML file is broken", []byte("PK\x03\x04 not a zip")},
		{"a.mid", "", "MIDI file is broken", []byte("MThd")},
		{"a.pdf", "", "neither MusicXML nor ABC nor MIDI", []byte("%PDF-1.7")},
		{"a.abc", "", "The file is empty.", []byte(" \n")},
		{"a.xml", "", "larger than 5 MB", bytes.Repeat([]byte("x"), Largest+1)},
	}
	for _, tt := range tests {
		f, err := Read(context.Background(), tt.name, tt.data)
		if f.Kind != tt.kind {
			t.Errorf("%s is read as %q, want %q", tt.name, f.Kind, tt.kind)
		}
		if tt.says == "" && err != nil || tt.says != "" && (err == nil || !strings.Contains(err.Error(), tt.says)) {
			t.Errorf("%s: got %v, want it to say %q", tt.name, err, tt.says)
		}
	}
}

func TestMIDIIsKeptAsABC(t *testing.T) {
	s, err := abc.Read(context.Background(), "M:4/4\nL:1/4\nK:F\nF G A B|c4|]\n")
	if err != nil {
		t.Fatal(err)
	}
	data, err := midi.Write(s.Parts[0], midi.Options{})
	if err != nil {
		t.Fatal(err)
	}
	f, err := Read(context.Background(), "tune.mid", data)
	if err != nil || f.Kind != ABC {
		t.Fatalf("kind %q, %v", f.Kind, err)
	}
	again, err := ReadKind(context.Background(), ABC, []byte(f.Text))
	if err != nil || len(again.Parts[0].Measures) != 2 || again.Parts[0].Key().Name() != "F major" {
		t.Errorf("what is kept reads as %+v, %v\n%s", again, err, f.Text)
	}
}

// packed makes a compressed MusicXML file.
func packed(t *testing.T, files map[string]string) []byte {
	t.Helper()
	var b bytes.Buffer
	z := zip.NewWriter(&b)
	for name, text := range files {
		w, err := z.Create(name)
		if err != nil {
			t.Fatal(err)
		}
		if _, err := w.Write([]byte(text)); err != nil {
			t.Fatal(err)
		}
	}
	if err := z.Close(); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}

func TestCompressedMusicXML(t *testing.T) {
	s, err := abc.Read(context.Background(), "M:4/4\nL:1/4\nK:F\nF G A B|c4|]\n")
	if err != nil {
		t.Fatal(err)
	}
	const container = `<container><rootfiles><rootfile full-path="page.pdf" media-type="application/pdf"/>` +
		`<rootfile full-path="score.xml" media-type="application/vnd.recordare.musicxml+xml"/></rootfiles></container>`
	score := string(musicxml.Write(s))
	f, err := Read(context.Background(), "tune.mxl", packed(t, map[string]string{"META-INF/container.xml": container, "score.xml": score, "page.pdf": "x"}))
	if err != nil || f.Kind != MusicXML || f.Text != score {
		t.Errorf("kind %q, %v", f.Kind, err)
	}
	for says, files := range map[string]map[string]string{
		"lacks META-INF":                        {"score.xml": score},
		"lacks score.xml":                       {"META-INF/container.xml": container},
		"Unpacked the file is larger than 5 MB": {"META-INF/container.xml": container, "score.xml": strings.Repeat(" ", 41<<20)},
		"holds no MusicXML":                     {"META-INF/container.xml": "<container/>"},
		"list of contents":                      {"META-INF/container.xml": "<container"},
	} {
		if _, err := Read(context.Background(), "tune.mxl", packed(t, files)); err == nil || !strings.Contains(err.Error(), says) {
			t.Errorf("got %v, want it to say %q", err, says)
		}
	}
}

func TestUTF16(t *testing.T) {
	s, err := abc.Read(context.Background(), "T:Hafen\nM:4/4\nL:1/4\nK:F\nF G A B|c4|]\n")
	if err != nil {
		t.Fatal(err)
	}
	text := strings.Replace(string(musicxml.Write(s)), "UTF-8", "UTF-16", 1)
	data := []byte{0xff, 0xfe}
	for _, unit := range utf16.Encode([]rune(text)) {
		data = append(data, byte(unit), byte(unit>>8))
	}
	f, err := Read(context.Background(), "tune.xml", data)
	if err != nil || f.Score.Title != "Hafen" || !utf8.ValidString(f.Text) {
		t.Errorf("title %q, %v", f.Score.Title, err)
	}
}

// Flams, drags and rolls survive in both formats; before notes small notes are left
// out.
func TestDrumRudimentsSurvive(t *testing.T) {
	const text = "X:1\nT:Two Sticks\nM:4/4\nL:1/4\nK:C clef=perc\n{c}c {cc}c !///!c2|!///!c2- c {ccc}c|]\n"
	const want = "1 false, 2 false, 0 true, 0 true, 0 false, 3 false"
	first, err := Read(context.Background(), "first.abc", []byte(text))
	if err != nil {
		t.Fatal(err)
	}
	files := map[string][]byte{
		"first.abc":      []byte(text),
		"again.abc":      []byte(abc.Write(first.Score)),
		"again.musicxml": musicxml.Write(first.Score),
	}
	for name, data := range files {
		f, err := Read(context.Background(), name, data)
		if err != nil {
			t.Fatalf("%s: %v", name, err)
		}
		var words []string
		for _, at := range f.Score.Parts[0].Notes() {
			e := f.Score.Parts[0].At(at)
			words = append(words, fmt.Sprint(e.Graces, " ", e.Roll))
		}
		if got := strings.Join(words, ", "); got != want || len(f.Score.Remarks) > 0 {
			t.Errorf("%s: %s, want %s; remarks %v", name, got, want, f.Score.Remarks)
		}
	}
}

// A reader stops when nobody waits for what it reads.
func TestReadersStop(t *testing.T) {
	long := "X:1\nM:4/4\nL:1/4\nK:C\n" + strings.Repeat("CDEF|\n", 1500)
	s, err := Read(context.Background(), "long.abc", []byte(long))
	if err != nil {
		t.Fatal(err)
	}
	played, err := midi.Write(s.Score.Parts[0], midi.Options{})
	if err != nil {
		t.Fatal(err)
	}
	ended, end := context.WithCancel(context.Background())
	end()
	for name, data := range map[string][]byte{"long.abc": []byte(long), "long.musicxml": musicxml.Write(s.Score), "long.mid": played} {
		if _, err := Read(context.Background(), name, data); err != nil {
			t.Errorf("%s: %v", name, err)
		}
		if _, err := Read(ended, name, data); !errors.Is(err, context.Canceled) {
			t.Errorf("%s, when nobody waits, gives %v", name, err)
		}
	}
}
