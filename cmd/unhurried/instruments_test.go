package main

import (
	"bytes"
	"os"
	"strings"
	"testing"

	"unhurriedbench/core/instrument"
)

func TestInstrumentsPage(t *testing.T) {
	var printed bytes.Buffer
	if err := printCatalogue(&printed); err != nil {
		t.Fatal(err)
	}
	page, err := os.ReadFile("../../docs/instruments.md")
	if err != nil {
		t.Fatal(err)
	}
	if printed.String() != string(page) {
		t.Error("docs/instruments.md is not what the catalogue says; run: go run ./cmd/unhurried instruments > docs/instruments.md")
	}
	for _, i := range instrument.All() {
		_, heading, _ := strings.Cut(i.DocsPage(), "#")
		if !strings.Contains(printed.String(), "\n## "+heading+"\n") {
			t.Errorf("%s is not written about at %s", i.ID, i.DocsPage())
		}
	}
}
