-- +goose Up
-- In which measure of what was tried it stumbled, 0 where that was not said.
ALTER TABLE attempts ADD measure integer NOT NULL DEFAULT 0 CHECK (measure >= 0);

-- +goose Down
ALTER TABLE attempts DROP measure;
