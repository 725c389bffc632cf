package teach

import (
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"strconv"
	"unicode/utf8"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/count"
	"unhurriedbench/core/finger"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/name"
	"unhurriedbench/store"
)

// Preferences is how a teacher counts, names, writes and speaks of fingers. Empty
// fields are the defaults of core.
type Preferences struct {
	School   string
	SlowBeat bool
	Rests    string
	Words    count.WordTable // of their own, nil for ours
	Syncopa  bool
	Naming   string
	Naturals string
	British  bool
	Tuning   string // the A that is tuned to, in hertz
	Zone     string // the time zone that days are reckoned in, "" for the installation's
	Cues     [2]string
	Hands    bool              // L1 to R3 in place of 1 to 6
	Spacing  bool              // on strings, in place of low and high
	Two      string            // the cello's patterns
	Three    string            //
	Colours  map[string]string // of strings, by letter: "#2f6f62"
	Asked    string            // on reading cards: kinds with spaces between, "" for the usual ones
	NewCards string            // a day at most, "" for the usual number
}

// PreferencesOf reads kept settings.
func PreferencesOf(saved store.Settings) Preferences {
	p := Preferences{
		School: saved["school"], SlowBeat: saved["slow-beat"] == "yes", Rests: saved["rests"],
		Syncopa: saved["syncopa"] == "yes",
		Naming:  saved["naming"], Naturals: saved["naturals"], British: saved["british"] == "yes",
		Tuning: saved["tuning"], Zone: saved[store.ZoneSetting], Cues: [2]string{saved["cue-1"], saved["cue-2"]},
		Hands: saved["hands"] == "yes", Spacing: saved["spacing"] == "yes", Two: saved["two"], Three: saved["three"],
		Colours: map[string]string{},
		Asked:   saved[AskedSetting], NewCards: saved[NewCardsSetting],
	}
	if text := saved["words"]; text != "" && json.Unmarshal([]byte(text), &p.Words) != nil {
		p.Words = nil // ours hold
	}
	for _, s := range StringNames {
		if c := saved["colour-"+s]; c != "" {
			p.Colours[s] = c
		}
	}
	return p
}

// Settings writes them to be kept, "" for every default.
func (p Preferences) Settings() store.Settings {
	yes := func(on bool) string {
		if on {
			return "yes"
		}
		return ""
	}
	s := store.Settings{
		"school": p.School, "slow-beat": yes(p.SlowBeat), "rests": p.Rests, "syncopa": yes(p.Syncopa), "naming": p.Naming,
		"naturals": p.Naturals, "british": yes(p.British), "tuning": p.Tuning, store.ZoneSetting: p.Zone, "cue-1": p.Cues[0], "cue-2": p.Cues[1],
		"hands": yes(p.Hands), "spacing": yes(p.Spacing), "two": p.Two, "three": p.Three, "words": "",
	}
	if len(p.Words) > 0 {
		text, _ := json.Marshal(p.Words) // a map of strings is always written
		s["words"] = string(text)
	}
	for _, name := range StringNames {
		s["colour-"+name] = p.Colours[name]
	}
	return s
}

// Changed are the settings of p that differ from what is kept.
func (p Preferences) Changed(saved store.Settings) store.Settings {
	list := store.Settings{}
	for key, value := range p.Settings() {
		if saved[key] != value {
			list[key] = value
		}
	}
	return list
}

// Options turns preferences, and a class's own school, into core's options.
func (p Preferences) Options(class store.Class) breakdown.Options {
	school := class.School
	if school == "" {
		school = p.School
	}
	if school == "" {
		school = string(count.Numbers)
	}
	return breakdown.Options{
		Count: count.Options{
			School: count.School(school), SlowBeat: p.SlowBeat, Rests: count.Rests(p.Rests), Syncopa: p.Syncopa,
			Words: p.Words, Cues: p.Cues,
		},
		Name:    name.Options{System: name.System(p.Naming), Naturals: name.Naturals(p.Naturals)},
		British: p.British,
		ForPage: true,
	}
}

// UsualA is the reference pitch in hertz (ISO 16).
const UsualA = 440

// The A's that orchestras and bands tune to lie between these, in hertz, those for old
// music included (common practice).
const lowestA, highestA = 392, 466

// PitchOfA is the A that is tuned to, in hertz.
func (p Preferences) PitchOfA() int {
	hertz, err := strconv.Atoi(p.Tuning)
	if err != nil {
		return UsualA
	}
	return hertz
}

// FingerWords is how fingerings are said.
func (p Preferences) FingerWords() finger.Words {
	return finger.Words{Hands: p.Hands, Spacing: p.Spacing, Two: p.Two, Three: p.Three}
}

// Settings is all that a teacher has said of how they teach.
type Settings struct {
	Preferences Preferences
	Models      map[string]string // of instruments, by id
}

// LoadSettings reads it.
func LoadSettings(ctx context.Context, desk *Class) (Settings, error) {
	saved, err := desk.Settings(ctx)
	if err != nil {
		return Settings{}, err
	}
	kinds, err := desk.Models(ctx)
	return Settings{PreferencesOf(saved), kinds}, err
}

// Instrument is an instrument as the teacher's students have it.
func (t Settings) Instrument(i instrument.Instrument) instrument.Instrument {
	return i.OfModel(t.Models[i.ID])
}

// ValidSchool says whether there is a school of counting of a name; "" is the usual one.
func ValidSchool(school string) bool {
	if school == "" {
		return true
	}
	for _, known := range count.Schools() {
		if string(known) == school {
			return true
		}
	}
	return false
}

// Fit says which preference is none that there is, or too long.
func (p Preferences) Fit() error {
	long := func(text string, most int) bool { return utf8.RuneCountInString(text) > most }
	switch {
	case long(p.Cues[0], 12), long(p.Cues[1], 12):
		return fmt.Errorf("a cue word is longer than 12 letters")
	case long(p.Two, 20), long(p.Three, 20):
		return fmt.Errorf("a word for a cello pattern is longer than 20 letters")
	case !ValidSchool(p.School):
		return fmt.Errorf("choose a way of counting from the list")
	}
	if !ValidZone(p.Zone) {
		return fmt.Errorf("the time zone, %q, is none; write it as Europe/Berlin or America/Chicago", p.Zone)
	}
	if hertz, err := strconv.Atoi(p.Tuning); p.Tuning != "" && (err != nil || hertz < lowestA || hertz > highestA) {
		return fmt.Errorf("the A to tune to, %q, is no whole number of hertz from %d to %d", p.Tuning, lowestA, highestA)
	}
	for name, colour := range p.Colours {
		if !IsColour(colour) {
			return fmt.Errorf("the colour of the %s string, %q, is not one such as %s", name, colour, OwnColours[name])
		}
	}
	if len(p.Words) > 0 {
		if err := count.CheckWords(p.Words); err != nil {
			return err
		}
	}
	return p.fromLists()
}

// fromLists says which choice is none of those that its list offers.
func (p Preferences) fromLists() error {
	systems := []string{""}
	for _, system := range name.Systems() {
		systems = append(systems, string(system))
	}
	for _, choice := range []struct {
		what, chosen string
		of           []string
	}{
		{"how rests are counted", p.Rests, []string{"", string(count.AsWord), string(count.AtPlace)}},
		{"how notes are named", p.Naming, systems},
		{"when “natural” is said", p.Naturals, []string{"", string(name.AlwaysNatural), string(name.NeverNatural)}},
	} {
		if !slices.Contains(choice.of, choice.chosen) {
			return fmt.Errorf("choose %s from the list", choice.what)
		}
	}
	return nil
}
