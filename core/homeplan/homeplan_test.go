package homeplan

import (
	"math/rand/v2"
	"reflect"
	"strings"
	"testing"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/lesson"
	"unhurriedbench/core/routine"
)

// chunk is a chunk of eight beats at 60 with four of count-off: twice through with fifteen
// seconds of words takes 47 s, two half minutes, and once 27 s, one.
func chunk(name string, stage routine.Stage, hard float64, change ...func(*Chunk)) Chunk {
	p := Chunk{
		Chunk: lesson.Chunk{Exercise: int64(name[0]), Number: int(name[0]), Title: name, Key: breakdown.ChunkKey{First: 1, Last: 2}, Label: "A", Beats: 8, CountOff: 4, Notes: 8, Tempo: 60},
		Steps: routine.Standard(), State: routine.State{Stage: stage}, Hard: hard,
	}
	for _, do := range change {
		do(&p)
	}
	return p
}

func due(p *Chunk)                       { p.Due = true }
func last(day, reviews int) func(*Chunk) { return func(p *Chunk) { p.Last, p.Reviews = day, reviews } }
func beats(n float64) func(*Chunk)       { return func(p *Chunk) { p.Beats = n } }
func lips(p *Chunk)                      { p.Lips = true }

// days are days from the first of some, with minutes.
func days(minutes ...int) []Day {
	var list []Day
	for k, m := range minutes {
		list = append(list, Day{On: 100 + k, Minutes: m})
	}
	return list
}

// spelled writes a plan: "100: x Count, y Play! | 101: …; left z (why)". ! is twice, ~ again.
func spelled(p Plan) string {
	var all []string
	for _, d := range p.Days {
		var items []string
		for _, i := range d.Items {
			switch i.Kind {
			case Warm, Cards:
				items = append(items, string(i.Kind))
			case Twice:
				items = append(items, i.Step.Title+"!")
			case Again:
				items = append(items, i.Step.Title+"~")
			default:
				items = append(items, i.Step.Title+" "+i.Step.Word)
			}
		}
		all = append(all, strings.Join(items, ", "))
	}
	text := strings.Join(all, " | ")
	for _, l := range p.Left {
		text += "; left " + l.Step.Title + ": " + l.Why
	}
	return text
}

func TestPlans(t *testing.T) {
	count, finger, play, done := routine.Count, routine.Finger, routine.Play, routine.Done
	for _, tt := range []struct {
		what   string
		days   []Day
		chunks []Chunk
		warm   bool
		want   string
	}{
		{"nothing", nil, nil, false, ""},
		{"no chunks", days(10, 10), nil, false, " | "},
		{"no chunks, with long notes", days(10), nil, true, "warm"},
		{"a day too short for long notes", days(9), nil, true, ""},
		{"a day without minutes is none", days(0, 10), nil, true, "warm"},
		{"no day", nil, []Chunk{chunk("x", count, .5, due)}, false, "; left x: there is no day before the check-in"},
		{"one stage a day", days(10, 10, 10, 10), []Chunk{chunk("x", count, .5, due)}, false, "x Count | x Name | x Finger | x!"},
		{"two where days are few", days(10, 10), []Chunk{chunk("x", count, .5, due)}, false, "x Count, x Name | x Finger, x Play"},
		{"all on one day", days(10), []Chunk{chunk("x", count, .5, due)}, false, "x Count, x Name, x Finger, x Play"},
		{"what is due last is played twice", days(10, 10), []Chunk{chunk("x", finger, .5, due)}, false, "x Finger | x!"},
		{"what is done and due comes back and is played twice", days(10, 10, 10), []Chunk{chunk("x", done, .5, due, last(90, 0))}, false, "x~ |  | x!"},
		{"what is done at last rests a day", days(10, 10, 10, 10), []Chunk{chunk("x", play, .5, due)}, false, "x Play | x~ |  | x!"},
		{"the hardest first", days(10, 10, 10, 10), []Chunk{chunk("x", count, .2, due), chunk("y", count, .8, due)}, false, "y Count, x Count | y Name, x Name | y Finger, x Finger | y!, x!"},
		{"due before begun", days(1, 1, 1, 1), []Chunk{chunk("x", count, .2, due), chunk("y", count, .8)}, false, "x Count | x Name | x Finger | x!"},
		{"begun where there is time", days(2, 2, 2, 2), []Chunk{chunk("x", count, .2, due), chunk("y", count, .8)}, false, "y Count, x Count | y Name, x Name | y Finger, x Finger | y Play, x!"},
		{"begun goes on a stage a day", days(30, 30), []Chunk{chunk("x", count, .5)}, false, "x Count | x Name"},
		{"learned comes back after 1, 2, 4 days", days(9, 9, 9, 9, 9, 9, 9, 9), []Chunk{chunk("x", done, .5, last(99, 0))}, false, "x~ |  | x~ |  |  |  | x~ | "},
		{"and after 8", days(9, 9, 9), []Chunk{chunk("x", done, .5, last(93, 3))}, false, " | x~ | "},
		{"a day off shifts it", days(0, 9, 9), []Chunk{chunk("x", done, .5, last(99, 0))}, false, "x~ | "},
		{"learned in the plan, it comes back", days(9, 9, 9), []Chunk{chunk("x", play, .5)}, false, "x Play | x~ | "},
		{"fewer times where there is no room for more", days(1, 1, 1, 1), []Chunk{chunk("x", count, .5, due, beats(20))}, false, "x Count | x Name | x Finger | x Play"},
		{"as often as there is room for", days(2, 2, 2, 2), []Chunk{chunk("x", count, .5, due, beats(20))}, false, "x Count | x Name | x Finger | x!"},
		{"what does not fit is named", days(1), []Chunk{chunk("x", count, .5, due)}, false, "x Count; left x: Name does not fit before the check-in"},
		{"what has no time at all", days(1, 1, 1, 1), []Chunk{chunk("x", count, .5, due), chunk("y", count, .2, due)}, false, "x Count | x Name | x Finger | x!; left y: there is no time for it"},
		{"what is longer than a day", days(1, 1, 1, 1), []Chunk{chunk("x", count, .5, due, beats(60))}, false, " |  |  | ; left x: once through takes longer than a day has"},
		{"what is begun and does not fit is not named", days(1), []Chunk{chunk("x", count, .5), chunk("y", count, .9)}, false, "y Count"},
		{"a stage that does not fit today is done tomorrow", days(1, 10, 10, 10), []Chunk{chunk("x", count, .5, due, beats(60))}, false, " | x Count, x Name | x Finger | x!"},
		{"long notes first", days(10, 10), []Chunk{chunk("x", play, .5, due)}, true, "warm, x Play | warm, x!"},
		{"two stages stay in order", days(10, 10), []Chunk{chunk("x", count, .5, due), chunk("y", count, .5, due)}, false, "x Count, x Name, y Count, y Name | x Finger, x Play, y Finger, y Play"},
		{"a done chunk that is not due waits behind what is", days(1, 1), []Chunk{chunk("x", finger, .1, due), chunk("y", done, .9, last(50, 0))}, false, "x Finger | x!"},
		{"several done ones", days(1), []Chunk{chunk("x", done, .1, last(50, 0)), chunk("y", done, .9, last(50, 0))}, false, "y~, x~"},
		{"time for twice is kept first", days(2), []Chunk{chunk("x", done, .1, due, last(50, 0)), chunk("y", count, .9, due)}, false, "y Count, x!; left y: Name does not fit before the check-in"},
	} {
		if got := spelled(Make(tt.days, tt.chunks, Daily{Warm: tt.warm})); got != tt.want {
			t.Errorf("%s:\n%s, want\n%s", tt.what, got, tt.want)
		}
	}
}

// Lips that rest take as long again, and the plan has room for it.
func TestLipsRest(t *testing.T) {
	plain := Make(days(20), []Chunk{chunk("x", routine.Play, .5)}, Daily{Warm: false})
	rested := Make(days(20), []Chunk{chunk("x", routine.Play, .5, lips)}, Daily{Warm: false})
	if a, b := plain.Days[0].Halves(), rested.Days[0].Halves(); a != 3 || b != 5 {
		t.Errorf("without rest it takes %d half minutes, with it %d", a, b)
	}
}

// What is played as at the check-in is known, and asks for no rest.
func TestTwiceInARowHasNoRest(t *testing.T) {
	plan := Make(days(20), []Chunk{chunk("x", routine.Done, .5, due, lips, last(100, 0))}, Daily{Warm: false})
	if i := plan.Days[0].Items[0]; i.Kind != Twice || i.Halves != 2 {
		t.Errorf("twice in a row is %+v", i)
	}
}

// A day has few things, each often; what is due is never left out for it.
func TestFewThingsOften(t *testing.T) {
	var begun, asked []Chunk
	for k := range 8 {
		begun = append(begun, chunk(string(rune('a'+k)), routine.Count, .5))
		asked = append(asked, chunk(string(rune('a'+k)), routine.Count, .5, due))
	}
	if n := len(Make(days(60), begun, Daily{Warm: true}).Days[0].Items); n != mostLines+1 {
		t.Errorf("with an hour for eight chunks a day has %d lines", n)
	}
	if n := len(Make(days(60, 60, 60, 60), asked, Daily{Warm: false}).Days[0].Items); n != 8 {
		t.Errorf("of eight due chunks %d are done", n)
	}
	for minutes, want := range map[int]int{30: 4, 1: 2} {
		if got := Make(days(minutes), begun[:1], Daily{Warm: false}).Days[0].Items[0].Step.Times; got != want {
			t.Errorf("in %d minutes it is done %d times, want %d", minutes, got, want)
		}
	}
	// One alone keeps nothing for others.
	if got := Make(days(2, 2, 2, 2), []Chunk{chunk("x", routine.Count, .9, due)}, Daily{Warm: false}).Days[0].Items[0].Step.Times; got != 4 {
		t.Errorf("alone in two minutes a due chunk is done %d times, want 4", got)
	}
	// The first of two due chunks leaves the second what it needs.
	plan := Make(days(2, 2, 2, 2), []Chunk{chunk("x", routine.Count, .9, due), chunk("y", routine.Count, .1, due)}, Daily{Warm: false})
	for _, i := range plan.Days[0].Items {
		if i.Step.Times != 2 {
			t.Errorf("%s is done %d times, want 2", i.Step.Name(), i.Step.Times)
		}
	}
}

// Cards come after the work, before what is played twice in a row, where a day has eight
// minutes, and never in place of what is due.
func TestCards(t *testing.T) {
	for _, tt := range []struct {
		days   []Day
		chunks []Chunk
		warm   bool
		want   string
	}{
		{days(8), nil, false, "cards"},
		{days(7), nil, false, ""},
		{days(20), nil, true, "warm, cards"},
		{days(10), []Chunk{chunk("x", routine.Done, .5, due, last(100, 0))}, false, "cards, x!"},
		{days(20), []Chunk{chunk("x", routine.Count, .5)}, true, "warm, x Count, cards"},
		{days(8), []Chunk{chunk("x", routine.Count, .5, due, beats(200))}, false, "x Count; left x: Name does not fit before the check-in"},
	} {
		if got := spelled(Make(tt.days, tt.chunks, Daily{Warm: tt.warm, Cards: true})); got != tt.want {
			t.Errorf("%d minutes: %s, want %s", tt.days[0].Minutes, got, tt.want)
		}
	}
}

// What was learned leaves room for what is begun: two lines of a day bring something back,
// more where nothing is begun.
func TestLearnedLeavesRoom(t *testing.T) {
	var chunks []Chunk
	for _, title := range []string{"a", "b", "c", "d"} {
		chunks = append(chunks, chunk(title, routine.Done, .5, last(60, 0)))
	}
	if got := spelled(Make(days(20), chunks, Daily{})); got != "a~, b~, c~, d~" {
		t.Errorf("with nothing begun: %s", got)
	}
	if got := spelled(Make(days(20), append(chunks, chunk("x", routine.Count, .1)), Daily{})); got != "a~, b~, x Count" {
		t.Errorf("with something begun: %s", got)
	}
}

// Every line has a reason.
func TestReasons(t *testing.T) {
	plan := Make(days(10, 10, 10), []Chunk{chunk("x", routine.Name, .5, due), chunk("y", routine.Done, .9, last(97, 1)), chunk("z", routine.Count, .1)}, Daily{Warm: true})
	var whys []string
	for _, d := range plan.Days {
		for _, i := range d.Items {
			whys = append(whys, i.Why)
		}
	}
	want := []string{"so that breath, bow or hands are ready", "learned; again after 3 days; the hardest first", "for the check-in: Name", "begun: Count"}
	if !reflect.DeepEqual(whys[:4], want) {
		t.Errorf("the reasons are %q, want %q", whys[:4], want)
	}
	for k, why := range whys {
		if why == "" {
			t.Errorf("line %d has no reason", k)
		}
	}
}

// Whatever there is: no day has more than its minutes, no line lies on another day, every due
// chunk is placed or named, the stages of a chunk keep their order, and the same comes out
// again.
func TestProperties(t *testing.T) {
	chance := rand.New(rand.NewPCG(3, 4))
	stages := []routine.Stage{routine.Count, routine.Name, routine.Finger, routine.Play, routine.Done}
	for range 4000 {
		var list []Day
		for k := range chance.IntN(9) {
			list = append(list, Day{On: 100 + k, Minutes: chance.IntN(25)})
		}
		var chunks []Chunk
		for k := range chance.IntN(6) {
			p := chunk(string(rune('a'+k)), stages[chance.IntN(len(stages))], float64(chance.IntN(10))/10, beats(float64(4+chance.IntN(80))), last(60+chance.IntN(40), chance.IntN(4)))
			p.Due, p.Lips = chance.IntN(2) == 0, chance.IntN(2) == 0
			chunks = append(chunks, p)
		}
		daily := Daily{Warm: chance.IntN(2) == 0, Cards: chance.IntN(2) == 0}
		plan := Make(list, chunks, daily)
		if !reflect.DeepEqual(plan, Make(list, chunks, daily)) {
			t.Fatal("the same days and chunks give another plan")
		}
		found, reached := map[string]bool{}, map[string]int{}
		for _, d := range plan.Days {
			if d.Halves() > 2*d.Minutes || d.Minutes <= 0 {
				t.Fatalf("day %d of %d minutes has %d half minutes", d.On, d.Minutes, d.Halves())
			}
			for _, i := range d.Items {
				if i.Kind == Warm || i.Kind == Cards {
					continue
				}
				if i.Halves != i.Step.Halves() {
					t.Fatalf("%s takes %d half minutes, and is reckoned as %d", i.Step.Name(), i.Step.Halves(), i.Halves)
				}
				found[i.Step.Title] = true
				at := routine.Standard().Index(i.Step.Stage)
				if at < reached[i.Step.Title] {
					t.Fatalf("%s: %s goes back", spelled(plan), i.Step.Name())
				}
				reached[i.Step.Title] = at
			}
		}
		named := map[string]bool{}
		for _, l := range plan.Left {
			if named[l.Step.Title] {
				t.Fatalf("%s is named twice", l.Step.Title)
			}
			named[l.Step.Title] = true
		}
		for _, p := range chunks {
			if p.Due && !found[p.Title] && !named[p.Title] {
				t.Fatalf("%s is due, and neither placed nor named: %s", p.Title, spelled(plan))
			}
			if !p.Due && named[p.Title] {
				t.Fatalf("%s is not due, and named", p.Title)
			}
		}
	}
}
