package store_test

import (
	"context"
	"testing"
	"time"
	_ "time/tzdata"

	"unhurriedbench/core/routine"
	"unhurriedbench/internal/testdb"
	"unhurriedbench/store"
	"unhurriedbench/teach"
)

// A day is a day where the school is: half an hour before and after midnight, in zones from -11 to
// +13, over both changes of the clock.
func TestDaysWhereTheSchoolIs(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "a")
	if _, err := f.UndoAttempt(ctx, f.attempt); err != nil {
		t.Fatal(err)
	}
	for _, zone := range []string{"Pacific/Pago_Pago", "America/Los_Angeles", "America/St_Johns", "Europe/Berlin", "Asia/Kolkata", "Pacific/Auckland", "Pacific/Tongatapu"} {
		at, err := time.LoadLocation(zone)
		if err != nil {
			t.Fatal(err)
		}
		if err := f.SaveSettings(ctx, store.Settings{store.ZoneSetting: zone}); err != nil {
			t.Fatal(err)
		}
		if got := s.For(f.teacher).Zone(ctx).String(); got != zone {
			t.Fatalf("the zone is %s, want %s", got, zone)
		}
		// the days around the changes of clock in Europe and in North America, and an ordinary one
		for _, day := range []time.Time{time.Date(2026, 3, 8, 0, 0, 0, 0, at), time.Date(2026, 3, 29, 0, 0, 0, 0, at), time.Date(2026, 10, 25, 0, 0, 0, 0, at), time.Date(2026, 11, 1, 0, 0, 0, 0, at), time.Date(2026, 12, 2, 0, 0, 0, 0, at)} {
			late, early := day.Add(-30*time.Minute), day.Add(30*time.Minute)
			try := f.try(true, routine.None)
			for _, moment := range []time.Time{late, early} {
				try.At = moment
				if err := f.AddAttempts(ctx, try); err != nil {
					t.Fatal(err)
				}
			}
			log, err := f.StudentAttempts(ctx, f.student)
			if err != nil {
				t.Fatal(err)
			}
			if first, second := teach.DayNumber(log[1].At), teach.DayNumber(log[0].At); second != first+1 || second != teach.DayNumber(day) {
				t.Errorf("%s, %s: 23:30 is on day %d and 00:30 on day %d, want %d", zone, day.Format(time.DateOnly), first, second, teach.DayNumber(day))
			}
			// a gradebook by the day before has the first of the two alone
			standings, err := f.StandingsBy(ctx, f.class, teach.StartOf(day, at))
			if err != nil {
				t.Fatal(err)
			}
			before := standings[store.Task{Student: f.student, Exercise: f.exercise}]
			if all, _ := f.StandingsBy(ctx, f.class, day.AddDate(0, 0, 1)); all[store.Task{Student: f.student, Exercise: f.exercise}].Tries != before.Tries+1 {
				t.Errorf("%s, %s: by the day before there are %d tries", zone, day.Format(time.DateOnly), before.Tries)
			}
			desk := f.facts()
			desk.Clock = func() time.Time { return late.UTC() }
			if got := teach.DateOf(desk.Now()); !got.Equal(time.Date(day.Year(), day.Month(), day.Day()-1, 0, 0, 0, 0, time.UTC)) {
				t.Errorf("%s: half an hour before midnight of %s it is %s", zone, day.Format(time.DateOnly), got.Format(time.DateOnly))
			}
			for _, a := range log[:2] {
				if _, err := f.UndoAttempt(ctx, a.ID); err != nil {
					t.Fatal(err)
				}
			}
		}
	}
	// A week begins on Monday where the school is.
	at, _ := time.LoadLocation("Pacific/Tongatapu")
	monday := time.Date(2026, 11, 30, 0, 30, 0, 0, at) // Sunday morning in Europe
	try := f.try(true, routine.None)
	try.At = monday
	if err := f.AddAttempts(ctx, try); err != nil {
		t.Fatal(err)
	}
	weeks, err := f.Weeks(ctx, f.class, monday.AddDate(0, 0, -1))
	if err != nil || len(weeks) != 1 || weeks[0].Monday.Day() != 30 {
		t.Errorf("the week begins %v, %v", weeks, err)
	}
	// The installation's zone is that of the first browser, and a teacher's own goes before it.
	if err := s.FirstZone(ctx, "Europe/Berlin"); err != nil {
		t.Fatal(err)
	}
	if err := s.FirstZone(ctx, "Asia/Tokyo"); err != nil {
		t.Fatal(err)
	}
	other := add(t, s, "b")
	if got, mine := other.Zone(ctx).String(), f.Zone(ctx).String(); got != "Europe/Berlin" || mine != "Pacific/Tongatapu" {
		t.Errorf("the zones are %s and %s", got, mine)
	}
}
