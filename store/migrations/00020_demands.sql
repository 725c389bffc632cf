-- +goose Up
-- What an exercise demands of an instrument: not its pitches alone, but lengths, rests, signs,
-- keys, meters and ways to play a note, and how hard it is, part by part, in the first year
-- ("0.28 0.33 0.12 0.08 0.00"). Exercises are read again before this is asked for.
ALTER TABLE met RENAME TO demands;
ALTER TABLE demands RENAME COLUMN pitches TO things;
ALTER TABLE demands ADD COLUMN parts text NOT NULL DEFAULT '';

-- What a teacher writes over a note of an instrument's part, or strikes out there. A note of
-- another pitch, 0 for a rest or a stroke, leaves it aside.
CREATE TABLE pencils (
    teacher_id  bigint NOT NULL,
    exercise_id bigint NOT NULL,
    instrument  text NOT NULL,
    measure     integer NOT NULL CHECK (measure >= 0),
    event       integer NOT NULL CHECK (event >= 0),
    pitch       integer NOT NULL,
    kind        text NOT NULL,
    word        text NOT NULL DEFAULT '',
    PRIMARY KEY (exercise_id, instrument, measure, event, kind, word),
    FOREIGN KEY (teacher_id, exercise_id) REFERENCES exercises (teacher_id, id) ON DELETE CASCADE
);

-- The pieces a teacher has cut an exercise into, in learning order, "1-2 3-4 1-4", the whole
-- last, and why each is one, a line each.
CREATE TABLE cuts (
    teacher_id  bigint NOT NULL,
    exercise_id bigint PRIMARY KEY,
    pieces      text NOT NULL,
    whys        text NOT NULL,
    FOREIGN KEY (teacher_id, exercise_id) REFERENCES exercises (teacher_id, id) ON DELETE CASCADE
);

-- +goose Down
DROP TABLE cuts, pencils;
DELETE FROM demands;
UPDATE exercises SET read_version = 0;
ALTER TABLE demands DROP COLUMN parts;
ALTER TABLE demands RENAME COLUMN things TO pitches;
ALTER TABLE demands RENAME TO met;
