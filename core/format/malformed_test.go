package format_test

import (
	"context"
	"fmt"
	"runtime"
	"strings"
	"syscall"
	"testing"
	"time"

	"unhurriedbench/core/format"
	"unhurriedbench/core/format/abc"
	"unhurriedbench/core/format/mei"
	"unhurriedbench/core/format/midi"
	"unhurriedbench/core/format/musicxml"
	"unhurriedbench/internal/malformed"
)

// fill repeats a text to a size in bytes.
func fill(text string, size int) string { return strings.Repeat(text, max(size/len(text), 1)) }

const (
	mb    = 1 << 20
	abcUp = "X:1\nT:T\nM:4/4\nL:1/4\nK:C\n"
)

// oneMeasure is a MusicXML file of one part: what goes in its attributes, and its notes.
func oneMeasure(attributes, notes string) string {
	return `<score-partwise><part-list><score-part id="P1"><part-name>P</part-name></score-part></part-list><part id="P1"><measure number="1"><attributes>` +
		`<divisions>1</divisions><time><beats>4</beats><beat-type>4</beat-type></time>` + attributes + `</attributes>` + notes + `</measure></part></score-partwise>`
}

func noteOf(more string) string {
	return `<note><pitch><step>C</step><octave>4</octave></pitch><duration>4</duration>` + more + `</note>`
}

// madeToExhaust are files made to exhaust a reader: each is refused, or read in part with what
// is left out said, in our words.
var madeToExhaust = []struct {
	name, file, text string
	says             string // of the refusal, "" where it is read
}{
	{"voices by turns in one line", "a.abc", abcUp + fill("[V:1][V:2]", 4*mb), "no notes"},
	{"voices by turns, with notes", "a.abc", abcUp + fill("[V:1]C4|[V:2]C4|", 4*mb), "2000"},
	{"many voices", "a.abc", abcUp + voices(100000), "more than 100 parts"},
	{"no bar lines", "a.abc", abcUp + fill("C", 4*mb), "more than 512 notes and rests"},
	{"a rest of very many measures in every voice", "a.abc", abcUp + restsInVoices(100), "more than 100000 notes and rests"},
	{"a chord of very many notes", "a.abc", abcUp + "[" + fill("C", 4*mb) + "]|", "more than 24 notes are struck together"},
	{"a long note", "a.abc", "X:1\nM:4/4\nL:2000000000/1\nK:C\nC|", "not a note length"},
	{"a long rest", "a.abc", "X:1\nM:4/4\nL:2/1\nK:C\nz9999|", "longer than eight whole notes"},
	{"a repeat of very many times", "a.abc", abcUp + "C4" + fill(":", 4*mb) + "|", ""},
	{"signs and spaces", "a.abc", abcUp + fill("!", 2*mb) + fill(" ", 2*mb), "no notes"},
	{"octave marks", "a.abc", abcUp + "C" + fill(",", 4*mb) + "|", "beyond every instrument"},
	{"a title of four megabytes", "a.abc", "X:1\nT:" + fill("T", 4*mb) + "\nM:4/4\nL:1/4\nK:C\nC4|", ""},
	{"a key of four megabytes", "a.abc", "X:1\nM:4/4\nL:1/4\nK:" + fill("H", 4*mb) + "\nC4|", "not a key"},
	{"slurs", "a.abc", abcUp + fill("(", 4*mb) + "C4|", ""},
	{"endings", "a.abc", abcUp + "C4|" + fill("1-9,", 4*mb) + "1 C4|", ""},
	{"a remark in every line", "a.abc", abcUp + fill("^c2C2|\n", mb), "at most 2000"},

	{"a transposition beyond all", "a.musicxml", oneMeasure("<transpose><chromatic>9000000000000000000</chromatic></transpose>", noteOf("")), "sounds further from what is written"},
	{"an octave beyond all", "a.musicxml", oneMeasure("<transpose><diatonic>-1</diatonic><chromatic>-2</chromatic><octave-change>900000000</octave-change></transpose>", noteOf("")), "sounds further"},
	{"a tuplet beyond all", "a.musicxml", oneMeasure("", noteOf("<time-modification><actual-notes>4611686018427387904</actual-notes><normal-notes>3</normal-notes></time-modification>")), "more than 16 notes"},
	{"dots", "a.musicxml", oneMeasure("", noteOf("<type>half</type>"+strings.Repeat("<dot/>", 63))), ""},
	{"prime tuplets", "a.musicxml", oneMeasure("", primeTuplets()), "more than 16 notes"},
	{"prime divisions", "a.musicxml", oneMeasure("", primeDivisions()), "do not add up"},
	{"a duration beyond all", "a.musicxml", oneMeasure("", `<note><rest/><duration>9000000000000000000</duration></note>`), "longer than a measure can be"},
	{"a number that is none", "a.musicxml", oneMeasure("", `<note><rest/><duration>`+fill("9", mb)+`</duration></note>`), "stands where MusicXML has a whole number"},
	{"measures without notes", "a.musicxml", strings.Replace(oneMeasure("", noteOf("")), "</measure>", "</measure>"+fill("<measure/>", 4*mb), 1), "Bring in at most 2000"},
	{"measures repeated in very many parts", "a.musicxml", repeatedParts(99), "more than 100000 notes and rests"},
	{"very many parts", "a.musicxml", strings.Replace(oneMeasure("", noteOf("")), "</part>", "</part>"+strings.Repeat(`<part id="P2"><measure/></part>`, 1000), 1), "more than 100 parts"},
	{"a chord of very many notes in MusicXML", "a.musicxml", oneMeasure("", noteOf("")+strings.Repeat(noteOf("<chord/>"), 20000)), "more than 24 notes are struck together"},
	{"deep elements", "a.musicxml", "<score-partwise>" + fill("<a>", 4*mb), "nest too deeply"},
	{"an encoding that is none", "a.musicxml", `<?xml version="1.0" encoding="` + fill("E", mb) + `"?><score-partwise/>`, "text encoding"},
	{"broken XML", "a.musicxml", "<score-partwise><" + fill("q", 4*mb), "the XML is broken here"},
	{"a transposition of the lowest number there is", "a.musicxml", oneMeasure("<transpose><chromatic>-9223372036854775808</chromatic></transpose>", noteOf("")), "sounds further from what is written"},
	{"letters of the lowest number there is", "a.musicxml", oneMeasure("<transpose><diatonic>-9223372036854775808</diatonic><chromatic>-2</chromatic></transpose>", noteOf("")), "sounds further from what is written"},
	{"octaves of the lowest number there is", "a.musicxml", oneMeasure("<transpose><chromatic>-2</chromatic><octave-change>-9223372036854775808</octave-change></transpose>", noteOf("")), "sounds further from what is written"},
	{"a stroke on a line beyond all", "a.musicxml", oneMeasure("", strings.Replace(strings.NewReplacer("pitch", "unpitched", "step", "display-step", "octave", "display-octave").Replace(noteOf("")), ">4<", ">9223372036854775807<", 1)), ""},
	{"a clef octaves beyond all", "a.musicxml", oneMeasure("<clef><sign>G</sign><line>2</line><clef-octave-change>-9223372036854775808</clef-octave-change></clef>", noteOf("")), ""},
	{"a repeat of measures beyond all", "a.musicxml", oneMeasure(`<measure-style><measure-repeat type="start">9223372036854775807</measure-repeat></measure-style>`, noteOf("")), ""},
	{"very many notes in MusicXML", "a.musicxml", oneMeasure("", fill("<note/>", 4*mb)), "more than 100000 notes and rests"},
	{"very many slurs", "a.musicxml", oneMeasure("", noteOf("<notations>"+fill("<slur/>", 4*mb)+"</notations>")), "more than 100000 notes and rests"},
	{"very many attributes", "a.musicxml", oneMeasure("", fill("<attributes/>", 4*mb)+noteOf("")), ""},
	{"very many MIDI notes", "a.mid", midiNotes(5 * mb), "more than 300000 events"},
	{"a very long counted line", "a.counted", "meter: 4/4\ncount: " + fill("1 2 3 4 | ", 4*mb), "longer than 100000 letters"},
	{"a very long name line", "a.counted", "meter: 4/4\ncount: 1 2 3 4\nname: " + fill("a b c ", 4*mb), "longer than 100000 letters"},
	{"broken MIDI", "a.mid", "MThd\x00\x00\x00\x06\x00\x01\x00\x01\x00\x60MTrk" + fill("\xff", mb), "The MIDI file is broken"},
}

// midiNotes is a file of one track with notes of a tick each, as many as a size has room for.
func midiNotes(size int) string {
	track := "\x00\x90\x3c\x40" + fill("\x01\x3c\x00\x00\x3c\x40", size-100) + "\x01\x3c\x00\x00\xff\x2f\x00"
	n := len(track)
	return "MThd\x00\x00\x00\x06\x00\x00\x00\x01\x00\x60MTrk" + string([]byte{byte(n >> 24), byte(n >> 16), byte(n >> 8), byte(n)}) + track
}

func voices(n int) string {
	var b strings.Builder
	for k := range n {
		fmt.Fprintf(&b, "V:%d\n", k)
	}
	return b.String()
}

func restsInVoices(n int) string {
	var b strings.Builder
	for k := range n {
		fmt.Fprintf(&b, "V:%d\nZ1999|\n", k)
	}
	return b.String()
}

func primeTuplets() string {
	var b strings.Builder
	for _, prime := range []int{3, 5, 7, 11, 13, 17, 19, 23, 29, 31, 37, 41, 43, 47, 53} {
		fmt.Fprintf(&b, `<note><pitch><step>C</step><octave>4</octave></pitch><duration>1</duration><time-modification><actual-notes>%d</actual-notes>`+
			`<normal-notes>2</normal-notes></time-modification></note>`, prime)
	}
	return b.String()
}

func primeDivisions() string {
	var b strings.Builder
	for _, prime := range []int{99991, 99989, 99971, 99961, 99929, 99923} {
		fmt.Fprintf(&b, `<attributes><divisions>%d</divisions></attributes><forward><duration>1</duration></forward>`, prime)
	}
	return b.String() + noteOf("")
}

func repeatedParts(n int) string {
	var b strings.Builder
	b.WriteString("<score-partwise>")
	for range n {
		b.WriteString(`<part id="P1"><measure><attributes><divisions>64</divisions><time><beats>4</beats><beat-type>4</beat-type></time></attributes>`)
		b.WriteString(strings.Repeat(`<note><rest/><duration>4</duration></note>`, 60) + `<note><pitch><step>C</step><octave>4</octave></pitch><duration>16</duration></note></measure>`)
		b.WriteString(`<measure><attributes><measure-style><measure-repeat type="start">1</measure-repeat></measure-style></attributes></measure>`)
		b.WriteString(strings.Repeat("<measure/>", 1900) + "</part>")
	}
	b.WriteString("</score-partwise>")
	return b.String()
}

// goSays are words of the language the program is written in that no teacher should see.
var goSays = []string{"strconv", "xml:", "EOF", "runtime", "panic", "parsing", "syntax error", "invalid", "%!", "nil", "smf", "zip:", "http:"}

// costs is the processor time that a reading takes, on whatever machine and beside whatever
// else, and how far the heap grows meanwhile.
func costs(read func()) (time.Duration, uint64) {
	runtime.GC()
	var before runtime.MemStats
	runtime.ReadMemStats(&before)
	ended, most := make(chan bool), make(chan uint64)
	go func() {
		highest := before.HeapAlloc
		for {
			var now runtime.MemStats
			runtime.ReadMemStats(&now)
			highest = max(highest, now.HeapAlloc)
			select {
			case <-ended:
				most <- highest - before.HeapAlloc
				return
			case <-time.After(5 * time.Millisecond):
			}
		}
	}()
	start := processorTime()
	read()
	took := processorTime() - start
	ended <- true
	return took, <-most
}

func processorTime() time.Duration {
	var used syscall.Rusage
	if err := syscall.Getrusage(syscall.RUSAGE_SELF, &used); err != nil {
		return 0
	}
	return time.Duration(used.Utime.Nano() + used.Stime.Nano())
}

// A reading ends with the request that wants it, whatever kind of file it reads.
func TestReadingEnds(t *testing.T) {
	for _, tt := range madeToExhaust {
		if len(tt.text) < mb {
			continue
		}
		ctx, end := context.WithCancel(context.Background())
		end()
		took, _ := costs(func() { _, _ = format.Read(ctx, tt.file, []byte(tt.text)) })
		if took > 500*time.Millisecond {
			t.Errorf("%s is read on for %s", tt.name, took)
		}
	}
}

// No malformed file panics, loops, fills the memory or shows an error of the language. The
// time is generous: what is wrong takes minutes or for ever.
func TestHostileFiles(t *testing.T) {
	for _, tt := range madeToExhaust {
		data := []byte(tt.text)
		var err error
		took, used := costs(func() { _, err = format.Read(context.Background(), tt.file, data) })
		if took > 2*time.Second || used > 200*mb {
			t.Errorf("%s takes %s of processor time and %d MB", tt.name, took, used/mb)
		}
		t.Logf("%-45s %8s %5d MB", tt.name, took.Round(time.Millisecond), used/mb)
		if err == nil {
			if tt.says != "" {
				t.Errorf("%s is read; it should say %q", tt.name, tt.says)
			}
			continue
		}
		said := err.Error()
		if tt.says == "" || !strings.Contains(said, tt.says) {
			t.Errorf("%s: says %.300s, want %q", tt.name, said, tt.says)
		}
		inOurWords(t, tt.name, said)
	}
}

func inOurWords(t *testing.T, name, said string) {
	t.Helper()
	if len(said) > 12000 {
		t.Errorf("%s: the refusal has %d bytes", name, len(said))
	}
	for _, word := range goSays {
		if strings.Contains(said, word) {
			t.Errorf("%s: the refusal says %q: %.200s", name, word, said)
		}
	}
}

// Two thousand broken files, each read or refused in our words; what is read is written
// again in every format.
func TestBrokenFiles(t *testing.T) {
	n := 2000
	if testing.Short() {
		n = 200
	}
	read := 0
	for k, f := range malformed.Broken(malformed.Sound(t, "."), 1, n) {
		start := time.Now()
		got, err := format.Read(context.Background(), f.Name, f.Data)
		if took := time.Since(start); took > 10*time.Second {
			t.Errorf("file %d, %s: %s", k, f.Name, took)
		}
		if err != nil {
			inOurWords(t, fmt.Sprintf("file %d, %s", k, f.Name), err.Error())
			continue
		}
		read++
		abc.Write(got.Score)
		for _, part := range got.Score.Parts {
			mei.Write(part, mei.Options{})
			if _, err := midi.Write(part, midi.Options{}); err != nil {
				t.Errorf("file %d, %s is read and not played: %v", k, f.Name, err)
			}
		}
		musicxml.Write(got.Score)
	}
	t.Logf("%d of %d broken files are read", read, n)
	if read < n/20 {
		t.Error("hardly any is read: they are too broken to try the readers")
	}
}
