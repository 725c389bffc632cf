package store

import (
	"context"
	"database/sql"
	"fmt"
	"slices"

	"unhurriedbench/core/breakdown"
)

// Book is a method book as the teacher names it.
type Book struct {
	ID    BookID
	Title string
}

// Books lists the books by title.
func (d *Desk) Books(ctx context.Context) ([]Book, error) {
	var list []Book
	err := d.all(ctx, &list, "list the books", `SELECT id, title FROM books
		WHERE teacher_id = $1 AND removed_at IS NULL ORDER BY title`)
	return list, err
}

// Exercise is one numbered exercise, its source apart.
type Exercise struct {
	ID         ExerciseID
	BookID     BookID `db:"book_id"`
	Book       string `db:"book"`
	Number     int
	Title      string
	Format     string
	Hash       string              // of its source
	Part       int                 // which part of the source, from 0
	WrittenFor string              `db:"written_for"` // an instrument id, "concert", or "" for what the file says
	Placed     bool                // it stands where the teacher put it
	MeantFor   *breakdown.Audience `db:"meant_for"` // as the teacher says, nil where its music says
	Revision   int                 // counts the changes to it and to its own parts

	Read      bool              // what follows is of this revision, by the rules in force
	Unread    string            // why the source cannot be read, where it cannot
	FileParts int               `db:"file_parts"` // how many parts the source holds
	Outline   breakdown.Outline `db:"-"`          // of the source's part
}

// Audience is whom the exercise is for.
func (x Exercise) Audience() breakdown.Audience {
	if x.MeantFor != nil {
		return *x.MeantFor
	}
	return x.Outline.For
}

// Name is "7 · Open Water".
func (x Exercise) Name() string { return fmt.Sprintf("%d · %s", x.Number, x.Title) }

// Source is what was brought in.
type Source struct{ Format, Content string }

const exerciseColumns = `e.id, e.book_id, b.title AS book, e.number, e.title, s.format, e.hash, e.part, e.written_for, e.revision, e.place IS NOT NULL AS placed, e.audience AS meant_for,
	e.read_revision = e.revision AND e.read_version = $2 AS read, e.unread, e.file_parts,
	coalesce(o.signatures, '') AS signatures, coalesce(o.measures, 0) AS measures, coalesce(o.chunks, '') AS chunks, coalesce(c.chunks, '') AS cut,
	coalesce(o.audience, '') AS audience`

const exerciseTables = `exercises e JOIN books b ON b.id = e.book_id AND b.removed_at IS NULL JOIN sources s ON s.teacher_id = e.teacher_id AND s.hash = e.hash
	LEFT JOIN outlines o ON o.exercise_id = e.id AND o.instrument = '' LEFT JOIN hand_chunks c ON c.exercise_id = e.id`

// exerciseRow is an exercise as it is scanned.
type exerciseRow struct {
	Exercise
	outlineRow
}

func (r exerciseRow) exercise() Exercise {
	r.Outline = r.outline()
	return r.Exercise
}

// AddExercise keeps a new exercise in the book of its title, which is made when
// it is new. The error is ErrTaken when the book has one of that number.
func (d *Desk) AddExercise(ctx context.Context, x Exercise, source Source) (ExerciseID, error) {
	ids, err := d.AddExercises(ctx, x.Book, []Sourced{{x, source}})
	if err != nil {
		return 0, err
	}
	return ids[0], nil
}

// Sourced is an exercise with its source.
type Sourced struct {
	Exercise
	Source Source
}

// AddExercises keeps several new exercises in the book of a title, all or none of them, with
// the error of AddExercise.
func (d *Desk) AddExercises(ctx context.Context, title string, list []Sourced) ([]ExerciseID, error) {
	ids := make([]ExerciseID, len(list))
	err := d.inTransaction(ctx, "add the exercises", func(tx deskTx) error {
		book, err := tx.findOrAddBook(ctx, title)
		if err != nil {
			return err
		}
		for k, x := range list {
			hash, err := tx.saveSource(ctx, x.Source)
			if err != nil {
				return err
			}
			if err := tx.one(ctx, &ids[k], `
				INSERT INTO exercises (teacher_id, book_id, number, title, hash, part, written_for)
				VALUES ($1, $2, $3, $4, $5, $6, $7) RETURNING id`, book, x.Number, x.Title, hash, x.Part,
				x.WrittenFor); err != nil {
				return err
			}
		}
		return nil
	})
	return ids, err
}

// ChangeExercise keeps an edited exercise, which may have moved to another book.
func (d *Desk) ChangeExercise(ctx context.Context, x Exercise, source Source) error {
	return d.inTransaction(ctx, "change the exercise", func(tx deskTx) error {
		book, err := tx.findOrAddBook(ctx, x.Book)
		if err != nil {
			return err
		}
		hash, err := tx.saveSource(ctx, source)
		if err != nil {
			return err
		}
		if err := tx.change(ctx, `
			UPDATE exercises SET book_id = $3, number = $4, title = $5, hash = $6, part = $7, written_for = $8, revision = revision + 1
			WHERE teacher_id = $1 AND id = $2 AND removed_at IS NULL`, x.ID, book, x.Number, x.Title, hash, x.Part,
			x.WrittenFor); err != nil {
			return err
		}
		return tx.deleteUnusedSources(ctx)
	})
}

func (tx deskTx) findOrAddBook(ctx context.Context, title string) (BookID, error) {
	var id BookID
	err := tx.one(ctx, &id, `
		INSERT INTO books (teacher_id, title) VALUES ($1, $2)
		ON CONFLICT (teacher_id, title) WHERE removed_at IS NULL DO UPDATE SET title = excluded.title RETURNING id`, title)
	return id, err
}

// ExerciseByID finds an exercise.
func (d *Desk) ExerciseByID(ctx context.Context, id ExerciseID) (Exercise, error) {
	var row exerciseRow
	err := d.one(ctx, &row, "find the exercise", `
		SELECT `+exerciseColumns+` FROM `+exerciseTables+`
		WHERE e.teacher_id = $1 AND e.id = $3 AND e.removed_at IS NULL`, breakdown.OutlineVersion, id)
	return row.exercise(), err
}

// Exercises lists all exercises by book, in the order they stand in there.
func (d *Desk) Exercises(ctx context.Context) ([]Exercise, error) {
	var rows []exerciseRow
	if err := d.all(ctx, &rows, "list the exercises", `
		SELECT `+exerciseColumns+` FROM `+exerciseTables+`
		WHERE e.teacher_id = $1 AND e.removed_at IS NULL ORDER BY b.title, b.id, e.place NULLS LAST, e.number`,
		breakdown.OutlineVersion); err != nil {
		return nil, err
	}
	list := make([]Exercise, len(rows))
	for i, row := range rows {
		list[i] = row.exercise()
	}
	return list, nil
}

// NextNumber is one more than the book's highest number.
func (d *Desk) NextNumber(ctx context.Context, book BookID) (int, error) {
	var n int
	err := d.one(ctx, &n, "find the next number", `
		SELECT coalesce(max(number), 0) + 1 FROM exercises
		WHERE teacher_id = $1 AND book_id = $2 AND removed_at IS NULL`, book)
	return n, err
}

// MoveExercise puts an exercise before another of its book, or last where that is 0.
func (d *Desk) MoveExercise(ctx context.Context, id, before ExerciseID) error {
	return d.inTransaction(ctx, "move the exercise", func(tx deskTx) error {
		var book BookID
		if err := tx.one(ctx, &book, `SELECT book_id FROM exercises WHERE teacher_id = $1 AND id = $2
			AND removed_at IS NULL FOR UPDATE`, id); err != nil {
			return err
		}
		var all []int64
		if err := tx.SelectContext(ctx, &all, `
			SELECT id FROM exercises WHERE teacher_id = $1 AND book_id = $2 AND removed_at IS NULL
			ORDER BY place NULLS LAST, number`, tx.args([]any{book})...); err != nil {
			return err
		}
		all = slices.DeleteFunc(all, func(other int64) bool { return other == int64(id) })
		at := len(all)
		if before != 0 {
			if at = slices.Index(all, int64(before)); at < 0 {
				return sql.ErrNoRows
			}
		}
		all = slices.Insert(all, at, int64(id))
		return tx.change(ctx, `
			UPDATE exercises e SET place = o.place FROM unnest($2::bigint[]) WITH ORDINALITY AS o (id, place)
			WHERE e.teacher_id = $1 AND e.id = o.id`, all)
	})
}

// SaveAudience says whom an exercise is for; nil leaves it to its music.
func (d *Desk) SaveAudience(ctx context.Context, id ExerciseID, a *breakdown.Audience) error {
	return d.change(ctx, "say whom the exercise is for", `UPDATE exercises SET audience = $3
		WHERE teacher_id = $1 AND id = $2 AND removed_at IS NULL`, id, a)
}

// OrderByNumber puts the exercises of a book back in the order of their numbers.
func (d *Desk) OrderByNumber(ctx context.Context, book BookID) error {
	return d.change(ctx, "order the book", `UPDATE exercises SET place = NULL
		WHERE teacher_id = $1 AND book_id = $2`, book)
}

// Neighbour is the exercise before or after one in its book; ID 0 for none.
type Neighbour struct {
	ID     ExerciseID
	Number int
}
