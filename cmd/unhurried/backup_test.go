package main

import (
	"bytes"
	"context"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"unhurriedbench/internal/testdb"
	"unhurriedbench/store"
)

// command runs a command of the program with what is typed into it.
func command(t *testing.T, typed string, args ...string) (string, error) {
	t.Helper()
	var out bytes.Buffer
	c := rootCommand()
	c.SetArgs(args)
	c.SetIn(strings.NewReader(typed))
	c.SetOut(&out)
	c.SetErr(&out)
	err := c.ExecuteContext(context.Background())
	return out.String(), err
}

// A backup is written, restored into an empty database, and refused over one in use; a
// forgotten password is given again.
func TestBackupRestoreAndPassword(t *testing.T) {
	url, ctx := testdb.Make(t), context.Background()
	t.Setenv("UNHURRIED_DATABASE", url)
	s, err := store.Open(ctx, url)
	if err != nil {
		t.Fatal(err)
	}
	if _, err := s.AddTeacher(ctx, "wren@school.example", "Wren", "", "ferry lamp tide"); err != nil {
		t.Fatal(err)
	}
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	file := filepath.Join(t.TempDir(), "all.backup")
	if said, err := command(t, "", "backup", file); err != nil || !strings.Contains(said, file) {
		t.Fatalf("backup says %s, %v", said, err)
	}
	if about, err := os.Stat(file); err != nil || about.Mode().Perm() != 0o600 {
		t.Errorf("others may read the backup: %v, %v", about.Mode(), err)
	}
	if _, err := command(t, "", "restore", file); err == nil || !strings.Contains(err.Error(), "Restore into an empty database") {
		t.Errorf("restoring over a database in use gives %v", err)
	}
	other := testdb.Make(t)
	t.Setenv("UNHURRIED_DATABASE", other)
	if _, err := command(t, "", "restore", file+".none"); err == nil {
		t.Error("a file that is not there is restored")
	}
	if said, err := command(t, "", "restore", file); err != nil || !strings.Contains(said, "restored") {
		t.Fatalf("restore says %s, %v", said, err)
	}
	for _, tt := range []struct{ typed, who, says string }{
		{"password1234\n", "wren@school.example", "commonest"},
		{"a lamp by the ferry\n", "nobody@school.example", "no teacher signs in"},
	} {
		if _, err := command(t, tt.typed, "password", tt.who); err == nil || !strings.Contains(err.Error(), tt.says) {
			t.Errorf("%q for %s gives %v", tt.typed, tt.who, err)
		}
	}
	if said, err := command(t, "a lamp by the ferry\n", "password", "Wren@school.example"); err != nil || !strings.Contains(said, "signed out everywhere") {
		t.Errorf("password says %s, %v", said, err)
	}
	if said, err := command(t, "", "invite", "--site", "https://bench.school.example/"); err != nil || !strings.HasPrefix(said, "https://bench.school.example/join/") {
		t.Errorf("invite says %s, %v", said, err)
	}
	restored, err := store.Open(ctx, other)
	if err != nil {
		t.Fatal(err)
	}
	defer restored.Close()
	if _, err := restored.CheckPassword(ctx, "wren@school.example", "a lamp by the ferry"); err != nil {
		t.Errorf("the new password gives %v", err)
	}
}

// Every night one backup is added and the oldest beyond those to keep goes; other files in
// the folder stay.
func TestNightlyBackups(t *testing.T) {
	s, ctx := testdb.Open(t), context.Background()
	folder := t.TempDir()
	if err := os.WriteFile(filepath.Join(folder, "notes.txt"), nil, 0o600); err != nil {
		t.Fatal(err)
	}
	night := time.Date(2026, 10, 30, 3, 0, 0, 0, time.UTC)
	for range 5 {
		if err := tonight(ctx, s, folder, 3, night); err != nil {
			t.Fatal(err)
		}
		night = night.AddDate(0, 0, 1)
	}
	files, err := os.ReadDir(folder)
	if err != nil {
		t.Fatal(err)
	}
	var names []string
	for _, f := range files {
		names = append(names, f.Name())
	}
	if got := strings.Join(names, " "); got != "notes.txt unhurried-2026-11-01.backup unhurried-2026-11-02.backup unhurried-2026-11-03.backup" {
		t.Errorf("the folder has %s", got)
	}
	if err := tonight(ctx, s, filepath.Join(folder, "none"), 3, night); err == nil {
		t.Error("a folder that is not there takes a backup")
	}
	for now, want := range map[string]time.Duration{"02:00": time.Hour, "03:00": 24 * time.Hour, "23:30": 3*time.Hour + 30*time.Minute} {
		at, err := time.Parse("15:04", now)
		if err != nil {
			t.Fatal(err)
		}
		if got := untilNight(at); got != want {
			t.Errorf("at %s the next night is in %s, want %s", now, got, want)
		}
	}
}
