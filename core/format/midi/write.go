// Package midi reads and writes Standard MIDI Files.
package midi

import (
	"bytes"
	"fmt"
	"sort"

	gomidi "gitlab.com/gomidi/midi/v2"
	"gitlab.com/gomidi/midi/v2/smf"

	"unhurriedbench/core/score"
)

// quarter is how many ticks a written quarter note has: enough for thirty-second
// notes, triplets and quintuplets to be whole.
const quarter = 960

// Cue is a click before the music: its time in whole notes before the first
// note, as a negative number.
type Cue struct {
	At   score.Fraction
	Beat bool
}

// Options chooses what is written.
type Options struct {
	Program   int  // General MIDI program, from 1
	PerMinute int  // beats of the meter a minute; 0 is 72
	Metronome bool // add a track of clicks on the beats, and Cues before the music
	Cues      []Cue
}

// drumChannel is the General MIDI channel of percussion, from 0.
const drumChannel = 9

// timed is a message at a tick.
type timed struct {
	at      int64
	rank    int // at one tick ends come before starts
	message []byte
}

// Write returns the part, at its sounding pitch and with its repeats played, as
// a format 1 file (Standard MIDI File 1.0).
func Write(p score.Part, o Options) ([]byte, error) {
	file := smf.New()
	file.TimeFormat = smf.MetricTicks(quarter)
	order := p.Order()
	lead := lead(p, o)
	tracks := [][]timed{conductor(p, order, o, lead), notes(p, order, o, lead)}
	if o.Metronome {
		tracks = append(tracks, clicks(p, order, o, lead))
	}
	for _, events := range tracks {
		if err := file.Add(track(events)); err != nil {
			return nil, fmt.Errorf("add a track: %w", err)
		}
	}
	var b bytes.Buffer
	if _, err := file.WriteTo(&b); err != nil {
		return nil, fmt.Errorf("write the MIDI file: %w", err)
	}
	return b.Bytes(), nil
}

func ticks(f score.Fraction) int64 { return f.Mul(score.Frac(4*quarter, 1)).Floor() }

// lead is how long the count-off takes.
func lead(p score.Part, o Options) int64 {
	if !o.Metronome || len(o.Cues) == 0 {
		return 0
	}
	return -ticks(o.Cues[0].At)
}

func track(events []timed) smf.Track {
	sort.SliceStable(events, func(i, j int) bool {
		if events[i].at != events[j].at {
			return events[i].at < events[j].at
		}
		return events[i].rank < events[j].rank
	})
	var t smf.Track
	last := int64(0)
	for _, e := range events {
		t.Add(uint32(e.at-last), e.message)
		last = e.at
	}
	t.Close(0)
	return t
}

// conductor is the track of tempo, meter and key, which is that of the notes as they
// sound.
func conductor(p score.Part, order []int, o Options, lead int64) []timed {
	perMinute := o.PerMinute
	if perMinute == 0 {
		perMinute = 72
	}
	beat := p.Meter().Beat()
	quarters := float64(perMinute) * beat.Mul(score.Frac(4, 1)).Float()
	events := []timed{{0, 0, smf.MetaTempo(quarters)}}
	at := lead
	var meter score.Meter
	key := score.Key{Fifths: 99}
	for n, i := range order {
		m := p.Measures[i]
		when := at
		if n == 0 {
			when = 0
		}
		switch {
		case n == 0 && m.Pickup() && lead == 0: // a measure of its own length, as most programs write it
			events = append(events, timed{0, 0, smf.MetaMeter(uint8(m.Length.Num()), uint8(m.Length.Den()))})
		case m.Meter != meter:
			meter = m.Meter
			events = append(events, timed{when, 0, smf.MetaMeter(uint8(meter.Beats), uint8(meter.Unit))})
		}
		if m.Key != key {
			key = m.Key
			sounding, _ := key.Transpose(p.Transposition)
			fifths := max(sounding.Fifths, -sounding.Fifths)
			major := key.Mode != "minor"
			events = append(events, timed{when, 0, smf.MetaKey(0, major, uint8(fifths), sounding.Fifths < 0)})
		}
		at += ticks(m.Length)
	}
	return events
}

const (
	velocity      = 80
	clickVelocity = 100
	highClick     = 76 // high wood block
	lowClick      = 77
	sideStick     = 38 // acoustic snare, for strokes without pitch
)

func notes(p score.Part, order []int, o Options, lead int64) []timed {
	channel := uint8(0)
	if p.Unpitched() {
		channel = drumChannel
	}
	events := []timed{{0, 0, smf.MetaTrackSequenceName(p.Name)}}
	if channel != drumChannel {
		events = append(events, timed{0, 0, gomidi.ProgramChange(channel, uint8(max(o.Program, 1)-1))})
	}
	for _, s := range p.Sounding(order) {
		e := p.At(s.Place)
		pitches := append([]score.Pitch{s.Pitch}, e.Others...)
		for _, pitch := range pitches {
			key := uint8(min(max(pitch.MIDI()+p.Transposition.Semitones, 0), 127))
			if e.Unpitched {
				key = sideStick
			}
			start := lead + ticks(s.Onset)
			end := lead + ticks(s.Onset.Add(s.Length))
			events = append(events, timed{start, 1, gomidi.NoteOn(channel, key, velocity)},
				timed{end, 0, gomidi.NoteOff(channel, key)})
		}
	}
	return events
}

func clicks(p score.Part, order []int, o Options, lead int64) []timed {
	events := []timed{{0, 0, smf.MetaTrackSequenceName("Metronome")}}
	click := func(at int64, key uint8) {
		events = append(events, timed{at, 1, gomidi.NoteOn(drumChannel, key, clickVelocity)},
			timed{at + quarter/8, 0, gomidi.NoteOff(drumChannel, key)})
	}
	for _, c := range o.Cues {
		if c.Beat {
			click(lead+ticks(c.At), highClick)
		}
	}
	at := lead
	for _, i := range order {
		m := p.Measures[i]
		beat := m.Meter.Beat()
		first := m.Offset.Sub(m.Offset.Within(beat))
		for place := first; place.Less(m.Offset.Add(m.Length)); place = place.Add(beat) {
			if !place.Less(m.Offset) {
				key := uint8(lowClick)
				if place.IsZero() {
					key = highClick
				}
				click(at+ticks(place.Sub(m.Offset)), key)
			}
		}
		at += ticks(m.Length)
	}
	return events
}
