// Command foreign reads files of other programs and compares what is read of them with
// other readers: ABC with abc2midi, MusicXML with Verovio's timemap, MIDI with gomidi.
//
//	go run ./internal/foreign [-verovio FOLDER] [-v] FOLDER…
//
// It prints how many files, and tunes of ABC files, are read the same, are read with
// something said of what was left out or moved, are refused with a reason, or are read
// otherwise silently, and there must be no such case. FOLDER of Verovio is its npm package.
package main

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"unhurriedbench/core/format"
	"unhurriedbench/core/format/abc"
	"unhurriedbench/core/score"
)

// outcome is what became of a file.
type outcome int

const (
	same     outcome = iota
	said             // something is left out or moved, and it is said; what is read is in the other's too
	asked            // measures are uneven; read by the bar lines, at a press, it is the same
	refused          // with a reason
	otherway         // said, and something is read that the other has not
	silent           // read otherwise, and nothing is said
	alone            // the other program does not read it
)

var endings = []string{".abc", ".musicxml", ".xml", ".mxl", ".mid", ".midi"}

var words = []string{"same", "said", "by bar lines", "refused", "said, and otherwise", "otherwise in silence", "not read by the other"}

// note is a struck note: when, in quarters, and its MIDI number.
type note struct {
	At  float64 `json:"at"`
	Key int     `json:"key"`
}

func main() {
	verovio := flag.String("verovio", "", "the folder of the npm package verovio; without it MusicXML is not compared")
	wordy := flag.Bool("v", false, "say what became of each file")
	flag.Parse()
	if err := run(flag.Args(), *verovio, *wordy); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

func run(folders []string, verovio string, wordy bool) error {
	var engraver *timemap
	if verovio != "" {
		var err error
		if engraver, err = startTimemap(verovio); err != nil {
			return err
		}
		defer engraver.stop()
	}
	counts := map[string][]int{}
	tell := func(kind, name string, what outcome, why string) {
		if counts[kind] == nil {
			counts[kind] = make([]int, len(words))
		}
		counts[kind][what]++
		if wordy || what == silent || what == otherway {
			fmt.Printf("%s: %s: %s\n", name, words[what], why)
		}
	}
	for _, folder := range folders {
		err := filepath.WalkDir(folder, func(path string, entry os.DirEntry, err error) error {
			if err != nil || entry.IsDir() {
				return err
			}
			ending := strings.ToLower(filepath.Ext(path))
			if !slices.Contains(endings, ending) {
				return nil
			}
			data, err := os.ReadFile(path)
			if err != nil {
				return fmt.Errorf("read %s: %w", path, err)
			}
			switch ending {
			case ".abc":
				for n, tune := range abc.Tunes(string(data)) {
					what, why := compareABC(tune.Text)
					tell("ABC", fmt.Sprintf("%s, tune %d", path, n+1), what, why)
				}
			case ".musicxml", ".xml", ".mxl":
				if what, why, is := compareMusicXML(engraver, path, data); is {
					tell("MusicXML", path, what, why)
				}
			case ".mid", ".midi":
				what, why := compareMIDI(path, data)
				tell("MIDI", path, what, why)
			}
			return nil
		})
		if err != nil {
			return fmt.Errorf("go through %s: %w", folder, err)
		}
	}
	fmt.Printf("%-10s", "")
	for _, w := range words {
		fmt.Printf(" %22s", w)
	}
	fmt.Println()
	for _, kind := range []string{"ABC", "MusicXML", "MIDI"} {
		if counts[kind] == nil {
			continue
		}
		fmt.Printf("%-10s", kind)
		for _, n := range counts[kind] {
			fmt.Printf(" %22d", n)
		}
		fmt.Println()
	}
	return nil
}

// read reads a file; wrong is why it is refused.
func read(name string, data []byte) (f format.File, wrong score.Problems, err error) {
	f, err = format.Read(context.Background(), name, data)
	if errors.As(err, &wrong) {
		return f, wrong, nil
	}
	return f, nil, err
}

// judge compares what is read with what the other strikes.
func judge(s score.Score, ours, theirs []note, tolerance float64) (outcome, string) {
	extra, missing := apart(ours, theirs, tolerance)
	remarks := ""
	for _, r := range s.Remarks {
		remarks += r.Error() + " "
	}
	why := fmt.Sprintf("%d notes are read, the other has %d; %d are read alone, as %v, and %d are missing, as %v. %s", len(ours), len(theirs), len(extra), first(extra), len(missing), first(missing), remarks)
	switch {
	case len(extra) == 0 && len(missing) == 0:
		return same, why
	case len(s.Remarks) == 0:
		return silent, why
	case len(extra) == 0:
		return said, why
	}
	return otherway, why
}

func first(list []note) []note { return list[:min(3, len(list))] }

// apart pairs notes of one key at one time, and lists those of either side that have none.
func apart(ours, theirs []note, tolerance float64) (extra, missing []note) {
	used := make([]bool, len(theirs))
	byKey := map[int][]int{}
	for k, n := range theirs {
		byKey[n.Key] = append(byKey[n.Key], k)
	}
	for _, n := range ours {
		at := slices.IndexFunc(byKey[n.Key], func(k int) bool {
			return !used[k] && theirs[k].At-n.At <= tolerance && n.At-theirs[k].At <= tolerance
		})
		if at < 0 {
			extra = append(extra, n)
			continue
		}
		used[byKey[n.Key][at]] = true
	}
	struck := map[note]bool{} // twice at once is once
	for k, n := range theirs {
		if used[k] {
			struck[n] = true
		}
	}
	for k, n := range theirs {
		if !used[k] && !struck[n] {
			missing = append(missing, n)
		}
	}
	return extra, missing
}

// struck lists what the parts with pitch strike when measures are played in an order of
// theirs, chords whole.
func struck(s score.Score, order func(score.Part) []int) []note {
	var list []note
	for _, p := range s.Parts {
		if p.Unpitched() {
			continue
		}
		for _, sounding := range p.Sounding(order(p)) {
			e := p.At(sounding.Place)
			list = append(list, note{4 * sounding.Onset.Float(), sounding.Pitch.MIDI()})
			for _, other := range e.Others {
				if before := p.Before(sounding.Place); before == nil || !before.Holds(other) {
					list = append(list, note{4 * sounding.Onset.Float(), other.MIDI()})
				}
			}
		}
	}
	return list
}
