package teach

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"time"
)

// TempoPlot is how fast an exercise was clean, day by day.
type TempoPlot struct {
	Days []TempoDay // the oldest first
	now  time.Time
}

// TempoDay is the last tempo of a day.
type TempoDay struct {
	At    time.Time
	Tempo int // the fastest that was clean, else the fastest that was tried
	Clean bool
}

// NewTempoPlot gathers tries, newest first, as they are seen now; those without a tempo are left out.
func NewTempoPlot(tries []LoggedTry, now time.Time) TempoPlot {
	p := TempoPlot{now: now}
	for _, t := range slices.Backward(tries) {
		if t.Undone || t.Moved || t.Tempo == 0 {
			continue
		}
		if n := len(p.Days); n == 0 || DateOf(p.Days[n-1].At) != DateOf(t.At) {
			p.Days = append(p.Days, TempoDay{At: t.At})
		}
		d := &p.Days[len(p.Days)-1]
		switch {
		case t.Clean && !d.Clean:
			d.Tempo, d.Clean = t.Tempo, true
		case t.Clean == d.Clean:
			d.Tempo = max(d.Tempo, t.Tempo)
		}
	}
	return p
}

// Shown says whether there is a way to see in it.
func (p TempoPlot) Shown() bool { return len(p.Days) > 1 }

// Words say it in a line: "clean at 54 on Tue 3 Nov, at 72 today".
func (p TempoPlot) Words() string {
	clean := slices.DeleteFunc(slices.Clone(p.Days), func(d TempoDay) bool { return !d.Clean })
	switch len(clean) {
	case 0:
		return "not clean at any tempo yet"
	case 1:
		return fmt.Sprintf("clean at %d %s", clean[0].Tempo, onDay(clean[0].At, p.now))
	}
	first, last := clean[0], clean[len(clean)-1]
	words := fmt.Sprintf("clean at %d %s, at %d %s", first.Tempo, onDay(first.At, p.now), last.Tempo, onDay(last.At, p.now))
	if best := slices.MaxFunc(clean, func(a, b TempoDay) int {
		return cmp.Compare(a.Tempo,
			b.Tempo)
	}); best.Tempo > last.Tempo && best.Tempo > first.Tempo {
		words += fmt.Sprintf("; %d at best", best.Tempo)
	}
	return words
}

// DayPlot is what a student tried, day by day, for some weeks.
type DayPlot struct {
	First time.Time // midnight of a Monday, in UTC
	Tries []int
	Clean []int
	Heard map[int]string // at check-ins, by day
}

// NewDayPlot gathers tries of the last weeks, until today.
func NewDayPlot(tries []LoggedTry, now time.Time) DayPlot {
	p := DayPlot{First: MondayOf(now).AddDate(0, 0, -7*(WeeksShown-1)), Heard: map[int]string{}}
	days := p.Day(now) + 1
	p.Tries, p.Clean = make([]int, days), make([]int, days)
	for _, t := range tries {
		if k := p.Day(t.At); !t.Undone && !t.Moved && k >= 0 && k < days {
			p.Tries[k]++
			if t.Clean {
				p.Clean[k]++
			}
		}
	}
	return p
}

// Day is the place of a moment.
func (p DayPlot) Day(at time.Time) int {
	at = at.UTC()
	if at.Before(p.First) {
		return -1
	}
	return int(at.Sub(p.First).Hours() / 24)
}

// Words say it in a line: "41 tries on 9 days, 63% clean".
func (p DayPlot) Words() string {
	tries, clean, days := 0, 0, 0
	for k, n := range p.Tries {
		tries, clean = tries+n, clean+p.Clean[k]
		if n > 0 {
			days++
		}
	}
	if tries == 0 {
		return "nothing tried in the last twelve weeks"
	}
	return fmt.Sprintf("%s on %s, %d%% clean", Plural(tries, "try", "tries"), Plural(days, "day", "days"), int(math.Round(100*float64(clean)/float64(tries))))
}
