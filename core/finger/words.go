package finger

import (
	"fmt"
	"strings"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
)

// Words is how a teacher speaks of fingers; the zero value is the default of
// everything.
type Words struct {
	Hands   bool   // each hand counts 1 to 3, L1 and R1, in place of 1 to 6
	Spacing bool   // on strings, a finger with its spacing in place of low and high
	Two     string // what the cello's hand with its second finger down is called
	Three   string // and the one with the third
}

// The cello's patterns where the teacher has no words of their own, each with what
// it means.
const (
	defaultTwo   = "two hand (1 2 4, the half step between 1 and 2)"
	defaultThree = "three hand (1 3 4, the half step between 3 and 4)"
)

// Show writes a fingering as the teacher has it written on the page. Data files and
// inspect keep the one spelling of docs/inspect.md.
func (w Words) Show(i instrument.Instrument, text string) string {
	if !w.Hands || i.Mechanism != instrument.Woodwind {
		return text
	}
	words := strings.Fields(text)
	for k, word := range words {
		switch {
		case len(word) == 1 && word >= "1" && word <= "3":
			words[k] = "L" + word
		case len(word) == 1 && word >= "4" && word <= "6":
			words[k] = "R" + string(word[0]-3)
		}
	}
	return strings.Join(words, " ")
}

// Say puts a fingering in words to be said aloud: "low 2 on A", "valves 1 and 3",
// "third position".
func (w Words) Say(i instrument.Instrument, text string) string {
	switch i.Mechanism {
	case instrument.Valves:
		return sayValves(text)
	case instrument.Slide:
		return saySlide(text)
	case instrument.Strings:
		return w.sayStopped(i, text)
	case instrument.Bars:
		last := len(text) - 1
		return "the bar " + sayNote(text[:last]) + " " + text[last:]
	case instrument.Drums:
		return "the " + text + " inch drum"
	case instrument.Sticks:
		return sayStroke(text)
	}
	return w.sayKeys(i, text)
}

func sayValves(text string) string {
	side := ""
	if rest, thumb := strings.CutPrefix(text, "T"); thumb {
		side, text = "thumb, ", rest
	}
	valves := strings.Split(text, "-")
	switch last := len(valves) - 1; {
	case text == "0":
		return side + "open"
	case last == 0:
		return side + "valve " + text
	default:
		return side + "valves " + strings.Join(valves[:last], ", ") + " and " + valves[last]
	}
}

func saySlide(text string) string {
	attachment := ""
	if rest, attached := strings.CutPrefix(text, "F"); attached {
		attachment, text = "trigger, ", rest
	}
	ordinals := [...]string{"", "first", "second", "third", "fourth", "fifth", "sixth", "seventh"}
	said := attachment + ordinals[text[0]-'0'] + " position"
	if strings.HasSuffix(text, "+") {
		said += ", a little in"
	}
	return said
}

func sayStroke(text string) string {
	said := map[string]string{"R": "right", "L": "left"}[text[len(text)-1:]]
	if said == "" {
		return text
	}
	switch len(text) {
	case 1:
		return said
	case 2:
		return "flam, " + said
	case 3:
		return "drag, " + said
	}
	return "ruff, " + said
}

func (w Words) sayKeys(i instrument.Instrument, text string) string {
	left, right, _ := strings.Cut(w.Show(i, text), "|")
	hands := []string{}
	for k, keys := range []string{left, right} {
		if said := sayHand(i, strings.Fields(keys)); said != "" {
			hands = append(hands, [...]string{"left hand ", "right hand "}[k]+said)
		}
	}
	if len(hands) == 0 {
		return "nothing pressed"
	}
	return strings.Join(hands, "; ")
}

// sayHand says what one hand presses, its fingers in a row. On the bassoon a key
// before the fingers is the thumb's.
func sayHand(i instrument.Instrument, keys []string) string {
	var said []string
	inRow, thumb := false, i.ID == "bassoon"
	for _, key := range keys {
		finger := isFinger(key)
		switch {
		case finger && inRow:
			said[len(said)-1] += " " + key
		case finger:
			said = append(said, key)
		case thumb && key[0] >= 'A' && key[0] <= 'F':
			said = append(said, "thumb "+sayKey(key))
		default:
			said = append(said, sayKey(key))
		}
		inRow, thumb = finger, thumb && !finger
	}
	return strings.Join(said, ", ")
}

// isFinger says whether a word is a finger, 1 to 6 or L1 to R3.
func isFinger(word string) bool {
	last := word[len(word)-1]
	return len(word) <= 2 && last >= '1' && last <= '6'
}

// keyWords are the keys that have a word of their own.
var keyWords = map[string]string{
	"T": "thumb", "TBb": "thumb B flat lever", "R": "register key", "oct": "octave key", "oct1": "first octave key", "oct2": "second octave key",
	"W": "whisper key", "half": "half 1", "bis": "bis key", "sliver": "sliver key", "pancakeE": "thumb E key",
}

func sayKey(key string) string {
	if word := keyWords[key]; word != "" {
		return word
	}
	for _, place := range []string{"side", "palm", "low", "flick", "high", "front"} {
		if note, found := strings.CutPrefix(key, place); found {
			return place + " " + sayNote(note) + " key"
		}
	}
	return sayNote(strings.TrimPrefix(strings.TrimPrefix(key, "L-"), "R-")) + " key"
}

// sayNote writes out a sign after a letter: "E flat" for "Eb".
func sayNote(note string) string {
	p, err := score.ParsePitch(note + "4") // the octave is not said
	if err != nil {
		return note
	}
	return name.Spoken(p, false)
}

// spacings says where a finger of the violin's and viola's hand stands beside its
// neighbours.
var spacings = map[string]string{
	"L1": "1 close to the nut", "1": "1 a whole step from the nut", "L2": "2 close to 1", "2": "2 a whole step from 1",
	"L3": "3 close to a low 2", "3": "3 in its place, close to a high 2", "H3": "3 close to 4", "L4": "4 close to 3", "4": "4 a whole step from 3",
}

func (w Words) sayStopped(i instrument.Instrument, text string) string {
	name := text[:1]
	rest, in, shifted := strings.Cut(strings.TrimSpace(text[1:]), "(")
	if rest == "0" {
		return "open " + name
	}
	finger := map[byte]string{'L': "low ", 'H': "high ", 'x': "extended "}[rest[0]] + rest[len(rest)-1:]
	upper := i.ID == "violin" || i.ID == "viola"
	if upper && w.Spacing {
		finger = spacings[rest]
		if shifted {
			finger = strings.Replace(strings.Replace(finger, "1 close to the nut", "1 drawn back", 1), "1 a whole step from the nut", "1 in its place", 1)
		}
	}
	said := fmt.Sprintf("%s on %s", finger, name)
	if i.ID == "cello" && (rest == "2" || rest == "3") {
		said += ", the " + map[string]string{"2": orElse(w.Two, defaultTwo), "3": orElse(w.Three, defaultThree)}[rest]
	}
	if shifted {
		in = strings.TrimSuffix(in, ")")
		for _, at := range playerOf(i).positions {
			if at.name == in {
				said += ", " + at.word + " position"
			}
		}
	}
	return said
}

func orElse(word, standard string) string {
	if word == "" {
		return standard
	}
	return word
}
