-- +goose Up

ALTER TABLE teachers ADD COLUMN settings jsonb NOT NULL DEFAULT '{}';
ALTER TABLE sections ADD COLUMN school text NOT NULL DEFAULT ''; -- of counting; '' is the teacher's own

-- A part that differs from the one made from the exercise's source, such as a
-- book's edition for one instrument.
CREATE TABLE overrides (
    teacher_id  bigint NOT NULL,
    exercise_id bigint NOT NULL,
    instrument  text NOT NULL,
    format      text NOT NULL CHECK (format IN ('abc', 'musicxml')),
    source      text NOT NULL,
    part        integer NOT NULL DEFAULT 0, -- which part of the source, from 0
    PRIMARY KEY (exercise_id, instrument),
    FOREIGN KEY (teacher_id, exercise_id) REFERENCES exercises (teacher_id, id) ON DELETE CASCADE
);

ALTER TABLE exercises ADD COLUMN part integer NOT NULL DEFAULT 0; -- which part of its source, from 0

-- +goose Down
ALTER TABLE exercises DROP COLUMN part;
DROP TABLE overrides;
ALTER TABLE sections DROP COLUMN school;
ALTER TABLE teachers DROP COLUMN settings;
