// Package midicheck compares a part as core plays it with the MIDI file that
// abc2midi, a program from outside this project (Debian package abcmidi),
// makes from the same ABC text.
package midicheck

import (
	"bytes"
	"errors"
	"fmt"
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

// Notes lists what abc2midi strikes of a text, and fails the test where it cannot.
func Notes(t *testing.T, text string) []Note {
	t.Helper()
	notes, err := Struck(text)
	if err != nil {
		t.Fatal(err)
	}
	return notes
}

// Struck runs abc2midi on the text and lists what it strikes, in order.
func Struck(text string) ([]Note, error) {
	program, err := exec.LookPath("abc2midi")
	if err != nil {
		return nil, errors.New("this check needs abc2midi: run bin/test, which installs the package abcmidi")
	}
	dir, err := os.MkdirTemp("", "midicheck")
	if err != nil {
		return nil, fmt.Errorf("a folder for abc2midi: %w", err)
	}
	defer func() { _ = os.RemoveAll(dir) }()
	in, out := filepath.Join(dir, "in.abc"), filepath.Join(dir, "out.mid")
	if err := os.WriteFile(in, []byte(text), 0o600); err != nil {
		return nil, fmt.Errorf("write for abc2midi: %w", err)
	}
	if message, err := exec.Command(program, in, "-o", out, "-NGUI", "-NFER").CombinedOutput(); err != nil {
		if _, missing := os.Stat(out); missing != nil {
			return nil, fmt.Errorf("abc2midi: %w\n%s", err, message)
		}
	}
	data, err := os.ReadFile(out)
	if err != nil {
		return nil, fmt.Errorf("abc2midi made no file: %w", err)
	}
	// abc2midi starts the music at tick 1.
	return File(data, 1)
}

// File lists what a MIDI file strikes, as gomidi reads it, in order; the drums' channel is
// left out. Its music begins at the given tick.
func File(data []byte, first int64) ([]Note, error) {
	file, err := smf.ReadFrom(bytes.NewReader(data))
	if err != nil {
		return nil, fmt.Errorf("read the MIDI file: %w", err)
	}
	quarter, ok := file.TimeFormat.(smf.MetricTicks)
	if !ok {
		return nil, errors.New("the MIDI file has no metric ticks")
	}
	var notes []Note
	for _, track := range file.Tracks {
		at := int64(0)
		for _, event := range track {
			at += int64(event.Delta)
			var channel, key, velocity uint8
			if event.Message.GetNoteStart(&channel, &key, &velocity) && channel != drums {
				notes = append(notes, Note{score.Frac(at-first, 4*int64(quarter)), key})
			}
		}
	}
	sortNotes(notes)
	return notes, nil
}

// drums is the channel that General MIDI gives the drums, from 0.
const drums = 9

func sortNotes(notes []Note) {
	sort.SliceStable(notes, func(i, j int) bool {
		if notes[i].Onset != notes[j].Onset {
			return notes[i].Onset.Less(notes[j].Onset)
		}
		return notes[i].Key < notes[j].Key
	})
}
