package score

import (
	"encoding/json"
	"os"
	"strings"
	"testing"
)

// intervalsByName is the letters and semitones of the table's interval names.
var intervalsByName = map[string]Interval{
	"1P": {0, 0}, "2m": {1, 1}, "2M": {1, 2}, "3m": {2, 3}, "3M": {2, 4}, "4P": {3, 5}, "4A": {3, 6}, "5P": {4, 7}, "6m": {5, 8}, "6M": {5, 9},
	"7m": {
		6,
		10,
	}, "7M": {6, 11}, "8P": {7, 12}, "-2M": {-1, -2}, "-3m": {-2, -3}, "-5P": {-4, -7}, "-6M": {-5, -9}, "-9M": {-8, -14}, "-13M": {-12, -21},
}

// Outside check: npm's tonal, through the table that testdata/tonal.mjs makes.
func TestAgainstTonal(t *testing.T) {
	data, err := os.ReadFile("testdata/tonal.json")
	if err != nil {
		t.Fatal(err)
	}
	var table struct {
		Transposed [][3]string `json:"transposed"`
		Keys       [][4]any    `json:"keys"`
	}
	if err := json.Unmarshal(data, &table); err != nil {
		t.Fatal(err)
	}
	checked := 0
	for _, row := range table.Transposed {
		want, err := ParsePitch(row[2])
		if err != nil {
			continue // more than a double accidental, which we respell
		}
		checked++
		if got := MustPitch(row[0]).Transpose(intervalsByName[row[1]]); got != want {
			t.Errorf("%s by %s is %s, tonal says %s", row[0], row[1], got, want)
		}
	}
	if checked < 1000 {
		t.Errorf("only %d transpositions were checked", checked)
	}
	for _, row := range table.Keys {
		tonic, mode, fifths, scale := row[0].(string), row[1].(string), int(row[2].(float64)), row[3].(string)
		key := Key{Fifths: fifths, Mode: mode}
		step, alter := key.Tonic()
		if got := step.String() + AccidentalText(alter); got != tonic {
			t.Errorf("%d fifths %s is the key of %s, tonal says %s", fifths, mode, got, tonic)
		}
		for _, note := range strings.Fields(scale) {
			p := MustPitch(note + "4")
			if key.Alter(p.Step) != p.Alter {
				t.Errorf("in %s %s the letter %s is altered by %d, tonal has %s", tonic, mode, p.Step, key.Alter(p.Step), note)
			}
		}
	}
}
