package web

import (
	"fmt"
	"net/http"
	"slices"
	"sort"
	"strconv"
	"strings"
	"unicode/utf8"

	"unhurriedbench/core/count"
	"unhurriedbench/core/name"
	"unhurriedbench/store"
)

// settingsView is the settings page, with what was typed when it was refused.
type settingsView struct {
	preferences
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
	kept, err := deskOf(r).Settings(r.Context())
	if err != nil {
		s.failed(w, r, err)
		return
	}
	s.showSettings(w, r, http.StatusOK, settingsView{preferences: preferencesOf(kept)})
}

func (s *Server) showSettings(w http.ResponseWriter, r *http.Request, status int, v settingsView) {
	var err error
	if v.Sections, err = deskOf(r).Sections(r.Context()); err != nil {
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
	ctx, desk := r.Context(), deskOf(r)
	wanted, err := readPreferences(r)
	if err != nil {
		s.showSettings(w, r, http.StatusUnprocessableEntity, settingsView{preferences: wanted, Problem: "Not saved: " + err.Error() + "."})
		return
	}
	kept, err := desk.Settings(ctx)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	changed := wanted.changed(kept)
	if err := desk.KeepSettings(ctx, changed); err != nil {
		s.failed(w, r, err)
		return
	}
	before, err := desk.Sections(ctx)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	after := slices.Clone(before)
	for k, section := range before {
		field := fmt.Sprintf("section-%d", section.ID)
		if school := text(r, field); r.Form.Has(field) && school != section.School && validSchool(school) {
			if err := desk.KeepSchool(ctx, section.ID, school); err != nil {
				s.failed(w, r, err)
				return
			}
			after[k].School = school
		}
	}
	s.flash(r, saidOf(wanted, changed, before, after))
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

// readPreferences reads the form; a word table that is our own is not kept.
func readPreferences(r *http.Request) (preferences, error) {
	kept := preferences{
		School: text(r, "school"), SlowBeat: text(r, "beat") == "slow", Rests: text(r, "rests"),
		Syncopa: text(r, "syncopa") == "yes", Naming: text(r, "naming"), Naturals: text(r, "naturals"), British: text(r, "values") == "british",
		Cues: [2]string{text(r, "cue-1"), text(r, "cue-2")}, Tuning: text(r, "tuning"),
	}
	if kept.Tuning == strconv.Itoa(usualA) {
		kept.Tuning = ""
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
		key, word := strings.TrimSpace(key), oneLine(r.Form["word"][i])
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
	}
	return kept, kept.fit()
}

// fit says which preference is none that there is, or too long.
func (p preferences) fit() error {
	long := func(text string, most int) bool { return utf8.RuneCountInString(text) > most }
	switch {
	case long(p.Cues[0], 12), long(p.Cues[1], 12):
		return fmt.Errorf("a cue word is longer than 12 letters")
	case long(p.Two, 20), long(p.Three, 20):
		return fmt.Errorf("a word for a cello pattern is longer than 20 letters")
	case !validSchool(p.School):
		return fmt.Errorf("choose a way of counting from the list")
	}
	if hertz, err := strconv.Atoi(p.Tuning); p.Tuning != "" && (err != nil || hertz < lowestA || hertz > highestA) {
		return fmt.Errorf("the A to tune to, %q, is no whole number of hertz from %d to %d", p.Tuning, lowestA, highestA)
	}
	for name, colour := range p.Colours {
		if !isColour(colour) {
			return fmt.Errorf("the colour of the %s string, %q, is not one such as %s", name, colour, ownColours[name])
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
func (p preferences) fromLists() error {
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

// readFingers reads how the teacher speaks of fingers; a colour that is our own is
// not kept.
func readFingers(r *http.Request, f *preferences) error {
	f.Hands, f.Spacing = text(r, "hands") == "yes", text(r, "strings") == "spacing"
	f.Two, f.Three = text(r, "two"), text(r, "three")
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

// Alike says which strings have colours that are hard to tell apart.
func (v settingsView) Alike() string {
	var pairs []string
	for _, pair := range v.alikeStrings() {
		pairs = append(pairs, pair[0]+" and "+pair[1])
	}
	if len(pairs) == 0 {
		return ""
	}
	return "The colours of " + strings.Join(pairs, ", of ") + " are hard to tell apart. Choose one that is lighter, darker or of another hue."
}

// StringColours lists the strings with the colours in force.
func (v settingsView) StringColours() []stringColour {
	var list []stringColour
	for _, name := range stringNames {
		c := v.colour(name)
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
	_, section, err := deskOf(r).ChooseSection(r.Context(), idOf[store.SectionID](r))
	if err == nil {
		err = deskOf(r).KeepSchool(r.Context(), section.ID, school)
	}
	if err != nil {
		s.failed(w, r, err)
		return
	}
	s.flash(r, fmt.Sprintf("%s counts in %s from now on, on every exercise.", section.Name, schoolTitle(school)))
	http.Redirect(w, r, backToBench(r, "/"), http.StatusSeeOther)
}

// backToBench is the Bench's address that a form on it was sent from.
func backToBench(r *http.Request, otherwise string) string {
	if back := text(r, "back"); strings.HasPrefix(back, "/bench/") {
		return back
	}
	return otherwise
}
