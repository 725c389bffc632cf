package site

import (
	"fmt"
	"regexp"
	"strconv"
	"time"
)

// ReadMinutes reads a number of minutes, or says what is wrong with it.
func ReadMinutes(typed string, least, most int) (int, string) {
	minutes, err := strconv.Atoi(typed)
	if err != nil || minutes < least || minutes > most {
		return minutes, fmt.Sprintf("The minutes, “%s”, are no number from %d to %d.", typed, least, most)
	}
	return minutes, ""
}

// ReadDay reads a day as browsers send it, or says what is wrong with it.
func ReadDay(typed string) (time.Time, string) {
	on, err := time.Parse(time.DateOnly, typed)
	if err != nil || on.Year() < 2000 || on.Year() > 2200 {
		return on, fmt.Sprintf("The day, “%s”, is none. Write it as year, month and day: 2026-11-20.", typed)
	}
	return on, ""
}

// FourFigures is what a PIN looks like.
var FourFigures = regexp.MustCompile(`^[0-9]{4}$`)
