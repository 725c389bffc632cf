package settings

import (
	"cmp"
	"fmt"
	"net/http"
	"slices"
	"sort"
	"strconv"
	"strings"

	"unhurriedbench/core/count"
	"unhurriedbench/core/name"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// settingsView is the settings page, with what was typed when it was refused.
type settingsView struct {
	teach.Preferences
	Schools  []count.School
	Systems  []name.System
	Patterns []wordPattern
	Classes  []store.Class
	Problem  string
	Here     string // the time zone of the installation
}

// wordPattern is one row of the picture words.
type wordPattern struct {
	Key, Description, Word string
}

func (s *handlers) settings(w http.ResponseWriter, r *http.Request) error {
	saved, err := site.ClassOf(r).Settings(r.Context())
	if err != nil {
		return err
	}
	return s.showSettings(w, r, http.StatusOK, settingsView{Preferences: teach.PreferencesOf(saved)})
}

func (s *handlers) showSettings(w http.ResponseWriter, r *http.Request, status int, v settingsView) error {
	var err error
	if v.Classes, err = site.ClassOf(r).WholeClasses(r.Context()); err != nil {
		return err
	}
	if v.Here, err = s.Store.InstallationZone(r.Context()); err != nil {
		return err
	}
	v.Here = cmp.Or(v.Here, "the server’s")
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
	s.Page(w, r, status, "settings", "Settings", v)
	return nil
}

func (s *handlers) saveSettings(w http.ResponseWriter, r *http.Request) error {
	ctx, desk := r.Context(), site.ClassOf(r)
	desired, err := readPreferences(r)
	if err != nil {
		return s.showSettings(w, r, http.StatusUnprocessableEntity, settingsView{Preferences: desired,
			Problem: "Not saved: " + err.Error() + "."})
	}
	saved, err := desk.Settings(ctx)
	if err != nil {
		return err
	}
	changed := desired.Changed(saved)
	if err := desk.SaveSettings(ctx, changed); err != nil {
		return err
	}
	before, err := desk.WholeClasses(ctx)
	if err != nil {
		return err
	}
	after := slices.Clone(before)
	for k, class := range before {
		field := fmt.Sprintf("class-%d", class.ID)
		if school := site.Text(r, field); r.Form.Has(field) && school != class.School && teach.ValidSchool(school) {
			if err := desk.SaveSchool(ctx, class.ID, school); err != nil {
				return err
			}
			after[k].School = school
		}
	}
	s.Flash(r, saidOf(desired, changed, before, after))
	http.Redirect(w, r, "/settings", http.StatusSeeOther)
	return nil
}

// readPreferences reads the form; a word table that is our own is not kept.
func readPreferences(r *http.Request) (teach.Preferences, error) {
	saved := teach.Preferences{
		School: site.Text(r, "school"), SlowBeat: site.Text(r, "beat") == "slow", Rests: site.Text(r, "rests"),
		Syncopa: site.Text(r, "syncopa") == "yes", Naming: site.Text(r, "naming"), Naturals: site.Text(r, "naturals"),
		British: site.Text(r, "values") == "british",
		Cues:    [2]string{site.Text(r, "cue-1"), site.Text(r, "cue-2")}, Tuning: site.Text(r, "tuning"),
		Zone: strings.TrimSpace(site.Text(r, "zone")),
	}
	if saved.Tuning == strconv.Itoa(teach.UsualA) {
		saved.Tuning = ""
	}
	if err := readFingers(r, &saved); err != nil {
		return saved, err
	}
	own := count.WordTable{}
	standard := count.DefaultWords()
	changed := false
	for i, key := range r.Form["pattern"] {
		if i >= len(r.Form["word"]) {
			break
		}
		key, word := strings.TrimSpace(key), teach.OneLine(r.Form["word"][i])
		if key == "" && word == "" {
			continue
		}
		changed = changed || standard[key] != word
		if word != "" {
			own[key] = word
		}
	}
	if changed {
		saved.Words = own
	}
	return saved, saved.Fit()
}

// readFingers reads how the teacher speaks of fingers; a colour that is our own is
// not kept.
func readFingers(r *http.Request, f *teach.Preferences) error {
	f.Hands, f.Spacing = site.Text(r, "hands") == "yes", site.Text(r, "strings") == "spacing"
	f.Two, f.Three = site.Text(r, "two"), site.Text(r, "three")
	for _, name := range teach.StringNames {
		colour := strings.ToLower(site.Text(r, "colour-"+name))
		switch {
		case colour == "" || colour == teach.OwnColours[name]:
		case !teach.IsColour(colour):
			return fmt.Errorf("the colour of the %s string, %q, is not one such as %s", name, colour, teach.OwnColours[name])
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
	for _, pair := range v.AlikeStrings() {
		pairs = append(pairs, pair[0]+" and "+pair[1])
	}
	if len(pairs) == 0 {
		return ""
	}
	return "The colours of " + strings.Join(pairs, ", of ") +
		" are hard to tell apart. Choose one that is lighter, darker or of another hue."
}

// StringColours lists the strings with the colours in force.
func (v settingsView) StringColours() []teach.StringColour {
	var list []teach.StringColour
	for _, name := range teach.StringNames {
		c := v.Colour(name)
		list = append(list, teach.StringColour{Name: name, Colour: c, Ink: teach.InkOn(c)})
	}
	return list
}

// saveSchool is the switch on the Bench: it sets the class's way of counting.
func (s *handlers) saveSchool(w http.ResponseWriter, r *http.Request) error {
	school := site.Text(r, "school")
	if !teach.ValidSchool(school) {
		http.Error(w, "Choose a way of counting from the list.", http.StatusUnprocessableEntity)
		return nil
	}
	_, class, err := site.ClassOf(r).ChooseClass(r.Context(), site.ID[store.ClassID](r))
	if err == nil {
		err = site.ClassOf(r).SaveSchool(r.Context(), class.ID, school)
	}
	if err != nil {
		return err
	}
	s.Flash(r, fmt.Sprintf("%s counts in %s from now on, on every exercise.", class.Name, site.SchoolTitle(school)))
	http.Redirect(w, r, site.BackToBench(r, "/"), http.StatusSeeOther)
	return nil
}
