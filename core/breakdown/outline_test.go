package breakdown

import (
	"context"
	"fmt"
	"os"
	"path/filepath"
	"testing"

	"unhurriedbench/core/format"
	"unhurriedbench/core/format/abc"
	"unhurriedbench/core/instrument"
)

func TestChunkKeys(t *testing.T) {
	for text, words := range map[string]string{"0-0": "pickup", "0-2": "pickup to m. 2", "3-3": "m. 3", "3-4": "m. 3–4"} {
		key, ok := ParseChunkKey(text)
		if !ok || key.String() != text || key.Words() != words {
			t.Errorf("%s is %v, %q", text, key, key.Words())
		}
	}
	for _, text := range []string{"", "3", "4-3", "-1-2", "a-b", "1-2-3"} {
		if key, ok := ParseChunkKey(text); ok {
			t.Errorf("%q is taken for %v", text, key)
		}
	}
}

// The room learns the same chunks: anyone who plays a part made from a source, its chunks
// are the source's.
func TestEveryInstrumentHasTheSourcesChunks(t *testing.T) {
	var files []string
	for _, at := range []string{"../../demo/exercises/*.abc", "../format/*/testdata/*.*", "../format/abc/testdata/*/*.abc"} {
		found, err := filepath.Glob(at)
		if err != nil {
			t.Fatal(err)
		}
		files = append(files, found...)
	}
	compared := 0
	for _, file := range files {
		data, err := os.ReadFile(file)
		if err != nil {
			t.Fatal(err)
		}
		read, err := format.Read(context.Background(), file, data)
		if err != nil {
			continue // a file that tests a refusal
		}
		for _, part := range read.Score.Parts {
			want := fmt.Sprint(OutlineOf(part).Chunks)
			for _, i := range instrument.All() {
				compared++
				made := instrument.Make(part, "", i, instrument.OctaveChoice{}).Part
				if got := fmt.Sprint(OutlineOf(made).Chunks); got != want {
					t.Errorf("%s for %s is cut %s, its source %s", filepath.Base(file), i.ID, got, want)
				}
			}
		}
	}
	if compared < 60*31 {
		t.Fatalf("only %d parts were compared", compared)
	}
}

func TestOutline(t *testing.T) {
	tests := []struct{ music, frame, chunks string }{
		{"M:3/4\nL:1/4\nK:Bb\nB|c d e|f2 B|c d e|B2|]", "3/4, B flat major", "[0-2 3-4 0-4]"},
		{"M:4/4\nL:1/4\nK:C clef=perc\nc c c c|c4|]", "4/4", "[1-2]"},
	}
	for _, tt := range tests {
		s, err := abc.Read(context.Background(), tt.music+"\n")
		if err != nil {
			t.Fatal(err)
		}
		o := OutlineOf(s.Parts[0])
		for n, p := range Cut(s.Parts[0]) {
			if got := o.Label(o.Chunks[n]); got != p.Label {
				t.Errorf("%s: chunk %v is labelled %q, want %q", tt.music, o.Chunks[n], got, p.Label)
			}
		}
		if got := o.Label(ChunkKey{First: 98, Last: 99}); got != "" {
			t.Errorf("a chunk that is not there is labelled %q", got)
		}
		if o.Signatures != tt.frame || fmt.Sprint(o.Chunks) != tt.chunks {
			t.Errorf("%s is %q in %v, want %q in %s", tt.music, o.Signatures, o.Chunks, tt.frame, tt.chunks)
		}
	}
}
