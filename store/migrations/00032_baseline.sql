-- +goose Up
-- All tables as they were before the tables had the names that they have now. Every row of a
-- teacher's holds their teacher_id, and refers to other rows together with it, so that nothing
-- of one teacher can hang on what is another's.
CREATE SEQUENCE batches; -- of tries that were logged together

CREATE TABLE deeds (
    id bigint GENERATED ALWAYS AS IDENTITY,
    at timestamptz NOT NULL DEFAULT now(),
    deed text NOT NULL,
    by_id bigint,
    teacher_id bigint,
    other_id bigint,
    section_id bigint,
    student_id bigint,
    detail text NOT NULL DEFAULT '',
    PRIMARY KEY (id)
);
CREATE INDEX deeds_teacher ON deeds (teacher_id, id);

CREATE UNLOGGED TABLE guesses (
    hash bytea NOT NULL,
    since timestamptz NOT NULL,
    n integer NOT NULL,
    PRIMARY KEY (hash, since)
);

CREATE TABLE house (
    one boolean NOT NULL DEFAULT true,
    longest_days integer NOT NULL,
    idle_days integer NOT NULL,
    idle_minutes integer NOT NULL,
    retain_months integer NOT NULL,
    PRIMARY KEY (one),
    CHECK (one)
);

CREATE TABLE sessions (
    token text NOT NULL,
    data bytea NOT NULL,
    expiry timestamptz NOT NULL,
    PRIMARY KEY (token)
);
CREATE INDEX sessions_expiry ON sessions (expiry);

CREATE TABLE teachers (
    id bigint GENERATED ALWAYS AS IDENTITY,
    email text NOT NULL,
    name text NOT NULL,
    school text NOT NULL,
    password_hash text NOT NULL,
    demo boolean NOT NULL DEFAULT false,
    created_at timestamptz NOT NULL DEFAULT now(),
    sessions integer NOT NULL DEFAULT 0,
    owner boolean NOT NULL DEFAULT false,
    removed_at timestamptz,
    PRIMARY KEY (id)
);
CREATE UNIQUE INDEX teachers_email ON teachers (lower(email));

CREATE TABLE books (
    id bigint GENERATED ALWAYS AS IDENTITY,
    teacher_id bigint NOT NULL,
    title text NOT NULL,
    created_at timestamptz NOT NULL DEFAULT now(),
    removed_at timestamptz,
    PRIMARY KEY (id),
    UNIQUE (teacher_id, id),
    FOREIGN KEY (teacher_id) REFERENCES teachers (id) ON DELETE CASCADE
);
CREATE UNIQUE INDEX books_title ON books (teacher_id, title) WHERE (removed_at IS NULL);

CREATE TABLE instrument_kinds (
    teacher_id bigint NOT NULL,
    instrument text NOT NULL,
    kind text NOT NULL,
    PRIMARY KEY (teacher_id, instrument),
    FOREIGN KEY (teacher_id) REFERENCES teachers (id) ON DELETE CASCADE
);

CREATE TABLE instrument_routines (
    teacher_id bigint NOT NULL,
    instrument text NOT NULL,
    routine text NOT NULL,
    PRIMARY KEY (teacher_id, instrument),
    FOREIGN KEY (teacher_id) REFERENCES teachers (id) ON DELETE CASCADE
);

CREATE TABLE invitations (
    hash bytea NOT NULL,
    teacher_id bigint,
    until timestamptz NOT NULL,
    PRIMARY KEY (hash),
    FOREIGN KEY (teacher_id) REFERENCES teachers (id) ON DELETE CASCADE
);

CREATE TABLE preferred (
    teacher_id bigint NOT NULL,
    instrument text NOT NULL,
    pitch integer NOT NULL,
    fingering text NOT NULL,
    PRIMARY KEY (teacher_id, instrument, pitch),
    CHECK ((pitch >= 0) AND (pitch <= 127)),
    FOREIGN KEY (teacher_id) REFERENCES teachers (id) ON DELETE CASCADE
);

CREATE TABLE routines (
    id bigint GENERATED ALWAYS AS IDENTITY,
    teacher_id bigint NOT NULL,
    title text NOT NULL,
    why text NOT NULL DEFAULT '',
    family text NOT NULL DEFAULT '',
    steps jsonb NOT NULL,
    PRIMARY KEY (id),
    UNIQUE (teacher_id, title),
    CHECK (title <> ''),
    FOREIGN KEY (teacher_id) REFERENCES teachers (id) ON DELETE CASCADE
);

CREATE TABLE sections (
    id bigint GENERATED ALWAYS AS IDENTITY,
    teacher_id bigint NOT NULL,
    name text NOT NULL,
    school text NOT NULL DEFAULT '',
    year integer NOT NULL DEFAULT 1,
    removed_at timestamptz,
    line text NOT NULL DEFAULT '',
    routine text NOT NULL DEFAULT '',
    PRIMARY KEY (id),
    UNIQUE (teacher_id, id),
    CHECK (line IN ('', 'A', 'B')),
    CHECK ((year >= 1) AND (year <= 3)),
    FOREIGN KEY (teacher_id) REFERENCES teachers (id) ON DELETE CASCADE
);
CREATE UNIQUE INDEX sections_name ON sections (teacher_id, name) WHERE (removed_at IS NULL);

CREATE TABLE lessons (
    id bigint GENERATED ALWAYS AS IDENTITY,
    teacher_id bigint NOT NULL,
    section_id bigint NOT NULL,
    plan jsonb NOT NULL,
    step integer NOT NULL DEFAULT 0,
    absent bigint[] NOT NULL DEFAULT '{}',
    made_at timestamptz NOT NULL DEFAULT now(),
    begun_at timestamptz,
    ended_at timestamptz,
    PRIMARY KEY (id),
    CHECK ((ended_at IS NULL) OR (begun_at IS NOT NULL)),
    FOREIGN KEY (teacher_id, section_id) REFERENCES sections (teacher_id, id) ON DELETE CASCADE
);
CREATE INDEX lessons_section ON lessons (teacher_id, section_id, id);

CREATE TABLE settings (
    teacher_id bigint NOT NULL,
    key text NOT NULL,
    value text NOT NULL,
    PRIMARY KEY (teacher_id, key),
    FOREIGN KEY (teacher_id) REFERENCES teachers (id) ON DELETE CASCADE
);

CREATE TABLE shares (
    teacher_id bigint NOT NULL,
    section_id bigint NOT NULL,
    colleague_id bigint NOT NULL,
    teach boolean NOT NULL,
    PRIMARY KEY (section_id, colleague_id),
    CHECK (colleague_id <> teacher_id),
    FOREIGN KEY (colleague_id) REFERENCES teachers (id) ON DELETE CASCADE,
    FOREIGN KEY (teacher_id, section_id) REFERENCES sections (teacher_id, id) ON DELETE CASCADE
);
CREATE INDEX shares_colleague ON shares (colleague_id);

CREATE TABLE sources (
    teacher_id bigint NOT NULL,
    hash text NOT NULL,
    format text NOT NULL,
    content text NOT NULL,
    PRIMARY KEY (teacher_id, hash),
    CHECK (format IN ('abc', 'musicxml')),
    FOREIGN KEY (teacher_id) REFERENCES teachers (id) ON DELETE CASCADE
);

CREATE TABLE exercises (
    id bigint GENERATED ALWAYS AS IDENTITY,
    teacher_id bigint NOT NULL,
    book_id bigint NOT NULL,
    number integer NOT NULL,
    title text NOT NULL,
    written_for text NOT NULL DEFAULT '',
    created_at timestamptz NOT NULL DEFAULT now(),
    removed_at timestamptz,
    part integer NOT NULL DEFAULT 0,
    hash text NOT NULL,
    revision integer NOT NULL DEFAULT 1,
    read_revision integer NOT NULL DEFAULT 0,
    read_version integer NOT NULL DEFAULT 0,
    file_parts integer NOT NULL DEFAULT 0,
    unread text NOT NULL DEFAULT '',
    place integer,
    routine text NOT NULL DEFAULT '',
    PRIMARY KEY (id),
    UNIQUE (teacher_id, id),
    CHECK ((number >= 1) AND (number <= 9999)),
    FOREIGN KEY (teacher_id, book_id) REFERENCES books (teacher_id, id) ON DELETE CASCADE,
    FOREIGN KEY (teacher_id, hash) REFERENCES sources (teacher_id, hash)
);
CREATE UNIQUE INDEX exercises_number ON exercises (book_id, number) WHERE (removed_at IS NULL);
CREATE INDEX exercises_source ON exercises (teacher_id, hash);

CREATE TABLE cuts (
    teacher_id bigint NOT NULL,
    exercise_id bigint NOT NULL,
    pieces text NOT NULL,
    whys text NOT NULL,
    PRIMARY KEY (exercise_id),
    FOREIGN KEY (teacher_id, exercise_id) REFERENCES exercises (teacher_id, id) ON DELETE CASCADE
);

CREATE TABLE demands (
    teacher_id bigint NOT NULL,
    exercise_id bigint NOT NULL,
    instrument text NOT NULL,
    things text NOT NULL,
    parts text NOT NULL DEFAULT '',
    CONSTRAINT met_pkey PRIMARY KEY (exercise_id, instrument),
    CONSTRAINT met_teacher_id_exercise_id_fkey FOREIGN KEY (teacher_id, exercise_id) REFERENCES exercises (teacher_id, id) ON DELETE CASCADE
);

CREATE TABLE fingerings (
    teacher_id bigint NOT NULL,
    exercise_id bigint NOT NULL,
    instrument text NOT NULL,
    measure integer NOT NULL,
    event integer NOT NULL,
    pitch integer NOT NULL,
    fingering text NOT NULL,
    PRIMARY KEY (exercise_id, instrument, measure, event),
    CHECK (event >= 0),
    CHECK (measure >= 0),
    CHECK ((pitch >= 0) AND (pitch <= 127)),
    FOREIGN KEY (teacher_id, exercise_id) REFERENCES exercises (teacher_id, id) ON DELETE CASCADE
);

CREATE TABLE outlines (
    teacher_id bigint NOT NULL,
    exercise_id bigint NOT NULL,
    instrument text NOT NULL,
    signatures text NOT NULL,
    measures integer NOT NULL,
    pieces text NOT NULL,
    PRIMARY KEY (exercise_id, instrument),
    FOREIGN KEY (teacher_id, exercise_id) REFERENCES exercises (teacher_id, id) ON DELETE CASCADE
);

CREATE TABLE overrides (
    teacher_id bigint NOT NULL,
    exercise_id bigint NOT NULL,
    instrument text NOT NULL,
    part integer NOT NULL DEFAULT 0,
    hash text NOT NULL,
    PRIMARY KEY (exercise_id, instrument),
    FOREIGN KEY (teacher_id, exercise_id) REFERENCES exercises (teacher_id, id) ON DELETE CASCADE,
    FOREIGN KEY (teacher_id, hash) REFERENCES sources (teacher_id, hash)
);
CREATE INDEX overrides_source ON overrides (teacher_id, hash);

CREATE TABLE pencils (
    teacher_id bigint NOT NULL,
    exercise_id bigint NOT NULL,
    instrument text NOT NULL,
    measure integer NOT NULL,
    event integer NOT NULL,
    pitch integer NOT NULL,
    kind text NOT NULL,
    word text NOT NULL DEFAULT '',
    PRIMARY KEY (exercise_id, instrument, measure, event, kind, word),
    CHECK (event >= 0),
    CHECK (measure >= 0),
    FOREIGN KEY (teacher_id, exercise_id) REFERENCES exercises (teacher_id, id) ON DELETE CASCADE
);

CREATE TABLE placements (
    teacher_id bigint NOT NULL,
    exercise_id bigint NOT NULL,
    instrument text NOT NULL,
    octaves integer,
    folded boolean NOT NULL DEFAULT false,
    PRIMARY KEY (exercise_id, instrument),
    CHECK ((octaves IS NOT NULL) OR folded),
    CHECK ((octaves >= '-5') AND (octaves <= 5)),
    FOREIGN KEY (teacher_id, exercise_id) REFERENCES exercises (teacher_id, id) ON DELETE CASCADE
);

CREATE TABLE second_lines (
    teacher_id bigint NOT NULL,
    exercise_id bigint NOT NULL,
    other_id bigint,
    entry integer NOT NULL DEFAULT 0,
    UNIQUE (other_id),
    PRIMARY KEY (exercise_id),
    CHECK ((other_id IS NULL) = (entry > 0)),
    CHECK (other_id <> exercise_id),
    CHECK ((entry >= 0) AND (entry <= 64)),
    FOREIGN KEY (teacher_id, exercise_id) REFERENCES exercises (teacher_id, id) ON DELETE CASCADE,
    FOREIGN KEY (teacher_id, other_id) REFERENCES exercises (teacher_id, id) ON DELETE CASCADE
);

CREATE TABLE students (
    id bigint GENERATED ALWAYS AS IDENTITY,
    teacher_id bigint NOT NULL,
    section_id bigint NOT NULL,
    first_name text NOT NULL,
    initial text NOT NULL,
    instrument text NOT NULL,
    removed_at timestamptz,
    left_at timestamptz,
    line text NOT NULL DEFAULT '',
    clean_to_go_on smallint NOT NULL DEFAULT 0,
    stays boolean NOT NULL DEFAULT false,
    note text NOT NULL DEFAULT '',
    also_of bigint,
    seat_row smallint NOT NULL DEFAULT 0,
    seat_place smallint NOT NULL DEFAULT 0,
    UNIQUE (also_of),
    PRIMARY KEY (id),
    UNIQUE (teacher_id, id),
    CHECK (also_of <> id),
    CHECK ((clean_to_go_on >= 0) AND (clean_to_go_on <= 5)),
    CHECK (char_length(initial) <= 1),
    CHECK (line IN ('', 'A', 'B')),
    CHECK (char_length(note) <= 1000),
    CHECK ((seat_place >= 0) AND (seat_place <= 40)),
    CHECK ((seat_row >= 0) AND (seat_row <= 12)),
    FOREIGN KEY (teacher_id, also_of) REFERENCES students (teacher_id, id) ON DELETE CASCADE,
    FOREIGN KEY (teacher_id, section_id) REFERENCES sections (teacher_id, id) ON DELETE CASCADE
);
CREATE INDEX students_section ON students (section_id);

CREATE TABLE attempts (
    id bigint GENERATED ALWAYS AS IDENTITY,
    teacher_id bigint NOT NULL,
    student_id bigint NOT NULL,
    exercise_id bigint NOT NULL,
    first_measure integer NOT NULL,
    last_measure integer NOT NULL,
    stage text NOT NULL,
    clean boolean NOT NULL,
    cause text NOT NULL DEFAULT '',
    tempo integer NOT NULL,
    undoes bigint,
    at timestamptz NOT NULL DEFAULT now(),
    batch bigint,
    press text,
    marked_by bigint,
    moved boolean NOT NULL DEFAULT false,
    PRIMARY KEY (id),
    UNIQUE (teacher_id, id),
    UNIQUE (undoes),
    CHECK (cause IN ('', 'rhythm', 'name', 'fingering', 'sound')),
    CHECK ( CASE WHEN moved THEN ((NOT clean) AND (cause = '')) ELSE (clean = (cause = '')) END),
    CHECK ((length(press) >= 1) AND (length(press) <= 64)),
    CHECK ((stage ~ '^[a-z][a-z0-9-]{0,19}$') AND ((stage <> 'done') OR moved)),
    FOREIGN KEY (teacher_id, exercise_id) REFERENCES exercises (teacher_id, id) ON DELETE CASCADE,
    FOREIGN KEY (teacher_id, student_id) REFERENCES students (teacher_id, id) ON DELETE CASCADE,
    FOREIGN KEY (teacher_id, undoes) REFERENCES attempts (teacher_id, id) ON DELETE CASCADE
);
CREATE INDEX attempts_at ON attempts (teacher_id, at);
CREATE INDEX attempts_batch ON attempts (teacher_id, batch) WHERE (batch IS NOT NULL);
CREATE INDEX attempts_exercise ON attempts (teacher_id, exercise_id, id);
CREATE INDEX attempts_newest ON attempts (teacher_id, id);
CREATE INDEX attempts_piece ON attempts (teacher_id, student_id, exercise_id, first_measure, last_measure, id);
CREATE UNIQUE INDEX attempts_press ON attempts (teacher_id, press, student_id) WHERE (press IS NOT NULL);
CREATE INDEX attempts_student ON attempts (teacher_id, student_id, id);

CREATE TABLE card_answers (
    id bigint GENERATED ALWAYS AS IDENTITY,
    teacher_id bigint NOT NULL,
    student_id bigint NOT NULL,
    instrument text NOT NULL,
    card text NOT NULL,
    grade smallint NOT NULL,
    millis integer NOT NULL DEFAULT 0,
    at timestamptz NOT NULL,
    press text NOT NULL,
    PRIMARY KEY (id),
    UNIQUE (teacher_id, student_id, press),
    CHECK ((char_length(card) >= 3) AND (char_length(card) <= 120)),
    CHECK ((grade >= 1) AND (grade <= 4)),
    CHECK ((millis >= 0) AND (millis <= 600000)),
    FOREIGN KEY (teacher_id, student_id) REFERENCES students (teacher_id, id) ON DELETE CASCADE
);
CREATE INDEX card_answers_at ON card_answers (teacher_id, student_id, at);

CREATE TABLE checkins (
    id bigint GENERATED ALWAYS AS IDENTITY,
    teacher_id bigint NOT NULL,
    student_id bigint NOT NULL,
    on_day date NOT NULL,
    due jsonb NOT NULL DEFAULT '[]',
    batch bigint NOT NULL DEFAULT nextval('batches'),
    comment text NOT NULL DEFAULT '',
    heard_at timestamptz,
    PRIMARY KEY (id),
    CHECK (char_length(comment) <= 1000),
    FOREIGN KEY (teacher_id, student_id) REFERENCES students (teacher_id, id) ON DELETE CASCADE
);
CREATE INDEX checkins_student ON checkins (teacher_id, student_id, id);
CREATE UNIQUE INDEX checkins_to_come ON checkins (teacher_id, student_id) WHERE (heard_at IS NULL);

CREATE TABLE home_ticks (
    teacher_id bigint NOT NULL,
    student_id bigint NOT NULL,
    on_day date NOT NULL,
    line text NOT NULL,
    at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (teacher_id, student_id, on_day, line),
    CHECK ((char_length(line) >= 1) AND (char_length(line) <= 80)),
    FOREIGN KEY (teacher_id, student_id) REFERENCES students (teacher_id, id) ON DELETE CASCADE
);

CREATE TABLE home_tries (
    id bigint GENERATED ALWAYS AS IDENTITY,
    teacher_id bigint NOT NULL,
    student_id bigint NOT NULL,
    exercise_id bigint NOT NULL,
    first_measure integer NOT NULL,
    last_measure integer NOT NULL,
    stage text NOT NULL,
    clean boolean NOT NULL,
    cause text NOT NULL DEFAULT '',
    tempo smallint NOT NULL DEFAULT 0,
    beside text NOT NULL DEFAULT '',
    changed text NOT NULL DEFAULT '',
    at timestamptz NOT NULL,
    press text NOT NULL,
    PRIMARY KEY (id),
    UNIQUE (teacher_id, student_id, press),
    FOREIGN KEY (teacher_id, exercise_id) REFERENCES exercises (teacher_id, id) ON DELETE CASCADE,
    FOREIGN KEY (teacher_id, student_id) REFERENCES students (teacher_id, id) ON DELETE CASCADE
);
CREATE INDEX home_tries_at ON home_tries (teacher_id, student_id, at);

CREATE TABLE homeplans (
    teacher_id bigint NOT NULL,
    student_id bigint NOT NULL,
    from_day date NOT NULL,
    until_day date NOT NULL,
    weekdays smallint[] NOT NULL,
    minutes smallint NOT NULL,
    changed jsonb NOT NULL DEFAULT '{}',
    plan jsonb NOT NULL,
    made_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (teacher_id, student_id),
    CHECK (until_day > from_day),
    CHECK ((minutes >= 1) AND (minutes <= 60)),
    FOREIGN KEY (teacher_id, student_id) REFERENCES students (teacher_id, id) ON DELETE CASCADE
);

CREATE TABLE own_pages (
    teacher_id bigint NOT NULL,
    student_id bigint NOT NULL,
    key text NOT NULL,
    pin_hash text NOT NULL DEFAULT '',
    wrong smallint NOT NULL DEFAULT 0,
    wrong_at timestamptz,
    made_at timestamptz NOT NULL DEFAULT now(),
    UNIQUE (key),
    PRIMARY KEY (teacher_id, student_id),
    CHECK (char_length(key) >= 26),
    FOREIGN KEY (teacher_id, student_id) REFERENCES students (teacher_id, id) ON DELETE CASCADE
);

CREATE TABLE standings (
    teacher_id bigint NOT NULL,
    student_id bigint NOT NULL,
    exercise_id bigint NOT NULL,
    first_measure integer NOT NULL,
    last_measure integer NOT NULL,
    stage text NOT NULL,
    clean smallint NOT NULL,
    tries integer NOT NULL,
    last_attempt bigint NOT NULL,
    stumble smallint NOT NULL,
    cause text NOT NULL,
    slower boolean NOT NULL,
    advice text NOT NULL,
    stumbles smallint NOT NULL DEFAULT 0,
    over text NOT NULL DEFAULT '',
    since timestamptz,
    tempo integer NOT NULL DEFAULT 0,
    at timestamptz NOT NULL DEFAULT now(),
    rung smallint NOT NULL DEFAULT 0,
    slowed smallint NOT NULL DEFAULT 0,
    faster boolean NOT NULL DEFAULT false,
    fewer boolean NOT NULL DEFAULT false,
    rules smallint NOT NULL DEFAULT 0,
    PRIMARY KEY (student_id, exercise_id, first_measure, last_measure),
    FOREIGN KEY (teacher_id, exercise_id) REFERENCES exercises (teacher_id, id) ON DELETE CASCADE,
    FOREIGN KEY (teacher_id, student_id) REFERENCES students (teacher_id, id) ON DELETE CASCADE
);

-- The log of attempts is only added to.
-- +goose StatementBegin
CREATE FUNCTION keep_the_log() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    RAISE EXCEPTION 'the log of attempts is only added to';
END $$;
-- +goose StatementEnd
CREATE TRIGGER attempts_are_kept BEFORE UPDATE ON attempts FOR EACH ROW EXECUTE FUNCTION keep_the_log();
