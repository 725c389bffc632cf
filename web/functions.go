package web

import (
	"crypto/rand"
	"encoding/json"
	"fmt"
	"html/template"
	"math"
	"strconv"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/name"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
)

// functions are what templates may call.
var functions = template.FuncMap{
	"causes":    routine.AllCauses,
	"bar":       stageBar,
	"stands":    stateBar,
	"inWords":   inWords,
	"json":      inJSON,
	"press":     rand.Text,
	"careLink":  careLink,
	"pitch":     withOctave,
	"short":     shortPitch,
	"kindWords": kindWords,
	"svg":       func(drawn string) template.HTML { return template.HTML(drawn) },
	"plot":      drawPlot,
	"pair":      func(a, b any) two { return two{a, b} },
	"pick":      func(all []instrument.Instrument, chosen string) picked { return picked{all, chosen} },
}

// two are what a partial needs that has one argument.
type two struct{ A, B any }

// shortPitch is "E♭".
func shortPitch(p score.Pitch) string { return name.Short(p, false) }

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

// stageBar draws the bar of a routine's stages: cells filled from 0 to 1, its meaning
// in words as its label. The Board has thousands, so it is not a template.
func stageBar(r routine.Routine, cells []float64) template.HTML {
	label := make([]byte, 0, 64)
	inner := make([]byte, 0, 320)
	for i, filled := range cells {
		word, percent := template.HTMLEscapeString(r[i].Word), int(math.Round(100*filled))
		inner = append(inner, `<i class="`...)
		inner = append(inner, r[i].Form()...)
		inner = append(inner, `"><b style="width:`...)
		inner = strconv.AppendInt(inner, int64(percent), 10)
		inner = append(inner, `%"></b></i>`...)
		if percent == 0 {
			continue
		}
		if len(label) > 0 {
			label = append(label, ", "...)
		}
		label = append(label, word...)
		if percent == 100 {
			label = append(label, " done"...)
		} else {
			label = append(append(append(label, ' '), strconv.Itoa(percent)...), '%')
		}
	}
	if len(label) == 0 {
		label = append(label, "not begun"...)
	}
	return template.HTML(`<span class="stage-bar" role="img" aria-label="` + string(label) + `">` + string(inner) + `</span>`)
}

// stateBar draws the bar of where somebody stands on a piece.
func stateBar(r routine.Routine, s routine.State) template.HTML { return stageBar(r, r.Cells(s)) }

// inWords writes a small number out.
func inWords(n int) string {
	words := [...]string{"no", "one", "two", "three", "four", "five", "six", "seven", "eight"}
	if n < len(words) {
		return words[n]
	}
	return strconv.Itoa(n)
}

// drawPlot draws one of the plots of a student's record.
func drawPlot(p any) (template.HTML, error) {
	switch p := p.(type) {
	case tempoPlot:
		return drawTempoPlot(p), nil
	case dayPlot:
		return drawDayPlot(p), nil
	case speedPlot:
		return drawSpeedPlot(p), nil
	}
	return "", fmt.Errorf("there is no drawing of a %T", p)
}
