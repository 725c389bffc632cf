package main

import (
	"bytes"
	"encoding/json"
	"strings"
	"testing"

	"unhurriedbench/core/walk"
)

// walked runs the command.
func walked(t *testing.T, args ...string) (string, error) {
	t.Helper()
	c := walkCommand()
	var out bytes.Buffer
	c.SetOut(&out)
	c.SetErr(&bytes.Buffer{})
	c.SilenceUsage = true
	c.SetArgs(args)
	err := c.Execute()
	return out.String(), err
}

const ferry = "../../demo/exercises/06-ferry-landing.abc"

func TestWalk(t *testing.T) {
	t.Parallel()
	text, err := walked(t, ferry, "--instrument", "trombone", "--unit", "chunk", "--tempo", "63", "--json")
	if err != nil {
		t.Fatal(err)
	}
	var run walk.Run
	if err := json.Unmarshal([]byte(text), &run); err != nil {
		t.Fatal(err)
	}
	if run.Title != "Ferry Landing" || run.Tempo != 63 || len(run.Moves) < 15 || run.Players[0].First != "D" {
		t.Errorf("the run is %s at %d in %d moves, from %+v", run.Title, run.Tempo, len(run.Moves), run.Players)
	}
	short, err := walked(t, ferry, "--instrument", "trombone", "--minutes", "3")
	if err != nil {
		t.Fatal(err)
	}
	if !strings.Contains(short, "Play the line, on your own.") || strings.Count(short, "\n") > len(run.Moves) {
		t.Errorf("in three minutes it is\n%s", short)
	}
}

func TestWalkRefuses(t *testing.T) {
	t.Parallel()
	for flag, value := range map[string]string{
		"--unit": "page", "--routine": "none", "--minutes": "61", "--tempo": "1000", "--count": "aloud", "--year": "4", "--instrument": "kazoo",
	} {
		if _, err := walked(t, ferry, flag, value); err == nil || !strings.Contains(err.Error(), "choose") {
			t.Errorf("%s %s: %v", flag, value, err)
		}
	}
}
