package finger

import (
	"context"
	"math/rand/v2"
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

// written reads music that is written for an instrument.
func written(t testing.TB, id, music string) (instrument.Instrument, score.Part) {
	t.Helper()
	i, ok := instrument.ByID(id)
	if !ok {
		t.Fatalf("no instrument %s", id)
	}
	clef := ""
	switch i.Clef {
	case score.Bass:
		clef = " clef=bass"
	case score.Percussion:
		clef = " clef=perc"
	}
	if !strings.Contains(music, "K:") {
		music = "K:C" + clef + "\n" + music
	}
	return i, testabc.Part(t, "M:4/4\nL:1/4\n"+music+"|]")
}

// What a good teacher pencils in: common practice. A line that is asked for by no
// rule has the usual fingering throughout.
func TestRules(t *testing.T) {
	tests := []struct {
		name, id string
		year     int
		music    string
		want     string
	}{
		{"horn G between two Cs is open", "horn-f", 1, "C G C G|E F D B,", "0,0,0,0,0,1,1,2"},
		{"trombone stays in first between two Cs", "trombone", 1, "C, F, C, F,|C,4", "6,1,6,1,6"},
		{"trombone, third year, quick: F in sixth", "trombone", 3, "L:1/16\nK:C clef=bass\nC,4 C,F,C,F, C,8", "6,6,6,6,6,6"},
		{"trombone, one neighbour two positions off", "trombone", 3, "L:1/16\nK:C clef=bass\nC,4 C,F,D,C, C,8", "6,6,1,4,6,6"},
		{"trombone, too little saved", "trombone", 3, "L:1/16\nK:C clef=bass\n_E,4 _E,D_E,D _E,8", "3,3,1,3,1,3"},
		{"trombone, the end of a phrase", "trombone", 3, "L:1/16\nK:C clef=bass\nC,4 C,F,!breath!C,F, C,8", "6,6,1,6,6,6"},
		{"trombone, third year, slow", "trombone", 3, "C, F, C, F,|C,4", "6,1,6,1,6"},
		{"G above the staff is raised second", "trombone", 1, "F ^F G =F", "1,3+,2+,1"},
		{
			"forked F beside D",
			"oboe",
			1,
			"F D F E|D F G F",
			"1 2 3 | 4 6,1 2 3 | 4 5 6,1 2 3 | 4 6,1 2 3 | 4 5,1 2 3 | 4 5 6,1 2 3 | 4 6,1 2 3 |,1 2 3 | 4 5 F",
		},
		{"F beside C above has finger 6 free", "oboe", 1, "f c f d", "oct1 1 2 3 | 4 5 F,1 | 4,oct1 1 2 3 | 4 6,half 2 3 | 4 5 6"},
		{"a rest parts F and D", "oboe", 1, "F z D2", "1 2 3 | 4 5 F,1 2 3 | 4 5 6"},
		{"a repeated F keeps its fingering", "oboe", 1, "D F F G", "1 2 3 | 4 5 6,1 2 3 | 4 6,1 2 3 | 4 6,1 2 3 |"},
		{
			"oboe E flat on the left, from the second year",
			"oboe",
			2,
			"C _E C _E",
			"1 2 3 | 4 5 6 C,1 2 3 Eb | 4 5 6,1 2 3 | 4 5 6 C,1 2 3 Eb | 4 5 6",
		},
		{"and not in the first", "oboe", 1, "C _E C _E", "1 2 3 | 4 5 6 C,1 2 3 | 4 5 6 Eb,1 2 3 | 4 5 6 C,1 2 3 | 4 5 6 Eb"},
		{"clarinet B C sharp D sharp", "clarinet", 1, "B ^c ^d2", "T R 1 2 3 | 4 5 6 R-E,T R 1 2 3 L-F# | 4 5 6,T R 1 2 3 | 4 5 6 R-Ab"},
		{
			"C beside E flat is left",
			"clarinet",
			1,
			"c _e c _e",
			"T R 1 2 3 L-F | 4 5 6,T R 1 2 3 | 4 5 6 R-Ab,T R 1 2 3 L-F | 4 5 6,T R 1 2 3 | 4 5 6 R-Ab",
		},
		{
			"C beside B needs nothing",
			"clarinet",
			1,
			"B c d c",
			"T R 1 2 3 L-E | 4 5 6,T R 1 2 3 | 4 5 6 R-F,T R 1 2 3 | 4 5 6,T R 1 2 3 | 4 5 6 R-F",
		},
		{
			"a tie keeps what the exercise has",
			"clarinet",
			1,
			"E, ^F, ^G,2|z ^F, =F,2",
			"T 1 2 3 | 4 5 6 R-E,T 1 2 3 L-F# | 4 5 6,T 1 2 3 | 4 5 6 R-Ab,T 1 2 3 L-F# | 4 5 6,T 1 2 3 | 4 5 6 R-F",
		},
		{"the earlier note is usual", "clarinet", 1, "F, ^F, G,2", "T 1 2 3 | 4 5 6 R-F,T 1 2 3 L-F# | 4 5 6,T 1 2 3 | 4 5 6"},
		{"side F sharp, quick beside F, second year", "clarinet", 2, "F/^F/=F/G/ ^F2", "T |,T | sideEb sideF#,T |,|,1 |"},
		{"slurred counts as quick", "alto-sax", 2, "(F ^F) =F ^F", "1 2 3 | 4,1 2 3 | 4 sideF#,1 2 3 | 4,1 2 3 | 5"},
		{"side C between two Bs", "alto-sax", 2, "B/c/B/c/ A2", "1 |,1 | sideC,1 |,2 |,1 2 |"},
		{"a repeated C keeps its fingering", "alto-sax", 2, "B/c/c/B/ A2", "1 |,1 | sideC,1 | sideC,1 |,1 2 |"},
		{"beside a forked F nothing is forked", "oboe", 1, "d f F G", "half 2 3 | 4 5 6,oct1 1 2 3 | 4 6,1 2 3 | 4 5 F,1 2 3 |"},
		{"no side C in the first year", "alto-sax", 1, "B/c/B/c/ A2", "1 |,2 |,1 |,2 |,1 2 |"},
		{"flute B flat beside B", "flute", 2, "(_B =B) _B2", "T 1 | sideBb Eb,T 1 | Eb,T 1 | 4 Eb"},
		{"bassoon: the flick is said in the first year", "bassoon", 1, "A, C2 D", "1 2 3 | 4 5,1 2 3 |,1 2 |"},
		{"and written from the second", "bassoon", 2, "A, C2 D", "flickA 1 2 3 | 4 5,flickC 1 2 3 |,flickD 1 2 |"},
		{
			"bassoon thumb A flat beside F",
			"bassoon",
			2,
			"F,, ^G,, F,, ^G,,",
			"W 1 2 3 | 4 5 6 F,W 1 2 3 | Ab 4 5 6,W 1 2 3 | 4 5 6 F,W 1 2 3 | Ab 4 5 6",
		},
		{"little-finger F sharp beside thumb B flat", "bassoon", 2, "_B,, ^F,, G,,2", "W 1 2 3 | Bb 4 5,W 1 2 3 | 4 5 6 F#,W 1 2 3 | 4 5 6"},
		{
			"violin: up to D in third position, and back",
			"violin",
			1,
			"K:D\nf a c' d'|d' a f d",
			"E1,E1(III),E H3(III),E4(III),E4(III),E1(III),E1,A3",
		},
		{"violin: up to B in first", "violin", 1, "K:D\nf g a b|a g f e", "E1,E L2,E3,E4,E3,E L2,E1,E0"},
		{"the finger follows the letter", "violin", 1, "_A ^G ^g _a|^D _D z2", "D L4,D H3,E2,E L3,D L1,G L4"},
		{"fourth finger in one bow on a string", "violin", 2, "K:D\n(G A G) A|(F E2) D", "D3,D4,D3,A0,D2,D1,D0"},
		{"open in the first year", "violin", 1, "K:D\n(G A G) A", "D3,A0,D3,A0"},
		{"cello: a run with an extended 4", "cello", 1, "D,, E,, ^F,, G,,|A,, B,, ^C, D,", "C1,C x2,C x4,G0,G1,G x2,G x4,D0"},
		{"the plain hand else", "cello", 1, "D, E, ^F, G,|A, B, ^C D", "D0,D1,D3,D4,A0,A1,A3,A4"},
		{"cello: fourth position from E", "cello", 1, "D E F E|D2 B,2", "A4,A1(IV),A2(IV),A1(IV),A4,A1"},
		{"bass: F major", "bass", 1, "F,, G,, A,, _B,,|C, D, E, F,", "E1(half),E4(half),A0,A1(half),A4(half),D0,D1,D2"},
		{"bass: B flat major, the same fingers", "bass", 1, "_B,, C, D, _E,|F, G, A, _B,", "A1(half),A4(half),D0,D1(half),D4(half),G0,G1,G2"},
		{"bass: C, C sharp and D in one hand", "bass", 1, "A, B, C ^C|D2 D2", "G1,G4,G1(III),G2(III),G4(III),G4(III)"},
		{"clarinet: a first ending leads back, not on", "clarinet", 1, "F, G, A,2|[1F, G, F,2:|[2^F, G, =F,2|]",
			"T 1 2 3 | 4 5 6 R-F,T 1 2 3 | 4 5 6,T 1 2 3 | 4 5,T 1 2 3 | 4 5 6 R-F,T 1 2 3 | 4 5 6,T 1 2 3 | 4 5 6 R-F,T 1 2 3 | 4 5 6 R-F#,T 1 2 3 | 4 5 6,T 1 2 3 | 4 5 6 R-F"},
		{"clarinet: the end of a strain leads to its start", "clarinet", 1, "|:^F, G, A, =F,:|",
			"T 1 2 3 | 4 5 6 R-F#,T 1 2 3 | 4 5 6,T 1 2 3 | 4 5,T 1 2 3 L-F | 4 5 6"},
		{"oboe: into the second ending", "oboe", 1, "G2 D2|[1G2 F2:|[2F2 G2|]",
			"1 2 3 |,1 2 3 | 4 5 6,1 2 3 |,1 2 3 | 4 5 F,1 2 3 | 4 6,1 2 3 |"},
		{"bass: a rest parts nothing", "bass", 1, "F,, z G,,2", "E1(half),E4(half)"},
		{"bass: one pitch has one fingering in a line", "bass", 1, "_B,, C, D, C,|A, C, D, _E,", "A1(half),A4(half),D0,A4(half),G1,A4(half),D0,D1(half)"},
		{"bass: C is 2 where no B flat stands", "bass", 1, "C, D, E, ^F,|G, A, B, G,", "A2,D0,D1,D4,G0,G1,G4,G0"},
		{"bass: what the position lacks is a shift, and the string goes back", "bass", 1, "_E, =E, ^F, E,|_E, D, C,2", "D1(half),D2(half),D4,D2(half),D1(half),D0,A2"},
		{"cello: the hand opens beside the extended note alone", "cello", 1, "F, ^F, G, ^F,|G, ^G, =G, ^F,|F,2 D,2", "D2,D3,D4,D3,D x3,D x4,D x3,D3,D2,D0"},
		{"a habit is nobody's but the player's", "flute", 3, "A _B A _B", "T 1 2 | Eb,T 1 | 4 Eb,T 1 2 | Eb,T 1 | 4 Eb"},
	}
	for _, tt := range tests {
		i, part := written(t, tt.id, tt.music)
		if got := strings.Join(texts(i, part, Options{Year: tt.year}), ","); got != tt.want {
			t.Errorf("%s: %s\nwant %s", tt.name, got, tt.want)
		}
	}
}

// Settings of the teacher's instruments and hands.
func TestRulesOfThePolicy(t *testing.T) {
	i, part := written(t, "oboe", "F D F G")
	i.NoResonance = true
	if got := texts(i, part, Options{}); got[0] != "1 2 3 | 4 6 Eb" {
		t.Errorf("with no resonance key the forked F is %q", got[0])
	}
	i.LeftF = true
	if got := texts(i, part, Options{}); got[0] != "1 2 3 F | 4 5" {
		t.Errorf("with a left F key F beside D is %q", got[0])
	}
	i, part = written(t, "violin", "K:D\nB A G F|F G A B")
	i.FourDown = true
	if got := strings.Join(texts(i, part, Options{}), " "); got != "A1 D4 D3 D2 D2 D3 A0 A1" {
		t.Errorf("with 4 coming down the line is %s", got)
	}
}

// An alternate says why it stands, names its neighbour, and knows the usual way.
func TestAlternatesSayWhy(t *testing.T) {
	i, part := written(t, "oboe", "D F G2")
	c := Part(i, part, Options{})[0][1]
	if c.By != Ruled || !c.Alternate() || c.Usual != "1 2 3 | 4 5 F" || !strings.Contains(c.Why, "D beside it has finger 6 down") ||
		c.Alternates[0].Why != "the usual way" {
		t.Errorf("F beside D is %+v", c)
	}
	usual := Part(i, part, Options{})[0][2]
	if usual.Alternate() || usual.By != Usual || usual.Why != "" {
		t.Errorf("G is %+v", usual)
	}
}

// What is printed comes first, then the teacher's choice for the place, then for the
// note, also where it is the usual way; only then a rule.
func TestWhoDecides(t *testing.T) {
	const forked, usual, left = "1 2 3 | 4 6", "1 2 3 | 4 5 F", "1 2 3 F | 4 5"
	i, part := written(t, "oboe", "D F F G|D F F G")
	first := func(o Options) string { return texts(i, part, o)[1] }
	place := score.Place{Measure: 0, Event: 1}
	for _, tt := range []struct {
		name string
		o    Options
		want string
	}{
		{"a rule", Options{}, forked},
		{"the note, the usual way", Options{Preferred: Preferred{65: usual}}, usual},
		{"the place before the note", Options{Preferred: Preferred{65: usual}, Placed: map[score.Place]Spot{place: {65, left}}}, left},
		{"the place, the usual way", Options{Placed: map[score.Place]Spot{place: {65, usual}}}, usual},
		{"a place where another note stands now", Options{Placed: map[score.Place]Spot{place: {64, usual}}}, forked},
		{"a fingering of another note is no choice", Options{Preferred: Preferred{65: "1 |"}}, forked},
		{"no rules", Options{Plain: true}, usual},
	} {
		if got := first(tt.o); got != tt.want {
			t.Errorf("%s: %q, want %q", tt.name, got, tt.want)
		}
	}
	if got := texts(i, part, Options{Placed: map[score.Place]Spot{place: {65, left}}})[4+1]; got != forked {
		t.Errorf("a choice for one place is taken at another: %q", got)
	}
	i, part = written(t, "violin", `!4!A "^3"c !0!d "^1"B`)
	o := Options{Preferred: Preferred{69: "A0"}}
	choices := Part(i, part, o)[0]
	if choices[0].Text != "D4" || choices[0].By != Printed {
		t.Errorf("a printed 4 over A is %+v", choices[0])
	}
	if choices[1].Text != "A L2" || choices[1].Unfit != "3" || choices[2].Unfit != "0" || choices[3].Text != "A1" {
		t.Errorf("3 over C, 0 over D and 1 over B are %+v", choices[1:])
	}
	problems := Unfit(i, part, Part(i, part, o))
	if len(problems) != 2 ||
		!strings.Contains(
			problems[0].Error(),
			"Measure 1, note 2: “3” is printed over it, which is no fingering of C on the violin; low 2 on A is shown",
		) {
		t.Errorf("the problems are %v", problems)
	}
	i, part = written(t, "trumpet", `"^12"E "^3"E "^1-2"A "^13"G`)
	if got := strings.Join(texts(i, part, Options{}), " "); got != "1-2 3 1-2 1-3" {
		t.Errorf("printed valves are %s", got)
	}
}

// A first-year line has no alternate but by a row of the table, and one pitch has one
// fingering but where a row says why: 2,000 random lines for every instrument that
// fingers by pitch.
func TestFirstYearLines(t *testing.T) {
	chance := rand.New(rand.NewPCG(8, 1))
	for _, i := range instrument.All() {
		if i.Unpitched() || i.Mechanism == instrument.Bars || i.Mechanism == instrument.Drums {
			continue
		}
		row := i.Forks || i.SwapsLittle || i.Bowed()
		for range 2000 {
			part := randomLine(i, chance)
			first := map[score.Pitch]string{}
			for k, c := range Part(i, part, Options{Year: 1})[0] {
				p := part.Measures[0].Events[k].Pitch
				if part.Measures[0].Events[k].Kind == score.Rest {
					continue
				}
				usual, _ := For(i, p)
				switch {
				case c.Text != usual.Text && (!row || c.By != Ruled || c.Why == ""):
					t.Fatalf("%s: %s is %q because %q, and no row asks for it", i.ID, p, c.Text, c.Why)
				case first[p] != "" && first[p] != c.Text && !row:
					t.Fatalf("%s: %s is %q and %q in one line", i.ID, p, first[p], c.Text)
				}
				first[p] = c.Text
			}
		}
	}
}

// randomLine is a measure of twelve notes of the first-year range, mostly by step,
// with a rest now and then.
func randomLine(i instrument.Instrument, chance *rand.Rand) score.Part {
	low, high := i.Comfort(1).Low.MIDI(), i.Comfort(1).High.MIDI()
	at := low + chance.IntN(high-low+1)
	m := score.Measure{Number: 1, Meter: score.Meter{Beats: 4, Unit: 4}}
	for range 12 {
		at = min(max(at+chance.IntN(9)-4, low), high)
		e := score.Event{Pitch: spellingsOf(at)[0], Length: score.Frac(1, 4)}
		if chance.IntN(10) == 0 {
			e.Kind = score.Rest
		}
		m.Events = append(m.Events, e)
	}
	return score.Part{Measures: []score.Measure{m}}
}

// No clarinet run has a slide that the other hand would save: every way of short runs
// was tried.
func TestLittleFingersDoNotSlideInVain(t *testing.T) {
	i, _ := instrument.ByID("clarinet")
	chance := rand.New(rand.NewPCG(3, 5))
	little := strings.Fields("E3 F3 F#3 G#3 B4 C5 C#5 D#5 G#5 C#4")
	for range 400 {
		m := score.Measure{Number: 1, Meter: score.Meter{Beats: 4, Unit: 4}}
		var ways [][]string
		for range 5 {
			p := score.MustPitch(little[chance.IntN(len(little))])
			m.Events = append(m.Events, score.Event{Pitch: p, Length: score.Frac(1, 4)})
			c, _ := For(i, p)
			var texts []string
			for _, way := range c.Ways() {
				texts = append(texts, way.Text)
			}
			ways = append(ways, texts)
		}
		got := texts(i, score.Part{Measures: []score.Measure{m}}, Options{})
		if a, b := slidesOf(m, got), fewestSlides(m, ways, nil); a != b {
			t.Fatalf("%v slides %d times, and %d are possible", got, a, b)
		}
	}
}

// littleKeyIn is the key of a little finger in a fingering's text: "L-E", "R-F".
func littleKeyIn(text string) string {
	for key := range strings.FieldsSeq(text) {
		if hand, _, of := strings.Cut(key, "-"); of && (hand == "L" || hand == "R") {
			return key
		}
	}
	return "none"
}

func slidesOf(m score.Measure, texts []string) int {
	n := 0
	for k := 1; k < len(texts); k++ {
		a, b := littleKeyIn(texts[k-1]), littleKeyIn(texts[k])
		if a != b && (a[0] == b[0] || m.Events[k].Pitch == m.Events[k-1].Pitch) {
			n++
		}
	}
	return n
}

func fewestSlides(m score.Measure, ways [][]string, taken []string) int {
	if len(taken) == len(ways) {
		return slidesOf(m, taken)
	}
	least := len(ways)
	for _, way := range ways[len(taken)] {
		least = min(least, fewestSlides(m, ways, append(slices.Clone(taken), way)))
	}
	return least
}

// Aim: 32 measures, each of eight notes, in under 100 µs.
func BenchmarkPart(b *testing.B) {
	s, err := abc.Read(context.Background(),
		"M:4/4\nL:1/8\nK:Bb clef=bass\n"+strings.Repeat(
			"B,,C,D,E, F,G,A,B,|A,G,F,E, D,C,B,,C,|F,C,F,C, D,F,B,F,|E,C,E,G, F,D,B,,D,|",
			8,
		)+"]\n",
	)
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

// With the right hand down over the break, throat notes that lead to B, C or D above it have it
// down, and others have not.
func TestRightHandDown(t *testing.T) {
	for _, tt := range []struct{ name, music, want string }{
		{"up to B", "G A B2|", "| 4 5 6,A | 4 5 6,T R 1 2 3 L-E | 4 5 6"},
		{"down from D", "d _B A G|F2 G2|", "T R 1 2 3 | 4 5 6,R A | 4 5 6,A | 4 5 6,| 4 5 6,T |,|"},
		{"up to G, whose right hand is open", "A g A2|", "A |,T R 1 2 3 |,A |"},
		{"below the break", "F G A G|", "T |,|,A |,|"},
		{"a rest parts them", "A z B2|", "A |,T R 1 2 3 L-E | 4 5 6"},
	} {
		i, part := written(t, "clarinet", tt.music)
		if got := strings.Join(texts(i.OfModel("right-down"), part, Options{Year: 1}), ","); got != tt.want {
			t.Errorf("%s: %s\nwant %s", tt.name, got, tt.want)
		}
		for _, text := range texts(i, part, Options{Year: 1}) {
			if strings.HasPrefix(text, "A | 4") || text == "| 4 5 6" {
				t.Errorf("%s: unless it is wanted the right hand is down: %s", tt.name, text)
			}
		}
	}
}

// A note beyond an instrument's table takes what is printed over it or what the teacher wrote,
// where that is a fingering of the instrument, and nonsense is said.
func TestBeyondTheTable(t *testing.T) {
	for _, tt := range []struct{ name, id, music, want, unfit string }{
		{"bassoon E flat, nothing written", "bassoon", "D _E D2|", "1 2 |,,1 2 |", ""},
		{"bassoon E flat, printed", "bassoon", `D "^flickD 1 2 3 | 4 5"_E D2|`, "", ""},
		{"trumpet high D, printed", "trumpet", `"^1"d'2 z2|`, "1", ""},
		{"trumpet high D, nonsense", "trumpet", `"^7"d'2 z2|`, "", "“7” is printed over it"},
	} {
		i, part := written(t, tt.id, tt.music)
		choices := Part(i, part, Options{Year: 1})
		var got []string
		for j, e := range part.Measures[0].Events {
			if e.Kind == score.Note {
				got = append(got, choices[0][j].Text)
			}
		}
		if text := strings.Join(got, ","); tt.want != "" && text != tt.want {
			t.Errorf("%s: %s, want %s", tt.name, text, tt.want)
		}
		said := ""
		for _, p := range Unfit(i, part, choices) {
			said += p.What
		}
		if !strings.Contains(said, tt.unfit) || tt.unfit == "" && said != "" {
			t.Errorf("%s says %q, want %q", tt.name, said, tt.unfit)
		}
	}
	bassoon, _ := instrument.ByID("bassoon")
	high := score.MustPitch("Eb4")
	if _, part := written(t, "bassoon", "D _E2 D|"); true {
		chosen := Part(bassoon, part, Options{Placed: map[score.Place]Spot{{Measure: 0, Event: 1}: {Pitch: high.MIDI(), Text: "flickD 1 2 3 | 4 5"}}})[0][1]
		if chosen.Text != "flickD 1 2 3 | 4 5" || chosen.By != Chosen || chosen.Alternate() {
			t.Errorf("the teacher's fingering is %+v", chosen)
		}
	}
	for _, tt := range []struct {
		id, pitch, text string
		ok              bool
	}{
		{"bassoon", "Eb4", "flickD 1 2 3 | 4 5", true}, {"bassoon", "Eb4", "1 2 3 4", false}, {"bassoon", "Eb4", "oct 1 |", false},
		{"trumpet", "D6", "1", true}, {"trumpet", "D6", "0", true}, {"trumpet", "D6", "1-1", false}, {"trumpet", "D6", "5", false},
		{"trombone", "D5", "1", true}, {"trombone", "D5", "F1", false}, {"trombone", "D5", "8", false},
		{"horn-f", "C6", "0", true}, {"horn-f", "C6", "T0", false}, {"horn-double", "C6", "T0", true},
		{"violin", "F6", "E4", true}, {"violin", "F6", "C4", false}, {"violin", "F6", "E5", false}, {"bells", "G7", "G7", false},
	} {
		i, _ := instrument.ByID(tt.id)
		if _, ok := Written(i, score.MustPitch(tt.pitch), tt.text); ok != tt.ok {
			t.Errorf("%s as a fingering of %s on the %s: %v, want %v", tt.text, tt.pitch, tt.id, ok, tt.ok)
		}
	}
}
