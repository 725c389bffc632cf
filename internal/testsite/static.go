package testsite

import (
	"testing"

	"unhurriedbench/web/site"
)

// AddressOf is where a browser fetches a file.
func AddressOf(t *testing.T, name string) string {
	t.Helper()
	files, err := site.Files()
	if err != nil {
		t.Fatal(err)
	}
	address, err := files.Address(name)
	if err != nil {
		t.Fatal(err)
	}
	return address
}
