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
	"bar":    newBar,
	"pick":   func(all []instrument.Instrument, chosen string) picked { return picked{all, chosen} },
}

// picked is a list of instruments with the one that is chosen.
type picked struct {
	All    []instrument.Instrument
	Chosen string
}

// slug is a stage's word in small letters, for addresses and style classes.
func slug(s routine.Stage) string { return strings.ToLower(s.String()) }

// bar is the four-stage bar: cells filled from 0 to 1, and its meaning in words.
type bar struct {
	Cells []barCell
	Words string
}

type barCell struct {
	Stage   routine.Stage
	Percent int
}

func newBar(cells [4]float64) bar {
	var b bar
	var words []string
	for i, filled := range cells {
		stage := routine.Stage(i)
		p := int(math.Round(100 * filled))
		b.Cells = append(b.Cells, barCell{stage, p})
		switch {
		case p == 100:
			words = append(words, stage.String()+" done")
		case p > 0:
			words = append(words, fmt.Sprintf("%s %d%%", stage, p))
		}
	}
	b.Words = strings.Join(words, ", ")
	if b.Words == "" {
		b.Words = "not begun"
	}
	return b
}
