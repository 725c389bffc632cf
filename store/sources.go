package store

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
)

// Hash names a source by its content.
func (s Source) Hash() string {
	sum := sha256.Sum256([]byte(s.Format + "\n" + s.Content))
	return hex.EncodeToString(sum[:])
}

// Source finds what was brought in by its hash.
func (d *Desk) Source(ctx context.Context, hash string) (Source, error) {
	var s Source
	err := d.one(ctx, &s, "find the source", `SELECT format, content FROM sources
		WHERE teacher_id = $1 AND hash = $2`, hash)
	return s, err
}

// saveSource keeps a source, unless it is there already.
func (tx deskTx) saveSource(ctx context.Context, s Source) (string, error) {
	if err := tx.lockSources(ctx); err != nil {
		return "", err
	}
	hash := s.Hash()
	return hash, tx.change(ctx, `
		INSERT INTO sources (teacher_id, hash, format, content) VALUES ($1, $2, $3, $4)
		ON CONFLICT (teacher_id, hash) DO UPDATE SET format = excluded.format`, hash, s.Format, s.Content)
}

// lockSources makes changes to a teacher's sources wait for each other, so that none is
// dropped that an exercise is about to be made from.
func (tx deskTx) lockSources(ctx context.Context) error {
	var locked TeacherID
	return tx.one(ctx, &locked, `SELECT id FROM teachers WHERE id = $1 FOR NO KEY UPDATE`)
}

// deleteUnusedSources lets go of sources that nothing is made from any more.
func (tx deskTx) deleteUnusedSources(ctx context.Context) error {
	if err := tx.lockSources(ctx); err != nil {
		return err
	}
	return tx.clear(ctx, `
		DELETE FROM sources s WHERE s.teacher_id = $1
		AND NOT EXISTS (SELECT 1 FROM exercises e WHERE e.teacher_id = s.teacher_id AND e.hash = s.hash)
		AND NOT EXISTS (SELECT 1 FROM overrides o WHERE o.teacher_id = s.teacher_id AND o.hash = s.hash)`)
}
