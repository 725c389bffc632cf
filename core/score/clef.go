package score

// Clef fixes one pitch on one staff line.
type Clef struct {
	Sign   string // "G", "F", "C" or "percussion"
	Line   int    // 1 is the lowest
	Octave int    // octaves the sounding pitch lies from the written, -1 for treble 8va bassa
}

// The clefs method books use.
var (
	Treble     = Clef{Sign: "G", Line: 2}
	Bass       = Clef{Sign: "F", Line: 4}
	Alto       = Clef{Sign: "C", Line: 3}
	Tenor      = Clef{Sign: "C", Line: 4}
	Percussion = Clef{Sign: "percussion", Line: 3}
)

var clefNames = []struct {
	name string
	clef Clef
}{
	{"treble", Treble}, {"bass", Bass}, {"alto", Alto}, {"tenor", Tenor}, {"percussion", Percussion},
}

// Name is "treble", "bass", "alto", "tenor", "percussion", or the sign and
// line for any other.
func (c Clef) Name() string {
	for _, known := range clefNames {
		if known.clef.Sign == c.Sign && known.clef.Line == c.Line {
			return known.name
		}
	}
	return c.Sign + " clef on line " + string(rune('0'+c.Line))
}

// ClefNamed finds a clef by the name Name gives.
func ClefNamed(name string) (Clef, bool) {
	for _, known := range clefNames {
		if known.name == name {
			return known.clef, true
		}
	}
	return Clef{}, false
}

// BottomLine is the natural pitch on the lowest line. For a percussion clef,
// which fixes none, it is that of the treble clef.
func (c Clef) BottomLine() Pitch {
	home := Pitch{Step: G, Octave: 4}
	line := c.Line
	switch c.Sign {
	case "F":
		home = Pitch{Step: F, Octave: 3}
	case "C":
		home = Pitch{Step: C, Octave: 4}
	case "percussion":
		line = 2
	}
	d := home.Diatonic() - 2*(line-1)
	return Pitch{Step: Step(d % 7), Octave: d/7 + c.Octave}
}
