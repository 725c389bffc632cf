package bench_test

import (
	"context"
	"fmt"
	"net/http"
	"regexp"
	"slices"
	"strings"
	"testing"

	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
)

// The class's instruments stand against the measures, the hardest is at hand, and a cell
// leads to the Bench at its measure.
func TestWhoHasItHardest(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID) // a trombone
	ctx, desk := context.Background(), s.Store.For(account.ID)
	for _, instrument := range []string{"clarinet", "snare"} {
		if _, err := desk.AddStudent(ctx, store.Student{ClassID: b.Class, FirstName: "X", Instrument: instrument}); err != nil {
			t.Fatal(err)
		}
	}
	x := s.Exercise(t, account.ID, 1, "Slides", "", "M:4/4\nL:1/4\nQ:1/4=100\nK:C\nC D E F|F/B,/F/B,/ F2|C D E F|C4|]\n")
	address := fmt.Sprintf("/bench/%d/hardest?class=%d", x, b.Class)
	status, page := v.Get(address)
	if status != http.StatusOK {
		t.Fatalf("it gives %d", status)
	}
	testsite.Wants(t, page, "Clarinet", "Trombone", "Snare drum", "m. 4", "Whole class", "Measure 2 sets the tempo for the trombone", "M. 3 is m. 1 again. Three measures are left to learn, not 4.",
		`aria-current="true"`)
	if strings.Contains(page, "Violin") {
		t.Error("an instrument that nobody plays is in the room")
	}
	_, page = v.Get(address + "&instrument=trombone&measure=2")
	testsite.Wants(t, page, "Trombone, measure 2", ": slide</h2>", "Drill ", "line=drill", fmt.Sprintf("/bench/%d?chunk=", x))
	s.Exercise(t, account.ID, 2, "Slides once more", "", "M:4/4\nL:1/4\nK:C\nF B, F B,|F4|]\n")
	s.Exercise(t, account.ID, 3, "No slides", "", "M:4/4\nL:1/4\nK:C\nC D C D|C4|]\n")
	_, page = v.Get(address + "&instrument=trombone&measure=2")
	testsite.Wants(t, page, "More of this: ", ">2 · Slides once more</a>")
	if strings.Contains(page, ">3 · No slides</a>") {
		t.Error("more of a slide is what has none")
	}
	_, page = v.Get(address + "&instrument=snare&measure=4")
	testsite.Wants(t, page, "Snare drum, measure 4", `measure=4" aria-current="true"`)
	grades := regexp.MustCompile(`class="grade-(\d)"`).FindAllStringSubmatch(page, -1)
	if len(grades) != 12 {
		t.Errorf("there are %d cells", len(grades))
	}
	worst := regexp.MustCompile(`class="worst"><b>(\d)</b> <small>at m. (\d)`).FindAllStringSubmatch(page, -1)
	for k, row := range worst {
		of := grades[4*k : 4*k+4]
		if top := slices.MaxFunc(of, func(a, b []string) int { return strings.Compare(a[1], b[1]) }); top[1] != row[1] || of[row[2][0]-'1'][1] != row[1] {
			t.Errorf("the hardest of row %d is %s at m. %s, of %v", k+1, row[1], row[2], of)
		}
	}
	if len(worst) != 3 {
		t.Errorf("%d rows say their hardest measure", len(worst))
	}
	for _, wrong := range []string{"&instrument=kazoo&measure=2", "&measure=999", "&instrument=trombone&measure=-5", "&measure=x"} {
		if status, _ := v.Get(address + wrong); status != http.StatusOK {
			t.Errorf("%s gives %d", wrong, status)
		}
	}
	link := regexp.MustCompile(`class="btn main wide" href="([^"]*)"`).FindStringSubmatch(page)
	if status, page := v.Get(strings.ReplaceAll(link[1], "&amp;", "&")); status != http.StatusOK || !strings.Contains(page, "Snare drum") {
		t.Errorf("the Bench that it leads to gives %d", status)
	}
	// A class with nobody in it, and no class at all.
	empty, err := desk.AddClass(ctx, "Empty")
	if err != nil {
		t.Fatal(err)
	}
	if status, _ := v.Get(fmt.Sprintf("/bench/%d/hardest?class=%d", x, empty)); status != http.StatusOK {
		t.Errorf("for nobody it gives %d", status)
	}
	alone, account := s.Teacher(t, "b@school.example")
	y := s.Exercise(t, account.ID, 1, "Alone", "", testsite.Lamp)
	if status, _ := alone.Get(fmt.Sprintf("/bench/%d/hardest", y)); status != http.StatusOK {
		t.Errorf("without a class it gives %d", status)
	}
}
