-- +goose Up
-- What is met in an exercise is more than its pitches: lengths, rests, signs, keys, meters
-- and ways to play a note. Exercises are read again before this is asked for.
ALTER TABLE met RENAME COLUMN pitches TO things;

-- +goose Down
DELETE FROM met;
UPDATE exercises SET read_version = 0;
ALTER TABLE met RENAME COLUMN things TO pitches;
