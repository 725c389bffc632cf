package finger

import (
	"slices"
	"strconv"
	"strings"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// Drawn is a fingering as pages draw it, small in a lane and large in a panel. Each
// mechanism uses its own fields.
type Drawn struct {
	Label  string   `json:"label,omitempty"`  // valves, slide, bar or drum, in a ring
	Down   []string `json:"down,omitempty"`   // valves, "T" for a thumb
	Slide  int      `json:"slide,omitempty"`  // position, 1 to 7
	Raised bool     `json:"raised,omitempty"` // a little in
	Held   bool     `json:"held,omitempty"`   // the F attachment

	Small  string `json:"small,omitempty"`  // small strokes before the main one
	Stroke string `json:"stroke,omitempty"` // which hand

	String int    `json:"string"`           // from the lowest, 0
	Up     int    `json:"up"`               // half steps above the open string
	Finger string `json:"finger,omitempty"` // "0", "L2", "x4"
	Chip   string `json:"chip,omitempty"`   // its string, and a position other than the first: "G ½"

	Keys  []int    `json:"keys,omitempty"`  // that are down, by their place in the order
	Holes [6]bool  `json:"holes,omitzero"`  // the fingers' own, the left hand's first
	Half  bool     `json:"half,omitempty"`  // the first half open
	Thumb bool     `json:"thumb,omitempty"` // the left thumb is down
	ByIt  string   `json:"byIt,omitempty"`  // the key it presses that names the note
	Left  []string `json:"left,omitempty"`  // other keys of the left hand
	Right []string `json:"right,omitempty"`
}

// Draw says what there is to draw of a fingering of a written pitch.
func Draw(i instrument.Instrument, p score.Pitch, f Fingering) Drawn {
	return mechanismOf(i).draw(i, p, f)
}

func drawValves(f Fingering) Drawn {
	d := Drawn{Label: f.Text}
	if f.Attached {
		d.Down = append(d.Down, "T")
	}
	for n := 1; n < len(valveSemitones); n++ {
		if f.Keys&(1<<n) != 0 {
			d.Down = append(d.Down, strconv.Itoa(n))
		}
	}
	return d
}

func drawStopped(i instrument.Instrument, p score.Pitch, f Fingering) Drawn {
	open := i.OpenStrings[f.String]
	d := Drawn{String: f.String, Up: p.MIDI() - open.MIDI(), Finger: f.Moved.spelled() + strconv.Itoa(f.Finger),
		Chip: open.Step.String()}
	if pl := playerOf(i); f.Finger > 0 && f.Position != pl.first() {
		d.Chip += " " + strings.Replace(pl.in(f.Position).name, "half", "½", 1)
	}
	return d
}

// thumbLabels are the keys of the left thumb, or beside it, with what is written for
// them in a lane.
var thumbLabels = map[string]string{
	"R": "R", "oct": "8", "oct1": "8¹", "oct2": "8²", "TBb": "B♭", "W": "W", "lowD": "D", "lowC": "C",
	"lowB": "B", "lowBb": "B♭",
	"flickA": "a", "flickC": "c", "flickD": "d",
}

func drawKeys(l *layout, f Fingering) Drawn {
	var d Drawn
	for k, name := range l.order {
		if f.Keys&(1<<k) == 0 {
			continue
		}
		d.Keys = append(d.Keys, k)
		label, byThumb := thumbLabels[name]
		switch {
		case isFinger(name):
			d.Holes[name[0]-'1'] = true
		case name == "half":
			d.Half = true
		case name == "T":
			d.Thumb = true
		case byThumb && k < l.bar: // of several the last is the one that names the note
			d.ByIt, d.Thumb = label, d.Thumb || name != "R"
		case k < l.bar:
			d.Left = append(d.Left, laneLabel(name))
		default:
			d.Right = append(d.Right, laneLabel(name))
		}
	}
	return d
}

// laneLabel is a key's name as short as a lane has room for: "pE♭", "sl".
func laneLabel(name string) string {
	if short := map[string]string{"frontF": "fF", "sliver": "sl", "pancakeE": "E"}[name]; short != "" {
		return short
	}
	name = handless(name)
	for _, place := range []string{"side", "palm", "high"} {
		if note, found := strings.CutPrefix(name, place); found {
			name = place[:1] + note
		}
	}
	return withSigns(name)
}

// keyWord is a key's name where it is drawn large: "palm E♭".
func keyWord(name string) string {
	words := map[string]string{
		"T": "thumb", "TBb": "B♭ lever", "oct": "octave", "oct1": "octave 1", "oct2": "octave 2", "R": "register",
		"W": "whisper", "bis": "bis",
		"tr1": "trill 1", "tr2": "trill 2", "half": "half", "sliver": "sliver", "pancakeE": "E",
	}
	if word := words[name]; word != "" {
		return word
	}
	name = handless(name)
	if place, note, ok := placed(name); ok {
		return place + " " + withSigns(note)
	}
	return withSigns(name)
}

// withSigns writes the signs of music for those of text: "F♯4", "B♭".
func withSigns(name string) string {
	name = strings.Replace(name, "#", "♯", 1)
	if at := strings.IndexByte(name, 'b'); at > 0 && slices.Contains([]byte("ABCDEFG"), name[at-1]) {
		name = name[:at] + "♭" + name[at+1:]
	}
	return name
}
