-- +goose Up
-- How often somebody has guessed at a password, minute by minute, from an address or at an
-- account, which are known by a hash alone. Servers count together here.
CREATE UNLOGGED TABLE guesses (
    hash  bytea NOT NULL,
    since timestamptz NOT NULL,
    n     integer NOT NULL,
    PRIMARY KEY (hash, since)
);

-- +goose Down
DROP TABLE guesses;
