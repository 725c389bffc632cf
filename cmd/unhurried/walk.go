package main

import (
	"encoding/json"
	"fmt"
	"io"
	"slices"
	"strings"

	"github.com/spf13/cobra"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/count"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/lesson"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/walk"
)

func walkCommand() *cobra.Command {
	var ask inspection
	var school, steps, unit string
	var minutes, tempo int
	var asJSON bool
	c := &cobra.Command{
		Use:   "walk FILE",
		Short: "Print a led run through an exercise",
		Args:  cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			wanted := walk.Ask{Minutes: minutes, Tempo: tempo}
			switch {
			case !slices.Contains(count.Schools(), count.School(school)):
				return fmt.Errorf("%q is not a counting school; choose one of %v", school, count.Schools())
			case ask.options.Finger.Year < 1 || ask.options.Finger.Year > 3:
				return fmt.Errorf("%d is not a year of playing; choose 1, 2 or 3", ask.options.Finger.Year)
			case minutes < 0 || minutes > walk.MostMinutes:
				return fmt.Errorf("%d minutes cannot be asked for; choose 1 to %d, or 0 for as long as it takes", minutes, walk.MostMinutes)
			case tempo != 0 && (tempo < walk.SlowestRun || tempo > walk.FastestRun):
				return fmt.Errorf("%d is not a tempo for a run; choose %d to %d beats a minute", tempo, walk.SlowestRun, walk.FastestRun)
			}
			var ok bool
			if wanted.Unit, ok = lesson.ParseUnit(unit); !ok {
				return fmt.Errorf("%q is not a unit to begin with; choose one of %v", unit, lesson.Units())
			}
			named, ok := routine.ShippedAs(steps)
			if !ok {
				return fmt.Errorf("%q is not a routine; choose one of %s", steps, shippedRoutines())
			}
			wanted.Routine = named.Steps
			ask.options.Count = count.Options{School: count.School(school)}
			wanted.Options = ask.options
			report, remarks, err := inspect(c.Context(), args[0], ask)
			if err != nil {
				return err
			}
			for _, r := range remarks {
				fmt.Fprintln(c.ErrOrStderr(), r.Error())
			}
			run := runThrough(wanted, report)
			if asJSON {
				out := json.NewEncoder(c.OutOrStdout())
				out.SetEscapeHTML(false)
				return out.Encode(run)
			}
			return printRun(c.OutOrStdout(), run)
		},
	}
	c.Flags().StringVar(&ask.target, "instrument", "", "who is led (default: the one the file is written for, else violin)")
	c.Flags().StringVar(&ask.part, "part", "", "which part of a file that holds several: its name, or its number from 1")
	c.Flags().IntVar(&ask.options.Finger.Year, "year", 1, "the year of playing, 1 to 3, whose fingerings are taught")
	c.Flags().StringVar(&ask.source, "source", "", "for whom the file is written: an instrument id, or concert (default: what the file says)")
	c.Flags().StringVar(&school, "count", "numbers", "how to count: numbers, pulsed, kodaly, takadimi, gordon, ta or words")
	c.Flags().StringVar(&steps, "routine", routine.StandardID, "the routine: "+shippedRoutines())
	c.Flags().StringVar(&unit, "unit", string(lesson.Usual), "how much at a time: usual, line, chunk or hard")
	c.Flags().IntVar(&minutes, "minutes", 0, "at most so many minutes, 0 for as long as it takes")
	c.Flags().IntVar(&tempo, "tempo", 0, "beats a minute (default: where the line begins)")
	c.Flags().BoolVar(&asJSON, "json", false, "print JSON, as docs/walk.md explains")
	return c
}

func shippedRoutines() string {
	var ids []string
	for _, n := range routine.Shipped() {
		ids = append(ids, n.ID)
	}
	return strings.Join(ids, ", ")
}

// runThrough leads the instrument of a report.
func runThrough(ask walk.Ask, r breakdown.Report) walk.Run {
	i, _ := instrument.ByID(r.Instrument)
	return walk.Through(ask, walk.Player{Instrument: i, Report: r})
}

// printRun writes a line a move.
func printRun(w io.Writer, run walk.Run) error {
	at := func(seconds float64) string {
		return fmt.Sprintf("%d:%04.1f", int(seconds)/60, seconds-float64(int(seconds)/60*60))
	}
	fmt.Fprintf(w, "%s, %s, %s = %d, %s\n", run.Title, run.Players[0].Name, run.BeatName, run.Tempo, at(run.Seconds))
	fmt.Fprintf(w, "Starts on %s, %s.\n", run.Players[0].First, run.Players[0].Fingering)
	for _, m := range run.Moves {
		for _, mind := range m.Minds {
			fmt.Fprintf(w, "         %s\n", mind)
		}
		fmt.Fprintf(w, "%8s %-10s %-18s %s %s\n", at(m.At), m.Act, m.Where, m.Says, m.Again)
	}
	if q := run.Question; q != nil {
		fmt.Fprintf(w, "%8s %s %s.\n", at(run.Seconds), q.Text, q.Choices[q.Answer])
	}
	return nil
}
