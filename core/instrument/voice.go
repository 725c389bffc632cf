package instrument

// Voice is the sound that an instrument is heard with.
type Voice struct {
	Name string // of the recorded notes, or of a struck sound that is computed
	// Larger is how many semitones lower the instrument lies than the recorded one, of
	// whose kind it is: negative where it is smaller. Its notes are taken from that far
	// above and slowed, as a larger body of one shape sounds (scaling of similar
	// instruments; Benade, Fundamentals of Musical Acoustics).
	Larger int
}

// voices are the sounds of the catalogue, each instrument's own where there is one, else
// its nearest relative's: the saxophone recorded is an alto, an oboe is a small bassoon, an
// euphonium a small tuba, a marimba a low xylophone.
var voices = map[string]Voice{
	"piccolo": {"flute", -12}, "flute": {"flute", 0},
	"oboe": {"bassoon", -12}, "bassoon": {"bassoon", 0},
	"eb-clarinet": {"clarinet", -5}, "clarinet": {"clarinet", 0}, "bass-clarinet": {"clarinet", 12},
	"soprano-sax": {"saxophone", -7}, "alto-sax": {"saxophone", 0}, "tenor-sax": {"saxophone", 5},
	"bari-sax": {"saxophone", 12},
	"trumpet":  {"trumpet", 0}, "horn-f": {"french-horn", 0}, "horn-double": {"french-horn", 0},
	"trombone": {"trombone", 0}, "trombone-f": {"trombone", 0},
	"euphonium-bc": {"tuba", -7}, "euphonium-tc": {"tuba", -7}, "tuba-bb": {"tuba", 0}, "tuba-eb": {"tuba", 0},
	"violin": {"violin", 0}, "viola": {"violin", 7}, "cello": {"cello", 0}, "bass": {"contrabass", 0},
	"bells": {"bells", 0}, "xylophone": {"xylophone", 0}, "marimba": {"xylophone", 12},
	"snare": {"snare", 0}, "bass-drum": {"bass-drum", 0}, "small-percussion": {"small-percussion", 0},
	"timpani": {"timpani", 0},
}

// Voice is what the instrument is heard with.
func (i Instrument) Voice() Voice { return voices[i.ID] }
