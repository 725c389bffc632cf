package walk

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/count"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/lesson"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
	"unhurriedbench/demo"
	"unhurriedbench/internal/testabc"
)

// players are all instruments with each line of the demo book.
func players(t *testing.T, do func(t *testing.T, exercise string, p Player)) {
	t.Helper()
	book, err := demo.Exercises()
	if err != nil {
		t.Fatal(err)
	}
	for k, x := range book {
		if testing.Short() && k%5 > 0 {
			continue
		}
		for _, i := range instrument.All() {
			r := breakdown.Read(x.Score, x.Score.Parts[0], "", i, nil, breakdown.Options{})
			do(t, x.Score.Title, Player{i, r})
		}
	}
}

// What holds for every run, whatever the instrument, the routine, the unit and the line.
func TestEveryRun(t *testing.T) {
	t.Parallel()
	runs := 0
	players(t, func(t *testing.T, exercise string, p Player) {
		for _, named := range routine.Shipped() {
			for _, unit := range lesson.Units() {
				runs++
				run := Through(Ask{Unit: unit, Routine: named.Steps}, p)
				name := fmt.Sprintf("%s, %s, %s, %s", exercise, p.Instrument.ID, named.ID, unit)
				for _, problem := range wrong(run, p.Report) {
					t.Errorf("%s: %s", name, problem)
				}
				for _, problem := range missed(run, p.Report, named.Steps, unit) {
					t.Errorf("%s: %s", name, problem)
				}
				if t.Failed() {
					t.FailNow()
				}
			}
		}
	})
	t.Logf("%d runs", runs)
}

// wrong says what of a run is not as a run must be.
func wrong(run Run, r breakdown.Report) (problems []string) {
	say := func(format string, args ...any) { problems = append(problems, fmt.Sprintf(format, args...)) }
	if len(run.Moves) == 0 {
		say("nothing is done")
	}
	at, told := 0.0, map[string]bool{}
	for _, m := range run.Moves {
		if math.Abs(m.At-at) > 1e-6 {
			say("a move begins at %.3f, not at %.3f", m.At, at)
		}
		at = m.Ends + m.Gap
		sentences := append(slices.Clone(m.Minds), m.Says, m.Again)
		for _, s := range sentences {
			if n := len(strings.Fields(s)); n > MostWords {
				say("%d words: %s", n, s)
			}
			if strings.Contains(s, "%") || strings.Contains(s, "  ") || s != "" && !strings.HasSuffix(s, ".") {
				say("no sentence: %q", s)
			}
		}
		if m.Says == "" || len(m.Minds) > mostMinds+2 {
			say("it says %q after %q", m.Says, m.Minds)
		}
		for _, s := range m.Minds {
			if told[s] && !strings.HasPrefix(s, "Say ") {
				say("taught twice: %s", s)
			}
			told[s] = true
		}
		breaths := 0
		for k, c := range m.CountOff {
			if c.Breath {
				breaths++
			}
			if c.At < m.At+talk(m.Minds...)+talk(m.Says)-1e-6 || c.At >= m.Begins || k > 0 && c.At <= m.CountOff[k-1].At {
				say("%s counts off at %.3f before %.3f", c.Word, c.At, m.Begins)
			}
		}
		if breaths != 1 {
			say("%d breaths in a count-off", breaths)
		}
		until := m.Begins
		for k, s := range m.Passages {
			if s.At < until-1e-6 || k == 0 && math.Abs(s.At-until) > 1e-6 {
				say("m. %d comes at %.3f, before %.3f", r.Measures[s.Index].Number, s.At, until)
			}
			until = s.At + (s.To-s.From)*240/float64(run.Tempo)*(0.25/r.Part.Meter().Beat().Float()) + s.Hold
		}
		if math.Abs(until-m.Ends) > 1e-6 {
			say("it ends at %.3f, and its music at %.3f", m.Ends, until)
		}
		for k, u := range m.Spoken {
			if u.At < m.Begins-1e-6 || u.At+u.Room > m.Ends+1e-6 || u.Room <= 0 || k > 0 && u.At < m.Spoken[k-1].At+m.Spoken[k-1].Room-1e-6 {
				say("%q is said at %.3f for %.3f", u.Text, u.At, u.Room)
			}
			if m.Voice != Counts && strings.Contains(u.Text, " ") && u.Room < leastRoom {
				say("%q has %.3f s", u.Text, u.Room)
			}
		}
	}
	if math.Abs(run.Seconds-at) > 1e-6 {
		say("it lasts %.3f, not %.3f", run.Seconds, at)
	}
	if q := run.Question; q != nil && (len(q.Choices) != 2 || q.Choices[0] == q.Choices[1] || len(strings.Fields(q.Text)) > MostWords) {
		say("it asks %q with %q", q.Text, q.Choices)
	}
	return problems
}

// missed says which notes are not met at which stages. With hard spots only, easy measures are
// met at the last stage alone: that is what the setting is for.
func missed(run Run, r breakdown.Report, steps routine.Routine, unit lesson.Unit) (problems []string) {
	outline := breakdown.OutlineOf(r.Part)
	met := map[routine.Stage]map[int]bool{}
	for _, s := range steps {
		met[s.Stage] = map[int]bool{}
	}
	for _, m := range run.Moves {
		if m.With == Heard {
			continue
		}
		for _, s := range m.Passages {
			met[m.Stage][s.Index] = true
		}
	}
	for _, s := range steps {
		if unit == lesson.HardSpots && s.Stage != steps.Last() {
			continue
		}
		for _, c := range r.Chunks {
			if c.Whole() && len(r.Chunks) > 1 {
				continue
			}
			same := outline.First(c.Key())
			for _, p := range c.Passages(r.Part) {
				if !met[s.Stage][p.At] && same == c.Key() {
					problems = append(problems, fmt.Sprintf("m. %d is not met at %s", r.Measures[p.At].Number, s.Word))
				}
			}
			if same != c.Key() && !told(run, c) && !met[s.Stage][c.At[0]] {
				problems = append(problems, fmt.Sprintf("%s is left out at %s, and nothing says why", c.InWords(), s.Word))
			}
		}
	}
	return problems
}

// told says whether a run says that a chunk need not be learned.
func told(run Run, c breakdown.Chunk) bool {
	for _, m := range run.Moves {
		if text := strings.ToLower(m.Again); strings.Contains(text, Measures(c)) || strings.Contains(text, "others") {
			return true
		}
	}
	return false
}

// The minutes of a line of eight measures of 4/4 at 63 in four stages, by the unit; the figures
// are ours, of what a child's attention and a lesson's room allow.
func TestMinutes(t *testing.T) {
	t.Parallel()
	most := map[lesson.Unit]float64{lesson.WholeLine: 7, lesson.Usual: 9, lesson.ChunkByChunk: 10, lesson.HardSpots: 10}
	longest, lines := map[lesson.Unit]float64{}, 0
	players(t, func(t *testing.T, exercise string, p Player) {
		if part := p.Report.Part; len(part.Order()) != 8 || part.Meter().String() != "4/4" {
			return
		}
		lines++
		for _, unit := range lesson.Units() {
			run := Through(Ask{Unit: unit, Routine: routine.Standard(), Tempo: 63}, p)
			minutes := run.Seconds / 60
			longest[unit] = max(longest[unit], minutes)
			if minutes > most[unit] {
				t.Errorf("%s, %s, %s takes %.2f minutes, and may take %.0f", exercise, p.Instrument.ID, unit, minutes, most[unit])
			}
		}
	})
	if lines < 31 {
		t.Errorf("only %d lines were measured", lines)
	}
	t.Logf("%d lines; the longest: %v", lines, longest)
}

// A run that is cut to some minutes keeps to them, or is as short as it gets, and is a run still.
func TestCutToMinutes(t *testing.T) {
	t.Parallel()
	players(t, func(t *testing.T, exercise string, p Player) {
		if p.Instrument.ID != "clarinet" && p.Instrument.ID != "snare-drum" && p.Instrument.ID != "cello" {
			return
		}
		for _, unit := range lesson.Units() {
			ask := Ask{Unit: unit, Routine: routine.Standard()}
			whole := Through(ask, p)
			before := whole.Seconds
			for _, minutes := range []int{15, 8, 5, 3, 1} {
				ask.Minutes = minutes
				run := Through(ask, p)
				name := fmt.Sprintf("%s, %s, %s in %d minutes", exercise, p.Instrument.ID, unit, minutes)
				for _, problem := range wrong(run, p.Report) {
					t.Errorf("%s: %s", name, problem)
				}
				if run.Seconds > before+1e-6 || len(run.Moves)+run.Left != len(whole.Moves) {
					t.Errorf("%s: %.1f s, and %.1f with more minutes", name, run.Seconds, before)
				}
				before = run.Seconds
				if run.Seconds > float64(60*minutes) && slices.ContainsFunc(run.Moves, func(m Move) bool { return m.rank != needed }) {
					t.Errorf("%s: %.1f s, and something could be left out", name, run.Seconds)
				}
				met := map[int]bool{}
				for _, m := range run.Moves {
					for _, s := range m.Passages {
						met[s.Index] = met[s.Index] || m.With != Heard
					}
				}
				for i := range p.Report.Measures {
					if !met[i] && len(p.Report.Measures[i].Events) > 0 && slices.Contains(p.Report.Part.Order(), i) {
						t.Errorf("%s: m. %d is not met", name, p.Report.Measures[i].Number)
					}
				}
			}
		}
	})
}

// The counts of all schools, and the names of all systems, are said where they stand.
func TestSpoken(t *testing.T) {
	t.Parallel()
	x := line(t, "Ferry Landing")
	trombone, _ := instrument.ByID("trombone")
	for _, school := range count.Schools() {
		o := breakdown.Options{Count: count.Options{School: school}}
		r := breakdown.Read(x.Score, x.Score.Parts[0], "", trombone, nil, o)
		run := Through(Ask{Unit: lesson.WholeLine, Routine: routine.Standard(), Options: o, Tempo: 60}, Player{trombone, r})
		counted, struck := 0, 0
		for _, m := range run.Moves {
			if m.Voice == Counts {
				counted += len(m.Spoken)
			}
			if m.Voice == Names {
				struck += len(m.Spoken)
			}
		}
		if counted < struck || struck < 20 {
			t.Errorf("by %s %d counts and %d names are said", school, counted, struck)
		}
	}
}

// line is a line of the demo book.
func line(t *testing.T, title string) demo.Exercise {
	t.Helper()
	book, err := demo.Exercises()
	if err != nil {
		t.Fatal(err)
	}
	k := slices.IndexFunc(book, func(x demo.Exercise) bool { return x.Score.Title == title })
	if k < 0 {
		t.Fatalf("%s is not in the book", title)
	}
	return book[k]
}

// led is a run of a trombone through Ferry Landing at 60.
func led(t *testing.T, ask Ask) Run {
	t.Helper()
	x := line(t, "Ferry Landing")
	trombone, _ := instrument.ByID("trombone")
	ask.Tempo = 60
	return Through(ask, Player{trombone, breakdown.Read(x.Score, x.Score.Parts[0], "", trombone, nil, ask.Options)})
}

// A way of a stage changes what is done at it. Source: docs/walk.md.
func TestWays(t *testing.T) {
	t.Parallel()
	for way, want := range map[routine.Way]Act{
		routine.Echo: Echo, routine.SayPlay: SayPlay, routine.Pairs: Pairs, routine.Along: Along, routine.Sing: Sing, routine.Listen: Listen,
	} {
		steps := routine.Standard()
		steps[2].Ways = []routine.Way{way}
		run := led(t, Ask{Unit: lesson.ChunkByChunk, Routine: steps})
		found := false
		for _, m := range run.Moves {
			found = found || m.Stage == routine.Finger && m.Act == want
			if m.Act != Echo && m.Act != SayPlay {
				continue
			}
			if n := len(m.Passages); n%2 != 0 || m.Passages[0].Who != Heard || m.Passages[n-1].Who != Alone {
				t.Errorf("%s: no turns are taken: %v", way, m.Passages)
			}
			for _, u := range m.Spoken { // the program speaks in its own turns alone
				if slices.ContainsFunc(m.Passages, func(s Stretch) bool { return s.Who == Alone && u.At >= s.At && u.At < s.At+(s.To-s.From)*4 }) {
					t.Errorf("%s: %s is said in the other's turn", way, u.Text)
				}
			}
		}
		if !found {
			t.Errorf("%s: nothing is done so", way)
		}
	}
}

// What was earned is not done again, and a line that is done is heard and played.
func TestWhatWasEarned(t *testing.T) {
	t.Parallel()
	fresh := led(t, Ask{Unit: lesson.Usual, Routine: routine.Standard()})
	states := map[breakdown.ChunkKey]routine.State{}
	for _, m := range fresh.Moves {
		states[m.key] = routine.State{Stage: routine.Play}
	}
	on := led(t, Ask{Unit: lesson.Usual, Routine: routine.Standard(), States: states})
	for _, m := range on.Moves {
		if m.Stage != routine.Play {
			t.Errorf("%s of %s is done again", m.Word, m.Where)
		}
	}
	for key := range states {
		states[key] = routine.State{Stage: routine.Done}
	}
	done := led(t, Ask{Unit: lesson.Usual, Routine: routine.Standard(), States: states})
	if len(done.Moves) != 2 || done.Moves[0].Act != Listen || done.Moves[1].With != Alone {
		t.Errorf("what is done is gone through in %d moves", len(done.Moves))
	}
}

// In a class whose names differ the voice counts, and nothing is said of one instrument's notes.
func TestMixedClass(t *testing.T) {
	t.Parallel()
	x := line(t, "Ferry Landing")
	var room []Player
	for _, id := range []string{"clarinet", "trombone", "violin"} {
		i, _ := instrument.ByID(id)
		room = append(room, Player{i, breakdown.Read(x.Score, x.Score.Parts[0], "", i, nil, breakdown.Options{})})
	}
	run := Through(Ask{Unit: lesson.Usual, Routine: routine.Standard(), Class: true}, room...)
	if len(run.Players) != 3 || run.Players[0].First == run.Players[1].First || run.Players[2].Fingering == "" {
		t.Errorf("they begin on %+v", run.Players)
	}
	for _, m := range run.Moves {
		if m.Voice != "" && m.Voice != Counts {
			t.Errorf("%s: the voice says %s", m.Says, m.Voice)
		}
		for _, s := range m.Minds {
			if strings.Contains(s, "flat") || strings.Contains(s, "natural") {
				t.Errorf("to everybody it says %s", s)
			}
		}
		if m.With == Alone && !strings.Contains(m.Says, "without me") {
			t.Errorf("a class is told: %s", m.Says)
		}
	}
}

// A note that has less room than its name takes is called by its letter, and that is said before.
func TestQuickNames(t *testing.T) {
	t.Parallel()
	x := line(t, "Ferry Landing")
	trombone, _ := instrument.ByID("trombone")
	r := breakdown.Read(x.Score, x.Score.Parts[0], "", trombone, nil, breakdown.Options{})
	run := Through(Ask{Unit: lesson.WholeLine, Routine: routine.Standard(), Tempo: 144}, Player{trombone, r})
	cut, before := 0, false
	for _, m := range run.Moves {
		if m.Voice != Names {
			continue
		}
		for _, u := range m.Spoken {
			if u.Full != "" {
				cut++
				before = slices.Contains(m.Minds, fmt.Sprintf("Say %s for %s: it is quick.", u.Text, u.Full))
			}
		}
	}
	if cut == 0 || !before {
		t.Errorf("%d names are cut, and that is said before: %v", cut, before)
	}
}

// A line with notes beyond the instrument is led all the same; of those nothing is called but
// their names.
func TestBeyondTheInstrument(t *testing.T) {
	t.Parallel()
	for _, i := range instrument.All() {
		part := testabc.Part(t, "T:Beyond\nM:4/4\nL:1/4\nK:C\nC,,, c G c|c4|]\n")
		s := score.Score{Title: "Beyond", Parts: []score.Part{part}}
		r := breakdown.Read(s, part, i.ID, i, nil, breakdown.Options{})
		for _, unit := range lesson.Units() {
			run := Through(Ask{Unit: unit, Routine: routine.Standard(), Tempo: 60}, Player{i, r})
			if len(run.Moves) == 0 {
				t.Errorf("%s is not led", i.ID)
			}
			for _, m := range run.Moves {
				if m.Voice != Fingers || i.Unpitched() {
					continue
				}
				for k, u := range m.Spoken[:2] {
					if r.Measures[0].Events[k].Fingering == "" && u.Text != "C" {
						t.Errorf("%s: note %d is called %q", i.ID, k+1, u.Text)
					}
				}
			}
		}
	}
}

// The question is about a note of the line, and its choices are read from there.
func TestQuestion(t *testing.T) {
	t.Parallel()
	run := led(t, Ask{Unit: lesson.Usual, Routine: routine.Standard()})
	q := run.Question
	if q == nil || q.Text != "Measure 4: E natural or E flat?" || q.Choices[q.Answer] != "E natural" {
		t.Fatalf("it asks %+v", q)
	}
	if q.Right != "Yes, E natural." {
		t.Errorf("the right answer is told %s", q.Right)
	}
	if q.Wrong != "E natural it is: look again." {
		t.Errorf("the other answer is told %s", q.Wrong)
	}
}

var sink Run

func BenchmarkThrough(b *testing.B) {
	book, err := demo.Exercises()
	if err != nil {
		b.Fatal(err)
	}
	clarinet, _ := instrument.ByID("clarinet")
	r := breakdown.Read(book[5].Score, book[5].Score.Parts[0], "", clarinet, nil, breakdown.Options{})
	for b.Loop() {
		sink = Through(Ask{Unit: lesson.Usual, Routine: routine.Standard()}, Player{clarinet, r})
	}
}

// What is played waits at a fermata, and what is counted goes on.
func TestFermatasHold(t *testing.T) {
	t.Parallel()
	trombone, _ := instrument.ByID("trombone")
	part := testabc.Part(t, "T:Held\nM:4/4\nL:1/4\nK:C\nc, d, !fermata!e, f,|!fermata!g,4|]\n")
	r := breakdown.Read(score.Score{Title: "Held", Parts: []score.Part{part}}, part, "", trombone, nil, breakdown.Options{})
	run := Through(Ask{Unit: lesson.WholeLine, Routine: routine.Standard(), Tempo: 60}, Player{trombone, r})
	seen := map[routine.Stage]bool{}
	for _, m := range run.Moves {
		var got []string
		for _, s := range m.Passages {
			got = append(got, fmt.Sprintf("%.0f+%.0f", s.At-m.Begins, s.Hold))
		}
		want := "0+0 4+0"
		if m.Form == routine.Play || m.Part {
			want = "0+1 4+0 5+2"
		}
		if all := strings.Join(got, " "); all != want {
			t.Errorf("%s: %s, want %s", m.Says, all, want)
		}
		seen[m.Form] = true
	}
	if !seen[routine.Count] || !seen[routine.Play] {
		t.Errorf("the stages are %v", seen)
	}
}
