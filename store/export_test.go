package store

import (
	"context"
	"database/sql"
)

// MigrateTo brings a database to a version.
func MigrateTo(ctx context.Context, db *sql.DB, version int64) error {
	p, err := provider(db)
	if err != nil {
		return err
	}
	_, err = p.UpTo(ctx, version)
	return err
}
