package web

import (
	"encoding/json"
	"fmt"
	"net/http"
	"strings"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/play"
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

// recordings are the notes of every recorded instrument.
type recordings map[string][]recordedNote

// readRecordings reads their list.
func readRecordings(files *assets) (recordings, error) {
	text, err := static.ReadFile("static/notes/notes.json")
	if err != nil {
		return nil, fmt.Errorf("read the list of recorded notes: %w", err)
	}
	var list recordings
	if err := json.Unmarshal(text, &list); err != nil {
		return nil, fmt.Errorf("read the list of recorded notes: %w", err)
	}
	for _, notes := range list {
		for k := range notes {
			if notes[k].URL, err = files.address("notes/" + notes[k].File); err != nil {
				return nil, err
			}
			notes[k].File = ""
		}
	}
	return list, nil
}

// voice is what the page's script needs to sound an instrument. Without notes it is struck,
// and computed there.
type voice struct {
	Name   string         `json:"name"`
	Larger int            `json:"larger"`
	Notes  []recordedNote `json:"notes"`
}

// voiceOf finds the recorded notes of an instrument.
func (r recordings) voiceOf(i instrument.Instrument) voice {
	v := i.Voice()
	return voice{v.Name, v.Larger, r[v.Name]}
}

// heardRound is a piece played once, for the page's script. Times are in whole notes.
type heardRound struct {
	Notes  []heardNote `json:"notes"`
	Length float64     `json:"length"`
	Rest   float64     `json:"rest"` // until it can begin again
}

type heardNote struct {
	At     float64 `json:"at"`
	Sounds float64 `json:"sounds"`
	MIDI   []int   `json:"midi"` // none for a stroke without pitch
	Loud   float64 `json:"loud"`
	Joined bool    `json:"joined,omitempty"`
	Roll   bool    `json:"roll,omitempty"`
	Graces int     `json:"graces,omitempty"`
}

func newHeardRound(r play.Round) heardRound {
	heard := heardRound{[]heardNote{}, r.Length.Float(), r.Rest.Float()}
	for _, n := range r.Notes {
		heard.Notes = append(heard.Notes, heardNote{
			n.At.Float(), n.Sounds.Float(), n.MIDI, n.Loud, n.Joined, n.Roll, n.Graces,
		})
	}
	return heard
}

// heard is what the page's script sounds of the piece at hand.
type heard struct {
	Round heardRound  `json:"round"`
	Voice voice       `json:"voice"`
	Other *heardRound `json:"other,omitempty"` // the line that goes with it
	One   int         `json:"one"`             // the one note for everybody as it sounds, as a MIDI number
	A4    int         `json:"a4"`              // hertz
}

func newHeard(r recordings, v benchView) heard {
	return heard{newHeardRound(play.RoundOf(v.Report.Part, v.played)), r.voiceOf(v.Instrument), v.heardOther(), v.OneNotePitch(), v.A4}
}

// FirstNotesLink is where the first notes of everybody in the section are.
func (v benchView) FirstNotesLink() string {
	return strings.Replace(v.Here(), "?", "/first-notes?", 1)
}

// OneNotePitch is the note for everybody as the instrument at hand sounds it, as a MIDI
// number; 0 for one without pitch.
func (v benchView) OneNotePitch() int {
	if v.Instrument.Unpitched() {
		return 0
	}
	return instrument.WrittenFor(v.OneNote.class, v.Instrument).Transpose(v.Instrument.Transposition).MIDI()
}

// firstNote is the first note of an instrument in the room.
type firstNote struct {
	Instrument string `json:"instrument"`
	Name       string `json:"name"` // as it is read there; "" of a stroke without pitch
	MIDI       []int  `json:"midi"` // as it sounds
	Voice      voice  `json:"voice"`
}

// firstNotes answers with the first note of the piece at hand for every instrument that is
// played in the section.
func (s *Server) firstNotes(w http.ResponseWriter, r *http.Request) {
	list := []firstNote{}
	_, err := explainEach(r.Context(), deskOf(r), askOf(r), choice.plays, func(at choice, tab instrumentTab, x explained, _ taughtBy) {
		piece := x.Report.Pieces[0]
		for _, p := range x.Report.Pieces {
			if p.Key() == at.Key {
				piece = p
			}
		}
		notes := play.RoundOf(x.Report.Part, piece.Played(x.Report.Part)).Notes
		if len(notes) == 0 {
			return
		}
		first := firstNote{Instrument: tab.Title(), MIDI: notes[0].MIDI, Voice: s.recordings.voiceOf(tab.Instrument)}
		if len(first.MIDI) > 0 {
			first.Name = x.Options.Name.Say(x.Report.Part.At(notes[0].Place).Pitch, false, x.Report.Part.Key())
		}
		list = append(list, first)
	})
	if err != nil {
		s.failedToRead(w, r, err)
		return
	}
	s.json(w, r, list)
}
