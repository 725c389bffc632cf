// Package testdb gives tests a PostgreSQL database of their own.
package testdb

import (
	"context"
	"crypto/rand"
	"database/sql"
	"errors"
	"fmt"
	"net/url"
	"os"
	"strings"
	"sync"
	"testing"

	"github.com/jackc/pgx/v5"
	_ "github.com/jackc/pgx/v5/stdlib" // the database/sql driver "pgx"

	"unhurriedbench/store"
)

// Open makes an empty, migrated database that is dropped when the test ends.
func Open(t testing.TB) *store.Store {
	t.Helper()
	template, err := migrated()
	if err != nil {
		t.Fatal(err)
	}
	return open(t, makeFrom(t, template))
}

func open(t testing.TB, address string) *store.Store { return openTraced(t, address, nil) }

func openTraced(t testing.TB, address string, tracer pgx.QueryTracer) *store.Store {
	t.Helper()
	s, err := store.OpenTraced(context.Background(), address, tracer)
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

// Make makes an empty database, without tables, and returns its address.
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
	if _, err := admin.Exec("CREATE DATABASE " + name + " TEMPLATE " + template + " STRATEGY FILE_COPY"); err != nil {
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

// migrated is the name of the template with all tables and no rows. The first test that
// needs it makes it; packages that are tested at the same time share it, and so does a
// later run with the same migrations.
var migrated = sync.OnceValues(func() (string, error) {
	hash, err := store.MigrationsHash()
	if err != nil {
		return "", err
	}
	return shared("migrated_"+hash, func(*store.Store) error { return nil })
})

// shared finds or makes a template of a name, while no other program makes one.
func shared(name string, load func(*store.Store) error) (string, error) {
	admin, err := administer()
	if err != nil {
		return "", err
	}
	defer admin.Close()
	ctx := context.Background()
	conn, err := admin.Conn(ctx)
	if err != nil {
		return "", fmt.Errorf("reach the tests' PostgreSQL: %w", err)
	}
	defer conn.Close() // gives the lock back
	if _, err := conn.ExecContext(ctx, `SELECT pg_advisory_lock(4801)`); err != nil {
		return "", fmt.Errorf("wait for another test's template: %w", err)
	}
	var made bool
	if err := conn.QueryRowContext(ctx, `SELECT EXISTS (SELECT FROM pg_database WHERE datname = $1)`, name).Scan(&made); err != nil || made {
		return name, err
	}
	building := name + "_unfinished" // one that was left half made is never taken for whole
	if _, err := conn.ExecContext(ctx, "DROP DATABASE IF EXISTS "+building+" WITH (FORCE)"); err != nil {
		return "", err
	}
	if err := build(conn, building, load); err != nil {
		return "", err
	}
	_, err = conn.ExecContext(ctx, "ALTER DATABASE "+building+" RENAME TO "+name)
	return name, err
}

// build makes a migrated database and loads something into it.
func build(admin *sql.Conn, name string, load func(*store.Store) error) error {
	if _, err := admin.ExecContext(context.Background(), "CREATE DATABASE "+name); err != nil {
		return err
	}
	address, err := addressOf(name)
	if err != nil {
		return err
	}
	s, err := store.Open(context.Background(), address)
	if err != nil {
		return err
	}
	return errors.Join(load(s), s.Close())
}

// Template is a database that others are copied from.
type Template struct{ name string }

// NewTemplate makes a template: an empty, migrated database into which something is loaded.
func NewTemplate(load func(*store.Store) error) (Template, error) {
	name, err := shared("template_"+strings.ToLower(rand.Text()), load)
	return Template{name}, err
}

// Open makes a copy of the template that is dropped when the test ends.
func (tpl Template) Open(t testing.TB) *store.Store {
	t.Helper()
	return open(t, makeFrom(t, tpl.name))
}

// OpenTraced is Open with a tracer that sees every statement.
func (tpl Template) OpenTraced(t testing.TB, tracer pgx.QueryTracer) *store.Store {
	t.Helper()
	return openTraced(t, makeFrom(t, tpl.name), tracer)
}

// Delete takes the template away.
func (tpl Template) Delete() error {
	admin, err := administer()
	if err != nil {
		return err
	}
	defer admin.Close()
	_, err = admin.Exec("DROP DATABASE IF EXISTS " + tpl.name + " WITH (FORCE)")
	return err
}
