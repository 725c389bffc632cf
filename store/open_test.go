package store_test

import (
	"context"
	"errors"
	"strings"
	"sync"
	"testing"

	"unhurriedbench/internal/testdb"
	"unhurriedbench/store"
)

// Several programs that open an empty database at once make its tables once.
func TestOpeningAtOnce(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("a long one, for bin/test --all")
	}
	url, ctx := testdb.Make(t), context.Background()
	var wait sync.WaitGroup
	for range 4 {
		wait.Go(func() {
			s, err := store.Open(ctx, url)
			if err != nil {
				t.Error(err)
				return
			}
			if err := s.Close(); err != nil {
				t.Error(err)
			}
		})
	}
	wait.Wait()
}

// A database that a newer program has used is refused, with what to do.
func TestANewerDatabaseIsRefused(t *testing.T) {
	t.Parallel()
	url, ctx := testdb.Make(t), context.Background()
	s, err := store.Open(ctx, url)
	if err != nil {
		t.Fatal(err)
	}
	if _, err := s.DB().ExecContext(ctx, `INSERT INTO goose_db_version (version_id, is_applied) VALUES (9999, true)`); err != nil {
		t.Fatal(err)
	}
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	_, err = store.Open(ctx, url)
	if !errors.Is(err, store.ErrNewer) || !strings.Contains(err.Error(), "version 9999") || !strings.Contains(err.Error(), "Start the newer program") {
		t.Errorf("a newer database gives %v", err)
	}
}

// A question that takes too long is given up, and a malformed address is reported.
func TestStatementsEnd(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	var limit string
	if err := s.DB().QueryRowContext(ctx, `SHOW statement_timeout`).Scan(&limit); err != nil || limit != "30s" {
		t.Errorf("a statement may take %s, %v", limit, err)
	}
	if _, err := store.Open(ctx, "nowhere at all"); err == nil || !strings.Contains(err.Error(), "database's address") {
		t.Errorf("an address that is none gives %v", err)
	}
}
