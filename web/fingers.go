package web

import (
	"encoding/hex"
	"math"

	"unhurriedbench/core/instrument"
)

// stringColour is one string with its colour and the ink that reads on it.
type stringColour struct {
	Name   string `json:"name"`
	MIDI   int    `json:"midi"` // of the open string, as written
	Colour string `json:"colour"`
	Ink    string `json:"ink"`
}

// ownColours are the strings' where the teacher has chosen none.
var ownColours = map[string]string{"C": "#5b5560", "G": "#2f6f62", "D": "#8a5210", "A": "#a03a3a", "E": "#3f4f9e"}

// stringNames lists the strings that settings give a colour to, lowest first.
var stringNames = []string{"C", "G", "D", "A", "E"}

func (p preferences) colour(name string) string {
	if c := p.Colours[name]; c != "" {
		return c
	}
	return ownColours[name]
}

// stringColours lists the strings of an instrument from the lowest; none for
// others.
func (p preferences) stringColours(i instrument.Instrument) []stringColour {
	var list []stringColour
	for _, open := range i.OpenStrings {
		c := p.colour(open.Step.String())
		list = append(list, stringColour{open.Step.String(), open.MIDI(), c, inkOn(c)})
	}
	return list
}

// inkOn is white or the page's ink, whichever reads better on a colour such as
// "#a03a3a". Source: the contrast ratio of WCAG 2.2.
func inkOn(colour string) string {
	const white, ink = "#ffffff", "#1d2733"
	l := luminance(colour)
	if (luminance(white)+0.05)/(l+0.05) >= (l+0.05)/(luminance(ink)+0.05) {
		return white
	}
	return ink
}

// luminance is the relative luminance of WCAG 2.2, 0 to 1; 0 for no colour.
func luminance(colour string) float64 {
	if !isColour(colour) {
		return 0
	}
	rgb, _ := hex.DecodeString(colour[1:])
	linear := func(v byte) float64 {
		c := float64(v) / 255
		if c <= 0.04045 {
			return c / 12.92
		}
		return math.Pow((c+0.055)/1.055, 2.4)
	}
	return 0.2126*linear(rgb[0]) + 0.7152*linear(rgb[1]) + 0.0722*linear(rgb[2])
}

// isColour says whether a text is a colour as browsers send it: "#a03a3a".
func isColour(text string) bool {
	if len(text) != 7 || text[0] != '#' {
		return false
	}
	_, err := hex.DecodeString(text[1:])
	return err == nil
}
