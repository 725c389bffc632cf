package store

import (
	"context"
	"strings"

	"unhurriedbench/core/breakdown"
)

// CutByHand keeps the pieces of an exercise, in learning order, in place of those the
// program cuts; none gives it back to the program.
func (d *Desk) CutByHand(ctx context.Context, exercise ExerciseID, pieces []breakdown.HandPiece) error {
	if len(pieces) == 0 {
		return d.clear(ctx, "put the pieces back", `DELETE FROM cuts WHERE teacher_id = $1 AND exercise_id = $2`, exercise)
	}
	keys, whys := cutText(pieces)
	return d.change(ctx, "keep the pieces", `
		INSERT INTO cuts (teacher_id, exercise_id, pieces, whys)
		SELECT $1, id, $3, $4 FROM exercises WHERE teacher_id = $1 AND id = $2 AND removed_at IS NULL
		ON CONFLICT (exercise_id) DO UPDATE SET pieces = $3, whys = $4`, exercise, keys, whys)
}

// cutText writes pieces as they are kept.
func cutText(pieces []breakdown.HandPiece) (keys, whys string) {
	list, lines := make([]breakdown.PieceKey, len(pieces)), make([]string, len(pieces))
	for k, p := range pieces {
		list[k], lines[k] = p.Key, strings.ReplaceAll(p.Why, "\n", " ")
	}
	return piecesText(list), strings.Join(lines, "\n")
}

// handPieces reads what cutText wrote.
func handPieces(keys, whys string) []breakdown.HandPiece {
	var list []breakdown.HandPiece
	lines := strings.Split(whys, "\n")
	for k, key := range piecesFrom(keys) {
		p := breakdown.HandPiece{Key: key}
		if k < len(lines) {
			p.Why = lines[k]
		}
		list = append(list, p)
	}
	return list
}
