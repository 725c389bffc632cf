package main

import (
	"fmt"
	"io"
	"strings"

	"github.com/spf13/cobra"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

func instrumentsCommand() *cobra.Command {
	return &cobra.Command{
		Use:   "instruments",
		Short: "Print the catalogue of instruments, as in docs/instruments.md",
		Args:  cobra.NoArgs,
		RunE:  func(c *cobra.Command, _ []string) error { return printCatalogue(c.OutOrStdout()) },
	}
}

const catalogueHead = `# Instruments

Every instrument there is, by the id that addresses, files and the command line use. Ranges and starts are common practice; pitches are as written, C4 being middle C. This page is the output of
` + "`unhurried instruments`; a test holds it to the catalogue. How each note is fingered: [fingerings.md](fingerings.md)." + `
`

// printCatalogue writes a heading and a list for each instrument.
func printCatalogue(w io.Writer) error {
	var b strings.Builder
	b.WriteString(catalogueHead)
	for _, i := range instrument.All() {
		fmt.Fprintf(&b, "\n## %s\n\n%s, %s. ", i.ID, i.Title(), i.Family)
		clefs := []string{i.Clef.Name()}
		for _, c := range i.OtherClefs {
			clefs = append(clefs, c.Name())
		}
		fmt.Fprintf(&b, "Clef: %s. ", strings.Join(clefs, ", later "))
		if i.Unpitched() {
			fmt.Fprintf(&b, "Strokes without pitch, on the drum channel in MIDI.\n\n- Before playing: %s\n", i.Start)
			continue
		}
		fmt.Fprintf(&b, "%s Its lane: %s. General MIDI program %d.\n\n", soundsWords(i.Transposition),
			strings.ToLower(i.LaneName()), i.Program)
		fmt.Fprintf(&b, "- Fingerings from %s to %s", i.Lowest, i.Highest)
		if four := i.OfModel("4"); four.Valves == 4 {
			fmt.Fprintf(&b, ", with four valves from %s", four.Lowest)
		}
		b.WriteString("\n")
		for k, year := range i.Years {
			fmt.Fprintf(&b, "- Year %d: %s to %s\n", k+1, year.Low, year.High)
		}
		fmt.Fprintf(&b, "- A line sits well around %s, a one-note drill on %s\n- Before playing: %s\n", i.Tessitura,
			i.OneNote, i.Start)
	}
	_, err := io.WriteString(w, b.String())
	return err
}

// soundsWords says how far from the written pitch an instrument sounds.
func soundsWords(i score.Interval) string {
	semitones := max(i.Semitones, -i.Semitones)
	if semitones == 0 {
		return "Sounds as written."
	}
	way := "below"
	if i.Semitones > 0 {
		way = "above"
	}
	unit := "half steps"
	if semitones == 1 {
		unit = "half step"
	}
	if semitones%12 == 0 {
		semitones, unit = semitones/12, "octaves"
		if semitones == 1 {
			unit = "octave"
		}
	}
	return fmt.Sprintf("Sounds %d %s %s the written pitch.", semitones, unit, way)
}
