package teach

import (
	"cmp"
	"context"
	"fmt"
	"net/url"
	"strconv"
	"strings"

	"unhurriedbench/core/format/mei"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
)

// OtherPart is the line that goes with the one at hand: part A or B of an exercise of two, or
// a later voice of a round.
type OtherPart struct {
	Lines  store.DuetPart
	Letter string      // of the line at hand, "" of a round
	Other  string      // of the other line
	Shown  string      // how it stands over the music: "small", "large" or "none"
	Part   *score.Part // as the instrument at hand reads it, nil where it does not go with the line
	Why    string      // it does not
	Given  string      // the line that the student at hand has, or the class
}

// The ways to show the other line, the first where nothing is asked for.
var otherShown = []Option{{"small", "small above it"}, {"large", "as large"}, {"none", "left out"}}

// scales are how large the other line is, in hundredths.
var scales = map[string]int{"small": 64, "large": 100}

// LoadOtherPart finds the line that goes with what was chosen. A derived line has none.
func LoadOtherPart(ctx context.Context, desk *Class, saved Settings, c Choice, x Explained) (OtherPart, error) {
	if x.InDrill() {
		return OtherPart{}, nil
	}
	lines, err := desk.DuetPart(ctx, c.Exercise.ID)
	if err != nil || lines == (store.DuetPart{}) {
		return OtherPart{}, err
	}
	o := OtherPart{Lines: lines, Letter: lines.Letter(c.Exercise.ID), Shown: otherShown[0].Value,
		Given: cmp.Or(c.Student.DuetPart, c.Class.DuetPart)}
	for _, known := range otherShown {
		if known.Value == c.Ask.Other {
			o.Shown = known.Value
		}
	}
	part := x.Report.Part
	if lines.B == 0 {
		later := part.Delayed(lines.Entry)
		o.Part, o.Other = &later, "the next voice"
		return o, nil
	}
	other := lines.B
	o.Other = "part B"
	if o.Letter == "B" {
		other, o.Other = lines.A, "part A"
	}
	made, err := madePart(ctx, desk, saved, other, c.Instrument)
	if err != nil {
		o.Why = fmt.Sprintf("%s cannot be read any more.", strings.ToUpper(o.Other[:1])+o.Other[1:])
		return o, nil
	}
	if !score.SameMeasures(part, made) {
		o.Why = "The two lines do not have the same measures, so they cannot stand together."
		return o, nil
	}
	o.Part = &made
	return o, nil
}

// madePart is an exercise as an instrument's Bench has it, without what is explained.
func madePart(ctx context.Context, desk *Class, saved Settings, id store.ExerciseID,
	target instrument.Instrument) (score.Part, error) {
	x, err := desk.Exercise(ctx, id)
	if err != nil {
		return score.Part{}, err
	}
	part, err := desk.Reader.Part(ctx, desk, x, target.ID)
	if err != nil {
		return score.Part{}, err
	}
	placed, err := desk.Placed(ctx, x, target)
	return instrument.Make(part.Source, part.WrittenFor, target, placed).Part, err
}

// MarkEntries writes over a round where the next voices enter: 2 after the first entry, 3
// after the second, and so on, four voices at most (common practice).
func MarkEntries(part score.Part, entry int) score.Part {
	part.Measures = append([]score.Measure(nil), part.Measures...)
	for voice := 2; voice <= 4; voice++ {
		for i := range part.Measures {
			if m := &part.Measures[i]; m.Number == entry*(voice-1)+1 && !m.Split && m.Rehearsal == "" {
				m.Rehearsal = strconv.Itoa(voice)
			}
		}
	}
	return part
}

// Engraved adds to how the Bench's music is written what goes with it.
func (o OtherPart) Engraved(opt mei.Options) mei.Options {
	if o.Part != nil && o.Shown != "none" {
		opt.Other, opt.OtherScale = o.Part, scales[o.Shown]
	}
	return opt
}

// Two says whether there is another line.
func (o OtherPart) Two() bool { return o.Lines != store.DuetPart{} }

// Otherwise lists the ways to show the other line.
func (o OtherPart) Otherwise() []Option { return otherShown }

// Letters names the two lines.
func (o OtherPart) Letters() []string { return []string{"A", "B"} }

// OtherInto writes into an address how the other line is shown, and that this one is kept to.
func (a Request) OtherInto(q url.Values) {
	if a.Other != "" {
		q.Set("other", a.Other)
	}
	if a.Save {
		q.Set("keep", "yes")
	}
}
