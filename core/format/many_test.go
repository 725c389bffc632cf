package format

import (
	"archive/zip"
	"bytes"
	"context"
	"fmt"
	"strings"
	"testing"
)

// zipped is a .zip of files.
func zipped(t *testing.T, files ...Named) []byte {
	t.Helper()
	var out bytes.Buffer
	z := zip.NewWriter(&out)
	for _, f := range files {
		w, err := z.Create(f.Name)
		if err != nil {
			t.Fatal(err)
		}
		if _, err := w.Write(f.Data); err != nil {
			t.Fatal(err)
		}
	}
	if err := z.Close(); err != nil {
		t.Fatal(err)
	}
	return out.Bytes()
}

// told writes items: name, number, title, what is wrong.
func told(list []Item) string {
	var words []string
	for _, i := range list {
		wrong := ""
		if i.Err != nil {
			wrong = " !" + i.Err.Error()
		}
		words = append(words, fmt.Sprintf("%s #%d %q%s", i.Name, i.Number, i.File.Score.Title, wrong))
	}
	return strings.Join(words, "; ")
}

func TestItems(t *testing.T) {
	const tune = "M:4/4\nL:1/4\nK:C\nC D E F|]\n"
	book := []byte("X:4\nT:Four\n" + tune + "\nX:5\nT:Five\nM:4/4\nL:1/4\nK:C\nC D Q|]\n\nX:4\nT:Four again\n" + tune)
	for _, test := range []struct {
		name  string
		files []Named
		want  string
	}{
		{"one tune", []Named{{"12 Quay.abc", []byte("T:Quay\n" + tune)}}, `12 Quay.abc #12 "Quay"`},
		{
			"a book of tunes, one of them wrong and one numbered twice",
			[]Named{{"book.abc", book}},
			`book.abc, tune 1 #4 "Four"; book.abc, tune 2 #5 "Five" !Line 6, column 5: “Q”`,
		},
		{
			"a zip with what is not music",
			[]Named{{"all.zip", zipped(t, Named{"b/07-tide.abc", []byte("T:Tide\n" + tune)}, Named{"8.counted", []byte("title: Eight\ncount: 1 2 3 4\n")}, Named{"notes.txt", []byte("hello")}, Named{".DS_Store", []byte("x")}, Named{"in.zip", []byte("PK")})}},
			`all.zip, b/07-tide.abc #7 "Tide"; all.zip, 8.counted #8 "Eight"; all.zip, notes.txt #0 "" !This is neither MusicXML nor ABC nor MIDI.`,
		},
		{"two files", []Named{{"a.abc", []byte("T:A\n" + tune)}, {"b.abc", []byte("T:B\n" + tune)}}, `a.abc #0 "A"; b.abc #0 "B"`},
		{"a broken zip", []Named{{"all.zip", []byte("PK\x03\x04")}}, `all.zip #0 "" !The .zip cannot be opened.`},
	} {
		list, err := Items(context.Background(), test.files)
		if err != nil || !strings.HasPrefix(told(list), test.want) {
			t.Errorf("%s: %s %v, want %s", test.name, told(list), err, test.want)
		}
	}
	list, err := Items(context.Background(), []Named{{"book.abc", book}})
	if err != nil || len(list) != 3 || list[2].Number != 0 || !strings.Contains(list[1].File.Text, "C D Q") {
		t.Errorf("of the book %s, %v", told(list), err)
	}
}

// What is brought in together is bounded.
func TestItemsAreBounded(t *testing.T) {
	var many []Named
	for n := range MostItems + 1 {
		many = append(many, Named{fmt.Sprintf("%d.abc", n), []byte("K:C\nC")})
	}
	large := zipped(t, Named{"1.abc", make([]byte, 6<<20)}, Named{"2.abc", make([]byte, 6<<20)}, Named{"3.abc", make([]byte, 6<<20)}, Named{"4.abc", make([]byte, 6<<20)}, Named{"5.abc", make([]byte, 6<<20)})
	tunes := func(n int) []byte { return []byte(strings.Repeat("X:1\nK:C\nC\n\n", n)) }
	for name, files := range map[string][]Named{
		"There is no exercise":           nil,
		"more than 300 tunes":            {{"a.abc", tunes(301)}},
		"holds more than 300 files":      {{"a.zip", zipped(t, many...)}},
		"more than 300 exercises":        {{"a.abc", tunes(200)}, {"b.abc", tunes(200)}},
		"larger than 20 MB together":     {{"a.zip", large}},
		"are larger than 20 MB together": {{"a.mid", make([]byte, 21<<20)}},
	} {
		if _, err := Items(context.Background(), files); err == nil || !strings.Contains(err.Error(), name) {
			t.Errorf("%q: %v", name, err)
		}
	}
	gone, leave := context.WithCancel(context.Background())
	leave()
	if _, err := Items(gone, []Named{{"a.abc", []byte("K:C\nC")}}); err == nil {
		t.Error("it is read for nobody")
	}
}
