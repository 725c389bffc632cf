package store

import (
	"context"
	"strconv"
)

// Section is a class.
type Section struct {
	ID       SectionID
	Name     string
	School   string // of counting; "" is the teacher's own
	Year     int    // of playing, 1 to 3
	Line     string // "A" or "B" of exercises with two, "" for none given
	Students int    // how many are in it, whatever they play
}

// Student is known by first name and initial alone.
type Student struct {
	ID         StudentID
	SectionID  SectionID `db:"section_id"`
	FirstName  string    `db:"first_name"`
	Initial    string
	Instrument string
	Line       string // "A" or "B" of exercises with two, "" for the section's
	Note       string // the teacher's

	AlsoOf StudentID `db:"also_of"` // whose second instrument it is; 0 for a first one
	Aside  bool      // the first instrument is in the same section, so that the class is marked there
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

// AddSection makes a section with its first students, all or none. The error is
// ErrTaken when there is one so named.
func (d *Desk) AddSection(ctx context.Context, name string, students ...Student) (SectionID, error) {
	var id SectionID
	err := d.inTransaction(ctx, "add the section", func(tx deskTx) error {
		if err := tx.one(ctx, &id, `INSERT INTO sections (teacher_id, name) VALUES ($1, $2) RETURNING id`, name); err != nil {
			return err
		}
		if err := tx.did(ctx, done{deed: SectionMade, section: id, detail: name}); err != nil {
			return err
		}
		return tx.addStudents(ctx, id, students)
	})
	return id, err
}

const insertStudent = `
	INSERT INTO students (teacher_id, section_id, first_name, initial, instrument)
	SELECT s.teacher_id, s.id, $3, $4, $5 FROM sections s WHERE s.teacher_id = $1 AND s.id = $2 AND s.removed_at IS NULL RETURNING id`

// AddStudents puts students in a section, all or none.
func (d *Desk) AddStudents(ctx context.Context, section SectionID, students ...Student) error {
	return d.inTransaction(ctx, "add the students", func(tx deskTx) error { return tx.addStudents(ctx, section, students) })
}

func (tx deskTx) addStudents(ctx context.Context, section SectionID, students []Student) error {
	for _, student := range students {
		if err := tx.change(ctx, insertStudent, section, student.FirstName, student.Initial, student.Instrument); err != nil {
			return err
		}
	}
	if len(students) == 0 {
		return nil
	}
	return tx.did(ctx, done{deed: StudentsAdded, section: section, detail: strconv.Itoa(len(students))})
}

// Sections lists the sections by name.
func (d *Desk) Sections(ctx context.Context) ([]Section, error) {
	var list []Section
	err := d.all(ctx, &list, "list the sections", `
		SELECT s.id, s.name, s.school, s.year, s.line, count(p.id) FILTER (WHERE NOT p.aside) AS students
		FROM sections s LEFT JOIN `+d.students()+` p ON p.section_id = s.id
		WHERE s.teacher_id = $1 AND s.removed_at IS NULL AND (s.id = $2 OR $2 = 0) GROUP BY s.id ORDER BY s.name`, d.guest.Section)
	return list, err
}

// KeepYear sets the year of playing a section is in, 1 to 3.
func (d *Desk) KeepYear(ctx context.Context, section SectionID, year int) error {
	return d.change(ctx, "keep the year", `UPDATE sections SET year = $3 WHERE teacher_id = $1 AND id = $2 AND removed_at IS NULL`, section, year)
}

// KeepSchool sets a section's own way of counting; "" is the teacher's.
func (d *Desk) KeepSchool(ctx context.Context, section SectionID, school string) error {
	return d.change(ctx, "keep the way of counting", `UPDATE sections SET school = $3 WHERE teacher_id = $1 AND id = $2 AND removed_at IS NULL`, section, school)
}

// AddStudent puts a student in a section.
func (d *Desk) AddStudent(ctx context.Context, student Student) (StudentID, error) {
	var id StudentID
	err := d.inTransaction(ctx, "add the student", func(tx deskTx) error {
		if err := tx.one(ctx, &id, insertStudent, student.SectionID, student.FirstName, student.Initial, student.Instrument); err != nil {
			return err
		}
		return tx.did(ctx, done{deed: StudentsAdded, section: student.SectionID, student: id, detail: "1"})
	})
	return id, err
}

// ChangeStudent keeps a student's edited name, instrument and section.
func (d *Desk) ChangeStudent(ctx context.Context, student Student) error {
	return d.inTransaction(ctx, "change the student", func(tx deskTx) error { return tx.changeStudent(ctx, student) })
}

// KeepNote keeps what the teacher notes of a student.
func (d *Desk) KeepNote(ctx context.Context, student StudentID, note string) error {
	return d.change(ctx, "keep the note", `UPDATE students SET note = $3 WHERE teacher_id = $1 AND id = $2 AND removed_at IS NULL`, student, note)
}

func (tx deskTx) changeStudent(ctx context.Context, student Student) error {
	var was SectionID
	if err := tx.one(ctx, &was, `SELECT section_id FROM `+tx.students()+` p WHERE id = $2`, student.ID); err != nil {
		return err
	}
	if err := tx.change(ctx, `
			UPDATE students SET section_id = s.id, first_name = $4, initial = $5, instrument = $6 FROM sections s
			WHERE students.teacher_id = $1 AND students.id = $2 AND s.teacher_id = $1 AND s.id = $3 AND s.removed_at IS NULL`,
		student.ID, student.SectionID, student.FirstName, student.Initial, student.Instrument); err != nil {
		return err
	}
	if err := tx.clear(ctx, `UPDATE students SET first_name = $3, initial = $4 WHERE teacher_id = $1 AND (also_of = $2 OR id = (SELECT also_of FROM students WHERE teacher_id = $1 AND id = $2))`,
		student.ID, student.FirstName, student.Initial); err != nil { // one name for both instruments
		return err
	}
	if err := tx.addUpAgain(ctx, `a.student_id = $2`, student.ID); err != nil { // another instrument or section may follow another routine
		return err
	}
	deed := StudentChanged
	if was != student.SectionID {
		deed = StudentMoved
	}
	return tx.did(ctx, done{deed: deed, student: student.ID, section: student.SectionID})
}

const studentColumns = `p.id, p.section_id, p.first_name, p.initial, p.instrument, p.line, p.note, p.also_of, p.aside, p.seat_row, p.seat_place`

// StudentByID finds a student.
func (d *Desk) StudentByID(ctx context.Context, id StudentID) (Student, error) {
	var student Student
	err := d.one(ctx, &student, "find the student", `SELECT `+studentColumns+` FROM `+d.students()+` p WHERE id = $2`, id)
	return student, err
}

// Students lists the students of a section by name.
func (d *Desk) Students(ctx context.Context, section SectionID) ([]Student, error) {
	var list []Student
	err := d.all(ctx, &list, "list the students", `
		SELECT `+studentColumns+` FROM `+d.students()+` p WHERE section_id = $2 ORDER BY first_name, initial, also_of, id`, section)
	return list, err
}
