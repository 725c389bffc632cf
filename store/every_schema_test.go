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

// rowsOf are what a teacher had kept by a version of the tables, for each range of versions
// that keep it so.
var rowsOf = []struct {
	first, last int64 // 0 is the newest
	sql         string
}{
	{1, 0, `INSERT INTO teachers (email, name, school, password_hash) VALUES ('a@school.example', 'Wren', 'Hall', 'x')`},
	{1, 0, `INSERT INTO books (teacher_id, title) VALUES (1, 'Book')`},
	{1, 5, `INSERT INTO exercises (teacher_id, book_id, number, title, format, source) VALUES (1, 1, 1, 'One', 'abc', 'K:C')`},
	{6, 0, `INSERT INTO sources (teacher_id, hash, format, content) SELECT 1, encode(sha256(convert_to('abc' || E'\n' || c, 'UTF8')), 'hex'), 'abc', c FROM unnest(ARRAY['K:C', 'K:F']) c`},
	{6, 0, `INSERT INTO exercises (teacher_id, book_id, number, title, hash) SELECT 1, 1, 1, 'One', hash FROM sources WHERE content = 'K:C'`},
	{2, 5, `INSERT INTO overrides (teacher_id, exercise_id, instrument, format, source) VALUES (1, 1, 'oboe', 'abc', 'K:F')`},
	{6, 0, `INSERT INTO overrides (teacher_id, exercise_id, instrument, hash) SELECT 1, 1, 'oboe', hash FROM sources WHERE content = 'K:F'`},
	{1, 0, `INSERT INTO sections (teacher_id, name) VALUES (1, 'Tuesday')`},
	{1, 0, `INSERT INTO students (teacher_id, section_id, first_name, initial, instrument) VALUES (1, 1, 'Ines', 'P', 'trombone')`},
	{1, 6, `INSERT INTO attempts (teacher_id, student_id, exercise_id, first_measure, last_measure, stage, clean, cause, tempo, undoes) VALUES
		(1, 1, 1, 1, 2, 0, true, '', 60, NULL), (1, 1, 1, 1, 2, 0, true, '', 60, NULL), (1, 1, 1, 1, 2, 1, false, 'name', 60, NULL), (1, 1, 1, 1, 2, 1, false, 'name', 60, 3)`},
	{7, 0, `INSERT INTO attempts (teacher_id, student_id, exercise_id, first_measure, last_measure, stage, clean, cause, tempo, undoes) VALUES
		(1, 1, 1, 1, 2, 'count', true, '', 60, NULL), (1, 1, 1, 1, 2, 'count', true, '', 60, NULL), (1, 1, 1, 1, 2, 'name', false, 'name', 60, NULL), (1, 1, 1, 1, 2, 'name', false, 'name', 60, 3)`},
	{2, 7, `UPDATE teachers SET settings = '{"school": "takadimi"}'`},
	{8, 0, `INSERT INTO settings (teacher_id, key, value) VALUES (1, 'school', 'takadimi')`},
	{3, 0, `INSERT INTO placements (teacher_id, exercise_id, instrument, octaves) VALUES (1, 1, 'trombone', -1)`},
	{31, 0, `INSERT INTO placements (teacher_id, exercise_id, instrument, folded) VALUES (1, 1, 'oboe', true)`},
	{4, 0, `UPDATE sections SET year = 2`},
	{5, 0, `INSERT INTO fingerings (teacher_id, exercise_id, instrument, measure, event, pitch, fingering) VALUES (1, 1, 'oboe', 0, 1, 65, '1 2 3 |')`},
	{13, 0, `INSERT INTO attempts (teacher_id, student_id, exercise_id, first_measure, last_measure, stage, clean, cause, tempo, press) VALUES (1, 1, 1, 3, 4, 'count', true, '', 60, 'p')`},
	{15, 0, `INSERT INTO invitations (hash, teacher_id, until) VALUES ('x', 1, now() + interval '1 day')`},
	{16, 0, `INSERT INTO teachers (email, name, school, password_hash) VALUES ('b@school.example', 'Tomo', '', 'x')`},
	{16, 0, `INSERT INTO shares (teacher_id, section_id, colleague_id, teach) VALUES (1, 1, 2, true)`},
	{17, 0, `INSERT INTO students (teacher_id, section_id, first_name, initial, instrument, left_at) VALUES (1, 1, 'Wim', 'L', 'flute', now())`},
	{20, 0, `INSERT INTO pencils (teacher_id, exercise_id, instrument, measure, event, pitch, kind, word) VALUES (1, 1, 'oboe', 0, 1, 65, 'word', 'soft')`},
	{20, 0, `INSERT INTO cuts (teacher_id, exercise_id, pieces, whys) VALUES (1, 1, '1-1 1-2', 'by hand')`},
	{22, 0, `INSERT INTO second_lines (teacher_id, exercise_id, entry) VALUES (1, 1, 2)`},
	{22, 0, `UPDATE students SET line = 'B'`},
	{23, 0, `INSERT INTO routines (teacher_id, title, steps) VALUES (1, 'Ours', '[{"stage": "count", "word": "Clap"}, {"stage": "name", "word": "Name"}]')`},
	{23, 0, `INSERT INTO instrument_routines (teacher_id, instrument, routine) VALUES (1, 'flute', 'own-1')`},
	{23, 0, `UPDATE sections SET routine = 'own-1'`},
	{23, 0, `UPDATE students SET clean_to_go_on = 2`},
	{25, 0, `INSERT INTO lessons (teacher_id, section_id, plan, absent) VALUES (1, 1, '{"minutes": 30, "steps": []}', '{1}')`},
	{26, 0, `UPDATE students SET note = 'By the window'`},
	{27, 0, `INSERT INTO students (teacher_id, section_id, first_name, initial, instrument, also_of, seat_row, seat_place) VALUES (1, 1, 'Ines', 'P', 'cello', 1, 1, 2)`},
	{28, 0, `INSERT INTO checkins (teacher_id, student_id, on_day, due) VALUES (1, 1, '2026-12-01', '[]')`},
	{29, 0, `INSERT INTO homeplans (teacher_id, student_id, from_day, until_day, weekdays, minutes, plan) VALUES (1, 1, '2026-12-01', '2026-12-08', '{1,4}', 15, '{}')`},
	{30, 0, `INSERT INTO own_pages (teacher_id, student_id, key) VALUES (1, 1, 'abcdefghijklmnopqrstuvwxyz')`},
	{30, 0, `INSERT INTO home_tries (teacher_id, student_id, exercise_id, first_measure, last_measure, stage, clean, at, press) VALUES (1, 1, 1, 1, 2, 'play', true, now(), 'x')`},
	{30, 0, `INSERT INTO home_ticks (teacher_id, student_id, on_day, line) VALUES (1, 1, '2026-12-01', 'warm')`},
	{30, 0, `INSERT INTO card_answers (teacher_id, student_id, instrument, card, grade, at, press) VALUES (1, 1, 'flute', 'name:G2:B4', 3, now(), 'x')`},
	{18, 0, `INSERT INTO house (longest_days, idle_days, idle_minutes, retain_months) VALUES (30, 7, 15, 12)`},
}

// A database of every version there has been, with what was kept in it, is carried over.
func TestEveryReleasedSchema(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("a long one, for bin/test --all")
	}
	ctx := context.Background()
	for _, version := range store.Versions(t) {
		t.Run(fmt.Sprint(version), func(t *testing.T) {
			url := testdb.Make(t)
			db, err := sql.Open("pgx", url)
			if err != nil {
				t.Fatal(err)
			}
			defer db.Close()
			if err := store.MigrateTo(ctx, db, version); err != nil {
				t.Fatal(err)
			}
			for _, rows := range rowsOf {
				if version < rows.first || rows.last != 0 && version > rows.last {
					continue
				}
				if _, err := db.ExecContext(ctx, rows.sql); err != nil {
					t.Fatalf("%s: %v", rows.sql, err)
				}
			}
			s, err := store.Open(ctx, url)
			if err != nil {
				t.Fatal(err)
			}
			defer s.Close()
			if version >= 24 { // before, a later migration adds up the log
				if err := s.AddUpStandings(ctx); err != nil {
					t.Fatal(err)
				}
			}
			d := s.For(1)
			equal := func(since int64, what string, got any, err error, want string) {
				t.Helper()
				if version >= since && (err != nil || fmt.Sprint(got) != want) {
					t.Errorf("%s: %v, %v, want %s", what, got, err, want)
				}
			}
			exercises, err := d.Exercises(ctx)
			if err != nil || len(exercises) != 1 {
				t.Fatalf("the exercises are %v, %v", exercises, err)
			}
			source, err := d.Source(ctx, exercises[0].Hash)
			equal(1, "the source", source.Content, err, "K:C")
			own, err := d.Overrides(ctx, 1)
			equal(2, "own parts", len(own), err, "1")
			log, err := d.StudentAttempts(ctx, 1)
			first := log[len(log)-3:]
			equal(1, "the log", fmt.Sprint(first[0].Stage, " ", first[0].Undone, " ", first[1].Stage, " ", first[2].Stage), err, "name true count count")
			standings, err := d.StudentStandings(ctx, 1)
			at := standings[store.Task{Student: 1, Exercise: 1}].State(d.Routine(), breakdown.PieceKey{First: 1, Last: 2})
			equal(1, "where the student stands", at.Stage, err, string(routine.Name))
			settings, err := d.Settings(ctx)
			equal(2, "the settings", settings, err, "map[school:takadimi]")
			placed, err := d.Placement(ctx, 1, "trombone")
			equal(3, "the octave", placed.Octaves, err, "-1")
			sections, err := d.Sections(ctx)
			if err != nil || len(sections) != 1 {
				t.Fatalf("the sections are %v, %v", sections, err)
			}
			equal(4, "the year", sections[0].Year, err, "2")
			fingerings, err := d.Fingerings(ctx, 1, "oboe")
			equal(5, "the fingerings", len(fingerings), err, "1")
			_, known, err := d.Pressed(ctx, "p")
			equal(13, "a press", known, err, "true")
			given, err := s.Given(ctx, 2)
			equal(16, "the section given", len(given), err, "1")
			left, err := d.StudentsWhoLeft(ctx)
			equal(17, "who has left", len(left), err, "1")
			pencils, err := d.Pencils(ctx, 1, "oboe")
			equal(20, "the marks", len(pencils), err, "1")
			cuts, err := d.Cuts(ctx, 1)
			equal(20, "the pieces", len(cuts), err, "2")
			lines, err := d.SecondLine(ctx, 1)
			equal(22, "the lines", lines, err, "{1 0 2}")
			rules, err := d.Rules(ctx)
			equal(23, "the section's routine", rules.For(1, 1)[0].Word, err, "Clap")
			equal(23, "the student's rule", rules.Rule(1), err, "{2 false}")
			student, err := d.StudentByID(ctx, 1)
			equal(26, "the note", student.Note, err, "By the window")
			lessons, err := d.Lessons(ctx, 1, 9)
			equal(25, "the lessons", len(lessons), err, "1")
			other, err := d.OtherInstrument(ctx, student)
			equal(27, "the second instrument", fmt.Sprint(other.Instrument, other.Aside, other.Row, other.Place), err, "cellotrue 1 2")
			checkins, err := d.StudentCheckins(ctx, 1, 9)
			equal(28, "the check-ins", len(checkins), err, "1")
			plan, err := d.HomePlan(ctx, 1)
			equal(29, "the plan for home", fmt.Sprint(plan.Weekdays, plan.Minutes), err, "[1 4] 15")
			house, err := s.House(ctx)
			equal(18, "the limits", house.IdleMinutes, err, "15")
		})
	}
}
