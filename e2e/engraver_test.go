package e2e

import (
	"context"
	"fmt"
	"math"
	"os"
	"path/filepath"
	"testing"

	"github.com/go-rod/rod"

	"unhurriedbench/core/format/abc"
	"unhurriedbench/core/format/mei"
	"unhurriedbench/core/format/musicxml"
	"unhurriedbench/core/score"
	"unhurriedbench/demo"
)

// heard is what the engraver makes of a document: for each note's id when it
// starts, in quarters, and its MIDI number.
type heard map[string]struct {
	At    float64 `json:"at"`
	Pitch int     `json:"pitch"`
}

// partsToCheck is the demo's exercises and every ABC file of the reader's tests.
// Small strokes are left out of the comparison: the engraver takes their time from
// the stroke they lead to.
func partsToCheck(t *testing.T) map[string]score.Part {
	t.Helper()
	exercises, err := demo.Exercises()
	if err != nil {
		t.Fatal(err)
	}
	parts := map[string]score.Part{}
	for _, x := range exercises {
		part := x.Score.Parts[0].Copy()
		for _, at := range part.Notes() {
			part.At(at).Graces = 0
		}
		parts[x.Score.Title] = part
	}
	files, err := filepath.Glob("../core/format/abc/testdata/*.abc")
	if err != nil {
		t.Fatal(err)
	}
	for _, name := range files {
		text, err := os.ReadFile(name)
		if err != nil {
			t.Fatal(err)
		}
		s, err := abc.Read(context.Background(), string(text))
		if err != nil {
			t.Fatal(err)
		}
		parts[filepath.Base(name)] = s.Parts[0]
	}
	return parts
}

// Outside check: the shipped engraver (Verovio) reads the MEI, and its timemap
// and pitches are core's.
func TestTheEngraverHearsWhatCoreDoes(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("a long one, for bin/test --all")
	}
	p, _ := signedIn(t, 1280)
	p.MustNavigate(p.MustInfo().URL + "exercises/new?way=abc").MustWaitLoad()
	p.MustElement("#preview svg")
	for name, part := range partsToCheck(t) {
		for _, ruler := range []bool{false, true} {
			var got heard
			err := p.MustEval(withModules(t, `async (mei) => {
				const toolkit = await $engrave.load();
				toolkit.setOptions({ expandNever: true }); // in written order
				toolkit.loadData(mei);
				const notes = {};
				for (const moment of toolkit.renderToTimemap({ includeMeasures: false })) {
					for (const id of moment.on || []) {
						if (id.startsWith("n")) notes[id] = { at: moment.qstamp, pitch: toolkit.getMIDIValuesForElement(id).pitch };
					}
				}
				return notes;
			}`), mei.Write(part, mei.Options{Ruler: ruler})).Unmarshal(&got)
			if err != nil {
				t.Fatal(err)
			}
			compare(t, fmt.Sprintf("%s (ruler %v)", name, ruler), part, got)
		}
	}
}

// Outside check: the engraver as a reader of the MusicXML we write. It gives its
// own ids, so notes are compared in order.
func TestTheEngraverReadsOurMusicXML(t *testing.T) {
	t.Parallel()
	p, _ := signedIn(t, 1280)
	p.MustNavigate(p.MustInfo().URL + "exercises/new?way=abc").MustWaitLoad()
	p.MustElement("#preview svg")
	for name, part := range partsToCheck(t) {
		part.Transposition = score.Interval{}
		text := musicxml.Write(score.Score{Title: name, Parts: []score.Part{part}})
		got := readByEngraver(t, p, string(text))
		compareInOrder(t, name, part, got)
	}
}

// sounded is a note as the engraver sounds it: when, in quarters, and its MIDI number.
type sounded struct {
	At    float64 `json:"at"`
	Pitch int     `json:"pitch"`
}

// readByEngraver lists what the engraver sounds of a MusicXML file, in written order.
func readByEngraver(t *testing.T, p *rod.Page, text string) []sounded {
	t.Helper()
	var got []sounded
	err := p.MustEval(withModules(t, `async (xml) => {
		const toolkit = await $engrave.load();
		toolkit.setOptions({ expandNever: true });
		toolkit.loadData(xml);
		const notes = [], tied = new Set();
		const page = new DOMParser().parseFromString(toolkit.getMEI(), "text/xml");
		for (const tie of page.querySelectorAll("tie")) tied.add(tie.getAttribute("endid").slice(1));
		for (const note of page.querySelectorAll("note[tie=m], note[tie=t]")) tied.add(note.getAttribute("xml:id"));
		for (const moment of toolkit.renderToTimemap({ includeMeasures: false })) {
			for (const id of moment.on || []) {
				if (!tied.has(id)) notes.push({ at: moment.qstamp, pitch: toolkit.getMIDIValuesForElement(id).pitch });
			}
		}
		return notes;
	}`), text).Unmarshal(&got)
	if err != nil {
		t.Fatal(err)
	}
	return got
}

func compareInOrder(t *testing.T, name string, part score.Part, got []sounded) {
	t.Helper()
	want := part.Sounding(part.Written())
	if len(got) != len(want) {
		t.Errorf("%s: the engraver sounds %d notes, core %d", name, len(got), len(want))
		return
	}
	for i, note := range want {
		if math.Abs(got[i].At-4*note.Onset.Float()) > 0.001 || got[i].Pitch != note.Pitch.MIDI() && !part.Unpitched() {
			t.Errorf(
				"%s: note %d sounds MIDI %d at %.3f, core says %d at %.3f",
				name,
				i+1,
				got[i].Pitch,
				got[i].At,
				note.Pitch.MIDI(),
				4*note.Onset.Float(),
			)
			return
		}
	}
}

// Outside check: the engraver reads the files of the MusicXML reader's tests, and
// sounds what core does. Left out are those in which it strikes what we leave out or
// read in our own way: chords, small notes, a second staff or voice, another
// transposition, a measure that repeats the one before.
func TestTheEngraverReadsTheFilesAsWeDo(t *testing.T) {
	t.Parallel()
	p, _ := signedIn(t, 1280)
	p.MustNavigate(p.MustInfo().URL + "exercises/new?way=abc").MustWaitLoad()
	p.MustElement("#preview svg")
	for _, name := range []string{"ending-numbers", "ending-without-stop", "jumps-in-words", "printed-fingerings", "words-over-the-first-note", "rests-of-a-measure", "no-meter"} {
		data, err := os.ReadFile("../core/format/musicxml/testdata/" + name + ".musicxml")
		if err != nil {
			t.Fatal(err)
		}
		s, err := musicxml.Read(context.Background(), data)
		if err != nil {
			t.Fatal(err)
		}
		compareInOrder(t, name, s.Parts[0], readByEngraver(t, p, string(data)))
	}
}

func compare(t *testing.T, name string, part score.Part, got heard) {
	t.Helper()
	sounding := part.Sounding(part.Written())
	for _, note := range sounding {
		id := mei.IDs("").Event(note.Place)
		found, ok := got[id]
		switch want := 4 * note.Onset.Float(); {
		case !ok:
			t.Errorf("%s: the engraver does not sound %s", name, id)
		case math.Abs(found.At-want) > 0.001:
			t.Errorf("%s: %s sounds at %.3f quarters, core says %.3f", name, id, found.At, want)
		case found.Pitch != note.Pitch.MIDI() && !part.Unpitched():
			t.Errorf("%s: %s sounds MIDI %d, core says %d", name, id, found.Pitch, note.Pitch.MIDI())
		}
	}
	if len(sounding) < 2 {
		t.Errorf("%s: only %d notes", name, len(sounding))
	}
}
