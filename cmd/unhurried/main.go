// Command unhurried is Unhurried Bench: the server and its tools.
package main

import (
	"context"
	"fmt"
	"os"
	_ "time/tzdata" // time zones, where the machine has none

	"github.com/spf13/cobra"
)

func main() {
	if err := rootCommand().ExecuteContext(context.Background()); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

func rootCommand() *cobra.Command {
	root := &cobra.Command{
		Use:           "unhurried",
		Short:         "Takes method-book exercises apart for every instrument in the room",
		SilenceUsage:  true,
		SilenceErrors: true,
	}
	root.AddCommand(
		serveCommand(), demoCommand(), migrateCommand(), passwordCommand(), inviteCommand(), backupCommand(),
		restoreCommand(), rereadCommand(),
		inspectCommand(), walkCommand(), instrumentsCommand(), simulateCommand(),
	)
	return root
}
