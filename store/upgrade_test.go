package store_test

import (
	"context"
	"database/sql"
	"fmt"
	"strings"
	"testing"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testdb"
	"unhurriedbench/store"
)

// baseline is the version whose tables were called otherwise.
const baseline = 32

// baselineRows are what a teacher had by then.
var baselineRows = []string{
	`INSERT INTO teachers (email, name, school, password_hash) VALUES ('a@school.example', 'Wren', 'Hall', 'x')`,
	`INSERT INTO books (teacher_id, title) VALUES (1, 'Book')`,
	`INSERT INTO sources (teacher_id, hash, format, content) SELECT 1, encode(sha256(convert_to('abc' || E'\n' || c, 'UTF8')), 'hex'), 'abc', c FROM unnest(ARRAY['K:C', 'K:F']) c`,
	`INSERT INTO exercises (teacher_id, book_id, number, title, hash) SELECT 1, 1, 1, 'One', hash FROM sources WHERE content = 'K:C'`,
	`INSERT INTO overrides (teacher_id, exercise_id, instrument, hash) SELECT 1, 1, 'oboe', hash FROM sources WHERE content = 'K:F'`,
	`INSERT INTO sections (teacher_id, name) VALUES (1, 'Tuesday')`,
	`INSERT INTO students (teacher_id, section_id, first_name, initial, instrument) VALUES (1, 1, 'Ines', 'P', 'trombone')`,
	`INSERT INTO attempts (teacher_id, student_id, exercise_id, first_measure, last_measure, stage, clean, cause, tempo, undoes) VALUES
		(1, 1, 1, 1, 2, 'count', true, '', 60, NULL), (1, 1, 1, 1, 2, 'count', true, '', 60, NULL), (1, 1, 1, 1, 2, 'name', false, 'name', 60, NULL), (1, 1, 1, 1, 2, 'name', false, 'name', 60, 3)`,
	`INSERT INTO settings (teacher_id, key, value) VALUES (1, 'school', 'takadimi')`,
	`INSERT INTO placements (teacher_id, exercise_id, instrument, octaves) VALUES (1, 1, 'trombone', -1)`,
	`INSERT INTO placements (teacher_id, exercise_id, instrument, folded) VALUES (1, 1, 'oboe', true)`,
	`UPDATE sections SET year = 2`,
	`INSERT INTO fingerings (teacher_id, exercise_id, instrument, measure, event, pitch, fingering) VALUES (1, 1, 'oboe', 0, 1, 65, '1 2 3 |')`,
	`INSERT INTO attempts (teacher_id, student_id, exercise_id, first_measure, last_measure, stage, clean, cause, tempo, press) VALUES (1, 1, 1, 3, 4, 'count', true, '', 60, 'p')`,
	`INSERT INTO invitations (hash, teacher_id, until) VALUES ('x', 1, now() + interval '1 day')`,
	`INSERT INTO teachers (email, name, school, password_hash) VALUES ('b@school.example', 'Tomo', '', 'x')`,
	`INSERT INTO shares (teacher_id, section_id, colleague_id, teach) VALUES (1, 1, 2, true)`,
	`INSERT INTO students (teacher_id, section_id, first_name, initial, instrument, left_at) VALUES (1, 1, 'Wim', 'L', 'flute', now())`,
	`INSERT INTO pencils (teacher_id, exercise_id, instrument, measure, event, pitch, kind, word) VALUES (1, 1, 'oboe', 0, 1, 65, 'word', 'soft')`,
	`INSERT INTO cuts (teacher_id, exercise_id, pieces, whys) VALUES (1, 1, '1-1 1-2', 'by hand')`,
	`INSERT INTO second_lines (teacher_id, exercise_id, entry) VALUES (1, 1, 2)`,
	`UPDATE students SET line = 'B'`,
	`INSERT INTO routines (teacher_id, title, steps) VALUES (1, 'Ours', '[{"stage": "count", "word": "Clap", "rungs": 4}, {"stage": "name", "word": "Name"}]')`,
	`INSERT INTO instrument_routines (teacher_id, instrument, routine) VALUES (1, 'flute', 'own-1')`,
	`UPDATE sections SET routine = 'own-1'`,
	`UPDATE students SET clean_to_go_on = 2`,
	`INSERT INTO lessons (teacher_id, section_id, plan, absent) VALUES (1, 1, '{"minutes": 30, "steps": []}', '{1}')`,
	`UPDATE students SET note = 'By the window'`,
	`INSERT INTO students (teacher_id, section_id, first_name, initial, instrument, also_of, seat_row, seat_place) VALUES (1, 1, 'Ines', 'P', 'cello', 1, 1, 2)`,
	`INSERT INTO checkins (teacher_id, student_id, on_day, due) VALUES (1, 1, '2026-12-01', '[{"exercise": 1, "number": 1, "title": "One", "piece": {"first": 1, "last": 2}, "label": "A", "stage": "count", "word": "Count", "form": "count", "times": 1, "tempo": 60, "talk": 0, "beats": 4, "countOff": 4, "notes": 4}]')`,
	`INSERT INTO homeplans (teacher_id, student_id, from_day, until_day, weekdays, minutes, plan) VALUES (1, 1, '2026-12-01', '2026-12-08', '{1,4}', 15, '{}')`,
	`INSERT INTO own_pages (teacher_id, student_id, key) VALUES (1, 1, 'abcdefghijklmnopqrstuvwxyz')`,
	`INSERT INTO home_tries (teacher_id, student_id, exercise_id, first_measure, last_measure, stage, clean, at, press) VALUES (1, 1, 1, 1, 2, 'play', true, now(), 'x')`,
	`INSERT INTO home_ticks (teacher_id, student_id, on_day, line) VALUES (1, 1, '2026-12-01', 'warm')`,
	`INSERT INTO card_answers (teacher_id, student_id, instrument, card, grade, at, press) VALUES (1, 1, 'flute', 'name:G2:B4', 3, now(), 'x')`,
	`INSERT INTO house (longest_days, idle_days, idle_minutes, retain_months) VALUES (30, 7, 15, 12)`,
	`INSERT INTO deeds (deed, by_id, teacher_id, section_id, detail) VALUES ('section made', 1, 1, 1, 'Tuesday')`,
}

// A database of the version before this one is carried over with all that is in it.
func TestTheVersionBefore(t *testing.T) {
	t.Parallel()
	ctx, url := context.Background(), testdb.Make(t)
	db, err := sql.Open("pgx", url)
	if err != nil {
		t.Fatal(err)
	}
	defer db.Close()
	if err := store.MigrateTo(ctx, db, baseline); err != nil {
		t.Fatal(err)
	}
	for _, row := range baselineRows {
		if _, err := db.ExecContext(ctx, row); err != nil {
			t.Fatalf("%s: %v", row, err)
		}
	}
	s, err := store.Open(ctx, url)
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	if err := s.FoldStandings(ctx); err != nil {
		t.Fatal(err)
	}
	d := s.For(1)
	equal := func(what string, got any, err error, want string) {
		t.Helper()
		if err != nil || fmt.Sprint(got) != want {
			t.Errorf("%s: %v, %v, want %s", what, got, err, want)
		}
	}
	exercises, err := d.Exercises(ctx)
	if err != nil || len(exercises) != 1 {
		t.Fatalf("the exercises are %v, %v", exercises, err)
	}
	source, err := d.Source(ctx, exercises[0].Hash)
	equal("the source", source.Content, err, "K:C")
	own, err := d.Overrides(ctx, 1)
	equal("own parts", len(own), err, "1")
	log, err := d.StudentAttempts(ctx, 1)
	first := log[len(log)-3:]
	equal("the log", fmt.Sprint(first[0].Stage, " ", first[0].Undone, " ", first[1].Stage, " ", first[2].Stage), err, "name true count count")
	standings, err := d.StudentStandings(ctx, 1)
	at := standings[store.Task{Student: 1, Exercise: 1}].State(d.Routine(), breakdown.ChunkKey{First: 1, Last: 2})
	equal("where the student stands", at.Stage, err, string(routine.Name))
	settings, err := d.Settings(ctx)
	equal("the settings", settings, err, "map[school:takadimi]")
	placed, err := d.OctaveChoice(ctx, 1, "trombone")
	equal("the octave", placed.Octaves, err, "-1")
	classes, err := d.Classes(ctx)
	if err != nil || len(classes) != 1 {
		t.Fatalf("the classes are %v, %v", classes, err)
	}
	equal("the year", classes[0].Year, err, "2")
	fingerings, err := d.Fingerings(ctx, 1, "oboe")
	equal("the fingerings", len(fingerings), err, "1")
	_, known, err := d.Pressed(ctx, "p")
	equal("a press", known, err, "true")
	given, err := s.Given(ctx, 2)
	equal("the class given", len(given), err, "1")
	left, err := d.StudentsWhoLeft(ctx)
	equal("who has left", len(left), err, "1")
	annotations, err := d.Annotations(ctx, 1, "oboe")
	equal("the marks", len(annotations), err, "1")
	handChunks, err := d.HandChunks(ctx, 1)
	equal("the chunks", len(handChunks), err, "2")
	lines, err := d.DuetPart(ctx, 1)
	equal("the lines", lines, err, "{1 0 2}")
	rules, err := d.Rules(ctx)
	equal("the class's routine", rules.For(1, 1)[0].Word, err, "Clap")
	equal("the tempos of its first stage", rules.For(1, 1)[0].TempoSteps, err, "4")
	equal("the student's rule", rules.Rule(1), err, "{2 false}")
	student, err := d.StudentByID(ctx, 1)
	equal("the note", student.Note, err, "By the window")
	lessons, err := d.Lessons(ctx, 1, 9)
	equal("the lessons", len(lessons), err, "1")
	other, err := d.OtherInstrument(ctx, student)
	equal("the second instrument", fmt.Sprint(other.Instrument, other.Aside, other.Row, other.Place), err, "cellotrue 1 2")
	checkins, err := d.StudentCheckins(ctx, 1, 9)
	equal("the check-ins", len(checkins), err, "1")
	equal("what is due at one", checkins[0].Due[0].Chunk, err, "1-2")
	plan, err := d.HomePlan(ctx, 1)
	equal("the plan for home", fmt.Sprint(plan.Weekdays, plan.Minutes), err, "[1 4] 15")
	policy, err := s.Policy(ctx)
	equal("the limits", policy.IdleMinutes, err, "15")
	activity, err := d.Activity(ctx)
	if err != nil || len(activity) != 1 || activity[0].Action != store.ClassMade {
		t.Errorf("the activity is %v, %v", activity, err)
	}
}

// A database of an earlier version than that is left as it is, and what to do is said.
func TestAnOlderDatabaseIsRefused(t *testing.T) {
	t.Parallel()
	ctx, url := context.Background(), testdb.Make(t)
	db, err := sql.Open("pgx", url)
	if err != nil {
		t.Fatal(err)
	}
	defer db.Close()
	if err := store.MigrateTo(ctx, db, baseline); err != nil {
		t.Fatal(err)
	}
	if _, err := db.ExecContext(ctx, `UPDATE goose_db_version SET version_id = 28 WHERE version_id = $1`, baseline); err != nil {
		t.Fatal(err)
	}
	if _, err := store.Open(ctx, url); err == nil || !strings.Contains(err.Error(), "version 28") || !strings.Contains(err.Error(), "Start the release before this one once") {
		t.Errorf("an older database gives %v", err)
	}
}
