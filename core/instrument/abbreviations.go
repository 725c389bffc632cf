package instrument

import (
	"regexp"
	"slices"
	"strings"
)

// numbered is the number of a player's part at the end of a name: "Tpt. 2", "Cl III".
var numbered = regexp.MustCompile(`\s+(\d+|i{1,3}|1st|2nd|3rd)$`)

// clefs are the letters of a baritone's clef, apart: "T. C.".
var clefs = regexp.MustCompile(`\b([tb]) c\b`)

// Named lists the instruments that a name may speak of, whole: as it is called here, or as lists of
// schools have it, with or without points and the number of a part. One is sure; of several the
// reader of the list has to say which; none is none known.
func Named(text string) []Instrument {
	name := strings.ToLower(strings.Join(strings.Fields(strings.ReplaceAll(text, ".", ". ")), " "))
	name = strings.ReplaceAll(name, ".", "")
	name = clefs.ReplaceAllString(name, "${1}c")
	name = numbered.ReplaceAllString(strings.TrimSpace(name), "")
	var list []Instrument
	for _, i := range catalogue {
		if slices.Contains(i.short, name) {
			list = append(list, i)
		}
	}
	if len(list) > 0 {
		return list
	}
	for _, i := range catalogue {
		if strings.EqualFold(name, i.Name) || name == i.ID {
			return []Instrument{i}
		}
	}
	return nil
}

// Among leaves of several instruments those that fit what else is played: where all others are
// bowed, the one that is bowed, and where none is, the one that is not.
func Among(list, others []Instrument) []Instrument {
	if len(list) < 2 || len(others) == 0 {
		return list
	}
	bowed, blown := true, true
	for _, i := range others {
		bowed, blown = bowed && i.Bowed(), blown && !i.Bowed()
	}
	fits := slices.DeleteFunc(slices.Clone(list), func(i Instrument) bool { return bowed && !i.Bowed() || blown && i.Bowed() })
	if len(fits) != 1 {
		return list
	}
	return fits
}

// OneOf names several instruments, to be chosen from: "bass clarinet, tuba or double bass".
func OneOf(list []Instrument) string {
	names := make([]string, len(list))
	for k, i := range list {
		names[k] = i.Name
	}
	last := len(names) - 1
	return strings.Join(names[:last], ", ") + " or " + names[last]
}
