package instrument

import (
	"regexp"
	"strings"

	"unhurriedbench/core/score"
)

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
	best, word := Instrument{}, ""
	for _, i := range catalogue {
		for _, w := range i.called {
			// A longer word that holds this one speaks of another instrument: a bass clarinet.
			if strings.Contains(name, w) && (word == "" || len(w) > len(word) && strings.Contains(w, word)) {
				best, word = i, w
			}
		}
	}
	return best, word != ""
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
