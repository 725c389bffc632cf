package settings_test

import (
	"fmt"
	"net/url"
	"strings"
	"testing"

	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testdb"
	"unhurriedbench/internal/testsite"
)

// The site with routines of three and of six stages, some renamed and some new: it
// takes them as they are, from the first stage to the last.
func TestOtherRoutines(t *testing.T) {
	t.Parallel()
	standard := routine.Standard()
	for name, steps := range map[string]routine.Routine{
		"three": {
			{Stage: routine.Count, Word: "Clap", Mends: []routine.Cause{routine.Rhythm}},
			{Stage: routine.Finger, Word: "Finger", Mends: []routine.Cause{routine.WrongName, routine.Fingering}},
			{Stage: routine.Play, Word: "Play", Mends: []routine.Cause{routine.Sound}},
		},
		"six": {
			{Stage: "sing", Word: "Sing"}, standard[1], standard[0], standard[2], standard[3], {Stage: "perform", Word: "Perform"},
		},
	} {
		s := testsite.OpenOn(t, testdb.Open(t).Using(steps))
		v, account := s.Teacher(t, "a@school.example")
		b := testsite.Furnish(t, s.Store, account.ID) // with a try at Count
		_, door := s.Visitor(t).Get("/sign-in")
		testsite.Wants(t, door, "One exercise, "+name+" calm steps")
		_, page := v.Get(fmt.Sprintf("/bench/%d?student=%d&instrument=trombone&stage=%s", b.Exercise, b.Student, steps[0].Stage))
		at := strings.Index(page, `aria-label="Stages"`)
		for _, step := range steps {
			next := strings.Index(page[at:], "</svg> "+step.Word+"</a>")
			if next < 0 {
				t.Fatalf("%s: after %d characters of the Bench there is no stage %s", name, at, step.Word)
			}
			at += next
		}
		for k, step := range steps {
			for range routine.CleanToGoOn {
				_, page = testsite.Mark(v, b, url.Values{"result": {"clean"}, "stage": {string(step.Stage)}, "chunk": {"3-4"}})
			}
			want := step.Word + " is clean twice running: "
			if k+1 < len(steps) {
				want += "on to " + steps[k+1].Word + "."
			} else {
				want += "this chunk is done."
			}
			testsite.Wants(t, page, want)
		}
		_, board := v.Get("/board")
		testsite.Wants(t, board, "</svg> "+steps[len(steps)-1].Word+"</li>", steps[len(steps)-1].Word+" 50%")
		if bars := strings.Count(board, "<i class=") - 3; bars != len(steps) { // three stand in the legend
			t.Errorf("%s: a bar has %d cells", name, bars)
		}
		_, history := v.Get(fmt.Sprintf("/students/%d?exercise=%d", b.Student, b.Exercise))
		testsite.Wants(t, history, "<td>"+steps[len(steps)-1].Word+"</td>")
		if status, _ := testsite.Mark(v, b, url.Values{"result": {"clean"}, "stage": {"juggle"}}); status != 422 {
			t.Errorf("%s: a try at a stage that is not there gives %d", name, status)
		}
	}
}
