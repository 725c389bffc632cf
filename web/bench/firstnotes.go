package bench

import (
	"net/http"
	"strings"

	"unhurriedbench/core/play"
	"unhurriedbench/teach"
	"unhurriedbench/web/music"
	"unhurriedbench/web/site"
)

// heard is what the page's script sounds of the chunk at hand.
type heard struct {
	Round music.PlaybackRound  `json:"round"`
	Voice music.Voice          `json:"voice"`
	Other *music.PlaybackRound `json:"other,omitempty"` // the line that goes with it
	One   int                  `json:"one"`             // the one note for everybody as it sounds, as a MIDI number
	A4    int                  `json:"a4"`              // hertz
}

func newPlayback(r music.Recordings, v benchView) heard {
	return heard{music.NewPlaybackRound(play.RoundOf(v.Report.Part, v.Played)), r.VoiceOf(v.Instrument),
		v.heardOther(), v.OneNotePitch(), v.A4}
}

// FirstNotesLink is where the first notes of everybody in the class are.
func (v benchView) FirstNotesLink() string {
	return strings.Replace(v.Here(), "?", "/first-notes?", 1)
}

// OneNotePitch is the note for everybody as the instrument at hand sounds it, as a MIDI
// number; 0 for one without pitch.
func (v benchView) OneNotePitch() int {
	if v.Instrument.Unpitched() {
		return 0
	}
	return v.OneNote.Pitch.Transpose(v.Instrument.Transposition).MIDI()
}

// firstNote is the first note of an instrument in the room.
type firstNote struct {
	Instrument string      `json:"instrument"`
	Name       string      `json:"name"` // as it is read there; "" of a stroke without pitch
	MIDI       []int       `json:"midi"` // as it sounds
	Voice      music.Voice `json:"voice"`
}

// firstNotes answers with the first note of the chunk at hand for every instrument that is
// played in the class.
func (s *handlers) firstNotes(w http.ResponseWriter, r *http.Request) error {
	list := []firstNote{}
	_, err := teach.ExplainEach(r.Context(), site.ClassOf(r), askOf(r), teach.Choice.Plays,
		func(at teach.Choice, tab teach.InstrumentTab, x teach.Explained, _ teach.Settings) {
			chunk := x.Report.Chunks[0]
			for _, p := range x.Report.Chunks {
				if p.Key() == at.Key {
					chunk = p
				}
			}
			notes := play.RoundOf(x.Report.Part, chunk.Played(x.Report.Part)).Notes
			if len(notes) == 0 {
				return
			}
			first := firstNote{Instrument: tab.Title(), MIDI: notes[0].MIDI, Voice: s.Recordings.VoiceOf(tab.Instrument)}
			if len(first.MIDI) > 0 {
				first.Name = x.Options.Name.Say(x.Report.Part.At(notes[0].Place).Pitch, false, x.Report.Part.Key())
			}
			list = append(list, first)
		})
	if err != nil {
		return err
	}
	s.JSON(w, r, list)
	return nil
}
