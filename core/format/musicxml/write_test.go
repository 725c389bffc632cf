package musicxml

import (
	"context"
	"os"
	"os/exec"
	"path/filepath"
	"testing"

	"unhurriedbench/internal/testscore"
)

func TestReadingWhatWasWritten(t *testing.T) {
	for seed := range uint64(300) {
		s := testscore.Plain(testscore.Random(t, seed))
		text := Write(s)
		back, err := Read(context.Background(), text)
		if err != nil {
			t.Fatalf("seed %d: %v\n%s", seed, err, text)
		}
		if testscore.Differ(t, testscore.Plain(back), s) {
			t.Fatalf("seed %d, through\n%s", seed, text)
		}
	}
}

// Outside check: xmllint (Debian's libxml2-utils) holds what is written to the
// published MusicXML 4.0 DTD, element order included.
func TestWhatIsWrittenIsValid(t *testing.T) {
	program, err := exec.LookPath("xmllint")
	if err != nil {
		t.Fatal("this check needs xmllint: run bin/test, which installs the package libxml2-utils")
	}
	schema, err := filepath.Abs("testdata/schema/partwise.dtd")
	if err != nil {
		t.Fatal(err)
	}
	for seed := range uint64(12) {
		name := filepath.Join(t.TempDir(), "score.xml")
		if err := os.WriteFile(name, Write(testscore.Random(t, seed)), 0o600); err != nil {
			t.Fatal(err)
		}
		if out, err := exec.Command(program, "--noout", "--nonet", "--dtdvalid", schema, name).CombinedOutput(); err != nil {
			t.Fatalf("seed %d: %v\n%s", seed, err, out)
		}
	}
}
