package main

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"os"
	"path/filepath"
	"slices"
	"time"

	"github.com/spf13/cobra"

	"unhurriedbench/store"
)

func backupCommand() *cobra.Command {
	return &cobra.Command{
		Use:   "backup FILE",
		Short: "Write everything that is kept to a file, while others work",
		Args:  cobra.ExactArgs(1),
		RunE: onStore(func(c *cobra.Command, s *store.Store, args []string) error {
			if err := backUp(c.Context(), s, args[0]); err != nil {
				return err
			}
			fmt.Fprintf(c.OutOrStdout(), "Everything is in %s. Keep it as safe as the database: it holds the students' names.\n", args[0])
			return nil
		}),
	}
}

func restoreCommand() *cobra.Command {
	return &cobra.Command{
		Use:   "restore FILE",
		Short: "Fill an empty database from a backup",
		Args:  cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			url, err := databaseURL()
			if err != nil {
				return err
			}
			in, err := os.Open(args[0])
			if err != nil {
				return fmt.Errorf("open the backup: %w", err)
			}
			defer in.Close()
			about, err := in.Stat()
			if err != nil {
				return fmt.Errorf("open the backup: %w", err)
			}
			if err := store.Restore(c.Context(), url, in, about.Size()); err != nil {
				return err
			}
			fmt.Fprintln(c.OutOrStdout(), "The backup is restored. Everybody signs in anew.")
			return nil
		},
	}
}

// backUp writes a backup under a name of its own and puts it in place when it is whole, so
// that a file of that name is always a whole one.
func backUp(ctx context.Context, s *store.Store, name string) error {
	out, err := os.CreateTemp(filepath.Dir(name), ".backup-*") // for its owner's eyes alone
	if err != nil {
		return fmt.Errorf("write the backup: %w", err)
	}
	err = errors.Join(s.Backup(ctx, out), out.Sync(), out.Close())
	if err == nil {
		err = os.Rename(out.Name(), name)
	}
	if err != nil {
		return errors.Join(fmt.Errorf("write the backup: %w", err), os.Remove(out.Name()))
	}
	return nil
}

// backupHour is when the nightly backup is written, by the machine's clock.
const backupHour = 3

// nightly writes a backup into a folder every night until ctx ends, and keeps the newest.
func nightly(ctx context.Context, s *store.Store, folder string, save int, log *slog.Logger) {
	for {
		timer := time.NewTimer(untilNight(time.Now()))
		select {
		case <-ctx.Done():
			timer.Stop()
			return
		case now := <-timer.C:
			if err := tonight(ctx, s, folder, save, now); err != nil {
				log.Error("nightly backup", "error", err)
			} else {
				log.Info("nightly backup", "folder", folder)
			}
		}
	}
}

// untilNight is the time to the next nightly backup.
func untilNight(now time.Time) time.Duration {
	next := time.Date(now.Year(), now.Month(), now.Day(), backupHour, 0, 0, 0, now.Location())
	if !next.After(now) {
		next = next.AddDate(0, 0, 1)
	}
	return next.Sub(now)
}

const nightlyName = "unhurried-*.backup"

// tonight writes the backup of a night, and removes all but the newest.
func tonight(ctx context.Context, s *store.Store, folder string, save int, now time.Time) error {
	if err := backUp(ctx, s, filepath.Join(folder, now.Format("unhurried-2006-01-02.backup"))); err != nil {
		return err
	}
	all, err := filepath.Glob(filepath.Join(folder, nightlyName))
	if err != nil {
		return fmt.Errorf("list the backups: %w", err)
	}
	slices.Sort(all) // by date
	for _, old := range all[:max(len(all)-save, 0)] {
		if err := os.Remove(old); err != nil {
			return fmt.Errorf("remove an old backup: %w", err)
		}
	}
	return nil
}
