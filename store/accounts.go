package store

import (
	"context"
	"time"

	"github.com/jmoiron/sqlx"
)

// changeTeacher changes an account by a query that returns it, and writes down the deed.
func (s *Store) changeTeacher(ctx context.Context, doing string, d logEntry, query string,
	args ...any) (Teacher, error) {
	var t Teacher
	err := inTransaction(ctx, s.db, doing, func(tx *sqlx.Tx) error {
		if err := tx.GetContext(ctx, &t, query, args...); err != nil {
			return err
		}
		d.teacher = t.ID
		return record(ctx, tx, d)
	})
	return t, err
}

// mayRemove is the condition on by, $2, who takes a teacher's account, $1, away: the owner
// another's, and everybody their own, but the owner only as the last.
const mayRemove = `EXISTS (SELECT 1 FROM teachers a WHERE a.id = $2 AND a.removed_at IS NULL
	AND (a.owner AND a.id <> teachers.id OR a.id = teachers.id
	AND (NOT a.owner OR NOT EXISTS (SELECT 1 FROM teachers c WHERE c.id <> a.id AND NOT c.demo
		AND c.password_hash <> '' AND c.removed_at IS NULL))))`

// RemoveTeacher takes an account away with all that is theirs: nobody signs in to it, and
// after TrashTime it is erased. The error is ErrNotFound where by may not: the owner may
// any but, before the last, their own, and others their own alone.
func (s *Store) RemoveTeacher(ctx context.Context, by, id TeacherID) error {
	_, err := s.changeTeacher(ctx, "take the account away", logEntry{action: AccountRemoved, by: by}, `
		UPDATE teachers SET removed_at = now(), sessions = sessions + 1
		WHERE id = $1 AND removed_at IS NULL AND NOT demo AND `+mayRemove+` RETURNING `+teacherColumns, id, by)
	return err
}

const byOwner = `EXISTS (SELECT 1 FROM teachers a WHERE a.id = $2 AND a.owner AND a.removed_at IS NULL)`

// PutTeacherBack gives an account back that was taken away, by the owner.
func (s *Store) PutTeacherBack(ctx context.Context, by, id TeacherID) error {
	_, err := s.changeTeacher(ctx, "put the account back", logEntry{action: AccountRestored, by: by}, `
		UPDATE teachers SET removed_at = NULL WHERE id = $1 AND removed_at IS NOT NULL AND `+byOwner+` RETURNING `+
		teacherColumns, id, by)
	return err
}

// EraseTeacher deletes for good an account that was taken away, with all that is theirs,
// by the owner.
func (s *Store) EraseTeacher(ctx context.Context, by, id TeacherID) error {
	return inTransaction(ctx, s.db, "erase the account", func(tx *sqlx.Tx) error {
		var found TeacherID
		if err := tx.GetContext(ctx, &found, `SELECT id FROM teachers WHERE id = $1 AND removed_at IS NOT NULL
			AND `+byOwner, id, by); err != nil {
			return err
		}
		return eraseTeacher(ctx, tx, by, id)
	})
}

func eraseTeacher(ctx context.Context, tx *sqlx.Tx, by, id TeacherID) error {
	if err := deleteTeacher(ctx, tx, id); err != nil {
		return err
	}
	return record(ctx, tx, logEntry{action: AccountErased, by: by, teacher: id})
}

// deleteTeacher deletes an account with all that is theirs. Books go before the sources
// that their exercises are made from.
func deleteTeacher(ctx context.Context, tx *sqlx.Tx, id TeacherID) error {
	for _, query := range []string{`DELETE FROM books WHERE teacher_id = $1`, `DELETE FROM teachers WHERE id = $1`,
		`DELETE FROM activity WHERE teacher_id = $1`} {
		if _, err := tx.ExecContext(ctx, query, id); err != nil {
			return err
		}
	}
	return nil
}

// HandOver makes another teacher the owner in place of by.
func (s *Store) HandOver(ctx context.Context, by, id TeacherID) error {
	return inTransaction(ctx, s.db, "hand the installation over", func(tx *sqlx.Tx) error {
		if err := mustTouch(tx.ExecContext(ctx, `
			UPDATE teachers SET owner = true WHERE id = $1 AND id <> $2 AND NOT demo AND password_hash <> ''
				AND removed_at IS NULL AND `+byOwner, id, by)); err != nil {
			return err
		}
		if err := mustTouch(tx.ExecContext(ctx, `UPDATE teachers SET owner = false WHERE id = $1`, by)); err != nil {
			return err
		}
		return record(ctx, tx, logEntry{action: OwnerChanged, by: by, teacher: id})
	})
}

// RemovedTeacher is an account that was taken away.
type RemovedTeacher struct {
	Teacher
	At time.Time `db:"removed_at"`
}

// Until is when it is erased by itself.
func (t RemovedTeacher) Until() time.Time { return t.At.Add(TrashTime) }

// RemovedTeachers lists the accounts that were taken away, the latest first.
func (s *Store) RemovedTeachers(ctx context.Context) ([]RemovedTeacher, error) {
	var list []RemovedTeacher
	err := s.db.SelectContext(ctx, &list, `SELECT `+teacherColumns+
		`, removed_at FROM teachers WHERE removed_at IS NOT NULL ORDER BY removed_at DESC`)
	return list, wrap("list the accounts taken away", err)
}
