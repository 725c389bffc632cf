package finger

import (
	"cmp"
	"fmt"
	"slices"
	"strconv"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
)

// drumsFor lists the timpani that can be tuned to a note: the two middle sizes,
// which every school has, before the others, and of those the one whose middle
// lies nearest first. Source: common practice.
func drumsFor(i instrument.Instrument, p score.Pitch) []Fingering {
	var able []instrument.Drum
	for _, d := range i.Drums {
		if d.Holds(p) {
			able = append(able, d)
		}
	}
	slices.SortStableFunc(able, func(a, b instrument.Drum) int { return reluctance(a, p) - reluctance(b, p) })
	found := make([]Fingering, len(able))
	for k, d := range able {
		found[k] = onDrum(d.Inches)
		found[k].Why = "where the other drum is tuned to something else"
	}
	return found
}

// reluctance is what speaks against a drum for a pitch: its distance from the
// middle of the drum's range in half steps halved, and much more for the largest
// and the smallest drum.
func reluctance(d instrument.Drum, p score.Pitch) int {
	away := 2*p.MIDI() - d.Low.MIDI() - d.High.MIDI()
	away = max(away, -away)
	if d.Inches > 30 || d.Inches < 25 {
		away += 1000
	}
	return away
}

// timeToRetune is how long a rest must be in which a drum is tuned to another
// pitch, in beats. Source: common practice for a pedal and a young ear.
const timeToRetune = 4

// kettle is a drum as a chunk goes on.
type kettle struct {
	instrument.Drum
	tuned    score.Pitch
	inUse    bool
	freeFrom score.Fraction // when its last stroke ended, from the start of the part
}

// tune chooses a drum for every stroke of a timpani part. A drum keeps its pitch
// as long as it can; where a pitch stands on none, the drum is retuned that has
// the time for it in a rest, and of those the one whose present pitch is wanted
// last. What the drums are tuned to at first, and when one changes, is said at the
// stroke. A drum that the teacher prefers, or that is printed, comes first where it
// is not in use.
func tune(i instrument.Instrument, part score.Part, choices [][]Choice, o Options) {
	kettles := make([]kettle, len(i.Drums))
	for k, d := range i.Drums {
		kettles[k].Drum = d
	}
	strokes := strokesOf(part)
	for n, s := range strokes {
		midi := s.pitch.MIDI()
		desired := cmp.Or(part.At(s.at).Fingering, o.placed(s.at, midi), o.Preferred[midi])
		k := chooseKettle(kettles, strokes, n, desired)
		if k < 0 {
			continue
		}
		f := onDrum(kettles[k].Inches)
		if !kettles[k].inUse || kettles[k].tuned.MIDI() != s.pitch.MIDI() {
			f.Care = kettles[k].retuned(strokes, n)
		}
		kettles[k].tuned, kettles[k].inUse, kettles[k].freeFrom = s.pitch, true, s.end
		c := Choice{Fingering: f, Usual: f.Text}
		for _, other := range drumsFor(i, s.pitch) {
			if other.Inches != f.Inches {
				c.Alternates = append(c.Alternates, other)
			}
		}
		choices[s.at.Measure][s.at.Event] = c
	}
}

// stroke is a note struck on a drum, with its place in time from the start of the
// part as written.
type stroke struct {
	at         score.Place
	pitch      score.Pitch
	start, end score.Fraction
	beat       score.Fraction
}

func strokesOf(part score.Part) []stroke {
	var list []stroke
	now := score.Fraction{}
	for k, m := range part.Measures {
		for j, e := range m.Events {
			end := now.Add(e.Length)
			switch {
			case e.Kind == score.Rest:
			case e.Tied && len(list) > 0:
				list[len(list)-1].end = end
			default:
				list = append(list, stroke{score.Place{Measure: k, Event: j}, e.Pitch, now, end, m.Meter.Beat()})
			}
			now = end
		}
	}
	return list
}

// chooseKettle finds the drum for the nth stroke, -1 where none reaches its pitch.
func chooseKettle(kettles []kettle, strokes []stroke, n int, preferred string) int {
	s := strokes[n]
	best, most := -1, -10_000
	for k, drum := range kettles {
		if !drum.Holds(s.pitch) {
			continue
		}
		if drum.inUse && drum.tuned.MIDI() == s.pitch.MIDI() {
			return k
		}
		free := drum.beatsFree(strokes, n)
		worth := 1000*nextUse(drum, strokes[n+1:]) + 20*int(min(free, 9)) - reluctance(drum.Drum, s.pitch)
		switch {
		case !drum.inUse && strconv.Itoa(drum.Inches) == preferred:
			worth = 8_000_000
		case !drum.inUse:
			worth = 6_000_000 - reluctance(drum.Drum, s.pitch) - 100*sought(drum, strokes[n+1:], s.pitch)
		case free >= timeToRetune:
			worth += 2_000_000
		}
		if worth > most {
			best, most = k, worth
		}
	}
	return best
}

// sought is how many other pitches to come can be had on this drum alone.
func sought(d kettle, coming []stroke, but score.Pitch) int {
	seen := map[int]bool{but.MIDI(): true}
	for _, s := range coming {
		if d.Holds(s.pitch) {
			seen[s.pitch.MIDI()] = true
		}
	}
	return len(seen) - 1
}

// nextUse is after how many strokes a drum's present pitch is wanted again, at
// most 1000.
func nextUse(d kettle, coming []stroke) int {
	for k, s := range coming {
		if k == 1000 || s.pitch.MIDI() == d.tuned.MIDI() {
			return k
		}
	}
	return 1000
}

// beatsFree is the longest rest, in beats, between the drum's last stroke and the
// nth of all strokes: while another drum is played nobody tunes.
func (d kettle) beatsFree(strokes []stroke, n int) int64 {
	longest := score.Fraction{}
	for k := n; k > 0 && d.freeFrom.Cmp(strokes[k].start) <= 0; k-- {
		if rest := strokes[k].start.Sub(strokes[k-1].end); longest.Less(rest) {
			longest = rest
		}
	}
	return longest.Div(strokes[n].beat).Floor()
}

// retuned says what has to be done before the nth stroke.
func (d kettle) retuned(strokes []stroke, n int) string {
	to := name.Spoken(strokes[n].pitch, false)
	if !d.inUse {
		return fmt.Sprintf("tune the %d inch drum to %s before the start", d.Inches, to)
	}
	free := d.beatsFree(strokes, n)
	if free < timeToRetune {
		return fmt.Sprintf(
			"no time to retune: the %d inch drum goes from %s to %s with %s of rest",
			d.Inches,
			name.Spoken(d.tuned, false),
			to,
			count(int(free), "beat", "beats"),
		)
	}
	return fmt.Sprintf("retune the %d inch drum from %s to %s in the %d beats of rest", d.Inches,
		name.Spoken(d.tuned, false), to, free)
}

// drumChange is 1 for each drum passed over on the way.
func drumChange(i instrument.Instrument, from, to Played, why *reasons) int {
	place := func(p Played) int {
		return slices.IndexFunc(i.Drums, func(d instrument.Drum) bool { return d.Inches == p.Inches })
	}
	far := max(place(from)-place(to), place(to)-place(from))
	if far > 0 {
		why.say("to another drum")
	}
	return far
}
