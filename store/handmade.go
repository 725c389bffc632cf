package store

import (
	"context"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/finger"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// HandMade is what a teacher made by hand of one exercise, by instrument id where it is of
// an instrument's part.
type HandMade struct {
	Overrides     []Override // by instrument
	OctaveChoices map[string]instrument.OctaveChoice
	Fingerings    map[string]map[score.Place]finger.Spot
	Annotations   map[string]map[score.Place][]breakdown.Annotation
	Chunks        []breakdown.HandChunk // none where the program cuts
	Lines         DuetPart              // that it is one of
}

// Kinds of rows in handMade.
const (
	ownPartRow = iota
	placementRow
	fingeringRow
	annotationRow
	handChunksRow
	linesRow
)

const handMade = `
	SELECT 0 AS kind, exercise_id, instrument, part::bigint AS a, 0::bigint AS b, 0 AS c, hash AS x, '' AS y
	FROM overrides WHERE teacher_id = $1 AND exercise_id = ANY($2)
	UNION ALL SELECT 1, exercise_id, instrument, coalesce(octaves, 0), (octaves IS NOT NULL)::integer, folded::integer, '', ''
		FROM octave_choices WHERE teacher_id = $1 AND exercise_id = ANY($2)
	UNION ALL SELECT 2, exercise_id, instrument, measure, event, pitch, fingering, '' FROM fingerings
		WHERE teacher_id = $1 AND exercise_id = ANY($2)
	UNION ALL SELECT 3, exercise_id, instrument, measure, event, pitch, kind, word FROM annotations
		WHERE teacher_id = $1 AND exercise_id = ANY($2)
	UNION ALL SELECT 4, exercise_id, '', 0, 0, 0, chunks, whys FROM hand_chunks
		WHERE teacher_id = $1 AND exercise_id = ANY($2)
	UNION ALL SELECT 5, e.id, '', l.exercise_id, coalesce(l.other_id, 0), l.entry, '', '' FROM duet_parts l
		JOIN unnest($2::bigint[]) AS e (id) ON l.exercise_id = e.id OR l.other_id = e.id
		JOIN exercises a ON a.id = l.exercise_id AND a.removed_at IS NULL LEFT JOIN exercises b ON b.id = l.other_id
		WHERE l.teacher_id = $1 AND b.removed_at IS NULL
	ORDER BY kind, exercise_id, instrument, a, b, x, y`

// HandMade lists what was made by hand of some exercises; every one of them is in the map.
func (d *Desk) HandMade(ctx context.Context, exercises ...ExerciseID) (map[ExerciseID]*HandMade, error) {
	var rows []struct {
		Kind       int
		ExerciseID ExerciseID `db:"exercise_id"`
		Instrument string
		A, B       int64
		C          int
		X, Y       string
	}
	if err := d.all(ctx, &rows, "list what was made by hand", handMade, numbersOf(exercises)); err != nil {
		return nil, err
	}
	list := make(map[ExerciseID]*HandMade, len(exercises))
	for _, id := range exercises {
		list[id] = &HandMade{
			OctaveChoices: map[string]instrument.OctaveChoice{}, Fingerings: map[string]map[score.Place]finger.Spot{},
			Annotations: map[string]map[score.Place][]breakdown.Annotation{},
		}
	}
	for _, r := range rows {
		h, at := list[r.ExerciseID], score.Place{Measure: int(r.A), Event: int(r.B)}
		switch r.Kind {
		case ownPartRow:
			h.Overrides = append(h.Overrides, Override{Instrument: r.Instrument, Hash: r.X, Part: int(r.A)})
		case placementRow:
			h.OctaveChoices[r.Instrument] = instrument.OctaveChoice{Octaves: int(r.A), Chosen: r.B == 1, Folded: r.C == 1}
		case fingeringRow:
			if h.Fingerings[r.Instrument] == nil {
				h.Fingerings[r.Instrument] = map[score.Place]finger.Spot{}
			}
			h.Fingerings[r.Instrument][at] = finger.Spot{Pitch: r.C, Text: r.X}
		case annotationRow:
			if h.Annotations[r.Instrument] == nil {
				h.Annotations[r.Instrument] = map[score.Place][]breakdown.Annotation{}
			}
			h.Annotations[r.Instrument][at] = append(h.Annotations[r.Instrument][at],
				breakdown.Annotation{Kind: breakdown.AnnotationKind(r.X), Word: r.Y, Pitch: r.C})
		case handChunksRow:
			h.Chunks = handChunks(r.X, r.Y)
		case linesRow:
			if h.Lines == (DuetPart{}) {
				h.Lines = DuetPart{A: ExerciseID(r.A), B: ExerciseID(r.B), Entry: r.C}
			}
		}
	}
	return list, nil
}

// handMade is HandMade of one exercise.
func (d *Desk) handMade(ctx context.Context, exercise ExerciseID) (HandMade, error) {
	list, err := d.HandMade(ctx, exercise)
	if err != nil {
		return HandMade{}, err
	}
	return *list[exercise], nil
}

// Overrides lists an exercise's own parts by instrument.
func (d *Desk) Overrides(ctx context.Context, exercise ExerciseID) ([]Override, error) {
	h, err := d.handMade(ctx, exercise)
	return h.Overrides, err
}

// OctaveChoice is the octave chosen for an instrument's part, if any.
func (d *Desk) OctaveChoice(ctx context.Context, exercise ExerciseID, id string) (instrument.OctaveChoice, error) {
	h, err := d.handMade(ctx, exercise)
	return h.OctaveChoices[id], err
}

// Fingerings are what was chosen in an instrument's part of an exercise, by place.
func (d *Desk) Fingerings(ctx context.Context, exercise ExerciseID,
	instrument string) (map[score.Place]finger.Spot, error) {
	h, err := d.handMade(ctx, exercise)
	return h.Fingerings[instrument], err
}

// Annotations lists what is written in an instrument's part of an exercise, by place.
func (d *Desk) Annotations(ctx context.Context, exercise ExerciseID,
	instrument string) (map[score.Place][]breakdown.Annotation, error) {
	h, err := d.handMade(ctx, exercise)
	return h.Annotations[instrument], err
}

// HandChunks are the chunks an exercise has been cut into by hand, none where the program cuts.
func (d *Desk) HandChunks(ctx context.Context, exercise ExerciseID) ([]breakdown.HandChunk, error) {
	h, err := d.handMade(ctx, exercise)
	return h.Chunks, err
}

// DuetPart finds the lines that an exercise is one of; one whose other line was taken away
// is alone.
func (d *Desk) DuetPart(ctx context.Context, exercise ExerciseID) (DuetPart, error) {
	h, err := d.handMade(ctx, exercise)
	return h.Lines, err
}
