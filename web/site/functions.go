package site

import (
	"crypto/rand"
	"encoding/json"
	"fmt"
	"html/template"
	"math"
	"strconv"
	"strings"

	"unhurriedbench/core/card"
	"unhurriedbench/core/care"
	"unhurriedbench/core/format"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/routine"
	"unhurriedbench/teach"
)

// careLink is the page for an instrument.
func careLink(id string) string {
	i, _ := instrument.ByID(id)
	return "/care/" + string(care.KindOf(i))
}

// kindWords say what a kind of card asks.
func kindWords(k card.Kind) string {
	return map[card.Kind]string{
		card.Place: "on which line or space", card.Name: "the name", card.Finger: "how it is played",
		card.Key:    "the letters of a key signature",
		card.Rhythm: "a measure, to be counted", card.Interval: "how far two neighbours are apart",
		card.Change: "two notes, fingered one after the other",
	}[k]
}

// functions are what templates may call.
var functions = template.FuncMap{
	"causes":       routine.AllCauses,
	"bar":          StageBar,
	"stands":       StateBar,
	"inWords":      teach.InWords,
	"json":         inJSON,
	"newKey":       rand.Text,
	"musicEndings": func() string { return strings.Join(format.Endings(), ",") },
	"careLink":     careLink,
	"pitch":        teach.WithOctave,
	"short":        teach.ShortPitch,
	"kindWords":    kindWords,
	"svg":          func(drawn string) template.HTML { return template.HTML(drawn) },
	"plot":         DrawPlot,
	"pair":         func(a, b any) two { return two{a, b} },
	"pick":         func(all []instrument.Instrument, chosen string) picked { return picked{all, chosen} },
}

// two are what a partial needs that has one argument.
type two struct{ A, B any }

// inJSON writes a value for a script to read.
func inJSON(v any) (string, error) {
	text, err := json.Marshal(v)
	return string(text), err
}

// picked is a list of instruments with the one that is chosen.
type picked struct {
	All    []instrument.Instrument
	Chosen string
}

// StageBar draws the bar of a routine's stages, its meaning in words as its label: full
// where a stage is earned, an open outline with a stroke through it where it was passed over,
// with a dot where it is so by playing. The Board has thousands, so it is not a template.
func StageBar(r routine.Routine, cells []routine.Cell) template.HTML {
	label := make([]byte, 0, 64)
	inner := make([]byte, 0, 320)
	for i, c := range cells {
		word, percent := template.HTMLEscapeString(r[i].Word), int(math.Round(100*c.Filled))
		inner = append(inner, `<i class="`...)
		inner = append(inner, r[i].Form()...)
		said := ""
		switch c.Credit {
		case routine.PassedOver:
			inner, said = append(inner, " over"...), c.Credit.Words()
		case routine.ByPlaying:
			inner, said = append(inner, " played"...), c.Credit.Words()
		case routine.Earned:
			percent, said = 100, c.Credit.Words()
		case routine.Open:
			if percent = min(percent, 99); percent > 0 {
				said = strconv.Itoa(percent) + "%"
			}
		}
		inner = append(inner, `"><b style="width:`...)
		inner = strconv.AppendInt(inner, int64(percent), 10)
		inner = append(inner, `%"></b></i>`...)
		if said == "" {
			continue
		}
		if len(label) > 0 {
			label = append(label, ", "...)
		}
		label = append(append(append(label, word...), ' '), said...)
	}
	if len(label) == 0 {
		label = append(label, "not begun"...)
	}
	return template.HTML(`<span class="stage-bar" role="img" aria-label="` + string(label) + `">` +
		string(inner) + `</span>`)
}

// StateBar draws the bar of where somebody stands on a chunk.
func StateBar(r routine.Routine, s routine.State) template.HTML { return StageBar(r, r.Cells(s)) }

// DrawPlot draws one of the plots of a student's record.
func DrawPlot(p any) (template.HTML, error) {
	switch p := p.(type) {
	case teach.TempoPlot:
		return drawTempoPlot(p), nil
	case teach.DayPlot:
		return drawDayPlot(p), nil
	case teach.SpeedPlot:
		return drawSpeedPlot(p), nil
	}
	return "", fmt.Errorf("there is no drawing of a %T", p)
}
