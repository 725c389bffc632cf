package teach

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/count"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/lesson"
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
)

// LedStep is a step as the page shows it.
type LedStep struct {
	lesson.Scene
	K        int
	Heading  string
	Says     []StepWords
	BeatName string
	CountOff []count.Cue
	Cards    []instrumentCard
	Music    string // the key of its music
	Cause    routine.Cause
	Click    bool
}

// StepWords is what is said to some instruments.
type StepWords struct {
	To    []string // instrument ids
	Names string   // "trumpet, trombone"; "" for everybody
	Words string
}

// instrumentCard is what an instrument of the room begins with.
type instrumentCard struct {
	instrument.Instrument
	First string // note, "" of a stroke without pitch
	How   string // it is fingered
	One   string // everybody's one note as it is read here, where the stage sits well on one
	Does  string // in the ways of the stage that are its own
}

// Time is how long the step takes, in words.
func (s LedStep) Time() string { return lesson.Time(s.Halves()) }

// Line names the step in the list.
func (s LedStep) Line() string {
	if s.Warm {
		return "Warm up: long notes"
	}
	if s.Several {
		return fmt.Sprintf("%s: %s", s.At(), s.Does())
	}
	return s.Name()
}

// Minutes are how many minutes the step takes, for the clock of the page.
func (s LedStep) Minutes() float64 { return math.Round(s.Seconds()/6) / 10 }

// AskAlone asks for a step's chunk by itself.
func AskAlone(class store.ClassID, step lesson.Step) Request {
	ask := Request{Exercise: store.ExerciseID(step.Exercise), Class: class, Chunk: step.Chunk.String()}
	if step.Label != WholeLabel && step.Where != "" || step.Label != WholeLabel && step.Phase == "" {
		ask.Line, ask.Of = breakdown.Alone, step.Chunk.String()
	}
	return ask
}

// WholeLabel is the label of the chunk that is the whole exercise.
const WholeLabel = "Whole"

// NewLedStep is a step of a lesson told to the parts of a room.
func NewLedStep(place int, step lesson.Scene, key string, parts []Stand) LedStep {
	run := LedStep{Scene: step, K: place, Music: key, Cause: mendedAt(step.Form)}
	for _, p := range parts {
		in := p.Routine.Step(step.Stage)
		if like, has := p.Routine.Like(routine.Step{Stage: step.Stage, Kind: step.Form}); has {
			in = p.Routine.Step(like)
		}
		if run.Heading == "" || !p.Instrument.Unpitched() && run.CountOff == nil {
			run.Heading, run.BeatName, run.Click = in.Title(p.Instrument), p.BeatName, !in.NoClick
		}
		if len(run.CountOff) == 0 {
			run.CountOff = p.CountOff
		}
		run.say(p, in)
		card := newInstrumentCard(p, in)
		if step.Warm {
			card.One, card.Does = "", ""
		}
		run.Cards = append(run.Cards, card)
	}
	if step.Warm {
		run.Heading = step.Word
		run.Says = []StepWords{{Words: "Each note as long as a slow breath, everybody together; listen, then the next."}}
		return run
	}
	if len(step.Parts) > 0 {
		run.Heading = step.Does()
	}
	run.Heading += ", " + step.At()
	return run
}

// mendedAt is what stumbles at a kind of stage, unless the teacher says otherwise.
func mendedAt(form routine.Stage) routine.Cause {
	for _, s := range routine.Standard() {
		if s.Stage == form {
			return s.Mends[0]
		}
	}
	return routine.Rhythm
}

// say adds what is said to an instrument; those to whom the same is said stand together.
func (s *LedStep) say(p Stand, in routine.Step) {
	words := in.Together(p.Instrument, p.Options.Count)
	if words == "" {
		return
	}
	k := slices.IndexFunc(s.Says, func(w StepWords) bool { return w.Words == words })
	if k < 0 {
		k = len(s.Says)
		s.Says = append(s.Says, StepWords{Words: words})
	}
	to := &s.Says[k]
	to.To = append(to.To, p.Instrument.ID)
	to.Names = strings.TrimPrefix(to.Names+", "+p.Instrument.Title(), ", ")
}

// shortWay is a fingering in as few words as it is read in: "1-3", "2 on G", "T 1 2 3".
func shortWay(p Stand, e breakdown.Event) string {
	switch {
	case e.Fingering == "" || p.Instrument.Mechanism == instrument.Sticks:
		return ""
	case e.Fingering == "0", e.Fingering == "|":
		return "open"
	case p.Instrument.Mechanism == instrument.Valves || p.Instrument.Mechanism == instrument.Slide:
		return e.Fingering
	case p.Instrument.Mechanism == instrument.Woodwind:
		return strings.TrimSpace(strings.TrimSuffix(strings.TrimSpace(e.Fingering), "|"))
	}
	said, _, _ := strings.Cut(p.Words.Say(p.Instrument, e.Played.Fingering), ",")
	return said
}

func newInstrumentCard(p Stand, in routine.Step) instrumentCard {
	c := instrumentCard{Instrument: p.Instrument}
	if in.OnOneNote() {
		c.One = p.OneNote.Written
	}
	for _, way := range in.Ways {
		switch way {
		case routine.Mouthpiece, routine.Pluck, routine.Pad, routine.Air:
			c.Does = cmp.Or(c.Does, way.Short(p.Instrument))
		}
	}
	for _, passage := range p.Passages {
		m := p.Report.Measures[passage.At]
		for _, e := range m.Events {
			if e.Kind != "note" || e.Tied {
				continue
			}
			if c.First = e.ShortName; p.Instrument.Unpitched() {
				c.First = ""
			}
			c.How = shortWay(p, e)
			if e.Hand != "" {
				c.How = strings.TrimSpace(c.How + " " + e.Hand)
			}
			return c
		}
	}
	return c
}
