-- +goose Up
-- Where an exercise stands in its book where the teacher put it elsewhere than by its number;
-- once one of a book is moved, all have a place. New ones come last.
ALTER TABLE exercises ADD COLUMN place integer;

-- +goose Down
ALTER TABLE exercises DROP COLUMN place;
