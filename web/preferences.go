package web

import (
	"context"
	"encoding/json"
	"strconv"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/count"
	"unhurriedbench/core/finger"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/name"
	"unhurriedbench/store"
	"unhurriedbench/teach"
)

// preferences is how a teacher counts, names, writes and speaks of fingers. Empty
// fields are the defaults of core.
type preferences struct {
	School   string
	SlowBeat bool
	Rests    string
	Words    count.WordTable // of their own, nil for ours
	Syncopa  bool
	Naming   string
	Naturals string
	British  bool
	Tuning   string // the A that is tuned to, in hertz
	Cues     [2]string
	Hands    bool              // L1 to R3 in place of 1 to 6
	Spacing  bool              // on strings, in place of low and high
	Two      string            // the cello's patterns
	Three    string            //
	Colours  map[string]string // of strings, by letter: "#2f6f62"
	Asked    string            // on reading cards: kinds with spaces between, "" for the usual ones
	NewCards string            // a day at most, "" for the usual number
}

// preferencesOf reads kept settings.
func preferencesOf(kept store.Settings) preferences {
	p := preferences{
		School: kept["school"], SlowBeat: kept["slow-beat"] == "yes", Rests: kept["rests"], Syncopa: kept["syncopa"] == "yes",
		Naming: kept["naming"], Naturals: kept["naturals"], British: kept["british"] == "yes", Tuning: kept["tuning"], Cues: [2]string{kept["cue-1"], kept["cue-2"]},
		Hands: kept["hands"] == "yes", Spacing: kept["spacing"] == "yes", Two: kept["two"], Three: kept["three"], Colours: map[string]string{},
		Asked: kept[askedSetting], NewCards: kept[newCardsSetting],
	}
	if text := kept["words"]; text != "" && json.Unmarshal([]byte(text), &p.Words) != nil {
		p.Words = nil // ours hold
	}
	for _, s := range stringNames {
		if c := kept["colour-"+s]; c != "" {
			p.Colours[s] = c
		}
	}
	return p
}

// settings writes them to be kept, "" for every default.
func (p preferences) settings() store.Settings {
	yes := func(on bool) string {
		if on {
			return "yes"
		}
		return ""
	}
	s := store.Settings{
		"school": p.School, "slow-beat": yes(p.SlowBeat), "rests": p.Rests, "syncopa": yes(p.Syncopa), "naming": p.Naming,
		"naturals": p.Naturals, "british": yes(p.British), "tuning": p.Tuning, "cue-1": p.Cues[0], "cue-2": p.Cues[1],
		"hands": yes(p.Hands), "spacing": yes(p.Spacing), "two": p.Two, "three": p.Three, "words": "",
	}
	if len(p.Words) > 0 {
		text, _ := json.Marshal(p.Words) // a map of strings is always written
		s["words"] = string(text)
	}
	for _, name := range stringNames {
		s["colour-"+name] = p.Colours[name]
	}
	return s
}

// changed are the settings of p that differ from what is kept.
func (p preferences) changed(kept store.Settings) store.Settings {
	list := store.Settings{}
	for key, value := range p.settings() {
		if kept[key] != value {
			list[key] = value
		}
	}
	return list
}

// options turns preferences, and a section's own school, into core's options.
func (p preferences) options(section store.Section) breakdown.Options {
	school := section.School
	if school == "" {
		school = p.School
	}
	if school == "" {
		school = string(count.Numbers)
	}
	return breakdown.Options{
		Count: count.Options{
			School: count.School(school), SlowBeat: p.SlowBeat, Rests: count.Rests(p.Rests), Syncopa: p.Syncopa, Words: p.Words, Cues: p.Cues,
		},
		Name:    name.Options{System: name.System(p.Naming), Naturals: name.Naturals(p.Naturals)},
		British: p.British,
		ForPage: true,
	}
}

// usualA is the reference pitch in hertz (ISO 16).
const usualA = 440

// The A's that orchestras and bands tune to lie between these, in hertz, those for old
// music included (common practice).
const lowestA, highestA = 392, 466

// pitchOfA is the A that is tuned to, in hertz.
func (p preferences) pitchOfA() int {
	hertz, err := strconv.Atoi(p.Tuning)
	if err != nil {
		return usualA
	}
	return hertz
}

func (p preferences) words() finger.Words {
	return finger.Words{Hands: p.Hands, Spacing: p.Spacing, Two: p.Two, Three: p.Three}
}

// taughtBy is all that a teacher has said of how they teach.
type taughtBy struct {
	Preferences preferences
	kinds       map[string]string // of instruments, by id
}

// taught reads it.
func taught(ctx context.Context, desk *teach.Class) (taughtBy, error) {
	kept, err := desk.Settings(ctx)
	if err != nil {
		return taughtBy{}, err
	}
	kinds, err := desk.Kinds(ctx)
	return taughtBy{preferencesOf(kept), kinds}, err
}

// instrument is an instrument as the teacher's students have it.
func (t taughtBy) instrument(i instrument.Instrument) instrument.Instrument {
	return i.OfKind(t.kinds[i.ID])
}
