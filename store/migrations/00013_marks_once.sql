-- +goose Up

-- Each press of a mark carries a key, so that one sent again changes nothing.
ALTER TABLE attempts ADD COLUMN press text CHECK (length(press) BETWEEN 1 AND 64);
CREATE UNIQUE INDEX attempts_press ON attempts (teacher_id, press, student_id) WHERE press IS NOT NULL;

-- +goose Down
DROP INDEX attempts_press;
ALTER TABLE attempts DROP COLUMN press;
