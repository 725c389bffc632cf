// Package testdb gives tests a PostgreSQL database of their own.
package testdb

import (
	"context"
	"crypto/rand"
	"database/sql"
	"errors"
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
	return open(t, Make(t))
}

func open(t testing.TB, address string) *store.Store {
	t.Helper()
	s, err := store.Open(context.Background(), address)
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
	return makeFrom(t, "template1")
}

// makeFrom makes a database that is dropped when the test ends, as a copy of a template.
func makeFrom(t testing.TB, template string) string {
	t.Helper()
	admin, err := administer()
	if err != nil {
		t.Fatal(err)
	}
	name := "test_" + strings.ToLower(rand.Text())
	if _, err := admin.Exec("CREATE DATABASE " + name + " TEMPLATE " + template); err != nil {
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
	address, err := addressOf(name)
	if err != nil {
		t.Fatal(err)
	}
	return address
}

// administer connects to the server of the tests.
func administer() (*sql.DB, error) {
	server := os.Getenv("UNHURRIED_TEST_DATABASE")
	if server == "" {
		return nil, errors.New("this test needs PostgreSQL: run bin/test, which starts one")
	}
	return sql.Open("pgx", server)
}

func addressOf(name string) (string, error) {
	address, err := url.Parse(os.Getenv("UNHURRIED_TEST_DATABASE"))
	if err != nil {
		return "", err
	}
	address.Path = "/" + name
	return address.String(), nil
}

// Template is a database that others are copied from.
type Template struct{ name string }

// NewTemplate makes a template: an empty, migrated database into which something is loaded.
func NewTemplate(load func(*store.Store) error) (Template, error) {
	admin, err := administer()
	if err != nil {
		return Template{}, err
	}
	defer admin.Close()
	t := Template{"template_" + strings.ToLower(rand.Text())}
	if _, err := admin.Exec("CREATE DATABASE " + t.name); err != nil {
		return t, err
	}
	address, err := addressOf(t.name)
	if err != nil {
		return t, err
	}
	s, err := store.Open(context.Background(), address)
	if err != nil {
		return t, err
	}
	return t, errors.Join(load(s), s.Close())
}

// Open makes a copy of the template that is dropped when the test ends.
func (tpl Template) Open(t testing.TB) *store.Store {
	t.Helper()
	return open(t, makeFrom(t, tpl.name))
}

// Drop takes the template away.
func (tpl Template) Drop() error {
	admin, err := administer()
	if err != nil {
		return err
	}
	defer admin.Close()
	_, err = admin.Exec("DROP DATABASE IF EXISTS " + tpl.name + " WITH (FORCE)")
	return err
}
