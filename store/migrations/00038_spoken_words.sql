-- +goose Up
-- Words of led runs that a teacher has recorded, as sound files.
CREATE TABLE spoken_words (
    teacher_id bigint NOT NULL REFERENCES teachers (id) ON DELETE CASCADE,
    word text NOT NULL CHECK (word <> ''),
    vowel double precision NOT NULL CHECK (vowel >= 0),
    sound bytea NOT NULL,
    PRIMARY KEY (teacher_id, word)
);

-- +goose Down
DROP TABLE spoken_words;
