package table

import (
	"errors"
	"fmt"
	"strings"
	"testing"
)

// Tables as RFC 4180 has them, and as spreadsheets write them.
func TestRead(t *testing.T) {
	for _, tt := range []struct{ name, text, want string }{
		{"nothing", "", "[]"},
		{"commas", "a,b\r\nc,d\r\n", "[{1 [a b]} {2 [c d]}]"},
		{"no end of the last line", "a,b\nc,d", "[{1 [a b]} {2 [c d]}]"},
		{"lines that end in CR, as old Macintoshes write", "a,b\rc,d\r", "[{1 [a b]} {2 [c d]}]"},
		{"semicolons, as where a comma is a decimal point", "a;b,c\nd;e,f\n", "[{1 [a b,c]} {2 [d e,f]}]"},
		{"tabs, as pasted from a spreadsheet", "a\tb\nc\td, e\n", "[{1 [a b]} {2 [c d, e]}]"},
		{"a line that says what parts", "sep=;\na;b\n", "[{2 [a b]}]"},
		{"quotes: a comma, a quote, a line break", "\"a,b\",\"say \"\"so\"\"\"\n\"two\nlines\",x\ny,z\n", "[{1 [a,b say \"so\"]} {2 [two\nlines x]} {4 [y z]}]"},
		{"semicolons in quotes do not part", "\"a;b;c;d\",e\nf,g\n", "[{1 [a;b;c;d e]} {2 [f g]}]"},
		{"empty lines, and lines of commas alone", "a,b\n\n,,\nc,d\n", "[{1 [a b]} {4 [c d]}]"},
		{"cells that would run", "'=1+1,'-x\n", "[{1 [=1+1 -x]}]"},
		{"spaces around", " a , b \n", "[{1 [a b]}]"},
		{"lines of several lengths", "a\nb,c,d\n", "[{1 [a]} {2 [b c d]}]"},
	} {
		rows, err := Read(tt.text)
		if got := fmt.Sprint(rows); err != nil || got != tt.want {
			t.Errorf("%s: %s, %v, want %s", tt.name, got, err, tt.want)
		}
	}
	for name, text := range map[string]string{
		"Line 2: a quotation mark": "a,b\nc,d\"e\n", "Line 3: a quotation mark": "sep=,\na,b\n\"c,d\n", "more than 2000 lines": strings.Repeat("a,b\n", MostRows+1),
	} {
		var wrong Problem
		if _, err := Read(text); !errors.As(err, &wrong) || !strings.Contains(string(wrong), name) {
			t.Errorf("want %q, it says %v", name, err)
		}
	}
}

// UTF-8 with and without its mark, UTF-16 as spreadsheets write "Unicode text", and
// Windows-1252 are distinguished.
func TestText(t *testing.T) {
	for name, data := range map[string]string{
		"UTF-8": "Zoë,é", "UTF-8 with a mark": "\ufeffZoë,é", "Windows-1252": "Zo\xeb,\xe9", "UTF-16": "\xff\xfeZ\x00o\x00\xeb\x00,\x00\xe9\x00", "UTF-16, the other way": "\xfe\xff\x00Z\x00o\x00\xeb\x00,\x00\xe9",
	} {
		if got, err := Text([]byte(data)); err != nil || got != "Zoë,é" {
			t.Errorf("%s is read as %q, %v", name, got, err)
		}
	}
	for name, data := range map[string]string{"no table of text": "PK\x03\x04\x00\x00", "larger than": strings.Repeat("a", Largest+1)} {
		var wrong Problem
		if _, err := Text([]byte(data)); !errors.As(err, &wrong) || !strings.Contains(string(wrong), name) {
			t.Errorf("want %q, it says %v", name, err)
		}
	}
}

// Nothing that comes in brings the reader down, and what is written is read again.
func FuzzRead(f *testing.F) {
	for _, seed := range []string{"a,b\n", "sep=;\n", "\"", "'=1", "\r\r\n", "a;b\tc,d", "\"a\"\"b\",c"} {
		f.Add(seed)
	}
	f.Fuzz(func(t *testing.T, text string) {
		rows, err := Read(text)
		if err != nil || len(rows) == 0 || len(rows[0].Cells) < 2 {
			return
		}
		var again [][]string
		for _, row := range rows {
			again = append(again, row.Cells)
		}
		if _, err := Read(string(Write([]string{"a", "b", "c", "d", "e", "f", "g", "h"}, again))); err != nil {
			t.Errorf("what was read from %q cannot be read when it is written: %v", text, err)
		}
	})
}
