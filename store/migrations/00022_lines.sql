-- +goose Up
-- A second line of an exercise: another exercise that is played with it, its line B, or the
-- exercise itself as a round, entering some full measures later. Which line a section or a
-- student has; a student's own goes before the section's.
CREATE TABLE second_lines (
    teacher_id  bigint NOT NULL,
    exercise_id bigint PRIMARY KEY,
    other_id    bigint UNIQUE,
    entry       integer NOT NULL DEFAULT 0 CHECK (entry BETWEEN 0 AND 64),
    FOREIGN KEY (teacher_id, exercise_id) REFERENCES exercises (teacher_id, id) ON DELETE CASCADE,
    FOREIGN KEY (teacher_id, other_id) REFERENCES exercises (teacher_id, id) ON DELETE CASCADE,
    CHECK ((other_id IS NULL) = (entry > 0)),
    CHECK (other_id <> exercise_id)
);
ALTER TABLE sections ADD COLUMN line text NOT NULL DEFAULT '' CHECK (line IN ('', 'A', 'B'));
ALTER TABLE students ADD COLUMN line text NOT NULL DEFAULT '' CHECK (line IN ('', 'A', 'B'));

-- +goose Down
ALTER TABLE students DROP COLUMN line;
ALTER TABLE sections DROP COLUMN line;
DROP TABLE second_lines;
