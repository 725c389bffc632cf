package store

import (
	"context"
	"database/sql"
	"testing"
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

// Versions are those that the tables have had.
func Versions(t *testing.T) []int64 {
	t.Helper()
	db, err := sql.Open("pgx", "postgres:///none") // which is never asked
	if err != nil {
		t.Fatal(err)
	}
	defer db.Close()
	p, err := provider(db)
	if err != nil {
		t.Fatal(err)
	}
	var list []int64
	for _, source := range p.ListSources() {
		list = append(list, source.Version)
	}
	return list
}
