// Package store keeps teachers, books, exercises, students and the log of
// attempts in PostgreSQL. What belongs to a teacher is reached through a Desk, which
// sees that teacher's rows alone.
package store

import (
	"context"
	"database/sql"
	"embed"
	"errors"
	"fmt"
	"io/fs"

	"github.com/jackc/pgx/v5/pgconn"
	_ "github.com/jackc/pgx/v5/stdlib" // the database/sql driver "pgx"
	"github.com/jmoiron/sqlx"
	"github.com/pressly/goose/v3"

	"unhurriedbench/core/routine"
)

//go:embed migrations/*.sql
var migrations embed.FS

// Store is an open database.
type Store struct {
	db      *sqlx.DB
	routine routine.Routine
}

// Errors callers tell apart.
var (
	ErrNotFound = errors.New("not found")
	ErrTaken    = errors.New("already taken")
)

// Open connects to the database at url and brings its tables up to date.
func Open(ctx context.Context, url string) (*Store, error) {
	db, err := sqlx.ConnectContext(ctx, "pgx", url)
	if err != nil {
		return nil, fmt.Errorf("connect to PostgreSQL: %w", err)
	}
	if err := migrate(ctx, db.DB); err != nil {
		return nil, errors.Join(err, db.Close())
	}
	db.SetMaxOpenConns(16)
	db.SetMaxIdleConns(8)
	return &Store{db, routine.Standard()}, nil
}

// Using is the same store with another routine for the pieces. What was kept by an
// earlier one stays until AddUpStandings is called.
func (s *Store) Using(r routine.Routine) *Store { return &Store{s.db, r} }

// Routine is the stages that pieces go through.
func (s *Store) Routine() routine.Routine { return s.routine }

// provider has the migrations, those of files and the one that adds up logs.
func provider(db *sql.DB) (*goose.Provider, error) {
	files, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return nil, fmt.Errorf("find the migrations: %w", err)
	}
	addUp := goose.NewGoMigration(addUpVersion, &goose.GoFunc{RunTx: addUpAgain}, &goose.GoFunc{RunTx: forgetStandings})
	p, err := goose.NewProvider(goose.DialectPostgres, db, files, goose.WithGoMigrations(addUp))
	if err != nil {
		return nil, fmt.Errorf("read the migrations: %w", err)
	}
	return p, nil
}

func migrate(ctx context.Context, db *sql.DB) error {
	p, err := provider(db)
	if err != nil {
		return err
	}
	if _, err := p.Up(ctx); err != nil {
		return fmt.Errorf("bring the tables up to date: %w", err)
	}
	return nil
}

// Close closes the connections.
func (s *Store) Close() error { return s.db.Close() }

// DB is the pool under the store, for the session store.
func (s *Store) DB() *sql.DB { return s.db.DB }

// one runs a query for a single row; a missing row is ErrNotFound.
func (s *Store) one(ctx context.Context, into any, doing, query string, args ...any) error {
	return wrap(doing, s.db.GetContext(ctx, into, query, args...))
}

const (
	uniqueViolation     = "23505"
	foreignKeyViolation = "23503"
)

// wrap says what was being done, and turns a missing row or parent into
// ErrNotFound and a second row of the same name into ErrTaken.
func wrap(doing string, err error) error {
	var pg *pgconn.PgError
	switch {
	case err == nil:
		return nil
	case errors.Is(err, sql.ErrNoRows):
		return fmt.Errorf("%s: %w", doing, ErrNotFound)
	case errors.As(err, &pg) && pg.Code == uniqueViolation:
		return fmt.Errorf("%s: %w", doing, ErrTaken)
	case errors.As(err, &pg) && pg.Code == foreignKeyViolation:
		return fmt.Errorf("%s: %w", doing, ErrNotFound)
	}
	return fmt.Errorf("%s: %w", doing, err)
}
