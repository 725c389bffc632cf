package music

import (
	"go/ast"
	"go/parser"
	"go/token"
	"os"
	"strconv"
	"strings"
	"testing"

	"unhurriedbench/core/breakdown"
)

// kinds lists the values of the constants of a type in a file.
func kinds(t *testing.T, path, typeName string) []string {
	t.Helper()
	file, err := parser.ParseFile(token.NewFileSet(), path, nil, 0)
	if err != nil {
		t.Fatal(err)
	}
	var list []string
	ast.Inspect(file, func(n ast.Node) bool {
		if s, ok := n.(*ast.ValueSpec); ok {
			if of, ok := s.Type.(*ast.Ident); ok && of.Name == typeName {
				for _, v := range s.Values {
					text, err := strconv.Unquote(v.(*ast.BasicLit).Value)
					if err != nil {
						t.Fatal(err)
					}
					list = append(list, text)
				}
			}
		}
		return true
	})
	return list
}

// An alert that is new needs a word for the page and a line in the docs.
func TestEveryAlertHasItsWord(t *testing.T) {
	t.Parallel()
	docs, err := os.ReadFile("../../docs/inspect.md")
	if err != nil {
		t.Fatal(err)
	}
	list := kinds(t, "../../core/breakdown/report.go", "Alert")
	if len(list) < 13 {
		t.Fatalf("the alerts are %v", list)
	}
	said := map[string]string{}
	for _, kind := range list {
		word := AlertWord(breakdown.Alert(kind))
		if word == kind && kind != "trap" && kind != "new" {
			t.Errorf("the alert %s has no word in AlertWord", kind)
		}
		if said[word] != "" {
			t.Errorf("the alerts %s and %s are both called %q", said[word], kind, word)
		}
		said[word] = kind
		if !strings.Contains(string(docs), "| `"+kind+"` |") {
			t.Errorf("the alert %s has no line in docs/inspect.md", kind)
		}
	}
}
