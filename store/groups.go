package store

import (
	"context"
	"fmt"
)

// Bounds of groups.
const (
	MostGroups   = 20 // of a class
	LongestGroup = 40 // letters of a name
)

const groupOfTheDesk = `SELECT id FROM classes WHERE teacher_id = $1 AND id = $2 AND of_class IS NOT NULL AND removed_at IS NULL`

// memberOf is the condition that a student of the table is in the class, or the group, that an
// argument names.
func memberOf(table, argument string) string {
	return fmt.Sprintf(`(%[1]s.class_id = %[2]s OR %[1]s.id IN (SELECT student_id FROM group_members WHERE group_id = %[2]s))`,
		table, argument)
}

// classOf finds the class of the class or group $2.
const classOf = `SELECT coalesce(of_class, id) FROM classes WHERE teacher_id = $1 AND id = $2 AND removed_at IS NULL`

// Group says whether it is some students of another class.
func (c Class) Group() bool { return c.OfClass != 0 }

// AddGroup makes a group of students of a class: a class of its own for lessons, check-ins and
// practice plans, over the one log of each student. The error is ErrTaken where the class has a
// group so named, ErrNotFound where the class is a group or somebody is not in it.
func (d *Desk) AddGroup(ctx context.Context, class ClassID, name string, members []StudentID) (ClassID, error) {
	var id ClassID
	err := d.inTransaction(ctx, "make the group", func(tx deskTx) error {
		if err := tx.one(ctx, &id, `INSERT INTO classes (teacher_id, name, of_class)
			SELECT $1, $3, s.id FROM classes s WHERE s.teacher_id = $1 AND s.id = $2 AND s.removed_at IS NULL
			AND s.of_class IS NULL RETURNING id`, class, name); err != nil {
			return err
		}
		if err := tx.saveMembers(ctx, id, members); err != nil {
			return err
		}
		return tx.logAction(ctx, logEntry{action: ClassMade, class: id, detail: name})
	})
	return id, err
}

// ChangeGroup names a group and says who is in it. The errors are those of AddGroup.
func (d *Desk) ChangeGroup(ctx context.Context, group ClassID, name string, members []StudentID) error {
	return d.inTransaction(ctx, "change the group", func(tx deskTx) error {
		if err := tx.change(ctx, `UPDATE classes SET name = $3 WHERE id IN (`+groupOfTheDesk+`)`, group, name); err != nil {
			return err
		}
		if err := tx.clear(ctx, `DELETE FROM group_members WHERE teacher_id = $1 AND group_id = $2`, group); err != nil {
			return err
		}
		return tx.saveMembers(ctx, group, members)
	})
}

// GroupMembers lists who is in which group.
func (d *Desk) GroupMembers(ctx context.Context) (map[ClassID][]StudentID, error) {
	var rows []struct {
		Group   ClassID   `db:"group_id"`
		Student StudentID `db:"student_id"`
	}
	err := d.all(ctx, &rows, "list who is in the groups", `
		SELECT m.group_id, m.student_id FROM group_members m JOIN `+d.students()+` p ON p.id = m.student_id
		WHERE m.teacher_id = $1 ORDER BY m.group_id, m.student_id`)
	list := map[ClassID][]StudentID{}
	for _, r := range rows {
		list[r.Group] = append(list[r.Group], r.Student)
	}
	return list, err
}

func (tx deskTx) saveMembers(ctx context.Context, group ClassID, members []StudentID) error {
	for _, id := range members {
		if err := tx.change(ctx, `INSERT INTO group_members (teacher_id, group_id, student_id)
			SELECT $1, g.id, p.id FROM classes g JOIN students p ON p.class_id = g.of_class
			WHERE g.teacher_id = $1 AND g.id = $2 AND p.id = $3 AND p.removed_at IS NULL`, group, id); err != nil {
			return err
		}
	}
	return nil
}
