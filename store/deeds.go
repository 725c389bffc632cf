package store

import (
	"context"
	"time"

	"github.com/jmoiron/sqlx"
)

// Deed is what somebody did to an account, a section or a student.
type Deed string

// The deeds. Those to accounts are the owner's to read, the others their teacher's.
const (
	AccountMade     Deed = "account made"
	AccountInvited  Deed = "account invited"
	PasswordLink    Deed = "password link"
	PasswordChanged Deed = "password changed"
	SessionsEnded   Deed = "sessions ended"
	AccountRemoved  Deed = "account removed"
	AccountPutBack  Deed = "account put back"
	AccountErased   Deed = "account erased"
	OwnerChanged    Deed = "owner changed"
	HouseChanged    Deed = "house changed"

	SectionMade    Deed = "section made"
	SectionGiven   Deed = "section given"
	SectionTaken   Deed = "section taken back"
	StudentsAdded  Deed = "students added"
	StudentChanged Deed = "student changed"
	StudentMoved   Deed = "student moved"
	StudentLeft    Deed = "student left"
	StudentBack    Deed = "student back"
	BookRemoved    Deed = "book removed"
	BookPutBack    Deed = "book put back"
	BookErased     Deed = "book erased"
	SectionRemoved Deed = "section removed"
	SectionPutBack Deed = "section put back"
	SectionErased  Deed = "section erased"
	StudentRemoved Deed = "student removed"
	StudentPutBack Deed = "student put back"
	StudentErased  Deed = "student erased"
	OwnPageMade    Deed = "own page made"
	OwnPageEnded   Deed = "own page ended"
	MaterialTaken  Deed = "everything exported"
	MaterialGiven  Deed = "everything imported"
)

// Logged is a row of the log of who did what. It holds no student's name.
type Logged struct {
	At      time.Time
	Deed    Deed
	By      TeacherID
	ByName  string    `db:"by_name"` // "" for an account that is no more
	Teacher TeacherID // whose account, section or student it is; 0 for the installation
	OfName  string    `db:"of_name"`
	Other   TeacherID // a colleague whom it concerns
	OtherIs string    `db:"other_is"`
	Section SectionID
	Student StudentID
	Detail  string // a section's or book's name, or a figure

	SectionName string `db:"section_name"` // as it is now
}

// done is a deed as it is written down.
type done struct {
	deed    Deed
	by      TeacherID // 0 for a command on the machine
	teacher TeacherID
	other   TeacherID
	section SectionID
	student StudentID
	detail  string
}

func writeDown(ctx context.Context, tx sqlx.ExecerContext, d done) error {
	_, err := tx.ExecContext(ctx, `
		INSERT INTO deeds (deed, by_id, teacher_id, other_id, section_id, student_id, detail)
		VALUES ($1, nullif($2, 0), nullif($3, 0), nullif($4, 0), nullif($5, 0), nullif($6, 0), $7)`,
		d.deed, d.by, d.teacher, d.other, d.section, d.student, d.detail)
	return err
}

// did writes down what the desk's teacher did.
func (tx deskTx) did(ctx context.Context, d done) error {
	d.by, d.teacher = tx.teacher, tx.teacher
	return writeDown(ctx, tx, d)
}

const loggedColumns = `d.at, d.deed, coalesce(d.by_id, 0) AS by, coalesce(b.name, '') AS by_name,
	coalesce(d.teacher_id, 0) AS teacher, coalesce(t.name, '') AS of_name, coalesce(d.other_id, 0) AS other, coalesce(o.name, '') AS other_is,
	coalesce(d.section_id, 0) AS section, coalesce(s.name, '') AS section_name, coalesce(d.student_id, 0) AS student, d.detail
	FROM deeds d LEFT JOIN teachers b ON b.id = d.by_id LEFT JOIN teachers t ON t.id = d.teacher_id LEFT JOIN teachers o ON o.id = d.other_id LEFT JOIN sections s ON s.id = d.section_id`

// latestDeeds is how many deeds a page lists.
const latestDeeds = 300

// Deeds lists what was done to the teacher's account, sections and students, the latest
// first.
func (d *Desk) Deeds(ctx context.Context) ([]Logged, error) {
	var list []Logged
	err := d.own(ctx, &list, "list what was done", `SELECT `+loggedColumns+` WHERE d.teacher_id = $1 ORDER BY d.id DESC LIMIT $2`, latestDeeds)
	return list, err
}

// AccountDeeds lists what was done to accounts and to the installation, the latest first.
func (s *Store) AccountDeeds(ctx context.Context) ([]Logged, error) {
	var list []Logged
	err := s.db.SelectContext(ctx, &list, `SELECT `+loggedColumns+`
		WHERE d.section_id IS NULL AND d.student_id IS NULL AND d.deed = ANY ($1) ORDER BY d.id DESC LIMIT $2`,
		[]string{string(AccountMade), string(AccountInvited), string(PasswordLink), string(PasswordChanged), string(SessionsEnded), string(AccountRemoved),
			string(AccountPutBack), string(AccountErased), string(OwnerChanged), string(HouseChanged)}, latestDeeds)
	return list, wrap("list what was done to accounts", err)
}
