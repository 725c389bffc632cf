package bench_test

import (
	"html"
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"unhurriedbench/internal/testsite"
)

// pairs reads the hidden fields of the form that teaches a way in all its octaves.
func pairs(t *testing.T, page, label string) url.Values {
	t.Helper()
	form := url.Values{}
	for _, f := range regexp.MustCompile(`(?s)<form.*?</form>`).FindAllString(page, -1) {
		if !strings.Contains(f, label) {
			continue
		}
		form = url.Values{} // the same stands at either note
		for _, field := range regexp.MustCompile(`name="(note|fingering)" value="([^"]*)"`).FindAllStringSubmatch(f, -1) {
			form.Add(field[1], html.UnescapeString(field[2]))
		}
	}
	return form
}

// A way is taught in both octaves by one press, which says what is taught now; one more
// takes both back, to what each was.
func TestTeachingInBothOctaves(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, _ := s.Teacher(t, "a@school.example")
	v.Post("/fingerings/flute", url.Values{"note": {"82"}, "fingering": {"T 1 | sideBb Eb"}}) // the upper B flat has its own
	_, page := v.Get("/fingerings/flute")
	testsite.Wants(t, page, "Flute, A♯ or B♭: taught first from now on is left hand thumb, 1; right hand side B flat key, E flat key.")
	form := pairs(t, page, `aria-label="Teach TBb 1 | Eb first in both octaves"`)
	want := url.Values{"note": {"70", "82"}, "fingering": {"TBb 1 | Eb", "TBb 1 | Eb"}}
	if form.Encode() != want.Encode() {
		t.Fatalf("the form of both octaves has %s", form.Encode())
	}
	status, to := v.Post("/fingerings/flute", form)
	if status != http.StatusSeeOther || to != "/fingerings/flute#n70" {
		t.Fatalf("teaching in both octaves gives %d %s", status, to)
	}
	_, page = v.Get("/fingerings/flute")
	testsite.Wants(t, page, "Flute, A♯ or B♭ in both octaves: taught first from now on is left hand thumb B flat lever, 1; right hand E flat key.")
	if n := strings.Count(page, "The first is your choice."); n != 2 {
		t.Errorf("%d notes are taught by choice, want 2", n)
	}
	undo := html.UnescapeString(regexp.MustCompile(`action="(/fingerings/flute\?[^"]*)"`).FindStringSubmatch(page)[1])
	v.Post(undo, nil)
	_, page = v.Get("/fingerings/flute")
	testsite.Wants(t, page, "the usual fingering is taught first again", `aria-label="Teach TBb 1 | Eb first in both octaves"`)
	if n := strings.Count(page, "The first is your choice."); n != 1 {
		t.Errorf("taken back, %d notes are taught by choice, want the upper B flat", n)
	}
	if strings.Contains(page, "action=\"/fingerings/flute?") {
		t.Error("what was taken back offers an undo")
	}
}

// What is pressed and sounds no note is compared with what is near, each note with its place.
func TestWhatIsNearlyPressed(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, _ := s.Teacher(t, "a@school.example")
	_, page := v.Get("/fingerings/flute")
	at := map[string]string{}
	for _, key := range regexp.MustCompile(`"name":"([^"]+)","at":(\d+)`).FindAllStringSubmatch(page, -1) {
		at[key[1]] = key[2]
	}
	press := func(names ...string) string {
		keys := make([]string, len(names))
		for k, name := range names {
			keys[k] = at[name]
		}
		_, said := v.Get("/fingerings/flute/near?keys=" + url.QueryEscape(strings.Join(keys, " ")))
		return said
	}
	if said := press("T", "1", "2"); said != "Closest: A, space 2: add the E flat key; A, first ledger line above the staff: add the E flat key." {
		t.Errorf("near T 1 2 are: %s", said)
	}
	if said := press("T", "1", "2", "Eb"); said != "" {
		t.Errorf("near a fingering of the chart are: %s", said)
	}
	if _, said := v.Get("/fingerings/flute/near?keys=0+1+63+" + at["T"] + "+" + at["1"] + "+" + at["2"]); !strings.HasPrefix(said, "Closest: A, space 2: add the E flat key;") {
		t.Errorf("with keys the flute does not have, near are: %s", said)
	}
	for _, keys := range []string{"", "x", "-1 64 9999999999999999999999"} {
		if status, _ := v.Get("/fingerings/flute/near?keys=" + url.QueryEscape(keys)); status != http.StatusOK {
			t.Errorf("keys %q give %d", keys, status)
		}
	}
	if status, _ := v.Get("/fingerings/kazoo/near"); status != http.StatusNotFound {
		t.Error("there is a kazoo")
	}
	_, page = v.Get("/fingerings/trombone")
	testsite.Wants(t, page, "also sounds E3, A3, C♯4, E4, A4.", "Year two: F2 to E♭4")
}
