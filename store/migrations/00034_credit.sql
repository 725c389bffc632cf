-- +goose Up
-- What is earned of each stage; a standing may be due to tries at other units of its line.
ALTER TABLE standings ADD earned integer NOT NULL DEFAULT 0, ADD tried integer NOT NULL DEFAULT 0,
    ADD own_tries integer NOT NULL DEFAULT 0, ADD own_last boolean NOT NULL DEFAULT true,
    ADD of_chunk boolean NOT NULL DEFAULT true;
-- How the measures of a part are written, so that chunks which are alike share what is earned.
ALTER TABLE outlines ADD looks text NOT NULL DEFAULT '', ADD audience text NOT NULL DEFAULT '';
-- Whom an exercise is for where the teacher says so, and how a class's lessons are laid out.
ALTER TABLE exercises ADD audience text;
ALTER TABLE policy ADD zone text NOT NULL DEFAULT '';
ALTER TABLE classes ADD shape jsonb NOT NULL DEFAULT '{}';

-- +goose Down
ALTER TABLE policy DROP zone;
ALTER TABLE classes DROP shape;
ALTER TABLE exercises DROP audience;
ALTER TABLE outlines DROP audience, DROP looks;
ALTER TABLE standings DROP of_chunk, DROP own_last, DROP own_tries, DROP tried, DROP earned;
