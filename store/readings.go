package store

import (
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"github.com/jmoiron/sqlx"

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

// SaveReading keeps the reading of a revision of an exercise, in place of an earlier
// one. It keeps nothing where the exercise has changed since. A guest keeps it too: it
// says nothing that the source does not.
func (d *Desk) SaveReading(ctx context.Context, id ExerciseID, revision int, r Reading) error {
	return d.together(ctx, "keep the reading", func(tx deskTx) error {
		result, err := tx.ExecContext(ctx, `
			UPDATE exercises SET read_revision = revision, read_version = $4, file_parts = $5, unread = $6
			WHERE teacher_id = $1 AND id = $2 AND revision = $3`, tx.args([]any{id, revision, breakdown.OutlineVersion,
			r.FileParts, r.Unread})...)
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
			looks, err := looksText(o)
			if err != nil {
				return err
			}
			if err := tx.change(ctx, `
				INSERT INTO outlines (teacher_id, exercise_id, instrument, signatures, measures, chunks, looks, audience)
					VALUES ($1, $2, $3, $4, $5, $6, $7, $8)`,
				id, instrument, o.Signatures, o.Measures, chunksText(o.Chunks), looks, string(o.For)); err != nil {
				return err
			}
		}
		if err := tx.refold(ctx, `a.exercise_id = $2`, id); err != nil { // its chunks may have changed
			return err
		}
		var instruments, elements, parts []string
		for instrument, demands := range r.Demands {
			instruments, elements, parts = append(instruments, instrument),
				append(elements, elementsText(demands.Elements)), append(parts, partsText(demands.Parts))
		}
		return tx.clear(ctx, `
			INSERT INTO demands (teacher_id, exercise_id, instrument, elements, parts)
			SELECT $1, $2, instrument, elements, parts FROM unnest($3::text[], $4::text[], $5::text[]) AS rows (instrument, elements, parts)`, id, instruments, elements, parts)
	})
}

// outlineRow is an outline as it is scanned.
type outlineRow struct {
	Signatures string
	Measures   int
	Chunks     string
	Cut        string             // by hand, "" for the program's
	Audience   breakdown.Audience // by its music
}

func (r outlineRow) outline() breakdown.Outline {
	o := breakdown.Outline{Signatures: r.Signatures, Measures: r.Measures, Chunks: chunksFrom(r.Chunks),
		For: r.Audience}
	return o.CutAs(chunksFrom(r.Cut))
}

// looksOf are how the measures of a part are written, as they are kept.
type looksOf struct {
	Looks []breakdown.Look     `json:"looks,omitempty"`
	Gaps  []breakdown.ChunkKey `json:"gaps,omitempty"`
}

func looksText(o breakdown.Outline) (string, error) {
	text, err := json.Marshal(looksOf{o.Looks, o.Gaps})
	return string(text), err
}

// outlines are those of students' parts at exercises.
type outlines struct {
	at   map[Task]string // by the key of the outline
	read map[string]breakdown.Outline
}

// of is the outline of a student's part at an exercise, without chunks where it was not read.
func (o outlines) of(task Task) breakdown.Outline { return o.read[o.at[task]] }

// outlinesWhere finds the outlines for the students and exercises that a condition on
// attempts, a, picks, with how their measures are written.
func outlinesWhere(ctx context.Context, tx sqlx.QueryerContext, where string, args ...any) (outlines, error) {
	o := outlines{at: map[Task]string{}, read: map[string]breakdown.Outline{}}
	rows, err := tx.QueryContext(ctx, `
		SELECT t.student_id, t.exercise_id, o.instrument, o.chunks, o.looks, coalesce(h.chunks, '') AS cut
		FROM (SELECT DISTINCT a.student_id, a.exercise_id FROM attempts a WHERE a.teacher_id = $1 AND `+where+`) t
		JOIN students s ON s.id = t.student_id
		JOIN LATERAL (SELECT instrument, chunks, looks FROM outlines WHERE exercise_id = t.exercise_id
			AND instrument IN ('', s.instrument) ORDER BY instrument DESC LIMIT 1) o ON true
		LEFT JOIN hand_chunks h ON h.exercise_id = t.exercise_id`, args...)
	if err != nil {
		return o, fmt.Errorf("find the chunks: %w", err)
	}
	defer rows.Close()
	for rows.Next() {
		var task Task
		var row outlineRow
		var instrument, looks string
		if err := rows.Scan(&task.Student, &task.Exercise, &instrument, &row.Chunks, &looks, &row.Cut); err != nil {
			return o, fmt.Errorf("find the chunks: %w", err)
		}
		key := fmt.Sprintf("%d/%s", task.Exercise, instrument)
		o.at[task] = key
		if _, known := o.read[key]; known {
			continue
		}
		outline := row.outline()
		if looks != "" { // read by an earlier version, it shares nothing until it is read again
			var written looksOf
			if err := json.Unmarshal([]byte(looks), &written); err != nil {
				return o, fmt.Errorf("find the chunks: %w", err)
			}
			outline.Looks, outline.Gaps = written.Looks, written.Gaps
		}
		o.read[key] = outline
	}
	return o, rows.Err()
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

// OwnOutlines lists them.
func (d *Desk) OwnOutlines(ctx context.Context) (OwnOutlines, error) {
	var rows []struct {
		ExerciseID ExerciseID `db:"exercise_id"`
		Instrument string
		outlineRow
	}
	err := d.all(ctx, &rows, "list the own parts", `
		SELECT o.exercise_id, o.instrument, o.signatures, o.measures, o.chunks, coalesce(c.chunks, '') AS cut, o.audience
		FROM outlines o LEFT JOIN hand_chunks c ON c.exercise_id = o.exercise_id
			WHERE o.teacher_id = $1 AND o.instrument <> ''`)
	own := OwnOutlines{}
	for _, r := range rows {
		if own[r.ExerciseID] == nil {
			own[r.ExerciseID] = map[string]breakdown.Outline{}
		}
		own[r.ExerciseID][r.Instrument] = r.outline()
	}
	return own, err
}

// Demanded is what an exercise demands of an instrument.
type Demanded struct {
	Exercise   ExerciseID
	Book       BookID
	Number     int
	Instrument string
	breakdown.Demands
}

// DemandedList is in the order of the exercises' numbers.
type DemandedList []Demanded

// Demanded lists what all exercises demand of some instruments, and some exercises of all.
func (d *Desk) Demanded(ctx context.Context, instruments []string, exercises ...ExerciseID) (DemandedList, error) {
	var rows []struct {
		Exercise        ExerciseID
		Book            BookID
		Number          int
		Instrument      string
		Elements, Parts string
	}
	err := d.all(ctx, &rows, "list the demands", `
		SELECT m.exercise_id AS exercise, e.book_id AS book, e.number, m.instrument, m.elements, m.parts
		FROM demands m JOIN exercises e ON e.id = m.exercise_id
		WHERE m.teacher_id = $1 AND e.removed_at IS NULL AND (m.instrument = ANY($2) OR m.exercise_id = ANY($3))
		ORDER BY e.number, e.id`, instruments, numbersOf(exercises))
	list := make(DemandedList, len(rows))
	for k, r := range rows {
		list[k] = Demanded{r.Exercise, r.Book, r.Number, r.Instrument, breakdown.Demands{Parts: partsFrom(r.Parts)}}
		for element := range strings.FieldsSeq(r.Elements) {
			list[k].Elements = append(list[k].Elements, breakdown.Element(element))
		}
	}
	return list, err
}

// Of is what the exercises demand of an instrument, by exercise.
func (l DemandedList) Of(instrument string) map[ExerciseID]breakdown.Demands {
	list := map[ExerciseID]breakdown.Demands{}
	for _, x := range l {
		if x.Instrument == instrument {
			list[x.Exercise] = x.Demands
		}
	}
	return list
}

// HardFor says how hard an exercise is, part by part, for every instrument in the list, by
// instrument id, but for what is new.
func (l DemandedList) HardFor(exercise ExerciseID) map[string]breakdown.DifficultyParts {
	list := map[string]breakdown.DifficultyParts{}
	for _, x := range l {
		if x.Exercise == exercise {
			list[x.Instrument] = x.Parts
		}
	}
	return list
}

// MetBefore is what an instrument has met before an exercise of a book by anyone who has worked
// on some exercises: these, and those of its book before the first of them; where they are
// none of its book, all before it.
func (l DemandedList) MetBefore(x Exercise, instrument string, worked []ExerciseID) *breakdown.Met {
	first := x.Number
	for _, other := range l {
		if other.Book == x.BookID && slices.Contains(worked, other.Exercise) {
			first = min(first, other.Number)
		}
	}
	met := breakdown.MetIn()
	for _, other := range l {
		inBook := other.Book == x.BookID
		if other.Instrument != instrument || inBook && other.Number == x.Number || !(inBook && other.Number < first ||
			slices.Contains(worked, other.Exercise)) {
			continue
		}
		for _, element := range other.Elements {
			met.Add(element)
		}
	}
	return met
}

// numbersOf are ids as the database takes them.
func numbersOf(list []ExerciseID) []int64 {
	ids := make([]int64, len(list))
	for k, id := range list {
		ids[k] = int64(id)
	}
	return ids
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

func elementsText(list []breakdown.Element) string {
	words := make([]string, len(list))
	for i, t := range list {
		words[i] = string(t)
	}
	return strings.Join(words, " ")
}

func chunksText(keys []breakdown.ChunkKey) string {
	words := make([]string, len(keys))
	for i, k := range keys {
		words[i] = k.String()
	}
	return strings.Join(words, " ")
}

// chunksFrom reads what chunksText wrote.
func chunksFrom(text string) []breakdown.ChunkKey {
	var keys []breakdown.ChunkKey
	for word := range strings.FieldsSeq(text) {
		if k, ok := breakdown.ParseChunkKey(word); ok {
			keys = append(keys, k)
		}
	}
	return keys
}
