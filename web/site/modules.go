package site

import (
	"bytes"
	"fmt"
	"html/template"
	"io/fs"
	"path"
	"regexp"
	"slices"
	"strings"
)

// imported finds what a script imports: import … from "./lanes.js".
var imported = regexp.MustCompile(`(?m)^(import .*|.* from )"\./([a-z]+\.js)";$`)

// modules are the scripts of pages. Each imports others by their plain names; browsers get them
// with the addresses of the others, whose hashes change with what they import.
type modules struct {
	sources   map[string][]byte   // as written
	sent      map[string][]byte   // with the addresses of what they import
	addresses map[string]string   // of what is sent
	needs     map[string][]string // what each imports, and what that imports, in the order to be loaded
}

// link puts the addresses of what it imports into a script, after it has done so with those; add
// says the address of each. The error names a circle of imports.
func (m *modules) link(name string, above []string, add func(name string, content []byte) string) error {
	if _, done := m.sent[name]; done {
		return nil
	}
	if slices.Contains(above, name) {
		return fmt.Errorf("the script %s imports itself, over %s", name, strings.Join(above, ", "))
	}
	source, known := m.sources[name]
	if !known {
		return fmt.Errorf("the script %s imports %s, which is not there", above[len(above)-1], name)
	}
	var imports []string
	for _, found := range imported.FindAllSubmatch(source, -1) {
		other := string(found[2])
		if err := m.link(other, append(above, name), add); err != nil {
			return err
		}
		imports = append(imports, other)
	}
	m.needs[name] = m.withImports(imports...)
	m.sent[name] = imported.ReplaceAllFunc(source, func(line []byte) []byte {
		found := imported.FindSubmatch(line)
		return fmt.Appendf(nil, `%s"%s";`, found[1], m.addresses[string(found[2])])
	})
	m.addresses[name] = add(name, m.sent[name])
	return nil
}

// withImports lists scripts with what they need, each once, in the order to be loaded.
func (m *modules) withImports(names ...string) []string {
	var list []string
	for _, name := range names {
		for _, n := range append(slices.Clone(m.needs[name]), name) {
			if !slices.Contains(list, n) {
				list = append(list, n)
			}
		}
	}
	return list
}

// Module is a script tag for a script of static, with hints to load what it imports beside it.
func (a *Assets) Module(name string) (template.HTML, error) {
	var tags strings.Builder
	for _, other := range a.modules.needs[name] {
		address, err := a.Address(other)
		if err != nil {
			return "", err
		}
		fmt.Fprintf(&tags, "<link rel=\"modulepreload\" href=\"%s\">", address)
	}
	address, err := a.Address(name)
	if err != nil {
		return "", err
	}
	fmt.Fprintf(&tags, "<script type=\"module\" src=\"%s\"></script>", address)
	return template.HTML(tags.String()), nil
}

// WithImports lists scripts with those that they import, each once, in the order to be loaded.
func (a *Assets) WithImports(names ...string) []string { return a.modules.withImports(names...) }

// linked is the folder static with the scripts as they are sent.
type linked struct {
	fs.ReadDirFS
	modules *modules
}

func (l linked) Open(name string) (fs.File, error) {
	f, err := l.ReadDirFS.Open(name)
	content, is := l.modules.sent[path.Base(name)]
	if err != nil || !is || path.Dir(name) != "static" {
		return f, err
	}
	info, err := f.Stat()
	if err != nil {
		return nil, err
	}
	return sentScript{f, bytes.NewReader(content), info}, nil
}

// sentScript is a file with other content.
type sentScript struct {
	fs.File
	*bytes.Reader
	info fs.FileInfo
}

func (s sentScript) Read(b []byte) (int, error) { return s.Reader.Read(b) }

func (s sentScript) Stat() (fs.FileInfo, error) { return sized{s.info, s.Size()}, nil }

type sized struct {
	fs.FileInfo
	size int64
}

func (s sized) Size() int64 { return s.size }
