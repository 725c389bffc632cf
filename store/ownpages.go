package store

import (
	"context"
	"crypto/rand"
	"crypto/sha256"
	"fmt"
	"time"

	"github.com/jmoiron/sqlx"
)

// OwnPage is a page of a student's own, as their teacher sees it.
type OwnPage struct {
	Student StudentID `db:"student_id"`
	Key     string    // of its link
	PIN     bool      // one is asked for
	Locked  bool      // wrong PINs have closed it until another is set
	Made    time.Time
}

// The limits of wrong PINs in a row: after some the page waits, after more it stays closed
// until the teacher sets another. With four digits, that is less than one guess in 600.
const (
	WrongBeforeWait  = 5
	WrongBeforeClose = 15
	PINWait          = 15 * time.Minute
)

const ownPageColumns = `o.student_id, o.key, o.pin_hash <> '' AS pin, o.wrong >= 15 AS locked, o.made_at AS made`

// OwnPages lists the pages of a class's students. They are the teacher's business alone.
func (d *Desk) OwnPages(ctx context.Context, class ClassID) ([]OwnPage, error) {
	var list []OwnPage
	err := d.own(ctx, &list, "list the students' pages", `
		SELECT `+ownPageColumns+` FROM own_pages o JOIN `+d.students()+
		` p ON p.id = o.student_id WHERE o.teacher_id = $1 AND `+memberOf("p", "$2")+` ORDER BY o.student_id`, class)
	return list, err
}

// OwnPageOf finds a student's page. The error is ErrNotFound where there is none.
func (d *Desk) OwnPageOf(ctx context.Context, student StudentID) (OwnPage, error) {
	var list []OwnPage
	err := d.own(ctx, &list, "find the student's page", `
		SELECT `+ownPageColumns+` FROM own_pages o JOIN `+d.students()+
		` p ON p.id = o.student_id WHERE o.teacher_id = $1 AND o.student_id = $2`, student)
	if err != nil {
		return OwnPage{}, err
	}
	if len(list) == 0 {
		return OwnPage{}, fmt.Errorf("find the student's page: %w", ErrNotFound)
	}
	return list[0], nil
}

// MakeOwnPages gives students pages of their own with new keys; what led to an earlier one
// leads nowhere then. A PIN that was set stays.
func (d *Desk) MakeOwnPages(ctx context.Context, students ...StudentID) error {
	return d.inTransaction(ctx, "make the student's page", func(tx deskTx) error {
		for _, student := range students {
			key := rand.Text()
			if err := tx.change(ctx, `
				INSERT INTO own_pages (teacher_id, student_id, key) SELECT $1, p.id, $3 FROM `+tx.students()+` p WHERE p.id = $2
				ON CONFLICT (teacher_id, student_id) DO UPDATE SET key = excluded.key, wrong = 0, wrong_at = NULL, made_at = now()`, student, key); err != nil {
				return err
			}
			if err := tx.change(ctx, `INSERT INTO own_page_keys (teacher_id, student_id, hash) VALUES ($1, $2, $3)`, student, keyHash(key)); err != nil {
				return err
			}
			if err := tx.logAction(ctx, logEntry{action: OwnPageMade, student: student}); err != nil {
				return err
			}
		}
		return nil
	})
}

// EndOwnPage ends a student's page: its link leads nowhere.
func (d *Desk) EndOwnPage(ctx context.Context, student StudentID) error {
	return d.inTransaction(ctx, "end the student's page", func(tx deskTx) error {
		if err := tx.change(ctx, `DELETE FROM own_pages WHERE teacher_id = $1 AND student_id = $2`, student); err != nil {
			return err
		}
		return tx.logAction(ctx, logEntry{action: OwnPageEnded, student: student})
	})
}

// SetPIN has a student's page ask for a PIN, or for none with "". What was wrong before is
// forgotten.
func (d *Desk) SetPIN(ctx context.Context, student StudentID, pin string) error {
	hash := ""
	if pin != "" {
		hash = hashed(pin)
	}
	return d.change(ctx, "set the PIN", `UPDATE own_pages SET pin_hash = $3, wrong = 0, wrong_at = NULL
		WHERE teacher_id = $1 AND student_id = $2`, student, hash)
}

// AtHome is the store as a student sees it who has opened their own page: what is theirs, and
// nothing of anybody else.
type AtHome struct {
	Student Student
	Key     string
	PIN     bool   // one is asked for
	Stamp   string // changes when the PIN does, so that it is asked for again
	desk    *Desk
}

// Desk is the teacher's desk with this one student at it, to look at.
func (h AtHome) Desk() *Desk { return h.desk }

// AtHome finds whose page a key opens. The error is ErrNotFound where it opens none.
func (s *Store) AtHome(ctx context.Context, key string) (AtHome, error) {
	var row struct {
		TeacherID TeacherID `db:"teacher_id"`
		StudentID StudentID `db:"student_id"`
		ClassID   ClassID   `db:"class_id"`
		Class     string
		PinHash   string `db:"pin_hash"`
	}
	if err := s.one(ctx, &row, "open the student's page", `
		SELECT o.teacher_id, o.student_id, p.class_id, c.name AS class, o.pin_hash FROM own_pages o
		JOIN students p ON p.id = o.student_id JOIN classes c ON c.id = p.class_id JOIN teachers t ON t.id = o.teacher_id
		WHERE o.key = $1 AND t.removed_at IS NULL`, key); err != nil {
		return AtHome{}, err
	}
	d := s.For(row.TeacherID)
	d.guest, d.only = Guest{Class: row.ClassID, Name: row.Class}, row.StudentID
	h := AtHome{Key: key, PIN: row.PinHash != "", desk: d}
	if h.PIN {
		h.Stamp = row.PinHash[len(row.PinHash)-12:]
	}
	var err error
	h.Student, err = d.StudentByID(ctx, row.StudentID) // who may have left, or been taken away
	return h, err
}

// MostEarlierKeys bounds how many keys are asked about at once.
const MostEarlierKeys = 10

// EarlierKeys says which of some keys have led to the student's page before.
func (h AtHome) EarlierKeys(ctx context.Context, keys []string) ([]string, error) {
	hashes := map[string]string{}
	var asked [][]byte
	for _, key := range keys[:min(len(keys), MostEarlierKeys)] {
		hash := keyHash(key)
		hashes[string(hash)] = key
		asked = append(asked, hash)
	}
	var known [][]byte
	err := h.desk.all(ctx, &known, "find the earlier links", `
		SELECT hash FROM own_page_keys WHERE teacher_id = $1 AND student_id = $2 AND hash = ANY ($3)`, h.Student.ID, asked)
	list := make([]string, len(known))
	for k, hash := range known {
		list[k] = hashes[string(hash)]
	}
	return list, err
}

// keyHash is what is kept of a key for good.
func keyHash(key string) []byte {
	hash := sha256.Sum256([]byte(key))
	return hash[:]
}

// Tried is what came of a PIN that was typed.
type Tried int

// What may come of it.
const (
	PINWrong  Tried = iota
	PINRight        // the page opens
	PINWaits        // too many were wrong: it is not looked at for a while
	PINClosed       // the teacher has to set another
)

// TryPIN says whether a PIN is right, and counts those that are not.
func (h AtHome) TryPIN(ctx context.Context, pin string) (Tried, error) {
	came := PINWrong
	err := h.together(ctx, "look at the PIN", func(tx deskTx) error {
		var page struct {
			PinHash string `db:"pin_hash"`
			Wrong   int
			Waits   bool
		}
		if err := tx.one(ctx, &page, `
			SELECT pin_hash, wrong, wrong >= $3 AND wrong_at > now() - make_interval(secs => $4) AS waits
			FROM own_pages WHERE teacher_id = $1 AND student_id = $2 FOR UPDATE`, h.Student.ID, WrongBeforeWait,
			PINWait.Seconds()); err != nil {
			return err
		}
		switch {
		case page.Wrong >= WrongBeforeClose:
			came = PINClosed
			return nil
		case page.Waits:
			came = PINWaits
			return nil
		}
		if ok, _ := fits(page.PinHash, pin); ok {
			came = PINRight
			return tx.change(ctx, `UPDATE own_pages SET wrong = 0, wrong_at = NULL
				WHERE teacher_id = $1 AND student_id = $2`, h.Student.ID)
		}
		if page.Wrong+1 >= WrongBeforeWait {
			came = PINWaits
		}
		if page.Wrong+1 >= WrongBeforeClose {
			came = PINClosed
		}
		return tx.change(ctx, `UPDATE own_pages SET wrong = wrong + 1, wrong_at = now()
			WHERE teacher_id = $1 AND student_id = $2`, h.Student.ID)
	})
	return came, err
}

// together runs do in a transaction at the desk, for what is the student's own to write.
func (h AtHome) together(ctx context.Context, doing string, do func(deskTx) error) error {
	return inTransaction(ctx, h.desk.db, doing, func(tx *sqlx.Tx) error { return do(deskTx{tx, h.desk}) })
}
