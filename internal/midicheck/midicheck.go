// Package midicheck compares a part as core plays it with the MIDI file that
// abc2midi, a program from outside this project (Debian package abcmidi),
// makes from the same ABC text.
package midicheck

import (
	"os"
	"os/exec"
	"path/filepath"
	"sort"
	"testing"

	"gitlab.com/gomidi/midi/v2/smf"

	"unhurriedbench/core/score"
)

// Note is one struck note: when, in fractions of a whole note, and which.
type Note struct {
	Onset score.Fraction
	Key   uint8
}

// Compare fails the test where the parts, played with their repeats, do not
// strike the notes abc2midi does, at the same times.
func Compare(t *testing.T, text string, parts ...score.Part) {
	t.Helper()
	want := Notes(t, text)
	var got []Note
	for _, part := range parts {
		for _, s := range part.Sounding(part.Order()) {
			got = append(got, Note{s.Onset, uint8(s.Pitch.MIDI())})
		}
	}
	sortNotes(got)
	if len(got) != len(want) {
		t.Errorf("%d notes are played; abc2midi plays %d", len(got), len(want))
	}
	for i := range min(len(got), len(want)) {
		if got[i] != want[i] {
			t.Errorf("note %d is %d at %s; abc2midi has %d at %s", i+1, got[i].Key, got[i].Onset, want[i].Key, want[i].Onset)
			return
		}
	}
}

// Notes runs abc2midi on the text and lists what it strikes.
func Notes(t *testing.T, text string) []Note {
	t.Helper()
	program, err := exec.LookPath("abc2midi")
	if err != nil {
		t.Fatal("this check needs abc2midi: run bin/test, which installs the package abcmidi")
	}
	dir := t.TempDir()
	in, out := filepath.Join(dir, "in.abc"), filepath.Join(dir, "out.mid")
	if err := os.WriteFile(in, []byte(text), 0o600); err != nil {
		t.Fatal(err)
	}
	if message, err := exec.Command(program, in, "-o", out, "-NGUI", "-NFER").CombinedOutput(); err != nil {
		if _, missing := os.Stat(out); missing != nil {
			t.Fatalf("abc2midi: %v\n%s", err, message)
		}
	}
	file, err := smf.ReadFile(out)
	if err != nil {
		t.Fatalf("read abc2midi's file: %v", err)
	}
	quarter, ok := file.TimeFormat.(smf.MetricTicks)
	if !ok {
		t.Fatal("abc2midi's file has no metric ticks")
	}
	var notes []Note
	for _, track := range file.Tracks {
		at := int64(0)
		for _, event := range track {
			at += int64(event.Delta)
			var channel, key, velocity uint8
			if event.Message.GetNoteStart(&channel, &key, &velocity) {
				// abc2midi starts the music at tick 1.
				notes = append(notes, Note{score.Frac(at-1, 4*int64(quarter)), key})
			}
		}
	}
	sortNotes(notes)
	return notes
}

func sortNotes(notes []Note) {
	sort.SliceStable(notes, func(i, j int) bool {
		if notes[i].Onset != notes[j].Onset {
			return notes[i].Onset.Less(notes[j].Onset)
		}
		return notes[i].Key < notes[j].Key
	})
}
