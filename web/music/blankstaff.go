package music

import (
	"fmt"
	"html/template"
	"strings"

	"unhurriedbench/core/score"
	"unhurriedbench/teach"
)

const (
	blankSpace = 20 // between two lines, in pixels
	slotWide   = 84 // for each note
	signWide   = 18 // for each sign of the signature
	blankClef  = 78
)

// BlankStaff is a staff on which notes are drawn by the page's script.
type BlankStaff struct {
	Clef  score.Clef
	Key   score.Key
	Notes []teach.NoteToWrite
}

// BlankData is what the page's script needs of it. Lengths are pixels of the drawing.
type BlankData struct {
	Notes  []teach.NoteToWrite `json:"notes"`
	Places []string            `json:"places"` // what each is called, from the lowest
	Lowest int                 `json:"lowest"` // step of the first place from the bottom line
	Bottom float64             `json:"bottom"` // height of the bottom line
	Space  float64             `json:"space"`
	Slots  []float64           `json:"slots"` // the middle of each
	Glyphs map[string]string   `json:"glyphs"`
	Scale  float64             `json:"scale"` // of a glyph
}

func (s BlankStaff) y(step int) float64 {
	return blankSpace * (1 + float64(teach.HighestStaff-step)/2)
}

// slot is the middle of the k-th note.
func (s BlankStaff) slot(k int) float64 {
	return blankClef + float64(signWide*len(teach.Signature(s.Key, s.Clef))+slotWide*k) + slotWide/2
}

// Data is what the page's script needs.
func (s BlankStaff) Data() BlankData {
	d := BlankData{
		Notes: s.Notes, Places: teach.PlacesOfStaff(s.Clef), Lowest: teach.LowestStaff, Bottom: s.y(0), Space: blankSpace, Scale: blankSpace / float64(glyphUnits),
		Glyphs: map[string]string{"head": noteheadGlyph, "sharp": sharpGlyph, "flat": flatGlyph, "natural": naturalGlyph},
	}
	for k := range s.Notes {
		d.Slots = append(d.Slots, s.slot(k))
	}
	return d
}

// Draw draws the staff with its clef and signature, and the names that are asked for under it.
func (s BlankStaff) Draw() template.HTML {
	wide, tall := s.slot(len(s.Notes))-slotWide/2+8, s.y(teach.LowestStaff)+62
	var b strings.Builder
	fmt.Fprintf(&b, `<svg class="blank-staff" viewBox="0 0 %.0f %.0f" width="%.0f" height="%.0f" role="group" aria-label="A staff to write on">`, wide, tall, wide, tall)
	for line := range 5 {
		fmt.Fprintf(&b, `<path class="line" d="M0 %.1fH%.0f"/>`, s.y(2*line), wide)
	}
	b.WriteString(staffGlyph(clefGlyph(s.Clef), "clef", 12, s.y(2*(s.Clef.Line-1)), blankSpace))
	for k, at := range teach.Signature(s.Key, s.Clef) {
		path := sharpGlyph
		if s.Key.Fifths < 0 {
			path = flatGlyph
		}
		b.WriteString(staffGlyph(path, "clef", float64(blankClef-8+signWide*k), s.y(at), blankSpace))
	}
	for k, n := range s.Notes {
		x, under := s.slot(k), s.y(teach.LowestStaff)+34
		fmt.Fprintf(&b, `<g class="slot" data-slot="%d" tabindex="0" role="slider" aria-label="%s" aria-valuemin="0" aria-valuemax="%d" aria-valuenow="0" aria-valuetext="nothing yet"><rect class="field" x="%.1f" y="4" width="%d" height="%.1f" rx="8"/><g class="written"></g><text class="letter" x="%.1f" y="%.1f">%s</text></g>`,
			k, template.HTMLEscapeString("Write "+n.Name), teach.HighestStaff-teach.LowestStaff, x-slotWide/2+3, slotWide-6, under+14, x, under, template.HTMLEscapeString(n.Name))
	}
	b.WriteString(`</svg>`)
	return template.HTML(b.String())
}
