-- +goose Up

-- What was brought in, once for each teacher however many exercises and parts are
-- made from it. The hash is the SHA-256 of format, line feed and content, in hex.
CREATE TABLE sources (
    teacher_id bigint NOT NULL REFERENCES teachers ON DELETE CASCADE,
    hash       text NOT NULL,
    format     text NOT NULL CHECK (format IN ('abc', 'musicxml')),
    content    text NOT NULL,
    PRIMARY KEY (teacher_id, hash)
);
INSERT INTO sources (teacher_id, hash, format, content)
SELECT DISTINCT teacher_id, encode(sha256(convert_to(format || E'\n' || source, 'UTF8')), 'hex'), format, source FROM (
    SELECT teacher_id, format, source FROM exercises UNION ALL SELECT teacher_id, format, source FROM overrides) brought;

ALTER TABLE exercises ADD COLUMN hash text;
ALTER TABLE overrides ADD COLUMN hash text;
UPDATE exercises SET hash = encode(sha256(convert_to(format || E'\n' || source, 'UTF8')), 'hex');
UPDATE overrides SET hash = encode(sha256(convert_to(format || E'\n' || source, 'UTF8')), 'hex');
ALTER TABLE exercises ALTER COLUMN hash SET NOT NULL, DROP COLUMN format, DROP COLUMN source,
    ADD FOREIGN KEY (teacher_id, hash) REFERENCES sources (teacher_id, hash),
    ADD COLUMN revision      integer NOT NULL DEFAULT 1, -- counts the changes to the exercise and to its own parts
    ADD COLUMN read_revision integer NOT NULL DEFAULT 0, -- which of them the outlines below were read from
    ADD COLUMN read_version  integer NOT NULL DEFAULT 0, -- and by which version of the rules
    ADD COLUMN file_parts    integer NOT NULL DEFAULT 0, -- how many parts the source holds
    ADD COLUMN unread        text NOT NULL DEFAULT '';   -- why it cannot be read, where it cannot
ALTER TABLE overrides ALTER COLUMN hash SET NOT NULL, DROP COLUMN format, DROP COLUMN source,
    ADD FOREIGN KEY (teacher_id, hash) REFERENCES sources (teacher_id, hash);
CREATE INDEX exercises_source ON exercises (teacher_id, hash);
CREATE INDEX overrides_source ON overrides (teacher_id, hash);

-- What pages need of a part that is not open: of the exercise's source (instrument
-- '') and of each part of its own. It can be made again from the sources.
CREATE TABLE outlines (
    teacher_id  bigint NOT NULL,
    exercise_id bigint NOT NULL,
    instrument  text NOT NULL,
    signatures  text NOT NULL,    -- "4/4, B flat major"
    measures    integer NOT NULL, -- full ones
    pieces      text NOT NULL,    -- "1-2 3-4 1-4"
    PRIMARY KEY (exercise_id, instrument),
    FOREIGN KEY (teacher_id, exercise_id) REFERENCES exercises (teacher_id, id) ON DELETE CASCADE
);

-- The written pitches an instrument meets in an exercise, in the order met: "B4 Eb5".
CREATE TABLE met (
    teacher_id  bigint NOT NULL,
    exercise_id bigint NOT NULL,
    instrument  text NOT NULL,
    pitches     text NOT NULL,
    PRIMARY KEY (exercise_id, instrument),
    FOREIGN KEY (teacher_id, exercise_id) REFERENCES exercises (teacher_id, id) ON DELETE CASCADE
);

-- +goose Down
DROP TABLE met, outlines;
ALTER TABLE exercises ADD COLUMN format text, ADD COLUMN source text;
ALTER TABLE overrides ADD COLUMN format text, ADD COLUMN source text;
UPDATE exercises x SET format = s.format, source = s.content FROM sources s WHERE s.teacher_id = x.teacher_id AND s.hash = x.hash;
UPDATE overrides x SET format = s.format, source = s.content FROM sources s WHERE s.teacher_id = x.teacher_id AND s.hash = x.hash;
ALTER TABLE exercises DROP COLUMN hash, DROP COLUMN revision, DROP COLUMN read_revision, DROP COLUMN read_version, DROP COLUMN file_parts, DROP COLUMN unread,
    ALTER COLUMN format SET NOT NULL, ALTER COLUMN source SET NOT NULL;
ALTER TABLE overrides DROP COLUMN hash, ALTER COLUMN format SET NOT NULL, ALTER COLUMN source SET NOT NULL;
DROP TABLE sources;
