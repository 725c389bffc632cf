package store

import (
	"context"
	"database/sql"
)

// MigrateTo brings a database to a version, up or down.
func MigrateTo(ctx context.Context, db *sql.DB, version int64) error {
	p, err := provider(db)
	if err != nil {
		return err
	}
	now, err := p.GetDBVersion(ctx)
	if err != nil {
		return err
	}
	if now < version {
		_, err = p.UpTo(ctx, version)
	} else {
		_, err = p.DownTo(ctx, version)
	}
	return err
}
