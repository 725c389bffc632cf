package score

import "testing"

// A problem says where it is as exactly as it knows: by the music where it is about a measure,
// else by the text.
func TestAProblemSaysWhereItIs(t *testing.T) {
	for _, tt := range []struct {
		problem Problem
		want    string
	}{
		{Problem{Measure: 7, Note: 3, Line: 12, Column: 4, What: "it is too long.", Do: "Shorten it."}, "Measure 7, note 3, line 12: it is too long. Shorten it."},
		{Problem{Measure: 0, What: "it is empty."}, "The pickup measure: it is empty."},
		{Problem{Measure: -1, Line: 4, Column: 5, What: "# is nothing."}, "Line 4, column 5: # is nothing."},
		{Problem{Measure: -1, Column: 5, What: "# is nothing."}, "# is nothing."},
		{Problem{Measure: -1, Line: 4, What: "it ends."}, "Line 4: it ends."},
		{Problem{Measure: -1, Part: "Flute", What: "it is left out.", Times: 3}, "Flute: it is left out. It comes 3 times; this is the first."},
		{Problem{Measure: 2, What: "it is cut.", Times: 3}, "Measure 2: it is cut. So in 3 measures; this is the first."},
		{Problem{Measure: 2, What: "it is cut.", Times: 1}, "Measure 2: it is cut."},
		{General("The file is empty.", "Choose another."), "The file is empty. Choose another."},
	} {
		if got := tt.problem.Error(); got != tt.want {
			t.Errorf("%+v says %q, want %q", tt.problem, got, tt.want)
		}
	}
}
