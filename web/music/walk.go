package music

import (
	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/format/mei"
	"unhurriedbench/core/play"
	"unhurriedbench/core/score"
	"unhurriedbench/core/voice"
	"unhurriedbench/core/walk"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// WalkData is a led run for the page's script, with its music and the clips of what is said.
type WalkData struct {
	Run   walk.Run            `json:"run"`
	Parts []WalkPart          `json:"parts"`
	Said  map[string][]string `json:"said"` // a sentence, or what is called on the beat: its clips
	Voice SpokenVoice         `json:"voice"`
	A4    int                 `json:"a4"`
	Scale []int               `json:"scale"` // the marks of the metronome
	File  string              `json:"file"`  // what a file of it is called, without its ending
}

// WalkPart is the music of a player of a run.
type WalkPart struct {
	With   []walk.Playing           `json:"with"` // the instruments that read it
	Sheet  SheetData                `json:"sheet"`
	Rounds map[string]PlaybackRound `json:"rounds"` // by the key of a chunk
	Voice  Voice                    `json:"voice"`
	Others []WalkOther              `json:"others,omitempty"`
}

// WalkOther is how another instrument fingers the same music.
type WalkOther struct {
	Name    string            `json:"name"`
	Fingers map[string]string `json:"fingers"` // by the id of a note
}

// fingersOf is how a player fingers every note, by ids that begin with what is given.
func fingersOf(p walk.Player, ids mei.IDs) WalkOther {
	o := WalkOther{Name: p.Instrument.Title(), Fingers: map[string]string{}}
	for i, m := range p.Report.Measures {
		for j, e := range m.Events {
			if e.Kind == "note" && !e.Tied && e.Fingering != "" {
				o.Fingers[ids.Event(score.Place{Measure: i, Event: j})] = e.Fingering
			}
		}
	}
	return o
}

// SpokenVoice is where the recorded words are.
type SpokenVoice struct {
	Sound string `json:"sound"`
	Index string `json:"index"`

	Own *SpokenVoice `json:"own,omitempty"` // a teacher's words, in place of those
}

// VoiceOfWords finds the recorded words.
func VoiceOfWords(files *site.Assets) (v SpokenVoice, err error) {
	if v.Sound, err = files.Address("voice/voice.mp3"); err != nil {
		return v, err
	}
	v.Index, err = files.Address("voice/voice.json")
	return v, err
}

// WalkRounds are the sounds of every chunk that a run has, by its key.
func WalkRounds(r breakdown.Report, run walk.Run) map[string]PlaybackRound {
	rounds := map[string]PlaybackRound{}
	for _, m := range run.Moves {
		if _, has := rounds[m.Chunk]; has {
			continue
		}
		key, _ := breakdown.ParseChunkKey(m.Chunk)
		for _, c := range r.Chunks {
			if c.Key() == key {
				rounds[m.Chunk] = NewPlaybackRound(play.RoundOf(r.Part, c.Played(r.Part)))
			}
		}
		if joined, ok := r.Join(r.Chunks, key); ok && m.Joined {
			rounds[m.Chunk] = NewPlaybackRound(play.RoundOf(r.Part, joined.Passages(r.Part)))
		}
	}
	return rounds
}

// NewWalkPart is the music of a part of a run; its ids begin with what is given.
func NewWalkPart(p teach.LedPart, run walk.Run, voice Voice, ids string) WalkPart {
	w := WalkPart{
		With: p.With, Rounds: WalkRounds(p.Report, run), Voice: voice,
		Sheet: NewSheet(p.Report, p.Instrument, p.Words, p.Strings, mei.Options{Ruler: true, IDs: mei.IDs(ids)}),
	}
	for _, other := range p.Others {
		w.Others = append(w.Others, fingersOf(other, mei.IDs(ids)))
	}
	return w
}

// SaidInClips takes all that a run says apart into clips. What the voice cannot say whole is
// left out, and shown alone.
func SaidInClips(run walk.Run) map[string][]string {
	said, words := map[string][]string{}, voice.NewVocabulary()
	say := func(text string) {
		if text == "" || said[text] != nil {
			return
		}
		if clips, ok := words.Split(text); ok {
			said[text] = clips
		}
	}
	for _, m := range run.Moves {
		say(m.Says)
		say(m.Again)
		for _, text := range m.Minds {
			say(text)
		}
		for _, c := range m.CountOff {
			say(c.Says)
		}
		for _, u := range m.Spoken {
			say(u.Text)
		}
	}
	if run.Question != nil {
		say(run.Question.Text)
	}
	return said
}
