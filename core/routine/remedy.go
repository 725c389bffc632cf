package routine

import (
	"strings"

	"unhurriedbench/core/instrument"
)

// Remedy is something that goes wrong, with what helps.
type Remedy struct {
	Sign   string // "an octave low"; "" for whatever the cause covers
	Do     string
	Source string
}

// common is the source of a remedy that teachers know.
const common = "common practice"

// remedies says for each cause what helps whom, the first that fits being the one to
// offer. Instruments are chosen by their traits, so that an instrument of a kind has what its kind has.
var remedies = []struct {
	cause Cause
	of    func(instrument.Instrument) bool
	Remedy
}{
	{Rhythm, instrument.Instrument.Unpitched, Remedy{"",
		"Say the count with the hands still, then with the right hand alone.", common}},
	{Rhythm, anybody, Remedy{"", "Clap it once, counting aloud, foot down on every beat.", common}},
	{Rhythm, blown, Remedy{"an early or late entry", "Count the rest aloud; breathe in on the beat before you come in.", common}},
	{Rhythm, bowed, Remedy{"an early or late entry", "Count the rest aloud; set the bow on the beat before you come in.", common}},
	{Rhythm, anybody, Remedy{"a long note cut short",
		"Say its held beats aloud; it ends where the next beat begins.", common}},

	{WrongName, instrument.Instrument.Unpitched, Remedy{"",
		"Say right or left for each stroke, slowly, pointing.", common}},
	{WrongName, anybody, Remedy{"", "Count the steps from the note before, or from the clef’s own line.", common}},
	{WrongName, pitched, Remedy{"a missed accidental",
		"Look at the key signature, then back through the measure on that line or space.", common}},

	{Fingering, slides, Remedy{"", "Stop at the landmark: 3rd has its brace at the bell, 4th the slide just past the bell. The slide is there before the tongue.", common}},
	{Fingering, valved, Remedy{"", "Press straight down with the tips, all the valves of a note at once, before the tongue.", common}},
	{Fingering, clarinets, Remedy{"", "Fingers close over their holes; every finger of a note moves at once, while its name is said.", common}},
	{Fingering, woodwinds, Remedy{"", "Fingers close over their holes; every finger of a note moves at once, while its name is said.", common}},
	{Fingering, bowed, Remedy{"", "Set the finger before the note, and leave the lower ones down.", common}},
	{Fingering, barred, Remedy{"", "Look at the bar before the mallet moves, and name the hand.", common}},
	{Fingering, instrument.Instrument.Unpitched, Remedy{"",
		"In the air, slowly, saying right and left for each stroke.", common}},
	{Fingering, anybody, Remedy{"", "Go between these two notes alone, slowly, until the hands know the way.", common}},
	{Fingering, valved, Remedy{"a valve that sticks", "Oil it, and press it straight, not sideways.", common}},
	{Fingering, clarinets, Remedy{"B natural for B flat, below the staff",
		"Finger 4 makes the B flat; finger 5 makes the natural.", common}},
	{Fingering, clarinets, Remedy{"the break, from the throat tones up to B and C",
		"The right hand is down before you cross; thumb and register key together, every hole shut, the air as it was.", common}},
	{Fingering, oboes, Remedy{"C sharp, D or E flat in the staff that will not speak",
		"Roll the left first finger down from its hole, half open; it does not lift.", common}},
	{Fingering, bassoons, Remedy{"F sharp, G or A flat that growls or cracks",
		"Half hole: roll the left first finger part of the way off its hole.", common}},
	{Fingering, bassoons, Remedy{"A, B flat, B or C that cracks",
		"Flick: touch the left thumb’s flick key just as the note begins, then let it go.", common}},
	{Fingering, saxophones, Remedy{"a leap into or out of the upper octave",
		"The left thumb rolls onto the octave key; it stays on its rest and does not lift.", common}},
	{Fingering, saxophones, Remedy{"high D, E flat or F with the palm keys",
		"The side of the left hand leans on the key; the fingers stay round.", common}},
	{Fingering, slides, Remedy{"a smear between two notes",
		"The slide moves late and fast, and a light tongue begins each note.", common}},
	{Fingering, bowed, Remedy{"a string crossed late or by accident",
		"The elbow goes to the level of the next string before the bow does.", common}},
	{Fingering, upper, Remedy{"the third finger following the second",
		"Set 3 by its own place; beside 2 only where the pattern has them together.", common}},

	{Sound, bowed, Remedy{"", "Weight on the string before the bow moves; straight, halfway from fingerboard to bridge.", common}},
	{Sound, struck, Remedy{"", "Let every stroke rebound to the height it came from, in the same spot.", common}},
	{Sound, fluted, Remedy{"an octave low", "Faster air, aimed a little higher, through a smaller opening.", common}},
	{Sound, fluted, Remedy{"no sound", "It is rolled in too far: roll it out until it speaks.", common}},
	{Sound, reeded, Remedy{"a squeak", "Feel whether a finger leaks or touches a side key; ease the bite.", common}},
	{Sound, brassy, Remedy{"a partial low", "Faster air, firm corners; hear the note before it starts.", common}},
	{Sound, brassy, Remedy{"a partial high", "Slower air, an open throat; hear the note before it starts.", common}},
	{Sound, fluted, Remedy{"an airy tone",
		"Head joint alone: a smaller opening, the air aimed at the far edge; a mirror shows whether it lies in the middle.", common}},
	{Sound, clarinets, Remedy{"thin throat tones",
		"Firm corners and faster air; the right hand may stay down, which darkens them.", common}},
	{Sound, oboes, Remedy{"a tone that is wild or flat", "Less reed in the mouth, round lips, and more support under it.", common}},
	{Sound, bassoons, Remedy{"a tone that is sharp or pinched", "A looser jaw and an open throat; the lips cushion the reed.", common}},
	{Sound, horns, Remedy{"a muffled or stopped tone",
		"The right hand lies open against the far side of the bell; it does not close it.", common}},
	{Sound, brassy, Remedy{"puffed cheeks", "Firm the corners; a mirror helps.", common}},
	{Sound, blown, Remedy{"a note that wobbles", "One steady stream of air, as long as the note.", common}},
	{Sound, blownPitch, Remedy{"a note that is sharp or flat",
		"Stop, sing it, and play it again as you sang it; then ask whether the whole instrument wants tuning.", common}},
	{Sound, bowed, Remedy{"a note that does not ring",
		"Play it with the open string of its name, an octave or in unison: where it rings, it is in tune.", common}},
	{Sound, bowed, Remedy{"a whistle or a scratch", "Keep the bow in its lane: straight, halfway between fingerboard and bridge.", common}},
	{Sound, drums, Remedy{"a popped flam", "One stick low, one high; both start together, and the low one lands just before.", common}},
	{Sound, drums, Remedy{"a choked roll", "Less weight: let each stick bounce until the other takes over.", common}},
	{Sound, bars, Remedy{"a dull bar", "Strike beside the middle of the bar, never over the cord.", common}},
	{Sound, kettles, Remedy{"a drum out of tune", "Sing the note, then tune up to it; check it by the fifth with the other drum.", common}},
}

func oboes(i instrument.Instrument) bool      { return i.Keys == instrument.OboeKeys }
func bassoons(i instrument.Instrument) bool   { return i.Keys == instrument.BassoonKeys }
func saxophones(i instrument.Instrument) bool { return i.Keys == instrument.SaxophoneKeys }
func horns(i instrument.Instrument) bool      { return i.HandInBell }
func blownPitch(i instrument.Instrument) bool { return i.Blown && !i.Unpitched() }
func drums(i instrument.Instrument) bool      { return i.Mechanism == instrument.Sticks }
func bars(i instrument.Instrument) bool       { return i.Mechanism == instrument.Bars }
func kettles(i instrument.Instrument) bool    { return i.Mechanism == instrument.Drums }

func anybody(instrument.Instrument) bool     { return true }
func pitched(i instrument.Instrument) bool   { return !i.Unpitched() }
func blown(i instrument.Instrument) bool     { return i.Blown }
func bowed(i instrument.Instrument) bool     { return i.Bowed() }
func upper(i instrument.Instrument) bool     { return i.Hand == instrument.UpperHand }
func slides(i instrument.Instrument) bool    { return i.Mechanism == instrument.Slide }
func valved(i instrument.Instrument) bool    { return i.Mechanism == instrument.Valves }
func woodwinds(i instrument.Instrument) bool { return i.Mechanism == instrument.Woodwind }
func clarinets(i instrument.Instrument) bool { return i.Keys == instrument.ClarinetKeys }
func fluted(i instrument.Instrument) bool    { return i.Keys == instrument.FluteKeys }
func reeded(i instrument.Instrument) bool    { return woodwinds(i) && !fluted(i) }
func brassy(i instrument.Instrument) bool    { return i.Family == "brass" }
func barred(i instrument.Instrument) bool {
	return i.Mechanism == instrument.Bars || i.Mechanism == instrument.Drums
}
func struck(i instrument.Instrument) bool { return i.Family == "percussion" }

// Remedies lists what may have gone wrong on an instrument when a try stumbled for a cause,
// with what helps; the first is the one to offer.
func Remedies(i instrument.Instrument, c Cause) []Remedy {
	var list []Remedy
	whatever := false // something without a sign is there
	for _, r := range remedies {
		if r.cause != c || !r.of(i) || r.Sign == "" && whatever {
			continue
		}
		whatever = whatever || r.Sign == ""
		list = append(list, r.Remedy)
	}
	return list
}

// Line is the remedy in one line: "A squeak? Feel whether …".
func (r Remedy) Line() string {
	if r.Sign == "" {
		return r.Do
	}
	return strings.ToUpper(r.Sign[:1]) + r.Sign[1:] + "? " + r.Do
}
