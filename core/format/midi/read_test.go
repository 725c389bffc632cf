package midi

import (
	"bytes"
	"context"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	gomidi "gitlab.com/gomidi/midi/v2"
	"gitlab.com/gomidi/midi/v2/smf"

	"unhurriedbench/core/format/abc"
	"unhurriedbench/core/score"
	"unhurriedbench/internal/testabc"
	"unhurriedbench/internal/testscore"
)

// fromABC2MIDI makes a MIDI file with abc2midi, a program from outside this
// project (Debian's abcmidi).
func fromABC2MIDI(t *testing.T, text []byte) []byte {
	t.Helper()
	program, err := exec.LookPath("abc2midi")
	if err != nil {
		t.Fatal("this check needs abc2midi: run bin/test, which installs the package abcmidi")
	}
	in, out := filepath.Join(t.TempDir(), "in.abc"), filepath.Join(t.TempDir(), "out.mid")
	if err := os.WriteFile(in, text, 0o600); err != nil {
		t.Fatal(err)
	}
	if message, err := exec.Command(program, in, "-o", out, "-NGUI", "-NFER").CombinedOutput(); err != nil {
		if _, missing := os.Stat(out); missing != nil {
			t.Fatalf("abc2midi: %v\n%s", err, message)
		}
	}
	data, err := os.ReadFile(out)
	if err != nil {
		t.Fatal(err)
	}
	return data
}

// same fails where two lists of notes differ in pitch or onset.
func same(t *testing.T, name string, got, want []score.Sounding) {
	t.Helper()
	if len(got) != len(want) {
		t.Errorf("%s: %d notes, want %d", name, len(got), len(want))
	}
	for i := range min(len(got), len(want)) {
		if got[i].Onset != want[i].Onset || got[i].Pitch.MIDI() != want[i].Pitch.MIDI() {
			t.Errorf("%s: note %d is %s at %s, want %s at %s", name, i+1, got[i].Pitch, got[i].Onset, want[i].Pitch, want[i].Onset)
			return
		}
	}
}

func TestFilesFromABC2MIDI(t *testing.T) {
	names, err := filepath.Glob("../abc/testdata/*.abc")
	if err != nil || len(names) < 20 {
		t.Fatalf("%d files: %v", len(names), err)
	}
	for _, name := range names {
		text, err := os.ReadFile(name)
		if err != nil {
			t.Fatal(err)
		}
		source, err := abc.Read(context.Background(), string(text))
		if err != nil {
			t.Fatal(err)
		}
		s, err := Read(context.Background(), fromABC2MIDI(t, text))
		if err != nil {
			t.Errorf("%s: %v", name, err)
			continue
		}
		same(t, filepath.Base(name), s.Parts[0].Sounding(s.Parts[0].Order()), source.Parts[0].Sounding(source.Parts[0].Order()))
		if len(s.Remarks) > 0 {
			t.Errorf("%s: %v", name, s.Remarks)
		}
	}
}

func TestReadingWhatWasWritten(t *testing.T) {
	for seed := range uint64(60) {
		p := testscore.WithoutChords(testscore.Random(t, seed)).Parts[0]
		p.Transposition = score.Interval{}
		data, err := Write(p, Options{})
		if err != nil {
			t.Fatal(err)
		}
		s, err := Read(context.Background(), data)
		if err != nil {
			t.Fatalf("seed %d: %v", seed, err)
		}
		got, want := s.Parts[0].Sounding(s.Parts[0].Order()), p.Sounding(p.Order())
		same(t, "seed", got, want)
		for i := range min(len(got), len(want)) {
			if got[i].Length != want[i].Length {
				t.Errorf("seed %d: note %d lasts %s, want %s", seed, i+1, got[i].Length, want[i].Length)
				break
			}
		}
	}
}

// A pickup comes back as one, with its line's key as it sounds.
func TestPickupAndKey(t *testing.T) {
	for _, music := range []string{"M:4/4\nL:1/4\nK:F\nc|f2 e d|c3 c|f4|]", "M:6/8\nL:1/8\nK:F\nc|f3 c3|f3 f2|]", "M:3/4\nL:1/8\nK:F\ncd|f4 ed|c4|]"} {
		p, err := abc.Read(context.Background(), music+"\n")
		if err != nil {
			t.Fatal(err)
		}
		part := p.Parts[0]
		part.Transposition = score.Interval{Steps: -1, Semitones: -2}
		data, err := Write(part, Options{})
		if err != nil {
			t.Fatal(err)
		}
		s, err := Read(context.Background(), data)
		if err != nil {
			t.Fatal(err)
		}
		first := s.Parts[0].Measures[0]
		if first.Number != 0 || first.Length != part.Measures[0].Length || first.Meter.String() != part.Meter().String() ||
			s.Parts[0].Key().Fifths != -3 {
			t.Errorf(
				"%s: the first measure comes back as number %d of %s in %s, with %d fifths",
				music,
				first.Number,
				first.Length,
				first.Meter,
				s.Parts[0].Key().Fifths,
			)
		}
	}
}

func TestUnevenPlayingIsMovedAndReported(t *testing.T) {
	p, err := abc.Read(context.Background(), "M:4/4\nL:1/8\nK:F\nc2 de f2 z2|c4 _e2 =e2|]\n")
	if err != nil {
		t.Fatal(err)
	}
	data, err := Write(p.Parts[0], Options{})
	if err != nil {
		t.Fatal(err)
	}
	late := strings.Replace(string(data), "MThd", "MThd", 1)
	sg, err := open(context.Background(), []byte(late))
	if err != nil {
		t.Fatal(err)
	}
	song := takeApart(sg, quarter)
	for i := range song.streams[0].notes {
		n := &song.streams[0].notes[i]
		n.start += int64(15 * (i % 3)) // up to a thirty-second of a quarter late
		n.end -= 20
	}
	part, remarks, err := song.write(song.streams[0])
	if err != nil {
		t.Fatal(err)
	}
	same(t, "uneven", part.Sounding(part.Order()), p.Parts[0].Sounding(p.Parts[0].Order()))
	if len(remarks) != 1 || !strings.Contains(remarks[0].What, "were moved") {
		t.Errorf("remarks are %v", remarks)
	}
	if got := part.Measures[1].Events[1].Pitch.String(); got != "Eb5" {
		t.Errorf("the chromatic note is spelled %s", got)
	}
}

func TestProblems(t *testing.T) {
	empty, err := Write(score.Part{Measures: []score.Measure{{Meter: score.Meter{Beats: 4, Unit: 4},
		Events: []score.Event{{Kind: score.Rest, WholeMeasure: true}}}}}, Options{})
	if err != nil {
		t.Fatal(err)
	}
	for name, tt := range map[string]struct {
		data []byte
		says string
	}{
		"no MIDI":   {[]byte("hello"), "broken"},
		"cut short": {[]byte("MThd\x00\x00\x00\x06\x00\x01\x00\x01\x03\xc0MTrk\x00\x00\x00\x20"), "broken"},
		"no notes":  {empty, "no notes"},
	} {
		if _, err := Read(context.Background(), tt.data); err == nil || !strings.Contains(err.Error(), tt.says) {
			t.Errorf("%s: got %v, want it to say %q", name, err, tt.says)
		}
	}
}

func FuzzRead(f *testing.F) {
	for seed := range uint64(4) {
		data, err := Write(testscore.Random(f, seed).Parts[0], Options{})
		if err != nil {
			f.Fatal(err)
		}
		f.Add(data)
	}
	f.Fuzz(func(t *testing.T, data []byte) {
		s, err := Read(context.Background(), data)
		if err != nil {
			return
		}
		for _, p := range s.Parts {
			p.Sounding(p.Order())
		}
	})
}

// What players' files have beside plain notes: a key struck again while it sounds, notes
// without length or without end, and notes that come sooner than can be written.
func TestNotesThatAreNotPlain(t *testing.T) {
	on, off := gomidi.NoteOn, gomidi.NoteOff
	type event struct {
		delta   uint32
		message gomidi.Message
	}
	for name, tt := range map[string]struct {
		events     []event
		want, says string
	}{
		"again while it sounds": {[]event{{0, on(0, 60, 90)}, {480, on(0, 60, 90)}, {0, off(0, 60)}, {480, off(0, 60)}}, "C4:1/4 C4:1/4", ""},
		"again, ended once":     {[]event{{0, on(0, 60, 90)}, {480, on(0, 60, 90)}, {480, off(0, 60)}}, "C4:1/4 C4:1/4", ""},
		"twice at once":         {[]event{{0, on(0, 60, 90)}, {0, on(0, 60, 90)}, {480, off(0, 60)}, {0, off(0, 60)}}, "C4:1/4", ""},
		"no length":             {[]event{{0, on(0, 60, 90)}, {480, off(0, 60)}, {0, on(0, 62, 90)}, {0, off(0, 62)}}, "C4:1/4", "1 note of no length was left out."},
		"no end":                {[]event{{0, on(0, 60, 90)}, {480, off(0, 60)}, {0, on(0, 62, 90)}, {480, gomidi.ProgramChange(0, 1)}}, "C4:1/4 D4:1/4", "1 note has no end"},
		"sooner than written":   {[]event{{0, on(0, 60, 90)}, {17, off(0, 60)}, {0, on(0, 62, 90)}, {463, off(0, 62)}}, "D4:1/4", "written with it"},
		// a note that is moved into the next quarter, where nothing divides it
		"moved on": {[]event{{0, on(0, 60, 90)}, {160, off(0, 60)}, {313, on(0, 62, 90)}, {2, off(0, 62)}, {485, on(0, 64, 90)}, {480, off(0, 64)}}, "C4:1/12 D4:1/4 E4:1/4", ""},
	} {
		file := smf.New()
		file.TimeFormat = smf.MetricTicks(480)
		var track smf.Track
		for _, e := range tt.events {
			track.Add(e.delta, e.message)
		}
		track.Close(0)
		if err := file.Add(track); err != nil {
			t.Fatal(err)
		}
		var b bytes.Buffer
		if _, err := file.WriteTo(&b); err != nil {
			t.Fatal(err)
		}
		s, err := Read(context.Background(), b.Bytes())
		if err != nil {
			t.Errorf("%s: %v", name, err)
			continue
		}
		var got, said []string
		for _, n := range s.Parts[0].Sounding(s.Parts[0].Order()) {
			got = append(got, fmt.Sprintf("%s:%s", n.Pitch, n.Length))
		}
		for _, r := range s.Remarks {
			said = append(said, r.Error())
		}
		if strings.Join(got, " ") != tt.want {
			t.Errorf("%s: %s is read, want %s", name, strings.Join(got, " "), tt.want)
		}
		if all := strings.Join(said, " "); !strings.Contains(all, tt.says) {
			t.Errorf("%s: it says %q, want %q", name, all, tt.says)
		}
	}
}

// A note that ends inside a beat of three is a plain value and a triplet, tied.
func TestTiedIntoATriplet(t *testing.T) {
	part := testabc.Part(t, "M:4/4\nL:1/4\nK:C\nC2-(3C/2D/2E/2 F|]")
	data, err := Write(part, Options{})
	if err != nil {
		t.Fatal(err)
	}
	s, err := Read(context.Background(), data)
	if err != nil {
		t.Fatal(err)
	}
	third := score.Value{Base: 8, Tuplet: score.Ratio{Actual: 3, Normal: 2}}
	var got []score.Value
	for _, e := range s.Parts[0].Measures[0].Events {
		got = append(got, e.Value)
	}
	if want := []score.Value{{Base: 2}, third, third, third, {Base: 4}}; !slices.Equal(got, want) || !s.Parts[0].Measures[0].Events[0].TieOn {
		t.Errorf("it is written as %v, want %v", got, want)
	}
}
