package store_test

import (
	"bytes"
	"context"
	"database/sql"
	"errors"
	"fmt"
	"strings"
	"testing"

	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testdb"
	"unhurriedbench/store"
)

// tables sums up every row of every table, by the table's name.
func tables(t *testing.T, db *sql.DB) map[string]string {
	t.Helper()
	rows, err := db.Query(`SELECT relname FROM pg_class WHERE relnamespace = 'public'::regnamespace AND relkind = 'r' AND relname NOT IN ('sessions', 'goose_db_version')`)
	if err != nil {
		t.Fatal(err)
	}
	defer rows.Close()
	sums := map[string]string{}
	for rows.Next() {
		var name, sum string
		var n int
		if err := rows.Scan(&name); err != nil {
			t.Fatal(err)
		}
		err := db.QueryRow(`SELECT count(*), coalesce(md5(string_agg(x::text, '|' ORDER BY x::text)), '') FROM "`+name+`" x`).Scan(&n, &sum)
		if err != nil {
			t.Fatal(err)
		}
		sums[name] = fmt.Sprint(n, " rows ", sum)
	}
	if err := rows.Err(); err != nil {
		t.Fatal(err)
	}
	return sums
}

// A backup taken while marks are logged is restored elsewhere, equal table by table to
// one moment; what is added there goes on where the other left off.
func TestBackupAndRestore(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, `a "quoted", \N name`)
	stranger := addMore(t, s, "b")
	if _, err := f.AddTogether(ctx, "a press", f.try(true, routine.None)); err != nil {
		t.Fatal(err)
	}
	if err := f.AddAttempts(ctx, f.try(false, routine.Rhythm)); err != nil {
		t.Fatal(err)
	}
	if _, err := s.DB().Exec(`INSERT INTO sessions (token, data, expiry) VALUES ('secret', '', now())`); err != nil {
		t.Fatal(err)
	}
	want := tables(t, s.DB())
	if len(want) < 15 || !strings.HasPrefix(want["attempts"], "5 rows") {
		t.Fatalf("there are %v", want)
	}
	var backup bytes.Buffer
	if err := s.Backup(ctx, &backup); err != nil {
		t.Fatal(err)
	}
	if bytes.Contains(backup.Bytes(), []byte("secret")) {
		t.Error("a backup holds who is signed in")
	}

	url := testdb.Make(t)
	restore := func(url string) error {
		return store.Restore(ctx, url, bytes.NewReader(backup.Bytes()), int64(backup.Len()))
	}
	if err := restore(url); err != nil {
		t.Fatal(err)
	}
	other, err := store.Open(ctx, url)
	if err != nil {
		t.Fatal(err)
	}
	defer other.Close()
	got := tables(t, other.DB())
	for name := range want {
		if got[name] != want[name] {
			t.Errorf("restored, %s has %s, want %s", name, got[name], want[name])
		}
	}
	for _, desk := range []*store.Desk{other.For(f.teacher), other.For(stranger.teacher)} { // ids and batches go on
		if _, err := desk.AddClass(ctx, "A new one"); err != nil {
			t.Error(err)
		}
	}
	before, _, err := s.For(f.teacher).Pressed(ctx, "a press")
	if err != nil {
		t.Fatal(err)
	}
	if after, err := other.For(f.teacher).AddTogether(ctx, "another", f.try(true, routine.None)); err != nil || after <= before {
		t.Errorf("a batch after the restored %d is %d, %v", before, after, err)
	}

	if err := restore(url); !errors.Is(err, store.ErrInUse) {
		t.Errorf("restoring over a database in use gives %v", err)
	}
	for name, broken := range map[string][]byte{"no backup": []byte("hello"), "a cut one": backup.Bytes()[:backup.Len()/2]} {
		empty := testdb.Make(t)
		if err := store.Restore(ctx, empty, bytes.NewReader(broken), int64(len(broken))); err == nil || !strings.Contains(err.Error(), "backup") {
			t.Errorf("%s gives %v", name, err)
		}
	}
}

// While others log, the backup holds one moment: every try it has is added up in it.
func TestBackupWhileInUse(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a")
	done := make(chan error)
	stop := make(chan struct{})
	go func() {
		for {
			select {
			case <-stop:
				done <- nil
				return
			default:
				if err := f.AddAttempts(ctx, f.try(false, routine.Rhythm)); err != nil {
					done <- err
					return
				}
			}
		}
	}()
	for range 5 {
		var backup bytes.Buffer
		if err := s.Backup(ctx, &backup); err != nil {
			t.Fatal(err)
		}
		url := testdb.Make(t)
		if err := store.Restore(ctx, url, bytes.NewReader(backup.Bytes()), int64(backup.Len())); err != nil {
			t.Fatal(err)
		}
		other, err := store.Open(ctx, url)
		if err != nil {
			t.Fatal(err)
		}
		archived := tables(t, other.DB())["standings"]
		if err := other.FoldStandings(ctx); err != nil {
			t.Fatal(err)
		}
		if again := tables(t, other.DB())["standings"]; again != archived {
			t.Errorf("the standings of the backup are %s, and its log adds up to %s", archived, again)
		}
		if err := other.Close(); err != nil {
			t.Error(err)
		}
	}
	close(stop)
	if err := <-done; err != nil {
		t.Error(err)
	}
}
