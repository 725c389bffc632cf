package main

import (
	"fmt"
	"strings"

	"github.com/spf13/cobra"

	"unhurriedbench/store"
)

// inviteCommand makes a link for a new teacher, as the owner does on their page; with it
// begins an installation whose first account is the demo's.
func inviteCommand() *cobra.Command {
	var site string
	c := &cobra.Command{
		Use:   "invite",
		Short: "Make a link for a new teacher, good once and for a week",
		Args:  cobra.NoArgs,
		RunE: onStore(func(c *cobra.Command, s *store.Store, _ []string) error {
			link, err := s.Invite(c.Context(), 0)
			if err != nil {
				return err
			}
			fmt.Fprintf(c.OutOrStdout(), "%s/join/%s\n", strings.TrimRight(site, "/"), link)
			return nil
		}),
	}
	c.Flags().StringVar(&site, "site", "http://127.0.0.1:8080", "the address of the site")
	return c
}
