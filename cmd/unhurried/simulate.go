package main

import (
	"github.com/spf13/cobra"

	"unhurriedbench/simulate"
	"unhurriedbench/store"
)

func simulateCommand() *cobra.Command {
	var seeds []uint
	c := &cobra.Command{
		Use:   "simulate",
		Short: "Hold a term with invented students, and print what is shown of it",
		Args:  cobra.NoArgs,
		RunE: onStore(func(c *cobra.Command, s *store.Store, _ []string) error {
			for _, seed := range seeds {
				r, err := simulate.Term(c.Context(), s, uint64(seed), simulate.MixedBand(), simulate.Strings())
				if err != nil {
					return err
				}
				r.Print(c.OutOrStdout())
			}
			return nil
		}),
	}
	c.Flags().UintSliceVar(&seeds, "seed", []uint{1}, "which invented terms")
	return c
}
