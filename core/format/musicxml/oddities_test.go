package musicxml

import (
	"context"
	"fmt"
	"strings"
	"testing"

	"unhurriedbench/core/score"
	"unhurriedbench/internal/testscore"
)

// What other programs write and the standard allows.
func TestOddities(t *testing.T) {
	hidden := strings.Replace(quarter("C"), "<note><pitch><step>C</step><octave>4</octave></pitch>", `<note print-object="no"><rest/>`, 1)
	cue := strings.Replace(quarter("G"), "<note>", "<note><cue/>", 1)
	rest := `<note><rest/><duration>4</duration><voice>1</voice></note>`
	restMeasures := fmt.Sprintf(
		`<measure number="1">%s<attributes><measure-style><multiple-rest>3</multiple-rest></measure-style></attributes>%s</measure>`+
			`<measure number="2">%s</measure><measure number="3">%s</measure>`,
		fourFour,
		rest,
		rest,
		rest,
	)
	second := strings.ReplaceAll(strings.Repeat(quarter("E"), 4), "<voice>1", "<voice>2")
	staff := strings.ReplaceAll(strings.Repeat(quarter("C"), 4), "<voice>1</voice>", "<voice>5</voice><staff>2</staff>")
	tests := []struct{ name, measures, want string }{
		{
			"a hidden rest is a rest",
			`<measure number="1">` + fourFour + quarter("C") + hidden + strings.Repeat(quarter("D"), 2) + `</measure>`,
			"C4 z D4 D4",
		},
		{
			"cue notes take their time",
			`<measure number="1">` + fourFour + quarter("C") + cue + strings.Repeat(quarter("D"), 2) + `</measure>`,
			"C4 z D4 D4",
		},
		{"a rest of several measures", restMeasures, "z z z"},
		{
			"the second voice first",
			`<measure number="1">` + fourFour + second + `<backup><duration>4</duration></backup>` + strings.Repeat(quarter("C"), 4) + `</measure>`,
			"C4 C4 C4 C4",
		},
		{
			"a second staff",
			`<measure number="1">` + fourFour + strings.Repeat(quarter("G"), 4) + `<backup><duration>4</duration></backup>` + staff + `</measure>`,
			"G4 G4 G4 G4",
		},
		{
			"divisions that change inside",
			`<measure number="1">` + fourFour + strings.Repeat(quarter("C"), 2) + `<attributes><divisions>2</divisions></attributes>` +
				strings.Repeat(strings.Replace(quarter("D"), "<duration>1", "<duration>2", 1), 2) + `</measure>`,
			"C4 C4 D4 D4",
		},
		{"an empty measure rests", `<measure number="1">` + fourFour + `</measure>`, "z"},
		{
			"no voice and no type",
			`<measure number="1">` + fourFour + strings.Repeat(
				`<note><pitch><step>A</step><octave>4</octave></pitch><duration>2</duration></note>`,
				2,
			) + `</measure>`,
			"A4 A4",
		},
		{
			"quarter tones are refused",
			`<measure number="1">` + fourFour + strings.Replace(
				strings.Repeat(quarter("C"), 4),
				"</step>",
				"</step><alter>0.5</alter>",
				1,
			) + `</measure>`,
			"Measure 1, note 1: its pitch",
		},
	}
	for _, tt := range tests {
		s, err := Read(context.Background(), []byte(partwise(tt.measures)))
		if err != nil {
			if !strings.Contains(err.Error(), tt.want) {
				t.Errorf("%s: %v", tt.name, err)
			}
			continue
		}
		var words []string
		for _, m := range s.Parts[0].Measures {
			for _, e := range m.Events {
				word := "z"
				if e.Kind == score.Note {
					word = e.Pitch.String()
				}
				words = append(words, word)
			}
		}
		if got := strings.Join(words, " "); got != tt.want {
			t.Errorf("%s: %s, want %s", tt.name, got, tt.want)
		}
	}
}

func TestALongScoreOfManyParts(t *testing.T) {
	s, err := Read(context.Background(), Write(testscore.Long(t)))
	if err != nil {
		t.Fatal(err)
	}
	if len(s.Parts) != 12 || len(s.Parts[11].Measures) < 250 {
		t.Errorf("%d parts, the last of %d measures", len(s.Parts), len(s.Parts[11].Measures))
	}
}

func BenchmarkReadThirtyPages(b *testing.B) {
	data := Write(testscore.Long(b))
	b.SetBytes(int64(len(data)))
	for b.Loop() {
		if _, err := Read(context.Background(), data); err != nil {
			b.Fatal(err)
		}
	}
}
