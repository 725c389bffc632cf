package breakdown_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
	"unhurriedbench/demo"
	"unhurriedbench/internal/testabc"
	"unhurriedbench/internal/testscore"
)

// shown writes a part shortly: pitches with lengths, rests as z, slurs and ties as read.
func shown(p score.Part) string {
	var out strings.Builder
	for _, m := range p.Measures {
		for _, e := range m.Events {
			out.WriteString(strings.Repeat("(", e.SlurStarts))
			switch {
			case e.Kind == score.Rest:
				out.WriteString("z")
			case e.Unpitched:
				out.WriteString("x")
			default:
				out.WriteString(e.Pitch.String())
			}
			fmt.Fprintf(&out, ":%s", e.Length)
			if e.TieOn {
				out.WriteString("-")
			}
			out.WriteString(strings.Repeat(")", e.SlurEnds) + " ")
		}
		out.WriteString("| ")
	}
	return strings.TrimSpace(out.String())
}

func derive(t *testing.T, line breakdown.PracticeVersion, abc string, chunk int) breakdown.Derived {
	t.Helper()
	part := testabc.Part(t, abc)
	chunks := breakdown.Cut(part)
	d, err := breakdown.Derive(line, "x", part, chunks, chunks[chunk], breakdown.VersionAsk{On: score.MustPitch("D4")})
	if err != nil {
		t.Fatal(err)
	}
	return d
}

// Worked by hand. Source: common practice.
func TestLinesByHand(t *testing.T) {
	const (
		two     = "M:4/4\nL:1/4\nK:F\nF G A2|B A G2|F4|z4|]\n"
		slurred = "M:3/4\nL:1/4\nK:G\n(GA) B|c3-|c B A|G3|]\n"
		upbeat  = "M:4/4\nL:1/4\nK:C\nG|c d e d|c3 G|c d e f|g3|]\n"
	)
	for _, test := range []struct {
		line  breakdown.PracticeVersion
		abc   string
		chunk int
		want  string
	}{
		{breakdown.OneNote, slurred, 0, "D4:1/4 D4:1/4 D4:1/4 | D4:3/4- | D4:1/4 D4:1/4 D4:1/4 | D4:3/4 |"},
		{breakdown.EvenWalk, slurred, 0, "G4:1/2 A4:1/2 | B4:1/2 C5:1/2 | B4:1/2 A4:1/2 | G4:1/2 z:1/4 z:1/4 |"},
		{breakdown.Pulsed, "M:3/4\nL:1/8\nK:C\nC3 D E2|C6|]\n", 0,
			"C4:1/8 C4:1/8 C4:1/8 D4:1/8 E4:1/8 E4:1/8 | C4:1/8 C4:1/8 C4:1/8 C4:1/8 C4:1/8 C4:1/8 |"},
		{breakdown.PulsedOne, "M:3/4\nL:1/8\nK:C\nC3 D E2|C6|]\n", 0,
			"D4:1/8 D4:1/8 D4:1/8 D4:1/8 D4:1/8 D4:1/8 | D4:1/8 D4:1/8 D4:1/8 D4:1/8 D4:1/8 D4:1/8 |"},
		{breakdown.Pulsed, "M:2/4\nL:1/16\nK:C\nC3D E4|]\n", 0, "C4:1/8 C4:1/16 D4:1/16 E4:1/8 E4:1/8 |"},
		{breakdown.AddANote, "M:4/4\nL:1/4\nK:C\nC D E F|G4|]\n", 0,
			"C4:1/4 D4:1/4 E4:1/4 z:1/4 | C4:1/4 D4:1/4 E4:1/4 F4:1/4 | C4:1/4 D4:1/4 E4:1/4 F4:1/4 | G4:1 |"},
		{breakdown.Unslurred, slurred, 0, "G4:1/4 A4:1/4 B4:1/4 | C5:3/4- | C5:1/4 B4:1/4 A4:1/4 | G4:3/4 | (G4:1/4 A4:1/4) B4:1/4 | C5:3/4- | C5:1/4 B4:1/4 A4:1/4 | G4:3/4 |"},
		{breakdown.HeldFirst, upbeat, 0, "G4:1 | z:1/4 z:1/4 z:1/4 G4:1/4 | C5:1/4 D5:1/4 E5:1/4 D5:1/4 | C5:3/4 z:1/4 | " +
			"G4:1 | z:1/4 z:1/4 z:1/4 G4:1/4 | C5:1/4 D5:1/4 E5:1/4 F5:1/4 | G5:3/4 z:1/4 |"},
		{breakdown.Alone, slurred, 0, "(G4:1/4 A4:1/4) B4:1/4 | C5:3/4- | C5:1/4 B4:1/4 A4:1/4 | G4:3/4 |"},
		{breakdown.Alone, upbeat, 1, "z:1/4 z:1/4 z:1/4 G4:1/4 | C5:1/4 D5:1/4 E5:1/4 F5:1/4 | G5:3/4 z:1/4 |"},
		{breakdown.LastFirst, two, 0, "F4:1 | B4:1/4 A4:1/4 G4:1/2 | F4:1 | F4:1/4 G4:1/4 A4:1/2 | B4:1/4 A4:1/4 G4:1/2 | F4:1 |"},
	} {
		got := strings.ReplaceAll(shown(derive(t, test.line, test.abc, test.chunk).Score.Parts[0]), "Bb4", "B4")
		if got != test.want {
			t.Errorf("%s of %q, chunk %d:\n got %s\nwant %s", test.line, test.abc, test.chunk, got, test.want)
		}
	}
}

// Each line keeps what it says it keeps, for every instrument in the demo book and in
// random music: a rhythm, or pitches. Its last chunk is the whole where it grows, and it
// can be read, fingered and cut like any other part.
func TestLinesSaveWhatTheySay(t *testing.T) {
	exercises, err := demo.Exercises()
	if err != nil {
		t.Fatal(err)
	}
	var all []score.Score
	for _, x := range exercises {
		all = append(all, x.Score)
	}
	for seed := range uint64(30) {
		all = append(all, testscore.Random(t, seed))
	}
	for n := range all {
		all[n].Parts = []score.Part{slurred(all[n].Parts[0])}
	}
	made := map[breakdown.PracticeVersion]int{}
	for n, s := range all {
		target := instrument.All()[n%len(instrument.All())]
		report := breakdown.Read(s, s.Parts[0], "", target, nil, breakdown.Options{})
		for _, line := range breakdown.PracticeVersions(report.Part) {
			for k, within := range report.Chunks {
				d, err := breakdown.Derive(line, s.Title, report.Part, report.Chunks, within, breakdown.VersionAsk{On: score.MustPitch("F4")})
				if err != nil {
					t.Fatalf("%s, %s: %v\n%s", s.Title, line, err, shown(report.Part))
				}
				made[line]++
				keeps(t, line, report, within, d)
				again := breakdown.Read(d.Score, d.Score.Parts[0], target.ID, target, nil, breakdown.Options{})
				if len(again.Measures) == 0 || len(d.Chunks) == 0 {
					t.Fatalf("%s of %s is empty", line, s.Title)
				}
				if k > 0 && !line.TakesChunk() {
					break
				}
			}
		}
	}
	for _, line := range []breakdown.PracticeVersion{breakdown.OneNote, breakdown.EvenWalk, breakdown.Longer, breakdown.AddANote, breakdown.Unslurred, breakdown.Pulsed, breakdown.HeldFirst, breakdown.LastFirst, breakdown.Alone} {
		if made[line] < 20 {
			t.Errorf("only %d of %s were tried", made[line], line)
		}
	}
}

// slurred is a part with a slur over every third note and the one after.
func slurred(part score.Part) score.Part {
	part = part.Copy()
	notes := part.Notes()
	for k := 0; k+1 < len(notes); k += 3 {
		part.At(notes[k]).SlurStarts++
		part.At(notes[k+1]).SlurEnds++
	}
	return part
}

// struck lists what is struck of some measures, by pitch and, as asked, by length.
func struck(part score.Part, passages []breakdown.Passage, lengths bool) []string {
	var list []string
	for _, p := range passages {
		for _, e := range part.Measures[p.At].Events {
			if e.Kind == score.Rest || e.Start.Less(p.From) || !e.Start.Less(p.To) {
				continue
			}
			word := e.Pitch.String()
			if lengths {
				word += " " + e.Length.String()
			} else if e.Tied {
				continue
			}
			list = append(list, word)
		}
	}
	return list
}

func everything(part score.Part) []breakdown.Passage {
	return breakdown.Chunk{At: indexes(part)}.Passages(part)
}

func indexes(part score.Part) []int {
	list := make([]int, len(part.Measures))
	for i := range list {
		list[i] = i
	}
	return list
}

func keeps(t *testing.T, line breakdown.PracticeVersion, r breakdown.Report, within breakdown.Chunk, d breakdown.Derived) {
	t.Helper()
	part := d.Score.Parts[0]
	fail := func(what string, got, want any) {
		t.Fatalf("%s of %s, %s: %s\n got %v\nwant %v\nof %s\n to %s", line, r.Title, within.InWords(), what, got, want, shown(r.Part), shown(part))
	}
	last := d.Chunks[len(d.Chunks)-1]
	switch line {
	case breakdown.OneNote:
		for i, m := range part.Measures {
			for j, e := range m.Events {
				was := r.Part.Measures[i].Events[j]
				if e.Kind != was.Kind || e.Start != was.Start || e.Length != was.Length || e.TieOn != was.TieOn || e.Tied != was.Tied {
					fail("the rhythm", e, was)
				}
				if e.Kind == score.Note && e.Pitch != score.MustPitch("F4") {
					fail("the note", e.Pitch, "F4")
				}
			}
		}
	case breakdown.Pulsed:
		for i, m := range part.Measures {
			sum := score.Fraction{}
			for _, e := range m.Events {
				sum = sum.Add(e.Length)
				if e.Kind == score.Note && score.Frac(1, 8).Less(e.Length) && e.Value.Tuplet.Actual == 0 && !e.Roll {
					fail("longer than an eighth", e.Length, "1/8")
				}
			}
			if sum != r.Part.Measures[i].Length {
				fail("the length of a measure", sum, r.Part.Measures[i].Length)
			}
		}
	case breakdown.EvenWalk:
		for _, m := range part.Measures {
			for _, e := range m.Events {
				if e.Kind == score.Note && e.Length != score.Frac(1, 2) {
					fail("a length", e.Length, "1/2")
				}
			}
		}
		var want []string
		for _, p := range r.Chunks {
			if !p.Whole() {
				want = append(want, struck(r.Part, p.Passages(r.Part), false)...)
			}
		}
		if got := struck(part, everything(part), false); !slices.Equal(got, want) {
			fail("the pitches", got, want)
		}
	case breakdown.Longer:
		once, written := struck(r.Part, within.Passages(r.Part), false), struck(r.Part, within.Passages(r.Part), true)
		for k, length := range []score.Fraction{score.Frac(1, 1), score.Frac(1, 2), score.Frac(1, 4)} {
			p := d.Chunks[k].Passages(part)
			if got := struck(part, p, false); !slices.Equal(got, once) {
				fail("the pitches of "+d.Chunks[k].Label, got, once)
			}
			for _, at := range d.Chunks[k].At {
				for _, e := range part.Measures[at].Events {
					if e.Kind == score.Note && e.Length != length {
						fail("a length of "+d.Chunks[k].Label, e.Length, length)
					}
				}
			}
		}
		if got := struck(part, last.Passages(part), true); !slices.Equal(got, written) {
			fail("the chunk as written", got, written)
		}
	case breakdown.Alone:
		want := struck(r.Part, within.Passages(r.Part), true)
		if got := struck(part, everything(part), true); !slices.Equal(got, want) {
			fail("the chunk", got, want)
		}
		if last.Key() != within.Key() { // by which it is found, a pickup before it or not
			fail("the key of the chunk", last.Key(), within.Key())
		}
		if first := within.Passages(r.Part)[0].At; part.Measures[0].Number != max(r.Part.Measures[first].Number, 0) {
			fail("the first measure", part.Measures[0].Number, r.Part.Measures[first].Number)
		}
	case breakdown.AddANote, breakdown.LastFirst:
		want := struck(r.Part, within.Passages(r.Part), true)
		if got := struck(part, last.Passages(part), true); !slices.Equal(got, want) {
			fail("the last chunk", got, want)
		}
		before := 0
		for _, p := range d.Chunks {
			n := len(struck(part, p.Passages(part), false))
			if line == breakdown.AddANote && before > 0 && n != before+1 || n < before {
				fail("the notes of a chunk", n, before+1)
			}
			before = n
		}
	case breakdown.Unslurred:
		slurs := 0
		for _, p := range d.Chunks {
			within := 0
			for _, at := range p.At {
				for _, e := range part.Measures[at].Events {
					within += e.SlurStarts
				}
			}
			if slurred := strings.HasSuffix(p.Label, "slurred"); slurred != (within > 0) {
				fail("the slurs of "+p.Label, within, slurred)
			}
			slurs += within
		}
	}
}

// Every bow of the demo book has a way, slurs have one, and wind players have none.
func TestEveryBowHasAWay(t *testing.T) {
	exercises, err := demo.Exercises()
	if err != nil {
		t.Fatal(err)
	}
	for _, x := range exercises {
		for _, target := range instrument.All() {
			r := breakdown.Read(x.Score, x.Score.Parts[0], "", target, nil, breakdown.Options{})
			slurs := 0
			for i, m := range r.Part.Measures {
				for j, e := range m.Events {
					begins := target.Hand != "" && e.Kind == score.Note && !e.Tied && slurs == 0
					if got := r.Measures[i].Events[j].Bow != nil; got != begins {
						t.Fatalf("%s, %s, m. %d note %d: a bow is %v, want %v", x.Score.Title, target.ID, m.Number, j+1, got, begins)
					}
					slurs = max(slurs+e.SlurStarts-e.SlurEnds, 0)
				}
			}
		}
	}
}

// Versions are offered where there is something to practise in them.
func TestWhichVersionsThereAre(t *testing.T) {
	for _, tt := range []struct{ music, want string }{
		{"C D E F|]", "[one-note even-walk longer add-a-note pulsed pulsed-one held]"},
		{"C D E F|G4|]", "[one-note even-walk longer add-a-note pulsed pulsed-one held last-first alone]"},
		{"(C D) E F|G A B c|]", "[one-note even-walk longer add-a-note unslurred pulsed pulsed-one held last-first alone]"},
		{"z4|z4|]", "[last-first alone]"},
	} {
		part := testabc.Part(t, "M:4/4\nL:1/4\nK:C\n"+tt.music)
		if got := fmt.Sprint(breakdown.PracticeVersions(part)); got != tt.want {
			t.Errorf("%s: %s, want %s", tt.music, got, tt.want)
		}
	}
}
