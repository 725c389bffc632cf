// Package testdb gives tests a PostgreSQL database of their own.
package testdb

import (
	"context"
	"crypto/rand"
	"database/sql"
	"net/url"
	"os"
	"strings"
	"testing"

	_ "github.com/jackc/pgx/v5/stdlib" // the database/sql driver "pgx"

	"unhurriedbench/store"
)

// Open makes an empty, migrated database that is dropped when the test ends.
func Open(t testing.TB) *store.Store {
	t.Helper()
	s, err := store.Open(context.Background(), Make(t))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() {
		if err := s.Close(); err != nil {
			t.Error(err)
		}
	})
	return s
}

// Make makes an empty database and returns its address.
func Make(t testing.TB) string {
	t.Helper()
	server := os.Getenv("UNHURRIED_TEST_DATABASE")
	if server == "" {
		t.Fatal("this test needs PostgreSQL: run bin/test, which starts one")
	}
	admin, err := sql.Open("pgx", server)
	if err != nil {
		t.Fatal(err)
	}
	name := "test_" + strings.ToLower(rand.Text())
	if _, err := admin.Exec("CREATE DATABASE " + name); err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() {
		if _, err := admin.Exec("DROP DATABASE " + name + " WITH (FORCE)"); err != nil {
			t.Error(err)
		}
		if err := admin.Close(); err != nil {
			t.Error(err)
		}
	})
	address, err := url.Parse(server)
	if err != nil {
		t.Fatal(err)
	}
	address.Path = "/" + name
	return address.String()
}
