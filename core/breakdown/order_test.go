package breakdown

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"unhurriedbench/core/format/abc"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
	"unhurriedbench/internal/testabc"
	"unhurriedbench/internal/testscore"
)

// book reads lines as the exercises of a book, for some instruments.
func book(t testing.TB, ids []string, lines ...string) []Candidate {
	t.Helper()
	var list []Candidate
	for k, line := range lines {
		s, err := abc.Read(t.Context(), line+"\n")
		if err != nil {
			t.Fatalf("%s: %v", line, err)
		}
		list = append(list, candidate(s, k+1, ids))
	}
	return list
}

func candidate(s score.Score, number int, ids []string) Candidate {
	c := Candidate{Number: number, Demands: map[string]Demands{}}
	for _, id := range ids {
		target, _ := instrument.ByID(id)
		c.Demands[id] = DemandsOf(s, s.Parts[0], "", target)
	}
	return c
}

func orderWords(list []Candidate, order []Next) string {
	var words []string
	for _, n := range order {
		words = append(words, fmt.Sprintf("%d: %s", list[n.At].Number, n.Why))
	}
	return strings.Join(words, "\n")
}

const plainLine = "M:4/4\nL:1/4\nK:C\nc d e d|c4|e d c d|c4|]"

// A later number that is easier comes before an earlier one, and says why. Source: common
// practice.
func TestEasiestNext(t *testing.T) {
	ids := []string{"flute"}
	list := book(t, ids,
		plainLine,
		"M:4/4\nL:1/4\nK:C\nc>d e>^f|g2 z2|e>d c>d|c4|]", // dotted quarters, a sharp, a rest
		"M:4/4\nL:1/4\nK:C\nd c d e|c4|d e d c|c4|]",     // nothing but what 1 brought
	)
	room := []Player{{Instrument: "flute", Count: 1, Met: MetIn()}}
	got := orderWords(list, Easiest(list, room, len(list)))
	want := "1: New: the meter 4/4, quarter note, C and 3 more.\n3: Nothing new.\n" +
		"2: New: dotted quarter note, eighth note and 5 more."
	if got != want {
		t.Errorf("the order is\n%s\nwant\n%s", got, want)
	}
	// In the book's order, and the first of all is not new beside anything.
	if got, want := orderWords(list, InOrder(list, room, 2)), "1: The first.\n2: New: dotted quarter note, eighth note and 5 more."; got != want {
		t.Errorf("in the book's order it is\n%s\nwant\n%s", got, want)
	}
	for _, n := range append(Easiest(list, room, 3), InOrder(list, room, 3)...) {
		if words := len(strings.Fields(n.Why)); words > mostWhy {
			t.Errorf("%q has %d words", n.Why, words)
		}
	}
}

// Whom an exercise is for is read from its music.
func TestAudience(t *testing.T) {
	for music, want := range map[string]Audience{
		plainLine: Everybody, "M:4/4\nL:1/4\nK:C clef=perc\nc c c c|]": Percussion, "M:4/4\nL:1/4\nK:D\n!upbow!D E F G|]": "strings",
	} {
		if got := AudienceOf(testabc.Part(t, music)); got != want {
			t.Errorf("%q is for %q, want %q", music, got.Words(), want.Words())
		}
	}
	for _, tt := range []struct {
		a    Audience
		id   string
		want bool
	}{{Everybody, "snare", true}, {Percussion, "snare", true}, {Percussion, "bells", false}, {Pitched, "snare", false}, {Pitched, "bells", true}, {"brass", "horn-f", true}, {"brass", "flute", false}, {"strings", "cello", true}} {
		i, _ := instrument.ByID(tt.id)
		if got := tt.a.Includes(i); got != tt.want {
			t.Errorf("a line for %s includes the %s: %v", tt.a.Words(), tt.id, got)
		}
	}
}

// In a mixed room the worst off weighs most: what is easy for the violin and hard for the
// clarinet waits for what both can play.
func TestTheWorstOffWeighsMost(t *testing.T) {
	ids := []string{"violin", "clarinet"}
	list := book(t, ids,
		"M:4/4\nL:1/4\nK:A\nA ^d e g|c'4|f ^d g e|A4|]",
		"M:4/4\nL:1/4\nK:F\nF G A B|c4|d B G A|F4|]",
	)
	met := MetIn()
	if totalOf(list[0], "violin") < 0.3 || totalOf(list[0], "clarinet") < totalOf(list[0], "violin") {
		t.Fatalf("for the violin %.2f, for the clarinet %.2f", totalOf(list[0], "violin"), totalOf(list[0], "clarinet"))
	}
	mixed := Easiest(list, []Player{{Instrument: "violin", Count: 3, Met: met}, {Instrument: "clarinet", Count: 1, Met: met}}, 9)
	if list[mixed[0].At].Number != 2 {
		t.Errorf("the order is\n%s", orderWords(list, mixed))
	}
	if mixed[0].Total < 0.6*totalOf(list[1], "clarinet") {
		t.Errorf("for the room it is %.2f hard, for the clarinet %.2f", mixed[0].Total, totalOf(list[1], "clarinet"))
	}
}

func totalOf(c Candidate, id string) float64 { parts := c.Demands[id].Parts; return parts.Total() }

// The order has every exercise once, is the same every time, and keeps the book's order
// between equals.
func TestTheOrderIsTotalAndStable(t *testing.T) {
	ids := []string{"flute", "trombone", "snare"}
	var list []Candidate
	for seed := range uint64(40) {
		list = append(list, candidate(testscore.Random(t, seed%25), int(seed)+1, ids)) // fifteen come twice
	}
	room := []Player{{"flute", 4, MetIn()}, {"trombone", 1, nil}, {"snare", 2, MetIn()}}
	order := Easiest(list, room, len(list))
	seen := map[int]int{}
	for at, n := range order {
		if _, twice := seen[n.At]; twice {
			t.Fatalf("exercise %d comes twice", n.At)
		}
		seen[n.At] = at
	}
	if len(seen) != len(list) {
		t.Fatalf("%d of %d have a place", len(seen), len(list))
	}
	for k := range 15 {
		if seen[k] > seen[k+25] {
			t.Errorf("exercise %d comes after its twin", k+1)
		}
	}
	if first := Easiest(list, room, 3); !slices.Equal(first, order[:3]) {
		t.Error("the first three are others where no more are asked for")
	}
	if again := Easiest(list, room, len(list)); !slices.Equal(again, order) {
		t.Error("asked again, the order is another")
	}
}

// What practises the same trouble, easiest first.
func TestMoreOfThis(t *testing.T) {
	ids := []string{"violin"}
	list := book(t, ids,
		"M:4/4\nL:1/4\nK:C\nc>d e2|c4|]",
		"M:4/4\nL:1/4\nK:C\nc>d e>^f|g>^g a>_b|c4|]",
		plainLine,
		"M:4/4\nL:1/4\nK:C\nc>c c2|c4|]",
	)
	r := read(t, "M:4/4\nL:1/4\nK:C\nc>d c2|c4|]", "violin", nil)
	elements := r.TroubleElements(0)
	if fmt.Sprint(elements) != "[length:dotted-quarter]" {
		t.Errorf("the trouble is %v", elements)
	}
	if got := fmt.Sprint(More(list, "violin", elements, 0)); got != "[3 1]" {
		t.Errorf("more of it are %s, want the fourth and the second", got)
	}
	if got := More(list, "violin", nil, 0); got != nil {
		t.Errorf("of nothing there is more: %v", got)
	}
	for _, test := range []struct{ line, id, want string }{
		{"M:4/4\nL:1/4\nK:C\nc d ^f d|c4|]", "bells", "[F#5]"},
		{"M:4/4\nL:1/4\nK:C\nc e c e|c4|]", "trombone", "[C3 E3]"},
	} {
		if got := fmt.Sprint(read(t, test.line, test.id, nil).TroubleElements(0)); got != test.want {
			t.Errorf("%s on the %s: %s, want %s", test.line, test.id, got, test.want)
		}
	}
}

// A book of 200 exercises for a class of 12 instruments, read already.
func BenchmarkOrderOfABook(b *testing.B) {
	var ids []string
	var room []Player
	for _, i := range instrument.All()[:12] {
		ids, room = append(ids, i.ID), append(room, Player{i.ID, 2, MetIn()})
	}
	var list []Candidate
	for seed := range uint64(200) {
		list = append(list, candidate(testscore.Random(b, seed), int(seed)+1, ids))
	}
	for b.Loop() {
		Easiest(list, room, len(list))
	}
}
