package store

import (
	"context"
	"errors"
	"fmt"
	"strconv"
	"strings"

	"unhurriedbench/core/breakdown"
)

// Reading is what is kept of an exercise that has been read, so that pages need not
// read it again.
type Reading struct {
	Unread    string                       // why it cannot be read, where it cannot
	FileParts int                          // how many parts the source holds
	Outlines  map[string]breakdown.Outline // of the source's part, by "", and of own parts, by instrument id
	Demands   map[string]breakdown.Demands // by instrument id
}

// KeepReading keeps the reading of a revision of an exercise, in place of an earlier
// one. It keeps nothing where the exercise has changed since. A guest keeps it too: it
// says nothing that the source does not.
func (d *Desk) KeepReading(ctx context.Context, id ExerciseID, revision int, r Reading) error {
	return d.together(ctx, "keep the reading", func(tx deskTx) error {
		result, err := tx.ExecContext(ctx, `
			UPDATE exercises SET read_revision = revision, read_version = $4, file_parts = $5, unread = $6
			WHERE teacher_id = $1 AND id = $2 AND revision = $3`, tx.args([]any{id, revision, breakdown.OutlineVersion, r.FileParts, r.Unread})...)
		if err != nil {
			return err
		}
		if n, err := result.RowsAffected(); err != nil || n == 0 {
			return err
		}
		if err := tx.clear(ctx, `DELETE FROM outlines WHERE teacher_id = $1 AND exercise_id = $2`, id); err != nil {
			return err
		}
		if err := tx.clear(ctx, `DELETE FROM demands WHERE teacher_id = $1 AND exercise_id = $2`, id); err != nil {
			return err
		}
		for instrument, o := range r.Outlines {
			if err := tx.change(ctx, `
				INSERT INTO outlines (teacher_id, exercise_id, instrument, signatures, measures, pieces) VALUES ($1, $2, $3, $4, $5, $6)`,
				id, instrument, o.Signatures, o.Measures, piecesText(o.Pieces)); err != nil {
				return err
			}
		}
		var instruments, things, parts []string
		for instrument, demands := range r.Demands {
			instruments, things, parts = append(instruments, instrument), append(things, thingsText(demands.Things)), append(parts, partsText(demands.Parts))
		}
		return tx.clear(ctx, `
			INSERT INTO demands (teacher_id, exercise_id, instrument, things, parts)
			SELECT $1, $2, instrument, things, parts FROM unnest($3::text[], $4::text[], $5::text[]) AS rows (instrument, things, parts)`, id, instruments, things, parts)
	})
}

// outlineRow is an outline as it is scanned.
type outlineRow struct {
	Signatures string
	Measures   int
	Pieces     string
	Cut        string // by hand, "" for the program's
}

func (r outlineRow) outline() breakdown.Outline {
	o := breakdown.Outline{Signatures: r.Signatures, Measures: r.Measures, Pieces: piecesFrom(r.Pieces)}
	return o.CutAs(piecesFrom(r.Cut))
}

// OwnOutlines are the outlines of the parts that instruments have of their own, by
// exercise and instrument id.
type OwnOutlines map[ExerciseID]map[string]breakdown.Outline

// Of is the outline of an instrument's part of an exercise.
func (o OwnOutlines) Of(x Exercise, instrument string) breakdown.Outline {
	if own, has := o[x.ID][instrument]; has {
		return own
	}
	return x.Outline
}

// OutlineFor is the outline of an instrument's part of an exercise.
func (d *Desk) OutlineFor(ctx context.Context, x Exercise, instrument string) (breakdown.Outline, error) {
	var row outlineRow
	err := d.one(ctx, &row, "find the outline", `
		SELECT o.signatures, o.measures, o.pieces, coalesce(c.pieces, '') AS cut FROM outlines o LEFT JOIN cuts c ON c.exercise_id = o.exercise_id
		WHERE o.teacher_id = $1 AND o.exercise_id = $2 AND o.instrument = $3`, x.ID, instrument)
	if errors.Is(err, ErrNotFound) {
		return x.Outline, nil
	}
	return row.outline(), err
}

// OwnOutlines lists them.
func (d *Desk) OwnOutlines(ctx context.Context) (OwnOutlines, error) {
	var rows []struct {
		ExerciseID ExerciseID `db:"exercise_id"`
		Instrument string
		outlineRow
	}
	err := d.all(ctx, &rows, "list the own parts", `
		SELECT o.exercise_id, o.instrument, o.signatures, o.measures, o.pieces, coalesce(c.pieces, '') AS cut
		FROM outlines o LEFT JOIN cuts c ON c.exercise_id = o.exercise_id WHERE o.teacher_id = $1 AND o.instrument <> ''`)
	own := OwnOutlines{}
	for _, r := range rows {
		if own[r.ExerciseID] == nil {
			own[r.ExerciseID] = map[string]breakdown.Outline{}
		}
		own[r.ExerciseID][r.Instrument] = r.outline()
	}
	return own, err
}

// Worked lists the exercises that a student has worked on; with no student, those that at
// least half of a section have, of those who have tries at all.
func (d *Desk) Worked(ctx context.Context, section SectionID, student StudentID) ([]ExerciseID, error) {
	var list []ExerciseID
	if student != 0 {
		err := d.all(ctx, &list, "list what was worked on", `
			SELECT DISTINCT p.exercise_id FROM standings p JOIN `+d.students()+` t ON t.id = p.student_id
			WHERE t.teacher_id = $1 AND t.id = $2 ORDER BY 1`, student)
		return list, err
	}
	err := d.all(ctx, &list, "list what was worked on", `
		WITH worked AS (
			SELECT DISTINCT p.student_id, p.exercise_id FROM standings p JOIN `+d.students()+` t ON t.id = p.student_id
			WHERE t.teacher_id = $1 AND t.section_id = $2)
		SELECT exercise_id FROM worked GROUP BY exercise_id
		HAVING 2 * count(*) >= (SELECT count(DISTINCT student_id) FROM worked) ORDER BY 1`, section)
	return list, err
}

// metBefore says which exercises come before one, $3 in the book $2, for whoever has worked
// on those in $4: these, and those of its book before the first of them; where they are none
// of its book, all before it.
const metBefore = `NOT (e.book_id = $2 AND e.number = $3) AND (e.id = ANY($4::bigint[]) OR e.book_id = $2 AND e.number < least($3,
	(SELECT min(w.number) FROM exercises w WHERE w.teacher_id = $1 AND w.book_id = $2 AND w.id = ANY($4::bigint[]))))`

// StaleBefore lists the exercises before one, as MetBefore takes them, that have changed
// since they were read, or were read by other rules.
func (d *Desk) StaleBefore(ctx context.Context, book BookID, number int, worked []ExerciseID) ([]ExerciseID, error) {
	var list []ExerciseID
	err := d.all(ctx, &list, "list what is to be read again", `
		SELECT e.id FROM exercises e WHERE e.teacher_id = $1 AND e.removed_at IS NULL AND `+metBefore+`
		AND (e.read_revision <> e.revision OR e.read_version <> $5) ORDER BY e.number`, book, number, numbersOf(worked), breakdown.OutlineVersion)
	return list, err
}

// MetBefore is what an instrument has met before an exercise of a book by whoever has worked
// on some exercises, and on what comes before the first of them in that book.
func (d *Desk) MetBefore(ctx context.Context, book BookID, number int, instrument string, worked []ExerciseID) (*breakdown.Met, error) {
	var rows []string
	if err := d.all(ctx, &rows, "list what was met", `
		SELECT m.things FROM demands m JOIN exercises e ON e.id = m.exercise_id
		WHERE e.teacher_id = $1 AND e.removed_at IS NULL AND `+metBefore+` AND m.instrument = $5
		ORDER BY e.number`, book, number, numbersOf(worked), instrument); err != nil {
		return nil, err
	}
	met := breakdown.MetIn()
	for _, row := range rows {
		for thing := range strings.FieldsSeq(row) {
			met.Add(breakdown.Thing(thing))
		}
	}
	return met, nil
}

// numbersOf are ids as the database takes them.
func numbersOf(list []ExerciseID) []int64 {
	ids := make([]int64, len(list))
	for k, id := range list {
		ids[k] = int64(id)
	}
	return ids
}

// Demands are what the exercises demand of an instrument, by exercise.
func (d *Desk) Demands(ctx context.Context, instrument string) (map[ExerciseID]breakdown.Demands, error) {
	var rows []struct {
		ExerciseID    ExerciseID `db:"exercise_id"`
		Things, Parts string
	}
	err := d.all(ctx, &rows, "list the demands", `SELECT exercise_id, things, parts FROM demands WHERE teacher_id = $1 AND instrument = $2`, instrument)
	list := make(map[ExerciseID]breakdown.Demands, len(rows))
	for _, r := range rows {
		demands := breakdown.Demands{Parts: partsFrom(r.Parts)}
		for thing := range strings.FieldsSeq(r.Things) {
			demands.Things = append(demands.Things, breakdown.Thing(thing))
		}
		list[r.ExerciseID] = demands
	}
	return list, err
}

// HardFor says how hard an exercise is, part by part, for every instrument, by instrument
// id, but for what is new.
func (d *Desk) HardFor(ctx context.Context, exercise ExerciseID) (map[string]breakdown.DifficultyParts, error) {
	var rows []struct{ Instrument, Parts string }
	err := d.all(ctx, &rows, "list how hard it is", `SELECT instrument, parts FROM demands WHERE teacher_id = $1 AND exercise_id = $2`, exercise)
	list := make(map[string]breakdown.DifficultyParts, len(rows))
	for _, r := range rows {
		list[r.Instrument] = partsFrom(r.Parts)
	}
	return list, err
}

// partsText writes the parts of a difficulty but for what is new.
func partsText(p breakdown.DifficultyParts) string {
	return fmt.Sprintf("%.3f %.3f %.3f %.3f %.3f", p.Rhythm, p.Reading, p.Change, p.Range, p.Breath)
}

// partsFrom reads what partsText wrote.
func partsFrom(text string) (p breakdown.DifficultyParts) {
	for k, word := range strings.Fields(text) {
		if into := []*float64{&p.Rhythm, &p.Reading, &p.Change, &p.Range, &p.Breath}; k < len(into) {
			*into[k], _ = strconv.ParseFloat(word, 64) // what partsText wrote
		}
	}
	return p
}

func thingsText(list []breakdown.Thing) string {
	words := make([]string, len(list))
	for i, t := range list {
		words[i] = string(t)
	}
	return strings.Join(words, " ")
}

func piecesText(keys []breakdown.PieceKey) string {
	words := make([]string, len(keys))
	for i, k := range keys {
		words[i] = k.String()
	}
	return strings.Join(words, " ")
}

// piecesFrom reads what piecesText wrote.
func piecesFrom(text string) []breakdown.PieceKey {
	var keys []breakdown.PieceKey
	for word := range strings.FieldsSeq(text) {
		if k, ok := breakdown.ParsePieceKey(word); ok {
			keys = append(keys, k)
		}
	}
	return keys
}
