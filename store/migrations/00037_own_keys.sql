-- +goose Up
-- Every key that has led to a student's page, hashed, so that what waits in a browser under an
-- earlier link is taken over by the next.
CREATE TABLE own_page_keys (
    teacher_id bigint NOT NULL,
    student_id bigint NOT NULL,
    hash bytea NOT NULL,
    PRIMARY KEY (hash),
    FOREIGN KEY (teacher_id, student_id) REFERENCES students (teacher_id, id) ON DELETE CASCADE
);
CREATE INDEX own_page_keys_student ON own_page_keys (student_id);
INSERT INTO own_page_keys (teacher_id, student_id, hash) SELECT teacher_id, student_id, sha256(key::bytea) FROM own_pages;

-- +goose Down
DROP TABLE own_page_keys;
