package bench_test

import (
	"fmt"
	"net/http"
	"strings"
	"testing"

	"unhurriedbench/internal/testsite"
)

// The Bench starts where the measure that limits the exercise can go, and says which; what
// nothing holds back says nothing.
func TestTheBenchStartsWhereItCanGo(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	quick := s.Exercise(t, account.ID, 1, "Quick", "", "M:4/4\nL:1/4\nQ:1/4=100\nK:Bb\nB c d e|f//e//d//c// B//c//d//e// f2|B4|]\n")
	calm := s.Exercise(t, account.ID, 2, "Calm", "", "M:4/4\nL:1/4\nQ:1/4=100\nK:Bb\nB c d e|f2 d2|B4|]\n")
	status, page := v.Get(fmt.Sprintf("/bench/%d?instrument=trumpet", quick))
	if status != http.StatusOK {
		t.Fatalf("the Bench gives %d", status)
	}
	testsite.Wants(t, page, "m. 2 sets the tempo: start at 4", `<b id="tempo-now">4`)
	_, page = v.Get(fmt.Sprintf("/bench/%d?instrument=trumpet", calm))
	testsite.Wants(t, page, `<b id="tempo-now">80</b>`)
	if strings.Contains(page, "sets the tempo") {
		t.Error("a calm exercise is held back")
	}
	_, page = v.Get(fmt.Sprintf("/bench/%d?instrument=trumpet&tempo=72", quick))
	testsite.Wants(t, page, `<b id="tempo-now">72</b>`)
}
