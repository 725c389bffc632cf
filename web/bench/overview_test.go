package bench_test

import (
	"context"
	"fmt"
	"strings"
	"testing"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
)

// card is the card that reads an exercise whole, without its tags.
func wholeCard(page string) string {
	_, part, _ := strings.Cut(page, `<details class="read-whole">`)
	part, _, _ = strings.Cut(part, "</details>")
	var words strings.Builder
	inside := false
	for _, c := range part {
		switch {
		case c == '<':
			inside = true
			words.WriteByte(' ')
		case c == '>':
			inside = false
		case !inside:
			words.WriteRune(c)
		}
	}
	return strings.Join(strings.Fields(words.String()), " ")
}

// The card holds what a teacher says before anybody plays: what a class has not met, and
// once somebody is at hand what they have not.
func TestReadItWhole(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID) // a trombone
	desk, ctx := s.Store.For(account.ID), context.Background()
	if _, err := desk.AddStudent(ctx, store.Student{ClassID: b.Class, FirstName: "Oscar", Instrument: "snare"}); err != nil {
		t.Fatal(err)
	}
	first := s.Exercise(t, account.ID, 1, "First", "", "T:x\nM:4/4\nL:1/4\nK:Bb\nB c d c|B4|d c B c|B4|]\n")
	second := s.Exercise(t, account.ID, 2, "Second", "", "T:x\nM:4/4\nL:1/4\nQ:1/4=80\nK:Bb\n|:B c d e|f>=e f2|B c d e|f4:|\n")
	bench := fmt.Sprintf("/bench/%d?instrument=trombone&class=%d", second, b.Class)
	_, page := v.Get(bench)
	got := wholeCard(page)
	for _, want := range []string{
		"Frame 4/4, four measures; B flat major: every B and E is flat.", "Order m. 1–4, 1–4.", "M. 3 is m. 1 again.", "Three measures left to learn, of four.",
		"up the scale from B flat to F.", "New Dotted quarter note", "Hardest for the trombone, easiest for the snare drum.", "Tempo ",
	} {
		if !strings.Contains(got, want) {
			t.Errorf("the card lacks %q: %s", want, got)
		}
	}
	// The student has worked on what brings the dotted quarter.
	third := s.Exercise(t, account.ID, 3, "Third", "", "T:x\nM:4/4\nL:1/4\nK:Bb\nd>e d2|B4|]\n")
	try := store.Attempt{StudentID: b.Student, ExerciseID: third, Chunk: breakdown.ChunkKey{First: 1, Last: 2}, Try: routine.Try{Stage: routine.Count, Clean: true}, Tempo: 60}
	if err := desk.AddAttempts(ctx, try); err != nil {
		t.Fatal(err)
	}
	_, page = v.Get(bench + fmt.Sprintf("&student=%d", b.Student))
	if got := wholeCard(page); !strings.Contains(got, "New to Ines") || strings.Contains(got, "dotted quarter") || !strings.Contains(got, "natural sign") {
		t.Errorf("with the student at hand: %s", got)
	}
	// Beside it stand the exercises before and after, with who is at hand.
	testsite.Wants(t, page, fmt.Sprintf(`href="/bench/%d?class=%d&amp;instrument=trombone&amp;student=%d"`, first, b.Class, b.Student), "‹ 1</a>", "3 ›</a>")
}
