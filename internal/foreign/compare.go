package main

import (
	"bufio"
	"bytes"
	"encoding/json"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"sort"
	"strings"

	_ "embed"

	"unhurriedbench/core/format"
	"unhurriedbench/core/score"
	"unhurriedbench/internal/midicheck"
)

// played alone by abc2midi: small notes, chords by name, ornaments, drums and tempered tunings.
var (
	small   = regexp.MustCompile(`\{[^}]*\}`)
	tremolo = regexp.MustCompile(`!(/{1,3}|[^!\n]*tr[^!\n]*|roll|~)!`)
	named   = regexp.MustCompile(`"[^"\n]*"`)
	asMIDI  = regexp.MustCompile(`(?m)^%%MIDI +(?:transpose|rtranspose) .*$`)
)

// plain is an ABC text without what abc2midi plays and nobody reads as notes.
func plain(text string) string {
	var b strings.Builder
	for row := range strings.Lines(text) {
		field := len(row) > 1 && row[1] == ':' && row[0] >= 'A' && row[0] <= 'z'
		switch {
		case strings.HasPrefix(row, "%%MIDI") && !asMIDI.MatchString(strings.TrimRight(row, "\r\n")):
		case strings.HasPrefix(row, "R:"): // it swings a hornpipe
		case field || strings.HasPrefix(row, "%"):
			b.WriteString(row)
		default:
			row = small.ReplaceAllString(tremolo.ReplaceAllString(row, ""), "")
			row = named.ReplaceAllString(row, "")
			b.WriteString(strings.NewReplacer("T", "", "~", "").Replace(row))
		}
	}
	return b.String()
}

func compareABC(text string) (outcome, string) {
	f, wrong, err := read("tune.abc", []byte(text))
	byBars := wrong != nil && wrong.OfLengths() // the page asks whether to read by bar lines
	if byBars {
		f, wrong, err = read("tune.abc", []byte(format.ByBarLines(format.ABC, text)))
	}
	if wrong != nil || err != nil {
		return refused, fmt.Sprint(wrong, err)
	}
	notes, err := midicheck.Struck(plain(text))
	if err != nil {
		return alone, err.Error()
	}
	what, why := judge(f.Score, struck(f.Score, score.Part.Order), quarters(notes), 0.06) // it spreads some chords
	if byBars && (what == same || what == said) {
		what = asked
	}
	return what, why
}

func quarters(notes []midicheck.Note) []note {
	var list []note
	for _, n := range notes {
		list = append(list, note{4 * n.Onset.Float(), int(n.Key)})
	}
	return list
}

// compareMIDI allows a thirty-second, by which what was played may be moved.
func compareMIDI(path string, data []byte) (outcome, string) {
	f, wrong, err := read(path, data)
	if wrong != nil || err != nil {
		return refused, fmt.Sprint(wrong, err)
	}
	notes, err := midicheck.File(data, 0)
	if err != nil {
		return alone, err.Error()
	}
	return judge(f.Score, struck(f.Score, score.Part.Written), quarters(notes), 0.125)
}

// compareMusicXML leaves out XML that is no music.
func compareMusicXML(engraver *timemap, path string, data []byte) (what outcome, why string, is bool) {
	if filepath.Ext(path) == ".xml" && !bytes.Contains(data, []byte("<score-")) {
		return 0, "", false
	}
	f, wrong, err := read(path, data)
	if wrong != nil || err != nil {
		return refused, fmt.Sprint(wrong, err), true
	}
	if engraver == nil {
		return alone, "Verovio's folder is not named", true
	}
	theirs, bars, err := engraver.sounds(f.Text)
	if err != nil {
		return alone, err.Error(), true
	}
	rebase(theirs, bars, f.Score.Parts[0])
	what, why = judge(f.Score, struck(f.Score, score.Part.Written), theirs, 0.01)
	return what, why, true
}

// rebase has the other's measures begin where ours do: it gives a rest of a measure in another
// meter than 4/4 four quarters where the file does not call it one.
func rebase(notes []note, bars []float64, p score.Part) {
	var ours []float64
	at := score.Fraction{}
	for _, m := range p.Measures {
		if !m.Split {
			ours = append(ours, 4*at.Float())
		}
		at = at.Add(m.Length)
	}
	if len(ours) != len(bars) {
		return
	}
	for k := range notes {
		i := sort.Search(len(bars), func(i int) bool { return bars[i] > notes[k].At+0.001 }) - 1
		if i >= 0 {
			notes[k].At += ours[i] - bars[i]
		}
	}
}

//go:embed timemap.cjs
var script []byte

// timemap is Verovio under Node, which answers a file at a time.
type timemap struct {
	ask    *bufio.Writer
	answer *bufio.Reader
	stop   func()
}

func startTimemap(verovio string) (*timemap, error) {
	file, err := os.CreateTemp("", "timemap*.cjs")
	if err != nil {
		return nil, fmt.Errorf("a file for the script: %w", err)
	}
	if _, err = file.Write(script); err == nil {
		err = file.Close()
	}
	if err != nil {
		return nil, fmt.Errorf("write the script: %w", err)
	}
	node := exec.Command("node", file.Name(), verovio)
	node.Stderr = os.Stderr
	in, err := node.StdinPipe()
	if err != nil {
		return nil, fmt.Errorf("speak to Node: %w", err)
	}
	out, err := node.StdoutPipe()
	if err != nil {
		return nil, fmt.Errorf("hear Node: %w", err)
	}
	if err := node.Start(); err != nil {
		return nil, fmt.Errorf("start Node: %w", err)
	}
	return &timemap{bufio.NewWriter(in), bufio.NewReader(out), func() {
		_ = in.Close()
		_ = node.Wait()
		_ = os.Remove(file.Name())
	}}, nil
}

// sounds lists what Verovio sounds of a text, and when its measures begin, in quarters.
func (t *timemap) sounds(text string) (notes []note, bars []float64, err error) {
	asked, err := json.Marshal(text)
	if err != nil {
		return nil, nil, fmt.Errorf("put it to Verovio: %w", err)
	}
	if _, err = t.ask.Write(append(asked, '\n')); err == nil {
		err = t.ask.Flush()
	}
	if err != nil {
		return nil, nil, fmt.Errorf("ask Verovio: %w", err)
	}
	line, err := t.answer.ReadBytes('\n')
	if err != nil {
		return nil, nil, fmt.Errorf("hear Verovio: %w", err)
	}
	var answer struct {
		Notes    []note    `json:"notes"`
		Measures []float64 `json:"measures"`
		Error    string    `json:"error"`
	}
	if err := json.Unmarshal(line, &answer); err != nil {
		return nil, nil, fmt.Errorf("the answer of Verovio: %w", err)
	}
	if answer.Error != "" {
		return nil, nil, fmt.Errorf("in Verovio: %s", answer.Error)
	}
	return answer.Notes, answer.Measures, nil
}
