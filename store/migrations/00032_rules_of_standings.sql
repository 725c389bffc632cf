-- +goose Up
-- By which rules a standing was added up; those of earlier ones are added up again when the
-- database is opened.
ALTER TABLE standings ADD COLUMN rules smallint NOT NULL DEFAULT 0;

-- +goose Down
ALTER TABLE standings DROP COLUMN rules;
