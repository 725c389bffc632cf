-- +goose Up

-- The owner looks after the installation: invites teachers, and lets them choose another
-- password. It begins with the first account that is no demo.
ALTER TABLE teachers ADD COLUMN owner boolean NOT NULL DEFAULT false;
UPDATE teachers SET owner = true WHERE id = (SELECT min(id) FROM teachers WHERE NOT demo AND password_hash <> '');

-- Links that are handed over once. A link itself is not kept, only what it is known by.
CREATE TABLE invitations (
    hash       bytea PRIMARY KEY,
    teacher_id bigint REFERENCES teachers ON DELETE CASCADE, -- who chooses another password; none for a new teacher
    until      timestamptz NOT NULL
);

-- +goose Down
DROP TABLE invitations;
ALTER TABLE teachers DROP COLUMN owner;
