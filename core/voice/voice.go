// Package voice lists the words that are spoken in a led run, and takes sentences apart into
// them.
package voice

import (
	"slices"
	"strconv"
	"strings"
)

// Clip is something that is spoken in one piece.
type Clip struct {
	Text   string
	Phones string // for the synthesiser, where the spelling would mislead it
	Name   bool   // spoken on the beat: it comes in a quick form too where it is of several words
}

// Clips lists all that the voice can say.
func Clips() []Clip {
	var list []Clip
	add := func(c Clip) {
		if !slices.ContainsFunc(list, func(d Clip) bool { return d.Text == c.Text }) {
			list = append(list, c)
		}
	}
	for _, c := range slices.Concat(counts(), names(), fingers(), syllables(), instructions()) {
		add(c)
	}
	return list
}

var units = [...]string{"zero", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve",
	"thirteen", "fourteen", "fifteen", "sixteen", "seventeen", "eighteen", "nineteen"}

var tens = [...]string{"", "", "twenty", "thirty", "forty", "fifty", "sixty", "seventy", "eighty", "ninety"}

// numeral says a number from 0 to 999.
func numeral(n int) string {
	switch {
	case n < len(units):
		return units[n]
	case n < 100 && n%10 == 0:
		return tens[n/10]
	case n < 100:
		return tens[n/10] + " " + units[n%10]
	case n%100 == 0:
		return units[n/100] + " hundred"
	}
	return units[n/100] + " hundred " + numeral(n%100)
}

// counts are the numbers and what is said between them.
func counts() []Clip {
	list := []Clip{
		{Text: "and", Name: true}, {Text: "ee", Phones: "iy1", Name: true}, {Text: "uh", Phones: "ah1", Name: true},
		{Text: "la", Phones: "l aa1", Name: true}, {Text: "lee", Phones: "l iy1", Name: true},
		{Text: "ready", Name: true}, {Text: "go", Name: true}, {Text: "rest", Name: true},
	}
	for _, n := range units {
		list = append(list, Clip{Text: n, Name: true})
	}
	for _, n := range tens[2:] {
		list = append(list, Clip{Text: n})
	}
	return append(list, Clip{Text: "hundred"})
}

// letterPhones are the names of the letters, which a synthesiser may take for words.
var letterPhones = map[string]string{
	"A": "ey1", "B": "b iy1", "C": "s iy1", "D": "d iy1", "E": "iy1", "F": "eh1 f", "G": "jh iy1", "H": "hh aa1",
}

var signPhones = map[string]string{
	"": "", " flat": " f l ae1 t", " sharp": " sh aa1 r p", " natural": " n ae1 ch er0 ax0 l",
	" double flat": " d ah1 b ax0 l f l ae1 t", " double sharp": " d ah1 b ax0 l sh aa1 r p",
}

// names are the names of notes in all systems.
func names() []Clip {
	var list []Clip
	signed := func(text, phones string) {
		for _, sign := range []string{"", " flat", " sharp", " natural", " double flat", " double sharp"} {
			list = append(list, Clip{Text: text + sign, Phones: phones + signPhones[sign], Name: true})
		}
	}
	for _, letter := range []string{"A", "B", "C", "D", "E", "F", "G"} {
		signed(letter, letterPhones[letter])
	}
	for _, s := range [][2]string{{"do", "d ow1"}, {"re", "r ey1"}, {"mi", "m iy1"}, {"fa", "f aa1"}, {"sol", "s ow1 l"}, {"la", "l aa1"}, {"si", "s iy1"}} {
		signed(s[0], s[1])
	}
	list = append(list, Clip{Text: "H", Phones: letterPhones["H"], Name: true})
	for _, g := range [][2]string{
		{"Cis", "s iy1 s"}, {"Dis", "d iy1 s"}, {"Eis", "ey1 ih0 s"}, {"Fis", "f iy1 s"}, {"Gis", "g iy1 s"}, {"Ais", "aa1 ih0 s"}, {"His", "hh iy1 s"},
		{"Ces", "s eh1 s"}, {"Des", "d eh1 s"}, {"Es", "eh1 s"}, {"Fes", "f eh1 s"}, {"Ges", "g eh1 s"}, {"As", "aa1 s"}, {"Hes", "hh eh1 s"},
		{"Cisis", "s iy1 s ih0 s"}, {"Fisis", "f iy1 s ih0 s"}, {"Gisis", "g iy1 s ih0 s"}, {"Heses", "hh eh1 s eh0 s"}, {"Eses", "eh1 s eh0 s"}, {"Asas", "aa1 s aa0 s"},
	} {
		list = append(list, Clip{Text: g[0], Phones: g[1], Name: true})
	}
	for _, n := range units[1:8] { // degrees of the scale
		list = append(list, Clip{Text: "sharp " + n, Name: true}, Clip{Text: "flat " + n, Name: true})
	}
	return list
}

// fingers are valves, positions, fingers on strings, and hands.
func fingers() []Clip {
	var list []Clip
	for _, text := range []string{
		"open", "left", "right", "one two", "one three", "two three", "one two three", "one four", "two four", "three four", "one three four",
		"two three four", "one two four", "one two three four", "thumb", "trigger", "thumb open", "thumb one", "thumb two", "thumb one two", "thumb two three",
		"thumb one three", "thumb one two three", "trigger one", "trigger two", "trigger three", "trigger four", "trigger five", "trigger six", "trigger seven",
		"low one", "low two", "low three", "low four", "high one", "high two", "high three", "high four", "stretch", "stretch one", "stretch two", "stretch three", "stretch four",
		"low", "high",
	} {
		list = append(list, Clip{Text: text, Name: true})
	}
	return list
}

// syllables are those of the schools of counting, and of our own words.
func syllables() []Clip {
	var list []Clip
	for _, s := range [][2]string{
		{"ta", "t aa1"}, {"ka", "k aa1"}, {"di", "d iy1"}, {"mi", "m iy1"}, {"ki", "k iy1"}, {"da", "d aa1"}, {"va", "v aa1"}, {"ma", "m aa1"}, {"ti", "t iy1"},
		{"du", "d uw1"}, {"de", "d ey1"}, {"tam", "t aa1 m"}, {"tim", "t iy1 m"}, {"too", "t uw1"}, {"toe", "t ow1"}, {"syn", "s ih1 n"}, {"co", "k ow1"}, {"pa", "p aa1"}, {"ri", "r iy1"}, {"ple", "p ax0 l"},
		{"tri", "t r iy1"}, {"lah", "l aa1"}, {"bah", "b aa1"},
		{"an", "ae1 n"}, {"chor", "k er1"}, {"har", "hh aa1 r"}, {"bor", "b er1"}, {"mas", "m ae1 s"}, {"ter", "t er1"}, {"o", "ow1"}, {"ver", "v er1"}, {"board", ""},
		{"tide", ""}, {"wa", "w aa1"}, {"steam", ""}, {"er", "er1"}, {"a", "ax1"}, {"hoy", "hh oy1"}, {"com", "k ah1 m"}, {"pass", ""}, {"rose", ""}, {"ho", "hh ow1"}, {"to", "t uw1"},
		{"heave", "hh iy1 v"}, {"shore", ""}, {"the", "dh ax1"}, {"sea", ""}, {"rope", ""}, {"sail", ""}, {"pas", "p ae1 s"}, {"sen", "s eh1 n"}, {"ger", "jh er1"}, {"row", "r ow1"}, {"ing", "ih1 ng"},
		{"way", ""}, {"is", "ay1"}, {"land", ""}, {"hop", ""}, {"ping", "p ih1 ng"}, {"fer", "f eh1 r"}, {"ry", "r iy1"}, {"cap", ""}, {"tain", "t ax1 n"}, {"of", "ah1 v"}, {"it", "ih1 t"}, {"float", ""},
		{"star", ""}, {"lan", "l ae1 n"}, {"tern", "t er1 n"}, {"light", ""}, {"cast", ""}, {"off", ""}, {"out", ""}, {"cean", "sh ax1 n"}, {"wide", ""}, {"deep", ""}, {"far", ""},
	} {
		list = append(list, Clip{Text: s[0], Phones: s[1], Name: true})
	}
	return list
}

// instructions are what is said of what to do.
func instructions() []Clip {
	var list []Clip
	for _, text := range phrases {
		list = append(list, Clip{Text: text})
	}
	return list
}

// phrases are the pieces of instructions.
var phrases = []string{
	"listen to", "the line", "with me", "without me", "on your own", "measure", "measures", "and", "to", "clap and count", "count", "name", "play", "now join",
	"silent fingers", "silent hands", "silent valves", "silent slide", "fingers without bow", "mallets in the air", "hands in the air", "sticks in the air", "say right and left",
	"buzz", "blow", "on air", "bow", "in the air", "tap", "on your knees", "on your lap", "mouthpiece", "head joint", "reed", "pluck", "on the pad", "echo", "measure by measure",
	"I say, you play", "one says, one plays", "look over", "in time, silently", "finger", "along while it sounds", "move the sticks along with", "on one note", "sing the names of",
	"this time", "again", "still", "from", "is a skip", "move early", "is new", "rest on", "beat", "its beat", "hold", "beats", "the tie holds on", "come in after the rest", "remember", "remember measure",
	"the pickup", "from the key", "is the same", "are the same", "others", "every", "is flat", "is sharp", "is natural", "for", "it is quick", "say", "or", "the line begins on", "after", "comes", "a step or a skip",
	"the long note lasts", "at the fermata", "breathe at the mark", "an accent on", "grow louder", "grow softer",
	"which hand begins", "so", "well done", "how was it",
}

// Set is some words to be recorded in one go.
type Set struct {
	ID    string // "counts-1"
	Title string
	Words []string
}

// InSet is how many words are recorded in one go at most; the figure is ours.
const InSet = 16

// Sets lists all that can be recorded: counts, names by each system, fingers, syllables and what is
// to be done.
func Sets() []Set {
	texts := func(clips []Clip) []string {
		var list []string
		for _, c := range clips {
			list = append(list, plain(c.Text))
		}
		return list
	}
	ofNames := texts(names())
	const letters, solfege = 7 * 6, 14 * 6
	var list []Set
	seen := map[string]bool{}
	add := func(id, title string, words []string) {
		words = slices.DeleteFunc(slices.Clone(words), func(word string) bool {
			again := seen[word]
			seen[word] = true
			return again
		})
		parts := (len(words) + InSet - 1) / InSet
		for k := range parts {
			s := Set{ID: id + "-" + strconv.Itoa(k+1), Title: title, Words: words[k*len(words)/parts : (k+1)*len(words)/parts]}
			if parts > 1 {
				s.Title += ", " + strconv.Itoa(k+1) + " of " + strconv.Itoa(parts)
			}
			list = append(list, s)
		}
	}
	add("counts", "Counts", slices.Concat(units[1:13], texts(counts())))
	add("letters", "Names, letters", ofNames[:letters])
	add("fingers", "Fingers, valves, hands", texts(fingers()))
	add("do", "What to do", texts(instructions()))
	add("solfege", "Names, do re mi", ofNames[letters:solfege])
	add("german", "Names, German and degrees", ofNames[solfege:])
	add("syllables", "Syllables of counting", texts(syllables()))
	return list
}

// Vocabulary takes sentences apart into clips.
type Vocabulary struct {
	known   map[string]bool
	longest int // words of a clip
}

// NewVocabulary knows all clips.
func NewVocabulary() Vocabulary {
	v := Vocabulary{known: map[string]bool{}}
	for _, c := range Clips() {
		v.known[plain(c.Text)] = true
		v.longest = max(v.longest, len(strings.Fields(c.Text)))
	}
	return v
}

// Has says whether a clip has such a text.
func (v Vocabulary) Has(text string) bool { return v.known[text] }

// Split takes a sentence apart into clips, the longest first; ok is false where a word is not
// among them. Numbers in digits are said.
func (v Vocabulary) Split(text string) (clips []string, ok bool) {
	for _, words := range v.sentences(text) {
		for len(words) > 0 {
			n := min(v.longest, len(words))
			for ; n > 0; n-- {
				if piece := strings.Join(words[:n], " "); v.known[piece] {
					clips = append(clips, piece)
					break
				}
			}
			if n == 0 {
				return clips, false
			}
			words = words[n:]
		}
	}
	return clips, true
}

// sentences are the words of a text as clips spell them, parted where a point or a colon stands:
// without points, the first in small letters but for the name of a note, digits said.
func (v Vocabulary) sentences(text string) [][]string {
	var list [][]string
	begins := true
	for _, field := range strings.Fields(plain(text)) {
		if begins {
			list = append(list, nil)
		}
		here := &list[len(list)-1]
		word := strings.TrimRight(field, ".:?!")
		if sign, degree := signed(word); sign != "" {
			*here, word = append(*here, sign), degree
		}
		if n, err := strconv.Atoi(word); err == nil && n >= 0 && n < 1000 {
			*here = append(*here, strings.Fields(numeral(n))...)
		} else if lower := strings.ToLower(word); begins && len(word) > 1 && lower != word && !v.known[word] {
			*here = append(*here, lower)
		} else {
			*here = append(*here, word)
		}
		begins = strings.ContainsAny(field, ".:?!")
	}
	return list
}

// signed takes the sign before a degree of a scale apart: "♯4" is sharp 4.
func signed(word string) (sign, degree string) {
	for _, s := range [][2]string{{"♯", "sharp"}, {"♭", "flat"}} {
		if rest, has := strings.CutPrefix(word, s[0]); has {
			return s[1], rest
		}
	}
	return "", word
}

// plain is a text without commas.
func plain(text string) string { return strings.ReplaceAll(text, ",", "") }
