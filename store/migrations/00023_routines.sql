-- +goose Up
-- Routines of the teacher's own: their stages as JSON. Which routine is used: the exercise's,
-- else the instrument's, else the section's, else the setting 'routine', else the standard
-- one; 'own-3' is the routine 3 below, anything else one that ships.
CREATE TABLE routines (
    id         bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    teacher_id bigint NOT NULL REFERENCES teachers ON DELETE CASCADE,
    title      text NOT NULL CHECK (title <> ''),
    why        text NOT NULL DEFAULT '',
    family     text NOT NULL DEFAULT '', -- of the instruments it suits, '' for all
    steps      jsonb NOT NULL,
    UNIQUE (teacher_id, title)
);
CREATE TABLE instrument_routines (
    teacher_id bigint NOT NULL REFERENCES teachers ON DELETE CASCADE,
    instrument text NOT NULL,
    routine    text NOT NULL,
    PRIMARY KEY (teacher_id, instrument)
);
ALTER TABLE sections ADD COLUMN routine text NOT NULL DEFAULT '';
ALTER TABLE exercises ADD COLUMN routine text NOT NULL DEFAULT '';

-- What a teacher has settled for one student, whatever the routine says.
ALTER TABLE students
    ADD COLUMN clean_to_go_on smallint NOT NULL DEFAULT 0 CHECK (clean_to_go_on BETWEEN 0 AND 5), -- 0 is the routine's
    ADD COLUMN stays boolean NOT NULL DEFAULT false; -- two stumbles do not go back, but take it slower

-- A row of the log may put a piece at a stage, or at its end, with nothing tried.
ALTER TABLE attempts ADD COLUMN moved boolean NOT NULL DEFAULT false;
ALTER TABLE attempts DROP CONSTRAINT attempts_stage_check;
ALTER TABLE attempts ADD CONSTRAINT attempts_stage_check CHECK (stage ~ '^[a-z][a-z0-9-]{0,19}$' AND (stage <> 'done' OR moved));
ALTER TABLE attempts DROP CONSTRAINT attempts_check;
ALTER TABLE attempts ADD CONSTRAINT attempts_check CHECK (CASE WHEN moved THEN NOT clean AND cause = '' ELSE clean = (cause = '') END);

-- A later migration adds up the log again.
ALTER TABLE standings
    ADD COLUMN rung   smallint NOT NULL DEFAULT 0,  -- notches climbed at the stage
    ADD COLUMN slowed smallint NOT NULL DEFAULT 0,  -- notches gone down since it was last clean
    ADD COLUMN faster boolean NOT NULL DEFAULT false,
    ADD COLUMN fewer  boolean NOT NULL DEFAULT false;

-- +goose Down
ALTER TABLE standings DROP COLUMN rung, DROP COLUMN slowed, DROP COLUMN faster, DROP COLUMN fewer;
DELETE FROM attempts WHERE moved;
ALTER TABLE attempts DROP CONSTRAINT attempts_check;
ALTER TABLE attempts ADD CONSTRAINT attempts_check CHECK (clean = (cause = ''));
ALTER TABLE attempts DROP CONSTRAINT attempts_stage_check;
ALTER TABLE attempts ADD CONSTRAINT attempts_stage_check CHECK (stage ~ '^[a-z][a-z0-9-]{0,19}$' AND stage <> 'done');
ALTER TABLE attempts DROP COLUMN moved;
ALTER TABLE students DROP COLUMN clean_to_go_on, DROP COLUMN stays;
ALTER TABLE exercises DROP COLUMN routine;
ALTER TABLE sections DROP COLUMN routine;
DROP TABLE instrument_routines, routines;
