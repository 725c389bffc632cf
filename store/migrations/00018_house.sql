-- +goose Up
-- What the owner has chosen for the whole installation: one row, or none.
CREATE TABLE house (
    one           boolean PRIMARY KEY DEFAULT true CHECK (one),
    longest_days  integer NOT NULL, -- a session
    idle_days     integer NOT NULL, -- a session without use
    idle_minutes  integer NOT NULL, -- the same on a shared computer
    retain_months integer NOT NULL  -- a student who has left; 0 has no end
);
-- Who did what to accounts, sections and students. It outlives what it tells of, and
-- names nobody: teachers are found by their id while they have an account.
CREATE TABLE deeds (
    id         bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    at         timestamptz NOT NULL DEFAULT now(),
    deed       text NOT NULL,
    by_id      bigint,                   -- a teacher; none for a command on the machine
    teacher_id bigint,                   -- whose account, section or student it is
    other_id   bigint,                   -- a colleague whom it concerns
    section_id bigint,
    student_id bigint,
    detail     text NOT NULL DEFAULT ''  -- a section's name, or a figure
);
CREATE INDEX deeds_teacher ON deeds (teacher_id, id);

-- +goose Down
DROP TABLE house, deeds;
