package main

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"os"
	"path/filepath"
	"reflect"
	"strings"
	"testing"
)

// run gives what a command writes to both outputs.
func run(t *testing.T, args ...string) (out, said string, err error) {
	t.Helper()
	c := inspectCommand()
	var o, e bytes.Buffer
	c.SetOut(&o)
	c.SetErr(&e)
	c.SilenceUsage, c.SilenceErrors = true, true
	c.SetArgs(args)
	err = c.Execute()
	return o.String(), e.String(), err
}

func file(t *testing.T, name, text string) string {
	t.Helper()
	path := filepath.Join(t.TempDir(), name)
	if err := os.WriteFile(path, []byte(text), 0o600); err != nil {
		t.Fatal(err)
	}
	return path
}

// The JSON of docs/inspect.md.
func TestInspect(t *testing.T) {
	forked := file(t, "f.abc", "T:Lamp\nM:4/4\nL:1/4\nK:C\n|:D F D2:|d4|1c2 d2:|2c4|]\n")
	out, _, err := run(t, "--instrument", "oboe", "--json", forked)
	if err != nil {
		t.Fatal(err)
	}
	var r struct {
		Title    string
		Order    []float64
		Measures []struct {
			Number int
			Events []struct{ Fingering, Usual, Name string }
		}
	}
	if err := json.Unmarshal([]byte(out), &r); err != nil {
		t.Fatal(err)
	}
	if e := r.Measures[0].Events[1]; r.Title != "Lamp" || e.Fingering != "1 2 3 | 4 6" || e.Usual != "1 2 3 | 4 5 F" || e.Name != "F" {
		t.Errorf("F beside D is %+v", e)
	}
	divided := file(t, "d.abc", "M:4/4\nL:1/4\nK:C\n|:c d e f|g2 [1 e d:|[2 c2|]\n")
	out, _, err = run(t, "--json", divided)
	if err != nil || !strings.Contains(out, `"order":[1,2,2.1,1,2,2.2]`) || !strings.Contains(out, `{"number":2,"part":1,`) {
		t.Errorf("a divided measure is told as %s (%v)", out, err)
	}
	if out, _, _ := run(t, forked); !strings.Contains(out, "measure  count") || !strings.Contains(out, "A  m. 1") {
		t.Errorf("without JSON it prints %s", out)
	}
}

// The whole of it, read line by line by a trumpet player: written a step up in G major,
// tied B counted once, concert G sharp as A sharp with first valve, C sharp with 1-2.
func TestInspectWhole(t *testing.T) {
	out, said, err := run(t, "--instrument", "trumpet", "--json", "testdata/quay-stairs.abc")
	if err != nil || said != "" {
		t.Fatalf("it says %q, %v", said, err)
	}
	text, err := os.ReadFile("testdata/quay-stairs-trumpet.json")
	if err != nil {
		t.Fatal(err)
	}
	var got, want map[string]any
	if err := errors.Join(json.Unmarshal([]byte(out), &got), json.Unmarshal(text, &want)); err != nil {
		t.Fatal(err)
	}
	if reflect.DeepEqual(got, want) {
		return
	}
	for key := range want {
		a, _ := json.Marshal(got[key])
		b, _ := json.Marshal(want[key])
		if string(a) != string(b) {
			t.Errorf("%s is\n%s, want\n%s", key, a, b)
		}
	}
	if len(got) != len(want) {
		t.Errorf("it has %d parts, want %d", len(got), len(want))
	}
}

func TestInspectByYear(t *testing.T) {
	flick := file(t, "a.abc", "M:4/4\nL:1/4\nK:C clef=bass\nA, C D2|]\n")
	for year, want := range map[string]string{"1": `"fingering":"1 2 3 | 4 5"`, "2": `"fingering":"flickA 1 2 3 | 4 5"`} {
		if out, _, err := run(t, "--source", "bassoon", "--year", year, "--json", flick); err != nil || !strings.Contains(out, want) {
			t.Errorf("in year %s: %s (%v)", year, out, err)
		}
	}
	if _, _, err := run(t, "--year", "4", flick); err == nil || !strings.Contains(err.Error(), "choose 1, 2 or 3") {
		t.Errorf("a fourth year says %v", err)
	}
}

// A file of several parts lists them and takes one by its name or number.
func TestInspectParts(t *testing.T) {
	two := file(t, "two.abc", "M:4/4\nL:1/4\nV:1 name=\"Flute\"\nV:2 name=\"Cello\"\nK:C\nV:1\nc4|]\nV:2\nE4|]\n")
	_, said, err := run(t, two)
	if err != nil || !strings.Contains(said, "The file holds 2 parts: 1 Flute, 2 Cello. The first is inspected. Choose another with --part.") {
		t.Errorf("it says %q (%v)", said, err)
	}
	for _, part := range []string{"cello", "2"} {
		if out, said, err := run(t, "--part", part, "--json", two); err != nil || said != "" || !strings.Contains(out, `"concert":"E4"`) {
			t.Errorf("part %s: %s, %s (%v)", part, out, said, err)
		}
	}
	if _, _, err := run(t, "--part", "harp", two); err == nil ||
		!strings.Contains(err.Error(), "no part \"harp\"; it holds 1 Flute, 2 Cello") {
		t.Errorf("a part that is not there says %v", err)
	}
	named := file(t, "named.abc", "M:4/4\nL:1/4\nV:1 name=\"2\"\nV:2 name=\"1\"\nK:C\nV:1\nc4|]\nV:2\nE4|]\n")
	if out, _, err := run(t, "--part", "1", "--json", named); err != nil || !strings.Contains(out, `"concert":"C5"`) {
		t.Errorf("part 1 is another that is named 1: %s (%v)", out, err)
	}
	printed := file(t, "p.abc", "M:4/4\nL:1/4\nK:C\n\"^3\"c4|]\n")
	if _, said, err := run(t, "--source", "violin", printed); err != nil || !strings.Contains(said, "“3” is printed over it") {
		t.Errorf("nonsense over a note says %q (%v)", said, err)
	}
}

// A counted file that says for whom it is written is inspected for them.
func TestInspectForWhomItIsWritten(t *testing.T) {
	path := filepath.Join(t.TempDir(), "tide.counted")
	if err := os.WriteFile(path, []byte("title: Tide\nkey: Bb\nfor: trombone\ncount: 1 2 3 4\nname: bcde\n"), 0o600); err != nil {
		t.Fatal(err)
	}
	r, _, err := inspect(context.Background(), path, inspection{})
	if err != nil || r.Instrument != "trombone" || r.Measures[0].Events[0].Fingering != "1" {
		t.Errorf("%s %+v %v", r.Instrument, r.Measures, err)
	}
	if r, _, err = inspect(context.Background(), path, inspection{target: "cello"}); err != nil || r.Instrument != "cello" {
		t.Errorf("%s %v", r.Instrument, err)
	}
}
