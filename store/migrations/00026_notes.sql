-- +goose Up
-- What the teacher notes of a student.
ALTER TABLE students ADD COLUMN note text NOT NULL DEFAULT '' CHECK (char_length(note) <= 1000);

-- +goose Down
ALTER TABLE students DROP COLUMN note;
