package abc

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"unhurriedbench/core/score"
)

// Write returns a score as ABC 2.1. Accidentals are written on every note that
// needs one on the staff, and carried by octave, so that the reading does not
// depend on the standard's default.
func Write(s score.Score) string {
	var b strings.Builder
	b.WriteString("X:1\n%%propagate-accidentals octave\n")
	field := func(name, value string) {
		if value != "" {
			fmt.Fprintf(&b, "%s:%s\n", name, strings.ReplaceAll(value, "%", `\%`))
		}
	}
	field("T", oneLine(s.Title))
	field("C", oneLine(s.Composer))
	if len(s.Parts) == 0 {
		return b.String()
	}
	field("M", meterText(s.Parts[0].Meter()))
	b.WriteString("L:1/8\n")
	tempo := ""
	if words := oneLine(strings.ReplaceAll(s.TempoWords, `"`, "'")); words != "" {
		tempo = `"` + words + `" `
	}
	if s.Tempo.PerMinute > 0 {
		tempo += fmt.Sprintf("%s=%d", fraction(s.Tempo.Beat), s.Tempo.PerMinute)
	}
	field("Q", strings.TrimSpace(tempo))
	for i, p := range s.Parts {
		settings := ""
		if p.Name != "" {
			settings += fmt.Sprintf(` name="%s"`, oneLine(strings.ReplaceAll(p.Name, `"`, "'")))
		}
		if p.Transposition != (score.Interval{}) {
			settings += fmt.Sprintf(" transpose=%d", p.Transposition.Semitones)
		}
		fmt.Fprintf(&b, "V:%d%s clef=%s\n", i+1, settings, clefName(p.Clef()))
	}
	fmt.Fprintf(&b, "K:%s\n", keyName(s.Parts[0].Key()))
	for i, p := range s.Parts {
		w := &writer{b: &b, part: p}
		fmt.Fprintf(&b, "V:%d\n", i+1)
		w.music(i == 0, s.Parts[0])
	}
	return b.String()
}

func oneLine(text string) string { return strings.Join(strings.Fields(text), " ") }

func fraction(f score.Fraction) string {
	return strconv.FormatInt(f.Num(), 10) + "/" + strconv.FormatInt(f.Den(), 10)
}

func meterText(m score.Meter) string {
	switch m.Symbol {
	case "common":
		return "C"
	case "cut":
		return "C|"
	}
	return m.String()
}

var modeTexts = map[string]string{
	"": "", "major": "", "ionian": "", "minor": "m", "aeolian": "m",
	"mixolydian": "mix", "dorian": "dor", "phrygian": "phr", "lydian": "lyd", "locrian": "loc",
}

func keyName(k score.Key) string {
	step, alter := k.Tonic()
	return step.String() + score.AccidentalText(alter) + modeTexts[k.Mode]
}

func clefName(c score.Clef) string {
	if c.Sign == "percussion" {
		return "perc"
	}
	name := c.Sign + strconv.Itoa(c.Line)
	for _, known := range []string{"treble", "bass", "alto", "tenor"} {
		if clef, _ := score.ClefNamed(known); clef.Sign == c.Sign && clef.Line == c.Line {
			name = known
		}
	}
	return name + map[int]string{-1: "-8", 1: "+8"}[c.Octave]
}

type writer struct {
	b    *strings.Builder
	part score.Part
}

// measuresPerLine keeps lines short enough to edit.
const measuresPerLine = 4

func (w *writer) music(first bool, header score.Part) {
	rests := w.part.Multirests()
	for i, m := range w.part.Measures {
		if rests[i] < 0 {
			if i+1 == len(rests) || rests[i+1] >= 0 { // the bar line after the last of them
				w.end(i, m)
				w.b.WriteString("\n")
			}
			continue
		}
		before := header.Measures[0]
		if i > 0 {
			before = w.part.Measures[i-1]
		}
		w.start(i, m, before)
		if rests[i] > 0 {
			fmt.Fprintf(w.b, "Z%d", rests[i])
			continue
		}
		for j, e := range m.Events {
			w.event(e, m, j)
		}
		w.end(i, m)
		if (i+1)%measuresPerLine == 0 || i == len(w.part.Measures)-1 {
			w.b.WriteString("\n")
		}
	}
}

func (w *writer) start(i int, m, before score.Measure) {
	if m.RepeatStart && i == 0 {
		w.b.WriteString("|:")
	}
	if m.EndingStart {
		words := make([]string, len(m.Endings))
		for k, n := range m.Endings {
			words[k] = strconv.Itoa(n)
		}
		w.b.WriteString("[" + strings.Join(words, ",") + " ")
	}
	if m.Meter != before.Meter {
		fmt.Fprintf(w.b, "[M:%s]", meterText(m.Meter))
	}
	if m.Key != before.Key {
		fmt.Fprintf(w.b, "[K:%s]", keyName(m.Key))
	}
	if i > 0 && m.Clef != before.Clef {
		fmt.Fprintf(w.b, "[K:clef=%s]", clefName(m.Clef))
	}
	if m.Rehearsal != "" {
		fmt.Fprintf(w.b, "[P:%s]", strings.NewReplacer("]", ")", "[", "(").Replace(oneLine(m.Rehearsal)))
	}
	if m.Segno {
		w.b.WriteString("!segno!")
	}
	if m.Coda {
		w.b.WriteString("!coda!")
	}
}

func (w *writer) end(i int, m score.Measure) {
	if m.ToCoda {
		w.b.WriteString("!dacoda!")
	}
	if m.Fine {
		w.b.WriteString("!fine!")
	}
	if m.Jump.To != "" {
		name := map[string]string{"capo": "D.C.", "segno": "D.S."}[m.Jump.To]
		if m.Jump.Al != "" {
			name += "al" + m.Jump.Al
		}
		w.b.WriteString("!" + name + "!")
	}
	next := i + 1
	starts := next < len(w.part.Measures) && w.part.Measures[next].RepeatStart
	again := strings.Repeat(":", max(m.Times, 2)-1)
	switch {
	case m.RepeatEnd && starts:
		w.b.WriteString(again + "|:")
	case m.RepeatEnd:
		w.b.WriteString(again + "|")
	case starts && m.DoubleBar:
		w.b.WriteString("||:")
	case starts:
		w.b.WriteString("|:")
	case next == len(w.part.Measures):
		w.b.WriteString("|]")
	case m.DoubleBar || m.EndingStop && !w.part.Measures[next].EndingStart:
		w.b.WriteString("||")
	default:
		w.b.WriteString("|")
	}
}

var markTexts = map[score.Mark]string{
	score.Staccato: ".", score.Accent: "!accent!", score.Tenuto: "!tenuto!", score.Fermata: "!fermata!",
	score.UpBow: "!upbow!", score.DownBow: "!downbow!",
}

func (w *writer) event(e score.Event, m score.Measure, j int) {
	if e.Start.Within(m.Meter.Beat()).IsZero() && j > 0 {
		w.b.WriteString(" ")
	}
	if len(e.Fingering) == 1 || e.Fingering == "open" || e.Fingering == "thumb" {
		w.b.WriteString("!" + e.Fingering + "!")
		e.Fingering = ""
	}
	for _, text := range []string{e.Text, e.Sticking, e.Fingering} {
		if text != "" {
			fmt.Fprintf(w.b, `"^%s"`, oneLine(strings.ReplaceAll(text, `"`, "'")))
		}
	}
	if e.Dynamic != "" {
		w.b.WriteString("!" + e.Dynamic + "!")
	}
	w.b.WriteString(map[score.Hairpin]string{score.Crescendo: "!<(!", score.Diminuendo: "!>(!"}[e.Hairpin])
	if e.HairpinEnds {
		w.b.WriteString("!<)!")
	}
	if e.TupletStarts {
		w.tuplet(m, j)
	}
	breath := false
	for _, mark := range e.Marks {
		w.b.WriteString(markTexts[mark])
		breath = breath || mark == score.Breath
	}
	w.b.WriteString(strings.Repeat("(", e.SlurStarts))
	if e.Roll {
		w.b.WriteString("!///!")
	}
	if e.Graces > 0 {
		w.b.WriteString("{" + strings.Repeat(pitchTextOf(e.Pitch, false), e.Graces) + "}")
	}
	length := score.Value{Base: e.Value.Base, Dots: e.Value.Dots}.Length().Mul(score.Frac(8, 1))
	if e.WholeMeasure {
		length = e.Length.Mul(score.Frac(8, 1))
	}
	switch {
	case e.Kind == score.Rest:
		w.b.WriteString("z")
	case len(e.Others) > 0:
		w.b.WriteString("[" + pitchTextOf(typed(e.Pitch, m), e.Sign) + tie(e.TieOn))
		for _, p := range e.Others {
			w.b.WriteString(pitchTextOf(typed(p, m), true) + tie(slices.Contains(e.InnerTies, p)))
		}
		w.b.WriteString("]")
	default:
		w.b.WriteString(pitchTextOf(typed(e.Pitch, m), e.Sign))
	}
	if length.Num() != 1 {
		w.b.WriteString(strconv.FormatInt(length.Num(), 10))
	}
	if length.Den() != 1 {
		w.b.WriteString("/" + strconv.FormatInt(length.Den(), 10))
	}
	w.b.WriteString(tie(e.TieOn && len(e.Others) == 0))
	w.b.WriteString(strings.Repeat(")", e.SlurEnds))
	if breath {
		w.b.WriteString("!breath!")
	}
}

func tie(on bool) string {
	if on {
		return "-"
	}
	return ""
}

// typed is a pitch as it is typed under a clef that sounds octaves off.
func typed(p score.Pitch, m score.Measure) score.Pitch {
	p.Octave -= m.Clef.Octave
	return p
}

// tuplet writes (p:q:r for the group that starts at event j.
func (w *writer) tuplet(m score.Measure, j int) {
	n := 1
	for k := j; k < len(m.Events)-1 && !m.Events[k].TupletEnds; k++ {
		n++
	}
	ratio := m.Events[j].Value.Tuplet
	fmt.Fprintf(w.b, "(%d:%d:%d", ratio.Actual, ratio.Normal, n)
}

func pitchTextOf(p score.Pitch, sign bool) string {
	text := ""
	if sign {
		text = [5]string{"__", "_", "=", "^", "^^"}[p.Alter+2]
	}
	letter := p.Step.String()
	if p.Octave >= 5 {
		return text + strings.ToLower(letter) + strings.Repeat("'", p.Octave-5)
	}
	return text + letter + strings.Repeat(",", 4-p.Octave)
}
