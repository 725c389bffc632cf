-- +goose Up

-- Sessions that were begun under an earlier number have ended: a password was changed,
-- or somebody signed out everywhere.
ALTER TABLE teachers ADD COLUMN sessions integer NOT NULL DEFAULT 0;

-- +goose Down
ALTER TABLE teachers DROP COLUMN sessions;
