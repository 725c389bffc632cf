package breakdown

import (
	"context"
	"fmt"
	"testing"

	"unhurriedbench/core/format/abc"
	"unhurriedbench/core/instrument"
)

// Every key from seven flats to seven sharps and every note value from the breve to the
// sixty-fourth is read and explained for every instrument, and so is a measure without
// a stroke.
func TestEveryKeyAndValueOpens(t *testing.T) {
	var tunes []string
	for _, key := range []string{"Cb", "Gb", "Db", "Ab", "Eb", "Bb", "F", "C", "G", "D", "A", "E", "B", "F#", "C#"} {
		tunes = append(tunes, "M:4/4\nL:1/4\nK:"+key+"\nG A B c|d4|]\n")
	}
	tunes = append(tunes, "M:4/4\nL:1/4\nK:Abm\nG A B c|d4|]\n", "M:4/4\nL:1/4\nK:A#m\nG A B c|d4|]\n")
	for n := 1; n <= 64; n *= 2 {
		tunes = append(tunes, fmt.Sprintf("M:4/2\nL:1/64\nK:C\nc%d z%d|c128|]\n", n, 128-n))
	}
	tunes = append(tunes, "M:4/4\nL:1/4\nK:C\nc2 d2-|d4|z4|Z3|c4|]\n")
	for _, text := range tunes {
		s, err := abc.Read(context.Background(), text)
		if err != nil {
			t.Fatalf("%s: %v", text, err)
		}
		for _, i := range instrument.All() {
			r := Read(s, s.Parts[0], "", i, nil, Options{ForPage: true})
			for _, m := range r.Measures {
				if len(m.Lane) == 0 {
					t.Errorf("%s, %s: measure %d has no pulses", text, i.ID, m.Number)
				}
			}
			if len(r.Chunks) == 0 || r.Made == "" {
				t.Errorf("%s, %s: no chunks, or no word of how it was made", text, i.ID)
			}
		}
	}
}
