package score

import (
	"slices"
	"strings"
	"testing"
)

func TestFraction(t *testing.T) {
	tests := []struct {
		got  Fraction
		want string
	}{
		{Frac(2, 4), "1/2"},
		{Frac(3, -6), "-1/2"},
		{Fraction{}, "0"},
		{Frac(1, 4).Add(Frac(1, 8)), "3/8"},
		{Frac(1, 4).Sub(Frac(1, 4)), "0"},
		{Frac(3, 8).Mul(Frac(2, 3)), "1/4"},
		{Frac(3, 8).Div(Frac(1, 8)), "3"},
		{Frac(7, 8).Within(Frac(1, 4)), "1/8"},
		{Frac(-1, 8).Within(Frac(1, 4)), "1/8"},
	}
	for _, tt := range tests {
		if got := tt.got.String(); got != tt.want {
			t.Errorf("got %s, want %s", got, tt.want)
		}
	}
	if Frac(0, 5) != (Fraction{}) {
		t.Error("a zero made from 0/5 is not the zero value")
	}
	if got := Frac(-1, 4).Floor(); got != -1 {
		t.Errorf("the floor of -1/4 is %d, want -1", got)
	}
	for in, want := range map[Fraction]string{Frac(7, 2): "3½", Frac(1, 3): "⅓", Frac(4, 1): "4", Frac(5, 16): "5/16"} {
		if got := in.Words(); got != want {
			t.Errorf("%s in words is %s, want %s", in, got, want)
		}
	}
	for _, bad := range []string{"", "x", "1/0", "1/x"} {
		if _, err := ParseFraction(bad); err == nil {
			t.Errorf("%q was read as a fraction", bad)
		}
	}
}

// MIDI numbers: Standard MIDI Files 1.0, middle C is 60; 440 Hz A4 is 69.
func TestPitch(t *testing.T) {
	for text, midi := range map[string]int{"C4": 60, "A4": 69, "Bb3": 58, "B#3": 60, "Cb4": 59, "F##5": 79, "E2": 40} {
		p := MustPitch(text)
		if p.MIDI() != midi {
			t.Errorf("%s is MIDI %d, want %d", text, p.MIDI(), midi)
		}
		if p.String() != text {
			t.Errorf("%s is written %s", text, p)
		}
	}
	for _, bad := range []string{"", "H4", "C", "Cbbb4", "4"} {
		if _, err := ParsePitch(bad); err == nil {
			t.Errorf("%q was read as a pitch", bad)
		}
	}
}

func TestTranspose(t *testing.T) {
	tests := []struct {
		from string
		by   Interval
		want string
	}{
		{"Bb4", Interval{1, 2}, "C5"},
		{"E4", Interval{1, 2}, "F#4"},
		{"Eb4", Interval{1, 2}, "F4"},
		{"C4", Interval{-1, -2}, "Bb3"},
		{"F#4", Interval{2, 4}, "A#4"},
		{"B4", Interval{1, 1}, "C5"},
		{"C4", Octaves(-2), "C2"},
		{"B##4", Interval{2, 4}, "E#5"}, // D### respelled
	}
	for _, tt := range tests {
		got := MustPitch(tt.from).Transpose(tt.by)
		if got.MIDI() != MustPitch(tt.from).MIDI()+tt.by.Semitones {
			t.Errorf("%s moved by %v sounds %d", tt.from, tt.by, got.MIDI())
		}
		if tt.from != "B##4" && got.String() != tt.want {
			t.Errorf("%s moved by %v is %s, want %s", tt.from, tt.by, got, tt.want)
		}
	}
}

// Key signatures and their names: common practice.
func TestKey(t *testing.T) {
	tests := []struct {
		key     Key
		name    string
		changed string
	}{
		{Key{Fifths: 0}, "C major", ""},
		{Key{Fifths: -2}, "B flat major", "BE"},
		{Key{Fifths: -1, Mode: "minor"}, "D minor", "B"},
		{Key{Fifths: 4}, "E major", "FCGD"},
		{Key{Fifths: -5}, "D flat major", "BEADG"},
		{Key{Fifths: 3, Mode: "minor"}, "F sharp minor", "FCG"},
		{Key{Fifths: 0, Mode: "dorian"}, "D dorian", ""},
		{Key{Fifths: 7}, "C sharp major", "FCGDAEB"},
	}
	for _, tt := range tests {
		if got := tt.key.Name(); got != tt.name {
			t.Errorf("%v is called %s, want %s", tt.key, got, tt.name)
		}
		var letters strings.Builder
		for _, s := range tt.key.Changed() {
			letters.WriteString(s.String())
			want := 1
			if tt.key.Fifths < 0 {
				want = -1
			}
			if got := tt.key.Alter(s); got != want {
				t.Errorf("in %s %s is altered by %d", tt.name, s, got)
			}
		}
		if letters.String() != tt.changed {
			t.Errorf("%s changes %s, want %s", tt.name, letters.String(), tt.changed)
		}
	}
	if got := (Key{Fifths: -2}).SignatureWords(); got != "every B and E is flat" {
		t.Errorf("the signature in words is %q", got)
	}
}

func TestKeyIsRespelledBeyondSixSigns(t *testing.T) {
	key, used := Key{Fifths: 5}.Transpose(Interval{1, 2})
	if key.Fifths != -5 || used != (Interval{2, 2}) {
		t.Errorf("B major a tone up is %s with %v, want D flat major with {2 2}", key.Name(), used)
	}
	key, used = Key{Fifths: -5}.Transpose(Interval{-1, -2})
	if key.Fifths != 5 || used != (Interval{-2, -2}) {
		t.Errorf("D flat major a tone down is %s with %v, want B major with {-2 -2}", key.Name(), used)
	}
	key, _ = Key{Fifths: -2}.Transpose(Interval{1, 2})
	if key.Name() != "C major" {
		t.Errorf("B flat major a tone up is %s", key.Name())
	}
}

func TestMeter(t *testing.T) {
	tests := []struct {
		meter Meter
		beat  string
		beats int
	}{
		{Meter{Beats: 4, Unit: 4}, "1/4", 4},
		{Meter{Beats: 2, Unit: 2}, "1/2", 2},
		{Meter{Beats: 6, Unit: 8}, "3/8", 2},
		{Meter{Beats: 12, Unit: 8}, "3/8", 4},
		{Meter{Beats: 3, Unit: 8}, "1/8", 3},
		{Meter{Beats: 5, Unit: 4}, "1/4", 5},
	}
	for _, tt := range tests {
		if got := tt.meter.Beat().String(); got != tt.beat {
			t.Errorf("in %s the beat is %s, want %s", tt.meter, got, tt.beat)
		}
		if got := tt.meter.BeatCount(); got != tt.beats {
			t.Errorf("%s has %d beats, want %d", tt.meter, got, tt.beats)
		}
	}
	if got := (Meter{Beats: 6, Unit: 8}).BeatName(true); got != "dotted crotchet" {
		t.Errorf("the British beat of 6/8 is %q", got)
	}
}

func TestValues(t *testing.T) {
	for length, want := range map[Fraction]Value{
		Frac(3, 8):  {Base: 4, Dots: 1},
		Frac(7, 8):  {Base: 2, Dots: 2},
		Frac(1, 16): {Base: 16},
		Frac(2, 1):  {},
	} {
		got, ok := ValueOf(length)
		if !ok || got != want {
			t.Errorf("%s is written %v, want %v", length, got, want)
		}
	}
	if _, ok := ValueOf(Frac(5, 8)); ok {
		t.Error("five eighths were written as one note")
	}
	rests, ok := ValuesOf(Frac(5, 8))
	if !ok || len(rests) != 2 || rests[0].Base != 2 || rests[1].Base != 8 {
		t.Errorf("five eighths of rest are written %v", rests)
	}
	triplet := Value{Base: 8, Tuplet: Ratio{3, 2}}
	if triplet.Length() != Frac(1, 12) {
		t.Errorf("a triplet eighth lasts %s", triplet.Length())
	}
}

// measure makes a measure from words such as "C4/4", in which the figure after
// the slash is the value; a - ties on and z is a rest.
func measure(meter Meter, key Key, words ...string) Measure {
	m := Measure{Meter: meter, Key: key, Clef: Treble}
	for _, word := range words {
		name, value, _ := strings.Cut(word, "/")
		tie := strings.HasSuffix(value, "-")
		length, err := ParseFraction("1/" + strings.TrimSuffix(value, "-"))
		if err != nil {
			panic(err)
		}
		v, _ := ValueOf(length)
		e := Event{Length: length, Value: v, TieOn: tie}
		if name == "z" {
			e.Kind = Rest
		} else {
			e.Pitch = MustPitch(name)
		}
		m.Events = append(m.Events, e)
	}
	return m
}

var fourFour = Meter{Beats: 4, Unit: 4}

func TestFinishNumbersPickups(t *testing.T) {
	p := Part{Measures: []Measure{
		measure(fourFour, Key{}, "C4/4"),
		measure(fourFour, Key{}, "C4/1"),
		measure(fourFour, Key{}, "C4/2", "C4/4"),
	}}
	if err := p.Finish(); err != nil {
		t.Fatal(err)
	}
	if p.Measures[0].Number != 0 || p.Measures[1].Number != 1 || p.Measures[0].Offset != Frac(3, 4) {
		t.Errorf("the pickup is measure %d at %s, the next %d", p.Measures[0].Number, p.Measures[0].Offset, p.Measures[1].Number)
	}
	if got := p.Measures[0].Events[0].Start; got != Frac(3, 4) {
		t.Errorf("a pickup on four starts at %s", got)
	}
}

func TestFinishRefusesWrongLengths(t *testing.T) {
	tests := []struct {
		name     string
		measures []Measure
		says     string
	}{
		{
			"too many",
			[]Measure{measure(fourFour, Key{}, "C4/1", "C4/8")},
			"Measure 1: it holds 4½ quarter notes, and 4/4 asks for 4 quarter notes. Take ½ quarter note away",
		},
		{"too few", []Measure{measure(fourFour, Key{}, "C4/1"), measure(fourFour, Key{}, "C4/2"), measure(fourFour, Key{}, "C4/1")},
			"Measure 2: it holds 2 quarter notes, and 4/4 asks for 4 quarter notes. Add 2 quarter notes"},
		{
			"last does not fill the pickup",
			[]Measure{measure(fourFour, Key{}, "C4/4"), measure(fourFour, Key{}, "C4/1"), measure(fourFour, Key{}, "C4/2")},
			"Measure 2",
		},
		{"one short measure", []Measure{measure(fourFour, Key{}, "C4/2")}, "Measure 1"},
		{"none", nil, "no music"},
	}
	for _, tt := range tests {
		p := Part{Measures: tt.measures}
		err := p.Finish()
		if err == nil || !strings.Contains(err.Error(), tt.says) {
			t.Errorf("%s: got %v, want it to say %q", tt.name, err, tt.says)
		}
	}
}

func TestSplitMeasureKeepsItsNumber(t *testing.T) {
	first := measure(fourFour, Key{}, "C4/2", "C4/4")
	first.RepeatEnd = true
	p := Part{Measures: []Measure{measure(fourFour, Key{}, "C4/1"), first, measure(fourFour, Key{}, "D4/4"), measure(fourFour, Key{}, "C4/1")}}
	if err := p.Finish(); err != nil {
		t.Fatal(err)
	}
	got := []int{p.Measures[1].Number, p.Measures[2].Number, p.Measures[3].Number}
	if !slices.Equal(got, []int{2, 2, 3}) || !p.Measures[2].Split || p.Measures[2].Events[0].Start != Frac(3, 4) {
		t.Errorf("the halves are numbered %v, the second starts at %s", got, p.Measures[2].Events[0].Start)
	}
}

func TestMarkAccidentals(t *testing.T) {
	flat := Key{Fifths: -2}
	p := Part{Measures: []Measure{
		measure(fourFour, flat, "Eb4/4", "E4/4", "E4/4", "Eb4/4"),
		measure(fourFour, flat, "E5/4", "E4/4", "Eb5/4", "E4/4-"),
		measure(fourFour, flat, "E4/2", "E4/4", "Bb4/4"),
	}}
	if err := p.Finish(); err != nil {
		t.Fatal(err)
	}
	want := [][]bool{{false, true, false, true}, {true, true, true, false}, {false, true, false}}
	for i, m := range p.Measures {
		for j, e := range m.Events {
			if e.Sign != want[i][j] {
				t.Errorf("measure %d, note %d (%s): sign %v, want %v", i+1, j+1, e.Pitch, e.Sign, want[i][j])
			}
		}
	}
	if !p.Measures[2].Events[0].Tied {
		t.Error("the tie over the bar line was lost")
	}
}

func TestOrder(t *testing.T) {
	whole := func(change func(*Measure)) Measure {
		m := measure(fourFour, Key{}, "C4/1")
		if change != nil {
			change(&m)
		}
		return m
	}
	ending := func(n int, end bool) func(*Measure) {
		return func(m *Measure) { m.Endings, m.RepeatEnd = []int{n}, end }
	}
	tests := []struct {
		name     string
		measures []Measure
		want     []int
	}{
		{"straight", []Measure{whole(nil), whole(nil)}, []int{0, 1}},
		{"repeat from the start", []Measure{whole(nil), whole(func(m *Measure) { m.RepeatEnd = true }), whole(nil)}, []int{0, 1, 0, 1, 2}},
		{
			"repeat from a sign",
			[]Measure{whole(nil), whole(func(m *Measure) { m.RepeatStart = true }), whole(func(m *Measure) { m.RepeatEnd = true })},
			[]int{0, 1, 2, 1, 2},
		},
		{"three times", []Measure{whole(func(m *Measure) { m.RepeatEnd, m.Times = true, 3 })}, []int{0, 0, 0}},
		{"endings", []Measure{whole(nil), whole(ending(1, true)), whole(ending(2, false)), whole(nil)}, []int{0, 1, 0, 2, 3}},
		{"endings without a sign", []Measure{whole(nil), whole(ending(1, false)), whole(ending(2, false)), whole(nil)}, []int{0, 1, 0, 2, 3}},
		{
			"a first ending that D.C. leads back from",
			[]Measure{whole(nil), whole(func(m *Measure) { m.Endings, m.Jump = []int{1}, Jump{"capo", ""} }), whole(ending(2, false))},
			[]int{0, 1, 0, 2},
		},
		{
			"two repeats",
			[]Measure{whole(func(m *Measure) { m.RepeatEnd = true }), whole(func(m *Measure) { m.RepeatEnd = true })},
			[]int{0, 0, 1, 1},
		},
		{
			"D.C. al fine",
			[]Measure{whole(nil), whole(func(m *Measure) { m.Fine = true }), whole(func(m *Measure) { m.Jump = Jump{"capo", "fine"} })},
			[]int{0, 1, 2, 0, 1},
		},
		{"D.S. al coda", []Measure{whole(nil), whole(func(m *Measure) { m.Segno = true }), whole(func(m *Measure) { m.ToCoda = true }),
			whole(func(m *Measure) { m.Jump = Jump{"segno", "coda"} }), whole(func(m *Measure) { m.Coda = true })}, []int{0, 1, 2, 3, 1, 2, 4}},
		{"two coda signs, over measures", []Measure{whole(nil), whole(nil), whole(func(m *Measure) { m.Coda = true }),
			whole(func(m *Measure) { m.Jump = Jump{"capo", ""} }), whole(func(m *Measure) { m.Coda = true })}, []int{0, 1, 2, 3, 0, 1, 4}},
		{
			"one ending for two passes",
			[]Measure{whole(nil), whole(func(m *Measure) { m.Endings, m.RepeatEnd = []int{1, 2}, true }), whole(ending(3, false))},
			[]int{0, 1, 0, 1, 0, 2},
		},
		{
			"a repeat sign that closes the last ending",
			[]Measure{whole(nil), whole(ending(1, true)), whole(ending(2, true)), whole(nil)},
			[]int{0, 1, 0, 2, 3},
		},
		{"a first ending alone", []Measure{whole(nil), whole(ending(1, true)), whole(nil)}, []int{0, 1, 0, 2}},
		{"D.C. takes the last ending", []Measure{whole(nil), whole(ending(1, true)), whole(ending(2, false)),
			whole(func(m *Measure) { m.Jump = Jump{"capo", ""} })}, []int{0, 1, 0, 2, 3, 0, 2, 3}},
	}
	for _, tt := range tests {
		p := Part{Measures: tt.measures}
		if err := p.Finish(); err != nil {
			t.Fatalf("%s: %v", tt.name, err)
		}
		if got := p.Order(); !slices.Equal(got, tt.want) {
			t.Errorf("%s: played %v, want %v", tt.name, got, tt.want)
		}
	}
}

func TestRuler(t *testing.T) {
	places := func(m Measure) string {
		p := Part{Measures: []Measure{m}}
		if err := p.Finish(); err != nil {
			t.Fatal(err)
		}
		var words []string
		for _, pulse := range p.Measures[0].Ruler() {
			words = append(words, pulse.Place.String())
		}
		return strings.Join(words, " ")
	}
	twoFour := Meter{Beats: 2, Unit: 4}
	if got := places(measure(twoFour, Key{}, "C4/4", "C4/4")); got != "0 1/8 1/4 3/8" {
		t.Errorf("quarters lie on %s", got)
	}
	if got := places(measure(twoFour, Key{}, "C4/16", "C4/16", "C4/8", "C4/4")); got != "0 1/16 1/8 3/16 1/4 3/8" {
		t.Errorf("sixteenths lie on %s", got)
	}
	if got := places(measure(Meter{Beats: 6, Unit: 8}, Key{}, "C4/8", "C4/8", "C4/8", "z/8", "C4/4")); got != "0 1/8 1/4 3/8 1/2 5/8" {
		t.Errorf("eighths of 6/8 lie on %s", got)
	}
}

// A metronome mark in beats of the meter, and in quarters. Arithmetic by hand.
func TestTempoInBeats(t *testing.T) {
	quarter, dotted, half, eighth := Frac(1, 4), Frac(3, 8), Frac(1, 2), Frac(1, 8)
	tests := []struct {
		mark     Tempo
		meter    Meter
		beats    int
		quarters float64
	}{
		{Tempo{quarter, 96}, Meter{Beats: 4, Unit: 4}, 96, 96},
		{Tempo{quarter, 96}, Meter{Beats: 2, Unit: 2}, 48, 96},
		{Tempo{half, 60}, Meter{Beats: 4, Unit: 4}, 120, 120},
		{Tempo{dotted, 60}, Meter{Beats: 6, Unit: 8}, 60, 90},
		{Tempo{quarter, 90}, Meter{Beats: 6, Unit: 8}, 60, 90},
		{Tempo{eighth, 100}, Meter{Beats: 6, Unit: 8}, 33, 50}, // rounded down
		{Tempo{}, Meter{Beats: 4, Unit: 4}, 0, 0},
	}
	for _, tt := range tests {
		if got := tt.mark.Beats(tt.meter); got != tt.beats {
			t.Errorf("%s of a whole note = %d is %d beats of %s, want %d", tt.mark.Beat, tt.mark.PerMinute, got, tt.meter, tt.beats)
		}
		if got := tt.mark.Quarters(); got != tt.quarters {
			t.Errorf("%s of a whole note = %d is %v quarters, want %v", tt.mark.Beat, tt.mark.PerMinute, got, tt.quarters)
		}
	}
}
