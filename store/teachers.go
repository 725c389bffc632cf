package store

import (
	"context"
	"errors"
	"fmt"

	"github.com/jmoiron/sqlx"
)

// Teacher is someone who signs in.
type Teacher struct {
	ID           TeacherID
	Email        string
	Name         string
	School       string
	PasswordHash string `db:"password_hash"`
	Sessions     int    // the number under which sessions hold; those of an earlier one have ended
	Demo         bool
	Owner        bool // looks after the installation
}

const teacherColumns = `id, email, name, school, password_hash, sessions, demo, owner`

// AddTeacher makes an account. The error is ErrTaken when the address has one.
func (s *Store) AddTeacher(ctx context.Context, email, name, school, password string) (Teacher, error) {
	var t Teacher
	err := s.one(ctx, &t, "add the teacher", `
		INSERT INTO teachers (email, name, school, password_hash) VALUES ($1, $2, $3, $4)
		RETURNING `+teacherColumns, email, name, school, hashed(password))
	return t, err
}

// AddFirstTeacher makes the account with which an installation begins. The error is
// ErrTaken when there is one, also where several ask at once.
func (s *Store) AddFirstTeacher(ctx context.Context, email, name, school, password string) (Teacher, error) {
	const doing = "add the first teacher"
	var t Teacher
	err := inTransaction(ctx, s.db, doing, func(tx *sqlx.Tx) error {
		if _, err := tx.ExecContext(ctx, `LOCK TABLE teachers IN SHARE ROW EXCLUSIVE MODE`); err != nil {
			return err
		}
		if err := tx.GetContext(ctx, &t, `
			INSERT INTO teachers (email, name, school, password_hash, owner)
			SELECT $1, $2, $3, $4, true WHERE NOT EXISTS (SELECT 1 FROM teachers)
			RETURNING `+teacherColumns, email, name, school, hashed(password)); err != nil {
			return err
		}
		return record(ctx, tx, logEntry{action: AccountMade, by: t.ID, teacher: t.ID})
	})
	if errors.Is(err, ErrNotFound) { // somebody is there
		err = fmt.Errorf("%s: %w", doing, ErrTaken)
	}
	return t, err
}

// AddDemoTeacher makes the demo's account, which is entered without a password once the
// demo is opened.
func (s *Store) AddDemoTeacher(ctx context.Context, email, name, school string) (Teacher, error) {
	var t Teacher
	err := s.one(ctx, &t, "add the demo teacher", `
		INSERT INTO teachers (email, name, school, password_hash) VALUES ($1, $2, $3, '')
		RETURNING `+teacherColumns, email, name, school)
	return t, err
}

// OpenDemo says that all of the demo is there.
func (s *Store) OpenDemo(ctx context.Context, id TeacherID) error {
	_, err := s.db.ExecContext(ctx, `UPDATE teachers SET demo = true WHERE id = $1`, id)
	return wrap("open the demo", err)
}

// DeleteUnfinishedDemo takes away, with all that is theirs, a demo's account whose loading
// was cut short.
func (s *Store) DeleteUnfinishedDemo(ctx context.Context, email string) error {
	return inTransaction(ctx, s.db, "take away an unfinished demo", func(tx *sqlx.Tx) error {
		var unfinished []TeacherID
		if err := tx.SelectContext(ctx, &unfinished, `SELECT id FROM teachers WHERE lower(email) = lower($1)
			AND NOT demo AND password_hash = ''`, email); err != nil {
			return err
		}
		for _, id := range unfinished {
			if err := deleteTeacher(ctx, tx, id); err != nil {
				return err
			}
		}
		return nil
	})
}

// DemoTeacher finds the demo's account, or ErrNotFound where there is no demo.
func (s *Store) DemoTeacher(ctx context.Context) (Teacher, error) {
	var t Teacher
	err := s.one(ctx, &t, "find the demo teacher", `
		SELECT `+teacherColumns+` FROM teachers WHERE demo ORDER BY id LIMIT 1`)
	return t, err
}

// TeacherByEmail finds who signs in with an address.
func (s *Store) TeacherByEmail(ctx context.Context, email string) (Teacher, error) {
	var t Teacher
	err := s.one(ctx, &t, "find the teacher", `SELECT `+teacherColumns+
		` FROM teachers WHERE lower(email) = lower($1) AND removed_at IS NULL`, email)
	return t, err
}

// TeacherByID finds a signed-in teacher.
func (s *Store) TeacherByID(ctx context.Context, id TeacherID) (Teacher, error) {
	var t Teacher
	err := s.one(ctx, &t, "find the teacher", `
		SELECT `+teacherColumns+` FROM teachers WHERE id = $1 AND removed_at IS NULL`, id)
	return t, err
}

// SignedIn is TeacherByID, with what the owner has chosen for the installation.
func (s *Store) SignedIn(ctx context.Context, id TeacherID) (Teacher, Policy, error) {
	row := struct {
		Teacher
		Policy
	}{}
	standard := StandardPolicy
	err := s.one(ctx, &row, "find the teacher", `
		SELECT `+teacherColumns+`, coalesce(longest_days, $2) AS longest_days, coalesce(idle_days, $3) AS idle_days,
			coalesce(idle_minutes, $4) AS idle_minutes, coalesce(retain_months, $5) AS retain_months
		FROM teachers LEFT JOIN policy ON true WHERE id = $1 AND removed_at IS NULL`,
		id, standard.LongestDays, standard.IdleDays, standard.IdleMinutes, standard.RetainMonths)
	return row.Teacher, row.Policy, err
}

// HasTeachers says whether anybody has an account yet.
func (s *Store) HasTeachers(ctx context.Context) (bool, error) {
	var some bool
	err := s.one(ctx, &some, "look for teachers", `SELECT EXISTS (SELECT 1 FROM teachers)`)
	return some, err
}

// Teachers lists everybody who has an account.
func (s *Store) Teachers(ctx context.Context) ([]TeacherID, error) {
	var list []TeacherID
	err := wrap("list the teachers", s.db.SelectContext(ctx, &list, `SELECT id FROM teachers ORDER BY id`))
	return list, err
}
