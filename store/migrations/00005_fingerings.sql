-- +goose Up

-- The fingering a teacher chose for one place of an instrument's part: a measure and
-- an event of it, counted from 0, with the written pitch (a MIDI number) it was chosen
-- for, so that it is left aside where an edit has put another note there.
CREATE TABLE fingerings (
    teacher_id  bigint NOT NULL,
    exercise_id bigint NOT NULL,
    instrument  text NOT NULL,
    measure     integer NOT NULL CHECK (measure >= 0),
    event       integer NOT NULL CHECK (event >= 0),
    pitch       integer NOT NULL CHECK (pitch BETWEEN 0 AND 127),
    fingering   text NOT NULL,
    PRIMARY KEY (exercise_id, instrument, measure, event),
    FOREIGN KEY (teacher_id, exercise_id) REFERENCES exercises (teacher_id, id) ON DELETE CASCADE
);

-- +goose Down
DROP TABLE fingerings;
