package progress

import (
	"fmt"
	"math/rand/v2"
	"testing"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
)

func TestTogether(t *testing.T) {
	a, b := breakdown.ChunkKey{First: 1, Last: 2}, breakdown.ChunkKey{First: 3, Last: 4}
	on := func(student, exercise int64, chunk breakdown.ChunkKey, instrument string, cause routine.Cause, since int64) Trouble {
		return Trouble{Student: student, Exercise: exercise, Chunk: chunk, Instrument: instrument, Cause: cause, Stumbles: int(student) + 2, Since: since}
	}
	say := func(list []Shared) string {
		var words []string
		for _, s := range list {
			words = append(words, fmt.Sprintf("%v %v on %d %s over %s, %d since %d", s.Students, s.Instruments, s.Exercise, s.Chunk, s.Cause, s.Stumbles, s.Since))
		}
		return fmt.Sprintf("%q", words)
	}
	for _, tt := range []struct {
		name string
		list []Trouble
		want string
	}{
		{"nobody", nil, `[]`},
		{"one alone is none", []Trouble{on(1, 1, a, "violin", routine.Rhythm, 5)}, `[]`},
		{"two over different causes are none", []Trouble{on(1, 1, a, "violin", routine.Rhythm, 5), on(2, 1, a, "violin", routine.Sound, 5)}, `[]`},
		{"nor at different chunks", []Trouble{on(1, 1, a, "violin", routine.Rhythm, 5), on(2, 1, b, "violin", routine.Rhythm, 5)}, `[]`},
		{"nor at different exercises", []Trouble{on(1, 1, a, "violin", routine.Rhythm, 5), on(2, 2, a, "violin", routine.Rhythm, 5)}, `[]`},
		{"across instruments, who has been for longer first", []Trouble{on(1, 1, a, "violin", routine.Rhythm, 9), on(2, 1, a, "clarinet", routine.Rhythm, 5), on(3, 1, a, "violin", routine.Rhythm, 7)},
			`["[2 3 1] [clarinet violin] on 1 1-2 over rhythm, 5 since 5"]`},
		{"more students first", []Trouble{on(1, 1, a, "violin", routine.Rhythm, 1), on(2, 1, a, "violin", routine.Rhythm, 1), on(1, 2, b, "oboe", routine.Sound, 3), on(2, 2, b, "oboe", routine.Sound, 4), on(3, 2, b, "oboe", routine.Sound, 5)},
			`["[1 2 3] [oboe] on 2 3-4 over sound, 5 since 3" "[1 2] [violin] on 1 1-2 over rhythm, 4 since 1"]`},
	} {
		if got := say(Together(tt.list)); got != tt.want {
			t.Errorf("%s: %s, want %s", tt.name, got, tt.want)
		}
	}
}

func TestGroups(t *testing.T) {
	word := []string{"Count", "Name", "Finger", "Play", "Done"}
	m := func(student int64, stage int, cause routine.Cause) Member {
		return Member{Student: student, Stage: stage, Word: word[stage], Cause: cause, Share: float64(stage) / 4}
	}
	class := []Member{m(1, 3, ""), m(2, 1, routine.WrongName), m(3, 0, routine.Rhythm), m(4, 1, routine.WrongName), m(5, 3, ""), m(6, 0, routine.Rhythm), m(7, 4, "")}
	say := func(teams []Team) string {
		var words []string
		for _, team := range teams {
			var ids []int64
			for _, m := range team.Members {
				ids = append(ids, m.Student)
			}
			words = append(words, fmt.Sprint(ids, " ", team.Why))
		}
		return fmt.Sprintf("%q", words)
	}
	for _, tt := range []struct {
		size int
		how  Grouping
		want string
	}{
		{2, ByTrouble, `["[3 6] all at Count, over the rhythm" "[2 4] all at Name, over the note names" "[1 5] all at Play" "[7] all at Done"]`},
		{4, ByTrouble, `["[3 6 2 4] from Count to Name, 2 of 4 over the rhythm" "[1 5 7] from Play to Done"]`},
		{3, Balanced, `["[7 3 6] from Done to Count: the first can lead" "[1 4] from Play to Name: the first can lead" "[5 2] from Play to Name: the first can lead"]`},
		{9, Balanced, `["[7 1 5 2 4 3 6] from Done to Count: the first can lead"]`},
	} {
		if got := say(Groups(class, tt.size, tt.how)); got != tt.want {
			t.Errorf("groups of %d, %s: %s, want %s", tt.size, tt.how, got, tt.want)
		}
	}
	if Groups(nil, 3, ByTrouble) != nil {
		t.Error("nobody makes a group")
	}
}

// Everybody is in one group, none is larger than was asked for, and none is much smaller
// than another.
func TestGroupsOfAnySize(t *testing.T) {
	chance := rand.New(rand.NewPCG(2, 3))
	for range 300 {
		var class []Member
		for n := range 1 + chance.IntN(40) {
			stage := chance.IntN(5)
			class = append(class, Member{Student: int64(n), Stage: stage, Word: "x", Share: chance.Float64(), Cause: append(routine.AllCauses(), routine.None)[chance.IntN(5)]})
		}
		size := 2 + chance.IntN(7)
		for _, how := range []Grouping{ByTrouble, Balanced} {
			seen := map[int64]bool{}
			least, most := len(class), 0
			for _, team := range Groups(class, size, how) {
				least, most = min(least, len(team.Members)), max(most, len(team.Members))
				for _, m := range team.Members {
					if seen[m.Student] {
						t.Fatalf("student %d is in two groups", m.Student)
					}
					seen[m.Student] = true
				}
				if team.Why == "" {
					t.Fatal("a group has no reason")
				}
			}
			if len(seen) != len(class) || most > size || most-least > 1 {
				t.Fatalf("of %d in groups of %d, %s: %d are in groups of %d to %d", len(class), size, how, len(seen), least, most)
			}
		}
	}
}
