package web

import (
	"errors"
	"fmt"
	"net/http"
	"strings"

	"unhurriedbench/core/count"
	"unhurriedbench/core/format/abc"
	countedformat "unhurriedbench/core/format/counted"
	"unhurriedbench/core/format/midi"
	"unhurriedbench/core/format/musicxml"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
)

// exportExercise sends an instrument's part as a file.
func (s *Server) exportExercise(w http.ResponseWriter, r *http.Request) {
	ctx, desk := r.Context(), deskOf(r)
	x, err := desk.ExerciseByID(ctx, idOf[store.ExerciseID](r))
	if err != nil {
		s.failed(w, r, err)
		return
	}
	target, ok := instrument.ByID(text(r, "instrument"))
	if !ok {
		s.notFound(w, r)
		return
	}
	kept, err := taught(ctx, desk)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	target = kept.instrument(target)
	part, err := s.reader.Part(ctx, desk, x, target.ID)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	placed, err := desk.Placed(ctx, x, target)
	if err != nil {
		s.failed(w, r, err)
		return
	}
	made := instrument.Make(part.Source, part.WrittenFor, target, placed).Part
	out := score.Score{
		Title: x.Title, Composer: part.Score.Composer, Tempo: part.Score.Tempo, TempoWords: part.Score.TempoWords, Parts: []score.Part{made},
	}
	if text(r, "line") != "" {
		v, err := loadBench(ctx, desk, askOf(r))
		if err != nil {
			s.failed(w, r, err)
			return
		}
		if v.InDrill() {
			out.Title, out.Parts = v.LineTitle()+" "+x.Title, []score.Part{v.Report.Part}
			if v.Report.Part.Meter().Beat() != made.Meter().Beat() { // a mark of another meter
				out.Tempo, out.TempoWords = score.Tempo{}, ""
			}
		}
	}
	data, ending, kind, err := encode(out, target, text(r, "as"), kept.Preferences.options(store.Section{}).Count)
	var unsaid score.Problems
	if errors.As(err, &unsaid) {
		s.render(w, http.StatusUnprocessableEntity, "message", "layout", layoutData{Title: "Not counted", Teacher: asking(r).Teacher,
			Content: message{"This cannot be counted and named in two lines", unsaid.Error()}})
		return
	}
	if err != nil {
		s.failed(w, r, err)
		return
	}
	if data == nil {
		s.notFound(w, r)
		return
	}
	w.Header().Set("Content-Type", kind)
	w.Header().Set("Content-Disposition", fmt.Sprintf(`attachment; filename="%s"`, fileName(x.Number, out.Title, target.ID)+ending))
	_, _ = w.Write(data) // the reader has gone when this fails
}

// encode writes a score of one part in a format, counted off as it is elsewhere; data is nil for
// an unknown one.
func encode(s score.Score, target instrument.Instrument, as string, how count.Options) (data []byte, ending, kind string, err error) {
	part := s.Parts[0]
	switch as {
	case "musicxml":
		return musicxml.Write(s), ".musicxml", "application/vnd.recordare.musicxml+xml", nil
	case "abc":
		return []byte(abc.Write(s)), ".abc", "text/vnd.abc; charset=utf-8", nil
	case "counted":
		said, err := countedformat.Write(s)
		return []byte(said), ".counted", "text/plain; charset=utf-8", err
	case "midi", "metronome":
		o := midi.Options{Program: target.Program, PerMinute: s.Tempo.Beats(part.Meter()), Metronome: as == "metronome"}
		for _, c := range count.CountOff(part, how) {
			o.Cues = append(o.Cues, midi.Cue{At: c.At, Beat: c.Beat})
		}
		data, err = midi.Write(part, o)
		return data, ".mid", "audio/midi", err
	}
	return nil, "", "", nil
}

// fileName is a name for the part of an instrument.
func fileName(number int, title, id string) string {
	return fmt.Sprintf("%d-%s-%s", number, forFile(title), id)
}

// forFile keeps letters, digits and hyphens.
func forFile(title string) string {
	clean := strings.Map(func(c rune) rune {
		switch {
		case c >= 'a' && c <= 'z', c >= '0' && c <= '9':
			return c
		case c >= 'A' && c <= 'Z':
			return c + 'a' - 'A'
		}
		return '-'
	}, title)
	return strings.Trim(clean, "-")
}
