package progress

import (
	"testing"

	"unhurriedbench/core/routine"
)

// Three stumbles running, or half of the last eight tries, is stuck; one good day ends it, and
// trouble fades. A habit is found over several lines.
func TestNeedOf(t *testing.T) {
	// a letter a try, a word a day, the days one apart: c clean, and the stumbles r n f s
	heard := func(text string, exercise func(n int) int64) (list []Heard) {
		day := 100
		for _, c := range text {
			causes := map[rune]routine.Cause{'r': routine.Rhythm, 'n': routine.WrongName, 'f': routine.Fingering, 's': routine.Sound}
			if c == ' ' {
				day++
				continue
			}
			list = append(list, Heard{Exercise: exercise(len(list)), Unit: key(1, 2), Stage: routine.Play, Form: routine.Play,
				Clean: c == 'c', Cause: causes[c], Day: day, At: int64(day)*86400 + int64(len(list))})
		}
		return list
	}
	one := func(int) int64 { return 7 }
	each := func(n int) int64 { return int64(n + 1) }
	for _, tt := range []struct {
		name     string
		tries    []Heard
		today    int
		stuck    bool
		cause    routine.Cause
		exercise int64
		habit    bool
	}{
		{"nothing", nil, 100, false, "", 0, false},
		{"two stumbles", heard("rr", one), 100, false, "", 0, false},
		{"three running", heard("crrr", one), 100, true, routine.Rhythm, 7, false},
		{"three running, the most over names", heard("nrn", one), 100, true, routine.WrongName, 7, false},
		{"four of eight", heard("rcrcrcrc", one), 100, true, routine.Rhythm, 7, false},
		{"three of eight", heard("rcrcrccc", one), 100, false, "", 0, false},
		{"a good day ends it", heard("rrr cc", one), 101, false, "", 0, false},
		{"a bad day after it begins again", heard("rrr c rrr", one), 102, true, routine.Rhythm, 7, false},
		{"four weeks ago it has faded", heard("rrr", one), 128, false, "", 0, false},
		{"a week ago it has not", heard("rrr", one), 107, true, routine.Rhythm, 7, false},
		{"the same cause in four lines of eight", heard("fcfc fcfc", each), 101, true, routine.Fingering, 7, true},
		{"four causes in four lines", heard("rcnc fcsc", each), 101, false, "", 0, false},
	} {
		got, stuck := NeedOf(tt.tries, tt.today)
		if stuck != tt.stuck || stuck && (got.Cause != tt.cause || got.Exercise != tt.exercise) || stuck && tt.habit && !got.Habit {
			t.Errorf("%s: %+v, %v", tt.name, got, stuck)
		}
	}
	if needs := SharedNeeds(map[int64]Need{4: {Exercise: 1, Cause: routine.Rhythm}, 2: {Exercise: 1, Cause: routine.Rhythm}, 9: {Exercise: 1, Cause: routine.Rhythm}, 3: {Exercise: 1, Cause: routine.Sound}}, func(Need) int { return 0 }); len(needs) != 1 || len(needs[0]) != 3 || needs[0][0] != 2 {
		t.Errorf("together are %v", needs)
	}
}
