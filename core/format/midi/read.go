package midi

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"sort"
	"strconv"
	"strings"
	"unicode/utf8"

	"gitlab.com/gomidi/midi/v2/smf"

	"unhurriedbench/core/score"
)

// played is a note as the file has it, in ticks.
type played struct {
	start, end int64
	key        uint8
}

// stream is the notes of one channel of one track.
type stream struct {
	name    string
	drums   bool
	notes   []played
	empty   int // notes of no length, left out
	endless int // notes without an end
}

// change is a meter or key from a tick on.
type change[T any] struct {
	at    int64
	value T
}

// song is a file taken apart.
type song struct {
	quarter int64 // ticks of a quarter note
	tempo   float64
	meters  []change[score.Meter]
	keys    []change[score.Key]
	streams []*stream
	events  *int // notes and rests written so far
}

// mostNotes bounds what one file may hold, far above any exercise, and mostChanges how
// often its meter or key may change.
const (
	mostNotes   = 50000
	mostChanges = 1000
)

// Read reads a Standard MIDI File of format 0 or 1 and writes its rhythm in the
// nearest notes that can be written. What was moved is remarked on. The error
// is a score.Problems; once ctx ends, it is the context's.
func Read(ctx context.Context, data []byte) (s score.Score, err error) {
	file, err := open(ctx, data)
	switch {
	case ctx.Err() != nil:
		return score.Score{}, ctx.Err()
	case errors.Is(err, errTooMany):
		return score.Score{}, score.Problems{score.General("The MIDI file holds more than "+strconv.Itoa(mostEvents)+
			" events.", "Bring in one exercise at a time.")}
	case err != nil:
		return score.Score{}, score.Problems{score.General("The MIDI file is broken.", "Export it again.")}
	}
	ticks, metric := file.TimeFormat.(smf.MetricTicks)
	switch {
	case !metric || ticks == 0:
		return score.Score{}, score.Problems{score.General("The MIDI file counts film frames, not beats.",
			"Export it with a tempo and a meter.")}
	case file.Format() == 2:
		return score.Score{}, score.Problems{
			score.General("The MIDI file is of format 2, which holds loose patterns.", "Export it as format 0 or 1."),
		}
	}
	sg := takeApart(file, int64(ticks))
	total := 0
	for _, st := range sg.streams {
		total += len(st.notes)
	}
	switch {
	case total == 0:
		return score.Score{}, score.Problems{score.General("There are no notes in the MIDI file.",
			"Export the exercise with its notes.")}
	case len(sg.streams) > score.MostParts:
		return score.Score{}, score.Problems{score.TooManyParts()}
	case total > mostNotes:
		return score.Score{}, score.Problems{
			score.General(fmt.Sprintf("The MIDI file holds %d notes.", total), "Bring in one exercise at a time."),
		}
	}
	if sg.tempo > 0 {
		s.Tempo = score.Tempo{Beat: score.Frac(1, 4), PerMinute: min(max(int(sg.tempo+0.5), 1), score.FastestMark)}
	}
	for _, st := range sg.streams {
		if err := ctx.Err(); err != nil {
			return score.Score{}, err
		}
		part, remarks, err := sg.write(st)
		if err != nil {
			return score.Score{}, err
		}
		s.Parts = append(s.Parts, part)
		s.Remarks = append(s.Remarks, remarks...)
	}
	s.Title = s.Parts[0].Name
	return s, nil
}

// open guards against a file that makes the library panic.
func open(ctx context.Context, data []byte) (file *smf.SMF, err error) {
	defer func() {
		if p := recover(); p != nil {
			err = fmt.Errorf("it cannot be followed: %v", p)
		}
	}()
	data, err = clean(ctx, data)
	if err != nil {
		return nil, err
	}
	return smf.ReadFrom(bytes.NewReader(data))
}

func takeApart(file *smf.SMF, quarter int64) song {
	sg := song{quarter: quarter, events: new(int)}
	for _, track := range file.Tracks {
		sg.readTrack(track)
	}
	sort.SliceStable(sg.meters, func(i, j int) bool { return sg.meters[i].at < sg.meters[j].at })
	sort.SliceStable(sg.keys, func(i, j int) bool { return sg.keys[i].at < sg.keys[j].at })
	return sg
}

func (sg *song) readTrack(track smf.Track) {
	at := int64(0)
	name := ""
	var channels [16]*stream
	var again [16][128]bool // it was struck while it sounded
	var open [16][128]int64 // start of a sounding note plus one, 0 when silent
	end := func(channel, key uint8) {
		st, start := channels[channel], open[channel][key]-1
		switch {
		case start < 0:
			return
		case at > start:
			st.notes = append(st.notes, played{start, at, key})
		default:
			st.empty++
		}
		open[channel][key] = 0
	}
	for _, event := range track {
		at += int64(event.Delta)
		var channel, key, velocity, num, denom, clocks, thirty uint8
		var text string
		var tempo float64
		var major, flat bool
		switch m := event.Message; {
		case m.GetMetaTrackName(&text):
			if utf8.ValidString(text) {
				name = score.Cut(strings.TrimSpace(text))
			}
		case m.GetMetaTempo(&tempo):
			if sg.tempo == 0 {
				sg.tempo = tempo
			}
		case m.GetMetaTimeSig(&num, &denom, &clocks, &thirty):
			if num > 0 && num <= 24 && denom > 0 && denom <= 16 && len(sg.meters) < mostChanges {
				sg.meters = append(sg.meters, change[score.Meter]{at, score.Meter{Beats: int(num), Unit: int(denom)}})
			}
		case m.GetMetaKeySig(&key, &num, &major, &flat):
			fifths := int(num)
			if flat {
				fifths = -fifths
			}
			mode := "major"
			if !major {
				mode = "minor"
			}
			if fifths >= -7 && fifths <= 7 && len(sg.keys) < mostChanges {
				sg.keys = append(sg.keys, change[score.Key]{at, score.Key{Fifths: fifths, Mode: mode}})
			}
		case m.GetNoteStart(&channel, &key, &velocity):
			if channels[channel] == nil {
				channels[channel] = &stream{drums: channel == drumChannel}
				sg.streams = append(sg.streams, channels[channel])
			}
			if again[channel][key] = open[channel][key] > 0; again[channel][key] && open[channel][key] <= at {
				end(channel, key)
			}
			open[channel][key] = at + 1
		case m.GetNoteEnd(&channel, &key):
			if again[channel][key] && open[channel][key] == at+1 { // it ends the one before
				again[channel][key] = false
				continue
			}
			end(channel, key)
		}
	}
	for k, st := range channels {
		if st != nil {
			for key := range open[k] { // what never ends lasts to the end
				if open[k][key] > 0 {
					st.endless++
					end(uint8(k), uint8(key))
				}
			}
			st.name = name
			sort.SliceStable(st.notes, func(i, j int) bool {
				a, b := st.notes[i], st.notes[j]
				return a.start < b.start || a.start == b.start && a.key > b.key
			})
		}
	}
}

// shift is the tick at which the music starts when that is tick 1: some programs
// keep tick 0 for their own events.
func (sg *song) shift() int64 {
	for _, st := range sg.streams {
		if len(st.notes) > 0 && st.notes[0].start == 1 {
			return 1
		}
	}
	return 0
}

// at finds what is in force at a tick.
func at[T any](changes []change[T], tick int64, start T) T {
	for _, c := range changes {
		if c.at > tick {
			break
		}
		start = c.value
	}
	return start
}
