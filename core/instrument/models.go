package instrument

import "slices"

// Model is what a teacher may say of an instrument they have, or of how they teach it.
type Model struct {
	ID    string // "" is the usual one
	Words string
	make  func(Instrument) Instrument
}

// Models is what there is to say of an instrument, the usual first; it is empty where
// there is nothing to choose.
type Models struct {
	Label string
	List  []Model
}

// OfModel is the instrument as a teacher has it; a kind it does not come in changes
// nothing.
func (i Instrument) OfModel(id string) Instrument {
	for _, k := range i.Models.List {
		if k.ID == id && k.make != nil {
			return k.make(i)
		}
	}
	return i
}

// Comes says whether there is a kind of that id.
func (k Models) Comes(id string) bool {
	return slices.ContainsFunc(k.List, func(k Model) bool { return k.ID == id })
}

// with is a kind that differs in a trait.
func with(set func(*Instrument)) func(Instrument) Instrument {
	return func(i Instrument) Instrument {
		set(&i)
		return i
	}
}

// valveModels are for brass that is also made with a fourth valve, which takes it a
// major third lower.
var valveModels = Models{"Our instruments have", []Model{
	{ID: "", Words: "three valves"},
	{"4", "four valves", with(func(i *Instrument) {
		i.Valves = 4
		i.Lowest = i.Lowest.Transpose(fourthValve)
	})},
}}

var oboeModels = Models{"Our oboes have", []Model{
	{ID: "", Words: "an F resonance key: forked F is 1 2 3, 4 6"},
	{"no-resonance", "no F resonance key: forked F takes the E flat key",
		with(func(i *Instrument) { i.NoResonance = true })},
	{"left-f", "a left F key, taken beside D and E flat", with(func(i *Instrument) { i.LeftF = true })},
}}

var clarinetModels = Models{"Throat notes beside the break", []Model{
	{ID: "", Words: "right hand up"},
	{"right-down", "right hand down, ready for the break", with(func(i *Instrument) { i.RightDown = true })},
}}

var openModels = Models{"Coming down to the next string", []Model{
	{ID: "", Words: "open string"},
	{"four-down", "fourth finger", with(func(i *Instrument) { i.FourDown = true })},
}}

var bassModels = Models{"A half step on", []Model{
	{ID: "", Words: "the hand shifts, the thumb with it"},
	{"pivot", "the thumb stays, the hand pivots", with(func(i *Instrument) { i.Pivots = true })},
}}

// drumModels are the drums a school owns: the 29 and 26 inch, then the 32, then the
// 23. Source: common practice.
var drumModels = Models{"Our school has", []Model{
	{ID: "", Words: "four drums: 32, 29, 26 and 23 inches"},
	{"3", "three drums: 32, 29 and 26", owning(32, 29, 26)},
	{"2", "two drums: 29 and 26", owning(29, 26)},
}}

// owning leaves the drums of some sizes.
func owning(inches ...int) func(Instrument) Instrument {
	return func(i Instrument) Instrument {
		all := i.Drums
		i.Drums = nil
		for _, d := range all {
			if slices.Contains(inches, d.Inches) {
				i.Drums = append(i.Drums, d)
			}
		}
		i.Lowest, i.Highest = i.Drums[0].Low, i.Drums[len(i.Drums)-1].High
		return i
	}
}

// Sticking is how the hands share strokes that have no written sticking.
type Sticking string

// The ways. Source: common practice.
const (
	StickingByYear Sticking = ""            // alternating in the first year, the right hand leading later
	Alternating    Sticking = "alternating" // every stroke changes hand, across rests too
	EachMeasure    Sticking = "measures"    // alternating, from the right hand in every measure
	RightLead      Sticking = "lead"        // the right hand on the strong places
)

var stickingModels = Models{"Where no sticking is written", []Model{
	{ID: "", Words: "by turns, from year two the right leads"},
	{string(Alternating), "by turns, across rests too", sticking(Alternating)},
	{string(EachMeasure), "by turns, from the right in every measure", sticking(EachMeasure)},
	{string(RightLead), "the right hand leads", sticking(RightLead)},
}}

func sticking(s Sticking) func(Instrument) Instrument {
	return with(func(i *Instrument) { i.Sticking = s })
}
