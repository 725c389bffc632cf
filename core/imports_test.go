// Package core holds the judgement; this test keeps it free of pages, tables and
// clocks, and the house free of switches on an instrument's id.
package core

import (
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"testing"

	"unhurriedbench/core/instrument"
)

// sources calls do with every Go file of some folders that is no test.
func sources(t *testing.T, do func(path string, file *ast.File), folders ...string) {
	t.Helper()
	files := 0
	for _, folder := range folders {
		err := filepath.WalkDir(folder, func(path string, d fs.DirEntry, err error) error {
			if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
				return err
			}
			files++
			parsed, err := parser.ParseFile(token.NewFileSet(), path, nil, 0)
			if err == nil {
				do(path, parsed)
			}
			return err
		})
		if err != nil {
			t.Fatal(err)
		}
	}
	if files < 20 {
		t.Errorf("only %d files were looked at", files)
	}
}

// misplaced lists what does not belong in a file of core: an import, or an init.
func misplaced(file *ast.File) []string {
	forbidden := []string{
		"net/http", "database/sql", "html/template", "text/template", "time", "os", "math/rand", "crypto/rand", "log", "context",
		"unhurriedbench/store", "unhurriedbench/web", "unhurriedbench/reading", "unhurriedbench/demo",
		"github.com/jmoiron/sqlx", "github.com/jackc/pgx",
	}
	var found []string
	for _, imported := range file.Imports {
		name := strings.Trim(imported.Path.Value, `"`)
		if slices.ContainsFunc(forbidden, func(bad string) bool { return name == bad || strings.HasPrefix(name, bad+"/") }) {
			found = append(found, "imports "+name)
		}
	}
	for _, d := range file.Decls {
		if f, ok := d.(*ast.FuncDecl); ok && f.Name.Name == "init" && f.Recv == nil {
			found = append(found, "has an init function")
		}
	}
	return found
}

// parsed is a file that a check is tried on.
func parsed(t *testing.T, source string) *ast.File {
	t.Helper()
	file, err := parser.ParseFile(token.NewFileSet(), "bad.go", source, 0)
	if err != nil {
		t.Fatal(err)
	}
	return file
}

// readsClock says whether a file asks what time it is, or waits.
func readsClock(file *ast.File) bool {
	reads := false
	ast.Inspect(file, func(n ast.Node) bool {
		s, ok := n.(*ast.SelectorExpr)
		if !ok {
			return true
		}
		of, ok := s.X.(*ast.Ident)
		reads = reads || ok && of.Name == "time" && slices.Contains([]string{"Now", "Since", "Until", "Sleep", "After", "AfterFunc", "Tick", "NewTimer", "NewTicker", "Local"}, s.Sel.Name)
		return true
	})
	return reads
}

func TestCoreKnowsNothingOfPagesTablesOrClocks(t *testing.T) {
	sources(t, func(path string, file *ast.File) {
		for _, what := range misplaced(file) {
			if what == "imports context" && strings.HasPrefix(path, "format/") {
				continue // a reader stops when nobody waits for what it reads
			}
			if what == "imports time" && strings.HasPrefix(path, "card/") && !readsClock(file) {
				continue // cards come back on dates, which are given
			}
			t.Errorf("%s %s", path, what)
		}
	}, ".")
	// The check sees what it is for.
	bad := "package p\nimport (\n\"time\"\n_ \"unhurriedbench/store\"\n)\nfunc init() { time.Now() }\n"
	if got := misplaced(parsed(t, bad)); len(got) != 3 {
		t.Errorf("of a clock, a table and an init it finds %v", got)
	}
	if !readsClock(parsed(t, bad)) || readsClock(parsed(t, "package p\nimport \"time\"\nvar day = 24 * time.Hour\n")) {
		t.Error("a clock that is read is not told from a length of time")
	}
}

// named lists where a file says an instrument's id: what an instrument can do is said by
// traits, in the catalogue. The bass is also a clef and is left aside where it stands
// alone.
func named(file *ast.File) []string {
	var ids []string
	for _, i := range instrument.All() {
		ids = append(ids, i.ID)
	}
	var found []string
	ast.Inspect(file, func(n ast.Node) bool {
		switch n := n.(type) {
		case *ast.ImportSpec:
			return false
		case *ast.BasicLit:
			text, err := strconv.Unquote(n.Value)
			if err == nil && n.Kind == token.STRING && text != "bass" && slices.Contains(ids, text) {
				found = append(found, n.Value)
			}
		case *ast.CallExpr: // strings.HasPrefix(i.ID, "euphonium")
			called, ok := n.Fun.(*ast.SelectorExpr)
			if !ok || !strings.HasPrefix(called.Sel.Name, "Has") && called.Sel.Name != "Contains" || len(n.Args) == 0 {
				break
			}
			if of, ok := n.Args[0].(*ast.SelectorExpr); ok && of.Sel.Name == "ID" {
				found = append(found, "a part of an ID")
			}
		}
		return true
	})
	return found
}

func TestNobodyAsksForAnInstrumentByItsID(t *testing.T) {
	sources(t, func(path string, file *ast.File) {
		catalogue := strings.HasPrefix(path, "instrument/")
		example := path == "../cmd/unhurried/inspect.go" // whose flag has a default
		if got := named(file); len(got) > 0 && !catalogue && !example {
			t.Errorf("%s names %v: ask for a trait of the instrument, and say it in the catalogue", path, got)
		}
	}, ".", "../web", "../teach", "../reading", "../store", "../cmd")
	bad := "package p\nfunc f() { _ = i.ID == \"bassoon\" || strings.HasSuffix(i.ID, \"clarinet\") }\n"
	if got := named(parsed(t, bad)); len(got) != 3 {
		t.Errorf("of three namings it finds %v", got)
	}
}

// floors are the packages from the ground up: each may know those below it, and none beside
// it or above. Rooms are on one floor, so that none knows another.
var floors = []struct {
	folders []string
	beside  bool // packages of this floor may know each other
}{
	{[]string{"core"}, true},
	{[]string{"internal/table", "internal/midicheck"}, false},
	{[]string{"store"}, false},
	{[]string{"reading"}, false},
	{[]string{"archive", "demo", "teach"}, false},
	{[]string{"simulate"}, false},
	{[]string{"web/site"}, false},
	{[]string{"web/music", "web/outbox"}, false},
	{[]string{"web/account", "web/bench", "web/board", "web/lesson", "web/my", "web/settings", "web/shelf", "web/student", "web/students"}, false},
	{[]string{"web"}, false},
	{[]string{"cmd", "internal/foreign"}, false},
}

// floorOf is the place of a package in floors, by the longest folder it stands in, and that
// folder; -1 for one that stands on none, such as helpers of tests.
func floorOf(pkg string) (floor int, folder string) {
	floor = -1
	for k, f := range floors {
		for _, name := range f.folders {
			if (pkg == name || strings.HasPrefix(pkg, name+"/")) && len(name) > len(folder) {
				floor, folder = k, name
			}
		}
	}
	return floor, folder
}

// mayKnow says whether a package may import another.
func mayKnow(pkg, other string) bool {
	mine, in := floorOf(pkg)
	theirs, at := floorOf(other)
	return theirs >= 0 && (theirs < mine || in == at && floors[mine].beside || in == at && pkg != in)
}

func TestNobodyKnowsWhatIsAbove(t *testing.T) {
	sources(t, func(path string, file *ast.File) {
		pkg := strings.TrimPrefix(filepath.ToSlash(filepath.Dir(path)), "../")
		if floor, _ := floorOf(pkg); floor < 0 {
			if !strings.HasPrefix(pkg, "internal/") && pkg != "e2e" && pkg != "stress" {
				t.Errorf("%s stands on no floor", pkg)
			}
			return
		}
		for _, imported := range file.Imports {
			other, ours := strings.CutPrefix(strings.Trim(imported.Path.Value, `"`), "unhurriedbench/")
			if ours && !mayKnow(pkg, other) {
				t.Errorf("%s imports %s", path, other)
			}
		}
	}, "../archive", "../cmd", "../demo", "../internal", "../reading", "../simulate", "../store", "../teach", "../web")
	for _, tt := range []struct {
		pkg, other string
		may        bool
	}{
		{"web/bench", "web/board", false}, {"web/bench", "web/music", true}, {"teach", "web/site", false}, {"store", "core/score", true},
		{"core/score", "core/count", true}, {"reading", "teach", false}, {"web", "web/bench", true}, {"web/music", "web/outbox", false}, {"store", "internal/testdb", false},
	} {
		if got := mayKnow(tt.pkg, tt.other); got != tt.may {
			t.Errorf("%s may know %s: %v", tt.pkg, tt.other, got)
		}
	}
}

// What teaches draws no pages and answers no requests.
func TestTeachingKnowsNothingOfPages(t *testing.T) {
	sources(t, func(path string, file *ast.File) {
		for _, imported := range file.Imports {
			if name := strings.Trim(imported.Path.Value, `"`); name == "net/http" || strings.HasSuffix(name, "/template") || name == "database/sql" {
				t.Errorf("%s imports %s", path, name)
			}
		}
	}, "../teach")
}
