package finger

import (
	"fmt"
	"strconv"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// position is a place of the left hand.
type position struct {
	name string // as written in brackets, "" for the first
	base int    // semitones from the open string to the first finger of the plain hand
	step int    // letters from the open string to the first finger
	word string
}

// place is a finger in the plain hand, or moved from it.
type place struct {
	moved  Moved
	finger int
	step   int // letters above the first finger
}

// player is how the left hand of one kind of instrument is set.
type player struct {
	positions []position      // in the order in which they are thought of
	hand      map[int][]place // by semitones above the first finger of the plain hand
	extends   bool            // a cello's hand, which extends
	near      bool            // the bass's hand spans a whole step: it moves by half steps too, and any finger leads it
}

// The plain hand of violin and viola has a whole step, a half step and a whole
// step between its fingers; low and high fingers are a half step from their place
// in it. The cello's fingers are a half step apart; extended, the first reaches a
// half step back, or the other three together a half step on. The double bass has 1,
// 2 and 4, a half step apart. Source: common practice.
var (
	violinPlayer = player{
		positions: []position{{"", 2, 1, "first"}, {"half", 1, 1, "half"}, {"III", 5, 3, "third"}, {"II", 4, 2, "second"}},
		hand: map[int][]place{-1: {{Low, 1, 0}}, 0: {{InPlace, 1, 0}}, 1: {{Low, 2, 1}},
			2: {{InPlace, 2, 1}, {Low, 3, 2}}, 3: {{InPlace, 3, 2}},
			4: {{High, 3, 2}, {Low, 4, 3}}, 5: {{InPlace, 4, 3}}},
	}
	celloPlayer = player{
		positions: []position{
			{"", 2, 1, "first"},
			{"half", 1, 1, "half"},
			{"IV", 7, 4, "fourth"},
			{"III", 5, 3, "third"},
			{"II", 3, 2, "second"},
		},
		hand: map[int][]place{
			-1: {{Extended, 1, 0}},
			0:  {{InPlace, 1, 0}},
			1:  {{InPlace, 2, 1}},
			2:  {{InPlace, 3, 1}, {Extended, 2, 1}},
			3:  {{InPlace, 4, 2}, {Extended, 3, 1}},
			4:  {{Extended, 4, 2}},
		},
		extends: true,
	}
	bassPlayer = player{
		positions: []position{
			{"", 2, 1, "first"},
			{"half", 1, 1, "half"},
			{"III", 5, 3, "third"},
			{"IV", 7, 4, "fourth"},
			{sixth, 10, 6, "sixth"},
			{"II½", 4, 2, "second-and-a-half"},
			{"II", 3, 2, "second"},
		},
		hand: map[int][]place{0: {{InPlace, 1, 0}}, 1: {{InPlace, 2, 0}}, 2: {{InPlace, 4, 1}}},
		near: true,
	}
)

// sixth is the double bass's sixth position, in which the third finger takes the
// place of the fourth.
const sixth = "VI"

// players is how each pattern of the hand is set. An instrument without one has no
// fingerings.
var players = map[instrument.HandPattern]player{
	instrument.UpperHand: violinPlayer,
	instrument.CelloHand: celloPlayer,
	instrument.BassHand:  bassPlayer,
}

func playerOf(i instrument.Instrument) player { return players[i.Hand] }

// stopped lists the ways to stop a note: in first position on the highest string
// it lies on, open where it can be; on the double bass in half position where
// first does not have it; else in the position farther up. Then its other places
// on that string and on the next one below.
func stopped(i instrument.Instrument, p score.Pitch) []Fingering {
	return stoppedIn(i, p, playerOf(i).positions)
}

// stoppedIn is stopped, with some of the positions only.
func stoppedIn(i instrument.Instrument, p score.Pitch, positions []position) []Fingering {
	if len(positions) == 0 { // a hand that is not known
		return nil
	}
	top := len(i.OpenStrings) - 1
	for top > 0 && i.OpenStrings[top].MIDI() > p.MIDI() {
		top--
	}
	var found []Fingering
	for k := top; k >= max(0, top-1); k-- {
		found = append(found, onString(i, p, k, positions, k < top)...)
	}
	return found
}

// onString lists the ways to stop a note on one string.
func onString(i instrument.Instrument, p score.Pitch, k int, positions []position, lower bool) []Fingering {
	open, player := i.OpenStrings[k], playerOf(i)
	up := p.MIDI() - open.MIDI()
	name := open.Step.String()
	var found []Fingering
	if up == 0 {
		found = append(
			found,
			Fingering{Shape: Shape{String: k, Position: player.first()}, Text: name + "0",
				Why: "the open string: no finger, and it rings"},
		)
	}
	for _, at := range positions {
		for _, pl := range player.find(at, up-at.base, p.Diatonic()-open.Diatonic()) {
			f := pl.on(name, at)
			f.String, f.Why = k, pl.reason(at, open, up, lower)
			found = append(found, f)
		}
	}
	return found
}

// first is where the hand lies in first position.
func (pl player) first() int { return pl.positions[0].base }

// in is the position in which the hand lies at a distance from the open string.
func (pl player) in(base int) position {
	for _, at := range pl.positions {
		if at.base == base {
			return at
		}
	}
	return position{}
}

// find gives the fingers at a distance from the first, in semitones: where a finger
// and the next can both be there the spelling decides, and one that only a
// extended hand brings there comes last. In half position and beyond the third no
// first finger is drawn back, and outside first none is extended.
func (pl player) find(at position, semitones, letters int) []place {
	if semitones < 0 && at.name != "" && at.name != "II" && at.name != "III" {
		return nil
	}
	var found []place
	for _, p := range pl.hand[semitones] {
		switch {
		case p.moved == Extended && at.name != "":
		case p.moved == Extended || len(found) == 0:
			found = append(found, p)
		case at.step+p.step == letters:
			found[0] = p
		}
	}
	return found
}

// on is the finger in a position as a fingering on the string of a letter: "D2", "A L2",
// "E4(III)".
func (p place) on(letter string, at position) Fingering {
	finger := p.finger
	if at.name == sixth && finger == 4 {
		finger = 3
	}
	text := letter + strconv.Itoa(finger)
	if p.moved != InPlace {
		text = letter + " " + p.moved.spelled() + strconv.Itoa(finger)
	}
	if at.name != "" {
		text += "(" + at.name + ")"
	}
	return Fingering{Shape: Shape{Position: at.base, Finger: finger, Moved: p.moved}, Text: text}
}

func (p place) reason(at position, open score.Pitch, up int, lower bool) string {
	switch {
	case p.moved == Extended && p.finger != 1 && !lower:
		return "the hand extended: 1 stays, and 2, 3 and 4 stand a half step on"
	case at.name == "" && lower && up > 6:
		return "fourth finger: no string crossing, and it does not ring on"
	case lower:
		return at.word + " position on the " + open.Step.String() + " string: no string crossing, a darker sound"
	case at.name == "half":
		return "half position: the hand a half step back, where low fingers follow each other"
	}
	return at.word + " position, where the notes around it are there"
}

// stringChange counts 1 for another finger, 1 for each string crossed, 2 for a
// finger that moves to another place on its string, which is hard in the first two
// years, 1 for the same finger on the next string and 3 where it also moves, 1 for
// another finger pattern, 1 for a hand that opens or closes an extension and 6 for
// one whose fingers would have to slide into it together. A shift is 5, 1 more
// beyond a third, and 5 more where no finger leads it; the double bass's hand goes a
// half step for 4, and any finger leads it. The figures are ours.
func stringChange(i instrument.Instrument, year int, from, to Played, why *reasons) int {
	pl := playerOf(i)
	cost := 0
	say := func(n int, reason string) {
		cost += n
		why.say(reason)
	}
	sayHard := func(n int, reason string) {
		cost += n
		why.sayHard(reason)
	}
	crossed := max(from.String-to.String, to.String-from.String)
	if crossed > 0 && why != nil {
		why.say(count(crossed, "string crossed", "strings crossed"))
	}
	cost += crossed
	both := from.Finger > 0 && to.Finger > 0
	shift := max(from.Position-to.Position, to.Position-from.Position)
	switch {
	case to.Finger == 0 && from.Finger > 0:
		say(1, "the finger lifts")
	case from.Finger == 0 && to.Finger > 0:
		say(1, "a finger goes down")
	case from.Finger != to.Finger:
		say(1, "another finger")
	case both && crossed == 0 && shift == 0 && from.Moved != to.Moved:
		if year < 3 {
			sayHard(2, "the same finger moves to another place")
		} else {
			say(2, "the same finger moves to another place")
		}
	}
	switch {
	case !both:
	case shift == 1 && pl.near && i.Pivots:
		sayHard(4, "the hand pivots a half step, the thumb staying")
	case shift == 1 && pl.near:
		sayHard(4, "the hand shifts a half step")
	case shift > 0:
		sayHard(5+shift/5, "the hand shifts")
		if !pl.near && !leads(from.Finger, to.Finger) {
			cost += 5
		}
	case from.extension() != to.extension() && (from.Finger != to.Finger || crossed > 0):
		if opens(from, to) {
			say(1, "the hand opens or closes for an extension")
		} else {
			sayHard(6, "2, 3 and 4 slide a half step together")
		}
	case crossed > 0 && from.Finger == to.Finger && from.Moved != to.Moved:
		sayHard(3, "the same finger moves to another place across the strings")
	case crossed > 0 && from.Finger == to.Finger:
		say(1, "the same finger on the next string")
	case crossed > 0 && from.Moved != to.Moved:
		sayHard(1, "into another finger pattern")
	}
	return cost
}

// leads says whether a finger on both sides of a shift, or the first on one, takes
// the hand along.
func leads(from, to int) bool {
	return from == 1 || to == 1 || from == to && from < 4
}

// How a cello's hand is extended.
const (
	closed = iota
	back   // the first finger reaches a half step back
	onward // 2, 3 and 4 stand a half step on
)

func (s Shape) extension() int {
	switch {
	case s.Moved != Extended:
		return closed
	case s.Finger == 1:
		return back
	}
	return onward
}

// opens says whether a hand gets from one extension to another by opening or closing
// between 1 and 2, the fingers on either side staying where they are.
func opens(from, to Played) bool {
	if from.extension() != onward && to.extension() != onward {
		return true
	}
	return from.extension() == closed && from.Finger == 1 || to.extension() == closed && to.Finger == 1
}

// AcrossANote adds to a change what the note before last has to do with it: on
// strings a finger that comes back to another place on its string with one note
// between, which is hard in the first two years.
func AcrossANote(i instrument.Instrument, last, between, now Played, c Change, year int) Change {
	if last.Text == "" || between.Text == now.Text || !last.Stopped(i) || !now.Stopped(i) {
		return c
	}
	if last.String != now.String || last.Position != now.Position || last.Finger != now.Finger || last.Moved == now.Moved {
		return c
	}
	c.Cost += 2
	c.Hard = c.Hard || year < 3
	c.Why += fmt.Sprintf(", finger %d now stands in another place than a note ago", now.Finger)
	return c
}

// AcrossOpen adds to a change the shift that the hand made while an open string
// sounded.
func AcrossOpen(i instrument.Instrument, stopped, before, now Played, c Change) Change {
	if stopped.Text == "" || before.Stopped(i) || !now.Stopped(i) {
		return c
	}
	if stopped.Position == now.Position {
		return c
	}
	c.Cost += 2
	c.Why += fmt.Sprintf(", the hand shifts to %s position while the open string sounds",
		playerOf(i).in(now.Position).word)
	return c
}
