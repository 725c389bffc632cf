package routine

// Named is a routine with what it is called.
type Named struct {
	ID     string // names it in tables and addresses
	Title  string
	Why    string // what it is for, in a sentence
	Family string // the instruments it suits; "" is all
	Steps  Routine
}

// Suits says whether the routine is for instruments of a family; where no family is asked
// for, it is.
func (n Named) Suits(family string) bool { return n.Family == "" || family == "" || n.Family == family }

// StandardID names the routine that is used where nothing else is chosen.
const StandardID = "count-first"

// Shipped lists the routines that come with the program. Source: schools of teaching that
// are common practice, under names of our own.
func Shipped() []Named {
	standard := Standard()
	name, finger, play := standard[1], standard[2], standard[3]
	both := func(s Step, mends ...Cause) Step {
		s.Mends = mends
		return s
	}
	worded := func(s Step, word string) Step {
		s.Word = word
		return s
	}
	air := Step{Stage: "air", Word: "Air", Kind: Count, Mends: []Cause{Rhythm}, Ways: []Way{Clap, Air}}
	mouthpiece := Step{Stage: "mouthpiece", Word: "Mouthpiece", Kind: Play, Ways: []Way{Mouthpiece}}
	echo := Step{Stage: "echo", Word: "Echo", Kind: Play, Ways: []Way{Echo}}
	pluck := Step{Stage: "pluck", Word: "Pluck", Kind: Play, Ways: []Way{Pluck}}
	hands := Step{Stage: "hands", Word: "Hands", Kind: Finger, Mends: []Cause{WrongName, Fingering}, Ways: []Way{Silent}}
	pad := Step{Stage: "pad", Word: "Pad", Kind: Play, Ways: []Way{Pad}}
	look := Step{Stage: "look", Word: "Look", Kind: Name, Mends: []Cause{Rhythm, WrongName}}
	listen := Step{Stage: "listen", Word: "Listen", Kind: Finger, Mends: []Cause{Fingering}, Ways: []Way{Along}}
	straight := play
	straight.Ways = nil
	return []Named{
		{StandardID, "Count first", "Rhythm alone, then the names, then the hands, and sound last.", "", standard},
		{"name-first", "Name first, in three steps", "Reading leads: say the notes in time, say and finger them, play.", "", Routine{
			both(name, WrongName, Rhythm), worded(both(finger, Fingering), "Name and finger"), play,
		}},
		{"echo-first", "Hear and echo first", "The ear leads: four counts are heard and answered before the page is read.", "", append(Routine{echo}, standard...)},
		{"air-first", "Air and mouthpiece first", "For brass: the rhythm on air, then buzzed, before a valve or the slide moves.", "brass", Routine{
			air, mouthpiece, name, finger, straight,
		}},
		{"pluck-first", "Pluck, then bow", "For strings: the left hand is sure before the bow comes to it.",
			"strings", Routine{
				standard[0], name, finger, pluck, worded(straight, "Bow"),
			}},
		{"hands-first", "Hands, then pad", "For percussion: the sticking in the bare hands, on the pad, then on the drum or the bars.", "percussion", Routine{
			standard[0], hands, pad, straight,
		}},
		{"look-listen-play", "Look, listen, play", "For short lines and those who read already: eyes first, then ears and fingers, then sound.", "", Routine{
			look, listen, play,
		}},
	}
}

// ShippedAs finds one of Shipped.
func ShippedAs(id string) (Named, bool) {
	for _, n := range Shipped() {
		if n.ID == id {
			return n, true
		}
	}
	return Named{}, false
}

// First is the first of some routines that suits a family; ok is false where none does.
func First(family string, chosen ...Named) (n Named, ok bool) {
	for _, n := range chosen {
		if len(n.Steps) > 0 && n.Suits(family) {
			return n, true
		}
	}
	return Named{}, false
}
