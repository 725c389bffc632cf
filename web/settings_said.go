package web

import (
	"cmp"
	"fmt"
	"strings"

	"unhurriedbench/core/count"
	"unhurriedbench/core/name"
	"unhurriedbench/store"
)

// settingSaid says what a setting has become. Settings that share a sentence have the
// same function, which is given what is kept now.
type settingSaid struct {
	keys []string
	say  func(p preferences) string
}

// settingsSaid has a row for every setting, in the order of the page.
var settingsSaid = []settingSaid{
	{[]string{"school"}, func(p preferences) string { return "counting is " + schoolTitle(p.School) }},
	{[]string{"slow-beat"}, func(p preferences) string {
		return "6/8, 9/8 and 12/8 are counted " + either(p.SlowBeat, "in eighths", "in big beats")
	}},
	{[]string{"rests"}, func(p preferences) string {
		return "rests are " + map[string]string{"": "numbers in brackets", "word": "the word “rest”", "place": "numbers at their place"}[p.Rests]
	}},
	{[]string{"syncopa"}, func(p preferences) string {
		return "eighth, quarter, eighth by value is " + either(p.Syncopa, "syn co pa", "ti ta ti")
	}},
	{[]string{"british"}, func(p preferences) string {
		return "values are named " + either(p.British, "crotchet, quaver", "quarter, eighth")
	}},
	{[]string{"cue-1", "cue-2"}, func(p preferences) string {
		return fmt.Sprintf("the count-off ends with “%s”, “%s”", cmp.Or(p.Cues[0], "ready"), cmp.Or(p.Cues[1], "go"))
	}},
	{[]string{"tuning"}, func(p preferences) string { return fmt.Sprintf("the A to tune to has %d hertz", p.pitchOfA()) }},
	{[]string{"naming"}, func(p preferences) string {
		return "note names are " + name.System(cmp.Or(p.Naming, string(name.Systems()[0]))).Title()
	}},
	{[]string{"naturals"}, func(p preferences) string { return "“natural” is said " + cmp.Or(p.Naturals, "where it is news") }},
	{[]string{"hands"}, func(p preferences) string { return "woodwind fingers are " + either(p.Hands, "L1 to R3", "1 to 6") }},
	{[]string{"spacing"}, func(p preferences) string {
		return "violin and viola fingers are told " + either(p.Spacing, "by their spacing", "as low and high")
	}},
	{[]string{"two", "three"}, func(p preferences) string {
		return fmt.Sprintf("the cello's patterns are the “%s” and the “%s”", cmp.Or(p.Two, "two hand"), cmp.Or(p.Three, "three hand"))
	}},
	{[]string{"colour-C", "colour-G", "colour-D", "colour-A", "colour-E"}, func(preferences) string { return "strings have the colours below" }},
	{[]string{"words"}, func(p preferences) string {
		return "picture words are " + either(len(p.Words) > 0, "as you have them below", "ours again")
	}},
}

func either(on bool, yes, no string) string {
	if on {
		return yes
	}
	return no
}

func schoolTitle(school string) string {
	return count.School(cmp.Or(school, string(count.Numbers))).Title()
}

// saidOf says what has changed and for whom: the settings for everybody, then each
// section whose own way of counting was changed or stays beside another.
func saidOf(p preferences, changed store.Settings, before, after []store.Section) string {
	var all []string
	for _, row := range settingsSaid {
		for _, key := range row.keys {
			if _, is := changed[key]; is {
				all = append(all, row.say(p))
				break
			}
		}
	}
	var said []string
	if len(all) > 0 {
		said = append(said, "Saved for all your students: "+strings.Join(all, "; ")+".")
	}
	_, counting := changed["school"]
	for k, section := range after {
		switch own := section.School; {
		case own != before[k].School && own == "":
			said = append(said, fmt.Sprintf("%s counts as all others do, %s.", section.Name, schoolTitle(p.School)))
		case own != before[k].School:
			said = append(said, fmt.Sprintf("%s counts in its own way, %s.", section.Name, schoolTitle(own)))
		case own != "" && counting:
			said = append(said, fmt.Sprintf("%s keeps its own way of counting, %s.", section.Name, schoolTitle(own)))
		}
	}
	if len(said) == 0 {
		return "Nothing was changed."
	}
	return strings.Join(said, " ")
}
