package web

import (
	"fmt"
	"html/template"
	"math"
	"strings"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/routine"
)

// functions are what templates may call.
var functions = template.FuncMap{
	"slug":   slug,
	"stages": routine.Stages,
	"causes": routine.Causes,
	"bar":    stageBar,
	"pick":   func(all []instrument.Instrument, chosen string) picked { return picked{all, chosen} },
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
	var inner, words strings.Builder
	for i, filled := range cells {
		stage, percent := routine.Stage(i), int(math.Round(100*filled))
		fmt.Fprintf(&inner, `<i class="%s"><b style="width:%d%%"></b></i>`, slug(stage), percent)
		if percent == 0 {
			continue
		}
		if words.Len() > 0 {
			words.WriteString(", ")
		}
		if percent == 100 {
			words.WriteString(stage.String() + " done")
		} else {
			fmt.Fprintf(&words, "%s %d%%", stage, percent)
		}
	}
	label := words.String()
	if label == "" {
		label = "not begun"
	}
	return template.HTML(`<span class="stage-bar" role="img" aria-label="` + label + `">` + inner.String() + `</span>`)
}
