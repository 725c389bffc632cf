package format

import (
	"archive/zip"
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"path"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"unhurriedbench/core/format/abc"
	"unhurriedbench/core/score"
)

// What may be brought in together; the figures are ours.
const (
	MostItems    = 300      // exercises
	MostTogether = 20 << 20 // bytes, unpacked
)

// Item is one exercise of several that were brought in together.
type Item struct {
	Name   string // of its file, and which tune of it: "book.abc, tune 3"
	Number int    // that the tune or the file's name gives, 0 for none
	File   File   // Text is there where it can be mended, also where it was not read
	Err    error  // a score.Problems, nil where it was read
}

// Named is a file by its name.
type Named struct {
	Name string
	Data []byte
}

// Items reads several files: each may be an exercise, a text with many tunes or a .zip of
// such files. One that cannot be read stands among them with its error. The error is a
// score.Problems where there are too many or they are too large together; once ctx ends, it is
// the context's.
func Items(ctx context.Context, files []Named) ([]Item, error) {
	var list []Item
	left := int64(MostTogether)
	for _, f := range files {
		unzipped, err := unzip(f, &left)
		if err != nil {
			return nil, err
		}
		for _, one := range unzipped {
			items, err := itemsOf(ctx, one)
			if err != nil {
				return nil, err
			}
			if list = append(list, items...); len(list) > MostItems {
				return nil, problem(fmt.Sprintf("There are more than %d exercises.", MostItems), "Bring them in in several lots.")
			}
		}
	}
	if len(list) == 0 {
		return nil, problem("There is no exercise in what was chosen.",
			"Choose files in MusicXML, ABC, MIDI or counted and named, or a .zip of them.")
	}
	numberOnce(list)
	return list, nil
}

// opened is a file out of a .zip, or one that could not be taken out.
type opened struct {
	Named
	err error
}

// unzip takes the files out of a .zip, and hands on any other. left is how many bytes there
// may still be.
func unzip(f Named, left *int64) ([]opened, error) {
	packed := strings.EqualFold(path.Ext(f.Name), ".zip")
	if !packed {
		if *left -= int64(len(f.Data)); *left < 0 {
			return nil, tooMuchTogether()
		}
		return []opened{{Named: f}}, nil
	}
	z, err := zip.NewReader(bytes.NewReader(f.Data), int64(len(f.Data)))
	if err != nil {
		return []opened{{f, problem("The .zip cannot be opened.", "Pack it again.")}}, nil
	}
	var list []opened
	for _, entry := range z.File {
		name := entry.Name
		if strings.HasSuffix(name, "/") || strings.HasPrefix(path.Base(name), ".") || strings.HasPrefix(name, "__MACOSX/") {
			continue
		}
		if len(list) == MostItems {
			return nil, problem(fmt.Sprintf("The .zip holds more than %d files.", MostItems), "Bring them in in several lots.")
		}
		one := opened{Named: Named{Name: f.Name + ", " + name}}
		one.Data, one.err = takeOut(entry, min(*left, Largest)+1)
		if *left -= int64(len(one.Data)); *left < 0 {
			return nil, tooMuchTogether()
		}
		if strings.EqualFold(path.Ext(name), ".zip") {
			one.err = problem("It is a .zip within a .zip.", "Unpack it, and choose its files.")
		}
		list = append(list, one)
	}
	return list, nil
}

func tooMuchTogether() error {
	return problem(fmt.Sprintf("The files are larger than %d MB together.", MostTogether>>20),
		"Bring them in in several lots.")
}

// takeOut unpacks a file of a .zip, as far as most bytes.
func takeOut(entry *zip.File, most int64) ([]byte, error) {
	r, err := entry.Open()
	if err != nil {
		return nil, problem("It cannot be taken out of the .zip.", "Pack it again, without a password.")
	}
	defer r.Close()
	data, err := io.ReadAll(io.LimitReader(r, most))
	if err != nil {
		return data, problem("It cannot be taken out of the .zip.", "Pack it again.")
	}
	return data, nil
}

// itemsOf reads a file, tune by tune where it is ABC.
func itemsOf(ctx context.Context, f opened) ([]Item, error) {
	item := Item{Name: f.Name, Number: numberIn(f.Name), Err: f.err}
	if f.err != nil {
		return []Item{item}, nil
	}
	if kindOf(f.Name, f.Data) == ABC && len(f.Data) <= Largest {
		tunes := abc.Tunes(string(f.Data))
		if len(tunes) > MostItems {
			return nil, problem(fmt.Sprintf("%s holds more than %d tunes.", f.Name, MostItems), "Bring them in in several lots.")
		}
		var list []Item
		for n, tune := range tunes {
			one := item
			if len(tunes) > 1 {
				one.Name, one.Number = fmt.Sprintf("%s, tune %d", f.Name, n+1), tune.Number
			}
			s, err := abc.Read(ctx, tune.Text)
			if err != nil {
				s = score.Score{Title: tune.Title}
			}
			one.File, one.Err = File{Score: s, Kind: ABC, Text: tune.Text}, err
			if ctx.Err() != nil {
				return nil, fmt.Errorf("read %s: %w", one.Name, ctx.Err())
			}
			list = append(list, one)
		}
		return list, nil
	}
	item.File, item.Err = Read(ctx, path.Base(f.Name), f.Data)
	var wrong score.Problems
	if item.Err != nil && !errors.As(item.Err, &wrong) {
		return nil, fmt.Errorf("read %s: %w", f.Name, item.Err)
	}
	return []Item{item}, nil
}

var leadingNumber = regexp.MustCompile(`^\D{0,3}?0*([1-9]\d{0,3})(\D|$)`)

// numberIn is the number that a file's name begins with: "06 Ferry Landing.mxl".
func numberIn(name string) int {
	_, base, inZip := strings.Cut(name, ", ")
	if !inZip {
		base = name
	}
	found := leadingNumber.FindStringSubmatch(path.Base(base))
	if found == nil {
		return 0
	}
	n, _ := strconv.Atoi(found[1]) // four digits at most
	return n
}

// numberOnce takes numbers away that come twice.
func numberOnce(list []Item) {
	var taken []int
	for k, item := range list {
		if slices.Contains(taken, item.Number) {
			list[k].Number = 0
		}
		taken = append(taken, item.Number)
	}
}
