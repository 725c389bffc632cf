-- +goose Up

-- A stage is kept by its name, so that routines may differ in their order.
ALTER TABLE attempts DROP CONSTRAINT attempts_stage_check;
ALTER TABLE attempts ALTER COLUMN stage TYPE text USING (ARRAY['count', 'name', 'finger', 'play'])[stage + 1];
ALTER TABLE attempts ADD CONSTRAINT attempts_stage_check CHECK (stage ~ '^[a-z][a-z0-9-]{0,19}$' AND stage <> 'done');
CREATE INDEX attempts_piece ON attempts (teacher_id, student_id, exercise_id, first_measure, last_measure, id);

-- Standings keep all that the log adds up to. The next migration adds it up again.
TRUNCATE standings;
ALTER TABLE standings
    ALTER COLUMN stage TYPE text USING '',
    ADD COLUMN stumble smallint NOT NULL, -- stumbles in a row at that stage
    ADD COLUMN cause   text NOT NULL,     -- of them, or of the way back
    ADD COLUMN slower  boolean NOT NULL,  -- the last step was to take it a notch slower
    ADD COLUMN advice  text NOT NULL;     -- what to do next and why

-- +goose Down
DROP INDEX attempts_piece;
ALTER TABLE attempts DROP CONSTRAINT attempts_stage_check;
ALTER TABLE attempts ALTER COLUMN stage TYPE smallint USING coalesce(array_position(ARRAY['count', 'name', 'finger', 'play'], stage) - 1, 3);
ALTER TABLE attempts ADD CONSTRAINT attempts_stage_check CHECK (stage BETWEEN 0 AND 3);
TRUNCATE standings;
ALTER TABLE standings DROP COLUMN stumble, DROP COLUMN cause, DROP COLUMN slower, DROP COLUMN advice,
    ALTER COLUMN stage TYPE smallint USING 0;
