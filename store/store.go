// Package store keeps teachers, books, exercises, students and the log of
// attempts in PostgreSQL. What belongs to a teacher is reached through a Desk, which
// sees that teacher's rows alone.
package store

import (
	"context"
	"crypto/sha256"
	"database/sql"
	"embed"
	"encoding/hex"
	"errors"
	"fmt"
	"io/fs"
	"strconv"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgconn"
	"github.com/jackc/pgx/v5/stdlib"
	"github.com/jmoiron/sqlx"
	"github.com/pressly/goose/v3"
	"github.com/pressly/goose/v3/lock"

	"unhurriedbench/core/routine"
)

//go:embed migrations/*.sql
var migrations embed.FS

// Store is an open database.
type Store struct {
	db      *sqlx.DB
	routine routine.Routine
	zones   *zones
}

// Errors callers tell apart.
var (
	ErrNotFound    = errors.New("not found")
	ErrTaken       = errors.New("already taken")
	ErrOnlyLooking = errors.New("the class was given to be looked at")
	ErrNewer       = errors.New("this database has been used by a newer Unhurried Bench")
)

// longestStatement bounds how long the database works at one question, so that a stuck
// one does not hold a connection for ever.
const longestStatement = 30 * time.Second

// mostConnections is how many connections a server holds to the database at most.
const mostConnections = 16

// Open connects to the database at url and brings its tables up to date. It refuses a
// database that a newer program has used.
func Open(ctx context.Context, url string) (*Store, error) { return OpenTraced(ctx, url, nil) }

// OpenTraced is Open, with a tracer that sees every statement once the tables are up to date.
func OpenTraced(ctx context.Context, url string, tracer pgx.QueryTracer) (*Store, error) {
	config, err := pgx.ParseConfig(url)
	if err != nil {
		return nil, fmt.Errorf("read the database's address: %w", err)
	}
	if err := bringUpToDate(ctx, *config); err != nil {
		return nil, err
	}
	config.Tracer = tracer
	config.RuntimeParams["statement_timeout"] = strconv.FormatInt(longestStatement.Milliseconds(), 10)
	config.RuntimeParams["idle_in_transaction_session_timeout"] = config.RuntimeParams["statement_timeout"]
	db := sqlx.NewDb(stdlib.OpenDB(*config), "pgx")
	db.SetMaxOpenConns(mostConnections)
	db.SetMaxIdleConns(mostConnections) // a new one costs more than a page
	db.SetConnMaxIdleTime(5 * time.Minute)
	if err := db.PingContext(ctx); err != nil {
		return nil, errors.Join(fmt.Errorf("connect to PostgreSQL: %w", err), db.Close())
	}
	return &Store{db, routine.Standard(), &zones{}}, nil
}

// bringUpToDate migrates on connections of its own, which may take as long as they need.
func bringUpToDate(ctx context.Context, config pgx.ConnConfig) error {
	db := stdlib.OpenDB(config)
	if err := db.PingContext(ctx); err != nil {
		return errors.Join(fmt.Errorf("connect to PostgreSQL: %w", err), db.Close())
	}
	err := migrate(ctx, db)
	if err == nil {
		err = foldStale(ctx, db)
	}
	return errors.Join(err, db.Close())
}

// inTransaction runs do, and keeps what it changed only when it succeeds.
func inTransaction(ctx context.Context, db *sqlx.DB, doing string, do func(*sqlx.Tx) error) error {
	tx, err := db.BeginTxx(ctx, nil)
	if err != nil {
		return wrap(doing, err)
	}
	if err := do(tx); err != nil {
		return errors.Join(wrap(doing, err), tx.Rollback())
	}
	return wrap(doing, tx.Commit())
}

// Alone runs do while no other program on this database runs anything Alone.
func (s *Store) Alone(ctx context.Context, do func() error) error {
	const key = 7_301_966 // any number that others do not take
	conn, err := s.db.Conn(ctx)
	if err != nil {
		return fmt.Errorf("wait for others: %w", err)
	}
	defer conn.Close()
	if _, err := conn.ExecContext(ctx, `SELECT pg_advisory_lock($1)`, key); err != nil {
		return fmt.Errorf("wait for others: %w", err)
	}
	failed := do()
	_, err = conn.ExecContext(context.WithoutCancel(ctx), `SELECT pg_advisory_unlock($1)`, key)
	return errors.Join(failed, err)
}

// Using is the same store with another routine for the chunks. What was kept by an
// earlier one stays until FoldStandings is called.
func (s *Store) Using(r routine.Routine) *Store { return &Store{s.db, r, s.zones} }

// Routine is the stages that chunks go through.
func (s *Store) Routine() routine.Routine { return s.routine }

// provider has the migrations, of which the first makes all tables of a fresh database.
func provider(db *sql.DB) (*goose.Provider, error) {
	files, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return nil, fmt.Errorf("find the migrations: %w", err)
	}
	oneAtATime, err := lock.NewPostgresSessionLocker()
	if err != nil {
		return nil, fmt.Errorf("read the migrations: %w", err)
	}
	p, err := goose.NewProvider(goose.DialectPostgres, db, files, goose.WithSessionLocker(oneAtATime))
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
	has, err := p.GetDBVersion(ctx)
	if err != nil {
		return fmt.Errorf("look how far the tables are: %w", err)
	}
	sources := p.ListSources()
	if knows := sources[len(sources)-1].Version; has > knows {
		return fmt.Errorf("%w: its tables are of version %d, and this program knows %d. Start the newer program, or restore a backup from before it", ErrNewer, has, knows)
	}
	if first := sources[0].Version; has > 0 && has < first {
		return fmt.Errorf("its tables are of version %d, and this program carries over those from %d. Start the release before this one once, then this one", has, first)
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

// onConnection runs do on one connection of a pool, as the driver has it.
func onConnection(ctx context.Context, db *sqlx.DB, do func(*pgx.Conn) error) error {
	conn, err := db.Conn(ctx)
	if err != nil {
		return err
	}
	defer conn.Close()
	return conn.Raw(func(driver any) error { return do(driver.(*stdlib.Conn).Conn()) })
}

// MigrationsHash is the same for programs whose tables are the same, in hexadecimal digits.
func MigrationsHash() (string, error) {
	h := sha256.New()
	files, err := fs.Glob(migrations, "migrations/*.sql")
	if err != nil {
		return "", fmt.Errorf("list the migrations: %w", err)
	}
	for _, file := range files {
		text, err := fs.ReadFile(migrations, file)
		if err != nil {
			return "", fmt.Errorf("read the migration %s: %w", file, err)
		}
		h.Write([]byte(file))
		h.Write(text)
	}
	return hex.EncodeToString(h.Sum(nil)[:8]), nil
}
