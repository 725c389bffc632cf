package web

import (
	"context"
	"encoding/json"
	"net/url"
	"strings"
	"testing"

	"unhurriedbench/demo"
)

// inDemo is a visitor who is signed in to the demo.
func inDemo(t *testing.T) *visitor {
	t.Helper()
	s := open(t)
	if err := demo.Load(context.Background(), s.store); err != nil {
		t.Fatal(err)
	}
	v := s.visitor(t)
	v.post("/sign-in/demo", nil)
	return v
}

// benchHeard reads what a Bench gives its script to sound.
func benchHeard(t *testing.T, page string) heard {
	t.Helper()
	_, after, found := strings.Cut(page, `data-heard="`)
	text, _, _ := strings.Cut(after, `"`)
	var h heard
	if err := json.Unmarshal([]byte(strings.ReplaceAll(text, "&#34;", `"`)), &h); !found || err != nil {
		t.Fatalf("what is heard: %v", err)
	}
	return h
}

// The piece at hand is sounded in concert pitch, the whole with its repeats, at the
// teacher's A.
func TestHeard(t *testing.T) {
	t.Parallel()
	v := inDemo(t)
	_, page := v.get("/bench/6?instrument=clarinet&piece=4-5")
	h := benchHeard(t, page)
	if len(h.Round.Notes) != 6 || h.Round.Notes[0].MIDI[0] != 62 || h.Round.Length != 2 || h.A4 != 440 || h.Voice.Name != "clarinet" || len(h.Voice.Notes) < 5 {
		t.Errorf("measures 4 and 5 of Ferry Landing for the clarinet: %+v", h)
	}
	if _, page = v.get("/bench/6?instrument=snare"); benchHeard(t, page).Voice.Notes != nil || benchHeard(t, page).Round.Notes[0].MIDI != nil {
		t.Error("a snare drum has pitches")
	}
	v.post("/settings", url.Values{"tuning": {"442"}})
	if _, page = v.get("/bench/6?instrument=clarinet"); benchHeard(t, page).A4 != 442 {
		t.Error("the A of Settings is not what is heard")
	}
}

func TestTuningIsChecked(t *testing.T) {
	t.Parallel()
	v := inDemo(t)
	for _, bad := range []string{"600", "44o", "391"} {
		status, page := v.post("/settings", url.Values{"tuning": {bad}})
		if status != 422 {
			t.Errorf("an A of %s is taken: %d", bad, status)
		}
		wants(t, page, "from 392 to 466", `value="`+bad+`"`)
	}
}

// Everybody's first note is that of the piece at hand, each in its own reading and with its
// own sound.
func TestFirstNotes(t *testing.T) {
	t.Parallel()
	v := inDemo(t)
	_, text := v.get("/bench/6/first-notes?instrument=clarinet&piece=6-8")
	var list []firstNote
	if err := json.Unmarshal([]byte(text), &list); err != nil {
		t.Fatalf("%v in %s", err, text)
	}
	got := map[string]firstNote{}
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
	v := inDemo(t)
	_, page := v.get("/tune")
	wants(t, page, "Hold concert A", "open A", "A = 440 hertz")
	_, page = v.get("/tune?note=Bb")
	wants(t, page, "Hold concert B flat", "Tuesday mixed ensemble")
	if strings.Contains(page, "<th scope=\"row\">Snare drum") {
		t.Error("a snare drum is to tune")
	}
}
