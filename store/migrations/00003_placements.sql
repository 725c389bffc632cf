-- +goose Up

-- The octave a teacher chose for an instrument's part of an exercise, against the
-- octave of its source; without a row the program suggests one.
CREATE TABLE placements (
    teacher_id  bigint NOT NULL,
    exercise_id bigint NOT NULL,
    instrument  text NOT NULL,
    octaves     integer NOT NULL CHECK (octaves BETWEEN -5 AND 5),
    PRIMARY KEY (exercise_id, instrument),
    FOREIGN KEY (teacher_id, exercise_id) REFERENCES exercises (teacher_id, id) ON DELETE CASCADE
);

-- +goose Down
DROP TABLE placements;
