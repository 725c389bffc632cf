package checkin

import (
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/lesson"
	"unhurriedbench/core/routine"
)

// at is a chunk of eight beats that somebody is at, at 60 with four beats of count-off: with
// ten seconds of words it takes 22.
func at(exercise int64, label string, stage routine.Stage, last int64, change ...func(*Chunk)) Chunk {
	p := Chunk{
		Chunk: lesson.Chunk{Exercise: exercise, Number: int(exercise), Key: breakdown.ChunkKey{First: int(label[0]), Last: int(label[0])}, Label: label, Beats: 8, CountOff: 4, Notes: 8, Tempo: 60},
		Steps: routine.Standard(), State: routine.State{Stage: stage, Tries: int(last)}, Last: last,
	}
	for _, do := range change {
		do(&p)
	}
	return p
}

func asked(p *Chunk) { p.Asked = true }
func clean(p *Chunk) { p.State.Clean = 1 }
func stuck(stumbles int) func(*Chunk) {
	return func(p *Chunk) { p.State.Stumbles, p.State.Over = stumbles, routine.Causes{stumbles} }
}

func TestDue(t *testing.T) {
	count, name, finger, play, done := routine.Count, routine.Name, routine.Finger, routine.Play, routine.Done
	for _, tt := range []struct {
		what    string
		chunks  []Chunk
		seconds float64
		want    string
	}{
		{"nothing is begun", nil, 60, ""},
		{"nothing was tried", []Chunk{at(1, "A", count, 0)}, 60, ""},
		{"the first open chunk", []Chunk{at(1, "A", done, 5), at(1, "B", name, 9), at(1, "C", count, 0)}, 60, "1B Name: at Name"},
		{"with what was clean", []Chunk{at(1, "A", finger, 5, clean)}, 60, "1A Finger: at Finger, 1 of 2 clean"},
		{"an untried chunk of what is begun", []Chunk{at(1, "A", done, 5), at(1, "B", "", 0)}, 60, "1B Count: at Count"},
		{"what was tried last comes first", []Chunk{at(1, "A", name, 5), at(2, "A", count, 9)}, 60, "2A Count: at Count; 1A Name: at Name"},
		{"as much as there is time for", []Chunk{at(1, "A", name, 5), at(2, "A", count, 9), at(3, "A", play, 7)}, 45, "2A Count: at Count; 3A Play: at Play"},
		{"one in any case", []Chunk{at(1, "A", name, 5), at(2, "A", count, 9)}, 0, "2A Count: at Count"},
		{"who is stuck is heard on it", []Chunk{at(1, "A", name, 5, stuck(3)), at(2, "A", count, 9)}, 60, "1A Name: 3 stumbles, rhythm; 2A Count: at Count"},
		{"the most stuck first", []Chunk{at(1, "A", name, 5, stuck(3)), at(2, "A", count, 1, stuck(5))}, 25, "2A Count: 5 stumbles, rhythm"},
		{"what was asked before that", []Chunk{at(1, "A", name, 5, stuck(3)), at(2, "A", play, 1, asked)}, 25, "2A Play: left from the last check-in"},
		{"what was asked and is done since is not", []Chunk{at(1, "A", done, 5, asked), at(2, "A", play, 1)}, 60, "2A Play: at Play"},
		{"one chunk an exercise", []Chunk{at(1, "A", name, 5, stuck(3)), at(1, "B", name, 6, stuck(4))}, 90, "1B Name: 4 stumbles, rhythm"},
		{"something done, the last", []Chunk{at(1, "A", done, 5), at(2, "A", done, 9)}, 25, "2A Play: done: so that it is kept"},
	} {
		var words []string
		for _, s := range Due(tt.chunks, tt.seconds, 8) {
			words = append(words, fmt.Sprintf("%d%s %s: %s", s.Exercise, s.Label, s.Word, s.Why))
		}
		if got := strings.Join(words, "; "); got != tt.want {
			t.Errorf("%s: %s, want %s", tt.what, got, tt.want)
		}
	}
	if n := len(Due([]Chunk{at(1, "A", name, 5), at(2, "A", count, 9), at(3, "A", count, 9)}, 900, 2)); n != 2 {
		t.Errorf("of at most two chunks %d are due", n)
	}
}

// Whatever somebody has tried: something is due where anything was tried, nothing twice, and
// beyond the first chunk never more than there is time for.
func TestDueProperties(t *testing.T) {
	chance := rand.New(rand.NewPCG(1, 2))
	stages := []routine.Stage{"", routine.Count, routine.Name, routine.Finger, routine.Play, routine.Done}
	for range 3000 {
		var chunks []Chunk
		tried := false
		for x := range chance.IntN(5) {
			for k := range 1 + chance.IntN(4) {
				p := at(int64(x+1), string(rune('A'+k)), stages[chance.IntN(len(stages))], int64(chance.IntN(3)))
				p.Asked, p.State.Stumbles = chance.IntN(4) == 0, chance.IntN(6)
				if tried = tried || p.Last > 0; p.Last == 0 {
					p.Asked, p.State = false, routine.State{}
				}
				chunks = append(chunks, p)
			}
		}
		seconds := float64(chance.IntN(120))
		due := Due(chunks, seconds, 3)
		seen := map[string]bool{}
		total := 0.0
		for _, s := range due {
			key := fmt.Sprint(s.Exercise, s.Chunk)
			if seen[key] {
				t.Fatalf("%v asks for %s twice", due, key)
			}
			seen[key] = true
			total += s.Seconds()
		}
		if tried != (len(due) > 0) || len(due) > 3 || len(due) > 1 && total > seconds {
			t.Fatalf("of %v in %v s %v is due, %v s", chunks, seconds, due, total)
		}
	}
}

func TestQueue(t *testing.T) {
	list := []Waiting{{1, 24, 17, 40}, {2, 17, 10, 40}, {3, 24, 0, 40}, {4, 24, 3, 40}, {5, 24, 3, 20}}
	for _, tt := range []struct {
		minutes int
		in      int
	}{{0, 0}, {1, 1}, {2, 3}, {3, 5}, {60, 5}} {
		queue, in := Queue(list, tt.minutes)
		var order []int64
		for _, w := range queue {
			order = append(order, w.ID)
		}
		if fmt.Sprint(order) != "[2 3 4 5 1]" || in != tt.in {
			t.Errorf("in %d minutes %v, %d of them; want %d", tt.minutes, order, in, tt.in)
		}
	}
}

// The shares of a class and the times between add up to its minutes.
func TestShare(t *testing.T) {
	for _, students := range []int{1, 5, 18, 30} {
		if got := float64(students) * (Share(10, students) + changeOver); got < 599.999 || got > 600.001 {
			t.Errorf("%d students take %v s of 600", students, got)
		}
	}
	if got := Share(1, 60); got != 0 {
		t.Errorf("with no time there are %v s each", got)
	}
	tired := at(1, "A", routine.Play, 1, func(p *Chunk) { p.Lips = true })
	if got := tired.Ask("").Seconds(); got != 22 {
		t.Errorf("lips that would rest at home take %v s at a check-in", got)
	}
	if got := Seconds([]lesson.Step{at(1, "A", routine.Play, 1).Ask("")}); got != 30 {
		t.Errorf("eight beats with four before them at 60, words and the change take %v s", got)
	}
}
