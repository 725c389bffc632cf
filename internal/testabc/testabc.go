// Package testabc reads ABC for the tests of other packages.
package testabc

import (
	"context"
	"testing"

	"unhurriedbench/core/format/abc"
	"unhurriedbench/core/score"
)

// Part reads the first part of an ABC text, which needs no line break at its end.
func Part(t testing.TB, text string) score.Part {
	t.Helper()
	s, err := abc.Read(context.Background(), text+"\n")
	if err != nil {
		t.Fatalf("%s: %v", text, err)
	}
	return s.Parts[0]
}
