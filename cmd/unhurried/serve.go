package main

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"net/netip"
	"os"
	"os/signal"
	"syscall"
	"time"

	"github.com/spf13/cobra"

	"unhurriedbench/demo"
	"unhurriedbench/reading"
	"unhurriedbench/store"
	"unhurriedbench/web"
)

// openStore opens the database that UNHURRIED_DATABASE names.
func openStore(ctx context.Context) (*store.Store, error) {
	url, err := databaseURL()
	if err != nil {
		return nil, err
	}
	return store.Open(ctx, url)
}

func databaseURL() (string, error) {
	url := os.Getenv("UNHURRIED_DATABASE")
	if url == "" {
		return "", errors.New("no database is named: run bin/start, or set UNHURRIED_DATABASE to a PostgreSQL address")
	}
	return url, nil
}

func serveCommand() *cobra.Command {
	var (
		address, backups string
		metrics          string
		save             int
		proxies          []string
		https            bool
	)
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
			log := slog.New(slog.NewTextHandler(os.Stderr, nil))
			server, err := web.New(s, log)
			if err != nil {
				return err
			}
			trusted, err := prefixes(proxies)
			if err != nil {
				return err
			}
			server.Behind(trusted, https)
			servant, err := leaveRoot()
			if err != nil {
				return err
			}
			if servant != "" {
				fmt.Printf("Serving as the user %s, not as root.\n", servant)
			}
			if err := startMetrics(ctx, server, metrics, log); err != nil {
				return err
			}
			go daily(ctx, s, log)
			if backups != "" {
				server.Backups(max(save, 1))
				fmt.Printf("A backup is written to %s every night at %d, and the newest %d are kept.\n", backups, backupHour, save)
				go nightly(ctx, s, backups, max(save, 1), log)
			}
			fmt.Printf("Open http://%s in a browser. Stop with Ctrl-C.\n", address)
			return server.Serve(ctx, address)
		},
	}
	c.Flags().StringVar(&address, "address", "127.0.0.1:8080", "where to listen")
	c.Flags().StringSliceVar(&proxies, "proxy", nil, "the address of a proxy in front, or a range such as 10.0.0.0/8, that says whom it asks for")
	c.Flags().BoolVar(&https, "https", false, "the proxy in front is asked by HTTPS alone")
	c.Flags().StringVar(&metrics, "metrics", "", "where to tell metrics, on loopback alone, such as 127.0.0.1:9464; none without it")
	c.Flags().StringVar(&backups, "backups", "", "a folder for a backup every night; none without it")
	c.Flags().IntVar(&save, "keep", 14, "how many of them are kept")
	return c
}

// startMetrics serves the metrics where they are wanted.
func startMetrics(ctx context.Context, server *web.Server, address string, log *slog.Logger) error {
	if address == "" {
		return nil
	}
	at, err := netip.ParseAddrPort(address)
	if err != nil || !at.Addr().IsLoopback() {
		return fmt.Errorf("%s is no loopback address with a port, such as 127.0.0.1:9464: metrics are for this machine alone", address)
	}
	go func() {
		if err := server.ServeMetrics(ctx, address); err != nil {
			log.Error("metrics", "error", err)
		}
	}()
	fmt.Printf("Metrics are told on http://%s.\n", address)
	return nil
}

// daily tidies up now and every day.
func daily(ctx context.Context, s *store.Store, log *slog.Logger) {
	for {
		if err := s.DeleteExpired(ctx); err != nil && ctx.Err() == nil {
			log.Error("tidy up", "error", err)
		}
		select {
		case <-ctx.Done():
			return
		case <-time.After(24 * time.Hour):
		}
	}
}

// prefixes reads addresses and ranges of addresses.
func prefixes(texts []string) ([]netip.Prefix, error) {
	var list []netip.Prefix
	for _, text := range texts {
		if address, err := netip.ParseAddr(text); err == nil {
			list = append(list, netip.PrefixFrom(address, address.BitLen()))
			continue
		}
		p, err := netip.ParsePrefix(text)
		if err != nil {
			return nil, fmt.Errorf("%s is no address of a proxy, such as 127.0.0.1 or 10.0.0.0/8", text)
		}
		list = append(list, p)
	}
	return list, nil
}

// onStore is what a command does with the database open.
func onStore(do func(c *cobra.Command, s *store.Store, args []string) error) func(*cobra.Command, []string) error {
	return func(c *cobra.Command, args []string) error {
		s, err := openStore(c.Context())
		if err != nil {
			return err
		}
		return errors.Join(do(c, s, args), s.Close())
	}
}

// storeCommand is a command without arguments that works on the open database.
func storeCommand(use, short string, do func(context.Context, *store.Store) error) *cobra.Command {
	return &cobra.Command{
		Use:   use,
		Short: short,
		Args:  cobra.NoArgs,
		RunE:  onStore(func(c *cobra.Command, s *store.Store, _ []string) error { return do(c.Context(), s) }),
	}
}

func demoCommand() *cobra.Command {
	return storeCommand("demo", "Load the invented school, unless it is there", demo.Load)
}

func rereadCommand() *cobra.Command {
	var all bool
	c := storeCommand("reread", "Read exercises again that were read by other rules", func(ctx context.Context,
		s *store.Store) error {
		n, err := reading.New(reading.Memory).RefreshAll(ctx, s, all)
		if err == nil && all {
			err = s.FoldStandings(ctx)
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
	return storeCommand("migrate", "Bring the database's tables up to date",
		func(context.Context, *store.Store) error { return nil })
}
