package simulate_test

import (
	"context"
	"flag"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"unhurriedbench/demo"
	"unhurriedbench/internal/testdb"
	"unhurriedbench/reading"
	"unhurriedbench/simulate"
	"unhurriedbench/store"
	"unhurriedbench/teach"
)

var update = flag.Bool("update", false, "write the lessons anew")

// monday is the first day of the term.
var monday = time.Date(2026, 9, 7, 9, 0, 0, 0, time.UTC)

// bookAt is a teacher's desk with the demo's book on the shelf.
func bookAt(t testing.TB) (*store.Desk, *reading.Reader) {
	t.Helper()
	s, ctx := testdb.Open(t), context.Background()
	teacher, err := s.AddTeacher(ctx, "a@school.example", "A", "", "a long password")
	if err != nil {
		t.Fatal(err)
	}
	if err := demo.AddBook(ctx, s.For(teacher.ID)); err != nil {
		t.Fatal(err)
	}
	return s.For(teacher.ID), reading.New(reading.Memory)
}

// The first, fifth and twentieth lesson and the last before a concert of three kinds of class
// are those that were read line by line as a teacher. Source: common practice.
func TestLessonsReadAsATeacher(t *testing.T) {
	t.Parallel()
	for _, class := range []*simulate.Class{simulate.MixedBand(), simulate.Strings(), simulate.Drums()} {
		t.Run(class.Name, func(t *testing.T) {
			t.Parallel()
			ctx := context.Background()
			desk, reader := bookAt(t)
			if err := class.Open(ctx, desk, reader, 1, monday); err != nil {
				t.Fatal(err)
			}
			var text strings.Builder
			for n := 1; n <= 24; n++ {
				plan, err := class.Suggest(ctx, teach.LessonWants{})
				if err != nil {
					t.Fatal(err)
				}
				if n == 1 || n == 5 || n == 20 || n == 24 {
					fmt.Fprintf(&text, "Lesson %d\n%s\n", n, plan.Text(class.Year == 1))
				}
				if err := class.Hold(ctx, plan, 3+n%2); err != nil {
					t.Fatal(err)
				}
			}
			name := filepath.Join("testdata", strings.ReplaceAll(strings.ToLower(class.Name), " ", "-")+".txt")
			if *update {
				if err := os.WriteFile(name, []byte(text.String()), 0o644); err != nil {
					t.Fatal(err)
				}
			}
			want, err := os.ReadFile(name)
			if err != nil {
				t.Fatal(err)
			}
			if text.String() != string(want) {
				t.Errorf("the lessons are\n%s\nread were\n%s", text.String(), want)
			}
		})
	}
}
