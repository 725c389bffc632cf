package store_test

import (
	"context"
	"database/sql"
	"fmt"
	"testing"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testdb"
	"unhurriedbench/store"
)

// before is a database as it was when stages were numbers, sources stood in their
// exercises and settings were one text.
const before = `
INSERT INTO teachers (email, name, school, password_hash, settings) VALUES ('a@school.example', 'Wren', 'Hall', 'x', '{
	"school": "takadimi", "slowBeat": true, "british": false, "cues": ["", "and"], "words": {"10": "oak"}, "naming": "",
	"preferred": {"trombone": {"58": "5", "60": ""}, "oboe": {"65": "1 2 3 | 4 6"}},
	"fingers": {"hands": true, "two": "near", "colours": {"D": "#ffee00"}, "fourValves": {"tuba-bb": true, "tuba-eb": false},
		"sticking": {"snare": "lead"}, "kinds": {"oboe": "left-f", "violin": ""}}}'),
	('b@school.example', 'Tomo', 'Hall', 'x', '{}');
INSERT INTO books (teacher_id, title) VALUES (1, 'Book');
INSERT INTO exercises (teacher_id, book_id, number, title, format, source) VALUES
	(1, 1, 1, 'One', 'abc', 'K:C' || chr(10) || 'C8|]'), (1, 1, 2, 'Two', 'abc', 'K:C' || chr(10) || 'C8|]'), (1, 1, 3, 'Three', 'abc', 'K:G' || chr(10) || 'G8|]');
INSERT INTO overrides (teacher_id, exercise_id, instrument, format, source, part) VALUES
	(1, 1, 'oboe', 'abc', 'K:F' || chr(10) || 'F8|]', 1), (1, 2, 'oboe', 'abc', 'K:C' || chr(10) || 'C8|]', 0);
INSERT INTO sections (teacher_id, name) VALUES (1, 'Tuesday');
INSERT INTO students (teacher_id, section_id, first_name, initial, instrument) VALUES (1, 1, 'Ines', 'P', 'trombone');
INSERT INTO attempts (teacher_id, student_id, exercise_id, first_measure, last_measure, stage, clean, cause, tempo, undoes) VALUES
	(1, 1, 1, 1, 2, 0, true, '', 60, NULL), (1, 1, 1, 1, 2, 0, true, '', 60, NULL), (1, 1, 1, 1, 2, 1, false, 'name', 60, NULL),
	(1, 1, 1, 3, 4, 3, true, '', 66, NULL), (1, 1, 1, 3, 4, 3, true, '', 66, NULL), (1, 1, 1, 3, 4, 3, true, '', 66, 5),
	(1, 1, 2, 1, 1, 2, false, 'sound', 60, NULL);
INSERT INTO standings (teacher_id, student_id, exercise_id, first_measure, last_measure, stage, clean, tries, last_attempt)
	VALUES (1, 1, 1, 1, 2, 1, 0, 3, 3), (1, 1, 1, 3, 4, 3, 1, 1, 4), (1, 1, 2, 1, 1, 2, 0, 1, 7);`

// An older database is carried over: logs, sources, settings; and back again.
func TestAnOlderDatabaseIsCarriedOver(t *testing.T) {
	t.Parallel()
	ctx, url := context.Background(), testdb.Make(t)
	db, err := sql.Open("pgx", url)
	if err != nil {
		t.Fatal(err)
	}
	defer db.Close()
	const oldest = 5
	if err := store.MigrateTo(ctx, db, oldest); err != nil {
		t.Fatal(err)
	}
	if _, err := db.ExecContext(ctx, before); err != nil {
		t.Fatal(err)
	}
	s, err := store.Open(ctx, url)
	if err != nil {
		t.Fatal(err)
	}
	d := s.For(1)
	equal := func(what string, got any, err error, want string) {
		t.Helper()
		if err != nil || fmt.Sprint(got) != want {
			t.Errorf("%s: %v, %v, want %s", what, got, err, want)
		}
	}
	settings, err := d.Settings(ctx)
	equal("settings", settings, err, `map[colour-D:#ffee00 cue-2:and hands:yes school:takadimi slow-beat:yes two:near words:{"10": "oak"}]`)
	kinds, err := d.Kinds(ctx)
	equal("kinds", kinds, err, "map[oboe:left-f snare:lead tuba-bb:4]")
	trombone, err := d.Preferred(ctx, "trombone")
	equal("the trombone's notes", trombone, err, "map[58:5]")
	others, err := s.For(2).Settings(ctx)
	equal("another's settings", others, err, "map[]")

	list, err := d.Exercises(ctx)
	if err != nil || len(list) != 3 || list[0].Hash != list[1].Hash || list[0].Hash == list[2].Hash || list[0].Read {
		t.Errorf("the exercises are %+v, %v", list, err)
	}
	source, err := d.Source(ctx, store.Source{Format: "abc", Content: "K:F\nF8|]"}.Hash())
	equal("an own part's source", source, err, "{abc K:F\nF8|]}")
	own, err := d.Overrides(ctx, 2)
	equal("an own part of the same content", own, err, fmt.Sprintf("[{oboe %s 0}]", list[0].Hash))

	log, err := d.StudentAttempts(ctx, 1)
	var stages []string
	for _, a := range log {
		stages = append(stages, string(a.Stage))
	}
	equal("the log", stages, err, "[finger play play name count count]")
	standings, err := d.SectionStandings(ctx, 1)
	if err != nil {
		t.Fatal(err)
	}
	at := standings[store.Task{Student: 1, Exercise: 1}]
	first := at.State(d.Routine(), breakdown.PieceKey{First: 1, Last: 2})
	if first.Stage != routine.Name || first.Stumble != 1 || first.Cause != routine.WrongName || first.Advice != "One stumble: again, the same way." ||
		first.Stumbles != 1 || first.Over.Main() != routine.WrongName || at.Times[breakdown.PieceKey{First: 1, Last: 2}].Tempo != 60 {
		t.Errorf("the first piece stands at %+v", first)
	}
	if second := at.State(d.Routine(), breakdown.PieceKey{First: 3, Last: 4}); second.Stage != routine.Play || second.Clean != 1 || second.Tries != 1 {
		t.Errorf("the second piece stands at %+v", second)
	}
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}

	if err := store.MigrateTo(ctx, db, oldest); err != nil {
		t.Fatal(err)
	}
	var text string
	if err := db.QueryRowContext(ctx, `SELECT string_agg(a.stage::text, ' ' ORDER BY a.id) || ' ' || (SELECT source FROM exercises WHERE id = 3) FROM attempts a`).
		Scan(&text); err != nil || text != "0 0 1 3 3 3 2 K:G\nG8|]" {
		t.Errorf("back again the log and a source are %q, %v", text, err)
	}
}
