package breakdown_test

import (
	"context"
	"fmt"
	"slices"
	"testing"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/finger"
	"unhurriedbench/core/format/abc"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
	"unhurriedbench/demo"
)

// Over the demo's book 10 to 20 notes in a hundred carry an alert, for every instrument, at most
// 25 in any exercise of more than 20 notes; what is new is apart.
func TestAPageIsNotFullOfMarks(t *testing.T) {
	book, err := demo.Exercises()
	if err != nil {
		t.Fatal(err)
	}
	for _, target := range instrument.All() {
		met := breakdown.MetIn()
		notes, marks := 0, 0
		for _, x := range book {
			year := 1 + min(x.Number/21, 1)
			r := breakdown.Read(x.Score, x.Score.Parts[0], "", target, met, breakdown.Options{Finger: finger.Options{Year: year}})
			here, marked := 0, 0
			for i, m := range r.Measures {
				for j, e := range m.Events {
					if r.Part.Measures[i].Events[j].Kind != score.Note {
						continue
					}
					here++
					for _, a := range e.Alerts {
						if a != breakdown.New {
							marked++
							break
						}
					}
				}
			}
			if here > 20 && marked*100 > 25*here {
				t.Errorf("%s: %d of %d notes of %d are marked", target.ID, marked, here, x.Number)
			}
			notes, marks = notes+here, marks+marked
			for _, e := range breakdown.Elements(r) {
				met.Add(e)
			}
		}
		if share := 100 * float64(marks) / float64(notes); share < 10 || share > 20 {
			t.Errorf("%s: %.1f of 100 notes are marked", target.ID, share)
		}
	}
}

// Where there is no room for all, signs stay, then the first of each letter that the key
// changes, and hard changes in every line; what is not marked is still minded.
func TestWhatStaysMarked(t *testing.T) {
	// 20 notes, so room for four: a sign in the second line, and the first F sharps and C sharps
	const music = "T:Eased\nM:4/4\nL:1/4\nK:D\nF C F C|F C F C|D E D E|D E D E|F ^G D2|]"
	r := read(t, music, "violin")
	marked, minded := "", 0
	for i, m := range r.Measures {
		for j, e := range m.Events {
			if len(e.Alerts) > 0 && !slices.Equal(e.Alerts, []breakdown.Alert{breakdown.New}) {
				marked += fmt.Sprintf("%d.%d ", i+1, j+1)
			}
			if e.Has(breakdown.InKey) || e.Has(breakdown.Accidental) || e.Has(breakdown.Last) {
				minded++
			}
		}
	}
	if marked != "1.1 1.2 5.1 5.2 " {
		t.Errorf("marked are %s", marked)
	}
	if minded < 5 {
		t.Errorf("%d notes are minded", minded)
	}
}

func read(t *testing.T, music, id string) breakdown.Report {
	t.Helper()
	s, err := abc.Read(context.Background(), music)
	if err != nil {
		t.Fatal(err)
	}
	target, _ := instrument.ByID(id)
	return breakdown.Read(s, s.Parts[0], "", target, nil, breakdown.Options{})
}
