package store

import "context"

// Section is a class.
type Section struct {
	ID       int64
	Name     string
	School   string // of counting; "" is the teacher's own
	Year     int    // of playing, 1 to 3
	Students int    // how many are in it
}

// Student is known by first name and initial alone.
type Student struct {
	ID         int64
	SectionID  int64  `db:"section_id"`
	FirstName  string `db:"first_name"`
	Initial    string
	Instrument string
}

// Name is "Ines P.".
func (s Student) Name() string {
	if s.Initial == "" {
		return s.FirstName
	}
	return s.FirstName + " " + s.Initial + "."
}

// AddSection makes a section. The error is ErrTaken when there is one so named.
func (s *Store) AddSection(ctx context.Context, teacher int64, name string) (int64, error) {
	var id int64
	err := s.one(ctx, &id, "add the section", `
		INSERT INTO sections (teacher_id, name) VALUES ($1, $2) RETURNING id`, teacher, name)
	return id, err
}

// Sections lists the teacher's sections by name.
func (s *Store) Sections(ctx context.Context, teacher int64) ([]Section, error) {
	var list []Section
	err := s.all(ctx, &list, "list the sections", `
		SELECT s.id, s.name, s.school, s.year, count(t.id) AS students
		FROM sections s LEFT JOIN students t ON t.section_id = s.id AND t.teacher_id = s.teacher_id
		WHERE s.teacher_id = $1 GROUP BY s.id ORDER BY s.name`, teacher)
	return list, err
}

// KeepYear sets the year of playing a section is in, 1 to 3.
func (s *Store) KeepYear(ctx context.Context, teacher, section int64, year int) error {
	return s.change(ctx, "keep the year", `
		UPDATE sections SET year = $3 WHERE teacher_id = $1 AND id = $2`, teacher, section, year)
}

// SectionYear is the year of playing a section is in.
func (s *Store) SectionYear(ctx context.Context, teacher, section int64) (int, error) {
	var year int
	err := s.one(ctx, &year, "look for the section's year", `
		SELECT year FROM sections WHERE teacher_id = $1 AND id = $2`, teacher, section)
	return year, err
}

// AddStudent puts a student in a section.
func (s *Store) AddStudent(ctx context.Context, teacher int64, t Student) (int64, error) {
	var id int64
	err := s.one(ctx, &id, "add the student", `
		INSERT INTO students (teacher_id, section_id, first_name, initial, instrument)
		VALUES ($1, $2, $3, $4, $5) RETURNING id`, teacher, t.SectionID, t.FirstName, t.Initial, t.Instrument)
	return id, err
}

// ChangeStudent keeps a student's edited name, instrument and section.
func (s *Store) ChangeStudent(ctx context.Context, teacher int64, t Student) error {
	return s.change(ctx, "change the student", `
		UPDATE students SET section_id = $3, first_name = $4, initial = $5, instrument = $6
		WHERE teacher_id = $1 AND id = $2`, teacher, t.ID, t.SectionID, t.FirstName, t.Initial, t.Instrument)
}

// EraseStudent deletes a student and every attempt of theirs, for good.
func (s *Store) EraseStudent(ctx context.Context, teacher, id int64) error {
	return s.change(ctx, "erase the student", `DELETE FROM students WHERE teacher_id = $1 AND id = $2`, teacher, id)
}

const studentColumns = `id, section_id, first_name, initial, instrument`

// StudentByID finds a student.
func (s *Store) StudentByID(ctx context.Context, teacher, id int64) (Student, error) {
	var t Student
	err := s.one(ctx, &t, "find the student", `
		SELECT `+studentColumns+` FROM students WHERE teacher_id = $1 AND id = $2`, teacher, id)
	return t, err
}

// Students lists the students of a section by name.
func (s *Store) Students(ctx context.Context, teacher, section int64) ([]Student, error) {
	var list []Student
	err := s.all(ctx, &list, "list the students", `
		SELECT `+studentColumns+` FROM students
		WHERE teacher_id = $1 AND section_id = $2 ORDER BY first_name, initial, id`, teacher, section)
	return list, err
}
