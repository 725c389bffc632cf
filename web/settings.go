package web

import (
	"fmt"
	"net/http"
	"sort"
	"strings"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/count"
	"unhurriedbench/core/name"
	"unhurriedbench/store"
)

// settingsView is the settings page, with what was typed when it was refused.
type settingsView struct {
	store.Settings
	Schools  []count.School
	Systems  []name.System
	Patterns []wordPattern
	Sections []store.Section
	Problem  string
}

// wordPattern is one row of the picture words.
type wordPattern struct {
	Key, Description, Word string
}

func (s *Server) settings(w http.ResponseWriter, r *http.Request) {
	kept, err := s.store.Settings(r.Context(), teacher(r).ID)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	s.showSettings(w, r, http.StatusOK, settingsView{Settings: kept})
}

func (s *Server) showSettings(w http.ResponseWriter, r *http.Request, status int, v settingsView) {
	var err error
	if v.Sections, err = s.store.Sections(r.Context(), teacher(r).ID); err != nil {
		s.failed(w, r, err)
		return
	}
	v.Schools, v.Systems = count.Schools(), name.Systems()
	table := v.Words
	if len(table) == 0 {
		table = count.DefaultWords()
	}
	for key, word := range table {
		v.Patterns = append(v.Patterns, wordPattern{key, count.Pattern(key), word})
	}
	sort.Slice(v.Patterns, func(i, j int) bool {
		a, b := v.Patterns[i].Key, v.Patterns[j].Key
		if len(a) != len(b) {
			return len(a) < len(b)
		}
		return a > b
	})
	s.page(w, r, status, "settings", "Settings", v)
}

func (s *Server) keepSettings(w http.ResponseWriter, r *http.Request) {
	if err := r.ParseForm(); err != nil {
		s.failed(w, r, err)
		return
	}
	before, err := s.store.Settings(r.Context(), teacher(r).ID)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	kept, err := readSettings(r)
	kept.Preferred = before.Preferred // these are kept on the fingering charts
	kept.Fingers.FourValves, kept.Fingers.Sticking, kept.Fingers.Kinds = before.Fingers.FourValves, before.Fingers.Sticking, before.Fingers.Kinds
	if err != nil {
		s.showSettings(w, r, http.StatusUnprocessableEntity, settingsView{Settings: kept, Problem: "Not saved: " + err.Error() + "."})
		return
	}
	if err := s.store.KeepSettings(r.Context(), teacher(r).ID, kept); err != nil {
		s.failed(w, r, err)
		return
	}
	sections, err := s.store.Sections(r.Context(), teacher(r).ID)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	for _, section := range sections {
		field := fmt.Sprintf("section-%d", section.ID)
		if school := text(r, field); r.Form.Has(field) && school != section.School && validSchool(school) {
			if err := s.store.KeepSchool(r.Context(), teacher(r).ID, section.ID, school); err != nil {
				s.failed(w, r, err)
				return
			}
		}
	}
	s.flash(r, "Settings are saved. Every exercise is counted and named this way from now on.")
	http.Redirect(w, r, "/settings", http.StatusSeeOther)
}

func validSchool(school string) bool {
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

// readSettings reads the form; a word table that is our own is not kept.
func readSettings(r *http.Request) (store.Settings, error) {
	kept := store.Settings{
		School: text(r, "school"), SlowBeat: text(r, "beat") == "slow", Rests: text(r, "rests"),
		Syncopa: text(r, "syncopa") == "yes", Naming: text(r, "naming"), Naturals: text(r, "naturals"), British: text(r, "values") == "british",
		Cues: [2]string{text(r, "cue-1"), text(r, "cue-2")},
	}
	if len([]rune(kept.Cues[0])) > 12 || len([]rune(kept.Cues[1])) > 12 {
		return kept, fmt.Errorf("a cue word is longer than 12 letters")
	}
	if !validSchool(kept.School) {
		return kept, fmt.Errorf("choose a way of counting from the list")
	}
	if err := readFingers(r, &kept); err != nil {
		return kept, err
	}
	own := count.WordTable{}
	standard := count.DefaultWords()
	changed := false
	for i, key := range r.Form["pattern"] {
		if i >= len(r.Form["word"]) {
			break
		}
		key, word := strings.TrimSpace(key), strings.Join(strings.Fields(r.Form["word"][i]), " ")
		if key == "" && word == "" {
			continue
		}
		changed = changed || standard[key] != word
		if word != "" {
			own[key] = word
		}
	}
	if changed {
		kept.Words = own
		if err := count.CheckWords(own); err != nil {
			return kept, err
		}
	}
	return kept, nil
}

// readFingers reads how the teacher speaks of fingers; a colour that is our own is
// not kept.
func readFingers(r *http.Request, kept *store.Settings) error {
	f := &kept.Fingers
	f.Hands, f.Spacing = text(r, "hands") == "yes", text(r, "strings") == "spacing"
	f.Two, f.Three = text(r, "two"), text(r, "three")
	if len([]rune(f.Two)) > 20 || len([]rune(f.Three)) > 20 {
		return fmt.Errorf("a word for a cello pattern is longer than 20 letters")
	}
	for _, name := range stringNames {
		colour := strings.ToLower(text(r, "colour-"+name))
		switch {
		case colour == "" || colour == ownColours[name]:
		case !isColour(colour):
			return fmt.Errorf("the colour of the %s string, %q, is not one such as %s", name, colour, ownColours[name])
		default:
			if f.Colours == nil {
				f.Colours = map[string]string{}
			}
			f.Colours[name] = colour
		}
	}
	return nil
}

// StringColours lists the strings with the colours in force.
func (v settingsView) StringColours() []stringColour {
	var list []stringColour
	for _, name := range stringNames {
		c := colourOf(v.Settings, name)
		list = append(list, stringColour{Name: name, Colour: c, Ink: inkOn(c)})
	}
	return list
}

// keepSchool is the switch on the Bench: it sets the section's way of counting.
func (s *Server) keepSchool(w http.ResponseWriter, r *http.Request) {
	school := text(r, "school")
	if !validSchool(school) {
		http.Error(w, "Choose a way of counting from the list.", http.StatusUnprocessableEntity)
		return
	}
	if err := s.store.KeepSchool(r.Context(), teacher(r).ID, idOf(r, "id"), school); err != nil {
		s.failed(w, r, err)
		return
	}
	back := text(r, "back")
	if !strings.HasPrefix(back, "/bench/") {
		back = "/"
	}
	http.Redirect(w, r, back, http.StatusSeeOther)
}

// optionsOf turns settings, and a section's own school, into core's options.
func optionsOf(kept store.Settings, section store.Section) breakdown.Options {
	school := section.School
	if school == "" {
		school = kept.School
	}
	if school == "" {
		school = string(count.Numbers)
	}
	return breakdown.Options{
		Count:   count.Options{School: count.School(school), SlowBeat: kept.SlowBeat, Rests: count.Rests(kept.Rests), Syncopa: kept.Syncopa, Words: kept.Words, Cues: kept.Cues},
		Name:    name.Options{System: name.System(kept.Naming), Naturals: name.Naturals(kept.Naturals)},
		British: kept.British,
		ForPage: true,
	}
}
