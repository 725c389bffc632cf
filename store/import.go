package store

import (
	"context"
	"encoding/json"
	"fmt"
	"time"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/lesson"
)

// Brought says what came in with an archive.
type Brought struct{ Books, Exercises, Classes, Students, Tries int }

// Import adds everything of an archive to what the teacher has, all or nothing. A book or
// a class whose name is taken gets a number after it; settings that the teacher has
// chosen here stay. What refers to no row of the archive is ErrNotFound.
func (d *Desk) Import(ctx context.Context, e Everything) (Brought, error) {
	var b Brought
	err := d.inTransaction(ctx, "bring everything in", func(tx deskTx) error {
		in := importing{tx, &e, &b, map[int]ExerciseID{}, map[int]ClassID{}, map[int]StudentID{}, map[int]string{},
			map[int]ArchivedRule{}, map[int]string{}, map[int]ArchivedSeat{}, map[string]string{}, map[int]int64{}}
		if err := tx.lockSources(ctx); err != nil {
			return err
		}
		for _, importRows := range []func(context.Context) error{in.routines, in.settings, in.spoken, in.books, in.seconds,
			in.classes, in.students, in.lessons, in.tries, in.checkIns, in.homePlans, in.atHome} {
			if err := importRows(ctx); err != nil {
				return err
			}
		}
		if err := tx.deleteUnusedSources(ctx); err != nil {
			return err
		}
		return tx.logAction(ctx, logEntry{action: MaterialImported})
	})
	return b, err
}

// importing is an archive on its way in, with the ids that its numbers have become.
type importing struct {
	deskTx
	e         *Everything
	b         *Brought
	exercises map[int]ExerciseID
	classOf   map[int]ClassID
	studentOf map[int]StudentID
	lineOf    map[int]string // of students
	ruleOf    map[int]ArchivedRule
	noteOf    map[int]string
	seatOf    map[int]ArchivedSeat
	routineOf map[string]string // by what the archive calls it
	batches   map[int]int64     // of tries that were marked together
}

// routine is the id here of what an archive calls a routine.
func (in importing) routine(id string) string {
	if own, is := in.routineOf[id]; is {
		return own
	}
	return id
}

func (in importing) routines(ctx context.Context) error {
	for _, r := range in.e.Routines {
		title, err := in.freeName(ctx, "(SELECT teacher_id, title, NULL AS removed_at FROM routines) r",
			"title", r.Title, nil)
		if err != nil {
			return err
		}
		steps, err := json.Marshal(r.Steps)
		if err != nil {
			return err
		}
		var id int64
		if err := in.one(ctx, &id, `INSERT INTO routines (teacher_id, title, why, family, steps)
			VALUES ($1, $2, $3, $4, $5) RETURNING id`, title, r.Why, r.Family, string(steps)); err != nil {
			return err
		}
		in.routineOf[fmt.Sprint(ownRoutine, r.No)] = fmt.Sprint(ownRoutine, id)
	}
	for instrument, id := range in.e.Followed {
		if err := in.clear(ctx, `INSERT INTO instrument_routines (teacher_id, instrument, routine) VALUES ($1, $2, $3)
			ON CONFLICT DO NOTHING`, instrument, in.routine(id)); err != nil {
			return err
		}
	}
	return nil
}

// spoken adds recorded words; those that were recorded here stay.
func (in importing) spoken(ctx context.Context) error {
	for _, w := range in.e.Spoken {
		if err := in.clear(ctx, `INSERT INTO spoken_words (teacher_id, word, vowel, sound) VALUES ($1, $2, $3, $4)
			ON CONFLICT DO NOTHING`, w.Word, w.Vowel, in.e.Sounds[w.Word]); err != nil {
			return err
		}
	}
	return nil
}

func (in importing) settings(ctx context.Context) error {
	for key, value := range in.e.Settings {
		if key == RoutineSetting {
			value = in.routine(value)
		}
		if err := in.clear(ctx, `INSERT INTO settings (teacher_id, key, value) VALUES ($1, $2, $3)
			ON CONFLICT DO NOTHING`, key, value); err != nil {
			return err
		}
	}
	for instrument, kind := range in.e.Kinds {
		if err := in.clear(ctx, `INSERT INTO instrument_models (teacher_id, instrument, model) VALUES ($1, $2, $3)
			ON CONFLICT DO NOTHING`, instrument, kind); err != nil {
			return err
		}
	}
	for _, p := range in.e.Preferred {
		if err := in.clear(ctx, `INSERT INTO preferred (teacher_id, instrument, pitch, fingering)
			VALUES ($1, $2, $3, $4) ON CONFLICT DO NOTHING`, p.Instrument, p.Pitch, p.Fingering); err != nil {
			return err
		}
	}
	return nil
}

// freeName is a name that none of a table's rows has, with a number after it where need be.
func (in importing) freeName(ctx context.Context, table, column, name string, removed *time.Time) (string, error) {
	for n := 1; ; n++ {
		desired := name
		if n > 1 {
			desired = fmt.Sprintf("%s (%d)", name, n)
		}
		var taken bool
		if err := in.one(ctx, &taken, fmt.Sprintf(`SELECT EXISTS (SELECT 1 FROM %s WHERE teacher_id = $1 AND %s = $2
			AND removed_at IS NULL)`, table, column), desired); err != nil {
			return "", err
		}
		if !taken || removed != nil {
			return desired, nil
		}
	}
}

// source keeps the music that an archive calls by a hash.
func (in importing) source(ctx context.Context, hash string) (string, error) {
	s, has := in.e.Music[hash]
	if !has {
		return "", fmt.Errorf("find the music %s: %w", hash, ErrNotFound)
	}
	return in.saveSource(ctx, s)
}

func (in importing) books(ctx context.Context) error {
	for _, book := range in.e.Books {
		title, err := in.freeName(ctx, "books", "title", book.Title, book.Removed)
		if err != nil {
			return err
		}
		var id BookID
		if err := in.one(ctx, &id, `INSERT INTO books (teacher_id, title, removed_at) VALUES ($1, $2, $3)
			RETURNING id`, title, book.Removed); err != nil {
			return err
		}
		for _, x := range book.Exercises {
			if err := in.exercise(ctx, id, x); err != nil {
				return err
			}
		}
		in.b.Books++
	}
	return nil
}

func (in importing) exercise(ctx context.Context, book BookID, x ArchivedExercise) error {
	hash, err := in.source(ctx, x.Music)
	if err != nil {
		return err
	}
	var id ExerciseID
	if err := in.one(ctx, &id, `
		INSERT INTO exercises (teacher_id, book_id, number, title, hash, part, written_for, removed_at, place, routine, audience)
			VALUES ($1, $2, $3, $4, $5, $6, $7, $8, nullif($9, 0), $10, $11) RETURNING id`,
		book, x.Number, x.Title, hash, x.Part, x.WrittenFor, x.Removed, x.Place, in.routine(x.Routine), x.Audience); err != nil {
		return err
	}
	in.exercises[x.No] = id
	for _, own := range x.Own {
		hash, err := in.source(ctx, own.Music)
		if err != nil {
			return err
		}
		if err := in.change(ctx, `INSERT INTO overrides (teacher_id, exercise_id, instrument, hash, part)
			VALUES ($1, $2, $3, $4, $5)`, id, own.Instrument, hash, own.Part); err != nil {
			return err
		}
	}
	for instrument, octaves := range x.Octaves {
		if err := in.change(ctx, `INSERT INTO octave_choices (teacher_id, exercise_id, instrument, octaves)
			VALUES ($1, $2, $3, $4)`, id, instrument, octaves); err != nil {
			return err
		}
	}
	for _, instrument := range x.Folded {
		if err := in.change(ctx, `INSERT INTO octave_choices (teacher_id, exercise_id, instrument, folded)
			VALUES ($1, $2, $3, true)
			ON CONFLICT (exercise_id, instrument) DO UPDATE SET folded = true`, id, instrument); err != nil {
			return err
		}
	}
	for _, f := range x.Fingerings {
		if err := in.change(ctx, `INSERT INTO fingerings (teacher_id, exercise_id, instrument, measure, event, pitch, fingering) VALUES ($1, $2, $3, $4, $5, $6, $7)`,
			id, f.Instrument, f.Measure, f.Event, f.Pitch, f.Fingering); err != nil {
			return err
		}
	}
	for _, m := range x.Annotations {
		if err := in.change(ctx, `INSERT INTO annotations (teacher_id, exercise_id, instrument, measure, event, pitch, kind, word) VALUES ($1, $2, $3, $4, $5, $6, $7, $8)`,
			id, m.Instrument, m.Measure, m.Event, m.Pitch, m.Kind, m.Word); err != nil {
			return err
		}
	}
	if len(x.Chunks) > 0 {
		chunks := make([]breakdown.HandChunk, len(x.Chunks))
		for k, p := range x.Chunks {
			chunks[k].Key, _ = breakdown.ParseChunkKey(p.Measures)
			chunks[k].Why = p.Why
		}
		keys, whys := handChunksText(chunks)
		if err := in.change(ctx, `INSERT INTO hand_chunks (teacher_id, exercise_id, chunks, whys)
			VALUES ($1, $2, $3, $4)`, id, keys, whys); err != nil {
			return err
		}
	}
	in.b.Exercises++
	return nil
}

// seconds makes exercises the lines of one, once all are there.
func (in importing) seconds(ctx context.Context) error {
	for _, book := range in.e.Books {
		for _, x := range book.Exercises {
			if x.Second == nil {
				continue
			}
			if err := in.change(ctx, `INSERT INTO duet_parts (teacher_id, exercise_id, other_id, entry)
				VALUES ($1, $2, nullif($3, 0), $4)`,
				in.exercises[x.No], in.exercises[x.Second.Exercise], x.Second.Entry); err != nil {
				return err
			}
		}
	}
	return nil
}

func (in importing) classes(ctx context.Context) error {
	for _, s := range in.e.Classes {
		name, err := s.Name, error(nil)
		if s.GroupOf == 0 {
			name, err = in.freeName(ctx, "classes", "name", s.Name, s.Removed)
		}
		if err != nil {
			return err
		}
		shape, err := json.Marshal(s.Shape)
		if err != nil {
			return err
		}
		var id ClassID
		if err := in.one(ctx, &id, `INSERT INTO classes (teacher_id, name, school, year, duet_part, routine, shape, removed_at, of_class)
			VALUES ($1, $2, $3, $4, $5, $6, $7, $8, nullif($9, 0)) RETURNING id`,
			name, s.School, s.Year, s.DuetPart, in.routine(s.Routine), string(shape), s.Removed, in.classOf[s.GroupOf]); err != nil {
			return err
		}
		in.classOf[s.No] = id
		for student, line := range s.DuetParts {
			in.lineOf[student] = line
		}
		for student, note := range s.Notes {
			in.noteOf[student] = note
		}
		for student, seat := range s.Seats {
			in.seatOf[student] = seat
		}
		for student, rule := range s.Rules {
			in.ruleOf[student] = rule
		}
		in.b.Classes++
	}
	return nil
}

func (in importing) students(ctx context.Context) error {
	for _, s := range in.e.Students {
		var id StudentID
		seat := in.seatOf[s.No]
		if err := in.one(ctx, &id, `
			INSERT INTO students (teacher_id, class_id, first_name, initial, instrument, duet_part, left_at, removed_at, clean_to_go_on, stays, note, seat_row, seat_place)
			VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13) RETURNING id`,
			in.classOf[s.Class], s.FirstName, s.Initial, s.Instrument, in.lineOf[s.No], s.Left, s.Removed,
			in.ruleOf[s.No].Clean, in.ruleOf[s.No].Stay, in.noteOf[s.No],
			seat.Row, seat.Place); err != nil {
			return err
		}
		in.studentOf[s.No] = id
		in.b.Students++
	}
	for _, class := range in.e.Classes {
		for _, no := range class.Members {
			if err := in.change(ctx, `INSERT INTO group_members (teacher_id, group_id, student_id) VALUES ($1, $2, $3)`,
				in.classOf[class.No], in.studentOf[no]); err != nil {
				return err
			}
		}
		for second, first := range class.Seconds {
			if err := in.change(ctx, `UPDATE students SET also_of = $3
				WHERE teacher_id = $1 AND id = $2`, in.studentOf[second], in.studentOf[first]); err != nil {
				return err
			}
		}
	}
	return nil
}

// lessons adds the lessons once the students and exercises that they name are there.
func (in importing) lessons(ctx context.Context) error {
	students := map[StudentID]StudentID{}
	for no, id := range in.studentOf {
		students[StudentID(no)] = id
	}
	for _, class := range in.e.Classes {
		for _, l := range class.Lessons {
			plan := lesson.Plan{Minutes: l.Minutes}
			for _, s := range l.Steps {
				s.Exercise, s.Group = int64(in.exercises[int(s.Exercise)]), numbered(s.Group, students)
				plan.Steps = append(plan.Steps, s)
			}
			text, err := json.Marshal(plan)
			if err != nil {
				return err
			}
			if err := in.change(ctx, `INSERT INTO lessons (teacher_id, class_id, plan, step, absent, made_at, begun_at, ended_at) VALUES ($1, $2, $3, $4, coalesce($5::bigint[], '{}'), $6, $7, $8)`,
				in.classOf[class.No], string(text), l.At, numbered(l.Absent, students), l.Made, l.Begun, l.Ended); err != nil {
				return err
			}
		}
	}
	return nil
}

// checkIns adds the check-ins once their tries are there.
func (in importing) checkIns(ctx context.Context) error {
	for _, class := range in.e.Classes {
		for _, c := range class.Checkins {
			for k := range c.Due {
				c.Due[k].Exercise = int64(in.exercises[int(c.Due[k].Exercise)])
			}
			due, err := json.Marshal(c.Due)
			if err != nil {
				return err
			}
			if err := in.change(ctx, `INSERT INTO checkins (teacher_id, student_id, on_day, due, batch, comment, heard_at) VALUES ($1, $2, $3, $4, coalesce(nullif($5, 0), nextval('batches')), $6, $7)`,
				in.studentOf[c.Student], c.On, string(due), in.batches[c.Together], c.Comment, c.Heard); err != nil {
				return err
			}
		}
	}
	return nil
}

// homePlans adds the plans for home.
func (in importing) homePlans(ctx context.Context) error {
	for _, class := range in.e.Classes {
		for _, k := range class.HomePlans {
			p := HomePlan{Student: in.studentOf[k.Student], From: k.From, Until: k.Until, Weekdays: k.Weekdays,
				Minutes: k.Minutes, Changed: k.Changed, Plan: k.Plan}
			p.renumber(func(no int64) int64 { return int64(in.exercises[int(no)]) })
			if err := in.saveHomePlans(ctx, []HomePlan{p}, "students"); err != nil {
				return err
			}
		}
	}
	return nil
}

// atHome adds what students have said and done at home.
func (in importing) atHome(ctx context.Context) error {
	for _, class := range in.e.Classes {
		for _, k := range class.AtHome {
			student := in.studentOf[k.Student]
			for _, t := range k.Tries {
				if err := in.change(ctx, `
					INSERT INTO home_tries (teacher_id, student_id, exercise_id, first_measure, last_measure, stage, clean, cause, tempo, beside, changed, at, request_key)
					VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13)`,
					student, in.exercises[t.Exercise], t.Chunk.First, t.Chunk.Last, t.Stage, t.Clean, t.Cause, t.Tempo,
					t.Beside, t.Changed, t.At, t.RequestKey); err != nil {
					return err
				}
			}
			for _, t := range k.Done {
				if err := in.change(ctx, `INSERT INTO home_ticks (teacher_id, student_id, on_day, line)
					VALUES ($1, $2, $3, $4)`, student, t.On, t.Line); err != nil {
					return err
				}
			}
			for _, a := range k.Cards {
				if err := in.change(ctx, `INSERT INTO card_answers (teacher_id, student_id, instrument, card, grade, millis, at, request_key) VALUES ($1, $2, $3, $4, $5, $6, $7, $8)`,
					student, a.Instrument, a.Card, a.Grade, a.Millis, a.At, a.RequestKey); err != nil {
					return err
				}
			}
		}
	}
	return nil
}

// tries adds the log in its order, and what it adds up to.
func (in importing) tries(ctx context.Context) error {
	if len(in.e.Tries) == 0 {
		return nil
	}
	var ids, batches []int64
	if err := in.SelectContext(ctx, &ids, `SELECT nextval(pg_get_serial_sequence('attempts', 'id'))
		FROM generate_series(1, $1) ORDER BY 1`, len(in.e.Tries)); err != nil {
		return err
	}
	together := 0
	for _, t := range in.e.Tries {
		together = max(together, t.Together)
	}
	if err := in.SelectContext(ctx, &batches, `SELECT nextval('batches') FROM generate_series(1, $1) ORDER BY 1`,
		together); err != nil {
		return err
	}
	for k, batch := range batches {
		in.batches[k+1] = batch
	}
	idOf := map[int]int64{0: 0}
	var c struct {
		student, exercise, first, last, tempo, undoes, batch, measure []int64
		stage, cause                                                  []string
		clean, moved                                                  []bool
		at                                                            []time.Time
	}
	var changed []Attempt
	for k, t := range in.e.Tries {
		student, known := in.studentOf[t.Student]
		exercise, archived := in.exercises[t.Exercise]
		undoes, there := idOf[t.TakesBack]
		if !known || !archived || !there {
			return fmt.Errorf("find what try %d is of: %w", t.No, ErrNotFound)
		}
		idOf[t.No] = ids[k]
		batch := int64(0)
		if t.Together > 0 {
			batch = batches[t.Together-1]
		}
		c.student, c.exercise = append(c.student, int64(student)), append(c.exercise, int64(exercise))
		c.first, c.last, c.tempo = append(c.first, int64(t.Chunk.First)), append(c.last, int64(t.Chunk.Last)),
			append(c.tempo, int64(t.Tempo))
		c.undoes, c.batch = append(c.undoes, undoes), append(c.batch, batch)
		c.stage, c.cause, c.clean, c.at = append(c.stage, string(t.Stage)), append(c.cause, string(t.Cause)),
			append(c.clean, t.Clean), append(c.at, t.At)
		c.moved, c.measure = append(c.moved, t.Moved), append(c.measure, int64(t.Measure))
		changed = append(changed, Attempt{StudentID: student, ExerciseID: exercise, Chunk: t.Chunk})
	}
	if err := in.change(ctx, `
		INSERT INTO attempts (teacher_id, id, student_id, exercise_id, first_measure, last_measure, stage, clean, cause, tempo, undoes, batch, at, moved, measure)
		OVERRIDING SYSTEM VALUE
		SELECT $1, id, student, exercise, first, last, stage, clean, cause, tempo, nullif(undoes, 0), nullif(batch, 0), at, moved, measure
		FROM unnest($2::bigint[], $3::bigint[], $4::bigint[], $5::integer[], $6::integer[], $7::text[], $8::boolean[], $9::text[], $10::integer[], $11::bigint[], $12::bigint[], $13::timestamptz[], $14::boolean[], $15::integer[])
			AS rows (id, student, exercise, first, last, stage, clean, cause, tempo, undoes, batch, at, moved, measure)`,
		ids, c.student, c.exercise, c.first, c.last, c.stage, c.clean, c.cause, c.tempo, c.undoes, c.batch, c.at,
		c.moved, c.measure); err != nil {
		return err
	}
	in.b.Tries = len(in.e.Tries)
	return in.foldAttempts(ctx, changed)
}
