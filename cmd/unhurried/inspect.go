package main

import (
	"cmp"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"os"
	"slices"
	"strconv"
	"strings"
	"text/tabwriter"

	"github.com/spf13/cobra"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/count"
	"unhurriedbench/core/format"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
	"unhurriedbench/reading"
	"unhurriedbench/store"
)

func inspectCommand() *cobra.Command {
	var ask inspection
	var school string
	var asJSON, slow bool
	c := &cobra.Command{
		Use:   "inspect FILE",
		Short: "Print the breakdown of an exercise",
		Args:  cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			if !slices.Contains(count.Schools(), count.School(school)) {
				return fmt.Errorf("%q is not a counting school; choose one of %v", school, count.Schools())
			}
			if year := ask.options.Finger.Year; year < 1 || year > 3 {
				return fmt.Errorf("%d is not a year of playing; choose 1, 2 or 3", year)
			}
			ask.options.Count = count.Options{School: count.School(school), SlowBeat: slow}
			report, remarks, err := inspect(c.Context(), args[0], ask)
			if err != nil {
				return err
			}
			for _, r := range remarks {
				fmt.Fprintln(c.ErrOrStderr(), r.Error())
			}
			if asJSON {
				out := json.NewEncoder(c.OutOrStdout())
				out.SetEscapeHTML(false)
				return out.Encode(report)
			}
			return printReport(c.OutOrStdout(), report)
		},
	}
	c.Flags().StringVar(&ask.target, "instrument", "",
		"whose part to make (default: the one the file is written for, else violin)")
	c.Flags().StringVar(&ask.part, "part", "", "which part of a file that holds several: its name, or its number from 1")
	c.Flags().IntVar(&ask.options.Finger.Year, "year", 1, "the year of playing, 1 to 3, whose fingerings are taught")
	c.Flags().StringVar(&ask.source, "source", "", "for whom the file is written: an instrument id, or concert (default: what the file says)")
	c.Flags().StringVar(&school, "count", "numbers", "how to count: numbers, pulsed, kodaly, takadimi, gordon, ta or words")
	c.Flags().BoolVar(&slow, "slow", false, "count every eighth of 6/8, 9/8 and 12/8")
	c.Flags().BoolVar(&asJSON, "json", false, "print JSON, as docs/inspect.md explains")
	return c
}

// inspection is what is asked of a file.
type inspection struct {
	target, source, part string
	options              breakdown.Options
}

// choosePart finds a part by its number or its name; "" is the first. A number is one also where
// some part has it for a name.
func choosePart(parts []score.Part, desired string) (int, error) {
	if desired == "" {
		return 0, nil
	}
	if n, err := strconv.Atoi(desired); err == nil && n >= 1 && n <= len(parts) {
		return n - 1, nil
	}
	for k, p := range parts {
		if strings.EqualFold(strings.TrimSpace(p.Name), strings.TrimSpace(desired)) {
			return k, nil
		}
	}
	return 0, fmt.Errorf("the file has no part %q; it holds %s", desired, partNames(parts))
}

// partNames lists parts: "1 Flute, 2 Clarinet".
func partNames(parts []score.Part) string {
	var words []string
	for k, p := range parts {
		words = append(words, strings.TrimSpace(fmt.Sprintf("%d %s", k+1, p.Name)))
	}
	return strings.Join(words, ", ")
}

func inspect(ctx context.Context, path string, ask inspection) (breakdown.Report, []score.Problem, error) {
	none := breakdown.Report{}
	info, err := os.Stat(path)
	if err != nil {
		return none, nil, fmt.Errorf("cannot open the file: %w", err)
	}
	if info.Size() > format.Largest {
		return none, nil, fmt.Errorf("the file is larger than %d MB", format.Largest>>20)
	}
	data, err := os.ReadFile(path)
	if err != nil {
		return none, nil, fmt.Errorf("cannot read the file: %w", err)
	}
	f, err := format.Read(ctx, path, data)
	if err != nil {
		return none, nil, err
	}
	s := f.Score
	at, err := choosePart(s.Parts, ask.part)
	if err != nil {
		return none, nil, err
	}
	if n := len(s.Parts); n > 1 && ask.part == "" {
		s.Remarks = append(
			s.Remarks,
			score.General(fmt.Sprintf("The file holds %d parts: %s. The first is inspected.", n, partNames(s.Parts)),
				"Choose another with --part."),
		)
	}
	if _, known := instrument.ByID(ask.source); !known && ask.source != "" && ask.source != reading.Concert {
		return none, nil, unknownInstrument(ask.source)
	}
	from := reading.SourceOf(store.Exercise{Part: at, WrittenFor: cmp.Or(ask.source, f.For)}, s)
	targetID := cmp.Or(ask.target, from.WrittenFor, "violin")
	target, ok := instrument.ByID(targetID)
	if !ok {
		return none, nil, unknownInstrument(targetID)
	}
	report := breakdown.Read(s, from.Source, from.WrittenFor, target, nil, ask.options)
	return report, append(s.Remarks, report.Remarks...), nil
}

func unknownInstrument(id string) error {
	var ids []string
	for _, i := range instrument.All() {
		ids = append(ids, i.ID)
	}
	return fmt.Errorf("%q is not an instrument; choose one of %s", id, strings.Join(ids, ", "))
}

// printReport writes a line an event.
func printReport(w io.Writer, r breakdown.Report) error {
	fmt.Fprintf(w, "%s · %s · %s clef · %s · %s\n%s\n\n", r.Title, r.Instrument, r.Clef, r.Key.Name, r.Meter, r.Made)
	t := tabwriter.NewWriter(w, 0, 0, 2, ' ', 0)
	fmt.Fprintln(t, "measure\tcount\tname\twhere\tfingering\tmarks")
	for _, m := range r.Measures {
		for _, e := range m.Events {
			fmt.Fprintf(t, "%d\t%s\t%s\t%s\t%s\t%s\n", m.Number, countText(e), e.Name, e.Place, e.Fingering, e.Why)
		}
	}
	if err := t.Flush(); err != nil {
		return fmt.Errorf("print the breakdown: %w", err)
	}
	for _, p := range r.Chunks {
		fmt.Fprintf(w, "%s  %s  %s  (%.2f)\n", p.Label, p.InWords(), p.Why, p.Difficulty)
	}
	d := r.Difficulty.Parts
	fmt.Fprintf(w, "\nDifficulty %.2f: rhythm %.2f, reading %.2f, change %.2f, range %.2f, breath or bow %.2f\n",
		r.Difficulty.Total, d.Rhythm, d.Reading, d.Change, d.Range, d.Breath)
	fmt.Fprintf(w, "Start at %d.", r.Tempo.Suggested)
	if r.Tempo.LimitMeasure > 0 {
		fmt.Fprintf(w, " Measure %d sets the tempo.", r.Tempo.LimitMeasure)
	}
	fmt.Fprintln(w)
	return nil
}

// countText is the count of an event with its held beats: "1 (2)", "[3] [4]".
func countText(e breakdown.Event) string {
	look := count.Struck
	heldLook := count.Held
	if e.Kind == "rest" {
		look, heldLook = count.Rested, count.Rested
	}
	var words []string
	if e.Count != "" {
		words = append(words, count.Cell{Label: e.Count, Look: look}.Text())
	}
	for _, h := range e.Held {
		words = append(words, count.Cell{Label: h, Look: heldLook}.Text())
	}
	return strings.Join(words, " ")
}
