package store

import (
	"context"

	"github.com/jmoiron/sqlx"
)

// Book is a method book as the teacher names it.
type Book struct {
	ID    int64
	Title string
}

// Books lists the teacher's books by title.
func (s *Store) Books(ctx context.Context, teacher int64) ([]Book, error) {
	var list []Book
	err := s.all(ctx, &list, "list the books", `
		SELECT id, title FROM books WHERE teacher_id = $1 ORDER BY title`, teacher)
	return list, err
}

// Exercise is one numbered exercise with its source as it was brought in.
type Exercise struct {
	ID         int64
	BookID     int64  `db:"book_id"`
	Book       string `db:"book"`
	Number     int
	Title      string
	Format     string
	Source     string
	Part       int    // which part of the source, from 0
	WrittenFor string `db:"written_for"`
}

const exerciseColumns = `e.id, e.book_id, b.title AS book, e.number, e.title, e.format, e.source, e.part, e.written_for`

const exerciseTables = `exercises e JOIN books b ON b.id = e.book_id AND b.teacher_id = e.teacher_id`

// AddExercise keeps a new exercise in the book of its title, which is made when
// it is new. The error is ErrTaken when the book has one of that number.
func (s *Store) AddExercise(ctx context.Context, teacher int64, x Exercise) (int64, error) {
	var id int64
	err := s.inTransaction(ctx, "add the exercise", func(tx *sqlx.Tx) error {
		book, err := findOrAddBook(ctx, tx, teacher, x.Book)
		if err != nil {
			return err
		}
		return tx.GetContext(ctx, &id, `
			INSERT INTO exercises (teacher_id, book_id, number, title, format, source, part, written_for)
			VALUES ($1, $2, $3, $4, $5, $6, $7, $8) RETURNING id`,
			teacher, book, x.Number, x.Title, x.Format, x.Source, x.Part, x.WrittenFor)
	})
	return id, err
}

// ChangeExercise keeps an edited exercise, which may have moved to another book.
func (s *Store) ChangeExercise(ctx context.Context, teacher int64, x Exercise) error {
	return s.inTransaction(ctx, "change the exercise", func(tx *sqlx.Tx) error {
		var locked int64
		if err := tx.GetContext(ctx, &locked, `
			SELECT id FROM exercises WHERE teacher_id = $1 AND id = $2 AND removed_at IS NULL FOR UPDATE`, teacher, x.ID); err != nil {
			return err
		}
		book, err := findOrAddBook(ctx, tx, teacher, x.Book)
		if err != nil {
			return err
		}
		_, err = tx.ExecContext(ctx, `
			UPDATE exercises SET book_id = $3, number = $4, title = $5, format = $6, source = $7, part = $8, written_for = $9
			WHERE teacher_id = $1 AND id = $2`,
			teacher, x.ID, book, x.Number, x.Title, x.Format, x.Source, x.Part, x.WrittenFor)
		return err
	})
}

func findOrAddBook(ctx context.Context, tx *sqlx.Tx, teacher int64, title string) (int64, error) {
	var id int64
	err := tx.GetContext(ctx, &id, `
		INSERT INTO books (teacher_id, title) VALUES ($1, $2)
		ON CONFLICT (teacher_id, title) DO UPDATE SET title = excluded.title RETURNING id`, teacher, title)
	return id, err
}

// RemoveExercise takes an exercise off the Shelf; RestoreExercise undoes it.
func (s *Store) RemoveExercise(ctx context.Context, teacher, id int64) error {
	return s.change(ctx, "remove the exercise", `
		UPDATE exercises SET removed_at = now() WHERE teacher_id = $1 AND id = $2 AND removed_at IS NULL`, teacher, id)
}

// RestoreExercise puts a removed exercise back. The error is ErrTaken when its
// number has been given to another since.
func (s *Store) RestoreExercise(ctx context.Context, teacher, id int64) error {
	return s.change(ctx, "restore the exercise", `
		UPDATE exercises SET removed_at = NULL WHERE teacher_id = $1 AND id = $2`, teacher, id)
}

// ExerciseByID finds an exercise.
func (s *Store) ExerciseByID(ctx context.Context, teacher, id int64) (Exercise, error) {
	var x Exercise
	err := s.one(ctx, &x, "find the exercise", `
		SELECT `+exerciseColumns+` FROM `+exerciseTables+`
		WHERE e.teacher_id = $1 AND e.id = $2 AND e.removed_at IS NULL`, teacher, id)
	return x, err
}

// Exercises lists all exercises by book and number.
func (s *Store) Exercises(ctx context.Context, teacher int64) ([]Exercise, error) {
	var list []Exercise
	err := s.all(ctx, &list, "list the exercises", `
		SELECT `+exerciseColumns+` FROM `+exerciseTables+`
		WHERE e.teacher_id = $1 AND e.removed_at IS NULL ORDER BY b.title, b.id, e.number`, teacher)
	return list, err
}

// NextNumber is one more than the book's highest number.
func (s *Store) NextNumber(ctx context.Context, teacher, book int64) (int, error) {
	var n int
	err := s.one(ctx, &n, "find the next number", `
		SELECT coalesce(max(number), 0) + 1 FROM exercises
		WHERE teacher_id = $1 AND book_id = $2 AND removed_at IS NULL`, teacher, book)
	return n, err
}
