-- +goose Up
-- What was taken away waits to be put back or erased. A student who has left is kept,
-- log and all, and stands in no list.
ALTER TABLE books    ADD COLUMN removed_at timestamptz;
ALTER TABLE sections ADD COLUMN removed_at timestamptz;
ALTER TABLE students ADD COLUMN removed_at timestamptz, ADD COLUMN left_at timestamptz;
ALTER TABLE teachers ADD COLUMN removed_at timestamptz;
ALTER TABLE books    DROP CONSTRAINT books_teacher_id_title_key;
ALTER TABLE sections DROP CONSTRAINT sections_teacher_id_name_key;
CREATE UNIQUE INDEX books_title   ON books    (teacher_id, title) WHERE removed_at IS NULL;
CREATE UNIQUE INDEX sections_name ON sections (teacher_id, name)  WHERE removed_at IS NULL;
-- Exercises were kept without an end before: their days begin now.
UPDATE exercises SET removed_at = now() WHERE removed_at IS NOT NULL;

-- +goose Down
DELETE FROM books    WHERE removed_at IS NOT NULL;
DELETE FROM sections WHERE removed_at IS NOT NULL;
DELETE FROM students WHERE removed_at IS NOT NULL;
DELETE FROM teachers WHERE removed_at IS NOT NULL;
DROP INDEX books_title, sections_name;
ALTER TABLE books    ADD CONSTRAINT books_teacher_id_title_key   UNIQUE (teacher_id, title), DROP COLUMN removed_at;
ALTER TABLE sections ADD CONSTRAINT sections_teacher_id_name_key UNIQUE (teacher_id, name),  DROP COLUMN removed_at;
ALTER TABLE students DROP COLUMN removed_at, DROP COLUMN left_at;
ALTER TABLE teachers DROP COLUMN removed_at;
