-- +goose Up
-- Lessons of a section: what is to be done in which order, as JSON, and how far it is. One
-- that has not begun is planned; one that has ended is kept for what it says about the next.
CREATE TABLE lessons (
    id         bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    teacher_id bigint NOT NULL,
    section_id bigint NOT NULL,
    plan       jsonb NOT NULL,
    step       integer NOT NULL DEFAULT 0, -- of the plan, that the class is at, from 0
    absent     bigint[] NOT NULL DEFAULT '{}', -- students
    made_at    timestamptz NOT NULL DEFAULT now(),
    begun_at   timestamptz,
    ended_at   timestamptz,
    FOREIGN KEY (teacher_id, section_id) REFERENCES sections (teacher_id, id) ON DELETE CASCADE,
    CHECK (ended_at IS NULL OR begun_at IS NOT NULL)
);
CREATE INDEX lessons_section ON lessons (teacher_id, section_id, id);
CREATE INDEX attempts_at ON attempts (teacher_id, at);
CREATE INDEX attempts_newest ON attempts (teacher_id, id);

-- +goose Down
DROP INDEX attempts_at, attempts_newest;
DROP TABLE lessons;
