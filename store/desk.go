package store

import (
	"context"
	"database/sql"

	"github.com/jmoiron/sqlx"

	"unhurriedbench/core/routine"
)

// Ids are numbers that PostgreSQL gives; 0 is nobody's.
type (
	TeacherID  int64
	BookID     int64
	ExerciseID int64
	ClassID    int64
	StudentID  int64
	AttemptID  int64
	BatchID    int64
)

// Desk is the store as one teacher sees it. Rows of others are not found, and cannot
// be written.
type Desk struct {
	db      *sqlx.DB
	teacher TeacherID
	routine routine.Routine
	guest   Guest     // of a colleague who was given a class
	marker  TeacherID // that colleague
	only    StudentID // of a student who has opened their own page; 0 for all
	written *int      // how often something was
	zones   *zones
}

// For is the desk of a teacher.
func (s *Store) For(teacher TeacherID) *Desk {
	return &Desk{db: s.db, teacher: teacher, routine: s.routine, written: new(int), zones: s.zones}
}

// Written counts what was written at this desk, so that one who remembers what was read
// knows when to read it again. A desk is for one request, which asks one thing at a time.
func (d *Desk) Written() int { return *d.written }

// Routine is the stages that chunks go through where nothing is chosen.
func (d *Desk) Routine() routine.Routine { return d.routine }

// In every query of a desk $1 is the teacher; args begin with $2.
func (d *Desk) args(args []any) []any { return append([]any{d.teacher}, args...) }

// one runs a query for a single row; a missing row is ErrNotFound.
func (d *Desk) one(ctx context.Context, into any, doing, query string, args ...any) error {
	err := d.db.GetContext(ctx, into, query, d.args(args)...)
	if err == nil {
		d.inZone(ctx, into)
	}
	return wrap(doing, err)
}

func (d *Desk) all(ctx context.Context, into any, doing, query string, args ...any) error {
	err := d.db.SelectContext(ctx, into, query, d.args(args)...)
	if err == nil {
		d.inZone(ctx, into)
	}
	return wrap(doing, err)
}

// own is all for what is no guest's business, who finds nothing.
func (d *Desk) own(ctx context.Context, into any, doing, query string, args ...any) error {
	if !d.guest.Own() {
		return nil
	}
	return d.all(ctx, into, doing, query, args...)
}

// change runs a statement that must touch a row; none touched is ErrNotFound.
func (d *Desk) change(ctx context.Context, doing, query string, args ...any) error {
	if !d.guest.Own() {
		return wrap(doing, sql.ErrNoRows)
	}
	*d.written++
	return wrap(doing, mustTouch(d.db.ExecContext(ctx, query, d.args(args)...)))
}

// clear runs a statement that may find nothing to do.
func (d *Desk) clear(ctx context.Context, doing, query string, args ...any) error {
	if !d.guest.Own() {
		return wrap(doing, sql.ErrNoRows)
	}
	*d.written++
	_, err := d.db.ExecContext(ctx, query, d.args(args)...)
	return wrap(doing, err)
}

func mustTouch(result sql.Result, err error) error {
	if err != nil {
		return err
	}
	if n, err := result.RowsAffected(); err == nil && n == 0 {
		return sql.ErrNoRows
	}
	return nil
}

// deskTx is a desk inside a transaction.
type deskTx struct {
	*sqlx.Tx
	*Desk
}

func (tx deskTx) one(ctx context.Context, into any, query string, args ...any) error {
	return tx.GetContext(ctx, into, query, tx.args(args)...)
}

func (tx deskTx) change(ctx context.Context, query string, args ...any) error {
	return mustTouch(tx.ExecContext(ctx, query, tx.args(args)...))
}

func (tx deskTx) clear(ctx context.Context, query string, args ...any) error {
	_, err := tx.ExecContext(ctx, query, tx.args(args)...)
	return err
}

// inTransaction runs do, and keeps what it changed only when it succeeds. For a guest
// there is nothing to change.
func (d *Desk) inTransaction(ctx context.Context, doing string, do func(deskTx) error) error {
	if !d.guest.Own() {
		return wrap(doing, sql.ErrNoRows)
	}
	return d.together(ctx, doing, do)
}

// marking is inTransaction for marks, which a guest may make who teaches the class.
func (d *Desk) marking(ctx context.Context, doing string, do func(deskTx) error) error {
	if !d.guest.MayMark() {
		return wrap(doing, ErrOnlyLooking)
	}
	return d.together(ctx, doing, do)
}

func (d *Desk) together(ctx context.Context, doing string, do func(deskTx) error) error {
	*d.written++
	return inTransaction(ctx, d.db, doing, func(tx *sqlx.Tx) error { return do(deskTx{tx, d}) })
}

// Marker is the colleague at whose desk it is, 0 at the class's own teacher's.
func (d *Desk) Marker() TeacherID { return d.marker }
