package abc

import (
	"context"
	"strings"
	"testing"

	"unhurriedbench/core/score"
	"unhurriedbench/internal/midicheck"
	"unhurriedbench/internal/testscore"
)

// withoutQuotes drops what ABC cannot write: double quotes inside quoted text.
func withoutQuotes(s score.Score) score.Score {
	for _, p := range s.Parts {
		for i := range p.Measures {
			for j := range p.Measures[i].Events {
				e := &p.Measures[i].Events[j]
				e.Text = strings.ReplaceAll(e.Text, `"`, "'")
			}
		}
	}
	return s
}

func TestReadingWhatWasWritten(t *testing.T) {
	for seed := range uint64(300) {
		s := withoutQuotes(testscore.Plain(testscore.Random(t, seed)))
		text := Write(s)
		back, err := Read(context.Background(), text)
		if err != nil {
			t.Fatalf("seed %d: %v\n%s", seed, err, text)
		}
		if testscore.Differ(t, testscore.Plain(back), s) {
			t.Fatalf("seed %d, through\n%s", seed, text)
		}
	}
}

// Outside check: abc2midi reads what is written.
func TestWhatIsWrittenAgreesWithABC2MIDI(t *testing.T) {
	for seed := range uint64(20) {
		s := testscore.WithoutChords(testscore.Random(t, seed))
		s.Parts[0].Transposition = score.Interval{} // abc2midi plays the sounding pitch
		if s.Parts[0].Measures[1].Fine {
			continue // abc2midi plays no D.C.
		}
		for i := range s.Parts[0].Measures {
			s.Parts[0].Measures[i].Times = 0 // nor any strain more than twice
		}
		midicheck.Compare(t, Write(s), s.Parts[0])
	}
}
