package counted

import (
	"context"
	"fmt"
	"strings"
	"testing"

	"unhurriedbench/core/name"
	"unhurriedbench/core/score"
)

// said writes the marks of a draft: the field, the text that is marked, the measure, and what
// is wrong.
func said(e Entry, d Draft) string {
	var list []string
	for _, m := range d.Marks {
		text := map[string]string{"count": e.Count, "name": e.Name, "key": e.Key, "meter": e.Meter}[m.Field]
		list = append(list, fmt.Sprintf("%s %q in %d: %s", m.Field, string([]rune(text)[m.From:m.To]), m.At, m.What))
	}
	return strings.Join(list, "; ")
}

// What is wrong is marked where it stands, and the rest is read all the same; worked by hand.
func TestDraftsMarkWhatIsWrong(t *testing.T) {
	for _, test := range []struct {
		entry       Entry
		want, marks string
	}{
		{Entry{Count: "1 2 3 4 | 1 2 & 3 5 | 1 3"}, "B4:1/4 B4:1/4 B4:1/4 B4:1/4 | B4:1/4 B4:1/8 B4:1/8 B4:1/2 | B4:1/2 B4:1/2 |", `count "1 2 & 3 5" in 1: 4/4 has no beat 5.`},
		{Entry{Count: "1 2 3"}, "B4:1/4 B4:1/4 B4:1/2 |", ""},
		{Entry{Count: "1 (2"}, "B4:1 |", `count "1 (2" in 0: A bracket is not closed.`},
		{Entry{Count: "(1) 2 | 1"}, "z:1/4 B4:3/4 | B4:1 |", `count "(1) 2" in 0: Nothing is held into this measure.`},
		{Entry{Count: "1 | 3"}, "B4:1 | z:1/2 B4:1/2 |", `count "3" in 1: The measure does not begin on 1.`},
		{Entry{Count: "1 2 3 4 | 1 3", Name: "gab"}, "G4:1/4 A4:1/4 B4:1/4 B4:1/4 | B4:1/2 B4:1/2 |", ""},
		{Entry{Count: "1 3 | 1 3", Name: "gab | cd"}, "G4:1/2 A4:1/2 | C5:1/2 D5:1/2 |", `name "|" in 0: 2 notes are counted and 3 named.`},
		{Entry{Count: "1 3 | 1 3", Name: "g | cd"}, "G4:1/2 G4:1/2 | C5:1/2 D5:1/2 |", `name "|" in 0: 2 notes are counted and 1 named.`},
		{Entry{Count: "1 3", Name: "gh a"}, "G4:1/2 A4:1/2 |", `name "h" in 0: "h" is no note.`},
		{Entry{Count: "1 3", Name: "gabcd"}, "G4:1/2 A4:1/2 |", `name "bcd" in -1: 2 notes are counted, and more are named.`},
		{Entry{Count: "1 3", Key: "H", Name: "bc"}, "B4:1/2 C5:1/2 |", `key "H" in -1: "H" is no key.`},
		{Entry{Count: "1 2 3\n1 2 5 | 1", Meter: "3/4", Key: "F", Name: "bcd bc a"}, "Bb4:1/4 C5:1/4 D5:1/4 | Bb4:1/4 C5:1/2 | A4:3/4 |", `count "1 2 5" in 1: 3/4 has no beat 5.`},
		{Entry{Count: "hello"}, "", `count "hello" in -1: "hello" is not counted.`},
		{Entry{Name: "gab"}, "", ""},
	} {
		d := test.entry.Draft(context.Background())
		got := ""
		if len(d.Score.Parts) > 0 {
			got = shown(d.Score.Parts[0])
		}
		if got != test.want || said(test.entry, d) != test.marks {
			t.Errorf("%q, %q:\n%s\n%s\nwant\n%s\n%s", test.entry.Count, test.entry.Name, got, said(test.entry, d), test.want, test.marks)
		}
	}
}

// The name line in other languages; worked by hand. Source: common practice.
func TestNamesInOtherSystems(t *testing.T) {
	for _, test := range []struct {
		names     name.System
		key, text string
		want      string
	}{
		{name.FixedDo, "C", "do re mi fa", "C5 D5 E5 F5"},
		{name.FixedDo, "F", "solasido", "G4 A4 Bb4 C5"},
		{name.FixedDo, "G", "so la ti- do", "G4 A4 Bb4 C5"},
		{name.FixedDo, "G", "fa mi re do", "F#4 E4 D4 C4"},
		{name.German, "C", "c h b a", "C5 B4 Bb4 A4"},
		{name.German, "F", "a b h c", "A4 Bb4 B4 C5"},
		{name.German, "Bb", "es d c b", "Eb5 D5 C5 Bb4"},
		{name.German, "A", "cis d e fis", "C#5 D5 E5 F#5"},
		{name.German, "C", "as g f es", "Ab4 G4 F4 Eb4"},
		{name.German, "C", "deses d his c", "Dbb5 Dbb5 B#4 C5"},
		{name.German, "C", "h# h= h- a", "B#4 B4 Bb4 A4"},
	} {
		d := Entry{Count: "1 2 3 4", Name: test.text, Names: test.names, Key: test.key}.Draft(context.Background())
		var got []string
		for _, e := range d.Score.Parts[0].Measures[0].Events {
			got = append(got, e.Pitch.String())
		}
		if strings.Join(got, " ") != test.want || len(d.Marks) > 0 {
			t.Errorf("%s %q: %v %v, want %s", test.names, test.text, got, d.Marks, test.want)
		}
	}
	d := Entry{Count: "1", Name: "x", Names: name.FixedDo}.Draft(context.Background())
	if len(d.Marks) != 1 || !strings.Contains(d.Marks[0].Do, "do re mi") {
		t.Errorf("%v", d.Marks)
	}
}

// What is typed without end is bounded, and so is what is said of it.
func TestDraftsAreBounded(t *testing.T) {
	d := Entry{Count: strings.Repeat("1 x | 1 y | ", 60)}.Draft(context.Background())
	if len(d.Marks) != mostMarks || len(d.Score.Parts[0].Measures) != 120 {
		t.Errorf("%d marks in %d measures", len(d.Marks), len(d.Score.Parts[0].Measures))
	}
	for _, e := range []Entry{{Count: strings.Repeat("1 ", 60_000)}, {Count: "1", Name: strings.Repeat("c ", 60_000)}, {Count: strings.Repeat("1 ", 40_000)}} {
		if d := e.Draft(context.Background()); len(d.Marks) != 1 {
			t.Errorf("%d marks", len(d.Marks))
		}
		if _, err := Read(context.Background(), e.String()); err == nil {
			t.Error("a line without end is read")
		}
	}
}

// How far the names have come.
func TestDraftsSayWhatHasNoName(t *testing.T) {
	for _, test := range []struct {
		name string
		want string
	}{{"", "[]"}, {"ga", "[{0 2} {1 0} {1 1}]"}, {"gab | c", "[{1 1}]"}, {"ga | cd", "[{0 2}]"}, {"gab | cd", "[]"}} {
		d := Entry{Count: "1 2 3 | 1 3", Name: test.name}.Draft(context.Background())
		if got := fmt.Sprint(d.Unnamed); got != test.want || d.Struck != 5 {
			t.Errorf("%q: %s of %d, want %s of 5", test.name, got, d.Struck, test.want)
		}
	}
}

// A draft that is done is what the file is read as, and whatever is typed before engraves.
func TestDraftsOnTheWay(t *testing.T) {
	whole := Entry{Meter: "4/4", Key: "F", For: "clarinet", Tempo: "quarter = 72", Count: "4 | 1 2 3 4 | 1 & 2 3 | |: 1 (2) & 3 [4] | =1 :| (1) 3", Name: "c | gabc | cbag | (ga)b | g' abc | d"}
	s, err := Read(context.Background(), whole.String())
	if err != nil {
		t.Fatal(err)
	}
	d := whole.Draft(context.Background())
	if len(d.Marks) > 0 || shown(d.Score.Parts[0]) != shown(s.Parts[0]) || d.Score.Tempo != s.Tempo {
		t.Errorf("the draft is %s with %v, the file %s", shown(d.Score.Parts[0]), d.Marks, shown(s.Parts[0]))
	}
	for n := range whole.Count {
		e := whole
		e.Count = whole.Count[:n]
		if d := e.Draft(context.Background()); n > 0 && len(d.Score.Parts) == 0 {
			t.Errorf("%q does not engrave: %v", e.Count, d.Marks)
		}
	}
	for n := range whole.Name {
		e := whole
		e.Name = whole.Name[:n]
		d := e.Draft(context.Background())
		if len(d.Score.Parts) == 0 || rhythmOf(d.Score.Parts[0]) != rhythmOf(s.Parts[0]) {
			t.Errorf("%q changes the rhythm", e.Name)
		}
	}
}

func rhythmOf(p score.Part) string {
	var words []string
	for _, m := range p.Measures {
		for _, e := range m.Events {
			words = append(words, e.Start.String(), e.Length.String())
		}
	}
	return strings.Join(words, " ")
}

// A file and what is typed are one.
func TestParse(t *testing.T) {
	e, err := Parse("Title: Second Ferry\nkey: F\ncount: 1 2\n 3 4\nname: gabc\n")
	if want := (Entry{Title: "Second Ferry", Key: "F", Count: "1 2\n 3 4", Name: "gabc"}); err != nil || e != want {
		t.Errorf("%+v, %v", e, err)
	}
	if again, err := Parse(e.String()); err != nil || again.Count != "1 2 3 4" || again.Title != e.Title {
		t.Errorf("%+v, %v", again, err)
	}
}

// Whatever is typed, a draft adds up, and where a file is read, it is the same.
func FuzzDraft(f *testing.F) {
	f.Add("1 2 3 4 | 1 (2) & 3 [4]", "gabc|gab")
	f.Add("1 5 (2] | =4 | (1) ) e &", "h(a|b))9c'#")
	f.Fuzz(func(t *testing.T, counted, named string) {
		e := Entry{Count: counted, Name: named}
		d := e.Draft(context.Background())
		for _, m := range d.Marks {
			text := map[string]string{"count": counted, "name": named}[m.Field]
			if m.From < 0 || m.To < m.From || m.To > len([]rune(text)) {
				t.Fatalf("%q %q: marked from %d to %d", counted, named, m.From, m.To)
			}
		}
		if len(d.Score.Parts) == 0 {
			return
		}
		for _, m := range d.Score.Parts[0].Measures {
			sum := score.Fraction{}
			for _, e := range m.Events {
				sum = sum.Add(e.Length)
			}
			if sum != m.Length || m.Meter.Length().Less(sum) {
				t.Fatalf("%q: measure %d holds %s of %s", counted, m.Number, sum, m.Meter.Length())
			}
		}
	})
}
