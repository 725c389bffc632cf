-- +goose Up
-- What a student does at home until a day: on which weekdays (0 is Sunday), how many minutes,
-- days with other minutes, and the lines as they were laid out, as JSON.
CREATE TABLE homeplans (
    teacher_id bigint NOT NULL,
    student_id bigint NOT NULL,
    from_day   date NOT NULL,
    until_day  date NOT NULL CHECK (until_day > from_day),
    weekdays   smallint[] NOT NULL,
    minutes    smallint NOT NULL CHECK (minutes BETWEEN 1 AND 60),
    changed    jsonb NOT NULL DEFAULT '{}',
    plan       jsonb NOT NULL,
    made_at    timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (teacher_id, student_id),
    FOREIGN KEY (teacher_id, student_id) REFERENCES students (teacher_id, id) ON DELETE CASCADE
);

-- +goose Down
DROP TABLE homeplans;
