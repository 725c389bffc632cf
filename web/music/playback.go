package music

import (
	"encoding/json"
	"fmt"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/play"
	"unhurriedbench/web/site"
)

// recordedNote is a recorded note as static/notes/notes.json has it, with its address.
// From and To are seconds, between which a held note goes round; 0 of one that dies away.
type recordedNote struct {
	File string  `json:"file,omitempty"`
	URL  string  `json:"url"`
	MIDI int     `json:"midi"`
	Hz   float64 `json:"hz"`
	From float64 `json:"from,omitempty"`
	To   float64 `json:"to,omitempty"`
}

// Recordings are the notes of every recorded instrument.
type Recordings map[string][]recordedNote

// ReadRecordings reads their list.
func ReadRecordings(files *site.Assets) (Recordings, error) {
	text, err := site.Static.ReadFile("static/notes/notes.json")
	if err != nil {
		return nil, fmt.Errorf("read the list of recorded notes: %w", err)
	}
	var list Recordings
	if err := json.Unmarshal(text, &list); err != nil {
		return nil, fmt.Errorf("read the list of recorded notes: %w", err)
	}
	for _, notes := range list {
		for k := range notes {
			if notes[k].URL, err = files.Address("notes/" + notes[k].File); err != nil {
				return nil, err
			}
			notes[k].File = ""
		}
	}
	return list, nil
}

// Voice is what the page's script needs to sound an instrument. Without notes it is struck,
// and computed there.
type Voice struct {
	Name   string         `json:"name"`
	Larger int            `json:"larger"`
	Notes  []recordedNote `json:"notes"`
}

// VoiceOf finds the recorded notes of an instrument.
func (r Recordings) VoiceOf(i instrument.Instrument) Voice {
	v := i.Voice()
	return Voice{v.Name, v.Larger, r[v.Name]}
}

// PlaybackRound is a chunk played once, for the page's script. Times are in whole notes.
type PlaybackRound struct {
	Notes  []playbackNote `json:"notes"`
	Length float64        `json:"length"`
	Rest   float64        `json:"rest"` // until it can begin again
	Holds  []playbackHold `json:"holds,omitempty"`
}

// playbackHold is a fermata: from At on everything waits For, and what sounds is as long again.
type playbackHold struct {
	At  float64 `json:"at"`
	For float64 `json:"for"`
}

type playbackNote struct {
	At     float64 `json:"at"`
	Sounds float64 `json:"sounds"`
	MIDI   []int   `json:"midi"` // none for a stroke without pitch
	Loud   float64 `json:"loud"`
	Ends   float64 `json:"ends,omitempty"` // how loud it ends, where that is otherwise
	Joined bool    `json:"joined,omitempty"`
	Roll   bool    `json:"roll,omitempty"`
	Graces int     `json:"graces,omitempty"`
}

// NewPlaybackRound is a round for the page's script.
func NewPlaybackRound(r play.Round) PlaybackRound {
	heard := PlaybackRound{Notes: []playbackNote{}, Length: r.Length.Float(), Rest: r.Rest.Float()}
	for _, h := range r.Holds {
		heard.Holds = append(heard.Holds, playbackHold{h.At.Float(), h.For.Float()})
	}
	for _, n := range r.Notes {
		ends := n.Ends
		if ends == n.Loud {
			ends = 0
		}
		heard.Notes = append(heard.Notes, playbackNote{
			n.At.Float(), n.Sounds.Float(), n.MIDI, n.Loud, ends, n.Joined, n.Roll, n.Graces,
		})
	}
	return heard
}
