// Package walk lays out a led run through a line: who does what, when, and what is said and
// heard meanwhile, to the millisecond.
package walk

import (
	"slices"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/finger"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/lesson"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
)

// Act is what is done in a move.
type Act string

// The acts. Source: common practice.
const (
	Listen     Act = "listen"
	Look       Act = "look"
	Count      Act = "count"
	Clap       Act = "clap" // and count
	Name       Act = "name"
	Finger     Act = "finger"
	Along      Act = "along" // fingers move while the part sounds
	Lap        Act = "lap"   // tapped with bare hands
	Air        Act = "air"
	Mouthpiece Act = "mouthpiece"
	Pluck      Act = "pluck"
	Pad        Act = "pad"
	Sing       Act = "sing"
	Echo       Act = "echo"  // a measure heard, a measure answered
	SayPlay    Act = "say"   // a measure said, a measure played
	Pairs      Act = "pairs" // one says, one plays
	Play       Act = "play"
)

// With is who does a move: the program alone, both, or the student or class alone.
type With string

// The three.
const (
	Heard    With = "heard"
	Together With = "together"
	Alone    With = "alone"
)

// Player is an instrument with its part.
type Player struct {
	Instrument instrument.Instrument
	Report     breakdown.Report
}

// Ask is what is wanted of a run.
type Ask struct {
	Unit    lesson.Unit
	Routine routine.Routine
	Minutes int // at most, 0 for as long as it takes
	Tempo   int // in beats a minute, 0 for where the line begins
	Options breakdown.Options
	Fingers finger.Words
	States  map[breakdown.ChunkKey]routine.State // what was earned
	Class   bool                                 // several who do it together
	Of      string                               // what the line is called, "" for "the line"
	Where   string                               // where it lies, "m. 3–4", where it is a chunk
}

// Bounds of what may be asked.
const (
	MostMinutes = 60
	SlowestRun  = 20 // beats a minute
	FastestRun  = 240
)

// Run is a led run. Times are in seconds from its beginning.
type Run struct {
	Title    string    `json:"title"`
	Players  []Playing `json:"players"`
	Tempo    int       `json:"tempo"`
	BeatName string    `json:"beat"`
	Unit     string    `json:"unit"`
	Moves    []Move    `json:"moves"`
	Seconds  float64   `json:"seconds"`
	Left     int       `json:"left,omitempty"` // passes left out to keep to the minutes asked for
	Question *Question `json:"question,omitempty"`
}

// Playing is an instrument in a run with its first note.
type Playing struct {
	Instrument string `json:"instrument"` // id
	Name       string `json:"name"`
	First      string `json:"first"`            // written name, "" of a stroke without one
	Fingering  string `json:"finger,omitempty"` // in words
}

// Move is one pass of a run.
type Move struct {
	Chunk  string        `json:"chunk"` // its key
	Where  string        `json:"where"` // "m. 3–4", "the line"
	Joined bool          `json:"joined,omitempty"`
	Stage  routine.Stage `json:"stage"`
	Form   routine.Stage `json:"form"`
	Word   string        `json:"word"`
	Act    Act           `json:"act"`
	With   With          `json:"with"`

	Minds  []string `json:"minds,omitempty"` // what matters here, said first
	Says   string   `json:"says"`            // the instruction
	Again  string   `json:"again,omitempty"` // what need not be learned, said after
	Cue    string   `json:"cue"`             // "breath", "bow" or "sticks", with the last beat of the count-off
	Shows  []string `json:"shows"`           // lanes: tap, count, name, finger
	Hand   bool     `json:"hand,omitempty"`  // the hand stands large
	Clicks bool     `json:"clicks"`
	Part   bool     `json:"part,omitempty"` // the part is heard
	Voice  Voice    `json:"voice,omitempty"`

	At       float64     `json:"at"`     // where it begins, with its words
	Begins   float64     `json:"begins"` // the first note of its first measure
	Ends     float64     `json:"ends"`
	Gap      float64     `json:"gap"` // silence after it
	CountOff []Cue       `json:"countOff"`
	Passages []Stretch   `json:"passages"`
	Spoken   []Utterance `json:"spoken,omitempty"`

	rank  rank
	key   breakdown.ChunkKey
	chunk breakdown.Chunk
	step  routine.Step
}

// Cue is a word before the music.
type Cue struct {
	At     float64 `json:"at"`
	Word   string  `json:"word"`
	Says   string  `json:"says"` // as it is said: "one"
	Beat   bool    `json:"beat"`
	Breath bool    `json:"breath,omitempty"`
}

// Stretch is a measure, or as much of one as belongs to a chunk, at its time.
type Stretch struct {
	Index int     `json:"index"` // of the measure in the part
	From  float64 `json:"from"`  // in whole notes from its bar line
	To    float64 `json:"to"`
	At    float64 `json:"at"`
	Hold  float64 `json:"hold,omitempty"` // seconds that a fermata at its end adds, without a click
	Who   With    `json:"who"`            // heard where the program plays or says it

	from, to score.Fraction
}

// Through leads some players, of whom the first leads, through their line. It has a move at
// least: the line is played also where everything is earned.
func Through(ask Ask, players ...Player) Run {
	lead := players[0]
	part := lead.Report.Part
	run := Run{Title: lead.Report.Title, Tempo: ask.Tempo, Unit: string(ask.Unit), BeatName: part.Meter().BeatName(ask.Options.British)}
	if run.Tempo == 0 {
		run.Tempo = lead.Report.Tempo.Suggested
	}
	for _, p := range players {
		run.Players = append(run.Players, Starts(ask, p))
	}
	b := newBuilder(ask, run.Tempo, players)
	passes := b.passes()
	run.Moves, run.Seconds = b.lay(passes)
	most, spare := float64(60*ask.Minutes), needed
	if ask.Minutes == 0 {
		most, spare = b.usualSeconds(), middleWhereEasy
	}
	for run.Seconds > most {
		fewer, left := withoutLeast(passes, spare)
		if !left {
			break
		}
		passes = fewer
		run.Left++
		run.Moves, run.Seconds = b.lay(passes)
	}
	run.Question = b.question().told()
	return run
}

// Starts is a player with the first note of the line.
func Starts(ask Ask, p Player) Playing {
	own := Playing{Instrument: p.Instrument.ID, Name: p.Instrument.Title()}
	for _, m := range p.Report.Measures {
		for _, e := range m.Events {
			if e.Kind == "note" {
				own.First = e.Name
				if e.Played != nil && e.Fingering != "" { // a note beyond the instrument has none
					own.Fingering = ask.Fingers.Say(p.Instrument, e.Played.Fingering)
				}
				return own
			}
		}
	}
	return own
}

// rank is how much is lost with a pass, the least first.
type rank int

const (
	joins rank = iota
	aloneOnTheWay
	heardAgain
	aloneWhereEasy
	middleWhereEasy
	alsoSung
	middle
	heardFirst
	needed
)

// usualMinutes are how long a run through eight measures of 4/4 at 63 in four stages takes at
// most, where nobody says. The figures are ours.
var usualMinutes = map[lesson.Unit]float64{lesson.WholeLine: 7, lesson.Usual: 9, lesson.ChunkByChunk: 10, lesson.HardSpots: 10}

// usualSeconds is how long a run takes at most where nobody says: more where the line is longer
// or the routine has more stages.
func (b *builder) usualSeconds() float64 {
	const eight = 8 * 4 * 60 / 63.0
	part := b.lead.Report.Part
	line := breakdown.Beats(part, b.chunks[len(b.chunks)-1].Played(part)) * 60 / float64(b.tempo)
	return 60 * usualMinutes[b.ask.Unit] * max(1, line/eight) * max(1, float64(len(b.ask.Routine))/4)
}

// withoutLeast leaves out the pass that is missed least, of several the last, of a rank below
// one; ok is false where there is none.
func withoutLeast(passes []Move, below rank) (fewer []Move, ok bool) {
	least := -1
	for k, p := range passes {
		if p.rank < below && (least < 0 || p.rank <= passes[least].rank) {
			least = k
		}
	}
	if least < 0 {
		return passes, false
	}
	return slices.Delete(slices.Clone(passes), least, least+1), true
}
