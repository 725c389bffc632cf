// Package core holds the judgement; this test keeps it free of pages and tables.
package core

import (
	"go/parser"
	"go/token"
	"io/fs"
	"path/filepath"
	"strings"
	"testing"
)

func TestCoreKnowsNothingOfPagesOrTables(t *testing.T) {
	forbidden := []string{"net/http", "database/sql", "html/template", "text/template",
		"unhurriedbench/store", "unhurriedbench/web", "github.com/jmoiron/sqlx", "github.com/jackc/pgx"}
	files := 0
	err := filepath.WalkDir(".", func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
			return err
		}
		files++
		parsed, err := parser.ParseFile(token.NewFileSet(), path, nil, 0)
		if err != nil {
			return err
		}
		for _, imported := range parsed.Imports {
			name := strings.Trim(imported.Path.Value, `"`)
			for _, bad := range forbidden {
				if name == bad || strings.HasPrefix(name, bad+"/") {
					t.Errorf("%s imports %s", path, name)
				}
			}
		}
		ast := parsed.Scope.Lookup("init")
		if ast != nil {
			t.Errorf("%s has an init function", path)
		}
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
	if files < 20 {
		t.Errorf("only %d files were looked at", files)
	}
}
