package instrument

import "strings"

// guesses are words in part names, those that would be mistaken for a shorter
// one first.
var guesses = []struct{ word, id string }{
	{"piccolo", "piccolo"}, {"bassoon", "bassoon"}, {"oboe", "oboe"}, {"flute", "flute"},
	{"bass clarinet", "bass-clarinet"}, {"eb clarinet", "eb-clarinet"}, {"e♭ clarinet", "eb-clarinet"}, {"clarinet in eb", "eb-clarinet"},
	{"clarinet", "clarinet"}, {"soprano sax", "soprano-sax"}, {"alto sax", "alto-sax"}, {"tenor sax", "tenor-sax"},
	{"bari sax", "bari-sax"}, {"baritone sax", "bari-sax"}, {"double horn", "horn-double"}, {"trumpet", "trumpet"}, {"cornet", "trumpet"},
	{"trombone", "trombone"}, {"euphonium t", "euphonium-tc"}, {"baritone t", "euphonium-tc"}, {"euphonium", "euphonium-bc"}, {"baritone", "euphonium-bc"},
	{"tuba", "tuba-bb"}, {"horn", "horn-f"}, {"violin", "violin"}, {"viola", "viola"}, {"cello", "cello"}, {"double bass", "bass"}, {"string bass", "bass"},
	{"bells", "bells"}, {"glockenspiel", "bells"}, {"xylophone", "xylophone"}, {"marimba", "marimba"}, {"bass drum", "bass-drum"}, {"snare", "snare"},
	{"timpani", "timpani"}, {"cymbal", "small-percussion"}, {"percussion", "small-percussion"}, {"bass", "bass"},
}

// Guess finds the instrument a part's name speaks of.
func Guess(partName string) (Instrument, bool) {
	name := strings.ToLower(partName)
	for _, g := range guesses {
		if strings.Contains(name, g.word) {
			return ByID(g.id)
		}
	}
	return Instrument{}, false
}
