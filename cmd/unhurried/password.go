package main

import (
	"bufio"
	"errors"
	"fmt"
	"io"
	"strings"

	"github.com/spf13/cobra"

	"unhurriedbench/store"
	"unhurriedbench/web/site"
)

// passwordCommand gives a teacher who has forgotten theirs another password, which is read
// from the standard input so that it stands in no list of commands.
func passwordCommand() *cobra.Command {
	return &cobra.Command{
		Use:   "password ADDRESS",
		Short: "Give the teacher with an e-mail address another password, typed as one line",
		Args:  cobra.ExactArgs(1),
		RunE: onStore(func(c *cobra.Command, s *store.Store, args []string) error {
			fmt.Fprintln(c.OutOrStdout(), "Type the new password, then Enter:")
			line, err := bufio.NewReader(c.InOrStdin()).ReadString('\n')
			if err != nil && !errors.Is(err, io.EOF) {
				return fmt.Errorf("read the password: %w", err)
			}
			desired := strings.TrimRight(line, "\r\n")
			t, err := s.TeacherByEmail(c.Context(), args[0])
			if errors.Is(err, store.ErrNotFound) {
				return fmt.Errorf("no teacher signs in as %s", args[0])
			}
			if err != nil {
				return err
			}
			if problem := site.UnfitPassword(desired, t); problem != "" {
				return errors.New(problem)
			}
			if _, err := s.SetPassword(c.Context(), 0, t.ID, desired); err != nil {
				return err
			}
			fmt.Fprintf(c.OutOrStdout(), "%s has the new password, and is signed out everywhere.\n", t.Name)
			return nil
		}),
	}
}
