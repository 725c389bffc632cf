package homeplan

import (
	"fmt"
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
		Chunk: lesson.Chunk{Exercise: int64(name[0]), Number: int(name[0]), Title: name, Key: breakdown.ChunkKey{First: 1, Last: 2}, Label: "A", Where: "m. 1–2", Beats: 8, CountOff: 4, Notes: 8, Tempo: 60},
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
		{"all stages in one sitting, then it stays", days(10, 10, 10, 10), []Chunk{chunk("x", count, .5, due)}, false, "x Count, x Name, x Finger, x Play | x~ | x~ | x!"},
		{"and where days are few", days(10, 10), []Chunk{chunk("x", count, .5, due)}, false, "x Count, x Name, x Finger, x Play | x!"},
		{"all on one day", days(10), []Chunk{chunk("x", count, .5, due)}, false, "x Count, x Name, x Finger, x Play; left x: Play is only reached on the last day"},
		{"what is due last is played twice", days(10, 10), []Chunk{chunk("x", finger, .5, due)}, false, "x Finger, x Play | x!"},
		{"what is done and due comes back and is played twice", days(10, 10, 10), []Chunk{chunk("x", done, .5, due, last(90, 0))}, false, "x~ | x~ | x!"},
		{"what is done at last rests a day", days(10, 10, 10, 10), []Chunk{chunk("x", play, .5, due)}, false, "x Play | x~ | x~ | x!"},
		{"one a day, the hardest first", days(10, 10, 10, 10), []Chunk{chunk("x", count, .2, due), chunk("y", count, .8, due)}, false, "y Count, y Name, y Finger, y Play, x Count, x Name, x Finger, x Play | y~, x~ | y~, x~ | y!, x!"},
		{"due before begun", days(1, 1, 1, 1), []Chunk{chunk("x", count, .2, due), chunk("y", count, .8)}, false, "x Count, x Name | x Finger, x Play | x~, y Count | y Name, x!"},
		{"begun where there is time", days(2, 2, 2, 2), []Chunk{chunk("x", count, .2, due), chunk("y", count, .8)}, false, "x Count, x Name, x Finger, x Play | x~, y Count, y Name, y Finger | x~, y Play | y~, x!"},
		{"in progress, in one sitting", days(30, 30), []Chunk{chunk("x", count, .5)}, false, "x Count, x Name, x Finger, x Play | x~"},
		{"the one thing that is known comes every day", days(9, 9, 9, 9, 9, 9, 9, 9), []Chunk{chunk("x", done, .5, last(99, 0))}, false, "x~ | x~ | x~ | x~ | x~ | x~ | x~ | x~"},
		{"and after 8 days it comes too", days(9, 9, 9), []Chunk{chunk("x", done, .5, last(93, 3))}, false, "x~ | x~ | x~"},
		{"a day off shifts it", days(0, 9, 9), []Chunk{chunk("x", done, .5, last(99, 0))}, false, "x~ | x~"},
		{"learned in the plan, it comes back", days(9, 9, 9), []Chunk{chunk("x", play, .5)}, false, "x Play | x~ | x~"},
		{"fewer times where there is no room for more", days(1, 1, 1, 1), []Chunk{chunk("x", count, .5, due, beats(20))}, false, "x Count | x Name | x Finger | x!"},
		{"as often as there is room for", days(2, 2, 2, 2), []Chunk{chunk("x", count, .5, due, beats(20))}, false, "x Count, x Name | x Finger, x Play | x~ | x!"},
		{"what does not fit is named", days(1), []Chunk{chunk("x", count, .5, due)}, false, "x Count, x Name; left x: Finger does not fit before the check-in"},
		{"what has no time at all", days(1, 1, 1, 1), []Chunk{chunk("x", count, .5, due), chunk("y", count, .2, due)}, false, "x Count, x Name | x Finger, x Play | y Count, y Name | y Finger, x!; left y: Play does not fit before the check-in"},
		{"what is longer than a day", days(1, 1, 1, 1), []Chunk{chunk("x", count, .5, due, beats(60))}, false, " |  |  | ; left x: once through takes longer than a day has"},
		{"what is begun and does not fit is not named", days(1), []Chunk{chunk("x", count, .5), chunk("y", count, .9)}, false, "y Count, y Name"},
		{"a stage that does not fit today is done tomorrow", days(1, 10, 10, 10), []Chunk{chunk("x", count, .5, due, beats(60))}, false, " | x Count, x Name, x Finger, x Play | x~ | x!"},
		{"long notes first", days(10, 10), []Chunk{chunk("x", play, .5, due)}, true, "warm, x Play | warm, x!"},
		{"two stages stay in order", days(10, 10), []Chunk{chunk("x", count, .5, due), chunk("y", count, .5, due)}, false, "x Count, x Name, x Finger, x Play, y Count, y Name, y Finger, y Play | x!, y!"},
		{"a done chunk that is not due waits behind what is", days(1, 1), []Chunk{chunk("x", finger, .1, due), chunk("y", done, .9, last(50, 0))}, false, "x Finger, x Play | y~, x!"},
		{"several done ones", days(1), []Chunk{chunk("x", done, .1, last(50, 0)), chunk("y", done, .9, last(50, 0))}, false, "y~, x~"},
		{"time for twice is kept first", days(2), []Chunk{chunk("x", done, .1, due, last(50, 0)), chunk("y", count, .9, due)}, false, "y Count, y Name, y Finger, x!; left y: Play does not fit before the check-in"},
	} {
		if got := spelled(Make(tt.days, tt.chunks, Daily{Warm: tt.warm})); got != tt.want {
			t.Errorf("%s:\n%s, want\n%s", tt.what, got, tt.want)
		}
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
	want := []string{"so that breath, bow or hands are ready", "for the check-in: Name", "for the check-in: Finger", "for the check-in: Play"}
	if !reflect.DeepEqual(whys[:4], want) {
		t.Errorf("the reasons are %q, want %q", whys[:4], want)
	}
	for k, why := range whys {
		if why == "" {
			t.Errorf("line %d has no reason", k)
		}
	}
}

// Minutes given are minutes used: 85 of a hundred up to half an hour, where there is anything to
// do; above it the plan says that it is enough. A day has few lines, and lips do not play for more
// than they can. Source: common practice.
func TestMinutesAreUsed(t *testing.T) {
	chance := rand.New(rand.NewPCG(21, 34))
	for _, minutes := range []int{12, 15, 20, 30, 45, 60} {
		used, given := 0, 0
		for range 200 {
			var chunks []Chunk
			for k := range 6 + chance.IntN(6) {
				stage := []routine.Stage{routine.Count, routine.Name, routine.Finger, routine.Play, routine.Done, routine.Done}[chance.IntN(6)]
				p := chunk(string(rune('a'+k)), stage, float64(chance.IntN(10))/10, beats(float64(8+chance.IntN(40))), last(60+chance.IntN(40), chance.IntN(4)))
				p.Due, p.Lips = chance.IntN(4) == 0, true
				chunks = append(chunks, p)
			}
			for _, d := range Make(days(minutes, minutes, minutes, minutes), chunks, Daily{true, true}).Days {
				lines, lips := map[string]bool{}, 0.0
				for _, i := range d.Items {
					if i.Kind.OfAChunk() {
						lines[i.Step.Title] = true
						lips += i.Step.Sounding(false)
					}
				}
				most := moreLines
				if minutes <= fewMinutes {
					most = fewLines
				}
				if len(lines) > most || lips > 1.7*lipSeconds || d.Enough != (minutes > enough) {
					t.Fatalf("a day of %d minutes has %d lines, %.0f s for the lips, enough: %v", minutes, len(lines), lips, d.Enough)
				}
				used, given = used+d.Halves(), given+2*min(minutes, enough)
			}
		}
		if share := float64(used) / float64(given); share < 0.85 {
			t.Errorf("of %d minutes %.0f %% are used", minutes, 100*share)
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

// A page that was given as a whole is played through each day in its order, twice where there is
// time and once where there is not; a page that fits in no day is named.
func TestAPageAsAWhole(t *testing.T) {
	onPage := func(at int) func(*Chunk) {
		return func(p *Chunk) { p.Page, p.Where, p.Key = at, "", breakdown.ChunkKey{First: 1, Last: 8} }
	}
	page := []Chunk{
		chunk("y", routine.Play, 0.9, onPage(2), beats(64)), chunk("x", routine.Play, 0.1, onPage(1), beats(64)), chunk("w", routine.Count, 0.5, due),
	}
	played := func(d Planned) string {
		var list []string
		for _, i := range d.Items {
			if i.Kind == Page {
				list = append(list, fmt.Sprintf("%s %d", i.Step.Title, i.Step.Times))
			}
		}
		return strings.Join(list, ", ")
	}
	plan := Make(days(20, 4, 2), page, Daily{Warm: true, Cards: true})
	for k, want := range []string{"x 2, y 2", "x 1, y 1", ""} {
		if got := played(plan.Days[k]); got != want {
			t.Errorf("day %d has %q of the page, want %q; the plan is %s", k+1, got, want, spelled(plan))
		}
		if d := plan.Days[k]; d.Halves() > 2*d.Minutes {
			t.Errorf("day %d of %d min takes %d half minutes", k+1, d.Minutes, d.Halves())
		}
	}
	if !strings.Contains(spelled(Make(days(2), page, Daily{})), "left x: the page takes longer than a day has") {
		t.Error("a page that fits in no day is not named")
	}
}
