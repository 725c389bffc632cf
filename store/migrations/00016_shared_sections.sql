-- +goose Up
-- A section that its teacher has given to a colleague, to look at or to teach.
CREATE TABLE shares (
    teacher_id   bigint NOT NULL,
    section_id   bigint NOT NULL,
    colleague_id bigint NOT NULL REFERENCES teachers ON DELETE CASCADE,
    teach        boolean NOT NULL, -- and mark
    PRIMARY KEY (section_id, colleague_id),
    FOREIGN KEY (teacher_id, section_id) REFERENCES sections (teacher_id, id) ON DELETE CASCADE,
    CHECK (colleague_id <> teacher_id)
);
CREATE INDEX shares_colleague ON shares (colleague_id);
-- The colleague who marked a try; none for the section's own teacher.
ALTER TABLE attempts ADD COLUMN marked_by bigint;

-- +goose Down
ALTER TABLE attempts DROP COLUMN marked_by;
DROP TABLE shares;
