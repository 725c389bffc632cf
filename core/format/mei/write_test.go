package mei

import (
	"encoding/xml"
	"errors"
	"io"
	"regexp"
	"strings"
	"testing"

	"unhurriedbench/internal/testabc"
	"unhurriedbench/internal/testscore"
)

// elements counts the elements of a document and fails when it is not
// well-formed or an id occurs twice.
func elements(t *testing.T, document string) map[string]int {
	t.Helper()
	counts, ids := map[string]int{}, map[string]bool{}
	d := xml.NewDecoder(strings.NewReader(document))
	for {
		token, err := d.Token()
		if errors.Is(err, io.EOF) {
			return counts
		}
		if err != nil {
			t.Fatalf("not well-formed: %v\n%s", err, document)
		}
		start, ok := token.(xml.StartElement)
		if !ok {
			continue
		}
		counts[start.Name.Local]++
		for _, a := range start.Attr {
			if a.Name.Local == "id" && ids[a.Value] {
				t.Errorf("the id %s occurs twice", a.Value)
			}
			if a.Name.Local == "id" {
				ids[a.Value] = true
			}
		}
	}
}

// The engraver itself reads these documents in the e2e tests.
func TestWrite(t *testing.T) {
	tests := []struct {
		name, music string
		want        map[string]int
		contains    []string
	}{
		{"beams and ties", "M:4/4\nL:1/4\nK:Bb\nB/c/ d/e/ f2-|f4|]", map[string]int{"beam": 2, "tie": 1, "measure": 2, "note": 6},
			[]string{`keysig="2f"`, `<tie startid="#n0_4" endid="#n1_0"/>`, `right="end"`}},
		{
			"accidental and natural",
			"M:4/4\nL:1/4\nK:Bb\n=e e ^f2|]",
			map[string]int{"accid": 2},
			[]string{`<accid accid="n"/>`, `<accid accid="s"/>`},
		},
		{"triplet", "M:2/4\nL:1/8\nK:C\n(3cde c2|]", map[string]int{"tuplet": 1, "beam": 1}, []string{`num="3" numbase="2"`}},
		{
			"repeat and endings",
			"M:2/4\nL:1/4\nK:C\n|:c d|1 e2:|2 c2|]",
			map[string]int{"ending": 2},
			[]string{`left="rptstart"`, `right="rptend"`},
		},
		{"pickup and rests", "M:3/4\nL:1/4\nK:C\nc|z3|d z|]", map[string]int{"mRest": 1, "rest": 1}, []string{`n="0" metcon="false"`}},
		{
			"meter and key change",
			"M:4/4\nL:1/4\nK:C\nc4|[M:3/4][K:G]d3|]",
			map[string]int{"scoreDef": 2},
			[]string{`meter.count="3"`, `keysig="1s"`},
		},
		{
			"slur and marks",
			"M:4/4\nL:1/4\nK:C\n(c !fermata!d) .e \"^soft <now>\"f|]",
			map[string]int{"slur": 1, "fermata": 1, "dir": 1},
			[]string{`artic="stacc"`, "soft &lt;now&gt;"},
		},
		{
			"hairpins",
			"M:4/4\nL:1/4\nK:C\n!<(!c d !<)!e !>(!f|g2 !>)!z2|]",
			map[string]int{"hairpin": 2},
			[]string{`<hairpin form="cres" startid="#n0_0" endid="#n0_2"`, `<hairpin form="dim" startid="#n0_3" endid="#n1_1"`},
		},
		{"strokes", "M:2/4\nL:1/4\nK:C clef=perc\nc c|]", map[string]int{"note": 2}, []string{`lines="1"`, `loc="0"`}},
	}
	for _, tt := range tests {
		document := Write(testabc.Part(t, tt.music+"\n"), Options{})
		counts := elements(t, document)
		for name, n := range tt.want {
			if counts[name] != n {
				t.Errorf("%s: %d <%s>, want %d", tt.name, counts[name], name, n)
			}
		}
		for _, text := range tt.contains {
			if !strings.Contains(document, text) {
				t.Errorf("%s: %s is missing in\n%s", tt.name, text, document)
			}
		}
	}
}

func TestRulerHasANoteForEveryPulse(t *testing.T) {
	p := testabc.Part(t, "M:2/4\nL:1/8\nK:C\n(3cde c2|c/d/e/f/ g2|]\n")
	document := Write(p, Options{Ruler: true})
	elements(t, document)
	for i, m := range p.Measures {
		for k := range m.Ruler() {
			if !strings.Contains(document, `xml:id="`+IDs("").Pulse(i, k)+`"`) {
				t.Errorf("pulse %d of measure %d is missing", k, i)
			}
		}
	}
	five := testabc.Part(t, "M:2/4\nL:1/8\nK:C\n(5:4:5c/d/e/f/g/ a2|]")
	if got := len(five.Measures[0].Ruler()); got != 7 {
		t.Errorf("a quintuplet and a plain beat have %d pulses, want 5 + 2", got)
	}
	if got := len(p.Measures[0].Ruler()); got != 5 {
		t.Errorf("a triplet and a plain beat have %d pulses, want 3 + 2", got)
	}
}

// Every id of a document begins with the given text, and what refers to it too, so that
// the music of two parts can stand on one page.
func TestIDsOfTwoPartsDiffer(t *testing.T) {
	part := testscore.Random(t, 5).Parts[0]
	plain, led := Write(part, Options{Ruler: true}), Write(part, Options{Ruler: true, IDs: "left-"})
	ids := regexp.MustCompile(` (xml:id|startid|endid)="#?([^"]*)"`)
	found := ids.FindAllStringSubmatch(led, -1)
	if len(found) < 40 || len(found) != len(ids.FindAllString(plain, -1)) {
		t.Fatalf("%d ids are written, %d without a lead", len(found), len(ids.FindAllString(plain, -1)))
	}
	for _, id := range found {
		if !strings.HasPrefix(id[2], "left-") {
			t.Errorf("the id %s", id[0])
		}
	}
}
