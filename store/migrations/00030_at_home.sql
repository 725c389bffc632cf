-- +goose Up
-- A student's own page: the key of its link, and where one is wanted a PIN, as a hash, with how
-- often in a row it was wrong.
CREATE TABLE own_pages (
    teacher_id bigint NOT NULL,
    student_id bigint NOT NULL,
    key        text NOT NULL UNIQUE CHECK (char_length(key) >= 26),
    pin_hash   text NOT NULL DEFAULT '',
    wrong      smallint NOT NULL DEFAULT 0,
    wrong_at   timestamptz,
    made_at    timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (teacher_id, student_id),
    FOREIGN KEY (teacher_id, student_id) REFERENCES students (teacher_id, id) ON DELETE CASCADE
);

-- What a student says of a try at home. It stands beside the log of what the teacher heard.
CREATE TABLE home_tries (
    id            bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    teacher_id    bigint NOT NULL,
    student_id    bigint NOT NULL,
    exercise_id   bigint NOT NULL,
    first_measure integer NOT NULL,
    last_measure  integer NOT NULL,
    stage         text NOT NULL,
    clean         boolean NOT NULL,
    cause         text NOT NULL DEFAULT '',
    tempo         smallint NOT NULL DEFAULT 0,
    beside        text NOT NULL DEFAULT '',
    changed       text NOT NULL DEFAULT '',
    at            timestamptz NOT NULL,
    press         text NOT NULL,
    UNIQUE (teacher_id, student_id, press),
    FOREIGN KEY (teacher_id, student_id) REFERENCES students (teacher_id, id) ON DELETE CASCADE,
    FOREIGN KEY (teacher_id, exercise_id) REFERENCES exercises (teacher_id, id) ON DELETE CASCADE
);
CREATE INDEX home_tries_at ON home_tries (teacher_id, student_id, at);

-- The lines of a plan that a student has done, day by day.
CREATE TABLE home_ticks (
    teacher_id bigint NOT NULL,
    student_id bigint NOT NULL,
    on_day     date NOT NULL,
    line       text NOT NULL CHECK (char_length(line) BETWEEN 1 AND 80),
    at         timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (teacher_id, student_id, on_day, line),
    FOREIGN KEY (teacher_id, student_id) REFERENCES students (teacher_id, id) ON DELETE CASCADE
);

-- The answers to reading cards, from which it is computed when each comes back.
CREATE TABLE card_answers (
    id         bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    teacher_id bigint NOT NULL,
    student_id bigint NOT NULL,
    instrument text NOT NULL,
    card       text NOT NULL CHECK (char_length(card) BETWEEN 3 AND 120),
    grade      smallint NOT NULL CHECK (grade BETWEEN 1 AND 4),
    millis     integer NOT NULL DEFAULT 0 CHECK (millis BETWEEN 0 AND 600000),
    at         timestamptz NOT NULL,
    press      text NOT NULL,
    UNIQUE (teacher_id, student_id, press),
    FOREIGN KEY (teacher_id, student_id) REFERENCES students (teacher_id, id) ON DELETE CASCADE
);
CREATE INDEX card_answers_at ON card_answers (teacher_id, student_id, at);

-- +goose Down
DROP TABLE card_answers;
DROP TABLE home_ticks;
DROP TABLE home_tries;
DROP TABLE own_pages;
