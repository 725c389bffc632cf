package settings_test

import (
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"unhurriedbench/core/care"
	"unhurriedbench/internal/testsite"
)

// Every kind has its page; the teacher's words stand in place of ours, are escaped and bounded,
// and nothing puts ours back.
func TestCare(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	for _, k := range care.Kinds() {
		status, page := v.Get("/care/" + string(k))
		if status != http.StatusOK {
			t.Errorf("%s gives %d", k, status)
		}
		testsite.Wants(t, page, "When it does not sound", "NIOSH 98-126")
	}
	if status, _ := v.Get("/care/harps"); status != http.StatusNotFound {
		t.Errorf("another kind gives %d", status)
	}
	first := care.For(care.Brass, care.First).Lines[0][:20]
	v.Post("/care/brass", url.Values{"topic": {"first-sounds"}, "words": {"Buzz <i>first</i>.\r\nThen sing."}})
	_, page := v.Get("/care/brass")
	testsite.Wants(t, page, "First sounds: Your words stand there now.", "<p>Buzz &lt;i&gt;first&lt;/i&gt;.</p><p>Then sing.</p>")
	if strings.Contains(page, first) {
		t.Error("our words stand beside the teacher's")
	}
	long := strings.Repeat("ü", care.Longest+1)
	if status, page := v.Post("/care/brass", url.Values{"topic": {"first-sounds"}, "words": {long}}); status != http.StatusUnprocessableEntity || !strings.Contains(page, long) || !strings.Contains(page, "First sounds: your words are longer than 3000 letters.") {
		t.Errorf("words that are too long give %d", status)
	}
	v.Post("/care/brass", url.Values{"topic": {"first-sounds"}, "words": {" "}})
	_, page = v.Get("/care/brass")
	testsite.Wants(t, page, "Our words stand there again.", first)
	if status, _ := v.Post("/care/brass", url.Values{"topic": {"singing"}, "words": {"x"}}); status != http.StatusNotFound {
		t.Errorf("another topic gives %d", status)
	}
	_, page = v.Get(fmt.Sprintf("/students/%d", b.Student))
	testsite.Wants(t, page, `href="/care/brass"`)
}
