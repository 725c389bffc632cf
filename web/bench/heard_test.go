package bench_test

import (
	"encoding/json"
	"net/url"
	"strings"
	"testing"

	"unhurriedbench/internal/testsite"
	"unhurriedbench/web/bench"
)

// benchHeard reads what a Bench gives its script to sound.
func benchHeard(t *testing.T, page string) bench.Heard {
	t.Helper()
	_, after, found := strings.Cut(page, `data-heard="`)
	text, _, _ := strings.Cut(after, `"`)
	var h bench.Heard
	if err := json.Unmarshal([]byte(strings.ReplaceAll(text, "&#34;", `"`)), &h); !found || err != nil {
		t.Fatalf("what is heard: %v", err)
	}
	return h
}

// The chunk at hand is sounded in concert pitch, the whole with its repeats, at the
// teacher's A.
func TestHeard(t *testing.T) {
	t.Parallel()
	v := testsite.InDemo(t)
	_, page := v.Get("/bench/6?instrument=clarinet&chunk=4-5")
	h := benchHeard(t, page)
	if len(h.Round.Notes) != 6 || h.Round.Notes[0].MIDI[0] != 62 || h.Round.Length != 2 || h.A4 != 440 || h.Voice.Name != "clarinet" || len(h.Voice.Notes) < 5 {
		t.Errorf("measures 4 and 5 of Ferry Landing for the clarinet: %+v", h)
	}
	if _, page = v.Get("/bench/6?instrument=snare"); benchHeard(t, page).Voice.Notes != nil || benchHeard(t, page).Round.Notes[0].MIDI != nil {
		t.Error("a snare drum has pitches")
	}
	v.Post("/settings", url.Values{"tuning": {"442"}})
	if _, page = v.Get("/bench/6?instrument=clarinet"); benchHeard(t, page).A4 != 442 {
		t.Error("the A of Settings is not what is heard")
	}
}

func TestTuningIsChecked(t *testing.T) {
	t.Parallel()
	v := testsite.InDemo(t)
	for _, bad := range []string{"600", "44o", "391"} {
		status, page := v.Post("/settings", url.Values{"tuning": {bad}})
		if status != 422 {
			t.Errorf("an A of %s is taken: %d", bad, status)
		}
		testsite.Wants(t, page, "from 392 to 466", `value="`+bad+`"`)
	}
}

// Everybody's first note is that of the chunk at hand, each in its own reading and with its
// own sound.
func TestFirstNotes(t *testing.T) {
	t.Parallel()
	v := testsite.InDemo(t)
	_, text := v.Get("/bench/6/first-notes?instrument=clarinet&chunk=6-8")
	var list []bench.FirstNote
	if err := json.Unmarshal([]byte(text), &list); err != nil {
		t.Fatalf("%v in %s", err, text)
	}
	got := map[string]bench.FirstNote{}
	for _, n := range list {
		got[n.Instrument] = n
	}
	if n := got["Clarinet"]; n.Name != "A" || len(n.MIDI) != 1 || n.MIDI[0] != 67 || n.Voice.Name != "clarinet" {
		t.Errorf("the clarinet begins measure 6 on %+v", n)
	}
	if n := got["Trombone"]; n.Name != "G" || n.MIDI[0]%12 != 67%12 {
		t.Errorf("the trombone begins measure 6 on %+v", n)
	}
	if n := got["Snare drum"]; n.Name != "" || n.MIDI != nil {
		t.Errorf("the snare drum begins on %+v", n)
	}
	if _, there := got["Flute"]; there {
		t.Error("an instrument that nobody here plays has a first note")
	}
}

func TestTune(t *testing.T) {
	t.Parallel()
	v := testsite.InDemo(t)
	_, page := v.Get("/tune")
	testsite.Wants(t, page, "Hold concert A", "open A", "A = 440 hertz")
	_, page = v.Get("/tune?note=Bb")
	testsite.Wants(t, page, "Hold concert B flat", "Tuesday mixed ensemble")
	if strings.Contains(page, "<th scope=\"row\">Snare drum") {
		t.Error("a snare drum is to tune")
	}
	_, page = v.Get("/tune?note=B&who=strings") // a chart of one note
	testsite.Wants(t, page, "Hold concert B", "Viola", "Double bass")
	if strings.Contains(page, "<th scope=\"row\">Trumpet") {
		t.Error("a trumpet is among the strings")
	}
	_, page = v.Get("/tune?note=Gb&who=nobody")
	testsite.Wants(t, page, "Trombone")
}
