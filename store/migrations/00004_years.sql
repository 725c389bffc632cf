-- +goose Up

-- The year of playing a section is in, whose ranges its parts are to suit.
ALTER TABLE sections ADD COLUMN year integer NOT NULL DEFAULT 1 CHECK (year BETWEEN 1 AND 3);

-- +goose Down
ALTER TABLE sections DROP COLUMN year;
