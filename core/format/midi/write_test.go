package midi

import (
	"bytes"
	"context"
	"testing"

	"gitlab.com/gomidi/midi/v2/smf"

	"unhurriedbench/core/count"
	"unhurriedbench/core/format/abc"
	"unhurriedbench/core/score"
	"unhurriedbench/internal/testscore"
)

// struck lists ticks and keys of the notes in one track.
func struck(t *testing.T, data []byte, track int) [][2]int64 {
	t.Helper()
	file, err := smf.ReadFrom(bytes.NewReader(data))
	if err != nil {
		t.Fatal(err)
	}
	var list [][2]int64
	at := int64(0)
	for _, e := range file.Tracks[track] {
		at += int64(e.Delta)
		var channel, key, velocity uint8
		if e.Message.GetNoteStart(&channel, &key, &velocity) {
			list = append(list, [2]int64{at, int64(key)})
		}
	}
	return list
}

// Outside check: gomidi reads back what was written.
func TestWrite(t *testing.T) {
	for seed := range uint64(40) {
		p := testscore.WithoutChords(testscore.Random(t, seed)).Parts[0]
		data, err := Write(p, Options{Program: 57})
		if err != nil {
			t.Fatal(err)
		}
		got, want := struck(t, data, 1), p.Sounding(p.Order())
		if len(got) != len(want) {
			t.Fatalf("seed %d: %d notes, want %d", seed, len(got), len(want))
		}
		for i, s := range want {
			if at := ticks(s.Onset); got[i][0] != at || got[i][1] != int64(s.Pitch.MIDI()+p.Transposition.Semitones) {
				t.Errorf("seed %d, note %d: key %d at %d, want %d at %d", seed, i+1, got[i][1], got[i][0], s.Pitch.MIDI()+p.Transposition.Semitones, at)
			}
		}
	}
}

func TestCountOffAndMetronome(t *testing.T) {
	s, err := abc.Read(context.Background(), "M:4/4\nL:1/4\nK:C\nc|d e f g|a3|]\n")
	if err != nil {
		t.Fatal(err)
	}
	p := s.Parts[0]
	var cues []Cue
	for _, c := range count.CountOff(p, count.Options{}) {
		cues = append(cues, Cue{c.At, c.Beat})
	}
	data, err := Write(p, Options{Metronome: true, Cues: cues, PerMinute: 60})
	if err != nil {
		t.Fatal(err)
	}
	if first := struck(t, data, 1)[0]; first[0] != 3*quarter {
		t.Errorf("after three cues the pickup sounds at tick %d", first[0])
	}
	clicks := struck(t, data, 2)
	if len(clicks) != 3+1+4+3 {
		t.Errorf("%d clicks, want 3 cues and a click for each of the 8 beats", len(clicks))
	}
	for i, c := range clicks {
		if c[0] != int64(i)*quarter {
			t.Errorf("click %d is at tick %d", i+1, c[0])
		}
	}
}

func TestStrokesGoToTheDrumChannel(t *testing.T) {
	s, err := abc.Read(context.Background(), "M:2/4\nL:1/4\nK:C clef=perc\nc c|]\n")
	if err != nil {
		t.Fatal(err)
	}
	data, err := Write(s.Parts[0], Options{})
	if err != nil {
		t.Fatal(err)
	}
	if got := struck(t, data, 1); len(got) != 2 || got[0][1] != sideStick {
		t.Errorf("strokes are written %v", got)
	}
	if score.Frac(1, 24).Mul(score.Frac(4*quarter, 1)).Den() != 1 {
		t.Error("a sixteenth of a triplet is not a whole number of ticks")
	}
}
