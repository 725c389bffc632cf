package breakdown

import (
	"strings"
	"testing"
)

// Thirds that are read as steps: the first of an exercise, and where steps have led, once a
// line of music. Common practice.
func TestThirdsThatLookLikeSteps(t *testing.T) {
	for _, tt := range []struct{ what, music, at string }{
		{"the first third", "C E G E|C4|]", "1.2"},
		{"after steps, the same way", "C E D E|C4|C4|C4|D E F A|C4|]", "1.2 5.4"},
		{"not twice in a line", "C E D E|F A G2|C4|]", "1.2"},
		{"not after one step", "C E D E|C2 D F|C4|]", "1.2"},
		{"not against the steps", "C E D E|F D G2|C4|]", "1.2"},
		{"not a fourth", "C D E A|C4|]", ""},
		{"not over a rest", "C D z F|C4|]", ""},
		{"once a line", "C D E G|A B c e|d c B G|C4|C D E G|C4|]", "1.4 5.4"},
		{"a tie between", "C D E2-|E2 G2|C4|]", "2.2"},
		{"octaves and unisons", "C C c C|C4|]", ""},
	} {
		if got := alerts(read(t, "M:4/4\nL:1/4\nK:C\n"+tt.music, "flute", nil), LookAlike); got != tt.at {
			t.Errorf("%s: at %q, want %q", tt.what, got, tt.at)
		}
	}
	r := read(t, "M:4/4\nL:1/4\nK:C\nF2G A|B d B2|c4|]", "flute", nil)
	if why := r.Measures[1].Events[1].Why; !strings.Contains(why, "A third, not a step: from line 3 to line 4. After steps it is easily read as one more.") {
		t.Errorf("it says %q", why)
	}
}

// What a class passes over or cuts short, sparingly. Common practice.
func TestWhatIsSkipped(t *testing.T) {
	for _, tt := range []struct{ what, music, at, says string }{
		{"a rest before the downbeat", "C D E z|F4|]", "1.4", "count it before the next downbeat"},
		{"not before a rest, where it enters", "C D E z|z F2 F|]", "2.2", "enters after a rest"},
		{"entries, once a line", "z C z D|z C z D|z E F2|z E F2|z E F2|]", "1.2 5.2", "enters after a rest"},
		{"not before a tie that goes on", "C4-|C2 D z|D4|]", "2.1 2.3", "not struck again"},
		{"a long rest is seen", "C2 z2|F4|]", "", ""},
		{"once a line", "C D E z|C D E z|C D E z|C4|C D E z|F4|]", "1.4 5.4", "easily skipped"},
		{"the last rest", "C D E F|G2 z2|]", "2.2", "count it out"},
		{"a measure of rest is no last beat", "C4|z4|]", "", ""},
		{"a repeat", "C D E F|G4:|C4|]", "2.1", "passed over"},
		{"a repeat, once", "|:C D E F:||:G A B c:|C4|]", "1.4", "passed over"},
		{"a tie over the bar, once", "C4-|C2 D2-|D4|]", "2.1", "not struck again"},
		{"a tie within a measure", "C2-C D|C4|]", "", ""},
		{"four counts", "C2D2|E4|F2G2|E4|C2D2|]", "2.1", "All four counts"},
		{"a long note that is marked", "C D E F|E4|F G A B|C4|]", "", ""},
	} {
		r := read(t, "M:4/4\nL:1/4\nK:C\n"+tt.music, "flute", nil)
		if got := alerts(r, Skip); got != tt.at {
			t.Errorf("%s: at %q, want %q", tt.what, got, tt.at)
		}
		for _, m := range r.Measures {
			for _, e := range m.Events {
				if e.Has(Skip) && tt.says != "" && strings.Contains(e.Why, tt.says) {
					tt.says = ""
				}
			}
		}
		if tt.says != "" {
			t.Errorf("%s: nothing says %q", tt.what, tt.says)
		}
	}
}
