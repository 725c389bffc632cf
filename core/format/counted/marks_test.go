package counted

import (
	"context"
	"strings"
	"testing"

	"unhurriedbench/core/score"
)

// Worked by hand: what stands on which note of 1 2 3 4 | (1) 2 3 4.
func TestMarks(t *testing.T) {
	for _, test := range []struct {
		marks, want string
		wrong       string
	}{
		{"1.1 accent", "1.1 accent", ""},
		{"2.1 staccato", "2.1 staccato", ""}, // the tied note is not struck: the first is on 2
		{"1.1-2.1 staccato", "1.1-1.4 staccato, 2.1 staccato", ""},
		{"1.1 mf \"with, spirit\"\n2.3 fermata breath", "1.1 mf \"with, spirit\", 2.3 breath fermata", ""},
		{"1.1-1.3 f", "1.1 f", ""},
		{"1.2 up, 1.3 down, 1.2 up", "1.2 up, 1.3 down", ""},
		{"1.1-2.1 crescendo, 2.2 diminuendo", "1.1-2.1 crescendo, 2.2 diminuendo", ""},
		{"1.1-1.3 p crescendo accent", "1.1 p accent, 1.2-1.3 accent, 1.1-1.3 crescendo", ""},
		{"1.1-1.3 crescendo, 1.3-2.2 diminuendo", "1.1-1.3 crescendo, 1.3-2.2 diminuendo", ""},
		{"", "", ""},
		{"1.5 accent", "", "There is no note 5 in measure 1"},
		{"3.1 accent, 1.2 tenuto", "1.2 tenuto", "There is no note 1 in measure 3"},
		{"1.2", "", "1.2 has no mark"},
		{"1.2 loudly", "", "\"loudly\" is no mark"},
		{"here accent", "", "\"here\" is no note of a measure"},
		{"1.3-1.2 accent", "", "is no note of a measure"},
		{"1.2 slur", "", "A slur is over two notes"},
		{"1.1 \"open", "", "is not closed"},
	} {
		e := Entry{Count: "1 2 3 4 | (1) 2 3 4", Name: "gabc bag", Marks: test.marks}
		d := e.Draft(context.Background())
		var wrong []string
		for _, m := range d.Marks {
			wrong = append(wrong, m.What)
			if m.Field != "marks" || m.To <= m.From || m.To > len([]rune(test.marks)) {
				t.Errorf("%q is marked in %s from %d to %d", test.marks, m.Field, m.From, m.To)
			}
		}
		said := strings.Join(wrong, " ")
		if got := marksOf(d.Score.Parts[0]); got != test.want || test.wrong == "" && said != "" || !strings.Contains(said, test.wrong) {
			t.Errorf("%q gives %q, %s; want %q, %s", test.marks, got, said, test.want, test.wrong)
		}
		_, err := Read(context.Background(), e.String())
		if test.wrong == "" && err != nil || test.wrong != "" && (err == nil || !strings.Contains(err.Error(), test.wrong)) {
			t.Errorf("%q is read with %v", test.marks, err)
		}
	}
	d := Entry{Count: "1 2 3 4", Name: "gabc", Marks: "1.2-1.4 slur"}.Draft(context.Background())
	if e := d.Score.Parts[0].Measures[0].Events; e[1].SlurStarts != 1 || e[3].SlurEnds != 1 || e[2].SlurEnds != 0 {
		t.Error("the slur is not from the second note to the fourth")
	}
}

// Pressing a mark puts it on, pressing it again takes it off; what is typed beside it stays.
func TestToggle(t *testing.T) {
	for _, test := range []struct{ text, from, to, word, want string }{
		{"", "1.1", "1.1", "accent", "1.1 accent"},
		{"1.1 accent", "1.1", "1.1", "accent", ""},
		{"", "1.1", "2.2", "staccato", "1.1-1.4 staccato, 2.1-2.2 staccato"},
		{"1.1-2.2 staccato", "1.3", "1.4", "staccato", "1.1-1.2 staccato, 2.1-2.2 staccato"},
		{"1.1 staccato", "1.1", "1.2", "staccato", "1.1-1.2 staccato"},
		{"1.1 p", "1.1", "1.4", "mf", "1.1 mf"},
		{"1.1 up", "1.1", "1.1", "down", "1.1 down"},
		{"1.1 mf", "1.1", "1.1", "\"warmly\"", "1.1 mf \"warmly\""},
		{"1.1 \"warmly\"", "1.1", "1.1", "\"coldly\"", "1.1 \"coldly\""},
		{"", "1.1", "1.4", "breath", "1.4 breath"},
		{"", "1.1", "1.4", "slur", "1.1-1.4 slur"},
		{"1.1-1.4 slur, 2.1 accent", "1.1", "1.4", "slur", "2.1 accent"},
		{"", "1.1", "1.1", "slur", ""},
		{"", "1.1", "1.4", "crescendo", "1.1-1.4 crescendo"},
		{"1.1-1.4 slur, 1.1-1.4 crescendo", "1.1", "1.4", "diminuendo", "1.1-1.4 slur, 1.1-1.4 diminuendo"},
		{"1.1-1.4 slur, 1.1-1.4 diminuendo", "1.1", "1.4", "diminuendo", "1.1-1.4 slur"},
		{"", "1.2", "1.2", "diminuendo", "1.2 diminuendo"},
		{"1.1 oops", "1.2", "1.3", "accent", "1.1 oops, 1.2-1.3 accent"},
		{"1.1 accent", "9.1", "9.2", "accent", "1.1 accent"},
		{"1.1 accent", "1.2", "1.2", "nonsense", "1.1 accent"},
	} {
		from, _ := ParseNotePlace(test.from)
		to, _ := ParseNotePlace(test.to)
		e := Entry{Count: "1 2 3 4 | 1 2 3 4", Name: "gabc bagf", Marks: test.text}
		d := e.Toggle(context.Background(), from, to, test.word)
		if e.Marks != test.want {
			t.Errorf("%q on %s-%s of %q gives %q, want %q", test.word, test.from, test.to, test.text, e.Marks, test.want)
		}
		if again := e.Draft(context.Background()); len(again.Marks) != len(d.Marks) || marksOf(again.Score.Parts[0]) != marksOf(d.Score.Parts[0]) {
			t.Errorf("%q is drawn other than it stands", e.Marks)
		}
	}
	if marks := (Entry{Count: "1", Marks: strings.Repeat("1.1 x, ", 100)}).Draft(context.Background()).Marks; len(marks) > mostMarks+1 {
		t.Errorf("%d marks", len(marks))
	}
	for _, e := range []Entry{{Count: "1", Marks: strings.Repeat("1.1 up,", mostMarkings+1)}, {Count: "1", Marks: strings.Repeat("1.1 up up ", 20_000)}} {
		if d := e.Draft(context.Background()); len(d.Marks) != 1 {
			t.Errorf("a marks line without end has %d marks", len(d.Marks))
		}
		if _, err := Read(context.Background(), e.String()); err == nil {
			t.Error("a marks line without end is read")
		}
	}
	if s := marksOf(score.Part{}); s != "" {
		t.Errorf("nothing is marked %q", s)
	}
}
