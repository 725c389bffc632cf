package table

import (
	"bytes"
	"encoding/csv"
	"slices"
	"strings"
	"testing"
)

// RFC 4180: lines end in CR LF, a cell with a comma, a quote or a line break stands in quotes,
// a quote in it is doubled. And no cell is one that a spreadsheet runs.
func TestWrite(t *testing.T) {
	rows := [][]string{
		{"Ines", "plain"}, {"a,b", `say "so"`}, {"two\nlines", ""}, {"=1+1", "-2"}, {"+x", "@y"}, {"\tz", "'quoted"}, {"é", " spaced "},
	}
	got := Write([]string{"who", "what"}, rows)
	want := strings.Join([]string{
		"who,what", "Ines,plain", `"a,b","say ""so"""`, "\"two\nlines\",", "'=1+1,'-2", "'+x,'@y", "'\tz,''quoted", "é,\" spaced \"", "",
	}, "\r\n")
	if want = strings.Replace(want, "two\nlines", "two\r\nlines", 1); string(got) != want {
		t.Errorf("the table is\n%q, want\n%q", got, want)
	}
	back, err := csv.NewReader(bytes.NewReader(got)).ReadAll()
	if err != nil || len(back) != len(rows)+1 {
		t.Fatalf("read again it has %d lines, %v", len(back), err)
	}
	for k, row := range rows {
		for i := range row {
			if read := Typed(back[k+1][i]); read != row[i] {
				t.Errorf("%q comes back as %q", row[i], read)
			}
		}
	}
	if slices.Contains([]string{Plain(""), Plain("a")}, "'") {
		t.Error("a plain cell is changed")
	}
}
