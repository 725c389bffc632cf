package web

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"net/http"
	"strconv"

	"unhurriedbench/core/format"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
)

// overridesOf lists an exercise's own parts by instrument id.
func (s *Server) overridesOf(ctx context.Context, t, exercise int64) (map[string]*store.Override, error) {
	list, err := s.store.Overrides(ctx, t, exercise)
	if err != nil {
		return nil, err
	}
	own := map[string]*store.Override{}
	for i := range list {
		own[list[i].Instrument] = &list[i]
	}
	return own, nil
}

// placementOf is the octave the teacher chose for an instrument's part, if any.
func (s *Server) placementOf(ctx context.Context, t, exercise int64, id string) (instrument.Placement, error) {
	octaves, chosen, err := s.store.Placement(ctx, t, exercise, id)
	return instrument.Placement{Chosen: chosen, Octaves: octaves}, err
}

// keepOctave is the choice of an octave on the Bench; "" is the program's.
func (s *Server) keepOctave(w http.ResponseWriter, r *http.Request) {
	ctx, t, id := r.Context(), teacher(r).ID, idOf(r, "id")
	target, known := instrument.ByID(text(r, "instrument"))
	_, err := s.store.ExerciseByID(ctx, t, id)
	octaves, bad := strconv.Atoi(text(r, "octaves"))
	switch {
	case err != nil || !known:
	case bad != nil:
		err = s.store.DropPlacement(ctx, t, id, target.ID)
	default:
		err = s.store.KeepPlacement(ctx, t, id, target.ID, min(max(octaves, -5), 5))
	}
	if err != nil {
		s.failed(w, r, err)
		return
	}
	http.Redirect(w, r, fmt.Sprintf("/bench/%d?instrument=%s", id, target.ID), http.StatusSeeOther)
}

// partSource reads what an instrument's part is made from: its own part where it
// has one, else the exercise's source.
func partSource(x store.Exercise, own *store.Override) (score.Score, score.Part, string, error) {
	if own == nil {
		sc, err := format.ReadKind(x.Format, []byte(x.Source))
		if err != nil {
			return score.Score{}, score.Part{}, "", fmt.Errorf("read exercise %d: %w", x.ID, err)
		}
		part, writtenFor := sourcePart(x, sc)
		return sc, part, writtenFor, nil
	}
	sc, err := format.ReadKind(own.Format, []byte(own.Source))
	if err != nil {
		return score.Score{}, score.Part{}, "", fmt.Errorf("read the own part of exercise %d: %w", x.ID, err)
	}
	return sc, sc.Parts[min(own.Part, len(sc.Parts)-1)], own.Instrument, nil
}

// partsView is the exercise's own page: its source's parts and who has which.
type partsView struct {
	Exercise    store.Exercise
	FileParts   []filePart
	Own         []ownPart
	Instruments []instrument.Instrument
	Instrument  string // typed into the form for an own part
	ABC         string
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

func (s *Server) parts(w http.ResponseWriter, r *http.Request) {
	s.showParts(w, r, http.StatusOK, partsView{})
}

func (s *Server) showParts(w http.ResponseWriter, r *http.Request, status int, v partsView) {
	ctx, t := r.Context(), teacher(r).ID
	var err error
	if v.Exercise, err = s.store.ExerciseByID(ctx, t, idOf(r, "id")); err != nil {
		s.failed(w, r, err)
		return
	}
	own, err := s.overridesOf(ctx, t, v.Exercise.ID)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	v.Instruments = instrument.All()
	v.FileParts, _ = fileParts(v.Exercise) // none of a source that cannot be read
	for _, i := range v.Instruments {
		if o := own[i.ID]; o != nil {
			v.Own = append(v.Own, describeOwn(i, *o))
		}
	}
	s.page(w, r, status, "parts", fmt.Sprintf("Parts of %d · %s", v.Exercise.Number, v.Exercise.Title), v)
}

func describePart(p score.Part) string {
	return fmt.Sprintf("%s, %d measures", frameWords(p), fullMeasures(p))
}

func describeOwn(i instrument.Instrument, o store.Override) ownPart {
	sc, err := format.ReadKind(o.Format, []byte(o.Source))
	if err != nil {
		return ownPart{Instrument: i, Problem: err.Error()}
	}
	return ownPart{Instrument: i, Content: describePart(sc.Parts[min(o.Part, len(sc.Parts)-1)])}
}

// fileParts lists the parts of an exercise's source.
func fileParts(x store.Exercise) ([]filePart, error) {
	sc, err := format.ReadKind(x.Format, []byte(x.Source))
	if err != nil {
		return nil, err
	}
	var list []filePart
	guessed := map[string]bool{}
	for i, p := range sc.Parts {
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
		name := p.Name
		if name == "" {
			name = fmt.Sprintf("Part %d", i+1)
		}
		list = append(list, filePart{i, name, i == x.Part, guess.ID, note, describePart(p), p})
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
	return fmt.Sprintf("It is in %s by its name; the %s here sounds %s. Give it to nobody, and it is left out; as the source it is transposed, if the file says how it sounds.",
		key, i.Name, instrument.SoundsWords(i.Sounds))
}

// otherTransposition says that a file writes a part for an instrument that sounds
// otherwise than ours, octaves left aside, "" where it does not: a clarinet in A is not
// one in B flat.
func otherTransposition(p score.Part, i instrument.Instrument) string {
	if i.Unpitched() || p.Unpitched() || p.Sounds == (score.Interval{}) || (p.Sounds.Semitones-i.Sounds.Semitones)%12 == 0 {
		return ""
	}
	return fmt.Sprintf("Written for an instrument that sounds %s; the %s here sounds %s. Make it the source, and every part is transposed from it.",
		instrument.SoundsWords(p.Sounds), i.Name, instrument.SoundsWords(i.Sounds))
}

// dealParts is the answer to which part of a file is which instrument: each one
// that is given an instrument becomes its own part, and one is the source.
func (s *Server) dealParts(w http.ResponseWriter, r *http.Request) {
	ctx, t := r.Context(), teacher(r).ID
	x, err := s.store.ExerciseByID(ctx, t, idOf(r, "id"))
	if err != nil {
		s.failed(w, r, err)
		return
	}
	parts, err := fileParts(x)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	given := map[string]bool{}
	for i := range parts {
		id := text(r, fmt.Sprintf("instrument-%d", i))
		target, known := instrument.ByID(id)
		if !known {
			continue
		}
		if given[id] {
			s.showParts(w, r, http.StatusUnprocessableEntity, partsView{Problems: []string{"Two parts are given to the same instrument. Give each part another one, or none."}})
			return
		}
		given[id] = true
		if why := otherTransposition(parts[i].music, target); why != "" {
			s.showParts(w, r, http.StatusUnprocessableEntity, partsView{Problems: []string{parts[i].Name + ": " + why}})
			return
		}
	}
	for i := range parts {
		id := text(r, fmt.Sprintf("instrument-%d", i))
		if !given[id] {
			continue
		}
		if err := s.store.KeepOverride(ctx, t, x.ID, store.Override{Instrument: id, Format: x.Format, Source: x.Source, Part: i}); err != nil {
			s.failed(w, r, err)
			return
		}
	}
	if n, err := strconv.Atoi(text(r, "source")); err == nil && n >= 0 && n < len(parts) && n != x.Part {
		x.Part = n
		if err := s.store.ChangeExercise(ctx, t, x); err != nil {
			s.failed(w, r, err)
			return
		}
	}
	http.Redirect(w, r, fmt.Sprintf("/exercises/%d/parts", x.ID), http.StatusSeeOther)
}

// keepPart keeps one instrument's own part, typed or from a file.
func (s *Server) keepPart(w http.ResponseWriter, r *http.Request) {
	r.Body = http.MaxBytesReader(w, r.Body, largestForm)
	if err := r.ParseMultipartForm(format.Largest + 1<<20); err != nil && !errors.Is(err, http.ErrNotMultipart) {
		s.showParts(w, r, http.StatusRequestEntityTooLarge, partsView{Problems: []string{"The file is larger than 5 MB. Bring in one part."}})
		return
	}
	v := partsView{Instrument: text(r, "instrument"), ABC: r.FormValue("abc")}
	target, known := instrument.ByID(v.Instrument)
	if !known {
		v.Problems = append(v.Problems, "Choose for whom the part is from the list.")
	}
	var x store.Exercise
	sc, err := readSource(r, entry{ABC: v.ABC}, store.Exercise{}, &x)
	if err != nil {
		for _, p := range problemsOf(err) {
			v.Problems = append(v.Problems, p.Error())
		}
	} else if known {
		part := sc.Parts[0]
		part.Sounds = target.Sounds
		for _, at := range instrument.Make(part, target.ID, target, instrument.Placement{}).Outside {
			v.Problems = append(v.Problems, fmt.Sprintf("Measure %d: %s is out of the %s's range. Check its octave.",
				part.Measures[at.Measure].Number, part.At(at).Pitch, target.Name))
		}
	}
	if len(v.Problems) > 0 {
		v.Problems = v.Problems[:min(len(v.Problems), 4)]
		s.showParts(w, r, http.StatusUnprocessableEntity, v)
		return
	}
	id := idOf(r, "id")
	if _, err := s.store.ExerciseByID(r.Context(), teacher(r).ID, id); err != nil {
		s.failed(w, r, err)
		return
	}
	if err := s.store.KeepOverride(r.Context(), teacher(r).ID, id, store.Override{Instrument: target.ID, Format: x.Format, Source: x.Source}); err != nil {
		s.failed(w, r, err)
		return
	}
	s.flash(r, fmt.Sprintf("The %s has its own part now.", target.Name))
	http.Redirect(w, r, fmt.Sprintf("/bench/%d?instrument=%s", id, target.ID), http.StatusSeeOther)
}

// dropPart links an instrument to the source again.
func (s *Server) dropPart(w http.ResponseWriter, r *http.Request) {
	id := idOf(r, "id")
	if err := s.store.DropOverride(r.Context(), teacher(r).ID, id, text(r, "instrument")); err != nil {
		s.failed(w, r, err)
		return
	}
	s.flash(r, "The part is made from the source again.")
	http.Redirect(w, r, fmt.Sprintf("/exercises/%d/parts", id), http.StatusSeeOther)
}
