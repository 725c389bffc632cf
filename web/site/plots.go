package site

import (
	"fmt"
	"html/template"
	"slices"
	"strings"

	"unhurriedbench/core/card"
	"unhurriedbench/teach"
)

// drawSpeedPlot draws a line from day to day; it falls as names come quicker.
func drawSpeedPlot(p teach.SpeedPlot) template.HTML {
	const width, height, left, edge = 300, 96, 40, 12
	slowest := 0
	for _, d := range p.Days {
		slowest = max(slowest, d.Median)
	}
	first, last := p.Days[0].Day, p.Days[len(p.Days)-1].Day
	x := func(d card.Speed) float64 {
		return left + float64(width-left-edge)*d.Day.Sub(first).Hours()/max(last.Sub(first).Hours(), 1)
	}
	y := func(d card.Speed) float64 {
		return height - 22 - float64(height-34)*float64(d.Median)/float64(max(slowest, 1))
	}
	var b, line strings.Builder
	fmt.Fprintf(&b, `<svg class="speed-plot" viewBox="0 0 %d %d" width="%d" height="%d" role="img" aria-label="%s">`, width, height, width, height, template.HTMLEscapeString(p.Words()))
	fmt.Fprintf(&b, `<path class="floor" d="M%d %dH%d"/>`, left, height-22, width-edge)
	for k, d := range p.Days {
		fmt.Fprintf(&line, "%s%.1f %.1f", map[bool]string{true: "M", false: "L"}[k == 0], x(d), y(d))
		fmt.Fprintf(&b, `<circle cx="%.1f" cy="%.1f" r="3.5"/>`, x(d), y(d))
	}
	fmt.Fprintf(&b, `<path class="way" d="%s"/>`, line.String())
	fmt.Fprintf(&b, `<text x="4" y="%.1f">%s s</text><text x="%d" y="%d">%s</text><text class="to" x="%d" y="%d">%s</text></svg>`,
		y(p.Days[0])+4, teach.Seconds(p.Days[0].Median), left, height-4, p.Catalog.Date(first, false), width-edge,
		height-4, p.Catalog.Date(last, false))
	return template.HTML(b.String())
}

// drawTempoPlot draws a dot a day, filled where it was clean, a line through those.
func drawTempoPlot(p teach.TempoPlot) template.HTML {
	const width, height, left, edge = 230, 54, 34, 8
	low, high := p.Days[0].Tempo, p.Days[0].Tempo
	for _, d := range p.Days {
		low, high = min(low, d.Tempo), max(high, d.Tempo)
	}
	first, last := teach.DateOf(p.Days[0].At), teach.DateOf(p.Days[len(p.Days)-1].At)
	x := func(d teach.TempoDay) float64 {
		return left + (width-left-edge)*teach.DateOf(d.At).Sub(first).Hours()/max(1, last.Sub(first).Hours())
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
		fmt.Fprintf(&b, `<circle class="%s" cx="%.1f" cy="%.1f" r="4"/>`, map[bool]string{true: "was-clean",
			false: "was-stumble"}[d.Clean], x(d), y(d.Tempo))
	}
	b.WriteString(`</svg>`)
	return template.HTML(b.String())
}

// drawDayPlot draws a bar for each day as high as its tries, filled as far as they were
// clean, a flag where the student was heard.
func drawDayPlot(p teach.DayPlot) template.HTML {
	const step, wide, height, top = 11, 8, 46, 14
	most := max(1, slices.Max(p.Tries))
	days := 7 * teach.WeeksShown
	var b strings.Builder
	fmt.Fprintf(&b, `<svg class="day-plot" viewBox="0 0 %d %d" width="%d" height="%d" role="img" aria-label="%s">`,
		days*step, top+height+22, days*step, top+height+22, p.Words())
	for k := 0; k < days; k += 7 {
		monday := p.First.AddDate(0, 0, k)
		fmt.Fprintf(&b, `<path class="week" d="M%d %dv%d"/><text x="%d" y="%d">%s</text>`, k*step, top, height,
			k*step+2, top+height+16, monday.Format("2 Jan"))
	}
	fmt.Fprintf(&b, `<path class="week" d="M0 %dh%d"/>`, top+height, days*step)
	for k, n := range p.Tries {
		if n > 0 {
			tall := max(3, height*n/most)
			clean := tall * p.Clean[k] / n
			day := p.First.AddDate(0, 0, k).Format("Mon 2 Jan")
			fmt.Fprintf(&b, `<g><title>%s: %s, %d clean</title><rect class="all-tries" x="%d" y="%d" width="%d" height="%d"/><rect class="clean-tries" x="%d" y="%d" width="%d" height="%d"/></g>`,
				day, teach.Plural(n, "try", "tries"), p.Clean[k], k*step+2, top+height-tall, wide, tall, k*step+2, top+
					height-clean, wide, clean)
		}
		if heard, was := p.Heard[k]; was {
			fmt.Fprintf(&b, `<path class="heard" d="M%d %dl6 -10h-12z"><title>%s</title></path>`, k*step+wide/2+2, top-2,
				template.HTMLEscapeString(heard))
		}
	}
	b.WriteString(`</svg>`)
	return template.HTML(b.String())
}
