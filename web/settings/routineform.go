package settings

import (
	"cmp"
	"fmt"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"unhurriedbench/core/count"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/routine"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// routineView is a routine to be changed, as it was typed.
type routineView struct {
	routine.Named
	Problems []string
	At       int // the stage, from 1, that was just moved or added; 0 for none
}

// fieldOf names a field of a stage, from 0: "2-word".
func fieldOf(k int, name string) string { return strconv.Itoa(k) + "-" + name }

// readRoutine reads the form. Numbers that are none are left for the check to refuse.
func readRoutine(r *http.Request) routineView {
	v := routineView{Named: routine.Named{ID: site.Text(r, "id"), Title: teach.OneLine(site.Text(r, "title")),
		Why: teach.OneLine(site.Text(r, "why")), Family: site.Text(r, "family")}}
	if letters := []rune(v.Why); len(letters) > routine.LongestWords {
		v.Why = string(letters[:routine.LongestWords])
	}
	for k := range min(int(site.Number(r, "stages")), routine.MostSteps+1) {
		v.Steps = append(v.Steps, readStep(r, k))
	}
	return v
}

func readStep(r *http.Request, k int) routine.Step {
	field := func(name string) string { return site.Text(r, fieldOf(k, name)) }
	figure := func(name string) int {
		typed := field(name)
		n, err := strconv.Atoi(typed)
		if err != nil && typed != "" {
			return -1
		}
		return n
	}
	s := routine.Step{
		Stage: routine.Stage(field("stage")), Word: teach.OneLine(field("word")), Kind: routine.Stage(field("kind")),
		Times: figure("times"), Clean: figure("clean"), ClassClean: figure("class-clean"), TempoSteps: figure("rungs"), Tempo: routine.TempoRule(field("tempo")),
		NoClick: field("click") == "no", Stay: field("stay") == "yes",
	}
	if s.Kind == s.Stage {
		s.Kind = ""
	}
	if s.Tempo != routine.Climb {
		s.TempoSteps = 0
	}
	for _, way := range r.Form[fieldOf(k, "way")] {
		s.Ways = append(s.Ways, routine.Way(way))
	}
	for _, cause := range r.Form[fieldOf(k, "mends")] {
		s.Mends = append(s.Mends, routine.Cause(cause))
	}
	for _, family := range append([]string{""}, instrument.Families()...) {
		if words := teach.OneLine(field("say-" + family)); words != "" {
			s.Say = append(s.Say, routine.Saying{Family: family, Words: words})
		}
	}
	return s
}

// change does to the stages what was pressed: "up-2", "down-2", "drop-2", "add-air",
// "add-own".
func (v *routineView) change(do string) {
	what, which, _ := strings.Cut(do, "-")
	k, err := strconv.Atoi(which)
	at := err == nil && k >= 0 && k < len(v.Steps)
	switch {
	case what == "up" && at && k > 0:
		v.Steps[k-1], v.Steps[k] = v.Steps[k], v.Steps[k-1]
		v.At = k
	case what == "down" && at && k+1 < len(v.Steps):
		v.Steps[k], v.Steps[k+1] = v.Steps[k+1], v.Steps[k]
		v.At = k + 2
	case what == "drop" && at:
		v.Steps = slices.Delete(v.Steps, k, k+1)
	case what == "add" && len(v.Steps) < routine.MostSteps:
		step := routine.Step{Stage: routine.OwnStage("", v.Steps), Word: "Ours", Kind: routine.Play}
		if known := routine.Catalogue().Step(routine.Stage(which)); routine.Catalogue().Has(known.Stage) {
			step = known
		}
		v.Steps = append(v.Steps, step)
		v.At = len(v.Steps)
	case what == "add":
		v.Problems = []string{fmt.Sprintf("A routine has at most %d stages.", routine.MostSteps)}
	}
}

// routineStep is a stage on the form.
type routineStep struct {
	routine.Step
	K        int
	Routine  routineView
	Sayings  []stepSaying
	AllWays  []stepBox
	AllMends []stepBox
}

type stepSaying struct{ Family, Label, Words, Ours string }

type stepBox struct {
	Value, Word string
	On          bool
}

// Stages lists the stages as the form shows them.
func (v routineView) Stages() []routineStep {
	var list []routineStep
	for k, s := range v.Steps {
		list = append(list, routineStep{Step: s, K: k, Routine: v, Sayings: sayingsOf(s), AllWays: waysOf(s),
			AllMends: mendsOf(s)})
	}
	return list
}

// Name names a field of the stage.
func (s routineStep) Name(field string) string { return fieldOf(s.K, field) }

// Number is the stage's place, from 1.
func (s routineStep) Number() int { return s.K + 1 }

// Last says whether it is the last stage.
func (s routineStep) Last() bool { return s.K == len(s.Routine.Steps)-1 }

// Moved says whether it was just moved or added.
func (s routineStep) Moved() bool { return s.Routine.At == s.K+1 }

// CleanFigures lists how many clean tries may be asked for.
func (routineStep) CleanFigures() []int { return teach.UpTo(routine.MostClean) }

// TimesFigures lists how often it may be done in a lesson.
func (routineStep) TimesFigures() []int { return teach.UpTo(routine.MostTimes) }

// Kinds lists what a stage may be a form of.
func (routineStep) Kinds() []routine.Step { return routine.Standard() }

// Rules lists how a stage may take its tempo.
func (routineStep) Rules() []routine.TempoRule { return routine.TempoRules() }

func sayingsOf(s routine.Step) []stepSaying {
	list := []stepSaying{{"", "to everybody", "", ""}}
	for _, family := range instrument.Families() {
		i := firstOf(family)
		words := routine.Step{Stage: s.Stage, Kind: s.Kind}.Words(i, count.Options{})
		list = append(list, stepSaying{family, "to " + family, "", cmp.Or(words, "nothing yet")})
	}
	for k := range list {
		for _, own := range s.Say {
			if own.Family == list[k].Family {
				list[k].Words = own.Words
			}
		}
	}
	return list
}

// firstOf is an instrument of a family that can stand for it.
func firstOf(family string) instrument.Instrument {
	for _, i := range instrument.All() {
		if i.Family == family && (i.TwoHands || family != "percussion") {
			return i
		}
	}
	return instrument.ConcertReader()
}

func waysOf(s routine.Step) []stepBox {
	var list []stepBox
	for _, w := range routine.Ways() {
		list = append(list, stepBox{string(w), w.Word(), slices.Contains(s.Ways, w)})
	}
	return list
}

func mendsOf(s routine.Step) []stepBox {
	var list []stepBox
	for _, c := range routine.AllCauses() {
		list = append(list, stepBox{string(c), c.Words(), slices.Contains(s.Mends, c)})
	}
	return list
}

// Others lists the stages there are words for that are not in the routine.
func (v routineView) Others() routine.Routine {
	return slices.DeleteFunc(routine.Catalogue(), func(s routine.Step) bool { return v.Steps.Has(s.Stage) })
}

// Families lists whom a routine may be for.
func (routineView) Families() []string { return instrument.Families() }
