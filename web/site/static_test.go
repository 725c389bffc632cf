package site_test

import (
	"compress/gzip"
	"fmt"
	"io"
	"io/fs"
	"net/http"
	"net/http/httptest"
	"path"
	"regexp"
	"strings"
	"testing"

	"github.com/andybalholm/brotli"

	"unhurriedbench/internal/testsite"
	"unhurriedbench/web/site"
)

// fetched asks the embedded files for a path as a browser that takes an encoding.
func fetched(t *testing.T, path, encoding string) *http.Response {
	t.Helper()
	files, err := site.Files()
	if err != nil {
		t.Fatal(err)
	}
	r := httptest.NewRequest(http.MethodGet, path, http.NoBody)
	if encoding != "" {
		r.Header.Set("Accept-Encoding", encoding)
	}
	w := httptest.NewRecorder()
	files.ServeHTTP(w, r)
	return w.Result()
}

func unpacked(t *testing.T, answer *http.Response) string {
	t.Helper()
	var body io.Reader = answer.Body
	switch answer.Header.Get("Content-Encoding") {
	case "gzip":
		plain, err := gzip.NewReader(body)
		if err != nil {
			t.Fatal(err)
		}
		body = plain
	case "br":
		body = brotli.NewReader(body)
	}
	content, err := io.ReadAll(body)
	if err != nil {
		t.Fatal(err)
	}
	return string(content)
}

// Every embedded file has an address with a hash, is kept for a year there, and is the
// same however it is packed.
func TestBrowserFiles(t *testing.T) {
	t.Parallel()
	files, err := site.Files()
	if err != nil {
		t.Fatal(err)
	}
	withHash := regexp.MustCompile(`^/static/.+\.[0-9a-f]{10}\.(css|js|svg|wasm|woff2|txt|flac|mp3|json)$`)
	for name := range files.Hashed() {
		address := testsite.AddressOf(t, name)
		if !withHash.MatchString(address) {
			t.Errorf("%s is at %s, without a hash", name, address)
		}
		var first string
		for _, encoding := range []string{"", "gzip", "gzip, deflate, br"} {
			answer := fetched(t, address, encoding)
			if answer.StatusCode != http.StatusOK || answer.Header.Get("Cache-Control") != site.Year {
				t.Errorf("%s with %q gives %d, %q", address, encoding, answer.StatusCode, answer.Header.Get("Cache-Control"))
			}
			if !strings.Contains(answer.Header.Get("Vary"), "Accept-Encoding") {
				t.Errorf("%s does not vary by encoding", address)
			}
			content := unpacked(t, answer)
			if first == "" {
				first = content
			}
			if content != first || content == "" {
				t.Errorf("%s is another file with %q", address, encoding)
			}
		}
	}
	for name, packing := range map[string]string{"bench.css": "br", "bench.js": "br", "lib/bootstrap.css": "br", "lib/verovio.wasm": "br", "lib/verovio.js": "br"} {
		if got := fetched(t, testsite.AddressOf(t, name), "gzip, br").Header.Get("Content-Encoding"); got != packing {
			t.Errorf("%s comes as %q, want %q", name, got, packing)
		}
		if got := fetched(t, testsite.AddressOf(t, name), "gzip").Header.Get("Content-Encoding"); got != "gzip" {
			t.Errorf("%s comes as %q to a browser that takes gzip", name, got)
		}
	}
	if got := fetched(t, testsite.AddressOf(t, "lib/verovio.wasm"), "br").Header.Get("Content-Type"); got != "application/wasm" {
		t.Errorf("the engraver's code is %q: it is not compiled while it comes", got)
	}
}

// A page from before a change asks by an old hash and gets today's file, which is not
// kept; nothing else is there, and no folder lists what it holds.
func TestBrowserFilesOfAnotherDay(t *testing.T) {
	t.Parallel()
	for _, path := range []string{"/static/bench.css", "/static/bench.0000000000.css"} {
		answer := fetched(t, path, "")
		if answer.StatusCode != http.StatusOK || answer.Header.Get("Cache-Control") != "no-cache" {
			t.Errorf("%s gives %d, %q", path, answer.StatusCode, answer.Header.Get("Cache-Control"))
		}
	}
	for _, path := range []string{"/static/", "/static/lib", "/static/lib/", "/static/none.css", "/static/../web.go", "/static/lib/verovio.js.gz"} {
		if answer := fetched(t, path, ""); answer.StatusCode != http.StatusNotFound {
			t.Errorf("%s gives %d", path, answer.StatusCode)
		}
	}
}

// What is fetched before the music stands, packed: the files a Bench names and those its
// engraver does. The bound is the one that a line of 1.6 Mbit/s can bear.
func TestBytesOfAColdBench(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	_, page := v.Get(fmt.Sprintf("/bench/%d", b.Exercise))
	total := 0
	named := regexp.MustCompile(`/static/[^"')]+`).FindAllString(page, -1)
	if len(named) < 15 {
		t.Fatalf("the Bench names only %v", named)
	}
	for _, address := range named {
		body, err := io.ReadAll(fetched(t, address, "gzip, br").Body)
		if err != nil {
			t.Fatal(err)
		}
		total += len(body)
	}
	if total > 1_600_000 {
		t.Errorf("a cold Bench fetches %d bytes", total)
	}
	t.Logf("a cold Bench fetches %d bytes in %d files", total, len(named))
}

// Every file that ships from elsewhere stands in the list of licences, and the list is
// there to be read.
func TestLicencesOfWhatShips(t *testing.T) {
	t.Parallel()
	content, err := site.Static.ReadFile("static/lib/LICENSES.txt")
	if err != nil {
		t.Fatal(err)
	}
	named := map[string]bool{"LICENSES.txt": true, "VERSIONS.txt": true}
	for line := range strings.Lines(string(content)) {
		if files, is := strings.CutPrefix(line, "Files:"); is {
			for _, name := range strings.Fields(files) {
				named[name] = true
			}
		}
	}
	files, err := site.Files()
	if err != nil {
		t.Fatal(err)
	}
	for name := range files.Hashed() {
		folder, file, nested := strings.Cut(name, "/")
		if nested && (folder == "lib" || folder == "fonts" || path.Ext(file) == ".flac") && !named[file] {
			t.Errorf("%s ships without its licence", name)
		}
		delete(named, file)
	}
	for name := range named {
		t.Errorf("a licence is given for %s, which does not ship", name)
	}
	for _, text := range []string{"GNU LESSER GENERAL PUBLIC LICENSE", "GNU GENERAL PUBLIC LICENSE", "SIL OPEN FONT LICENSE", "MIT License", "Zero-Clause BSD"} {
		if !strings.Contains(string(content), text) {
			t.Errorf("the text of the %s is missing", text)
		}
	}
	s := testsite.Open(t)
	v, _ := s.Teacher(t, "a@school.example")
	_, page := v.Get("/settings")
	testsite.Wants(t, page, testsite.AddressOf(t, "lib/LICENSES.txt"))
}

// The licence that is given for the recorded notes is the one that their packages give for
// the samples, with the attribution and the changes that it asks for.
// Outside check: the packages' own texts, which bin/vendor copies.
func TestLicenceOfTheSounds(t *testing.T) {
	t.Parallel()
	licences, err := site.Static.ReadFile("static/lib/LICENSES.txt")
	if err != nil {
		t.Fatal(err)
	}
	own, err := site.Static.ReadFile("static/notes/PACKAGES.txt")
	if err != nil {
		t.Fatal(err)
	}
	said := regexp.MustCompile(`(?m)^Samples: \[.*\]\((.*)\)$`).FindAllStringSubmatch(string(own), -1)
	packages := regexp.MustCompile(`(?m)^tonejs-instrument-(\S+)-mp3 `).FindAllStringSubmatch(string(own), -1)
	if len(said) == 0 || len(said) != len(packages) {
		t.Fatalf("%d packages give %d licences of samples", len(packages), len(said))
	}
	entry, desired := "", []string{"Attribution: ", "Changes made here"}
	for line := range strings.Lines(string(licences)) {
		if strings.HasPrefix(line, "Recorded notes.") {
			entry = line
		}
	}
	for k, p := range packages {
		desired = append(desired, said[k][1])
		files, err := fs.Glob(site.Static, "static/notes/"+p[1]+"-*.flac")
		if err != nil || len(files) == 0 {
			t.Errorf("no notes of %s ship", p[1])
		}
	}
	for _, repository := range regexp.MustCompile(`(?m)^Repository: (.*)\.git$`).FindAllStringSubmatch(string(own), -1) {
		desired = append(desired, repository[1])
	}
	for _, words := range desired {
		if !strings.Contains(entry, words) {
			t.Errorf("the licence of the recorded notes lacks %q: %s", words, entry)
		}
	}
}
