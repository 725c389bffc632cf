package midi

import (
	"context"
	"encoding/binary"
	"errors"
	"fmt"
)

// mostEvents bounds what a library takes apart: far above mostNotes with all that stands
// between notes.
const mostEvents = 300_000

var errTooMany = fmt.Errorf("it holds more than %d events", mostEvents)

var errShort = errors.New("it ends in the middle of an event")

// endOfTrack is the event that ends every track, with its delta time.
var endOfTrack = []byte{0, 0xff, 0x2f, 0}

// clean walks the chunks and events of a file, makes sure that every length in
// it is one the file has room for, and returns its header and tracks alone, so
// that a library sets no memory aside for what is not there.
func clean(ctx context.Context, data []byte) ([]byte, error) {
	if len(data) < 14 || string(data[:4]) != "MThd" {
		return nil, errors.New("it does not start as a MIDI file does")
	}
	out := append([]byte("MThd\x00\x00\x00\x06"), data[8:14]...)
	tracks, events := 0, 0
	at := 8 + int(binary.BigEndian.Uint32(data[4:8]))
	for at >= 14 && at+8 <= len(data) {
		size := int(binary.BigEndian.Uint32(data[at+4 : at+8]))
		start := at + 8
		if size > len(data)-start {
			return nil, errShort
		}
		if string(data[at:at+4]) == "MTrk" {
			track := data[start : start+size]
			n, err := trackLength(ctx, track, &events)
			if err != nil {
				return nil, err
			}
			out = append(out, "MTrk"...)
			out = binary.BigEndian.AppendUint32(out, uint32(n+len(endOfTrack)))
			out = append(append(out, track[:n]...), endOfTrack...)
			tracks++
		}
		at = start + size
	}
	if tracks == 0 || tracks > 0xffff {
		return nil, errors.New("it holds no track")
	}
	binary.BigEndian.PutUint16(out[10:12], uint16(tracks))
	return out, nil
}

// trackLength is how many bytes of a track its events take, up to but without
// the end of track event; events counts them with those of the tracks before.
func trackLength(ctx context.Context, track []byte, events *int) (int, error) {
	running := byte(0)
	at := 0
	for at < len(track) {
		if *events++; *events > mostEvents {
			return 0, errTooMany
		}
		if *events%4096 == 0 && ctx.Err() != nil {
			return 0, ctx.Err()
		}
		_, n := variable(track[at:])
		if n == 0 || at+n >= len(track) {
			return 0, errShort
		}
		rest := track[at+n:]
		status := rest[0]
		if status < 0x80 {
			if running == 0 {
				return 0, errors.New("an event has no status")
			}
			status = running
		} else {
			rest = rest[1:]
		}
		size, err := eventSize(status, rest)
		if err != nil {
			return 0, err
		}
		if status == 0xff && rest[0] == 0x2f {
			return at, nil
		}
		if size > len(rest) {
			return 0, errShort
		}
		running = 0
		if status < 0xf0 {
			running = status
		}
		at = len(track) - len(rest) + size
	}
	return at, nil
}

// eventSize is how many bytes follow an event's status.
func eventSize(status byte, rest []byte) (int, error) {
	switch {
	case status == 0xff || status == 0xf0 || status == 0xf7:
		kind := 0
		if status == 0xff {
			kind = 1 // a meta event's type comes before its length
		}
		if len(rest) <= kind {
			return 0, errShort
		}
		size, n := variable(rest[kind:])
		if n == 0 {
			return 0, errShort
		}
		return kind + n + size, nil
	case status >= 0xf0:
		return 0, errors.New("it holds an event that files do not have")
	case status&0xf0 == 0xc0 || status&0xf0 == 0xd0:
		return 1, nil
	}
	return 2, nil
}

// variable reads a quantity of variable length, of at most four bytes, and says
// how many it took; 0 when there is none.
func variable(data []byte) (value, n int) {
	for n < len(data) && n < 4 {
		value = value<<7 | int(data[n]&0x7f)
		n++
		if data[n-1] < 0x80 {
			return value, n
		}
	}
	return 0, 0
}
