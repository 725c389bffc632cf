package bench

import (
	"errors"
	"fmt"
	"net/http"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// exportExercise sends an instrument's part as a file.
func (s *handlers) exportExercise(w http.ResponseWriter, r *http.Request) error {
	ctx, desk := r.Context(), site.ClassOf(r)
	x, err := desk.ExerciseByID(ctx, site.ID[store.ExerciseID](r))
	if err != nil {
		return err
	}
	target, ok := instrument.ByID(site.Text(r, "instrument"))
	if !ok {
		s.NotFound(w, r)
		return nil
	}
	saved, err := teach.LoadSettings(ctx, desk)
	if err != nil {
		return err
	}
	target = saved.Instrument(target)
	part, err := s.Reader.Part(ctx, desk, x, target.ID)
	if err != nil {
		return err
	}
	placed, err := desk.Placed(ctx, x, target)
	if err != nil {
		return err
	}
	made := instrument.Make(part.Source, part.WrittenFor, target, placed).Part
	out := score.Score{
		Title: x.Title, Composer: part.Score.Composer, Tempo: part.Score.Tempo, TempoWords: part.Score.TempoWords,
		Parts: []score.Part{made},
	}
	if site.Text(r, "line") != "" {
		v, err := loadBench(ctx, desk, askOf(r))
		if err != nil {
			return err
		}
		if v.InDrill() {
			out.Title, out.Parts = v.LineTitle()+" "+x.Title, []score.Part{v.Report.Part}
			if v.Report.Part.Meter().Beat() != made.Meter().Beat() { // a mark of another meter
				out.Tempo, out.TempoWords = score.Tempo{}, ""
			}
		}
	}
	data, ending, kind, err := site.Encode(out, target, site.Text(r, "as"), saved.Preferences.Options(store.Class{}).Count)
	var unsaid score.Problems
	if errors.As(err, &unsaid) {
		s.Render(w, http.StatusUnprocessableEntity, "message", "layout", site.LayoutData{Title: "Not counted",
			Teacher: site.ActorOf(r).Teacher,
			Content: site.Message{Heading: "This cannot be counted and named in two lines", Text: unsaid.Error()}})
		return nil
	}
	if err != nil {
		return err
	}
	if data == nil {
		s.NotFound(w, r)
		return nil
	}
	w.Header().Set("Content-Type", kind)
	w.Header().Set("Content-Disposition", fmt.Sprintf(`attachment; filename="%s"`,
		site.FileName(x.Number, out.Title, target.ID)+ending))
	_, _ = w.Write(data) // the reader has gone when this fails
	return nil
}
