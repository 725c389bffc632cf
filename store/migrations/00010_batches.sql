-- +goose Up

-- Tries that were logged together, as for a whole section, and are taken back together.
CREATE SEQUENCE batches;
ALTER TABLE attempts ADD COLUMN batch bigint;
CREATE INDEX attempts_batch ON attempts (teacher_id, batch) WHERE batch IS NOT NULL;

-- +goose Down
ALTER TABLE attempts DROP COLUMN batch;
DROP SEQUENCE batches;
