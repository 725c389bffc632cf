package counted

import (
	"context"
	"strings"
	"testing"

	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
	"unhurriedbench/internal/testscore"
)

// What is written so is read back with the same notes at the same times, for random music
// as far as it can be counted in one line, and for the lines of the other tests.
func TestRoundTrip(t *testing.T) {
	sounding := func(p score.Part) []score.Sounding { return p.Sounding(p.Order()) }
	tried := 0
	check := func(s score.Score) {
		t.Helper()
		text, err := Write(s)
		if err != nil {
			return
		}
		tried++
		again, err := Read(context.Background(), text)
		if err != nil {
			t.Fatalf("%v\n%s\nof %s", err, text, shown(s.Parts[0]))
		}
		for _, names := range []name.System{name.FixedDo, name.German} {
			e, err := EntryOf(s, names)
			if err != nil {
				t.Fatalf("in %s: %v", names, err)
			}
			d := e.Draft(context.Background())
			if len(d.Marks) > 0 || shown(d.Score.Parts[0]) != shown(again.Parts[0]) {
				t.Fatalf("in %s %q is %s %v, want %s", names, e.Name, shown(d.Score.Parts[0]), d.Marks, shown(again.Parts[0]))
			}
		}
		for k, m := range s.Parts[0].Measures { // the last one before a pickup's time is as short
			if now := again.Parts[0].Measures[k]; now.Length != m.Length || now.Offset != m.Offset {
				t.Fatalf("measure %d holds %s, want %s\n%s\nof %s", m.Number, now.Length, m.Length, text, shown(s.Parts[0]))
			}
		}
		want, got := sounding(s.Parts[0]), sounding(again.Parts[0])
		if len(want) != len(got) {
			t.Fatalf("%d notes, want %d\n%s\nof %s\nis %s", len(got), len(want), text, shown(s.Parts[0]), shown(again.Parts[0]))
		}
		if a, b := marksOf(s.Parts[0]), marksOf(again.Parts[0]); a != b {
			t.Fatalf("marks %q are %q after %s", a, b, text)
		}
		for k := range want {
			if got[k].Onset != want[k].Onset || got[k].Length != want[k].Length || got[k].Pitch != want[k].Pitch {
				t.Fatalf("note %d is %v, want %v\n%s\nof %s\nis %s", k+1, got[k], want[k], text, shown(s.Parts[0]), shown(again.Parts[0]))
			}
		}
	}
	for seed := range uint64(6000) {
		check(testscore.Random(t, seed))
	}
	for _, text := range []string{
		"meter: 3/4\nkey: Eb\nfor: alto-sax\ncount: 3 | 1 2 & 3 | 1 (2) & 3 | 1\nname: b(ec)de|fg,",
		"count: 1 2 3 4 | (1) 2 3 [4]\nname: gabc | ba\nmarks: 1.1 mf \"with spirit\", 1.1-1.3 staccato, 2.2 accent breath fermata, 2.1 up",
		"for: snare\ncount: 1 2 3 4 | 1\nmarks: 1.1-1.4 slur, 2.1 accent ff",
		"meter: 6/8\ncount: 1 la li 2 | 1 li 2 [li] | 1 (2)\nname: cdef gab c",
		"count: |: 1 2 3 4 | first 1 3 :| second 1 [3] | segno 1 fine | 1 D.S. al fine\nname: cdef|gf|e|d|c",
	} {
		s, err := Read(context.Background(), text)
		if err != nil {
			continue // lines that name too many are other tests'
		}
		check(s)
	}
	if tried < 100 {
		t.Errorf("only %d could be counted in one line", tried)
	}
}

// A measure that ends early is written and comes back, and signs that lead nowhere are said as
// they are of other files.
func TestShortMeasuresAndJumps(t *testing.T) {
	for _, tt := range []struct{ text, count, says string }{
		{"count: 4 | 1 2 3 4 | 1 (2) (3) /4\nname: g | g a b c | c", "4 | 1 2 3 4 | 1 /4 |", ""},
		{"count: 3 4 & | 1 2 3 4 | 1 2 /3\nname: g a b | g a b c | c b", "3 4 & | 1 2 3 4 | 1 2 /3 |", ""},
		{"count: 1 2 3 4 | 1 D.S.\nname: gabc | g", "1 2 3 4 | 1 D.S. |", "D.S. has no sign to go back to"},
		{"count: 1 2 3 4 | 1 D.C. al coda\nname: gabc | g", "", "goes on to a coda that is not marked"},
		{"count: 1 2 3 4 | | 1 2 3 4\nname: gabc | gabc", "1 2 3 4 | 1 2 3 4 |", "two bar lines stand in front of it"},
		{"count: 1 2 3 4 |\n| 1 2 3 4\nname: gabc | gabc", "1 2 3 4 | 1 2 3 4 |", ""},
		{"count: |: 1 2 3 4 | first 1 (2) (3) (4) :| second 1 (2) 3 (4) |\nname: gabc | c | c b", "|: 1 2 3 4 | first 1 :| second 1 3 |", ""},
		{"count: |: 1 2 3 4 | first (1) 2 3 4 :| second 1 2 3 4 |\nname: gabc | gab | cgab", "|: 1 2 3 4 | first (1) 2 3 4 :| second 1 2 3 4 |", ""},
		{"count: |: 1 2 3 4 | first (1) 2 3 4 :| second (1) 2 3 4 |\nname: gabc | gab | gab", "|: 1 2 3 4 | first (1) 2 3 4 :| second (1) 2 3 4 |", ""},
		{"count: 1 2 3 4 | second 1\nname: gabc | g", "", "never played"},
	} {
		s, err := Read(context.Background(), tt.text)
		if err != nil {
			t.Errorf("%s: %v", tt.text, err)
			continue
		}
		said := ""
		for _, p := range s.Remarks {
			said += p.Error()
		}
		if !strings.Contains(said, tt.says) || tt.says == "" && said != "" {
			t.Errorf("%s says %q, want %q", tt.text, said, tt.says)
		}
		if e, err := EntryOf(s, name.Letters); tt.count != "" && (err != nil || e.Count != tt.count) {
			t.Errorf("%s is written %q (%v), want %q", tt.text, e.Count, err, tt.count)
		}
	}
	for _, wrong := range []string{"count: /4", "count: 1 2 /3 4", "count: 1 /5", "count: 1 2 3 4 | 1 2 /3 | 1 2 3 4", "count: |: 1 2 3 4 | first 1 2 3 4 :| second (1) 2 3 4"} {
		if _, err := Read(context.Background(), wrong); err == nil {
			t.Errorf("%q is read", wrong)
		}
	}
}
