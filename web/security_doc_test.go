package web_test

import (
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
)

// Every test that the table of what is checked names is there.
func TestTheTableOfWhatIsChecked(t *testing.T) {
	t.Parallel()
	table, err := os.ReadFile("../docs/security.md")
	if err != nil {
		t.Fatal(err)
	}
	var tests strings.Builder
	for _, pattern := range []string{"../*/*_test.go", "../*/*/*_test.go", "../*/*/*/*_test.go"} {
		names, err := filepath.Glob(pattern)
		if err != nil {
			t.Fatal(err)
		}
		for _, name := range names {
			text, err := os.ReadFile(name)
			if err != nil {
				t.Fatal(err)
			}
			tests.Write(text)
		}
	}
	named := regexp.MustCompile(`Test[A-Z]\w+`).FindAllString(string(table), -1)
	if len(named) < 40 {
		t.Errorf("the table names only %d tests", len(named))
	}
	for _, name := range named {
		if !strings.Contains(tests.String(), "func "+name+"(t *testing.T)") {
			t.Errorf("the table names %s, which is not there", name)
		}
	}
}
