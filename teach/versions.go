package teach

import (
	"fmt"
	"net/url"
	"strconv"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/finger"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// OpenVersion puts the line that is asked for in place of the exercise, with chunks of its
// own; one that cannot be made leaves the exercise.
func (x *Explained) OpenVersion(c *Choice) error {
	x.Of = x.Report.Chunks
	x.From, _ = breakdown.ParseChunkKey(c.Ask.Of)
	within, found := breakdown.Chunk{}, false
	for _, p := range x.Of {
		if found = p.Key() == x.From; found || len(within.At) == 0 {
			within = p
		}
		if found {
			break
		}
	}
	if joined, ok := x.Report.Join(x.Of, x.From); ok && !found {
		within = joined
	}
	x.From = within.Key()
	c.Ask.Of = x.From.String()
	switch {
	case c.Ask.Line == DrillVersion && len(x.Drills) > 0:
		music, chunks := x.Report.DrillScore(x.Drills)
		x.Options.Finger.Preferred, x.Options.Finger.Placed, x.Options.Finger.Plain = x.drillFingerings(), nil, true
		x.stand(c, music, chunks)
		return nil
	case x.CanMake(c.Ask.Line):
		d, err := breakdown.Derive(c.Ask.Line, x.Report.Title, x.Report.Part, x.Of, within,
			breakdown.VersionAsk{On: c.oneNotePitch(), First: c.Ask.First})
		if err != nil {
			return fmt.Errorf("derive a line: %w", err)
		}
		x.Options.Finger.Placed = placedInLine(d, x.Options.Finger.Placed)
		x.stand(c, d.Score, d.Chunks)
		return nil
	}
	c.Ask.Line = ""
	return nil
}

// CanMake says whether a line can be made of the exercise.
func (x *Explained) CanMake(line breakdown.PracticeVersion) bool {
	for _, l := range x.Lines {
		if l == line {
			return true
		}
	}
	return false
}

// stand puts music written for the instrument in place of the exercise.
func (x *Explained) stand(c *Choice, music score.Score, chunks []breakdown.Chunk) {
	x.Line, x.Options.Placed.Chosen = c.Ask.Line, false
	o := x.Options
	o.Annotations, o.Chunks = nil, nil // they belong to the exercise
	beat := x.Report.Part.Meter().Beat()
	x.Report = breakdown.Read(music, music.Parts[0], c.Instrument.ID, c.Instrument, nil, o)
	if x.Report.Part.Meter().Beat() != beat { // a tempo in other beats says nothing of it
		x.Tempo = x.Report.Tempo.Suggested
	}
	x.Report.Chunks, x.Octaves, x.Remarks, x.MarkedTempo, x.TempoWords = chunks, nil, nil, score.Tempo{}, ""
	c.chunksOf(x.Report)
}

// placedInLine takes what the teacher chose for single places along to a line.
func placedInLine(d breakdown.Derived, placed map[score.Place]finger.Spot) map[score.Place]finger.Spot {
	there := map[score.Place]finger.Spot{}
	for i, m := range d.Score.Parts[0].Measures {
		for j := range m.Events {
			at := score.Place{Measure: i, Event: j}
			if from, ok := d.From(at); ok {
				if spot, chosen := placed[from]; chosen {
					there[at] = spot
				}
			}
		}
	}
	return there
}

// oneNotePitch is the written note that was asked for, or that of the concert note that was, or
// that suits the class.
func (c *Choice) oneNotePitch() score.Pitch {
	if p, own := writtenNote(c.Ask.OneNote, c.Instrument); own {
		return p
	}
	class := instrument.SuggestOneNote(c.Instruments())
	for _, known := range instrument.OneNotes() {
		if KeyOf(known) == c.Ask.OneNote {
			class = known
		}
	}
	return instrument.WrittenFor(class, c.Instrument)
}

// Instruments lists the instruments of the class.
func (c *Choice) Instruments() []instrument.Instrument {
	var list []instrument.Instrument
	for _, tab := range c.Tabs {
		if tab.Students > 0 {
			list = append(list, tab.Instrument)
		}
	}
	return list
}

// LineInto writes which line is asked for into an address.
func (a Request) LineInto(q url.Values) {
	q.Set("line", string(a.Line))
	if a.Of != "" {
		q.Set("of", a.Of)
	}
	if (a.Line == breakdown.OneNote || a.Line == breakdown.PulsedOne) && a.OneNote != "" {
		q.Set("one", a.OneNote)
	}
	if a.Line == breakdown.AddANote && a.First != 0 {
		q.Set("first", strconv.Itoa(a.First))
	}
}

// LineTitle leads the title of the exercise where a line stands in its place.
func (x Explained) LineTitle() string {
	switch x.Line {
	case "":
		return ""
	case DrillVersion:
		return "Hard changes of"
	}
	return x.Line.Title() + ":"
}

// LineWhy says what the line is for.
func (x Explained) LineWhy() string {
	if x.Line == DrillVersion {
		return "Two notes at a time, longer values first, hardest change first."
	}
	return x.Line.Why()
}

// TakesChunk says whether the line is made of one chunk.
func (x Explained) TakesChunk() bool {
	return x.Line.TakesChunk()
}

// drillFingerings are the ways of the drilled notes in the exercise.
func (x *Explained) drillFingerings() finger.Preferred {
	ways := finger.Preferred{}
	for midi, text := range x.Options.Finger.Preferred {
		ways[midi] = text
	}
	for _, d := range x.Drills {
		ways[d.From.Pitch.MIDI()], ways[d.To.Pitch.MIDI()] = d.From.Text, d.To.Text
	}
	return ways
}

// LineWord is the line in a word: "an even walk".
func (x Explained) LineWord() string {
	if x.Line == DrillVersion {
		return "drill"
	}
	return "line"
}
