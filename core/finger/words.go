package finger

import (
	"fmt"
	"strconv"
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
		if isFinger(word) {
			words[k] = w.fingerName(word)
		}
	}
	return strings.Join(words, " ")
}

// Say puts a fingering in words to be said aloud: "low 2 on A", "valves 1 and 3",
// "third position".
func (w Words) Say(i instrument.Instrument, f Fingering) string {
	return mechanismOf(i).say(w, i, f)
}

func sayValves(f Fingering) string {
	side := ""
	if f.Attached {
		side = "thumb, "
	}
	valves := onValves(f.Keys&^thumbValve, 0).Text
	names := strings.Split(valves, "-")
	switch last := len(names) - 1; {
	case f.valves() == 0:
		return side + "open"
	case last == 0:
		return side + "valve " + valves
	default:
		return side + "valves " + strings.Join(names[:last], ", ") + " and " + names[last]
	}
}

func saySlide(f Fingering) string {
	ordinals := [...]string{"", "first", "second", "third", "fourth", "fifth", "sixth", "seventh"}
	said := ordinals[f.Position] + " position"
	if f.Attached {
		said = "trigger, " + said
	}
	if f.Raised {
		said += ", a little in"
	}
	return said
}

func sayStroke(f Fingering) string {
	if f.Stroke == "" {
		return f.Text
	}
	said := map[byte]string{'R': "right", 'L': "left"}[f.last()]
	switch {
	case said == "":
		return f.Text
	case f.Graces == 0 && len(f.Stroke) == 1:
		return said
	case f.Graces == 1:
		return "flam, " + said
	case f.Graces == 2:
		return "drag, " + said
	}
	return "ruff, " + said
}

func (w Words) sayKeys(i instrument.Instrument, f Fingering) string {
	l := layoutOf(i)
	hands := []string{}
	for _, hand := range []struct {
		name     string
		from, to int
	}{{"left hand ", 0, l.bar}, {"right hand ", l.bar + 1, len(l.order)}} {
		if said := w.sayHand(l, f.Keys, hand.from, hand.to); said != "" {
			hands = append(hands, hand.name+said)
		}
	}
	if len(hands) == 0 {
		return "nothing pressed"
	}
	return strings.Join(hands, "; ")
}

// sayHand says what one hand presses, its fingers in a row, and a thumb's keys as such
// where the layout has them before the fingers.
func (w Words) sayHand(l *layout, keys uint64, from, to int) string {
	var said []string
	inRow := false
	for k := from; k < to; k++ {
		if keys&(1<<k) == 0 {
			continue
		}
		name := l.order[k]
		finger := isFinger(name)
		switch {
		case finger && inRow:
			said[len(said)-1] += " " + w.fingerName(name)
		case finger:
			said = append(said, w.fingerName(name))
		case l.byThumb(k) && name[0] >= 'A' && name[0] <= 'F':
			said = append(said, "thumb "+sayKey(name))
		default:
			said = append(said, sayKey(name))
		}
		inRow = finger
	}
	return strings.Join(said, ", ")
}

// isFinger says whether a key is one of the fingers' own, 1 to 6.
func isFinger(name string) bool { return len(name) == 1 && name >= "1" && name <= "6" }

// fingerName is a finger as the teacher counts it: 4, or R1.
func (w Words) fingerName(name string) string {
	switch {
	case !w.Hands:
		return name
	case name <= "3":
		return "L" + name
	}
	return "R" + string(name[0]-3)
}

// keyWords are the keys that have a word of their own.
var keyWords = map[string]string{
	"T": "thumb", "TBb": "thumb B flat lever", "R": "register key",
	"oct": "octave key", "oct1": "first octave key", "oct2": "second octave key",
	"W": "whisper key", "half": "half 1", "bis": "bis key", "sliver": "sliver key", "pancakeE": "thumb E key",
}

func sayKey(key string) string {
	if word := keyWords[key]; word != "" {
		return word
	}
	if place, note, ok := placed(key); ok {
		return place + " " + sayNote(note) + " key"
	}
	return sayNote(handless(key)) + " key"
}

// placed parts a key's name into where it lies and its note, "palm" and "Eb"; ok is
// false for one that is named by its note alone.
func placed(key string) (place, note string, ok bool) {
	for _, place := range []string{"side", "palm", "low", "flick", "high", "front"} {
		if note, ok := strings.CutPrefix(key, place); ok {
			return place, note, true
		}
	}
	return "", "", false
}

// handless is a key's name without the hand whose small finger takes it.
func handless(key string) string { return strings.TrimPrefix(strings.TrimPrefix(key, "L-"), "R-") }

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
var spacings = map[place]string{
	{moved: Low, finger: 1}: "1 close to the nut", {finger: 1}: "1 a whole step from the nut",
	{moved: Low, finger: 2}: "2 close to 1",
	{finger: 2}:             "2 a whole step from 1", {moved: Low, finger: 3}: "3 close to a low 2",
	{finger: 3}:              "3 in its place, close to a high 2",
	{moved: High, finger: 3}: "3 close to 4", {moved: Low, finger: 4}: "4 close to 3",
	{finger: 4}: "4 a whole step from 3",
}

// shiftedSpacings are those that a hand away from the nut says otherwise.
var shiftedSpacings = map[place]string{{moved: Low, finger: 1}: "1 drawn back", {finger: 1}: "1 in its place"}

func (w Words) sayStopped(i instrument.Instrument, f Fingering) string {
	name := i.OpenStrings[f.String].Step.String()
	if f.Finger == 0 {
		return "open " + name
	}
	player := playerOf(i)
	in, shifted := player.in(f.Position), f.Position != player.first()
	finger := map[Moved]string{Low: "low ", High: "high ", Extended: "extended "}[f.Moved] + strconv.Itoa(f.Finger)
	if i.Hand == instrument.UpperHand && w.Spacing {
		at := place{moved: f.Moved, finger: f.Finger}
		finger = spacings[at]
		if said := shiftedSpacings[at]; shifted && said != "" {
			finger = said
		}
	}
	said := fmt.Sprintf("%s on %s", finger, name)
	if i.Hand == instrument.CelloHand && f.Moved == InPlace && (f.Finger == 2 || f.Finger == 3) {
		said += ", the " + map[int]string{2: orElse(w.Two, defaultTwo), 3: orElse(w.Three, defaultThree)}[f.Finger]
	}
	if shifted {
		said += ", " + in.word + " position"
	}
	return said
}

func orElse(word, standard string) string {
	if word == "" {
		return standard
	}
	return word
}
