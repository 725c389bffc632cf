package music

import (
	"fmt"
	"html/template"
	"strings"

	"unhurriedbench/core/progress"
	"unhurriedbench/teach"
)

const (
	staffSpace = 11 // between two lines, in pixels
	noteWide   = 66 // from note to note
	clefWide   = 44
)

// holdClass is the stage whose colour and shape a hold has.
func holdClass(h progress.Hold) string {
	return map[progress.Hold]string{
		progress.HeldNamed: "name", progress.HeldFingered: "finger", progress.HeldPlayed: "play",
		progress.HeldOwned: "play owned",
	}[h]
}

// DrawStaffRow draws a row.
func DrawStaffRow(r teach.StaffRow) template.HTML {
	bottom := r.Clef.BottomLine().Diatonic()
	lowest, highest := 0, 8 // in steps from the bottom line
	for _, n := range r.Notes {
		step := n.Pitch.Diatonic() - bottom
		lowest, highest = min(lowest, step), max(highest, step)
	}
	top := 16 + float64(max(highest-8, 2))*staffSpace/2
	y := func(step int) float64 { return top + float64(8-step)*staffSpace/2 }
	under := y(min(lowest, -2)) + 26
	wide, tall := clefWide+noteWide*len(r.Notes)+8, under+52
	var b strings.Builder
	fmt.Fprintf(&b, `<svg class="note-staff" viewBox="0 0 %d %.0f" width="%d" height="%.0f" role="img" aria-label="%s">`, wide, tall, wide, tall, template.HTMLEscapeString(r.Words()))
	for line := range 5 {
		fmt.Fprintf(&b, `<path class="line" d="M0 %.1fH%d"/>`, y(2*line), wide)
	}
	glyph := func(path, class string, x, at float64) {
		b.WriteString(staffGlyph(path, class, x, at, staffSpace))
	}
	glyph(clefGlyph(r.Clef), "clef", 8, y(2*(r.Clef.Line-1)))
	for k, n := range r.Notes {
		x, step := float64(clefWide+noteWide*k+noteWide/2), n.Pitch.Diatonic()-bottom
		for ledger := -2; ledger >= step; ledger -= 2 {
			fmt.Fprintf(&b, `<path class="line" d="M%.1f %.1fh22"/>`, x-11, y(ledger))
		}
		for ledger := 10; ledger <= step; ledger += 2 {
			fmt.Fprintf(&b, `<path class="line" d="M%.1f %.1fh22"/>`, x-11, y(ledger))
		}
		class := "note " + holdClass(n.Hold)
		fmt.Fprintf(&b, `<g class="%s">`, class)
		for a := range max(n.Pitch.Alter, -n.Pitch.Alter) {
			path := sharpGlyph
			if n.Pitch.Alter < 0 {
				path = flatGlyph
			}
			glyph(path, "sign-of", x-20-float64(a)*10, y(step))
		}
		glyph(noteheadGlyph, "head", x-7, y(step))
		fmt.Fprintf(&b, `<text class="letter" x="%.1f" y="%.1f">%s</text>`, x, under, template.HTMLEscapeString(n.Name))
		b.WriteString(holdSign(n.Hold, x, under+12))
		fmt.Fprintf(&b, `<text class="hold" x="%.1f" y="%.1f">%s</text>`, x, under+36, n.Hold)
		if n.Doubt != "" {
			fmt.Fprintf(&b, `<g class="doubt"><title>%s</title><path d="M%.1f %.1fl7 12h-14z"/><text x="%.1f" y="%.1f">?</text></g>`, template.HTMLEscapeString(n.Doubt), x+17, under-16, x+17, under-5)
		}
		b.WriteString(`</g>`)
	}
	b.WriteString(`</svg>`)
	return template.HTML(b.String())
}

// holdSign draws the shape of a hold about a point: those of the stages, and a ring for a note
// that is only met.
func holdSign(h progress.Hold, x, y float64) string {
	switch h {
	case progress.HeldNamed:
		return fmt.Sprintf(`<rect class="shape" x="%.1f" y="%.1f" width="12" height="7" rx="2"/>`, x-6, y-3)
	case progress.HeldFingered:
		return fmt.Sprintf(`<path class="shape" d="M%.1f %.1fl6 6l-6 6l-6 -6z"/>`, x, y-5.5)
	case progress.HeldPlayed, progress.HeldOwned:
		return fmt.Sprintf(`<path class="shape" d="M%.1f %.1fv-6l5.5 -4l5.5 4v6z"/>`, x-5.5, y+6)
	}
	return fmt.Sprintf(`<circle class="shape" cx="%.1f" cy="%.1f" r="4"/>`, x, y)
}
