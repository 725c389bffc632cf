package web

import (
	"net/http"

	"unhurriedbench/core/finger"
	"unhurriedbench/core/instrument"
	"unhurriedbench/store"
)

// kindChoice is what a teacher may say of an instrument, or of how it is taught, on
// its chart. It is empty where there is nothing to choose.
type kindChoice struct {
	Label   string
	Options []kindOption
}

type kindOption struct {
	Value, Words string
	Chosen       bool
}

// kindsOf lists what there is to choose; the first is what holds where nothing was
// chosen.
func kindsOf(i instrument.Instrument, kept store.Settings) kindChoice {
	var c kindChoice
	chosen := kept.Fingers.Kinds[i.ID]
	switch {
	case i.MayHaveFourth():
		c = kindChoice{"Our instruments have", []kindOption{{Value: "", Words: "three valves"}, {Value: "4", Words: "four valves"}}}
		if kept.Fingers.FourValves[i.ID] {
			chosen = "4"
		}
	case i.Forks:
		c = kindChoice{"Our oboes have", []kindOption{
			{Value: "", Words: "an F resonance key: forked F is 1 2 3, 4 6"},
			{Value: "no-resonance", Words: "no F resonance key: forked F takes the E flat key"},
			{Value: "left-f", Words: "a left F key, taken beside D and E flat"},
		}}
	case i.OpenOrFour:
		c = kindChoice{"Coming down to the next string", []kindOption{{Value: "", Words: "open string"}, {Value: "four-down", Words: "fourth finger"}}}
	case i.MayPivot:
		c = kindChoice{"A half step on", []kindOption{{Value: "", Words: "the hand shifts, the thumb with it"}, {Value: "pivot", Words: "the thumb stays, the hand pivots"}}}
	case i.Mechanism == instrument.Drums:
		c = kindChoice{"Our school has", []kindOption{
			{Value: "", Words: "four drums: 32, 29, 26 and 23 inches"}, {Value: "3", Words: "three drums: 32, 29 and 26"}, {Value: "2", Words: "two drums: 29 and 26"},
		}}
	case i.TwoHands:
		c = kindChoice{"Where no sticking is written", []kindOption{
			{Value: "", Words: "by turns, from year two the right leads"},
			{Value: string(finger.Alternating), Words: "by turns, across rests too"},
			{Value: string(finger.EachMeasure), Words: "by turns, from the right in every measure"},
			{Value: string(finger.RightLead), Words: "the right hand leads"},
		}}
		chosen = kept.Fingers.Sticking[i.ID]
	}
	for k := range c.Options {
		c.Options[k].Chosen = c.Options[k].Value == chosen
	}
	return c
}

// keepKind keeps what the teacher says of an instrument; a value that is not offered
// changes nothing.
func (s *Server) keepKind(w http.ResponseWriter, r *http.Request) {
	wanted := text(r, "kind")
	s.changeTaught(w, r, "", func(kept *store.Settings, target instrument.Instrument) {
		offered := false
		for _, o := range kindsOf(target, *kept).Options {
			offered = offered || o.Value == wanted
		}
		f := &kept.Fingers
		switch {
		case !offered:
		case target.MayHaveFourth():
			keepIn(&f.FourValves, target.ID, wanted == "4")
		case target.TwoHands:
			keepIn(&f.Sticking, target.ID, wanted)
		default:
			keepIn(&f.Kinds, target.ID, wanted)
		}
	})
}

// keepIn sets a key of a map that may not be there yet.
func keepIn[K comparable, V any](m *map[K]V, key K, value V) {
	if *m == nil {
		*m = map[K]V{}
	}
	(*m)[key] = value
}
