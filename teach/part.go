package teach

import (
	"cmp"
	"context"
	"slices"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/count"
	"unhurriedbench/core/finger"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
)

// Explained is the Bench's second step: the part of what was chosen, read whole.
type Explained struct {
	Opening     bool // nothing was met before it, so that nothing is new beside anything
	Report      breakdown.Report
	Remarks     []score.Problem
	Options     breakdown.Options
	Octaves     []instrument.OctaveOption
	OwnPart     bool                        // the instrument's part is not made from the source
	Drills      []breakdown.Drill           // the hardest changes of the exercise
	Lines       []breakdown.PracticeVersion // that can be made of the exercise
	Line        breakdown.PracticeVersion   // on the page in place of the exercise, "" for none
	Of          []breakdown.Chunk           // the chunks of the exercise, where a line stands in its place
	From        breakdown.ChunkKey          // the chunk that the line is of
	Words       finger.Words
	Tempo       int         // to start at
	MarkedTempo score.Tempo // that is marked, and its words
	TempoWords  string
}

// ChooseWithWays is what a request chooses, how its teacher teaches, and what the class has
// worked on.
func ChooseWithWays(ctx context.Context, desk *Class, ask Request) (Choice, Settings, []store.ExerciseID, error) {
	if _, err := desk.Exercises(ctx); err != nil { // the one at hand is among them
		return Choice{}, Settings{}, nil, err
	}
	c, err := Choose(ctx, desk, ask)
	if err != nil {
		return c, Settings{}, nil, err
	}
	saved, err := LoadSettings(ctx, desk)
	if err != nil {
		return c, saved, nil, err
	}
	worked, err := desk.Worked(ctx, c.Class.ID, 0)
	return c, saved, worked, err
}

// ExplainEach explains what is asked for to each instrument that is wanted.
func ExplainEach(ctx context.Context, desk *Class, ask Request, desired func(Choice, InstrumentTab) bool,
	each func(Choice, InstrumentTab, Explained, Settings)) (Choice, error) {
	c, saved, worked, err := ChooseWithWays(ctx, desk, ask)
	if err != nil {
		return c, err
	}
	for _, tab := range c.Tabs {
		if !desired(c, tab) {
			continue
		}
		at := c
		at.Instrument = tab.Instrument
		x, err := Explain(ctx, desk, &at, saved, worked)
		if err != nil {
			return c, err
		}
		each(at, tab, x, saved)
	}
	return c, nil
}

// Plays says whether anybody in the class plays an instrument; where nobody is in it, the
// one at hand.
func (c Choice) Plays(tab InstrumentTab) bool {
	return tab.Students > 0 || tab.Current && len(c.Students) == 0
}

// Explain reads the part of what was chosen, as the teacher has it taught, for a class that
// has worked on some exercises.
func Explain(ctx context.Context, desk *Class, c *Choice, saved Settings,
	worked []store.ExerciseID) (Explained, error) {
	var x Explained
	c.Instrument = saved.Instrument(c.Instrument)
	met, err := desk.MetBefore(ctx, c.Exercise, c.Instrument.ID, worked)
	if err != nil {
		return x, err
	}
	x.Words, x.Options = saved.Preferences.FingerWords(), saved.Preferences.Options(c.Class)
	if x.Options.Finger, err = fingerOptions(ctx, desk, *c); err != nil {
		return x, err
	}
	part, err := desk.Reader.Part(ctx, desk, c.Exercise, c.Instrument.ID)
	if err != nil {
		return x, err
	}
	x.Opening = met.Empty()
	x.OwnPart, x.MarkedTempo, x.TempoWords = part.Own, part.Score.Tempo, part.Score.TempoWords
	if x.Options.Placed, err = desk.Placed(ctx, c.Exercise, c.Instrument); err != nil {
		return x, err
	}
	if x.Options.Annotations, err = desk.Annotations(ctx, c.Exercise.ID, c.Instrument.ID); err != nil {
		return x, err
	}
	if x.Options.Chunks, err = desk.HandChunks(ctx, c.Exercise.ID); err != nil {
		return x, err
	}
	if !x.OwnPart {
		x.Octaves = instrument.OctaveOptions(part.Source, part.WrittenFor, c.Instrument, c.Class.Year,
			x.Options.Placed.Beside)
	}
	x.Report = breakdown.Read(part.Score, part.Source, part.WrittenFor, c.Instrument, met, x.Options)
	history, err := desk.CleanAt(ctx, c.Class.ID, c.Student.ID, c.Instrument.ID, c.Exercise.ID)
	if err != nil {
		return x, err
	}
	x.Report.StartFrom(history, part.Score.Tempo.Beats(x.Report.Part.Meter()))
	x.Tempo = x.Report.Tempo.Suggested
	x.Remarks = slices.Concat(ofPart(part.Score.Remarks, part.Source.Name), x.Report.Remarks)
	x.Drills, x.Lines = x.Report.Drills(c.Instrument), breakdown.PracticeVersions(x.Report.Part)
	c.chunksOf(x.Report)
	return x, x.OpenVersion(c)
}

// NewTo is what the student at hand has not met, or the class.
func NewTo(ctx context.Context, desk *Class, c Choice, r breakdown.Report) ([]string, error) {
	if c.Student.ID == 0 {
		return r.News(), nil
	}
	worked, err := desk.Worked(ctx, c.Class.ID, c.Student.ID)
	if err != nil || len(worked) == 0 {
		return r.News(), err
	}
	met, err := desk.MetBefore(ctx, c.Exercise, c.Instrument.ID, worked)
	return r.NewIn(met), err
}

// chunksOf takes the chunks in learning order.
func (c *Choice) chunksOf(r breakdown.Report) {
	c.Keys = nil
	for _, p := range r.Chunks {
		c.Keys = append(c.Keys, p.Key())
	}
	c.chooseChunk(c.Ask.Chunk)
}

// InDrill says whether a drill or another line stands in place of the exercise.
func (x Explained) InDrill() bool { return x.Line != "" }

// fingerOptions is how the teacher wants the part fingered.
func fingerOptions(ctx context.Context, desk *Class, c Choice) (finger.Options, error) {
	o := finger.Options{Year: c.Class.Year}
	var err error
	if o.Preferred, err = desk.Preferred(ctx, c.Instrument.ID); err != nil {
		return o, err
	}
	o.Placed, err = desk.Fingerings(ctx, c.Exercise.ID, c.Instrument.ID)
	return o, err
}

// Stand is a part as it is put on the stand: one chunk of it at one stage, to be drawn, told
// and heard.
type Stand struct {
	Work
	Explained
	Tempo    int
	Chunks   []standChunk
	Chunk    standChunk
	Passages []breakdown.Passage // the chunk, measure by measure
	Played   []breakdown.Passage // the same as it is played
	BeatName string
	CountOff []count.Cue
	OneNote  oneNote
	Strings  []StringColour
	A4       int // the reference pitch in hertz
}

type standChunk struct {
	breakdown.Chunk
	Current bool
	State   routine.State
}

// NewStand lays out what was chosen, loaded and explained.
func NewStand(w Work, x Explained, p Preferences) Stand {
	v := Stand{Work: w, Explained: x, Tempo: w.Tempo, Strings: p.StringColours(w.Instrument)}
	v.Counting = x.Options.Count
	for k, chunk := range x.Report.Chunks {
		b := standChunk{Chunk: chunk, Current: chunk.Key() == w.Key, State: w.States[chunk.Key()]}
		if b.Current {
			v.Chunk = b
			if x.Line == DrillVersion && v.Tempo == 0 {
				v.Tempo = x.Drills[k].Tempo
			}
		}
		v.Chunks = append(v.Chunks, b)
	}
	if v.Tempo == 0 {
		v.Tempo = x.Tempo
	}
	v.OneNote = OneNoteFor(w.Students, w.Instrument, x.Options, cmp.Or(w.Ask.OneNote, w.Class.Shape.Note))
	v.BeatName = x.Report.Part.Meter().BeatName(x.Options.British)
	v.Passages = v.Chunk.Passages(x.Report.Part)
	v.Played = v.Chunk.Played(x.Report.Part)
	v.A4 = p.PitchOfA()
	v.CountOff = CountOff(x, v.Passages)
	return v
}

// CountOff is what is counted before passages.
func CountOff(x Explained, passages []breakdown.Passage) []count.Cue {
	first := x.Report.Part.Measures[passages[0].At]
	first.Offset = passages[0].From
	return count.CountOff(score.Part{Measures: []score.Measure{first}}, x.Options.Count)
}

// Plan is what the page's script plays of the chunk at hand, in the order of playing,
// and frames.
func (v Stand) Plan() []Planned {
	var list []Planned
	for _, s := range v.Played {
		list = append(list, Planned{s.At, s.From.Float(), s.To.Float()})
	}
	return list
}

// Planned is a measure of the chunk at hand by its index, or as much of one as belongs
// to it, in whole notes from its bar line.
type Planned struct {
	Index int     `json:"index"`
	From  float64 `json:"from"`
	To    float64 `json:"to"`
}

// ofPart leaves out what is remarked of other parts of a file.
func ofPart(remarks []score.Problem, name string) []score.Problem {
	var own []score.Problem
	for _, p := range remarks {
		if p.Part == "" || p.Part == name {
			own = append(own, p)
		}
	}
	return own
}
