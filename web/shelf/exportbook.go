package shelf

import (
	"archive/zip"
	"bytes"
	"context"
	"fmt"
	"net/http"
	"strings"

	"unhurriedbench/core/format"
	"unhurriedbench/core/format/abc"
	"unhurriedbench/core/format/musicxml"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// exportBook sends a whole book: its tunes in ABC, or a .zip of MusicXML files.
func (s *handlers) exportBook(w http.ResponseWriter, r *http.Request) error {
	id := site.ID[store.BookID](r)
	list, err := site.ClassOf(r).Exercises(r.Context())
	if err != nil {
		return err
	}
	var book []store.Exercise
	for _, x := range list {
		if x.BookID == id {
			book = append(book, x)
		}
	}
	if len(book) == 0 {
		return store.ErrNotFound
	}
	as, pack := "abc", s.bookAsABC
	if site.Text(r, "as") == "zip" {
		as, pack = "zip", s.bookAsZip
	}
	data, err := pack(r.Context(), site.ClassOf(r), book)
	if err != nil {
		return err
	}
	w.Header().Set("Content-Type", map[string]string{"abc": "text/vnd.abc; charset=utf-8", "zip": "application/zip"}[as])
	w.Header().Set("Content-Disposition", fmt.Sprintf(`attachment; filename="%s.%s"`, site.ForFile(book[0].Book), as))
	if _, err := w.Write(data); err != nil {
		s.Log.Error("send a book", "error", err)
	}
	return nil
}

// bookAsABC writes the exercises one after another, each under its number. One that was typed
// in ABC stands as it was typed.
func (s *handlers) bookAsABC(ctx context.Context, desk *teach.Class, book []store.Exercise) ([]byte, error) {
	var out bytes.Buffer
	for _, x := range book {
		source, err := desk.Source(ctx, x.Hash)
		if err != nil {
			return nil, err
		}
		tune := source.Content
		if source.Format != format.ABC {
			sc, err := s.Reader.Score(ctx, source)
			if ctx.Err() != nil {
				return nil, fmt.Errorf("read exercise %d: %w", x.ID, err)
			}
			if err != nil {
				fmt.Fprintf(&out, "%% %d: it cannot be read, and is left out.\n\n", x.Number)
				continue
			}
			tune = abc.Write(sc)
		}
		fmt.Fprintf(&out, "X:%d\nT:%s\n", x.Number, teach.OneLine(x.Title))
		for row := range strings.Lines(abc.Tunes(tune)[0].Text) {
			if title := strings.HasPrefix(row, "T:"); !title && !strings.HasPrefix(row, "X:") && strings.TrimSpace(row) != "" {
				out.WriteString(row)
			}
		}
		out.WriteString("\n\n")
	}
	return out.Bytes(), nil
}

// bookAsZip packs a MusicXML file of each exercise, as it was brought in where it was one.
func (s *handlers) bookAsZip(ctx context.Context, desk *teach.Class, book []store.Exercise) ([]byte, error) {
	var out bytes.Buffer
	z := zip.NewWriter(&out)
	for _, x := range book {
		source, err := desk.Source(ctx, x.Hash)
		if err != nil {
			return nil, err
		}
		data, ending := []byte(source.Content), "musicxml"
		if source.Format == format.ABC {
			sc, err := s.Reader.Score(ctx, source)
			switch {
			case ctx.Err() != nil:
				return nil, fmt.Errorf("read exercise %d: %w", x.ID, err)
			case err != nil:
				ending = "abc" // it stands as it was typed
			default:
				sc.Title = x.Title
				data = musicxml.Write(sc)
			}
		}
		entry, err := z.Create(fmt.Sprintf("%03d-%s.%s", x.Number, site.ForFile(x.Title), ending))
		if err != nil {
			return nil, fmt.Errorf("pack the book: %w", err)
		}
		if _, err := entry.Write(data); err != nil {
			return nil, fmt.Errorf("pack the book: %w", err)
		}
	}
	if err := z.Close(); err != nil {
		return nil, fmt.Errorf("pack the book: %w", err)
	}
	return out.Bytes(), nil
}
