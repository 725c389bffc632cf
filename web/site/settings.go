package site

import (
	"cmp"
	"fmt"

	"unhurriedbench/core/count"
	"unhurriedbench/core/name"
	"unhurriedbench/store"
	"unhurriedbench/teach"
)

// SettingSaid says what a setting has become. Settings that share a sentence have the
// same function, which is given what is kept now.
type SettingSaid struct {
	Keys []string
	Say  func(p teach.Preferences) string
}

// SettingsSaid has a row for every setting, in the order of the page.
var SettingsSaid = []SettingSaid{
	{[]string{"school"}, func(p teach.Preferences) string { return "counting is " + SchoolTitle(p.School) }},
	{[]string{"slow-beat"}, func(p teach.Preferences) string {
		return "6/8, 9/8 and 12/8 are counted " + teach.Either(p.SlowBeat, "in eighths", "in big beats")
	}},
	{[]string{"rests"}, func(p teach.Preferences) string {
		return "rests are " + map[string]string{"": "numbers in brackets", "word": "the word “rest”",
			"place": "numbers at their place"}[p.Rests]
	}},
	{[]string{"syncopa"}, func(p teach.Preferences) string {
		return "eighth, quarter, eighth by value is " + teach.Either(p.Syncopa, "syn co pa", "ti ta ti")
	}},
	{[]string{"british"}, func(p teach.Preferences) string {
		return "values are named " + teach.Either(p.British, "crotchet, quaver", "quarter, eighth")
	}},
	{[]string{"cue-1", "cue-2"}, func(p teach.Preferences) string {
		return fmt.Sprintf("the count-off ends with “%s”, “%s”", cmp.Or(p.Cues[0], "ready"), cmp.Or(p.Cues[1], "go"))
	}},
	{[]string{store.ZoneSetting}, func(p teach.Preferences) string {
		if p.Zone == "" {
			return "days as the installation reckons them"
		}
		return "days as in " + p.Zone
	}},
	{[]string{"tuning"}, func(p teach.Preferences) string {
		return fmt.Sprintf("the A to tune to has %d hertz",
			p.PitchOfA())
	}},
	{[]string{"naming"}, func(p teach.Preferences) string {
		return "note names are " + name.System(cmp.Or(p.Naming, string(name.Systems()[0]))).Title()
	}},
	{[]string{"naturals"}, func(p teach.Preferences) string {
		return "“natural” is said " + cmp.Or(p.Naturals, "where it is news")
	}},
	{[]string{"hands"}, func(p teach.Preferences) string {
		return "woodwind fingers are " + teach.Either(p.Hands, "L1 to R3", "1 to 6")
	}},
	{[]string{"spacing"}, func(p teach.Preferences) string {
		return "violin and viola fingers are told " + teach.Either(p.Spacing, "by their spacing", "as low and high")
	}},
	{[]string{"two", "three"}, func(p teach.Preferences) string {
		return fmt.Sprintf("the cello's patterns are the “%s” and the “%s”", cmp.Or(p.Two, "two hand"),
			cmp.Or(p.Three, "three hand"))
	}},
	{[]string{"colour-C", "colour-G", "colour-D", "colour-A", "colour-E"},
		func(teach.Preferences) string { return "strings have the colours below" }},
	{[]string{"words"}, func(p teach.Preferences) string {
		return "picture words are " + teach.Either(len(p.Words) > 0, "as you have them below", "ours again")
	}},
}

// SchoolTitle is the title of a school of counting; "" is the usual one.
func SchoolTitle(school string) string {
	return count.School(cmp.Or(school, string(count.Numbers))).Title()
}
