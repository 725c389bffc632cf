package breakdown

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"testing"

	"unhurriedbench/core/finger"
	"unhurriedbench/core/format/abc"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
	"unhurriedbench/internal/testscore"
)

// inYear reads a line for an instrument in a year of playing, with a teacher's marks.
func inYear(t *testing.T, text, id string, year int, annotations map[score.Place][]Annotation) Report {
	t.Helper()
	s, err := abc.Read(context.Background(), text+"\n")
	if err != nil {
		t.Fatalf("%s: %v", text, err)
	}
	target, _ := instrument.ByID(id)
	return Read(s, s.Parts[0], "", target, nil, Options{Finger: finger.Options{Year: year}, Annotations: annotations})
}

// breaths lists after which notes a breath is taken, as measure.note from 1.
func breaths(r Report) string {
	var list []string
	for _, m := range r.Measures {
		for j, e := range m.Events {
			if e.Breath != "" {
				list = append(list, fmt.Sprintf("%d.%d", m.Number, j+1))
			}
		}
	}
	return strings.Join(list, " ")
}

// Where a beginner breathes, worked by hand. Source: common practice.
func TestBreaths(t *testing.T) {
	const moving = "c d e f|g f e d|c d e f|g f e d|c d e f|g4|]"
	for _, test := range []struct {
		what, head, music, id string
		year                  int
		want                  string
	}{
		{"every two measures, at last at the end", "M:4/4\nQ:1/4=90\n", moving, "trumpet", 1, "2.4 4.4"},
		{"later on, when the air is used up", "M:4/4\nQ:1/4=90\n", moving, "trumpet", 3, "4.4"},
		{"a rest is a breath", "M:4/4\nQ:1/4=90\n", "c d e f|g f e z|c d e f|g3 z|]", "trumpet", 1, ""},
		{"a breath that is printed", "M:4/4\nQ:1/4=90\n", "c d e !breath!f|g f e d|c4|]", "trumpet", 1, "1.3"},
		{"not inside a slur", "M:4/4\nQ:1/4=90\n", "c d e f|g f (e d|c) d e f|g f e d|c4|]", "trumpet", 1, "3.1 4.4"},
		{"a slur too long at the tempo is broken at the bar line", "M:4/4\nQ:1/4=76\n", "(c d e f|g f e d|c d e f|g4)|]", "trumpet", 1, "2.4"},
		{"a tied note longer than a breath is broken at a bar line", "M:4/4\nQ:1/4=60\n", "c4-|c4-|c4-|c4|]", "trumpet", 1, "1.1 2.1 3.1"},
		{"a tied note within a breath is not", "M:4/4\nQ:1/4=120\n", "c4-|c4|]", "trumpet", 1, ""},
		{"a short last phrase is not cut off", "M:4/4\nQ:1/4=90\n", "c d e f|g f e d|c2 z2|]", "trumpet", 1, ""},
		{"short measures by fours", "M:2/4\nQ:1/4=80\n", "c d|e f|g f|e d|c d|e f|g2|]", "trumpet", 1, "4.2"},
		{"strings do not breathe", "M:4/4\nQ:1/4=90\n", moving, "violin", 1, ""},
	} {
		r := inYear(t, test.head+"L:1/4\nK:C\n"+test.music, test.id, test.year, nil)
		if got := breaths(r); got != test.want {
			t.Errorf("%s: %q at %d, want %q", test.what, got, r.Tempo.Suggested, test.want)
		}
	}
	asked := map[score.Place][]Annotation{{Measure: 0, Event: 1}: {{Kind: AnnotationBreath, Pitch: 64}}, {Measure: 1, Event: 3}: {{Kind: NoBreath, Pitch: 64}}, {Measure: 2, Event: 1}: {{Kind: AnnotationBreath, Pitch: 70}}}
	if got := breaths(inYear(t, "M:4/4\nL:1/4\nK:C\n"+moving, "trumpet", 1, asked)); got != "1.2 3.2 4.4" {
		t.Errorf("as the teacher wants it: %s", got)
	}
}

// A phrase is timed at the tempo, without the rests.
func TestPhrasesInOneBreath(t *testing.T) {
	r := inYear(t, "M:4/4\nL:1/4\nQ:1/4=60\nK:C\nc d e f|g3 z|c d e f|g f e d|c4|]", "tuba-bb", 1, nil)
	if r.Tempo.Suggested != 56 {
		t.Fatalf("it starts at %d", r.Tempo.Suggested)
	}
	var got []string
	for _, p := range r.Chunks {
		got = append(got, fmt.Sprintf("%s %.1f %v", p.Label, p.Breath.Seconds, p.Breath.One))
	}
	if want := "A 7.5 false; B 12.9 false; Whole 12.9 false"; strings.Join(got, "; ") != want {
		t.Errorf("%s, want %s", strings.Join(got, "; "), want)
	}
}

// No breath is taken inside a tie, nor in a slur that one breath is long enough for.
func TestBreathsLeaveTiesAndSlurs(t *testing.T) {
	for seed := range uint64(150) {
		s := testscore.Random(t, seed)
		target, _ := instrument.ByID([]string{"flute", "tuba-bb", "oboe"}[seed%3])
		r := Read(s, s.Parts[0], "", target, nil, Options{Finger: finger.Options{Year: int(seed%3) + 1}})
		slurs := 0
		for i, m := range r.Part.Measures {
			for j, e := range m.Events {
				slurs = max(slurs+e.SlurStarts-e.SlurEnds, 0)
				x := r.Measures[i].Events[j]
				if x.Breath == "" || strings.Contains(x.Breath, "written") {
					continue
				}
				if e.Kind == score.Rest || e.TieOn {
					t.Fatalf("seed %d: a breath in a tie or at a rest, m. %d", seed, m.Number)
				}
				if slurs > 0 && !strings.Contains(x.Breath, "slur") {
					t.Fatalf("seed %d: %q inside a slur, m. %d", seed, x.Breath, m.Number)
				}
			}
		}
	}
}

// bows lists the bows by measure: d and u, upper case where a sign is worth it, – inside a
// slur.
func bows(r Report) string {
	var words []string
	for _, m := range r.Measures {
		word := ""
		for j, e := range m.Events {
			if e.Kind == "rest" || r.Part.Measures[indexOf(r, m)].Events[j].Tied {
				continue
			}
			switch {
			case e.Bow == nil:
				word += "–"
			case e.Bow.Why != "":
				word += strings.ToUpper(e.Bow.String()[:1])
			default:
				word += e.Bow.String()[:1]
			}
		}
		words = append(words, word)
	}
	return strings.Join(words, " ")
}

func indexOf(r Report, m Measure) int {
	return slices.IndexFunc(r.Measures, func(n Measure) bool { return n.Number == m.Number && n.Part == m.Part })
}

// How lines are bowed, worked by hand. Source: common practice.
func TestBows(t *testing.T) {
	for _, test := range []struct {
		what, head, music string
		year              int
		want              string
	}{
		{"by turns from a downbeat", "M:4/4\n", "d e f g|a g f e|d4|]", 1, "Dudu dudu d"},
		{"a pickup comes up", "M:4/4\n", "d|g a b a|g3|]", 1, "U dudu d"},
		{"two pickups go down and up", "M:4/4\n", "d/e/|f g a g|f3|]", 1, "Du dudu d"},
		{"one bow to a slur", "M:4/4\n", "(d e) f g|(a g f) e|d4|]", 1, "D–ud U––d U"},
		{"after a rest down again", "M:4/4\n", "d e f z|g a b z|d4|]", 1, "Dud Dud D"},
		{"a pickup after a rest comes up", "M:4/4\n", "d e z f|g a b2|d4|]", 1, "DuU dud U"},
		{"a phrase begins down after a long note", "M:4/4\n", "f|d e f g|a2 g f|e d c d|e3 f|g a b a|g4|]", 1, "U dudu dud Udud UU dudu d"},
		{"a waltz as it comes", "M:3/4\n", "d e f|g f e|d3|]", 1, "Dud Udu d"},
		{"a dotted pair is hooked in the second year", "M:4/4\n", "d>e f2|g>a b2|d4|]", 2, "DDu dDu d"},
		{"and not in the first", "M:4/4\n", "d>e f2|g>a b2|d4|]", 1, "Dud Udu d"},
		{"what is printed stands", "M:4/4\n", "vd ve f g|ud e f g|]", 1, "DDud Udud"},
	} {
		if got := bows(inYear(t, test.head+"L:1/4\nK:C\n"+test.music, "violin", test.year, nil)); got != test.want {
			t.Errorf("%s: %s is bowed %s, want %s", test.what, test.music, got, test.want)
		}
	}
	asked := map[score.Place][]Annotation{{Measure: 1, Event: 0}: {{Kind: AnnotationUpBow, Pitch: 69}}}
	if got := bows(inYear(t, "M:4/4\nL:1/4\nK:C\nd e f g|a g f e|d4|]", "violin", 1, asked)); got != "Dudu Udud U" {
		t.Errorf("as the teacher wants it: %s", got)
	}
}
