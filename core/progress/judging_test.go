package progress

import (
	"strings"
	"testing"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
)

// marks reads tries such as "a10+ b12-": the exercise, the day, clean or not.
func marks(text string) []Marked {
	var list []Marked
	for _, word := range strings.Fields(text) {
		on := 0
		for _, digit := range word[1 : len(word)-1] {
			on = 10*on + int(digit-'0')
		}
		list = append(list, Marked{Exercise: int64(word[0]), Chunk: breakdown.ChunkKey{First: 1, Last: 2}, Stage: routine.Play, Clean: strings.HasSuffix(word, "+"), On: on})
	}
	return list
}

func TestJudge(t *testing.T) {
	for _, tt := range []struct {
		what, said, heard string
		want              Judging
	}{
		{"nothing", "", "", Judging{}},
		{"alike", "a10+", "a11+", Judging{Agree: 1}},
		{"both stumble", "a10-", "a11-", Judging{Agree: 1}},
		{"over", "a10+", "a11-", Judging{Over: 1}},
		{"under", "a10-", "a11+", Judging{Under: 1}},
		{"what was said last counts", "a9- a10+", "a11+", Judging{Agree: 1}},
		{"on the same day too", "a11+", "a11-", Judging{Over: 1}},
		{"what was said afterwards does not", "a12+", "a11-", Judging{}},
		{"nor what is more than a week old", "a3+", "a11-", Judging{}},
		{"a week is not", "a4+", "a11-", Judging{Over: 1}},
		{"another exercise is another", "a10+", "b11-", Judging{}},
		{"of a day, what was heard first", "a10+", "a11- a11+", Judging{Over: 1}},
		{"what was said is used once", "a10+", "a11+ a12-", Judging{Agree: 1}},
		{"also what was said before it", "a9- a10+", "a11+ a12+", Judging{Agree: 1}},
		{"two chunks", "a10+ b10-", "a11+ b11+", Judging{Agree: 1, Under: 1}},
	} {
		if got := Judge(marks(tt.said), marks(tt.heard)); got != tt.want {
			t.Errorf("%s: %+v, want %+v", tt.what, got, tt.want)
		}
	}
	finger := marks("a10+")
	finger[0].Stage = routine.Finger
	if got := Judge(finger, marks("a11-")); got != (Judging{}) {
		t.Errorf("another stage: %+v", got)
	}
	for j, want := range map[Judging]string{
		{Agree: 2}:                    "",
		{Agree: 3}:                    "hears it as you do: 3 of 3 tries alike",
		{Agree: 2, Over: 1}:           "hears it as you do: 2 of 3 tries alike",
		{Agree: 2, Over: 2}:           "hears it better than it is: of 4 tries, 2 were said to be clean and were not",
		{Agree: 1, Under: 4}:          "hears it worse than it is: of 5 tries, 4 were said to stumble and were clean",
		{Agree: 2, Over: 2, Under: 2}: "hears it as you do: 2 of 6 tries alike",
	} {
		if got := j.Words(); got != want {
			t.Errorf("%+v: %q, want %q", j, got, want)
		}
	}
}
