package bench_test

import (
	"context"
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/format"
	"unhurriedbench/core/format/abc"
	"unhurriedbench/internal/testsite"
)

// Lines derived from an exercise stand in its place with chunks of their own, are left for
// the chunk they were entered from, go out as files and are kept as exercises.
func TestLines(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	id := s.Exercise(t, account.ID, 7, "Slurred", "", "T:Slurred\nM:4/4\nL:1/4\nK:C\n(cd)ef|g4|(fe)dc|c2z2|\nc d e f|g4|f e d c|c4|]\n")
	bench := fmt.Sprintf("/bench/%d?instrument=trombone&student=%d&class=%d", id, b.Student, b.Class)
	_, page := v.Get(bench)
	testsite.Wants(t, page, "As written", "Rhythm only", "Notes only", "Add a note", "Slurs last", "Rhythm in pulsed eighths", "Hold the first note", "Last measure first")
	for line, want := range map[breakdown.PracticeVersion][]string{
		breakdown.OneNote:   {"Rhythm only: 7 · Slurred", "the hands have nothing to do", "Concert"},
		breakdown.EvenWalk:  {"Notes only: 7 · Slurred", "half notes"},
		breakdown.Longer:    {"Longer values first: 7 · Slurred", "whole notes", "quarter notes", "as it is written"},
		breakdown.AddANote:  {"Add a note: 7 · Slurred", "3 notes", "the whole"},
		breakdown.Unslurred: {"without slurs", "as written"},
		breakdown.Pulsed:    {"Rhythm in pulsed eighths: 7 · Slurred"},
		breakdown.HeldFirst: {"held, then on"},
		breakdown.LastFirst: {"the last measure", "the whole"},
		breakdown.Alone:     {"One chunk alone: 7 · Slurred"},
	} {
		_, page := v.Get(bench + "&of=3-4&line=" + string(line))
		testsite.Wants(t, page, append(want, "Keep this line in", "Back to the exercise", fmt.Sprintf("student=%d", b.Student))...)
		if strings.Contains(page, `id="mark-clean"`) {
			t.Errorf("%s asks for marks", line)
		}
		status, file := v.Get(fmt.Sprintf("/exercises/%d/export?instrument=trombone&as=abc&line=%s&of=3-4", id, line))
		if status != http.StatusOK {
			t.Errorf("%s as a file gives %d", line, status)
		}
		if _, err := abc.Read(context.Background(), file); err != nil {
			t.Errorf("%s as a file cannot be read: %v\n%s", line, err, file)
		}
		_, to := v.Post(fmt.Sprintf("/bench/%d/line", id), url.Values{"instrument": {"trombone"}, "line": {string(line)}, "of": {"3-4"}})
		_, page = v.Get(to)
		testsite.Wants(t, page, "The line is exercise", " 7, trombone", "Who is trying?")
	}
	// A line in another meter keeps no tempo mark of the exercise's.
	six := s.Exercise(t, account.ID, 90, "In Six", "", "T:In Six\nM:6/8\nL:1/8\nQ:3/8=112\nK:C\nc3 d3|e3 f3|g6|c6|]\n")
	_, page = v.Get(fmt.Sprintf("/bench/%d?instrument=trombone&line=even-walk", six))
	if testsite.Wants(t, page, "quarter = <b"); strings.Contains(page, `id="tempo-now">112<`) {
		t.Error("notes alone in 4/4 have the dotted quarter's tempo")
	}
	if _, file := v.Get(fmt.Sprintf("/exercises/%d/export?instrument=trombone&as=abc&line=even-walk", six)); strings.Contains(file, "Q:") {
		t.Errorf("notes alone in 4/4 as a file have a mark of 6/8: %s", file)
	}
	if _, file := v.Get(fmt.Sprintf("/exercises/%d/export?instrument=trombone&as=abc", six)); !strings.Contains(file, "Q:3/8=112") {
		t.Errorf("the exercise as a file has lost its tempo: %s", file)
	}
	_, page = v.Get(bench + "&line=last-first&of=3-4&chunk=1-1")
	testsite.Wants(t, page, fmt.Sprintf("chunk=3-4&amp;class=%d", b.Class)) // back where it was entered
	_, page = v.Get(bench + "&line=nonsense")
	testsite.Wants(t, page, "<h1>7 · Slurred</h1>")
	_, one := v.Get(fmt.Sprintf("/exercises/%d/export?instrument=trombone&as=abc&line=one-note&one=Bb", id))
	if got := onlyPitch(t, one); got != "Bb2" && got != "Bb3" {
		t.Errorf("on concert B flat the trombone has %s\n%s", got, one)
	}
	for asked, want := range map[string]string{"F3": "F3", "Eb3": "Eb3", "C9": "Bb2", "nonsense": "Bb2"} { // a note of the student's own
		_, own := v.Get(fmt.Sprintf("/exercises/%d/export?instrument=trombone&as=abc&line=pulsed-one&one=%s", id, asked))
		if got := onlyPitch(t, own); got != want {
			t.Errorf("on %s the trombone has %s\n%s", asked, got, own)
		}
	}
	_, page = v.Get(bench + "&line=one-note&one=Eb3")
	testsite.Wants(t, page, `<option value="Eb3" selected>`, "Written for trombone")
	for first, want := range map[string]string{"": "3 notes", "5": "5 notes", "99": "5 notes", "-1": "3 notes"} {
		_, page = v.Get(bench + "&line=add-a-note&of=1-4&first=" + first)
		if testsite.Wants(t, page, want); want == "5 notes" && strings.Contains(page, ", 4 notes") {
			t.Errorf("adding a note from %s begins with fewer", first)
		}
	}
}

// onlyPitch is the pitch of a part that has one.
func onlyPitch(t *testing.T, text string) string {
	t.Helper()
	sc, err := format.ReadKind(context.Background(), format.ABC, []byte(text))
	if err != nil {
		t.Fatal(err)
	}
	pitches := map[string]bool{}
	for _, at := range sc.Parts[0].Notes() {
		pitches[sc.Parts[0].At(at).Pitch.String()] = true
	}
	if len(pitches) != 1 {
		t.Fatalf("the pitches are %v", pitches)
	}
	for p := range pitches {
		return p
	}
	return ""
}
