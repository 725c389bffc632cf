package store

import (
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"strconv"

	"unhurriedbench/core/lesson"
)

// Class is a class.
type Class struct {
	ID       ClassID
	Name     string  // a group's with that of its class before it
	OfClass  ClassID `db:"of_class"` // whose group it is; 0 for a class
	Own      string  // the name alone
	School   string  // of counting; "" is the teacher's own
	Year     int     // of playing, 1 to 3
	DuetPart string  `db:"duet_part"` // "A" or "B" of exercises with two, "" for none given
	Students int     // how many are in it, whatever they play
	Shape    Shape   // of its lessons
}

// Shape is how a class's lessons are laid out, as it is kept.
type Shape struct{ lesson.Shape }

// Scan reads what SaveShape wrote.
func (s *Shape) Scan(kept any) error {
	text, is := kept.([]byte)
	if !is {
		return fmt.Errorf("read the shape of the lessons: it is a %T", kept)
	}
	s.Shape = lesson.Shape{}
	return json.Unmarshal(text, &s.Shape)
}

// SaveShape keeps how a class's lessons are laid out.
func (d *Desk) SaveShape(ctx context.Context, class ClassID, s lesson.Shape) error {
	text, err := json.Marshal(s)
	if err != nil {
		return fmt.Errorf("keep the shape of the lessons: %w", err)
	}
	return d.change(ctx, "keep the shape of the lessons", `UPDATE classes SET shape = $3
		WHERE teacher_id = $1 AND id = $2 AND removed_at IS NULL`, class, string(text))
}

// Student is known by first name and initial alone.
type Student struct {
	ID         StudentID
	ClassID    ClassID `db:"class_id"`
	FirstName  string  `db:"first_name"`
	Initial    string
	Instrument string
	DuetPart   string `db:"duet_part"` // "A" or "B" of exercises with two, "" for the class's
	Note       string // the teacher's

	AlsoOf StudentID `db:"also_of"` // whose second instrument it is; 0 for a first one
	Aside  bool      // the first instrument is in the same class, so that the class is marked there
	Row    int       `db:"seat_row"`   // they sit in, from 1 at the front; 0 for none given
	Place  int       `db:"seat_place"` // in it, from 1 at the left as the teacher sees it
}

// LongestNote is the most letters of a note.
const LongestNote = 1000

// Name is "Ines P.".
func (s Student) Name() string {
	if s.Initial == "" {
		return s.FirstName
	}
	return s.FirstName + " " + s.Initial + "."
}

// AddClass makes a class with its first students, all or none. The error is
// ErrTaken when there is one so named.
func (d *Desk) AddClass(ctx context.Context, name string, students ...Student) (ClassID, error) {
	var id ClassID
	err := d.inTransaction(ctx, "add the class", func(tx deskTx) error {
		if err := tx.one(ctx, &id, `INSERT INTO classes (teacher_id, name) VALUES ($1, $2) RETURNING id`, name); err != nil {
			return err
		}
		if err := tx.logAction(ctx, logEntry{action: ClassMade, class: id, detail: name}); err != nil {
			return err
		}
		return tx.addStudents(ctx, id, students)
	})
	return id, err
}

const insertStudent = `
	INSERT INTO students (teacher_id, class_id, first_name, initial, instrument)
	SELECT s.teacher_id, s.id, $3, $4, $5 FROM classes s WHERE s.teacher_id = $1 AND s.id = $2
	AND s.removed_at IS NULL AND s.of_class IS NULL RETURNING id`

// AddStudents puts students in a class, all or none.
func (d *Desk) AddStudents(ctx context.Context, class ClassID, students ...Student) error {
	return d.inTransaction(ctx, "add the students", func(tx deskTx) error { return tx.addStudents(ctx, class, students) })
}

func (tx deskTx) addStudents(ctx context.Context, class ClassID, students []Student) error {
	for _, student := range students {
		if err := tx.change(ctx, insertStudent, class, student.FirstName, student.Initial, student.Instrument); err != nil {
			return err
		}
	}
	if len(students) == 0 {
		return nil
	}
	return tx.logAction(ctx, logEntry{action: StudentsAdded, class: class, detail: strconv.Itoa(len(students))})
}

// Classes lists the classes by name, each with its groups after it.
func (d *Desk) Classes(ctx context.Context) ([]Class, error) {
	var list []Class
	err := d.all(ctx, &list, "list the classes", `
		SELECT s.id, coalesce(o.name || ': ', '') || s.name AS name, coalesce(o.id, 0) AS of_class, s.name AS own,
			coalesce(o.school, s.school) AS school, coalesce(o.year, s.year) AS year,
			coalesce(o.duet_part, s.duet_part) AS duet_part, s.shape, count(p.id) FILTER (WHERE NOT p.aside) AS students
		FROM classes s LEFT JOIN classes o ON o.id = s.of_class LEFT JOIN `+d.students()+` p ON `+memberOf("p", "s.id")+`
		WHERE s.teacher_id = $1 AND s.removed_at IS NULL AND o.removed_at IS NULL AND (s.id = $2 OR $2 = 0)
		GROUP BY s.id, o.id ORDER BY coalesce(o.name, s.name), coalesce(o.id, s.id), o.id NULLS FIRST, s.name`, d.guest.Class)
	return list, err
}

// SaveYear sets the year of playing a class is in, 1 to 3; a group's is its class's.
func (d *Desk) SaveYear(ctx context.Context, class ClassID, year int) error {
	return d.change(ctx, "keep the year", `UPDATE classes SET year = $3 WHERE teacher_id = $1
		AND id = (`+classOf+`)`, class, year)
}

// SaveSchool sets a class's own way of counting; "" is the teacher's. A group counts as its class.
func (d *Desk) SaveSchool(ctx context.Context, class ClassID, school string) error {
	return d.change(ctx, "keep the way of counting", `UPDATE classes SET school = $3
		WHERE teacher_id = $1 AND id = (`+classOf+`)`, class, school)
}

// AddStudent puts a student in a class.
func (d *Desk) AddStudent(ctx context.Context, student Student) (StudentID, error) {
	var id StudentID
	err := d.inTransaction(ctx, "add the student", func(tx deskTx) error {
		if err := tx.one(ctx, &id, insertStudent, student.ClassID, student.FirstName, student.Initial,
			student.Instrument); err != nil {
			return err
		}
		return tx.logAction(ctx, logEntry{action: StudentsAdded, class: student.ClassID, student: id, detail: "1"})
	})
	return id, err
}

// ChangeStudent keeps a student's edited name, instrument and class.
func (d *Desk) ChangeStudent(ctx context.Context, student Student) error {
	return d.inTransaction(ctx, "change the student", func(tx deskTx) error { return tx.changeStudent(ctx, student) })
}

// SaveNote keeps what the teacher notes of a student.
func (d *Desk) SaveNote(ctx context.Context, student StudentID, note string) error {
	return d.change(ctx, "keep the note", `UPDATE students SET note = $3 WHERE teacher_id = $1 AND id = $2
		AND removed_at IS NULL`, student, note)
}

func (tx deskTx) changeStudent(ctx context.Context, student Student) error {
	var was ClassID
	if err := tx.one(ctx, &was, `SELECT class_id FROM `+tx.students()+` p WHERE id = $2`, student.ID); err != nil {
		return err
	}
	if err := tx.change(ctx, `
			UPDATE students SET class_id = s.id, first_name = $4, initial = $5, instrument = $6 FROM classes s
			WHERE students.teacher_id = $1 AND students.id = $2 AND s.teacher_id = $1 AND s.id = $3 AND s.removed_at IS NULL
			AND s.of_class IS NULL`,
		student.ID, student.ClassID, student.FirstName, student.Initial, student.Instrument); err != nil {
		return err
	}
	if err := tx.clear(ctx, `UPDATE students SET first_name = $3, initial = $4
		WHERE teacher_id = $1 AND (also_of = $2 OR id = (SELECT also_of FROM students WHERE teacher_id = $1 AND id = $2))`,
		student.ID, student.FirstName, student.Initial); err != nil { // one name for both instruments
		return err
	}
	// another instrument or class may follow another routine
	if err := tx.refold(ctx, `a.student_id = $2`, student.ID); err != nil {
		return err
	}
	action := StudentChanged
	if was != student.ClassID {
		if err := tx.clear(ctx, `DELETE FROM group_members WHERE teacher_id = $1 AND student_id = $2`, student.ID); err != nil {
			return err
		}
		action = StudentMoved
	}
	return tx.logAction(ctx, logEntry{action: action, student: student.ID, class: student.ClassID})
}

const studentColumns = `p.id, p.class_id, p.first_name, p.initial, p.instrument, p.duet_part, p.note, p.also_of, p.aside, p.seat_row, p.seat_place`

// StudentByID finds a student.
func (d *Desk) StudentByID(ctx context.Context, id StudentID) (Student, error) {
	var student Student
	err := d.one(ctx, &student, "find the student", `SELECT `+studentColumns+` FROM `+d.students()+` p WHERE id = $2`, id)
	return student, err
}

// Students lists the students of a class, or a group, by name. In a group a second instrument is
// set aside where the first is in it too.
func (d *Desk) Students(ctx context.Context, class ClassID) ([]Student, error) {
	var list []Student
	err := d.all(ctx, &list, "list the students", `
		SELECT `+studentColumns+` FROM `+d.students()+` p WHERE `+memberOf("p", "$2")+` ORDER BY first_name, initial, also_of, id`, class)
	for k, s := range list {
		list[k].Aside = s.Aside && (s.ClassID == class || slices.ContainsFunc(list, func(first Student) bool { return first.ID == s.AlsoOf }))
	}
	return list, err
}
