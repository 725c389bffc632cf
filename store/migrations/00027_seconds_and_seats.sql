-- +goose Up
-- A student's second instrument is a row of its own, with its own log, that goes with the
-- first. Where somebody sits is a row of seats, from 1 at the front, and a place in it, from
-- 1 at the left as the teacher sees it; 0 is nowhere yet.
ALTER TABLE students
    ADD COLUMN also_of bigint UNIQUE CHECK (also_of <> id),
    ADD COLUMN seat_row smallint NOT NULL DEFAULT 0 CHECK (seat_row BETWEEN 0 AND 12),
    ADD COLUMN seat_place smallint NOT NULL DEFAULT 0 CHECK (seat_place BETWEEN 0 AND 40),
    ADD FOREIGN KEY (teacher_id, also_of) REFERENCES students (teacher_id, id) ON DELETE CASCADE;

-- +goose Down
ALTER TABLE students DROP COLUMN also_of, DROP COLUMN seat_row, DROP COLUMN seat_place;
