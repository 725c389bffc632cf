package finger

import (
	"encoding/json"
	"testing"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
)

// What pages draw of a fingering, one of each kind.
func TestDraw(t *testing.T) {
	tests := []struct{ id, note, text, want string }{
		{"trumpet", "D4", "1-3", `{"label":"1-3","down":["1","3"],"string":0,"up":0}`},
		{"trumpet", "C4", "0", `{"label":"0","string":0,"up":0}`},
		{"horn-double", "A4", "T1-2", `{"label":"T1-2","down":["T","1","2"],"string":0,"up":0}`},
		{"trombone", "G4", "2+", `{"label":"2+","slide":2,"raised":true,"string":0,"up":0}`},
		{"trombone-f", "C3", "F1", `{"label":"F1","slide":1,"held":true,"string":0,"up":0}`},
		{"violin", "Bb4", "A L1", `{"string":2,"up":1,"finger":"L1","chip":"A"}`},
		{"violin", "E5", "E0", `{"string":3,"up":0,"finger":"0","chip":"E"}`},
		{"bass", "F2", "E1(half)", `{"string":0,"up":1,"finger":"1","chip":"E ½"}`},
		{"cello", "C#3", "G x4", `{"string":1,"up":6,"finger":"x4","chip":"G"}`},
		{
			"flute",
			"Bb4",
			"T 1 | 4 Eb",
			`{"string":0,"up":0,"keys":[3,9,28,40],"holes":[true,false,false,true,false,false],"thumb":true,"right":["E♭"]}`,
		},
		{
			"flute",
			"Bb4",
			"TBb 1 | Eb",
			`{"string":0,"up":0,"keys":[4,9,40],"holes":[true,false,false,false,false,false],"thumb":true,"byIt":"B♭","right":["E♭"]}`,
		},
		{"oboe", "D5", "half 2 3 | 4 5 6", `{"string":0,"up":0,"keys":[8,11,12,28,29,30],"holes":[false,true,true,true,true,true],"half":true}`},
		{
			"clarinet",
			"B4",
			"T R 1 2 3 L-E | 4 5 6",
			`{"string":0,"up":0,"keys":[3,5,9,11,12,14,28,29,30],"holes":[true,true,true,true,true,true],"thumb":true,"byIt":"R","left":["E"]}`,
		},
		{"clarinet", "A4", "A |", `{"string":0,"up":0,"keys":[6],"left":["A"]}`},
		{"alto-sax", "Eb6", "oct palmD palmEb |", `{"string":0,"up":0,"keys":[0,19,20],"thumb":true,"byIt":"8","left":["pD","pE♭"]}`},
		{
			"bassoon",
			"E2",
			"W 1 2 3 | pancakeE 4 5 6 F",
			`{"string":0,"up":0,"keys":[0,10,11,12,16,20,21,22,23],"holes":[true,true,true,true,true,true],"thumb":true,"byIt":"W","right":["E","F"]}`,
		},
		{"bells", "F#4", "F#4", `{"label":"F♯4","string":0,"up":0}`},
		{"bells", "Bb4", "Bb4", `{"label":"B♭4","string":0,"up":0}`},
		{"timpani", "C3", "29", `{"label":"29","string":0,"up":0}`},
	}
	for _, tt := range tests {
		i, _ := instrument.ByID(tt.id)
		p := score.MustPitch(tt.note)
		c, _ := For(i, p)
		if !c.Has(tt.text) {
			t.Errorf("%s %s has no way %q; it has %v", tt.id, tt.note, tt.text, c.Ways())
			continue
		}
		got, err := json.Marshal(Draw(i, p, c.way(tt.text)))
		if err != nil || string(got) != tt.want {
			t.Errorf("%s %s, %q is drawn from\n%s, want\n%s", tt.id, tt.note, tt.text, got, tt.want)
		}
	}
	snare, _ := instrument.ByID("snare")
	if got := Draw(snare, score.Pitch{}, struck("R", 3)); got.Small != "lrl" || got.Stroke != "R" {
		t.Errorf("a ruff is drawn %+v", got)
	}
}

// Every way of every note of every instrument says the same taken apart as spelled: no
// two ways of one note have one shape, and none that differ have one text.
func TestShapesAndTextsAgree(t *testing.T) {
	for _, i := range instrument.All() {
		if i.Unpitched() || i.Mechanism == instrument.Bars {
			continue
		}
		texts, shapes := map[string]Shape{}, map[Shape]string{}
		for midi := i.Lowest.MIDI(); midi <= i.Highest.MIDI(); midi++ {
			for _, p := range spellings(midi) {
				c, ok := For(i, p)
				if !ok {
					t.Fatalf("%s: no fingering of %s", i.ID, p)
				}
				for _, f := range c.Ways() {
					if known, seen := texts[f.Text]; seen && known != f.Shape {
						t.Errorf("%s: %q is %+v and %+v", i.ID, f.Text, known, f.Shape)
					}
					if known, seen := shapes[f.Shape]; seen && known != f.Text {
						t.Errorf("%s: %+v is spelled %q and %q", i.ID, f.Shape, known, f.Text)
					}
					texts[f.Text], shapes[f.Shape] = f.Shape, f.Text
				}
			}
		}
	}
}
