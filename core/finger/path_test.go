package finger

import (
	"math"
	"slices"
	"strings"
	"testing"

	"unhurriedbench/core/format/abc"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
	"unhurriedbench/internal/testabc"
)

// texts lists the fingerings of a part in order.
func texts(i instrument.Instrument, part score.Part, o Options) []string {
	var list []string
	for _, measure := range Part(i, part, o) {
		for _, c := range measure {
			if c.Text != "" {
				list = append(list, c.Text)
			}
		}
	}
	return list
}

// What a good teacher would pencil in: common practice. The music is written for
// the instrument.
func TestPath(t *testing.T) {
	tests := []struct{ name, id, music, want string }{
		{"F in sixth between two Cs", "trombone", "C, F, C, F,|C,4", "6,6,6,6,6"},
		{"a scale keeps its defaults", "trombone", "_B,,C,D,_E,|F,G,A,_B,", "1,6,4,3,1,4,2,1"},
		{"a rest gives time for first position", "trombone", "C,2 z F,", "6,1"},
		{"C beside E flat is left", "clarinet", "c _e c _e", "T R 1 2 3 L-F | 4 5 6,T R 1 2 3 | 4 5 6 R-Ab,T R 1 2 3 L-F | 4 5 6,T R 1 2 3 | 4 5 6 R-Ab"},
		{"E right, F sharp left, G sharp right", "clarinet", "E, ^F, ^G,2", "T 1 2 3 | 4 5 6 R-E,T 1 2 3 L-F# | 4 5 6,T 1 2 3 | 4 5 6 R-Ab"},
		{"B beside G sharp is right", "clarinet", "B ^g B2", "T R 1 2 3 | 4 5 6 R-E,T R 1 2 3 L-C# |,T R 1 2 3 | 4 5 6 R-E"},
		{"C beside B needs nothing", "clarinet", "B c d c", "T R 1 2 3 L-E | 4 5 6,T R 1 2 3 | 4 5 6 R-F,T R 1 2 3 | 4 5 6,T R 1 2 3 | 4 5 6 R-F"},
		{"open strings in first position", "violin", "D E ^F G|A B ^c d", "D0,D1,D2,D3,A0,A1,A2,A3"},
		{"E flat major on the upper strings", "violin", "_e f g _a|_b _a g f", "A L4,E L1,E L2,E L3,E L4,E L3,E L2,E L1"},
		{"D flat major has a low third finger", "violin", "_E F _G _A|_B c _d _e", "D L1,D L2,D L3,D L4,A L1,A L2,A L3,A L4"},
		{"the first finger leads to third position", "violin", "e ^f g a|b c' d' c'|b a g ^f", "E0,E1,E L2,E1(III),E2(III),E3(III),E4(III),E3(III),E2(III),E1(III),E L2,E1"},
		{"and to the cello's fourth", "cello", "B,^CDE|^F E D ^C", "A1,A3,A4,A1(IV),A3(IV),A1(IV),A4,A3"},
		{"any finger leads the bass", "bass", "A,B,^CD", "G1,G4,G2(III),G4(III)"},
		{"the stretched hand takes 1 2 4", "cello", "D,,E,,^F,,G,,|A,,B,,^C,D,", "C1,C x2,C x4,G0,G1,G x2,G x4,D0"},
		{"and the plain hand 1 3 4", "cello", "D,E,^F,G,|A,B,^CD", "D0,D1,D3,D4,A0,A1,A3,A4"},
		{"flat keys lie in half position", "bass", "_B,,C,D,_E,|F,G,A,,_B,,", "A1(half),A4(half),D0,D1(half),D4(half),G0,A0,A1(half)"},
		{"sharp keys in first", "bass", "G,,A,,B,,C,|D,E,^F,G,", "E2,A0,A1,A2,D0,D1,D4,G0"},
		{"left F beside D on the oboe", "oboe", "F D F D", "1 2 3 F | 4 5,1 2 3 | 4 5 6,1 2 3 F | 4 5,1 2 3 | 4 5 6"},
		{"a habit is not taken for one passage", "flute", "A _B A _B", "T 1 2 | Eb,T 1 | 4 Eb,T 1 2 | Eb,T 1 | 4 Eb"},
	}
	for _, tt := range tests {
		i, _ := instrument.ByID(tt.id)
		clef := ""
		if i.Clef == score.Bass {
			clef = " clef=bass"
		}
		part := testabc.Part(t, "M:4/4\nL:1/4\nK:C"+clef+"\n"+tt.music+"|]")
		if got := strings.Join(texts(i, part, Options{}), ","); got != tt.want {
			t.Errorf("%s: %s\nwant %s", tt.name, got, tt.want)
		}
	}
}

// The reason of a way that was chosen goes with it, and what it replaces becomes an
// alternate.
func TestPathSaysWhy(t *testing.T) {
	i, _ := instrument.ByID("trombone")
	c := Part(i, testabc.Part(t, "M:4/4\nL:1/4\nK:C clef=bass\nC, F, C, F,|]"), Options{})[0][1]
	if c.Text != "6" || !strings.Contains(c.Why, "farther out") || c.Alternates[0].Text != "1" {
		t.Errorf("F between two Cs is %+v", c)
	}
}

// A drill is fingered as it stands, though an alternate would be nearer.
func TestUsualWays(t *testing.T) {
	i, _ := instrument.ByID("trombone")
	part := testabc.Part(t, "M:4/4\nL:1/4\nK:C clef=bass\nC, F, C, F,|]")
	if got := strings.Join(texts(i, part, Options{Usual: true}), " "); got != "6 1 6 1" {
		t.Errorf("C and F by turns are %s", got)
	}
	if got := strings.Join(texts(i, part, Options{Usual: true, Preferred: Preferred{53: "6"}}), " "); got != "6 6 6 6" {
		t.Errorf("with F in sixth they are %s", got)
	}
}

// lined are instruments with alternates of every kind.
var lined = []string{"trombone", "trombone-f", "clarinet", "oboe", "bassoon", "trumpet", "euphonium-bc", "violin", "cello", "bass", "horn-double"}

// Of short lines every way there is was tried, and none is cheaper than the path.
func TestPathIsTheCheapest(t *testing.T) {
	const length = 5
	for _, id := range lined {
		i, _ := instrument.ByID(id)
		long := randomPart(i).Measures[0].Events
		for start := 0; start+length <= len(long); start += length {
			events := long[start : start+length]
			ways, taken := fingered(i, events)
			if got, want := lineCost(i, events, ways, taken), cheapestLine(i, events, ways, nil); got != want {
				t.Errorf("%s: %v costs %d, and %d is possible", id, taken, got, want)
			}
		}
	}
}

// The path of a long line costs no more than the defaults do.
func TestPathIsNeverDearer(t *testing.T) {
	for _, id := range lined {
		i, _ := instrument.ByID(id)
		events := randomPart(i).Measures[0].Events
		ways, taken := fingered(i, events)
		usual := make([]string, len(ways))
		for k := range ways {
			usual[k] = ways[k][0].Text
		}
		if chosen, defaults := lineCost(i, events, ways, taken), lineCost(i, events, ways, usual); chosen > defaults {
			t.Errorf("%s: the path costs %d, the defaults %d", id, chosen, defaults)
		}
	}
}

// fingered gives the ways of each note of a line, and those the path takes.
func fingered(i instrument.Instrument, events []score.Event) (ways [][]Fingering, taken []string) {
	part := score.Part{Measures: []score.Measure{{Number: 1, Events: events}}}
	stays := i.Mechanism == instrument.Strings && staysInFirst(i, part)
	for k, c := range Part(i, part, Options{})[0] {
		all, _ := For(i, events[k].Pitch)
		if stays {
			all = inFirst(i, events[k].Pitch)
		}
		ways, taken = append(ways, all.Ways()), append(taken, c.Text)
	}
	return ways, taken
}

// cheapestLine tries every way of every note.
func cheapestLine(i instrument.Instrument, events []score.Event, ways [][]Fingering, taken []string) int {
	if len(taken) == len(events) {
		return lineCost(i, events, ways, taken)
	}
	least := math.MaxInt
	for k, way := range ways[len(taken)] {
		if k == 0 || !way.ByChoice {
			least = min(least, cheapestLine(i, events, ways, append(slices.Clone(taken), way.Text)))
		}
	}
	return least
}

// lineCost is what a line costs, its alternates included.
func lineCost(i instrument.Instrument, events []score.Event, ways [][]Fingering, taken []string) int {
	cost := 0
	for k, text := range taken {
		switch {
		case text == ways[k][0].Text:
		case i.Mechanism == instrument.Strings && strings.Contains(text, "("):
			cost += positionCost
		default:
			cost += alternateCost
		}
		if k > 0 {
			cost += ChangeBetween(i, Played{events[k-1].Pitch, taken[k-1]}, Played{events[k].Pitch, text}).Cost
		}
	}
	return cost
}

// randomPart is one long measure of 128 notes in the third-year range that jump
// about, the same each time.
func randomPart(i instrument.Instrument) score.Part {
	low, high := i.Comfort(3).Low.MIDI(), i.Comfort(3).High.MIDI()
	m := score.Measure{Number: 1}
	state := uint32(7)
	for range 128 {
		state = state*1664525 + 1013904223
		m.Events = append(m.Events, score.Event{Pitch: spellingsOf(low + int(state>>16)%(high-low+1))[0]})
	}
	return score.Part{Measures: []score.Measure{m}}
}

// Aim: 32 measures, each of eight notes, in under 100 µs.
func BenchmarkPath(b *testing.B) {
	s, err := abc.Read("M:4/4\nL:1/8\nK:Bb clef=bass\n" + strings.Repeat("B,,C,D,E, F,G,A,B,|A,G,F,E, D,C,B,,C,|F,C,F,C, D,F,B,F,|E,C,E,G, F,D,B,,D,|", 8) + "]\n")
	if err != nil {
		b.Fatal(err)
	}
	for _, id := range []string{"trombone", "cello"} {
		i, _ := instrument.ByID(id)
		b.Run(id, func(b *testing.B) {
			for b.Loop() {
				Part(i, s.Parts[0], Options{})
			}
		})
	}
}
