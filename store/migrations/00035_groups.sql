-- +goose Up
-- A group is a class of some students of another: it has lessons of its own over their one log.
ALTER TABLE classes ADD of_class bigint,
    ADD CONSTRAINT classes_of_class_fkey FOREIGN KEY (teacher_id, of_class) REFERENCES classes (teacher_id, id) ON DELETE CASCADE;
CREATE TABLE group_members (
    teacher_id bigint NOT NULL,
    group_id bigint NOT NULL,
    student_id bigint NOT NULL,
    PRIMARY KEY (group_id, student_id),
    FOREIGN KEY (teacher_id, group_id) REFERENCES classes (teacher_id, id) ON DELETE CASCADE,
    FOREIGN KEY (teacher_id, student_id) REFERENCES students (teacher_id, id) ON DELETE CASCADE
);
CREATE INDEX group_members_student ON group_members (student_id);
CREATE INDEX classes_of_class ON classes (of_class);
DROP INDEX IF EXISTS classes_name;
CREATE UNIQUE INDEX classes_name ON classes (teacher_id, coalesce(of_class, 0), name) WHERE (removed_at IS NULL);

-- +goose Down
DROP INDEX classes_name;
DROP TABLE group_members;
DELETE FROM classes WHERE of_class IS NOT NULL;
ALTER TABLE classes DROP of_class;
CREATE UNIQUE INDEX classes_name ON classes (teacher_id, name) WHERE (removed_at IS NULL);
