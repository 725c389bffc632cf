// Package demo holds the invented school, its book and its students.
package demo

import (
	"context"
	"embed"
	"fmt"
	"io/fs"
	"strconv"
	"strings"

	"unhurriedbench/core/format/abc"
	"unhurriedbench/core/score"
)

//go:embed exercises/*.abc
var files embed.FS

// Exercise is one of the book's, composed for this project.
type Exercise struct {
	Number int
	ABC    string
	Score  score.Score
}

// BookTitle is the invented book's name.
const BookTitle = "The Ferry Book"

// Exercises lists the book's exercises in order.
func Exercises() ([]Exercise, error) {
	names, err := fs.Glob(files, "exercises/*.abc")
	if err != nil {
		return nil, fmt.Errorf("list the demo exercises: %w", err)
	}
	var list []Exercise
	for _, name := range names {
		text, err := files.ReadFile(name)
		if err != nil {
			return nil, fmt.Errorf("read a demo exercise: %w", err)
		}
		digits, _, _ := strings.Cut(strings.TrimPrefix(name, "exercises/"), "-")
		number, err := strconv.Atoi(digits)
		if err != nil {
			return nil, fmt.Errorf("demo exercise %s has no number: %w", name, err)
		}
		s, err := abc.Read(context.Background(), string(text))
		if err != nil {
			return nil, fmt.Errorf("demo exercise %s: %w", name, err)
		}
		list = append(list, Exercise{Number: number, ABC: string(text), Score: s})
	}
	return list, nil
}
