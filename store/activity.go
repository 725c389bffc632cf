package store

import (
	"context"
	"time"

	"github.com/jmoiron/sqlx"
)

// Action is what somebody did to an account, a class or a student.
type Action string

// The deeds. Those to accounts are the owner's to read, the others their teacher's.
const (
	AccountMade     Action = "account made"
	AccountInvited  Action = "account invited"
	PasswordLink    Action = "password link"
	PasswordChanged Action = "password changed"
	SessionsEnded   Action = "sessions ended"
	AccountRemoved  Action = "account removed"
	AccountRestored Action = "account put back"
	AccountErased   Action = "account erased"
	OwnerChanged    Action = "owner changed"
	PolicyChanged   Action = "house changed"

	ClassMade        Action = "class made"
	ClassShared      Action = "class given"
	SharingStopped   Action = "class taken back"
	StudentsAdded    Action = "students added"
	StudentChanged   Action = "student changed"
	StudentMoved     Action = "student moved"
	StudentLeft      Action = "student left"
	StudentBack      Action = "student back"
	BookRemoved      Action = "book removed"
	BookRestored     Action = "book put back"
	BookErased       Action = "book erased"
	ClassRemoved     Action = "class removed"
	ClassRestored    Action = "class put back"
	ClassErased      Action = "class erased"
	StudentRemoved   Action = "student removed"
	StudentRestored  Action = "student put back"
	StudentErased    Action = "student erased"
	OwnPageMade      Action = "own page made"
	OwnPageEnded     Action = "own page ended"
	MaterialExported Action = "everything exported"
	MaterialImported Action = "everything imported"
)

// LogEntry is a row of the log of who did what. It holds no student's name.
type LogEntry struct {
	At      time.Time
	Action  Action
	By      TeacherID
	ByName  string    `db:"by_name"` // "" for an account that is no more
	Teacher TeacherID // whose account, class or student it is; 0 for the installation
	OfName  string    `db:"of_name"`
	Other   TeacherID // a colleague whom it concerns
	OtherIs string    `db:"other_is"`
	Class   ClassID
	Student StudentID
	Detail  string // a class's or book's name, or a figure

	ClassName string `db:"class_name"` // as it is now
}

// logEntry is a deed as it is written down.
type logEntry struct {
	action  Action
	by      TeacherID // 0 for a command on the machine
	teacher TeacherID
	other   TeacherID
	class   ClassID
	student StudentID
	detail  string
}

func record(ctx context.Context, tx sqlx.ExecerContext, d logEntry) error {
	_, err := tx.ExecContext(ctx, `
		INSERT INTO activity (action, by_id, teacher_id, other_id, class_id, student_id, detail)
		VALUES ($1, nullif($2, 0), nullif($3, 0), nullif($4, 0), nullif($5, 0), nullif($6, 0), $7)`,
		d.action, d.by, d.teacher, d.other, d.class, d.student, d.detail)
	return err
}

// logAction writes down what the desk's teacher did.
func (tx deskTx) logAction(ctx context.Context, d logEntry) error {
	d.by, d.teacher = tx.teacher, tx.teacher
	return record(ctx, tx, d)
}

const logColumns = `d.at, d.action, coalesce(d.by_id, 0) AS by, coalesce(b.name, '') AS by_name,
	coalesce(d.teacher_id, 0) AS teacher, coalesce(t.name, '') AS of_name, coalesce(d.other_id, 0) AS other, coalesce(o.name, '') AS other_is,
	coalesce(d.class_id, 0) AS class, coalesce(s.name, '') AS class_name, coalesce(d.student_id, 0) AS student, d.detail
	FROM activity d LEFT JOIN teachers b ON b.id = d.by_id LEFT JOIN teachers t ON t.id = d.teacher_id LEFT JOIN teachers o ON o.id = d.other_id LEFT JOIN classes s ON s.id = d.class_id`

// latestActivity is how many deeds a page lists.
const latestActivity = 300

// Activity lists what was done to the teacher's account, classes and students, the latest
// first.
func (d *Desk) Activity(ctx context.Context) ([]LogEntry, error) {
	var list []LogEntry
	err := d.own(ctx, &list, "list what was done", `SELECT `+logColumns+
		` WHERE d.teacher_id = $1 ORDER BY d.id DESC LIMIT $2`, latestActivity)
	return list, err
}

// AccountActivity lists what was done to accounts and to the installation, the latest first.
func (s *Store) AccountActivity(ctx context.Context) ([]LogEntry, error) {
	var list []LogEntry
	err := s.db.SelectContext(ctx, &list, `SELECT `+logColumns+`
		WHERE d.class_id IS NULL AND d.student_id IS NULL AND d.action = ANY ($1) ORDER BY d.id DESC LIMIT $2`,
		[]string{string(AccountMade), string(AccountInvited), string(PasswordLink), string(PasswordChanged),
			string(SessionsEnded), string(AccountRemoved),
			string(AccountRestored), string(AccountErased), string(OwnerChanged), string(PolicyChanged)}, latestActivity)
	return list, wrap("list what was done to accounts", err)
}
