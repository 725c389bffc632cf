package web

import (
	"encoding/json"
	"html/template"
	"math"
	"strconv"
	"strings"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/name"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
)

// functions are what templates may call.
var functions = template.FuncMap{
	"slug":    slug,
	"stages":  routine.Stages,
	"causes":  routine.Causes,
	"bar":     stageBar,
	"because": because,
	"json":    inJSON,
	"short":   func(p score.Pitch) string { return name.Short(p, false) },
	"tab":     func(v benchView, t instrumentTab) linkedTab { return linkedTab{t, v.Link("instrument", t.ID)} },
	"pick":    func(all []instrument.Instrument, chosen string) picked { return picked{all, chosen} },
}

// inJSON writes a value for a script to read.
func inJSON(v any) (string, error) {
	text, err := json.Marshal(v)
	return string(text), err
}

// linkedTab is an instrument with the address of its part.
type linkedTab struct {
	instrumentTab
	Link string
}

// picked is a list of instruments with the one that is chosen.
type picked struct {
	All    []instrument.Instrument
	Chosen string
}

// slug is a stage's word in small letters, for addresses and style classes.
func slug(s routine.Stage) string { return strings.ToLower(s.String()) }

// stageBar draws the four-stage bar: cells filled from 0 to 1, its meaning in
// words as its label. The Board has thousands, so it is not a template.
func stageBar(cells [4]float64) template.HTML {
	var words []string
	inner := make([]byte, 0, 320)
	for i, filled := range cells {
		stage, percent := routine.Stage(i), strconv.Itoa(int(math.Round(100*filled)))
		inner = append(inner, `<i class="`...)
		inner = append(inner, slug(stage)...)
		inner = append(inner, `"><b style="width:`...)
		inner = append(inner, percent...)
		inner = append(inner, `%"></b></i>`...)
		switch percent {
		case "0":
		case "100":
			words = append(words, stage.String()+" done")
		default:
			words = append(words, stage.String()+" "+percent+"%")
		}
	}
	label := "not begun"
	if len(words) > 0 {
		label = strings.Join(words, ", ")
	}
	return template.HTML(`<span class="stage-bar" role="img" aria-label="` + label + `">` + string(inner) + `</span>`)
}
