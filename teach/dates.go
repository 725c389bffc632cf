package teach

import (
	"fmt"
	"slices"
	"time"

	"unhurriedbench/store"
)

// WeeksShown is how many weeks the plots have.
const WeeksShown = 12

// MondayOf is midnight of the Monday of a week, in UTC as the tables have it.
func MondayOf(t time.Time) time.Time {
	t = DateOf(t.UTC())
	return t.AddDate(0, 0, -(int(t.Weekday())+6)%7)
}

// DayWords says a day, seen from now, that may be to come: "today", "tomorrow", "Tue 1 Dec".
func DayWords(on, now time.Time) string {
	switch int(on.Sub(DateOf(now)).Hours() / 24) {
	case 0:
		return "today"
	case 1:
		return "tomorrow"
	case -1:
		return "yesterday"
	}
	return on.Format("Mon 2 Jan")
}

// Day is a date as a teacher says it now: "today", "yesterday", "Tue 24 Nov".
func Day(at, now time.Time) string {
	at = at.In(now.Location())
	switch days := int(DateOf(now).Sub(DateOf(at)).Hours() / 24); days {
	case 0:
		return "today"
	case 1:
		return "yesterday"
	}
	return at.Format("Mon 2 Jan")
}

// DateOf is midnight of a moment's day, in UTC.
func DateOf(t time.Time) time.Time {
	return time.Date(t.Year(), t.Month(), t.Day(), 0, 0, 0, 0, time.UTC)
}

// ValidZone says whether a text names a time zone, as Europe/Berlin does; "" is the usual one.
func ValidZone(name string) bool {
	_, err := time.LoadLocation(name)
	return err == nil && name != "Local" && len(name) <= 64
}

// StartOf is when a day begins in a time zone.
func StartOf(day time.Time, in *time.Location) time.Time {
	return time.Date(day.Year(), day.Month(), day.Day(), 0, 0, 0, 0, in)
}

// DayNumber counts a day from 1 January 1970.
func DayNumber(t time.Time) int { return int(DateOf(t).Unix() / (24 * 60 * 60)) }

// minutesOn is how many minutes a plan has on a day.
func minutesOn(p store.HomePlan, on time.Time) int {
	if minutes, changed := p.Changed[on.Format(time.DateOnly)]; changed {
		return minutes
	}
	if slices.Contains(p.Weekdays, int(on.Weekday())) {
		return p.Minutes
	}
	return 0
}

// DayOf is midnight of a day that is counted from 1 January 1970.
func DayOf(number int) time.Time { return time.Unix(int64(number)*24*60*60, 0).UTC() }

// onDay is a day within a sentence: "today", "on Tue 3 Nov".
func onDay(at, now time.Time) string {
	if words := Day(at, now); words == "today" || words == "yesterday" {
		return words
	}
	return "on " + Day(at, now)
}

// When says how long ago, or the day.
func When(at time.Time) string {
	switch ago := time.Since(at); {
	case ago < time.Minute:
		return "just now"
	case ago < time.Hour:
		return fmt.Sprintf("%d min ago", int(ago.Minutes()))
	case ago < 20*time.Hour:
		return fmt.Sprintf("%d h ago", int(ago.Hours()))
	}
	return at.Format("Mon 2 Jan, 15:04")
}
