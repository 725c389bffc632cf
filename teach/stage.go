package teach

import (
	"fmt"
	"strings"

	"unhurriedbench/core/routine"
)

// Step is the stage at hand as it stands in the routine.
func (w Work) Step() routine.Step { return w.Routine.Step(w.Stage) }

// StageTitle says what to do at the stage at hand.
func (w Work) StageTitle() string { return w.Step().Title(w.Instrument) }

// StageWords says how, for the instrument.
func (w Work) StageWords() string { return w.Step().Words(w.Instrument, w.Counting) }

// WithHands says whether hands or fingers move at the stage at hand.
func (w Work) WithHands() bool { return w.Step().WithHands() }

// OnOneNote says whether the stage at hand sits well on one note.
func (w Work) OnOneNote() bool { return w.Step().OnOneNote() }

// wayLine is a way of doing the stage at hand, with what the instrument does.
type wayLine struct{ Word, Words string }

// Ways lists the ways of the stage at hand that the instrument has.
func (w Work) Ways() []wayLine {
	var list []wayLine
	for _, way := range w.Step().Ways {
		if words := way.Words(w.Instrument); words != "" {
			list = append(list, wayLine{way.Word(), words})
		}
	}
	return list
}

// StageTempo says how the stage at hand takes its tempo, "" where it is the one tempo.
func (w Work) StageTempo() string {
	step := w.Step()
	switch step.Tempo {
	case routine.Free:
		return "Out of time: as slowly as it needs."
	case routine.LongerFirst:
		if w.Tempo == 0 {
			return "Longer values first."
		}
		var passes []string
		for _, p := range step.Tempo.Passes(w.Tempo) {
			if p.As == "" {
				p.As = "as written"
			}
			passes = append(passes, fmt.Sprintf("%s at %d", p.As, p.Tempo))
		}
		return "Longer values first: " + strings.Join(passes, ", ") + "."
	case routine.Climb:
		if step.TempoSteps == 0 {
			return ""
		}
		line := fmt.Sprintf("A ladder of %d notches, each earned by %d clean in a row", step.TempoSteps, step.ToGoOn())
		if w.Tempo > 0 {
			line += fmt.Sprintf(": up to %d", step.Target(w.Tempo, w.tempoStep()))
		}
		return line + "."
	}
	return ""
}

// tempoStep is how many notches of the ladder have been climbed at the stage at hand.
func (w Work) tempoStep() int {
	if w.State.Stage == w.Stage {
		return w.State.TempoStep
	}
	return 0
}

// Remedy is what helps against what stumbled last, in a line; "" where nothing did.
func (w Work) Remedy() string {
	if w.Student.ID == 0 || w.State.Cause == routine.None || w.State.Stage == routine.Done {
		return ""
	}
	list := routine.Remedies(w.Instrument, w.State.Cause)
	if len(list) == 0 {
		return ""
	}
	return list[0].Line()
}

// OtherRemedies lists what else may have stumbled.
func (w Work) OtherRemedies() []string {
	var lines []string
	for k, r := range routine.Remedies(w.Instrument, w.State.Cause) {
		if k > 0 {
			lines = append(lines, r.Line())
		}
	}
	return lines
}
