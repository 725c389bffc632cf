// Package care tells, for each kind of instrument, how it is set up, held, first sounded and put
// away, what to do when it does not sound, and what to be careful of. It gives general
// cautions, and leaves the rest to the teacher, the school's rules and health professionals.
package care

import "unhurriedbench/core/instrument"

// Kind is a kind of instrument that is cared for alike.
type Kind string

// The kinds, in score order.
const (
	Flutes     Kind = "flutes"
	Reeds      Kind = "reeds"
	Brass      Kind = "brass"
	Strings    Kind = "strings"
	Percussion Kind = "percussion"
)

// Kinds lists them.
func Kinds() []Kind { return []Kind{Flutes, Reeds, Brass, Strings, Percussion} }

// Title is the kind's name on a page.
func (k Kind) Title() string {
	return map[Kind]string{Flutes: "Flutes", Reeds: "Reeds", Brass: "Brass", Strings: "Strings",
		Percussion: "Percussion"}[k]
}

// KindOf is the kind of an instrument.
func KindOf(i instrument.Instrument) Kind {
	switch {
	case i.Family == "brass":
		return Brass
	case i.Bowed():
		return Strings
	case i.Family == "percussion":
		return Percussion
	case i.Keys == instrument.FluteKeys:
		return Flutes
	}
	return Reeds
}

// Topic is something there is to know.
type Topic string

// The topics, in the order in which a beginner meets them.
const (
	SetUp   Topic = "set-up"
	Hold    Topic = "hold"
	First   Topic = "first-sounds"
	Silent  Topic = "no-sound"
	After   Topic = "after"
	Careful Topic = "careful"
)

// Topics lists them.
func Topics() []Topic { return []Topic{SetUp, Hold, First, Silent, After, Careful} }

// Title is what the topic is called on a page.
func (t Topic) Title() string {
	return map[Topic]string{
		SetUp: "Setting up", Hold: "Sitting and holding", First: "First sounds", Silent: "When it does not sound",
		After: "After playing", Careful: "Take care",
	}[t]
}

// Longest is the most letters of a text that a teacher puts in place of ours.
const Longest = 3000

// common is the source of what teachers know.
const common = "common practice"

// Advice is what there is to know of a topic.
type Advice struct {
	Lines  []string
	Source string
}

// forEverybody are cautions that hold whatever is played. Source of the figures: NIOSH
// publication 98-126, Criteria for a Recommended Standard: Occupational Noise Exposure.
var forEverybody = []string{
	"Lips, jaw, hands or back that are tired or sore: stop and rest, and tell the teacher; a doctor or therapist, if it lasts.",
	"Loud rooms tire the ears. NIOSH recommends at most 85 dBA over eight hours, and half the time for every 3 dB more; rehearsal rooms and drums can be louder. Ear protection helps; so do breaks.",
	"The school’s rules and the teacher’s advice come before this page.",
}

// For is what there is to know of a topic for a kind of instrument.
func For(k Kind, t Topic) Advice {
	if t == Careful {
		return Advice{append(own[k][Careful], forEverybody...), "common practice; hearing: NIOSH 98-126"}
	}
	return Advice{own[k][t], common}
}

var own = map[Kind]map[Topic][]string{
	Flutes: {
		SetUp: {"Hold the parts where there are no keys, and turn them into each other; nothing is forced.",
			"The blow hole lies in line with the first keys, then a little towards you."},
		Hold: {"Sit at the front of the chair, both feet flat, the head up and turned a little to the left.",
			"The flute rests on the left first finger’s base, the right thumb under it, and the chin."},
		First: {"With the head joint alone: lips as for “pooh”, the lower lip covering a third of the hole, the air across it to the far edge.", "Cover the end of the head joint with the palm: low; open: high. Hold each as long as a slow breath."},
		Silent: {"Roll it out a little until it speaks: it is mostly rolled in too far.",
			"An octave low: faster air, aimed a little higher, through a smaller opening."},
		After: {"A cloth on the rod through each part; wipe the outside, not the pads.",
			"In the case with the keys up, and the case shut before it is lifted."},
		Careful: {"Dizzy from long blowing: sit, and breathe as usual until it has passed.",
			"A mouthpiece is one person’s own; where it has to be shared, it is cleaned as the school says."},
	},
	Reeds: {
		SetUp: {"Wet the reed first. Cork that sticks gets a little grease; hold the joints where no rod is bent, and line up the bridge keys.", "The tip of the reed is level with the tip of the mouthpiece; two screws, not too tight. Double reeds go in straight.",
			"Oboe: the reed’s cork goes all the way down; the bridge keys between the joints are lined up without pressing them.",
			"Bassoon: boot first, then the wing and the long joint, the bell, and the bocal last, pushed at its bend and never by its little key. The seat strap hooks into the boot before the bassoon is lifted."},
		Hold:  {"Sit tall, both feet flat; the instrument comes to you, not you to it. A strap carries what is heavy: set it before you play.", "Curved fingers, pads on the holes or keys, thumbs where the teacher shows."},
		First: {"Mouthpiece or reed alone: corners firm, chin flat, upper teeth on the mouthpiece (none on a double reed), and one steady breath.", "Then the first three notes, as long as a slow breath each."},
		Silent: {"A squeak: a finger leaks, a side key is touched, or the bite is too hard.",
			"Nothing at all: the reed is dry, chipped or too far down; look at it, move it, or take another."},
		After: {"Reed off, dry it, and into its holder. Swab through every joint, the bell first.",
			"Wipe the cork; put the parts away so that no key is bent.",
			"Oboe: a swab can stick in the upper joint. It goes in at the wide end, its cord free of knots; where it does not run, it is drawn back, never forced.",
			"Bassoon: the bocal comes off first and is blown through; the boot is emptied and swabbed through its wide bore."},
		Careful: {"A reed and a mouthpiece are one person’s own: neither is shared. Wash the mouthpiece with lukewarm water and dry it.", "Dizzy from long blowing: sit, and breathe as usual until it has passed.", "Lips rest as long as they played when it is new or high."},
	},
	Brass: {
		SetUp: {"The mouthpiece goes in with a small turn, and is never knocked. Valves take valve oil, tuning slides take grease.",
			"Trombone: the hand slide takes cream or oil of its own with a little water, never grease; it stays locked until it is held.",
			"Horn: rotors take rotor oil, a drop on each bearing; piston oil is too thin to last there.", "Water out before you begin."},
		Hold:  {"Sit tall, both feet flat. The left hand carries, the right is free for valves or slide; on the horn the left hand has the valves, and the right lies in the bell.", "The mouthpiece in the middle of the lips, no harder than to seal."},
		First: {"Air first: “hoo” through a round mouth. Then the lips buzz, then the mouthpiece alone, then the horn, one long note each.", "A note that is comfortable, held as long as a slow breath; listen where it begins."},
		Silent: {"Say “em”, keep the corners, and let faster air start the buzz.",
			"Too low: faster air, firm corners. Too high: slower air, an open throat. A valve that is half down or in the wrong way stops everything."},
		After: {"Water out, slides and valves wiped; the mouthpiece rinsed with lukewarm water.",
			"Slide locked, in the case before you stand up.",
			"A mouthpiece that is stuck is never pulled, twisted or knocked: the teacher has a tool for it."},
		Careful: {"A mouthpiece is one person’s own.",
			"Lips rest as long as they played when it is new or high; anyone who is tired stops.",
			"Lift a heavy case with the knees, with two people where it is large.",
			"Dizzy from long blowing: sit, and breathe as usual until it has passed."},
	},
	Strings: {
		SetUp: {"Bow hair tight enough for a pencil between hair and stick; a few strokes of rosin every few days, and no finger on the hair. Violin and viola: the shoulder rest; cello and bass: the end pin, in its stop so that it does not slip.", "Tuned by the teacher, or at the fine tuners with one: a string that is turned too far breaks."},
		Hold:  {"Violin and viola: nose, scroll and foot in one direction, the head heavy on the chin rest, the left hand free. Cello and bass: sit at the front edge, or stand as the teacher shows, the instrument leaning to you.", "Bow hand: the thumb bent, the fingers over the stick like over a rail."},
		First: {"Pluck each open string, and say its name. Then whole bows on one string, four slow counts each, straight, halfway between fingerboard and bridge.", "Listen: no scratch, no whistle, one tone from end to end."},
		Silent: {"A whistle: weight on the string before the bow moves. A scratch: less weight, or a faster bow.",
			"Nothing: the bow has no rosin, or its hair is loose."},
		After: {"Loosen the bow. Wipe the rosin off the strings and the wood with a dry cloth.",
			"End pin in, the cover for the point on; never leave it where somebody walks."},
		Careful: {"An end pin is sharp: mind feet and floors.",
			"Neck, shoulder or left hand that hurts is not practice: stop, and show the teacher how you sit."},
	},
	Percussion: {
		SetUp: {"The stand stands fast, the drum or pad as high as the hands hang; mallets that suit the bars.",
			"What is heavy is carried by two."},
		Hold:  {"Stand tall, shoulders low, elbows a little away. Each stick between thumb and first finger, about a third from its end; the others lie round it.", "Both hands alike, the tips close together."},
		First: {"One hand, then the other: let the stick fall and rebound to the height it came from, always at one spot.", "Then right and left in turn, soft, as even as steps."},
		Silent: {"A dull stroke: the stick is pressed; let it rebound.",
			"A buzz: the stand or the snares; look before you hit harder. Bars: strike the middle, not over the cord."},
		After: {"Sticks in their bag, covers on; snares off. Nothing is laid on a head.",
			"Bars: the cover on, mallets off them. Timpani: nothing leans on the rim, and they are moved by the struts, not by the rim.",
			"Whatever was tuned down stays so only where the teacher says."},
		Careful: {"Drums are loud: practise on a pad, and take breaks for the ears.",
			"Wrists or forearms that ache: stop, shake them out, and go on tomorrow."},
	},
}
