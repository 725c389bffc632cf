package instrument

import (
	"regexp"
	"strings"

	"unhurriedbench/core/score"
)

// guesses are words in part names, those that would be mistaken for a shorter
// one first.
var guesses = []struct{ word, id string }{
	{"piccolo", "piccolo"}, {"bassoon", "bassoon"}, {"oboe", "oboe"}, {"flute", "flute"},
	{"bass clarinet", "bass-clarinet"}, {"eb clarinet", "eb-clarinet"}, {"e♭ clarinet", "eb-clarinet"},
	{"clarinet in eb", "eb-clarinet"},
	{"clarinet", "clarinet"}, {"soprano sax", "soprano-sax"}, {"alto sax", "alto-sax"}, {"tenor sax", "tenor-sax"},
	{"bari sax", "bari-sax"}, {"baritone sax", "bari-sax"}, {"double horn", "horn-double"}, {"trumpet", "trumpet"},
	{"cornet", "trumpet"},
	{"trombone", "trombone"}, {"euphonium t", "euphonium-tc"}, {"baritone t", "euphonium-tc"},
	{"euphonium", "euphonium-bc"},
	{"baritone", "euphonium-bc"},
	{"tuba in e", "tuba-eb"}, {"eb tuba", "tuba-eb"}, {"e♭ tuba", "tuba-eb"}, {"tuba", "tuba-bb"}, {"horn", "horn-f"},
	{"violin", "violin"}, {"viola", "viola"}, {"cello", "cello"}, {"double bass", "bass"}, {"string bass", "bass"},
	{"bells", "bells"}, {"glockenspiel", "bells"}, {"xylophone", "xylophone"}, {"marimba", "marimba"},
	{"bass drum", "bass-drum"},
	{"snare", "snare"},
	{"timpani", "timpani"}, {"cymbal", "small-percussion"}, {"percussion", "small-percussion"}, {"bass", "bass"},
}

// notHere are words for instruments that are not in the catalogue, and whose names hold that
// of one that is. Source: common practice.
var notHere = []string{
	"alto flute", "bass flute", "contrabass flute", "english horn", "oboe d", "bass oboe", "contrabassoon",
	"contra bassoon", "double bassoon", "basset",
	"alto clarinet", "contrabass clarinet", "contra alto", "contralto clarinet", "bass sax", "piccolo trumpet",
	"bass trumpet", "flugel", "flügel", "fluegel",
	"alto horn", "tenor horn", "saxhorn", "wagner", "bass guitar", "electric bass", "viola da", "viola d'",
	"tubular", "cowbell", "handbell",
}

// Guess finds the instrument a part's name speaks of; none for one that is not here, however
// much its name is like another's.
func Guess(partName string) (Instrument, bool) {
	name := strings.ToLower(partName)
	for _, word := range notHere {
		if strings.Contains(name, word) {
			return Instrument{}, false
		}
	}
	for _, g := range guesses {
		if strings.Contains(name, g.word) {
			return ByID(g.id)
		}
	}
	return Instrument{}, false
}

// keyInName finds "in A", "in B flat", "in E♭" in a part's name.
var keyInName = regexp.MustCompile(`(?i)\bin ([a-g])( ?flat|b\b|♭|-flat)?`)

// NamedOtherwise says whether a part's name puts it in another key than the instrument
// here is built in: a clarinet in A is not one in B flat. The key is given as in the
// name, "A". Brass in bass clef is read as it sounds, whatever its tube, and left aside.
func NamedOtherwise(partName string, i Instrument) (key string, otherwise bool) {
	found := keyInName.FindStringSubmatch(partName)
	if found == nil || i.Unpitched() || i.Family == "brass" && i.Transposition.Semitones%12 == 0 {
		return "", false
	}
	step, _ := score.ParseStep(found[1][0])
	named := score.Pitch{Step: step, Octave: 4}
	key = named.Step.String()
	if found[2] != "" {
		named.Alter, key = -1, key+" flat"
	}
	built := score.Pitch{Step: score.C, Octave: 4}.Transpose(i.Transposition)
	return key, (named.MIDI()-built.MIDI())%12 != 0
}
