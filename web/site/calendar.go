package site

import (
	"fmt"
	"net/http"
	"strings"
	"time"

	"github.com/arran4/golang-ical"

	"unhurriedbench/teach"
)

// SendCalendar sends a plan as a calendar (RFC 5545).
func (s *Site) SendCalendar(w http.ResponseWriter, v teach.PracticePlan) {
	w.Header().Set("Content-Type", "text/calendar; charset=utf-8")
	w.Header().Set("Content-Disposition", `attachment; filename="practice.ics"`)
	// RFC 5545, 3.1; the reader has gone when this fails
	_ = calendarOf(v, s.Now()).SerializeTo(w, ics.WithNewLineWindows)
}

func calendarOf(v teach.PracticePlan, now time.Time) *ics.Calendar {
	c := ics.NewCalendarFor("Unhurried Bench")
	c.SetMethod(ics.MethodPublish)
	for _, d := range v.Days {
		on, err := time.Parse(time.DateOnly, d.On)
		if len(d.Items) == 0 || err != nil {
			continue
		}
		e := c.AddEvent(fmt.Sprintf("plan-%d-%s@unhurried-bench", v.Student.ID, d.On))
		e.SetDtStampTime(now)
		e.SetAllDayStartAt(on)
		e.SetAllDayEndAt(on.AddDate(0, 0, 1))
		e.SetSummary(fmt.Sprintf("Practise: %s, %s", strings.ToLower(v.Title), d.Time))
		var lines []string
		for _, i := range d.Items {
			line := i.Name
			if i.How != "" {
				line += ", " + i.How
			}
			lines = append(lines, fmt.Sprintf("%s (%s): %s", line, i.Time, i.Why))
		}
		e.SetDescription(strings.Join(lines, "\n"))
		e.SetProperty(ics.ComponentPropertyTransp, string(ics.TransparencyTransparent))
	}
	return c
}
