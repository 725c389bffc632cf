package demo

import (
	"context"
	"sync"
	"testing"

	"unhurriedbench/internal/testdb"
	"unhurriedbench/store"
)

// rows counts what the demo brings.
func rows(t *testing.T, s *store.Store) (counted [4]int) {
	t.Helper()
	for k, table := range []string{"teachers", "exercises", "students", "attempts"} {
		if err := s.DB().QueryRow(`SELECT count(*) FROM ` + table).Scan(&counted[k]); err != nil {
			t.Fatal(err)
		}
	}
	return counted
}

// A demo whose loading was cut short is loaded whole the next time; one that is there
// stays as it is; several that load at once load one.
func TestTheDemoIsWhole(t *testing.T) {
	ctx := context.Background()
	whole := testdb.Open(t)
	if err := Load(ctx, whole); err != nil {
		t.Fatal(err)
	}
	want := rows(t, whole)
	if want[0] != 1 || want[1] < 10 || want[2] < 10 || want[3] < 500 {
		t.Fatalf("the demo has %v", want)
	}
	if err := Load(ctx, whole); err != nil || rows(t, whole) != want {
		t.Errorf("loaded again it has %v, %v", rows(t, whole), err)
	}

	cut := testdb.Open(t)
	short, cancel := context.WithCancel(ctx)
	done := make(chan error)
	go func() { done <- Load(short, cut) }()
	for { // until the first students are there
		var n int
		if err := cut.DB().QueryRow(`SELECT count(*) FROM students`).Scan(&n); err != nil {
			t.Fatal(err)
		}
		if n >= 2 {
			break
		}
	}
	cancel()
	if err := <-done; err == nil {
		t.Fatal("the loading was not cut short")
	}
	if _, err := cut.DemoTeacher(ctx); err == nil {
		t.Error("half a demo can be entered")
	}
	if err := Load(ctx, cut); err != nil || rows(t, cut) != want {
		t.Errorf("after being cut short it has %v, want %v, %v", rows(t, cut), want, err)
	}

	together := testdb.Open(t)
	var wait sync.WaitGroup
	for range 4 {
		wait.Go(func() {
			if err := Load(ctx, together); err != nil {
				t.Error(err)
			}
		})
	}
	wait.Wait()
	if rows(t, together) != want {
		t.Errorf("loaded by four at once it has %v, want %v", rows(t, together), want)
	}
}
