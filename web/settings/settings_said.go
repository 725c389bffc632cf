package settings

import (
	"fmt"
	"strings"

	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// saidOf says what has changed and for whom: the settings for everybody, then each
// class whose own way of counting was changed or stays beside another.
func saidOf(p teach.Preferences, changed store.Settings, before, after []store.Class) string {
	var all []string
	for _, row := range site.SettingsSaid {
		for _, key := range row.Keys {
			if _, is := changed[key]; is {
				all = append(all, row.Say(p))
				break
			}
		}
	}
	var said []string
	if len(all) > 0 {
		said = append(said, "Saved for all your students: "+strings.Join(all, "; ")+".")
	}
	_, counting := changed["school"]
	for k, class := range after {
		switch own := class.School; {
		case own != before[k].School && own == "":
			said = append(said, fmt.Sprintf("%s counts as all others do, %s.", class.Name, site.SchoolTitle(p.School)))
		case own != before[k].School:
			said = append(said, fmt.Sprintf("%s counts in its own way, %s.", class.Name, site.SchoolTitle(own)))
		case own != "" && counting:
			said = append(said, fmt.Sprintf("%s keeps its own way of counting, %s.", class.Name, site.SchoolTitle(own)))
		}
	}
	if len(said) == 0 {
		return "Nothing was changed."
	}
	return strings.Join(said, " ")
}
