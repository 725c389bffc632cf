package store

import (
	"context"
	"errors"

	"github.com/jmoiron/sqlx"
)

// Policy is what the owner has chosen for the whole installation.
type Policy struct {
	LongestDays  int `db:"longest_days"`  // a session, 1 to 90
	IdleDays     int `db:"idle_days"`     // a session without use, 1 to 90
	IdleMinutes  int `db:"idle_minutes"`  // the same on a shared computer, 5 to 240
	RetainMonths int `db:"retain_months"` // the record of a student who has left, 1 to 120; 0 has no end

	Zone string // in which days are reckoned, by its IANA name; "" for the server's
}

// StandardPolicy is where nothing was chosen.
var StandardPolicy = Policy{LongestDays: 14, IdleDays: 14, IdleMinutes: 30}

// Policy finds what the owner has chosen.
func (s *Store) Policy(ctx context.Context) (Policy, error) {
	var h Policy
	err := s.one(ctx, &h, "find the installation's limits",
		`SELECT longest_days, idle_days, idle_minutes, retain_months, zone FROM policy`)
	if errors.Is(err, ErrNotFound) {
		return StandardPolicy, nil
	}
	return h, err
}

// SavePolicy keeps what an owner chooses. The error is ErrNotFound for anybody else.
func (s *Store) SavePolicy(ctx context.Context, owner TeacherID, h Policy) error {
	defer s.zones.forget()
	return inTransaction(ctx, s.db, "keep the installation's limits", func(tx *sqlx.Tx) error {
		if err := mustTouch(tx.ExecContext(ctx, `
			INSERT INTO policy (longest_days, idle_days, idle_minutes, retain_months, zone)
			SELECT $2, $3, $4, $5, $6 FROM teachers WHERE id = $1 AND owner
			ON CONFLICT (one) DO UPDATE SET longest_days = $2, idle_days = $3, idle_minutes = $4, retain_months = $5, zone = $6`,
			owner, h.LongestDays, h.IdleDays, h.IdleMinutes, h.RetainMonths, h.Zone)); err != nil {
			return err
		}
		return record(ctx, tx, logEntry{action: PolicyChanged, by: owner})
	})
}
