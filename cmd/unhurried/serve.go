package main

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"os"
	"os/signal"
	"syscall"

	"github.com/spf13/cobra"

	"unhurriedbench/demo"
	"unhurriedbench/reading"
	"unhurriedbench/store"
	"unhurriedbench/web"
)

// openStore opens the database that UNHURRIED_DATABASE names.
func openStore(ctx context.Context) (*store.Store, error) {
	url := os.Getenv("UNHURRIED_DATABASE")
	if url == "" {
		return nil, errors.New("no database is named: run bin/start, or set UNHURRIED_DATABASE to a PostgreSQL address")
	}
	return store.Open(ctx, url)
}

func serveCommand() *cobra.Command {
	var address string
	c := &cobra.Command{
		Use:   "serve",
		Short: "Serve the application",
		Args:  cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			ctx, stop := signal.NotifyContext(c.Context(), os.Interrupt, syscall.SIGTERM)
			defer stop()
			s, err := openStore(ctx)
			if err != nil {
				return err
			}
			defer s.Close()
			server, err := web.New(s, slog.New(slog.NewTextHandler(os.Stderr, nil)))
			if err != nil {
				return err
			}
			servant, err := leaveRoot()
			if err != nil {
				return err
			}
			if servant != "" {
				fmt.Printf("Serving as the user %s, not as root.\n", servant)
			}
			fmt.Printf("Open http://%s in a browser. Stop with Ctrl-C.\n", address)
			return server.Serve(ctx, address)
		},
	}
	c.Flags().StringVar(&address, "address", "127.0.0.1:8080", "where to listen")
	return c
}

// storeCommand is a command without arguments that works on the open database.
func storeCommand(use, short string, do func(context.Context, *store.Store) error) *cobra.Command {
	return &cobra.Command{
		Use:   use,
		Short: short,
		Args:  cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			s, err := openStore(c.Context())
			if err != nil {
				return err
			}
			return errors.Join(do(c.Context(), s), s.Close())
		},
	}
}

func demoCommand() *cobra.Command {
	return storeCommand("demo", "Load the invented school, unless it is there", demo.Load)
}

func rereadCommand() *cobra.Command {
	var all bool
	c := storeCommand("reread", "Read exercises again that were read by other rules", func(ctx context.Context, s *store.Store) error {
		n, err := reading.New(reading.Memory).RefreshAll(ctx, s, all)
		if err == nil && all {
			err = s.AddUpStandings(ctx)
		}
		if n > 0 {
			fmt.Printf("%d exercises were read again.\n", n)
		}
		return err
	})
	c.Flags().BoolVar(&all, "all", false, "all of them, and add up every log again, as after a change to the go-on rule")
	return c
}

func migrateCommand() *cobra.Command {
	return storeCommand("migrate", "Bring the database's tables up to date", func(context.Context, *store.Store) error { return nil })
}
