package finger

import (
	"fmt"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// rule is a row of the table of alternates: for some instruments, from a year of
// playing on, an alternate of some notes where its condition holds. The condition
// gives the reason, "" where it does not hold.
type rule struct {
	on   playedOn
	year int
	ways map[string]string // alternate by written note
	when func(l *melody, k int, alternate string) string
}

// playedOn is the trait of an instrument that a row is for.
type playedOn struct {
	keys      instrument.KeyLayout
	mechanism instrument.Mechanism
}

func (p playedOn) has(i instrument.Instrument) bool {
	return p.keys != "" && p.keys == i.Keys || p.mechanism != "" && p.mechanism == i.Mechanism
}

// rules are the rows that look at a note's neighbours alone; an alternate that
// none of them asks for never stands in a line by program. Whole runs are looked at
// by fingerLittle and, on strings, by stopLine. Source: common practice. Alternates
// of brass valves are never chosen, nor thumb and bis B flat.
var rules = []rule{
	{playedOn{keys: instrument.SaxophoneKeys}, 2,
		map[string]string{"C5": "1 | sideC", "C6": "oct 1 | sideC"}, betweenBs},
	{playedOn{keys: instrument.SaxophoneKeys}, 2,
		map[string]string{"F#4": "1 2 3 | 4 sideF#", "F#5": "oct 1 2 3 | 4 sideF#"}, quickBeside(-1)},
	{playedOn{keys: instrument.ClarinetKeys}, 2,
		map[string]string{"F#4": "T | sideEb sideF#"}, quickBeside(-1)},
	{playedOn{keys: instrument.ClarinetKeys}, 2,
		map[string]string{"B3": "T 1 2 3 | 4 sliver", "F#5": "T R 1 2 3 | 4 sliver"}, quickBeside(-1)},
	{playedOn{keys: instrument.FluteKeys}, 2,
		map[string]string{"Bb4": "T 1 | sideBb Eb", "Bb5": "T 1 | sideBb Eb"}, quickBeside(1)},
	{playedOn{keys: instrument.BassoonKeys}, 2,
		map[string]string{"G#2": "W 1 2 3 | Ab 4 5 6"}, besideKeys("right little finger, which has the F key",
			bassoonLayout.mask("6 F"))},
	{playedOn{keys: instrument.BassoonKeys}, 2,
		map[string]string{
			"F#2": "W 1 2 3 | 4 5 6 F#",
			"F#3": "W half 2 3 | 4 5 6 F#",
		}, besideKeys("right thumb, which has its own key", bassoonLayout.mask("| pancakeE"), bassoonLayout.mask("| Bb"))},
	{playedOn{keys: instrument.OboeKeys}, 2,
		map[string]string{
			"Eb4": "1 2 3 Eb | 4 5 6",
			"Eb5": "half 2 3 Eb | 4 5 6",
		}, besideKeys("right little finger", commonLayout.mask("6 C"), commonLayout.mask("6 C#"))},
	{playedOn{mechanism: instrument.Slide}, 3,
		map[string]string{"F3": "6", "Bb3": "5", "D4": "4"}, fastBetweenFar},
}

// apply goes through the rules of the instrument.
func (l *melody) apply() {
	if all := mechanismOf(l.instrument).rules(l); all {
		return
	}
	for _, r := range rules {
		if l.options.Year < r.year || !r.on.has(l.instrument) {
			continue
		}
		ways := map[int]string{}
		for note, text := range r.ways {
			ways[score.MustPitch(note).MIDI()] = text
		}
		for k := range l.notes {
			text, has := ways[l.notes[k].midi]
			if !has {
				continue
			}
			if why := r.when(l, k, text); why != "" {
				l.rule(k, text, why)
			}
		}
	}
}

// betweenBs: both neighbours are B, or one is and the other C sharp.
func betweenBs(l *melody, k int, _ string) string {
	a, b := l.before(k), l.after(k)
	if a < 0 || b < 0 {
		return ""
	}
	low, high := l.notes[k].midi-1, l.notes[k].midi+1
	x, y := l.notes[a].midi, l.notes[b].midi
	if !(x == low && (y == low || y == high) || x == high && y == low) || !l.quick(k, a) && !l.quick(k, b) {
		return ""
	}
	return fmt.Sprintf("quickly between %s and %s one finger stays down", l.called(a), l.called(b))
}

// quickBeside: a neighbour is at most that many half steps away, and the note is an eighth
// or shorter or slurred to it.
func quickBeside(halfSteps int) func(*melody, int, string) string {
	return func(l *melody, k int, _ string) string {
		for _, j := range l.neighbours(k) {
			if l.notes[j].midi == l.notes[k].midi+halfSteps && l.quick(k, j) {
				return fmt.Sprintf("the chromatic way beside %s: one finger moves", l.called(j))
			}
		}
		return ""
	}
}

// besideKeys: a neighbour is played with the same finger on another key; each of the
// keys is given with those that are down with it.
func besideKeys(finger string, keys ...uint64) func(*melody, int, string) string {
	return func(l *melody, k int, _ string) string {
		for _, j := range l.neighbours(k) {
			for _, key := range keys {
				if l.standing(j).Keys&key == key {
					return fmt.Sprintf("beside %s, so that the %s need not slide", l.called(j), finger)
				}
			}
		}
		return ""
	}
}

// standing is what a neighbour is played with: its usual way, or what is printed or
// chosen for it. What a rule does to it asks for nothing further.
func (l *melody) standing(j int) Fingering {
	if l.notes[j].fixed {
		return l.notes[j].choice.Fingering
	}
	return l.notes[j].choice.UsualWay()
}

const (
	// unmarkedTempo is the tempo in quarters where none is marked; the figure is ours.
	unmarkedTempo = 92
	// fastNote is how long, in seconds, a note lasts at most that is worth another
	// slide position; the figure is ours.
	fastNote = 0.4
	// slideSaved is how many positions it must save in all.
	slideSaved = 4
)

// fastBetweenFar: both neighbours lie within a position of the alternate, four
// positions or more are saved, the note is quick, and it neither begins nor ends
// its phrase.
func fastBetweenFar(l *melody, k int, alternate string) string {
	a, b := l.before(k), l.after(k)
	if a < 0 || b < 0 || l.notes[k].ends || l.notes[k-1].ends {
		return ""
	}
	away := func(p int) (far, sum int) {
		x, y := l.notes[a].choice.Position-p, l.notes[b].choice.Position-p
		x, y = max(x, -x), max(y, -y)
		return max(x, y), x + y
	}
	far, sum := away(l.notes[k].choice.way(alternate).Position)
	_, usual := away(l.notes[k].choice.UsualWay().Position)
	seconds := l.notes[k].length.Float() * 4 * 60 / quartersPerMinute(l.options.Tempo)
	if far > 1 || usual-sum < slideSaved || seconds > fastNote {
		return ""
	}
	return fmt.Sprintf("quick, and %s and %s are out there: %d positions saved", l.called(a), l.called(b), usual-sum)
}

// quartersPerMinute is a metronome mark in quarter notes, or unmarkedTempo.
func quartersPerMinute(t score.Tempo) float64 {
	if t.PerMinute == 0 {
		return unmarkedTempo
	}
	return t.Quarters()
}

// The oboe's ways of F beside a note that has its sixth finger down, which would
// have to slide to the F key.
var forkedF = map[int]struct{ forked, vented, left string }{
	65: {"1 2 3 | 4 6", "1 2 3 | 4 6 Eb", "1 2 3 F | 4 5"},
	77: {"oct1 1 2 3 | 4 6", "oct1 1 2 3 | 4 6 Eb", "oct1 1 2 3 F | 4 5"},
}

// forkF forks the oboe's F beside a note that has finger 6 down: with the E flat
// key where the oboe has no F resonance key; left F only where it has that key.
func (l *melody) forkF() {
	for k := range l.notes {
		ways, isF := forkedF[l.notes[k].midi]
		if !isF {
			continue
		}
		text, how := ways.forked, "forked, since"
		switch {
		case l.instrument.LeftF:
			text, how = ways.left, "left F, since"
		case l.instrument.NoResonance:
			text, how = ways.vented, "forked with the E flat key, since"
		}
		for _, j := range l.neighbours(k) {
			if six := commonLayout.mask("6"); l.standing(j).Keys&six != 0 {
				l.rule(k, text, fmt.Sprintf("%s %s beside it has finger 6 down, which would slide to the F key", how, l.called(j)))
				break
			}
		}
	}
}

// holdRight keeps the clarinet's right hand down on throat notes in an unbroken run that leads
// over the break to a note with fingers 4, 5 and 6, or comes down from one, where the teacher
// wants it so. Source: common practice.
func (l *melody) holdRight() {
	right := commonLayout.mask("| 4 5 6")
	throat := func(at int) bool { _, has := rightDown(*l.notes[l.played[at].note].choice); return has }
	for from := 0; from < len(l.played); {
		to := from
		for to < len(l.played) && throat(to) && (to == from || !l.played[to].rested) {
			to++
		}
		if to == from {
			from++
			continue
		}
		over := -1
		for _, at := range []int{to, from - 1} {
			if at < 0 || at >= len(l.played) || l.played[max(at, from)].rested {
				continue
			}
			if k := l.played[at].note; l.notes[k].midi > lastThroatNote && l.notes[k].choice.Keys&right == right {
				over = k
				break
			}
		}
		for at := from; at < to && over >= 0; at++ {
			k := l.played[at].note
			way, _ := rightDown(*l.notes[k].choice)
			l.rule(k, way.Text, fmt.Sprintf("the right hand is down for %s, over the break", l.called(over)))
		}
		from = to
	}
}

// rightDown is a throat note's way with the right hand down.
func rightDown(c Choice) (Fingering, bool) {
	right := commonLayout.mask("| 4 5 6")
	for _, way := range c.Ways() {
		if usual := c.UsualWay(); usual.Keys&right == 0 && way.Keys == usual.Keys|right &&
			usual.Keys&commonLayout.mask("T 1") == 0 {
			return way, true
		}
	}
	return Fingering{}, false
}
