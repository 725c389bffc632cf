// Package musicxml reads MusicXML 4.0 partwise scores.
package musicxml

import (
	"bytes"
	"context"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"unhurriedbench/core/score"
)

// deepest is how far elements may nest; real scores stay below 15.
const deepest = 60

// Read reads a partwise score. The error is a score.Problems that names
// measures where it can; once ctx ends, it is the context's.
func Read(ctx context.Context, data []byte) (score.Score, error) {
	root, err := rootElement(ctx, data)
	if err != nil {
		return score.Score{}, err
	}
	switch root {
	case "score-partwise":
	case "score-timewise":
		return score.Score{}, score.Problems{score.General("This is MusicXML written measure by measure (timewise).",
			"Export it again as an ordinary, partwise MusicXML file.")}
	default:
		return score.Score{}, score.Problems{score.General(
			fmt.Sprintf("This is an XML file, but not MusicXML: it starts with <%s>.", score.Clip(root)),
			"Export the exercise as MusicXML from your notation program.")}
	}
	var doc document
	if err := decoder(ctx, data).Decode(&doc); err != nil {
		return score.Score{}, badXML(ctx, err)
	}
	return doc.score()
}

// whileWanted reads until a context ends.
type whileWanted struct {
	ctx context.Context
	io.Reader
}

func (w whileWanted) Read(p []byte) (int, error) {
	if err := w.ctx.Err(); err != nil {
		return 0, err
	}
	return w.Reader.Read(p)
}

func decoder(ctx context.Context, data []byte) *xml.Decoder {
	d := xml.NewDecoder(whileWanted{ctx, bytes.NewReader(data)})
	d.CharsetReader = func(charset string, input io.Reader) (io.Reader, error) {
		switch strings.ToLower(charset) {
		case "utf-8", "us-ascii", "ascii":
			return input, nil
		case "utf-16": // Text has turned real UTF-16 over; some files say so of UTF-8
			if utf8.Valid(data) {
				return input, nil
			}
		}
		return nil, encodingError(score.Clip(charset))
	}
	return d
}

// mostElements bounds what is set aside for a file: a score of score.MostEvents written
// out has fewer.
const mostElements = 450_000

// rootElement checks that data is well-formed XML that nests no deeper and holds no more
// than it may, and names its root.
func rootElement(ctx context.Context, data []byte) (string, error) {
	d := decoder(ctx, data)
	root, depth, elements, measures, notes := "", 0, 0, 0, 0
	for {
		token, err := d.RawToken()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return "", badXML(ctx, err)
		}
		switch t := token.(type) {
		case xml.StartElement:
			if root == "" {
				root = t.Name.Local
			}
			depth++
			elements++
			switch t.Name.Local {
			case "part":
				measures = 0
			case "measure":
				measures++
			case "note":
				notes++
			}
			switch {
			case depth > deepest:
				return "", score.Problems{score.General("Its elements nest too deeply to be a score.",
					"Export it again as MusicXML.")}
			case measures > score.MostMeasures && root == "score-partwise":
				return "", score.Problems{score.TooManyMeasures(score.MostMeasures)}
			case notes > 2*score.MostEvents || elements > mostElements: // chords and second voices are among them
				return "", score.Problems{score.TooManyEvents()}
			}
		case xml.EndElement:
			depth--
		}
	}
	if root == "" {
		return "", score.Problems{score.General("This is not an XML file.",
			"Export the exercise as MusicXML, or type it as ABC.")}
	}
	return root, nil
}

// encodingError names a text encoding that is not read.
type encodingError string

func (e encodingError) Error() string { return "the text encoding " + string(e) + " is not read" }

// badXML says in our words why a file is not read.
func badXML(ctx context.Context, err error) error {
	if ended := ctx.Err(); ended != nil {
		return ended
	}
	var (
		syntax   *xml.SyntaxError
		number   *strconv.NumError
		encoding encodingError
	)
	switch {
	case errors.As(err, &encoding):
		return score.Problems{score.General("The file cannot be read: "+encoding.Error()+".", "Save it as UTF-8.")}
	case errors.As(err, &number):
		return score.Problems{score.General(fmt.Sprintf("“%s” stands where MusicXML has a whole number.",
			score.Clip(number.Num)), "Export the file again.")}
	case errors.As(err, &syntax):
		return score.Problems{{Measure: -1, Line: syntax.Line, What: "the XML is broken here.",
			Do: "Export the file again; it may have been cut short."}}
	}
	return score.Problems{score.General("The file cannot be read as MusicXML.", "Export it again as MusicXML.")}
}

func (doc document) score() (score.Score, error) {
	if len(doc.Parts) > score.MostParts {
		return score.Score{}, score.Problems{score.TooManyParts()}
	}
	s := score.Score{Title: score.Cut(strings.TrimSpace(doc.Title))}
	if s.Title == "" {
		s.Title = score.Cut(strings.TrimSpace(doc.MovementTitle))
	}
	for _, creator := range doc.Creators {
		if creator.Type == "composer" {
			s.Composer = score.Cut(strings.TrimSpace(creator.Name))
		}
	}
	names := map[string]string{}
	for _, listed := range doc.PartList {
		names[listed.ID] = score.Cut(strings.TrimSpace(listed.Name))
	}
	var problems score.Problems
	events := 0
	for _, xmlPart := range doc.Parts {
		r := &partReader{among: len(doc.Parts) > 1, uneven: doc.uneven(), score: &s, divisions: 1, events: &events,
			meter: score.Meter{Beats: 4, Unit: 4}, clef: score.Treble}
		part, err := r.read(xmlPart)
		if err != nil {
			var found score.Problems
			if errors.As(err, &found) {
				problems = append(problems, found...)
				continue
			}
			return score.Score{}, err
		}
		part.Name = names[xmlPart.ID]
		s.Parts = append(s.Parts, part)
		for _, p := range slices.Concat(r.remarks, part.CloseSlurs(), part.CloseHairpins(), part.Unfollowed()) {
			if len(doc.Parts) > 1 {
				p.Part = part.Name
			}
			s.Remarks = append(s.Remarks, p)
		}
	}
	if len(problems) > 0 {
		joined := problems.Joined()
		return score.Score{}, joined[:min(len(joined), mostProblems)]
	}
	if len(s.Parts) == 0 {
		return score.Score{}, score.Problems{score.General("The file has no part with music in it.",
			"Export the exercise with its notes.")}
	}
	return s, nil
}

const mostProblems = 12

// byBarLines is a field of our own among a file's miscellaneous ones: a measure that holds more
// or less than its meter asks for is read as its bar lines make it.
const byBarLines = "measures-by-bar-lines"

func (doc document) uneven() bool {
	return slices.ContainsFunc(doc.Miscellaneous, func(f miscellaneous) bool { return f.Name == byBarLines })
}

// ByBarLines has a file read with its measures as their bar lines make them.
func ByBarLines(text string) string {
	field := `<miscellaneous-field name="` + byBarLines + `">yes</miscellaneous-field>`
	put := func(before, what string) (string, bool) {
		at := strings.Index(text, before)
		if at < 0 {
			return "", false
		}
		return text[:at] + what + text[at:], true
	}
	if with, ok := put("</miscellaneous>", field); ok {
		return with
	}
	field = "<miscellaneous>" + field + "</miscellaneous>"
	if with, ok := put("</identification>", field); ok {
		return with
	}
	for _, after := range []string{"<defaults", "<credit", "<part-list"} {
		if with, ok := put(after, "<identification>"+field+"</identification>"); ok {
			return with
		}
	}
	return text
}
