package store

import (
	"archive/zip"
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"slices"
	"strings"

	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/stdlib"
)

// ErrInUse is for restoring into a database that somebody works in.
var ErrInUse = errors.New("this database has teachers in it")

// backupFormat is the form of the archive: a zip of one CSV file a table, and of what
// the tables are.
const backupFormat = 1

// contents is the archive's list: contents.json.
type contents struct {
	Format    int
	Version   int64 // of the tables
	Tables    []backedUp
	Sequences map[string]int64 // how far each has counted
}

// backedUp is a table with the columns of its file.
type backedUp struct {
	Name    string
	Columns []string
	Rows    int64
}

const contentsFile = "contents.json"

func tableFile(name string) string { return "tables/" + name + ".csv" }

// leftOut are tables no backup holds: what only counts migrations, who is signed in, and
// who has guessed at passwords just now.
var leftOut = []string{"goose_db_version", "sessions", "guesses"}

// Backup writes every row as it is at one moment to an archive, while others work. Who
// is signed in is left out.
func (s *Store) Backup(ctx context.Context, w io.Writer) error {
	p, err := provider(s.db.DB)
	if err != nil {
		return err
	}
	list := contents{Format: backupFormat}
	if list.Version, err = p.GetDBVersion(ctx); err != nil {
		return fmt.Errorf("look how far the tables are: %w", err)
	}
	archive := zip.NewWriter(w)
	err = onConnection(ctx, s.db, func(conn *pgx.Conn) error {
		tx, err := conn.BeginTx(ctx, pgx.TxOptions{IsoLevel: pgx.RepeatableRead, AccessMode: pgx.ReadOnly})
		if err != nil {
			return err
		}
		defer func() { _ = tx.Rollback(ctx) }() // it has changed nothing
		if _, err := tx.Exec(ctx, `SET LOCAL statement_timeout = 0`); err != nil {
			return err
		}
		if list.Tables, err = tablesInOrder(ctx, tx); err != nil {
			return err
		}
		if list.Sequences, err = sequences(ctx, tx); err != nil {
			return err
		}
		for k, table := range list.Tables {
			out, err := archive.Create(tableFile(table.Name))
			if err != nil {
				return err
			}
			tag, err := conn.PgConn().CopyTo(ctx, out, "COPY (SELECT "+table.columns()+" FROM "+quoted(table.Name)+
				" ORDER BY 1, 2) TO STDOUT (FORMAT csv, HEADER)")
			if err != nil {
				return fmt.Errorf("copy the table %s: %w", table.Name, err)
			}
			list.Tables[k].Rows = tag.RowsAffected()
		}
		return nil
	})
	if err == nil {
		err = writeContents(archive, list)
	}
	if err := errors.Join(err, archive.Close()); err != nil {
		return fmt.Errorf("write the backup: %w", err)
	}
	return nil
}

func writeContents(archive *zip.Writer, list contents) error {
	out, err := archive.Create(contentsFile)
	if err != nil {
		return err
	}
	write := json.NewEncoder(out)
	write.SetIndent("", "  ")
	return write.Encode(list)
}

// Restore fills the empty database at url from an archive, all or nothing, and brings its
// tables up to date. The error is ErrInUse where there are teachers already, ErrNewer
// where the archive is of a newer program.
func Restore(ctx context.Context, url string, r io.ReaderAt, size int64) error {
	archive, err := zip.NewReader(r, size)
	if err != nil {
		return errors.New("this file is no backup, or a broken one")
	}
	list, err := readContents(archive)
	if err != nil {
		return err
	}
	config, err := pgx.ParseConfig(url)
	if err != nil {
		return fmt.Errorf("read the database's address: %w", err)
	}
	db := stdlib.OpenDB(*config)
	defer db.Close()
	if err := migrateForBackup(ctx, db, list.Version); err != nil {
		return err
	}
	conn, err := pgx.ConnectConfig(ctx, config)
	if err != nil {
		return fmt.Errorf("connect to PostgreSQL: %w", err)
	}
	defer conn.Close(ctx)
	err = pgx.BeginFunc(ctx, conn, func(tx pgx.Tx) error {
		for _, table := range list.Tables {
			if err := restoreTable(ctx, conn, archive, table); err != nil {
				return err
			}
		}
		for name, last := range list.Sequences {
			if _, err := tx.Exec(ctx, `SELECT setval($1::regclass, $2)`, quoted(name), last); err != nil {
				return err
			}
		}
		return nil
	})
	if err != nil {
		return fmt.Errorf("restore the backup: %w", err)
	}
	return migrate(ctx, db)
}

func readContents(archive *zip.Reader) (contents, error) {
	var list contents
	in, err := archive.Open(contentsFile)
	if err != nil {
		return list, errors.New("this file is no backup: it has no list of contents")
	}
	defer in.Close()
	if err := json.NewDecoder(in).Decode(&list); err != nil || list.Format != backupFormat {
		return list, errors.New("this backup's list of contents cannot be read")
	}
	return list, nil
}

// migrateForBackup gives an empty database the tables that a backup was made of.
func migrateForBackup(ctx context.Context, db *sql.DB, version int64) error {
	p, err := provider(db)
	if err != nil {
		return err
	}
	sources := p.ListSources()
	if knows := sources[len(sources)-1].Version; version > knows {
		return fmt.Errorf("%w: the backup's tables are of version %d, and this program knows %d. Restore it with the newer program", ErrNewer, version, knows)
	}
	var made, some bool
	err = db.QueryRowContext(ctx, `SELECT to_regclass('teachers') IS NOT NULL`).Scan(&made)
	if err == nil && made {
		err = db.QueryRowContext(ctx, `SELECT EXISTS (SELECT 1 FROM teachers)`).Scan(&some)
	}
	switch {
	case err != nil:
		return fmt.Errorf("look for teachers: %w", err)
	case some:
		return fmt.Errorf("%w. Restore into an empty database, so that nothing is written over", ErrInUse)
	case made:
		_, err = p.DownTo(ctx, version)
	}
	if err == nil {
		_, err = p.UpTo(ctx, version)
	}
	if err != nil {
		return fmt.Errorf("make the tables: %w", err)
	}
	return nil
}

func restoreTable(ctx context.Context, conn *pgx.Conn, archive *zip.Reader, table backedUp) error {
	in, err := archive.Open(tableFile(table.Name))
	if err != nil {
		return fmt.Errorf("the backup lacks the table %s", table.Name)
	}
	defer in.Close()
	tag, err := conn.PgConn().CopyFrom(ctx, in, "COPY "+quoted(table.Name)+" ("+table.columns()+
		") FROM STDIN (FORMAT csv, HEADER)")
	if err != nil {
		return fmt.Errorf("the table %s: %w", table.Name, err)
	}
	if tag.RowsAffected() != table.Rows {
		return fmt.Errorf("the table %s has %d rows in the backup, and %d were read", table.Name, table.Rows,
			tag.RowsAffected())
	}
	return nil
}

func quoted(name string) string { return pgx.Identifier{name}.Sanitize() }

func (t backedUp) columns() string {
	names := make([]string, len(t.Columns))
	for k, name := range t.Columns {
		names[k] = quoted(name)
	}
	return strings.Join(names, ", ")
}

// tablesInOrder lists the tables with their columns, those that others refer to first.
func tablesInOrder(ctx context.Context, tx pgx.Tx) ([]backedUp, error) {
	rows, err := tx.Query(ctx, `
		SELECT c.relname, array_agg(a.attname::text ORDER BY a.attnum),
			coalesce((SELECT array_agg(DISTINCT p.relname::text) FROM pg_constraint f JOIN pg_class p ON p.oid = f.confrelid
				WHERE f.conrelid = c.oid AND f.contype = 'f' AND f.confrelid <> c.oid), '{}')
		FROM pg_class c JOIN pg_attribute a ON a.attrelid = c.oid AND a.attnum > 0 AND NOT a.attisdropped
			AND a.attgenerated = ''
		WHERE c.relnamespace = 'public'::regnamespace AND c.relkind = 'r' AND c.relname <> ALL ($1)
		GROUP BY c.oid, c.relname ORDER BY c.relname`, leftOut)
	if err != nil {
		return nil, fmt.Errorf("list the tables: %w", err)
	}
	type found struct {
		backedUp
		after []string
	}
	waiting, err := pgx.CollectRows(rows, func(row pgx.CollectableRow) (f found, err error) {
		return f, row.Scan(&f.Name, &f.Columns, &f.after)
	})
	if err != nil {
		return nil, fmt.Errorf("list the tables: %w", err)
	}
	var ordered []backedUp
	done := map[string]bool{}
	for len(waiting) > 0 {
		k := slices.IndexFunc(waiting, func(f found) bool {
			return !slices.ContainsFunc(f.after, func(name string) bool { return !done[name] })
		})
		if k < 0 {
			return nil, fmt.Errorf("the tables refer to each other in a ring, from %s", waiting[0].Name)
		}
		ordered, done[waiting[k].Name] = append(ordered, waiting[k].backedUp), true
		waiting = slices.Delete(waiting, k, k+1)
	}
	return ordered, nil
}

// sequences says how far each sequence that was used has counted.
func sequences(ctx context.Context, tx pgx.Tx) (map[string]int64, error) {
	rows, err := tx.Query(ctx, `SELECT sequencename::text, last_value FROM pg_sequences
		WHERE schemaname = 'public' AND last_value IS NOT NULL AND sequencename NOT LIKE 'goose%'`)
	if err != nil {
		return nil, fmt.Errorf("list the sequences: %w", err)
	}
	counted := map[string]int64{}
	var name string
	var last int64
	_, err = pgx.ForEachRow(rows, []any{&name, &last}, func() error { counted[name] = last; return nil })
	return counted, err
}
