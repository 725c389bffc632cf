package shelf_test

import (
	"fmt"
	"net/http"
	"strings"
	"testing"

	"unhurriedbench/core/instrument"
	"unhurriedbench/internal/testsite"
)

// A counted file is brought in, stands on the Bench, and goes out as it came; what cannot be
// counted in one line says so.
func TestCountedFiles(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	const said = "title: Second Ferry\nmeter: 4/4\nkey: F\nfor: clarinet\ntempo: quarter = 72\ncount: 1 2 3 4 | 1 & 2 3 | 1 (2) & 3 [4] |\nname: gabc | cbag | gab |\n"
	status, to := v.Send("/exercises", map[string]string{"book": "B", "number": "1", "title": "Second Ferry"}, "ferry.counted", []byte(said))
	if status != http.StatusSeeOther {
		t.Fatalf("it gives %d: %s", status, to)
	}
	path, _, _ := strings.Cut(to, "?")
	_, page := v.Get(path + "?instrument=clarinet")
	testsite.Wants(t, page, "Second Ferry", "F major")
	status, page = v.Send("/exercises/preview", map[string]string{"number": "1"}, "bad.counted", []byte("count: 1 2 3 5\n"))
	if status != http.StatusOK || !strings.Contains(page, "4/4 has no beat 5") {
		t.Errorf("what is wrong is previewed as %d: %s", status, page)
	}
	id := s.Exercise(t, account.ID, 2, "Lamp", "", "T:Lamp\nM:4/4\nL:1/4\nQ:1/4=72\nK:Bb\nB>c d2|(ed) c z|B4|]\n")
	_, file := v.Get(fmt.Sprintf("/exercises/%d/export?instrument=trombone&as=counted", id))
	for _, want := range []string{"for: trombone\n", "key: Bb\n", "count: 1 (2) & 3 | 1 2 3 [4] | 1 |\n", "name: b c d | (e d) c | b |\n"} {
		if !strings.Contains(file, want) {
			t.Errorf("it lacks %q:\n%s", want, file)
		}
	}
	quick := s.Exercise(t, account.ID, 3, "Quick", "", "M:4/4\nL:1/32\nK:C\nCDEFGABc C8 C8 C8|]\n")
	if status, page := v.Get(fmt.Sprintf("/exercises/%d/export?instrument=%s&as=counted", quick, instrument.All()[0].ID)); status != http.StatusUnprocessableEntity || !strings.Contains(page, "no label to count it by") {
		t.Errorf("thirty-seconds give %d", status)
	}
}
