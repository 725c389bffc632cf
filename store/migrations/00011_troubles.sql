-- +goose Up

-- What has gone wrong since a piece last went on, and how it was tried last. The next
-- migration adds up the log again.
ALTER TABLE standings
    ADD COLUMN stumbles smallint NOT NULL DEFAULT 0,
    ADD COLUMN over     text NOT NULL DEFAULT '', -- of each cause, in the order of the program: '1 0 2 0'
    ADD COLUMN since    timestamptz,              -- the first of them
    ADD COLUMN tempo    integer NOT NULL DEFAULT 0, -- of the last try
    ADD COLUMN at       timestamptz NOT NULL DEFAULT now(); -- of the last try

-- +goose Down
ALTER TABLE standings DROP COLUMN stumbles, DROP COLUMN over, DROP COLUMN since, DROP COLUMN tempo, DROP COLUMN at;
