-- +goose Up

-- How a teacher counts, names and writes, a row each, so that one is changed without
-- the others. A setting without a row is the program's own.
CREATE TABLE settings (
    teacher_id bigint NOT NULL REFERENCES teachers ON DELETE CASCADE,
    key        text NOT NULL,
    value      text NOT NULL,
    PRIMARY KEY (teacher_id, key)
);
-- What the teacher's instruments are, or how they are taught.
CREATE TABLE instrument_kinds (
    teacher_id bigint NOT NULL REFERENCES teachers ON DELETE CASCADE,
    instrument text NOT NULL,
    kind       text NOT NULL,
    PRIMARY KEY (teacher_id, instrument)
);
-- The fingering wanted for a written note, a MIDI number, wherever it comes.
CREATE TABLE preferred (
    teacher_id bigint NOT NULL REFERENCES teachers ON DELETE CASCADE,
    instrument text NOT NULL,
    pitch      integer NOT NULL CHECK (pitch BETWEEN 0 AND 127),
    fingering  text NOT NULL,
    PRIMARY KEY (teacher_id, instrument, pitch)
);

INSERT INTO settings (teacher_id, key, value)
SELECT t.id, k.key, CASE WHEN k.value = 'true' THEN 'yes' ELSE t.settings ->> k.name END
FROM teachers t, LATERAL (SELECT name, key, t.settings ->> name AS value FROM (VALUES
    ('school', 'school'), ('slowBeat', 'slow-beat'), ('rests', 'rests'), ('words', 'words'), ('syncopa', 'syncopa'),
    ('naming', 'naming'), ('naturals', 'naturals'), ('british', 'british')) AS names (name, key)) k
WHERE k.value IS NOT NULL AND k.value NOT IN ('', 'false');
INSERT INTO settings (teacher_id, key, value)
SELECT t.id, k.key, CASE WHEN k.value = 'true' THEN 'yes' ELSE k.value END
FROM teachers t, LATERAL (SELECT key, t.settings -> 'fingers' ->> name AS value FROM (VALUES
    ('hands', 'hands'), ('spacing', 'spacing'), ('two', 'two'), ('three', 'three')) AS names (name, key)) k
WHERE k.value IS NOT NULL AND k.value NOT IN ('', 'false');
INSERT INTO settings (teacher_id, key, value)
SELECT id, 'cue-' || n, settings -> 'cues' ->> (n - 1) FROM teachers, generate_series(1, 2) n
WHERE settings -> 'cues' ->> (n - 1) <> '';
INSERT INTO settings (teacher_id, key, value)
SELECT t.id, 'colour-' || c.key, c.value FROM teachers t, jsonb_each_text(t.settings -> 'fingers' -> 'colours') c;
INSERT INTO instrument_kinds (teacher_id, instrument, kind)
SELECT DISTINCT ON (id, key) id, key, kind FROM (
    SELECT t.id, v.key, '4' AS kind FROM teachers t, jsonb_each_text(t.settings -> 'fingers' -> 'fourValves') v WHERE v.value = 'true'
    UNION ALL SELECT t.id, v.key, v.value FROM teachers t, jsonb_each_text(t.settings -> 'fingers' -> 'sticking') v WHERE v.value <> ''
    UNION ALL SELECT t.id, v.key, v.value FROM teachers t, jsonb_each_text(t.settings -> 'fingers' -> 'kinds') v WHERE v.value <> '') kinds
ORDER BY id, key;
INSERT INTO preferred (teacher_id, instrument, pitch, fingering)
SELECT t.id, i.key, n.key::integer, n.value FROM teachers t, jsonb_each(t.settings -> 'preferred') i, jsonb_each_text(i.value) n
WHERE n.value <> '';
ALTER TABLE teachers DROP COLUMN settings;

-- +goose Down
ALTER TABLE teachers ADD COLUMN settings jsonb NOT NULL DEFAULT '{}';
DROP TABLE settings, instrument_kinds, preferred;
