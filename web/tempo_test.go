package web

import (
	"fmt"
	"net/http"
	"strings"
	"testing"
)

// The Bench starts where the measure that limits the exercise can go, and says which; what
// nothing holds back says nothing.
func TestTheBenchStartsWhereItCanGo(t *testing.T) {
	t.Parallel()
	s := open(t)
	v, account := s.teacher(t, "a@school.example")
	quick := s.exercise(t, account.ID, 1, "Quick", "", "M:4/4\nL:1/4\nQ:1/4=100\nK:Bb\nB c d e|f//e//d//c// B//c//d//e// f2|B4|]\n")
	calm := s.exercise(t, account.ID, 2, "Calm", "", "M:4/4\nL:1/4\nQ:1/4=100\nK:Bb\nB c d e|f2 d2|B4|]\n")
	status, page := v.get(fmt.Sprintf("/bench/%d?instrument=trumpet", quick))
	if status != http.StatusOK {
		t.Fatalf("the Bench gives %d", status)
	}
	wants(t, page, "m. 2 sets the tempo: start at 4", `<b id="tempo-now">4`)
	_, page = v.get(fmt.Sprintf("/bench/%d?instrument=trumpet", calm))
	wants(t, page, `<b id="tempo-now">80</b>`)
	if strings.Contains(page, "sets the tempo") {
		t.Error("a calm exercise is held back")
	}
	_, page = v.get(fmt.Sprintf("/bench/%d?instrument=trumpet&tempo=72", quick))
	wants(t, page, `<b id="tempo-now">72</b>`)
}
