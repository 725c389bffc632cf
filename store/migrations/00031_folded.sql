-- +goose Up
-- Notes beyond an instrument are played in the nearest octave it has, where the teacher wants
-- it; the octave of the line itself may then be the program's.
ALTER TABLE placements ALTER COLUMN octaves DROP NOT NULL, ADD COLUMN folded boolean NOT NULL DEFAULT false,
    ADD CHECK (octaves IS NOT NULL OR folded);

-- +goose Down
DELETE FROM placements WHERE octaves IS NULL;
ALTER TABLE placements ALTER COLUMN octaves SET NOT NULL, DROP COLUMN folded;
