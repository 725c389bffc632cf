package finger

import (
	"slices"
	"strings"

	"unhurriedbench/core/instrument"
)

// Key is one key, hole or valve of an instrument's drawing.
type Key struct {
	Name  string `json:"name"`
	At    int    `json:"at"`    // its place in Order
	Right bool   `json:"right"` // the right hand's
	By    string `json:"by"`    // what presses it: "thumb", "finger", "little" or "side"
	Word  string `json:"word"`  // written on it where it is drawn large
}

// Order lists the names of a woodwind's keys in the order in which a fingering
// spells them, "|" between the hands; a name may come twice. It is empty for other
// instruments.
func Order(i instrument.Instrument) []string {
	if i.Mechanism != instrument.Woodwind {
		return nil
	}
	return slices.Clone(layoutOf(i).order)
}

// thumbKeys are pressed by a thumb.
var thumbKeys = strings.Fields("oct oct1 T TBb R")

// Keys lists the keys that a woodwind's fingerings use, in hand order.
func Keys(i instrument.Instrument) []Key {
	if i.Mechanism != instrument.Woodwind {
		return nil
	}
	l := layoutOf(i)
	var used uint64
	for _, ways := range tableOf(i) {
		for _, way := range ways {
			down, _ := l.keys(way.Text)
			used |= down
		}
	}
	var keys []Key
	for k, name := range l.order {
		if used&(1<<k) != 0 {
			keys = append(keys, Key{Name: name, At: k, Right: k > l.bar, By: l.pressedBy(i, k), Word: keyWord(name)})
		}
	}
	return keys
}

func (l *layout) pressedBy(i instrument.Instrument, k int) string {
	name := l.order[k]
	if isFinger(name) || name == "half" {
		return "finger"
	}
	if l.byThumb(k) || slices.Contains(thumbKeys, name) {
		return "thumb"
	}
	for _, s := range l.shared[:2] {
		if s.keys&(1<<k) != 0 && !(name == "G#" && i.Keys == instrument.ClarinetKeys) {
			return "little"
		}
	}
	return "side"
}

// byThumb says whether a key stands before the fingers of its hand, where those are the
// thumb's.
func (l *layout) byThumb(k int) bool {
	return l.thumbsFirst && (k < slices.Index(l.order, "half") || k > l.bar && k < slices.Index(l.order, "4"))
}
