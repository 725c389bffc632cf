package walk

import (
	"slices"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/routine"
)

// stageActs are the stages that are an act of their own.
var stageActs = map[routine.Stage]Act{
	"look": Look, "air": Air, "mouthpiece": Mouthpiece, "pluck": Pluck, "pad": Pad, "echo": Echo, "hands": Lap, "listen": Along,
}

// formActs are what is done at a stage of no other kind.
var formActs = map[routine.Stage]Act{routine.Count: Count, routine.Name: Name, routine.Finger: Finger, routine.Play: Play}

// wayActs are the ways that change what is done at a stage, the first that a routine has.
var wayActs = []struct {
	way routine.Way
	act Act
}{
	{routine.Echo, Echo}, {routine.SayPlay, SayPlay}, {routine.Pairs, Pairs}, {routine.Along, Along},
}

// actOf is what an instrument does at a stage.
func actOf(step routine.Step, i instrument.Instrument) Act {
	if act, own := stageActs[step.Stage]; own {
		return fitting(act, i)
	}
	for _, w := range wayActs {
		if slices.Contains(step.Ways, w.way) {
			return w.act
		}
	}
	act := formActs[step.Form()]
	if act == Count && slices.Contains(step.Ways, routine.Clap) {
		return Clap
	}
	return act
}

// ownAct is what is done alone where an act takes two: the stage's own form.
func ownAct(act Act, step routine.Step) Act {
	switch act {
	case Echo, SayPlay, Pairs, Along, Look:
		return formActs[step.Form()]
	}
	return act
}

// fitting is the act where the instrument has it, else the nearest it has.
func fitting(act Act, i instrument.Instrument) Act {
	way := map[Act]routine.Way{Mouthpiece: routine.Mouthpiece, Pluck: routine.Pluck, Pad: routine.Pad}[act]
	if way == "" || way.Words(i) != "" {
		return act
	}
	for _, other := range []struct {
		way routine.Way
		act Act
	}{{routine.Mouthpiece, Mouthpiece}, {routine.Pluck, Pluck}, {routine.Pad, Pad}} {
		if act == Mouthpiece && other.way.Words(i) != "" { // the stage's words are so too
			return other.act
		}
	}
	return Play
}

// cue is what comes with the last beat of a count-off. Source: common practice.
func cue(i instrument.Instrument) string {
	switch {
	case i.Blown:
		return "breath"
	case i.Bowed():
		return "bow"
	}
	return "sticks"
}

// sound fills in what is shown and heard in a move.
func (b *builder) sound(m *Move) {
	m.Cue = cue(b.lead.Instrument)
	m.Clicks = !m.step.NoClick
	m.Shows = shows[m.Form]
	m.Hand = m.Form == routine.Finger
	m.Part = m.sounds()
	if m.With != Together {
		return
	}
	voice := voices[m.Act]
	if b.mixed && voice != "" {
		voice = Counts // names differ at one instant: they are shown, and the children say them
	}
	m.Voice = voice
}

var shows = map[routine.Stage][]string{
	routine.Count:  {"tap", "count"},
	routine.Name:   {"count", "name"},
	routine.Finger: {"name", "finger"},
	routine.Play:   {"count", "finger"},
}

// Voice is what is spoken on the beat.
type Voice string

// The voices; "" is none.
const (
	Counts  Voice = "counts"
	Names   Voice = "names"
	Fingers Voice = "fingers"
)

var voices = map[Act]Voice{
	Count: Counts, Clap: Counts, Air: Counts, Name: Names, Finger: Fingers, Lap: Fingers, SayPlay: Names, Pairs: Names,
}

// sounds says whether the part is heard in a move.
func (m Move) sounds() bool {
	switch m.Act {
	case Listen, Along, Sing:
		return true
	case Play, Mouthpiece, Pluck, Pad, Echo:
		return m.With == Together
	}
	return false
}
