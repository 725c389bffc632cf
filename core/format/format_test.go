package format

import (
	"bytes"
	"strings"
	"testing"
)

func TestReadRecognises(t *testing.T) {
	abcText := []byte("X:1\nM:4/4\nL:1/4\nK:C\nC D E F|]\n")
	tests := []struct {
		name, kind, says string
		data             []byte
	}{
		{"a.abc", ABC, "", abcText},
		{"noending", ABC, "", abcText},
		{"a.xml", MusicXML, "not MusicXML", []byte("<page/>")},
		{"noending", MusicXML, "not MusicXML", []byte("\ufeff<page/>")},
		{"a.pdf", "", "neither MusicXML nor ABC", []byte("%PDF-1.7")},
		{"a.abc", "", "The file is empty.", []byte(" \n")},
		{"a.xml", "", "larger than 5 MB", bytes.Repeat([]byte("x"), Largest+1)},
	}
	for _, tt := range tests {
		_, kind, err := Read(tt.name, tt.data)
		if kind != tt.kind {
			t.Errorf("%s is read as %q, want %q", tt.name, kind, tt.kind)
		}
		if tt.says == "" && err != nil || tt.says != "" && (err == nil || !strings.Contains(err.Error(), tt.says)) {
			t.Errorf("%s: got %v, want it to say %q", tt.name, err, tt.says)
		}
	}
}
