package bench

import (
	"cmp"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/score"
	"unhurriedbench/teach"
	"unhurriedbench/web/music"
	"unhurriedbench/web/site"
)

// byHand is a change that a teacher made on the Bench, with what takes it back.
type byHand struct {
	Words  string
	Action string // which path undoes it
	Undo   []field
}

// field is a field of a form.
type field struct{ Name, Value string }

// showByHand shows the Bench after a change by hand, with the way back.
func (s *handlers) showByHand(w http.ResponseWriter, r *http.Request, ask teach.Request, did byHand) error {
	v, err := loadBench(r.Context(), site.ClassOf(r), ask)
	if err != nil {
		return err
	}
	if !site.IsHTMX(r) {
		s.Flash(r, did.Words)
		http.Redirect(w, r, v.Here(), http.StatusSeeOther)
		return nil
	}
	v.Did, v.Swapped = did, true
	s.RememberBench(r, v.Here())
	w.Header().Set("HX-Replace-Url", v.Here())
	s.Fragment(w, "bench", "bench", v)
	return nil
}

// annotationForm is a mark over a note, or one to be rubbed out.
type annotationForm struct {
	Measure int    `form:"measure" validate:"min=0,max=9999"`
	Event   int    `form:"event" validate:"min=0,max=9999"`
	Kind    string `form:"kind" validate:"oneof=circle arrow word breath no-breath up down sign struck"`
	Word    string `form:"word" validate:"max=24"`
	Rub     string `form:"rub"`
}

func (*annotationForm) Sentences() map[string]string {
	const gone = "That note is not here any more, so nothing was written. Open the exercise again."
	return map[string]string{
		"Measure number": gone, "Measure min": gone, "Measure max": gone, "Event number": gone, "Event min": gone,
		"Event max":  gone,
		"Kind oneof": "Choose what to write over the note.",
		"Word max":   "The word is longer than 24 letters. Shorten it.",
	}
}

// strikeInto takes a press on an alert, "3.1.trap", apart into the fields of a mark: which
// measure, which event and which alert, to be struck out or put back.
func strikeInto(r *http.Request) {
	for name, rub := range map[string]string{"strike": "", "unstrike": "yes"} {
		if at := strings.SplitN(site.Text(r, name), ".", 3); len(at) == 3 {
			for k, field := range []string{"measure", "event", "word"} {
				r.Form.Set(field, at[k])
			}
			r.Form.Set("kind", string(breakdown.StruckOut))
			r.Form.Set("rub", rub)
		}
	}
}

// annotation writes a teacher's mark over a note of the part at hand, strikes an alert out, or
// rubs either out again.
func (s *handlers) annotation(w http.ResponseWriter, r *http.Request) error {
	ctx, desk, ask := r.Context(), site.ClassOf(r), askOf(r)
	ask.Line = "" // marks belong to the exercise
	if key := cmp.Or(site.Text(r, "signs"), site.Text(r, "unsign")); key != "" {
		return s.signs(w, r, ask, key)
	}
	var form annotationForm
	strikeInto(r)
	problems := s.Forms.Read(r, &form)
	v, err := loadBench(ctx, desk, ask)
	if err != nil {
		return err
	}
	at := score.Place{Measure: form.Measure, Event: form.Event}
	if len(problems) == 0 && !v.Report.Holds(at) {
		problems = []string{form.Sentences()["Measure min"]}
	}
	if kind := breakdown.AnnotationKind(form.Kind); len(problems) == 0 && (kind == breakdown.AnnotationWord ||
		kind == breakdown.StruckOut) && form.Word == "" {
		problems = []string{"Type the word to write over the note."}
	}
	if len(problems) > 0 {
		s.refuseMark(w, r, v.Choice, problems[0])
		return nil
	}
	p := breakdown.Annotation{Kind: breakdown.AnnotationKind(form.Kind), Word: form.Word}
	event := v.Report.Part.At(at)
	p.Pitch = breakdown.PitchAt(*event)
	switch p.Kind {
	case breakdown.AnnotationWord, breakdown.StruckOut:
	case breakdown.AnnotationSign:
		p.Word = breakdown.SignOf(event.Pitch)
	default:
		p.Word = ""
	}
	undo := []field{{"measure", strconv.Itoa(form.Measure)}, {"event", strconv.Itoa(form.Event)},
		{"kind", form.Kind}, {"word", p.Word}}
	did := byHand{Action: "pencil", Undo: undo}
	if form.Rub != "" {
		err = desk.DeleteAnnotation(ctx, v.Exercise.ID, v.Instrument.ID, at, p)
		did.Words = "Rubbed out: " + annotationWords(p, v, at) + "."
	} else {
		err = desk.SaveAnnotation(ctx, v.Exercise.ID, v.Instrument.ID, at, p)
		did.Undo = append(did.Undo, field{"rub", "yes"})
		did.Words = "Written: " + annotationWords(p, v, at) + "."
		if p.Kind == breakdown.StruckOut {
			did.Words = "Struck out: " + annotationWords(p, v, at) + "."
		}
		if before := slices.IndexFunc(v.Options.Annotations[at], p.Against); before >= 0 { // what gave way comes back
			gone := v.Options.Annotations[at][before]
			did.Undo = []field{{"measure", strconv.Itoa(form.Measure)}, {"event", strconv.Itoa(form.Event)},
				{"kind", string(gone.Kind)}, {"word", gone.Word}}
		}
	}
	if err != nil {
		return err
	}
	return s.showByHand(w, r, ask, did)
}

// signs pencils the sign in front of all notes of a kind that may be forgotten, or rubs it out.
func (s *handlers) signs(w http.ResponseWriter, r *http.Request, ask teach.Request, key string) error {
	ctx, desk := r.Context(), site.ClassOf(r)
	v, err := loadBench(ctx, desk, ask)
	if err != nil {
		return err
	}
	groups := v.Report.SignsAtRisk()
	k := slices.IndexFunc(groups, func(g breakdown.SignGroup) bool { return g.Key == key })
	if k < 0 {
		s.refuseMark(w, r, v.Choice, "Those notes are not here any more, so nothing was written. Open the exercise again.")
		return nil
	}
	g, rub := groups[k], site.Text(r, "rub") != "" || site.Text(r, "unsign") != ""
	did := byHand{Action: "pencil", Undo: []field{{"signs", key}}}
	marks := map[score.Place]breakdown.Annotation{}
	for _, at := range g.Places {
		marks[at] = breakdown.Annotation{Kind: breakdown.AnnotationSign, Word: g.Sign, Pitch: breakdown.PitchAt(*v.Report.Part.At(at))}
	}
	where := score.MeasureList(g.Measures)
	if rub {
		err = desk.DeleteAnnotations(ctx, v.Exercise.ID, v.Instrument.ID, marks)
		did.Words = "Rubbed out: the signs of " + g.Name + " in " + where + "."
	} else {
		err = desk.SaveAnnotations(ctx, v.Exercise.ID, v.Instrument.ID, marks)
		did.Words = "Written: " + g.Sign + " before " + g.Name + " in " + where + "."
		did.Undo = append(did.Undo, field{"rub", "yes"})
	}
	if err != nil {
		return err
	}
	return s.showByHand(w, r, ask, did)
}

// annotationWords says what a mark is and where.
func annotationWords(p breakdown.Annotation, v benchView, at score.Place) string {
	words := map[breakdown.AnnotationKind]string{
		breakdown.AnnotationCircle: "a circle", breakdown.AnnotationArrow: "an arrow",
		breakdown.AnnotationBreath: "a breath", breakdown.NoBreath: "no breath",
		breakdown.AnnotationUpBow: "an up bow", breakdown.AnnotationDownBow: "a down bow",
		breakdown.AnnotationWord: "“" + p.Word + "”", breakdown.AnnotationSign: p.Word,
		breakdown.StruckOut: music.AlertWord(breakdown.Alert(p.Word)),
	}[p.Kind]
	return words + " in " + breakdown.ChunkKey{First: v.Report.Measures[at.Measure].Number,
		Last: v.Report.Measures[at.Measure].Number}.Words()
}
