package teach

import (
	"encoding/hex"
	"math"

	"unhurriedbench/core/instrument"
)

// StringColour is one string with its colour and the ink that reads on it.
type StringColour struct {
	Name   string `json:"name"`
	MIDI   int    `json:"midi"` // of the open string, as written
	Colour string `json:"colour"`
	Ink    string `json:"ink"`
}

// OwnColours are the strings' where the teacher has chosen none.
var OwnColours = map[string]string{"C": "#5b5560", "G": "#2f6f62", "D": "#8a5210", "A": "#a03a3a", "E": "#3f4f9e"}

// StringNames lists the strings that settings give a colour to, lowest first.
var StringNames = []string{"C", "G", "D", "A", "E"}

// Colour is the colour of a string, by its letter.
func (p Preferences) Colour(name string) string {
	if c := p.Colours[name]; c != "" {
		return c
	}
	return OwnColours[name]
}

// StringColours lists the strings of an instrument from the lowest; none for
// others.
func (p Preferences) StringColours(i instrument.Instrument) []StringColour {
	var list []StringColour
	for _, open := range i.OpenStrings {
		c := p.Colour(open.Step.String())
		list = append(list, StringColour{open.Step.String(), open.MIDI(), c, InkOn(c)})
	}
	return list
}

// InkOn is white or the page's ink, whichever reads better on a colour such as
// "#a03a3a". Source: the contrast ratio of WCAG 2.2.
func InkOn(colour string) string {
	const white, ink = "#ffffff", "#1d2733"
	l := Luminance(colour)
	if (Luminance(white)+0.05)/(l+0.05) >= (l+0.05)/(Luminance(ink)+0.05) {
		return white
	}
	return ink
}

// Luminance is the relative luminance of WCAG 2.2, 0 to 1; 0 for no colour.
func Luminance(colour string) float64 {
	c := linearRGB(colour)
	return 0.2126*c[0] + 0.7152*c[1] + 0.0722*c[2]
}

// linearRGB is the light of a colour's red, green and blue, 0 to 1; black for no colour.
func linearRGB(colour string) (light [3]float64) {
	if !IsColour(colour) {
		return light
	}
	rgb, _ := hex.DecodeString(colour[1:])
	for k, v := range rgb {
		if c := float64(v) / 255; c <= 0.04045 {
			light[k] = c / 12.92
		} else {
			light[k] = math.Pow((c+0.055)/1.055, 2.4)
		}
	}
	return light
}

// leastApart is the distance in CIELAB under which two colours of a few pixels' width
// are taken for one another. Ten times what is just seen side by side; our own figure.
const leastApart = 23

// AlikeStrings lists the pairs of strings of one instrument whose colours are hard to
// tell apart. No instrument has both a C and an E string.
func (p Preferences) AlikeStrings() [][2]string {
	var pairs [][2]string
	for k, a := range StringNames {
		for _, b := range StringNames[k+1:] {
			if a == "C" && b == "E" {
				continue
			}
			if coloursApart(p.Colour(a), p.Colour(b)) < leastApart {
				pairs = append(pairs, [2]string{a, b})
			}
		}
	}
	return pairs
}

// coloursApart is the distance of two colours in CIELAB. Source: CIE 1976, white D65.
func coloursApart(a, b string) float64 {
	x, y := lab(a), lab(b)
	return math.Sqrt((x[0]-y[0])*(x[0]-y[0]) + (x[1]-y[1])*(x[1]-y[1]) + (x[2]-y[2])*(x[2]-y[2]))
}

// lab is a colour in CIELAB.
func lab(colour string) [3]float64 {
	c := linearRGB(colour)
	f := func(t float64) float64 {
		if t > 216.0/24389 {
			return math.Cbrt(t)
		}
		return (24389.0/27*t + 16) / 116
	}
	x := f((0.4124*c[0] + 0.3576*c[1] + 0.1805*c[2]) / 0.9505)
	y := f(Luminance(colour))
	z := f((0.0193*c[0] + 0.1192*c[1] + 0.9505*c[2]) / 1.089)
	return [3]float64{116*y - 16, 500 * (x - y), 200 * (y - z)}
}

// IsColour says whether a text is a colour as browsers send it: "#a03a3a".
func IsColour(text string) bool {
	if len(text) != 7 || text[0] != '#' {
		return false
	}
	_, err := hex.DecodeString(text[1:])
	return err == nil
}
