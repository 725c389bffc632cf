package card

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"
	"time"
)

var start = time.Date(2026, 11, 30, 16, 0, 0, 0, time.UTC)

func after(days float64) time.Time {
	return start.Add(time.Duration(days * 24 * float64(time.Hour)))
}

// The intervals and the memory after some answers. Source: the test vectors that go-fsrs
// v3.3.1 carries (TestBasicSchedulerExample, TestBasicSchedulerMemoState), which are those of
// the reference implementation of FSRS-5.
func TestTheScheduleAgreesWithPublishedVectors(t *testing.T) {
	var log []Answered
	at := start
	for k, want := range []uint64{0, 4, 14, 44} {
		log = append(log, Answered{Card: "name:G2:C4", Grade: Right, At: at})
		s := States(log)["name:G2:C4"]
		if s.Memory.ScheduledDays != want {
			t.Errorf("after %d answers it comes back in %d days, want %d", k+1, s.Memory.ScheduledDays, want)
		}
		at = s.Due
	}
	log = log[:0]
	for _, a := range []struct {
		grade Grade
		days  float64
	}{{Missed, 0}, {Right, 0}, {Right, 0}, {Right, 1}, {Right, 4}, {Right, 12}, {Right, 33}} {
		log = append(log, Answered{Card: "x", Grade: a.grade, At: after(a.days)})
	}
	s := States(log)["x"]
	if math.Abs(s.Memory.Stability-48.4848) > 0.0001 || math.Abs(s.Memory.Difficulty-7.0866) > 0.0001 {
		t.Errorf("the memory is %.4f and %.4f, want 48.4848 and 7.0866", s.Memory.Stability, s.Memory.Difficulty)
	}
	late := slices.Clone(log) // as it comes from a page that was without network
	slices.Reverse(late)
	late[0], late[1] = late[1], late[0]
	slices.SortStableFunc(late, func(a, b Answered) int { return int(a.Grade - b.Grade) })
	if got := States(late)["x"]; got.Seen != s.Seen || got.Due != s.Due {
		t.Errorf("in another order %+v, want %+v", got, s)
	}
}

func TestNothingComesBackAfterATerm(t *testing.T) {
	var log []Answered
	at := start
	for range 12 {
		log = append(log, Answered{Card: "x", Grade: Quick, At: at})
		at = States(log)["x"].Due
	}
	if s := States(log)["x"]; s.Memory.ScheduledDays != farthest {
		t.Errorf("it comes back after %d days", s.Memory.ScheduledDays)
	}
}

func TestJudge(t *testing.T) {
	for _, tt := range []struct {
		kind          Kind
		right         bool
		millis        int
		helped, first bool
		want          Grade
	}{
		{Name, true, 1500, false, false, Quick},
		{Name, true, 1500, false, true, Right}, // it may have been a guess
		{Name, true, 3000, false, false, Right},
		{Name, true, 7000, false, false, Slow},
		{Name, true, 1500, true, false, Slow},
		{Name, false, 1500, false, false, Missed},
		{Name, true, 0, false, false, Right}, // not measured
		{Rhythm, true, 7000, false, false, Right},
	} {
		if got := Judge(tt.kind, tt.right, tt.millis, tt.helped, tt.first); got != tt.want {
			t.Errorf("%+v: %d", tt, got)
		}
	}
}

// in says a round in a line: how each is asked, and its ID.
func in(round []Asked) string {
	var words []string
	for _, a := range round {
		words = append(words, strings.ReplaceAll(string(a.Asking), " ", "-")+" "+a.ID())
	}
	return strings.Join(words, "; ")
}

// right are n right answers in a row to a card, the last some days ago.
func right(id string, times int, daysAgo float64) []Answered {
	list := make([]Answered, times)
	for k := range list {
		list[k] = Answered{Card: id, Grade: Right, Millis: 3000, At: after(-daysAgo).Add(-time.Duration(times-1-k) * time.Hour)}
	}
	return list
}

func TestRound(t *testing.T) {
	deck := Deck(byID(t, "trumpet"), []Chunk{whole(t, "trumpet", "C2 D2|")})
	names := Wanted{Kinds: []Kind{Name}, New: 4, Short: RoundTakes}
	both := Wanted{Kinds: []Kind{Name, Finger}, New: 4, Short: RoundTakes}
	c, d := "name:G2:C4", "name:G2:D4"
	for _, tt := range []struct {
		what     string
		log      []Answered
		stumbles map[string]time.Time
		desired  Wanted
		want     string
	}{
		{"new ones, from the lowest", nil, nil, names, "in-order " + c + "; in-order " + d},
		{"no more new ones than wanted", nil, nil, Wanted{Kinds: []Kind{Name}, New: 1, Short: 120}, "in-order " + c},
		{"those of today count", right(c, 1, 0), nil, Wanted{Kinds: []Kind{Name}, New: 1, Short: 120}, ""},
		{"those of yesterday do not", right(c, 1, 1), nil, Wanted{Kinds: []Kind{Name}, New: 1, Short: 120}, "in-order " + c + "; in-order " + d},
		{"how it is played waits for the name", right(c, 1, 0), nil, both, "in-order finger:C4; in-order " + d},
		{"where names are not asked it does not", nil, nil, Wanted{Kinds: []Kind{Finger}, New: 4, Short: 120}, "in-order finger:C4; in-order finger:D4"},
		{"what is known rests", slices.Concat(right(c, 3, 1), right(d, 3, 1)), nil, names, ""},
		{"and comes back, mixed", slices.Concat(right(c, 3, 60), right(d, 1, 0)), nil, names, "mixed " + c},
		{"twice right in a row is mixed", slices.Concat(right(c, 2, 60), right(d, 1, 0)), nil, names, "mixed " + c},
		{"once is not", slices.Concat(right(c, 1, 60), right(d, 1, 0)), nil, names, "in-order " + c},
		{"after a miss it begins anew", slices.Concat(right(c, 4, 60), []Answered{{Card: c, Grade: Missed, At: after(-50)}}, right(c, 1, 49), right(d, 1, 0)), nil, names, "in-order " + c},
		{"in a short time, what is due before what is new", right(d, 1, 60), nil, Wanted{Kinds: []Kind{Name}, New: 4, Short: 6}, "in-order " + d},
		{"and what is most behind", slices.Concat(right(c, 1, 20), right(d, 1, 60)), nil, Wanted{Kinds: []Kind{Name}, New: 4, Short: 6}, "in-order " + d},
		{"well known, fast", slices.Concat(right(c, 4, 90), right(d, 1, 0)), nil, names, "fast " + c},
		{"a stumble hastens it", slices.Concat(right(c, 3, 1), right(d, 3, 1)), map[string]time.Time{d: after(-0.5)}, names, "in-order " + d},
		{"not one from before the answer", slices.Concat(right(c, 3, 1), right(d, 3, 1)), map[string]time.Time{d: after(-2)}, names, ""},
		{"a stumble comes before other new ones", nil, map[string]time.Time{d: after(-1)}, Wanted{Kinds: []Kind{Name}, New: 1, Short: 120}, "in-order " + d},
		{"what was missed comes back the same day", []Answered{{Card: c, Grade: Missed, At: after(-0.1)}, {Card: d, Grade: Right, At: after(-0.001)}}, nil, names, "in-order " + c},
		{"only what is wanted", nil, nil, Wanted{Kinds: []Kind{Rhythm}, New: 4, Short: 120}, "in-order rhythm:4/4:1/2 1/2"},
	} {
		if got := in(Round(deck, tt.log, tt.stumbles, start, tt.desired)); got != tt.want {
			t.Errorf("%s: %s, want %s", tt.what, got, tt.want)
		}
	}
}

// Of any log, a round has each card once, none that is not wanted, no more new ones than a day
// may have, and unless it is one card, no more than its time.
func TestAnyRound(t *testing.T) {
	chance := rand.New(rand.NewPCG(3, 9))
	deck := Deck(byID(t, "flute"), []Chunk{whole(t, "flute", "K:Bb\nB c d e|f2 d2|c A B z|B/c/d e2|")})
	for n := range 600 {
		var log []Answered
		for range chance.IntN(120) {
			log = append(log, Answered{Card: deck[chance.IntN(len(deck))].ID(), Grade: Grade(chance.IntN(4) + 1), Millis: chance.IntN(9000), At: after(-40 * chance.Float64())})
		}
		w := Wanted{Kinds: Kinds()[:1+chance.IntN(len(Kinds()))], New: chance.IntN(MostNew), Short: 30 + chance.IntN(200)}
		round := Round(deck, log, nil, start, w)
		seen, fresh, takes := map[string]bool{}, newOn(log, start), 0
		for _, a := range round {
			if id := a.ID(); seen[id] || !slices.Contains(w.Kinds, a.Kind) {
				t.Fatalf("%d: %s stands twice, or is not wanted", n, id)
			}
			seen[a.ID()] = true
			takes += a.Kind.SlowFrom()
			if a.New {
				fresh, takes = fresh+1, takes+a.Kind.SlowFrom()
			}
			if a.Because == "" {
				t.Fatalf("%d: %s has no reason", n, a.ID())
			}
		}
		if fresh > max(w.New, newOn(log, start)) || len(round) > 1 && takes > w.Short {
			t.Fatalf("%d: %d new of %d, %d seconds of %d", n, fresh, w.New, takes, w.Short)
		}
		if got := fmt.Sprint(Round(deck, log, nil, start, w)); got != fmt.Sprint(round) {
			t.Fatalf("%d: the same round is another one", n)
		}
	}
}

func TestSpeeds(t *testing.T) {
	got := Speeds([]Answered{
		{"name:G2:C4", Right, 3000, after(0)}, {"name:G2:D4", Quick, 1000, after(0)}, {"name:G2:E4", Slow, 9000, after(0.1)},
		{"name:G2:C4", Missed, 100, after(0)}, {"finger:C4", Right, 100, after(0)}, {"name:G2:C4", Right, 2000, after(-3)}, {"name:G2:C4", Right, 0, after(-3)},
	}, Name)
	if len(got) != 2 || got[0].Median != 2000 || got[0].Of != 1 || got[1].Median != 3000 || got[1].Of != 3 {
		t.Errorf("%+v", got)
	}
}
