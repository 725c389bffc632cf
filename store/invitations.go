package store

import (
	"context"
	"crypto/rand"
	"crypto/sha256"
	"fmt"
	"time"

	"github.com/jmoiron/sqlx"
)

// InvitationHolds is how long a link may wait to be used.
const InvitationHolds = 7 * 24 * time.Hour

// Invitation is what a link is for: a new account, or another password for a teacher.
type Invitation struct {
	Teacher TeacherID // 0 for a new one
	Name    string
	Email   string
}

func linkHash(link string) []byte {
	sum := sha256.Sum256([]byte(link))
	return sum[:]
}

// Invite makes a link for a new teacher, good for once. It is shown to anyone who asks, by,
// or 0 on the machine itself, and kept nowhere.
func (s *Store) Invite(ctx context.Context, by TeacherID) (string, error) {
	return s.invite(ctx, logEntry{action: AccountInvited, by: by})
}

// InviteToReset makes a link with which a teacher chooses another password. The error is
// ErrNotFound where there is no such teacher.
func (s *Store) InviteToReset(ctx context.Context, by, teacher TeacherID) (string, error) {
	t, err := s.TeacherByID(ctx, teacher)
	if err == nil && t.Demo {
		err = fmt.Errorf("make a link: %w", ErrNotFound)
	}
	if err != nil {
		return "", err
	}
	return s.invite(ctx, logEntry{action: PasswordLink, by: by, teacher: teacher})
}

func (s *Store) invite(ctx context.Context, d logEntry) (string, error) {
	link := rand.Text()
	err := inTransaction(ctx, s.db, "make a link", func(tx *sqlx.Tx) error {
		if _, err := tx.ExecContext(ctx, `
			WITH gone AS (DELETE FROM invitations WHERE until < now() OR teacher_id = nullif($2, 0))
			INSERT INTO invitations (hash, teacher_id, until) VALUES ($1, nullif($2, 0), $3)`, linkHash(link), d.teacher,
			time.Now().Add(InvitationHolds)); err != nil {
			return err
		}
		return record(ctx, tx, d)
	})
	return link, err
}

// Invitation finds what a link is for. The error is ErrNotFound for one that was used, is
// too old or never was.
func (s *Store) Invitation(ctx context.Context, link string) (Invitation, error) {
	var i Invitation
	err := s.one(ctx, &i, "find the invitation", `
		SELECT coalesce(t.id, 0) AS teacher, coalesce(t.name, '') AS name, coalesce(t.email, '') AS email
		FROM invitations i LEFT JOIN teachers t ON t.id = i.teacher_id WHERE i.hash = $1 AND i.until > now()`, linkHash(link))
	return i, err
}

// Join makes the account a link is for. Where nobody owns the installation, they do. The
// errors are ErrNotFound for the link and ErrTaken for the address; the link then stays.
func (s *Store) Join(ctx context.Context, link, email, name, school, password string) (Teacher, error) {
	return s.useLink(ctx, link, 0, AccountMade, `
		INSERT INTO teachers (email, name, school, password_hash, owner)
		SELECT $1, $2, $3, $4, NOT EXISTS (SELECT 1 FROM teachers WHERE owner AND removed_at IS NULL) RETURNING `+
		teacherColumns, email, name, school, hashed(password))
}

// Reset gives the teacher a link is for another password, and ends their sessions.
func (s *Store) Reset(ctx context.Context, link string, teacher TeacherID, password string) (Teacher, error) {
	return s.useLink(ctx, link, teacher, PasswordChanged, `
		UPDATE teachers SET password_hash = $2, sessions = sessions + 1 WHERE id = $1 AND NOT demo
			AND removed_at IS NULL RETURNING `+teacherColumns, teacher, hashed(password))
}

// useLink uses a link up and does what it is for, both or neither.
func (s *Store) useLink(ctx context.Context, link string, teacher TeacherID, action Action, query string,
	args ...any) (Teacher, error) {
	var t Teacher
	err := inTransaction(ctx, s.db, "use the invitation", func(tx *sqlx.Tx) error {
		err := mustTouch(tx.ExecContext(ctx,
			`DELETE FROM invitations WHERE hash = $1 AND until > now()
				AND coalesce(teacher_id, 0) = $2`, linkHash(link), teacher))
		if err != nil {
			return err
		}
		if err := tx.GetContext(ctx, &t, query, args...); err != nil {
			return err
		}
		return record(ctx, tx, logEntry{action: action, by: t.ID, teacher: t.ID})
	})
	return t, err
}

// Colleagues lists everybody with an account and a password, by name.
func (s *Store) Colleagues(ctx context.Context) ([]Teacher, error) {
	var list []Teacher
	err := s.db.SelectContext(ctx, &list, `SELECT `+teacherColumns+
		` FROM teachers WHERE NOT demo AND password_hash <> '' AND removed_at IS NULL ORDER BY lower(name), id`)
	return list, wrap("list the teachers", err)
}
