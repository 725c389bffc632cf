package bench

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"strings"
	"unicode/utf8"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// printed is what a lane of a printed sheet holds.
type printed string

// What there is.
const (
	filled printed = "filled"
	empty  printed = "empty" // lines to write on
	absent printed = "none"
)

// sheetRecipe is what a teacher wants on the sheets, under a name.
type sheetRecipe struct {
	id      string
	Name    string                    `json:"name"`
	Count   printed                   `json:"count"`
	Names   printed                   `json:"names"`
	Fingers printed                   `json:"fingers"`
	Beside  breakdown.PracticeVersion `json:"beside,omitempty"`  // a line under the exercise
	Boxes   bool                      `json:"boxes,omitempty"`   // four stages of each chunk, and tempos, to be ticked
	Answers bool                      `json:"answers,omitempty"` // filled sheets after the empty ones
	Cards   bool                      `json:"cards,omitempty"`   // cards of the notes in place of the music
}

// key is the name of one of the teacher's recipes in an address.
func (r sheetRecipe) key() string { return "own:" + r.Name }

// setRecipe is the name of a recipe that the address spells out.
const setRecipe = "set"

// recipes are the common ones, the first where nothing is asked for.
var recipes = []sheetRecipe{
	{id: "practice", Name: "To practise from", Count: filled, Names: filled, Fingers: filled, Boxes: true},
	{id: "counting", Name: "To be counted", Count: empty, Names: absent, Fingers: absent, Answers: true},
	{id: "naming", Name: "To be named", Count: filled, Names: empty, Fingers: absent, Answers: true},
	{id: "all", Name: "To be counted and named", Count: empty, Names: empty, Fingers: absent, Answers: true},
	{id: "plain", Name: "The music alone", Count: absent, Names: absent, Fingers: absent},
	{id: "cards", Name: "Cards of its notes", Count: absent, Names: absent, Fingers: absent, Cards: true},
}

// besideVersions are the lines that a sheet has room for under the exercise.
var besideVersions = []breakdown.PracticeVersion{breakdown.OneNote, breakdown.EvenWalk}

// mostRecipes and mostRecipeName bound what is kept; the figures are ours.
const (
	mostRecipes    = 20
	mostRecipeName = 40
)

// recipesSetting is the key of the teacher's recipes among their settings.
const recipesSetting = "recipes"

// ownRecipes reads the teacher's recipes.
func ownRecipes(ctx context.Context, desk *teach.Class) ([]sheetRecipe, error) {
	saved, err := desk.Settings(ctx)
	if err != nil {
		return nil, err
	}
	var list []sheetRecipe
	if text := saved[recipesSetting]; text != "" && json.Unmarshal([]byte(text), &list) != nil {
		return nil, nil // ours hold
	}
	for k := range list {
		list[k] = list[k].fit()
	}
	return list, nil
}

// chosenRecipe is the recipe that an address asks for, with its name there.
func chosenRecipe(r *http.Request, own []sheetRecipe) (string, sheetRecipe) {
	requested := site.Text(r, "recipe")
	if requested == setRecipe {
		return setRecipe, recipeIn(r)
	}
	for _, known := range recipes {
		if known.id == requested {
			return known.id, known
		}
	}
	for _, known := range own {
		if known.key() == requested {
			return requested, known
		}
	}
	return recipes[0].id, recipes[0]
}

// recipeIn is the recipe that a form spells out.
func recipeIn(r *http.Request) sheetRecipe {
	return sheetRecipe{
		Name:  teach.OneLine(site.Text(r, "name")),
		Count: printed(site.Text(r, "count")), Names: printed(site.Text(r, "names")),
		Fingers: printed(site.Text(r, "fingers")),
		Beside:  breakdown.PracticeVersion(site.Text(r, "beside")), Boxes: site.Text(r, "boxes") == "yes",
		Answers: site.Text(r, "answers") == "yes",
	}.fit()
}

// fit has nothing in a recipe but what there is; fingerings are not written by hand.
func (r sheetRecipe) fit() sheetRecipe {
	for _, lane := range []*printed{&r.Count, &r.Names, &r.Fingers} {
		if *lane != filled && *lane != empty {
			*lane = absent
		}
	}
	if r.Fingers == empty {
		r.Fingers = absent
	}
	if !slices.Contains(besideVersions, r.Beside) {
		r.Beside = ""
	}
	r.Answers = r.Answers && (r.Count == empty || r.Names == empty)
	return r
}

// saveRecipe keeps a recipe under a name, in place of one of that name, or forgets one.
func (s *handlers) saveRecipe(w http.ResponseWriter, r *http.Request) error {
	list, err := ownRecipes(r.Context(), site.ClassOf(r))
	if err != nil {
		return err
	}
	desired, forget := recipeIn(r), site.Text(r, "forget") == "yes"
	list = slices.DeleteFunc(list, func(known sheetRecipe) bool { return known.Name == desired.Name })
	switch {
	case forget:
	case desired.Name == "" || utf8.RuneCountInString(desired.Name) > mostRecipeName:
		s.Flash(r, fmt.Sprintf("Not saved: give the preset a name of at most %d letters.", mostRecipeName))
		http.Redirect(w, r, desired.spelledOut(site.Text(r, "back")), http.StatusSeeOther)
		return nil
	case len(list) >= mostRecipes:
		s.Flash(r, fmt.Sprintf("Not saved: there are %d presets already. Delete one first.", mostRecipes))
		http.Redirect(w, r, desired.spelledOut(site.Text(r, "back")), http.StatusSeeOther)
		return nil
	default:
		list = append(list, desired)
	}
	saved := ""
	if len(list) > 0 {
		text, err := json.Marshal(list)
		if err != nil {
			return fmt.Errorf("write the recipes: %w", err)
		}
		saved = string(text)
	}
	if err := site.ClassOf(r).SaveSettings(r.Context(), store.Settings{recipesSetting: saved}); err != nil {
		return err
	}
	if forget {
		s.Flash(r, "The preset "+desired.Name+" is deleted.")
		http.Redirect(w, r, desired.spelledOut(site.Text(r, "back")), http.StatusSeeOther)
		return nil
	}
	s.Flash(r, "The preset "+desired.Name+" is saved, for every exercise.")
	http.Redirect(w, r, sheetsAddress(site.Text(r, "back"), url.Values{"recipe": {desired.key()}}), http.StatusSeeOther)
	return nil
}

// spelledOut is an address of sheets with what stands in a recipe.
func (r sheetRecipe) spelledOut(back string) string {
	return sheetsAddress(back, url.Values{
		"recipe": {setRecipe}, "name": {r.Name}, "count": {string(r.Count)}, "names": {string(r.Names)},
		"fingers": {string(r.Fingers)},
		"beside":  {string(r.Beside)}, "boxes": {teach.Either(r.Boxes, "yes", "")},
		"answers": {teach.Either(r.Answers, "yes", "")},
	})
}

// sheetsAddress is an address of sheets with some of it changed; the Shelf for one that is
// none.
func sheetsAddress(back string, changed url.Values) string {
	to, err := url.Parse(back)
	if err != nil || to.Host != "" || !strings.HasPrefix(to.Path, "/bench/") {
		return "/"
	}
	q := to.Query()
	for key, value := range changed {
		q[key] = value
	}
	to.RawQuery = q.Encode()
	return to.String()
}
