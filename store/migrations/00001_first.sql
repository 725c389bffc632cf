-- +goose Up

CREATE TABLE teachers (
    id            bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    email         text NOT NULL,
    name          text NOT NULL,
    school        text NOT NULL,
    password_hash text NOT NULL,
    demo          boolean NOT NULL DEFAULT false, -- may be entered without a password
    created_at    timestamptz NOT NULL DEFAULT now()
);
CREATE UNIQUE INDEX teachers_email ON teachers (lower(email));

CREATE TABLE sessions (
    token  text PRIMARY KEY,
    data   bytea NOT NULL,
    expiry timestamptz NOT NULL
);
CREATE INDEX sessions_expiry ON sessions (expiry);

-- Every row below belongs to a teacher. The keys that name a parent carry the
-- teacher too, so that no row can point at another teacher's.

CREATE TABLE books (
    id         bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    teacher_id bigint NOT NULL REFERENCES teachers ON DELETE CASCADE,
    title      text NOT NULL,
    created_at timestamptz NOT NULL DEFAULT now(),
    UNIQUE (teacher_id, id),
    UNIQUE (teacher_id, title)
);

CREATE TABLE exercises (
    id          bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    teacher_id  bigint NOT NULL,
    book_id     bigint NOT NULL,
    number      integer NOT NULL CHECK (number BETWEEN 1 AND 9999),
    title       text NOT NULL,
    format      text NOT NULL CHECK (format IN ('abc', 'musicxml')),
    source      text NOT NULL,
    written_for text NOT NULL DEFAULT '', -- an instrument id, or '' for what the file says
    created_at  timestamptz NOT NULL DEFAULT now(),
    removed_at  timestamptz,
    UNIQUE (teacher_id, id),
    FOREIGN KEY (teacher_id, book_id) REFERENCES books (teacher_id, id) ON DELETE CASCADE
);
CREATE UNIQUE INDEX exercises_number ON exercises (book_id, number) WHERE removed_at IS NULL;

CREATE TABLE sections (
    id         bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    teacher_id bigint NOT NULL REFERENCES teachers ON DELETE CASCADE,
    name       text NOT NULL,
    UNIQUE (teacher_id, id),
    UNIQUE (teacher_id, name)
);

CREATE TABLE students (
    id         bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    teacher_id bigint NOT NULL,
    section_id bigint NOT NULL,
    first_name text NOT NULL,
    initial    text NOT NULL CHECK (char_length(initial) <= 1),
    instrument text NOT NULL,
    UNIQUE (teacher_id, id),
    FOREIGN KEY (teacher_id, section_id) REFERENCES sections (teacher_id, id) ON DELETE CASCADE
);
CREATE INDEX students_section ON students (section_id);

-- The log of tries. A row is never changed: taking one back adds a row that
-- names it in undoes.
CREATE TABLE attempts (
    id            bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    teacher_id    bigint NOT NULL,
    student_id    bigint NOT NULL,
    exercise_id   bigint NOT NULL,
    first_measure integer NOT NULL, -- of the piece, as printed; a pickup is 0
    last_measure  integer NOT NULL,
    stage         smallint NOT NULL CHECK (stage BETWEEN 0 AND 3),
    clean         boolean NOT NULL,
    cause         text NOT NULL DEFAULT '' CHECK (cause IN ('', 'rhythm', 'name', 'fingering', 'sound')),
    tempo         integer NOT NULL,
    undoes        bigint UNIQUE,
    at            timestamptz NOT NULL DEFAULT now(),
    UNIQUE (teacher_id, id),
    FOREIGN KEY (teacher_id, student_id) REFERENCES students (teacher_id, id) ON DELETE CASCADE,
    FOREIGN KEY (teacher_id, exercise_id) REFERENCES exercises (teacher_id, id) ON DELETE CASCADE,
    FOREIGN KEY (teacher_id, undoes) REFERENCES attempts (teacher_id, id) ON DELETE CASCADE,
    CHECK (clean = (cause = ''))
);
CREATE INDEX attempts_student ON attempts (teacher_id, student_id, id);
CREATE INDEX attempts_exercise ON attempts (teacher_id, exercise_id, id);

-- +goose StatementBegin
CREATE FUNCTION keep_the_log() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    RAISE EXCEPTION 'the log of attempts is only added to';
END $$;
-- +goose StatementEnd
CREATE TRIGGER attempts_are_kept BEFORE UPDATE ON attempts FOR EACH ROW EXECUTE FUNCTION keep_the_log();

-- Where every student stands on every piece they have tried: what the log adds
-- up to, kept beside it so that the Board need not read it all. It is written
-- with each new row of the log and can be made again from it.
CREATE TABLE standings (
    teacher_id    bigint NOT NULL,
    student_id    bigint NOT NULL,
    exercise_id   bigint NOT NULL,
    first_measure integer NOT NULL,
    last_measure  integer NOT NULL,
    stage         smallint NOT NULL, -- 4 is done
    clean         smallint NOT NULL, -- clean tries in a row at that stage
    tries         integer NOT NULL,
    last_attempt  bigint NOT NULL,
    PRIMARY KEY (student_id, exercise_id, first_measure, last_measure),
    FOREIGN KEY (teacher_id, student_id) REFERENCES students (teacher_id, id) ON DELETE CASCADE,
    FOREIGN KEY (teacher_id, exercise_id) REFERENCES exercises (teacher_id, id) ON DELETE CASCADE
);

-- +goose Down
DROP TABLE standings, attempts, students, sections, exercises, books, sessions, teachers;
DROP FUNCTION keep_the_log;
