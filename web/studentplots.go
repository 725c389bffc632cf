package web

import (
	"cmp"
	"fmt"
	"html/template"
	"slices"
	"strings"
	"time"
)

// tempoPlot is how fast an exercise was clean, day by day.
type tempoPlot struct {
	Days []tempoDay // the oldest first
}

type tempoDay struct {
	At    time.Time
	Tempo int // the fastest that was clean, else the fastest that was tried
	Clean bool
}

// newTempoPlot gathers tries, newest first; those without a tempo are left out.
func newTempoPlot(tries []tryView) tempoPlot {
	var p tempoPlot
	for _, t := range slices.Backward(tries) {
		if t.Undone || t.Moved || t.Tempo == 0 {
			continue
		}
		if n := len(p.Days); n == 0 || dateOf(p.Days[n-1].At) != dateOf(t.At) {
			p.Days = append(p.Days, tempoDay{At: t.At})
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
func (p tempoPlot) Shown() bool { return len(p.Days) > 1 }

// Words say it in a line: "clean at 54 on Tue 3 Nov, at 72 today".
func (p tempoPlot) Words() string {
	clean := slices.DeleteFunc(slices.Clone(p.Days), func(d tempoDay) bool { return !d.Clean })
	switch len(clean) {
	case 0:
		return "not clean at any tempo yet"
	case 1:
		return fmt.Sprintf("clean at %d %s", clean[0].Tempo, onDay(clean[0].At))
	}
	first, last := clean[0], clean[len(clean)-1]
	words := fmt.Sprintf("clean at %d %s, at %d %s", first.Tempo, onDay(first.At), last.Tempo, onDay(last.At))
	if best := slices.MaxFunc(clean, func(a, b tempoDay) int { return cmp.Compare(a.Tempo, b.Tempo) }); best.Tempo > last.Tempo && best.Tempo > first.Tempo {
		words += fmt.Sprintf("; %d at best", best.Tempo)
	}
	return words
}

// onDay is a day within a sentence: "today", "on Tue 3 Nov".
func onDay(at time.Time) string {
	if words := day(at); words == "today" || words == "yesterday" {
		return words
	}
	return "on " + day(at)
}

// drawTempoPlot draws a dot a day, filled where it was clean, a line through those.
func drawTempoPlot(p tempoPlot) template.HTML {
	const width, height, left, edge = 230, 54, 34, 8
	low, high := p.Days[0].Tempo, p.Days[0].Tempo
	for _, d := range p.Days {
		low, high = min(low, d.Tempo), max(high, d.Tempo)
	}
	first, last := dateOf(p.Days[0].At), dateOf(p.Days[len(p.Days)-1].At)
	x := func(d tempoDay) float64 {
		return left + (width-left-edge)*dateOf(d.At).Sub(first).Hours()/max(1, last.Sub(first).Hours())
	}
	y := func(tempo int) float64 {
		if high == low {
			return height / 2
		}
		return edge + float64(height-2*edge)*float64(high-tempo)/float64(high-low)
	}
	var b strings.Builder
	fmt.Fprintf(&b, `<svg class="tempo-plot" viewBox="0 0 %d %d" width="%d" height="%d" role="img" aria-label="Tempo: %s">`, width, height, width, height, p.Words())
	fmt.Fprintf(&b, `<text x="0" y="%.1f">%d</text>`, y(high)+5, high)
	if high > low {
		fmt.Fprintf(&b, `<text x="0" y="%.1f">%d</text>`, y(low)+5, low)
	}
	path := ""
	for _, d := range p.Days {
		if d.Clean {
			path += fmt.Sprintf("%s%.1f %.1f", map[bool]string{true: "M", false: "L"}[path == ""], x(d), y(d.Tempo))
		}
	}
	if path != "" {
		fmt.Fprintf(&b, `<path d="%s"/>`, path)
	}
	for _, d := range p.Days {
		fmt.Fprintf(&b, `<circle class="%s" cx="%.1f" cy="%.1f" r="4"/>`, map[bool]string{true: "was-clean", false: "was-stumble"}[d.Clean], x(d), y(d.Tempo))
	}
	b.WriteString(`</svg>`)
	return template.HTML(b.String())
}

// dayPlot is what a student tried, day by day, for some weeks.
type dayPlot struct {
	First time.Time // midnight of a Monday, in UTC
	Tries []int
	Clean []int
	Heard map[int]string // at check-ins, by day
}

// newDayPlot gathers tries of the last weeks, until today.
func newDayPlot(tries []tryView, now time.Time) dayPlot {
	p := dayPlot{First: mondayOf(now).AddDate(0, 0, -7*(weeksShown-1)), Heard: map[int]string{}}
	days := p.day(now) + 1
	p.Tries, p.Clean = make([]int, days), make([]int, days)
	for _, t := range tries {
		if k := p.day(t.At); !t.Undone && !t.Moved && k >= 0 && k < days {
			p.Tries[k]++
			if t.Clean {
				p.Clean[k]++
			}
		}
	}
	return p
}

// day is the place of a moment.
func (p dayPlot) day(at time.Time) int {
	at = at.UTC()
	if at.Before(p.First) {
		return -1
	}
	return int(at.Sub(p.First).Hours() / 24)
}

// Words say it in a line: "41 tries on 9 days, 63% clean".
func (p dayPlot) Words() string {
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
	return fmt.Sprintf("%s on %s, %d%% clean", numbered(tries, "try", "tries"), numbered(days, "day", "days"), 100*clean/tries)
}

// drawDayPlot draws a bar for each day as high as its tries, filled as far as they were
// clean, a flag where the student was heard.
func drawDayPlot(p dayPlot) template.HTML {
	const step, wide, height, top = 11, 8, 46, 14
	most := max(1, slices.Max(p.Tries))
	days := 7 * weeksShown
	var b strings.Builder
	fmt.Fprintf(&b, `<svg class="day-plot" viewBox="0 0 %d %d" width="%d" height="%d" role="img" aria-label="%s">`, days*step, top+height+22, days*step, top+height+22, p.Words())
	for k := 0; k < days; k += 7 {
		monday := p.First.AddDate(0, 0, k)
		fmt.Fprintf(&b, `<path class="week" d="M%d %dv%d"/><text x="%d" y="%d">%s</text>`, k*step, top, height, k*step+2, top+height+16, monday.Format("2 Jan"))
	}
	fmt.Fprintf(&b, `<path class="week" d="M0 %dh%d"/>`, top+height, days*step)
	for k, n := range p.Tries {
		if n > 0 {
			tall := max(3, height*n/most)
			clean := tall * p.Clean[k] / n
			day := p.First.AddDate(0, 0, k).Format("Mon 2 Jan")
			fmt.Fprintf(&b, `<g><title>%s: %s, %d clean</title><rect class="all-tries" x="%d" y="%d" width="%d" height="%d"/><rect class="clean-tries" x="%d" y="%d" width="%d" height="%d"/></g>`,
				day, numbered(n, "try", "tries"), p.Clean[k], k*step+2, top+height-tall, wide, tall, k*step+2, top+height-clean, wide, clean)
		}
		if heard, was := p.Heard[k]; was {
			fmt.Fprintf(&b, `<path class="heard" d="M%d %dl6 -10h-12z"><title>%s</title></path>`, k*step+wide/2+2, top-2, template.HTMLEscapeString(heard))
		}
	}
	b.WriteString(`</svg>`)
	return template.HTML(b.String())
}
