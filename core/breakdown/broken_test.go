package breakdown

import (
	"context"
	"testing"
	"time"

	"unhurriedbench/core/format"
	"unhurriedbench/core/instrument"
	"unhurriedbench/internal/malformed"
)

// What is read of a broken file is explained like any other, for an instrument of every
// family.
func TestBrokenFilesAreExplained(t *testing.T) {
	n := 1500
	if testing.Short() {
		n = 150
	}
	read := 0
	for k, f := range malformed.Broken(malformed.Sound(t, "../format"), 2, n) {
		got, err := format.Read(context.Background(), f.Name, f.Data)
		if err != nil {
			continue
		}
		read++
		start := time.Now()
		for _, id := range []string{"clarinet", "trombone", "violin", "snare", "timpani"} {
			target, _ := instrument.ByID(id)
			r := Read(got.Score, got.Score.Parts[0], "", target, nil, Options{ForPage: true})
			r.Drills(target)
			OutlineOf(r.Part)
		}
		if took := time.Since(start); took > 20*time.Second {
			t.Errorf("file %d, %s: explained in %s", k, f.Name, took)
		}
	}
	if read < n/10 {
		t.Errorf("%d of %d are read: they are too broken to try the explaining", read, n)
	}
}
