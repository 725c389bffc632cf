package my

import (
	_ "embed"
	"fmt"
	"net/http"
	"slices"
	"strings"

	"unhurriedbench/core/instrument"
)

//go:embed worker.js
var workerScript string

// ownScripts are the scripts of a student's pages; with what they import, and ownFiles, they are
// what the pages need without network.
var ownScripts = []string{"own.js", "owncards.js"}

var ownFiles = []string{
	"mark.svg", "lib/bootstrap.css", "bench.css", "own.css", "walk.css",
	"lib/verovio.js", "lib/verovio.wasm", "fonts/atkinson-hyperlegible-latin-400-normal.woff2",
	"fonts/atkinson-hyperlegible-latin-700-normal.woff2", "fonts/fraunces-latin-600-normal.woff2",
}

// ownSpoken are the recorded words, which are kept from when they are first used.
var ownSpoken = []string{"voice/voice.mp3", "voice/voice.json"}

// ownWorker is the script that keeps a student's pages and their files for when there is no
// network. Its address lies among the pages of the one student it keeps.
func (s *handlers) ownWorker(w http.ResponseWriter, r *http.Request) error {
	h := athome(r)
	i, _ := instrument.ByID(h.Student.Instrument)
	var files []string
	for _, name := range slices.Concat(ownFiles, s.Assets.WithImports(ownScripts...)) {
		address, err := s.Assets.Address(name)
		if err != nil {
			return err
		}
		files = append(files, address)
	}
	for _, note := range s.Recordings.VoiceOf(i).Notes {
		files = append(files, note.URL)
	}
	var list, spoken strings.Builder
	for _, file := range files {
		fmt.Fprintf(&list, "  %q,\n", file)
	}
	for _, name := range ownSpoken {
		address, err := s.Assets.Address(name)
		if err != nil {
			return err
		}
		fmt.Fprintf(&spoken, "  %q,\n", address)
	}
	w.Header().Set("Content-Type", "text/javascript; charset=utf-8")
	w.Header().Set("Cache-Control", "no-cache")
	_, _ = fmt.Fprintf(w, "const files = [\n%s];\nconst spoken = [\n%s];\n%s", list.String(), spoken.String(), workerScript) // the reader has gone when this fails
	return nil
}
