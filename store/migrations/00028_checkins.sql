-- +goose Up
-- When a student plays for the teacher, and what: steps as JSON, as in a lesson. The tries
-- that are marked there are a batch of the log.
CREATE TABLE checkins (
    id         bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    teacher_id bigint NOT NULL,
    student_id bigint NOT NULL,
    on_day     date NOT NULL,
    due        jsonb NOT NULL DEFAULT '[]',
    batch      bigint NOT NULL DEFAULT nextval('batches'),
    comment    text NOT NULL DEFAULT '' CHECK (char_length(comment) <= 1000),
    heard_at   timestamptz,
    FOREIGN KEY (teacher_id, student_id) REFERENCES students (teacher_id, id) ON DELETE CASCADE
);
-- One that is still to come for each student.
CREATE UNIQUE INDEX checkins_to_come ON checkins (teacher_id, student_id) WHERE heard_at IS NULL;
CREATE INDEX checkins_student ON checkins (teacher_id, student_id, id);

-- +goose Down
DROP TABLE checkins;
