package shelf

import (
	"cmp"
	"context"
	"fmt"
	"net/http"
	"strconv"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// saveOctave is the choice of an octave on the Bench; "" is the program's.
func (s *handlers) saveOctave(w http.ResponseWriter, r *http.Request) error {
	ctx, desk, id := r.Context(), site.ClassOf(r), site.ID[store.ExerciseID](r)
	target, known := instrument.ByID(site.Text(r, "instrument"))
	exercise, err := desk.ExerciseByID(ctx, id)
	var placed instrument.OctaveChoice
	if err == nil && known {
		placed, err = desk.OctaveChoice(ctx, id, target.ID)
	}
	if err != nil || !known {
		return cmp.Or(err, store.ErrNotFound)
	}
	if r.Form.Has("octaves") {
		octaves, bad := strconv.Atoi(site.Text(r, "octaves"))
		if placed.Chosen = bad == nil; !placed.Chosen {
			octaves = 0
		}
		placed.Octaves = min(max(octaves, -5), 5)
	}
	if r.Form.Has("fold") {
		placed.Folded = site.Text(r, "fold") == "yes"
	}
	if err := desk.SaveOctaveChoice(ctx, id, target.ID, placed); err != nil {
		return err
	}
	s.Flash(r, fmt.Sprintf("The octave of %d · %s is saved for the %s.", exercise.Number, exercise.Title, target.Name))
	http.Redirect(w, r, site.BackToBench(r, fmt.Sprintf("/bench/%d?instrument=%s", id, target.ID)), http.StatusSeeOther)
	return nil
}

// partsView is the exercise's own page: its source's parts and who has which.
type partsView struct {
	Exercise    store.Exercise
	FileParts   []filePart
	Own         []ownPart
	Instruments []instrument.Instrument
	Instrument  string // typed into the form for an own part
	ABC         string
	Entry       string // typed for a round
	Lines       store.DuetPart
	Others      []store.Exercise // that can be part B
	Problems    []string
}

// filePart is one part of a source that holds several.
type filePart struct {
	Index   int
	Name    string
	Source  bool   // the exercise is made from it
	Guess   string // the instrument its name speaks of, unless another part has it
	Note    string // why it should not be dealt out as it is
	Content string // "4/4, F major, 16 measures"
	music   score.Part
}

type ownPart struct {
	instrument.Instrument
	Content string
	Problem string
}

func (s *handlers) parts(w http.ResponseWriter, r *http.Request) error {
	return s.showParts(w, r, http.StatusOK, partsView{})
}

func (s *handlers) showParts(w http.ResponseWriter, r *http.Request, status int, v partsView) error {
	ctx, desk := r.Context(), site.ClassOf(r)
	var err error
	if v.Exercise, err = desk.Exercise(ctx, site.ID[store.ExerciseID](r)); err != nil {
		return err
	}
	own, err := desk.Overrides(ctx, v.Exercise.ID)
	if err != nil {
		return err
	}
	v.Instruments = instrument.All()
	if v.Lines, err = desk.DuetPart(ctx, v.Exercise.ID); err != nil {
		return err
	}
	all, err := desk.Exercises(ctx)
	if err != nil {
		return err
	}
	for _, x := range all {
		if x.BookID == v.Exercise.BookID && x.ID != v.Exercise.ID {
			v.Others = append(v.Others, x)
		}
	}
	if v.Exercise.Unread == "" {
		if v.FileParts, err = s.fileParts(ctx, desk, v.Exercise); err != nil {
			return err
		}
	}
	for _, i := range v.Instruments {
		for _, o := range own {
			if o.Instrument == i.ID {
				v.Own = append(v.Own, s.describeOwn(ctx, desk, i, o))
			}
		}
	}
	s.Page(w, r, status, "parts", fmt.Sprintf("Parts of %d · %s", v.Exercise.Number, v.Exercise.Title), v)
	return nil
}

func describePart(p score.Part) string {
	o := breakdown.OutlineOf(p)
	return fmt.Sprintf("%s, %d measures", o.Signatures, o.Measures)
}

func (s *handlers) describeOwn(ctx context.Context, desk *teach.Class, i instrument.Instrument,
	o store.Override) ownPart {
	part, err := s.Reader.OwnPart(ctx, desk, o)
	if err != nil {
		return ownPart{Instrument: i, Problem: err.Error()}
	}
	return ownPart{Instrument: i, Content: describePart(part)}
}

// fileParts lists the parts of an exercise's source.
func (s *handlers) fileParts(ctx context.Context, desk *teach.Class, x store.Exercise) ([]filePart, error) {
	parts, err := s.Reader.FileParts(ctx, desk, x)
	if err != nil {
		return nil, err
	}
	var list []filePart
	guessed := map[string]bool{}
	for i, p := range parts {
		guess, known := instrument.Guess(p.Name)
		note := ""
		if known {
			note = cmp.Or(namedOtherwise(p.Name, guess), otherTransposition(p, guess))
		}
		if note == "" && guessed[guess.ID] {
			note = fmt.Sprintf("Another part is the %s’s already: an instrument has one part.", guess.Name)
		}
		if note != "" {
			guess, known = instrument.Instrument{}, false
		}
		guessed[guess.ID] = known
		list = append(list, filePart{i, cmp.Or(p.Name, fmt.Sprintf("Part %d", i+1)), i == x.Part, guess.ID, note,
			describePart(p), p})
	}
	return list, nil
}

// namedOtherwise says what is wrong with dealing a part to an instrument that its name
// puts in another key, "" for nothing.
func namedOtherwise(partName string, i instrument.Instrument) string {
	key, otherwise := instrument.NamedOtherwise(partName, i)
	if !otherwise {
		return ""
	}
	return fmt.Sprintf(
		"It is in %s by its name; the %s here sounds %s. Give it to nobody, and it is left out; "+
			"as the source it is transposed, if the file says how it sounds.",
		key,
		i.Name,
		instrument.SoundsWords(i.Transposition),
	)
}

// otherTransposition says that a file writes a part for an instrument that sounds
// otherwise than ours, octaves left aside, "" where it does not: a clarinet in A is not
// one in B flat.
func otherTransposition(p score.Part, i instrument.Instrument) string {
	if i.Unpitched() || p.Unpitched() || p.Transposition == (score.Interval{}) ||
		(p.Transposition.Semitones-i.Transposition.Semitones)%12 == 0 {
		return ""
	}
	return fmt.Sprintf(
		"Written for an instrument that sounds %s; the %s here sounds %s. Make it the source, and every part is transposed from it.",
		instrument.SoundsWords(p.Transposition),
		i.Name,
		instrument.SoundsWords(i.Transposition),
	)
}

// dealParts is the answer to which part of a file is which instrument: each one
// that is given an instrument becomes its own part, and one is the source.
func (s *handlers) dealParts(w http.ResponseWriter, r *http.Request) error {
	ctx, desk := r.Context(), site.ClassOf(r)
	x, err := desk.ExerciseByID(ctx, site.ID[store.ExerciseID](r))
	if err != nil {
		return err
	}
	source, err := desk.Source(ctx, x.Hash)
	if err != nil {
		return err
	}
	parts, err := s.fileParts(ctx, desk, x)
	if err != nil {
		return err
	}
	var own []store.OwnPart
	given := map[string]bool{}
	for i := range parts {
		id := site.Text(r, fmt.Sprintf("instrument-%d", i))
		target, known := instrument.ByID(id)
		if !known {
			continue
		}
		if given[id] {
			return s.showParts(
				w,
				r,
				http.StatusUnprocessableEntity,
				partsView{Problems: []string{"Two parts are given to the same instrument. Give each part another one, or none."}},
			)
		}
		given[id] = true
		if why := otherTransposition(parts[i].music, target); why != "" {
			return s.showParts(w, r, http.StatusUnprocessableEntity, partsView{Problems: []string{parts[i].Name + ": " + why}})
		}
		own = append(own, store.OwnPart{Instrument: id, Source: source, Part: i})
	}
	if err := desk.SaveOverrides(ctx, x.ID, own...); err != nil {
		return err
	}
	if n, err := strconv.Atoi(site.Text(r, "source")); err == nil && n >= 0 && n < len(parts) && n != x.Part {
		x.Part = n
		if err := desk.ChangeExercise(ctx, x, source); err != nil {
			return err
		}
	}
	http.Redirect(w, r, fmt.Sprintf("/exercises/%d/parts", x.ID), http.StatusSeeOther)
	return nil
}

// savePart keeps one instrument's own part, typed or from a file.
func (s *handlers) savePart(w http.ResponseWriter, r *http.Request) error {
	if site.FormError(r) != nil {
		return s.showParts(w, r, http.StatusRequestEntityTooLarge,
			partsView{Problems: []string{"The file is larger than 5 MB. Bring in one part."}})
	}
	v := partsView{Instrument: site.Text(r, "instrument"), ABC: r.FormValue("abc")}
	target, known := instrument.ByID(v.Instrument)
	if !known {
		v.Problems = append(v.Problems, "Choose for whom the part is from the list.")
	}
	b, err := s.readSource(r, entry{Way: byABC, ABC: v.ABC}, store.Source{})
	if err != nil {
		for _, p := range problemsOf(err) {
			v.Problems = append(v.Problems, p.Error())
		}
	} else if known {
		part := b.score.Parts[0]
		part.Transposition = target.Transposition
		if beyond := instrument.Make(part, target.ID, target,
			instrument.OctaveChoice{}).Outside; 2*len(beyond) > len(part.Notes()) {
			v.Problems = append(v.Problems, fmt.Sprintf("%d of %d notes lie beyond the %s, the first in measure %d. Check the octave, and for whom it is written.",
				len(beyond), len(part.Notes()), target.Name, part.Measures[beyond[0].Measure].Number))
		}
	}
	if len(v.Problems) > 0 {
		v.Problems = v.Problems[:min(len(v.Problems), 4)]
		return s.showParts(w, r, http.StatusUnprocessableEntity, v)
	}
	id := site.ID[store.ExerciseID](r)
	if err := site.ClassOf(r).SaveOverrides(r.Context(), id, store.OwnPart{Instrument: target.ID,
		Source: b.source}); err != nil {
		return err
	}
	s.Flash(r, fmt.Sprintf("The %s has its own part now.", target.Name))
	http.Redirect(w, r, fmt.Sprintf("/bench/%d?instrument=%s", id, target.ID), http.StatusSeeOther)
	return nil
}

// deletePart links an instrument to the source again.
func (s *handlers) deletePart(w http.ResponseWriter, r *http.Request) error {
	id := site.ID[store.ExerciseID](r)
	if err := site.ClassOf(r).DeleteOverride(r.Context(), id, site.Text(r, "instrument")); err != nil {
		return err
	}
	s.Flash(r, "The part is made from the source again.")
	http.Redirect(w, r, fmt.Sprintf("/exercises/%d/parts", id), http.StatusSeeOther)
	return nil
}
