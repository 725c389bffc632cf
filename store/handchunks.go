package store

import (
	"context"
	"strings"

	"unhurriedbench/core/breakdown"
)

// SaveHandChunks keeps the chunks of an exercise, in learning order, in place of those the
// program cuts; none gives it back to the program.
func (d *Desk) SaveHandChunks(ctx context.Context, exercise ExerciseID, chunks []breakdown.HandChunk) error {
	return d.inTransaction(ctx, "keep the chunks", func(tx deskTx) error {
		var err error
		if len(chunks) == 0 {
			err = tx.clear(ctx, `DELETE FROM hand_chunks WHERE teacher_id = $1 AND exercise_id = $2`, exercise)
		} else {
			keys, whys := handChunksText(chunks)
			err = tx.change(ctx, `
				INSERT INTO hand_chunks (teacher_id, exercise_id, chunks, whys)
				SELECT $1, id, $3, $4 FROM exercises WHERE teacher_id = $1 AND id = $2 AND removed_at IS NULL
				ON CONFLICT (exercise_id) DO UPDATE SET chunks = $3, whys = $4`, exercise, keys, whys)
		}
		if err != nil {
			return err
		}
		return tx.refold(ctx, `a.exercise_id = $2`, exercise)
	})
}

// handChunksText writes chunks as they are kept.
func handChunksText(chunks []breakdown.HandChunk) (keys, whys string) {
	list, lines := make([]breakdown.ChunkKey, len(chunks)), make([]string, len(chunks))
	for k, p := range chunks {
		list[k], lines[k] = p.Key, strings.ReplaceAll(p.Why, "\n", " ")
	}
	return chunksText(list), strings.Join(lines, "\n")
}

// handChunks reads what cutText wrote.
func handChunks(keys, whys string) []breakdown.HandChunk {
	var list []breakdown.HandChunk
	lines := strings.Split(whys, "\n")
	for k, key := range chunksFrom(keys) {
		p := breakdown.HandChunk{Key: key}
		if k < len(lines) {
			p.Why = lines[k]
		}
		list = append(list, p)
	}
	return list
}
