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

// Voice is what the instrument is heard with: its own sound where there is one, else its nearest
// relative's. The saxophone recorded is an alto, an oboe is a small bassoon, an euphonium a small
// tuba, a marimba a low xylophone.
func (i Instrument) Voice() Voice { return i.voice }
