package bench

import (
	"context"
	"fmt"
	"net/http"
	"net/url"
	"strconv"
	"strings"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/lesson"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/walk"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/music"
	"unhurriedbench/web/site"
)

// walkView is a led run through an exercise: as a list to read or print, and for the page's
// script to lead.
type walkView struct {
	teach.Stand
	Data   music.WalkData
	Wants  teach.WalkWants
	Lead   bool           // a class
	Lesson store.LessonID // that it belongs to, 0 for none
}

// Units are how much may be taken at a time.
func (walkView) Units() []lesson.Unit { return lesson.Units() }

// Run is the run.
func (v walkView) Run() walk.Run { return v.Data.Run }

// Time says how long the run is.
func (v walkView) Time() string { return inMinutes(v.Data.Run.Seconds) }

// Clock is a place in the run, "3:05".
func (walkView) Clock(seconds float64) string {
	return fmt.Sprintf("%d:%02d", int(seconds)/60, int(seconds)%60)
}

// inMinutes says a time in whole minutes.
func inMinutes(seconds float64) string {
	if n := max(1, int(seconds/60+0.5)); n > 1 {
		return strconv.Itoa(n) + " minutes"
	}
	return "1 minute"
}

// Who says for whom the run is.
func (v walkView) Who() string {
	if !v.Lead {
		return v.Instrument.Title()
	}
	var names []string
	for _, p := range v.Data.Parts {
		for _, i := range p.With {
			names = append(names, i.Name)
		}
	}
	return strings.Join(names, ", ")
}

// BackLink leads to where the run was opened.
func (v walkView) BackLink() string {
	if v.Lesson != 0 {
		return fmt.Sprintf("/lessons/%d/run?class=%d", v.Lesson, v.Class.ID)
	}
	return backTo(v.Choice)
}

// backTo is the address of the Bench of a choice.
func backTo(c teach.Choice) string {
	return fmt.Sprintf("/bench/%d?%s", c.Exercise.ID, atHand(c).Encode())
}

// atHand is who and what is at hand, for an address.
func atHand(c teach.Choice) url.Values {
	q := url.Values{"instrument": {c.Instrument.ID}}
	if c.Class.ID != 0 {
		q.Set("class", fmt.Sprint(c.Class.ID))
	}
	if c.Student.ID != 0 {
		q.Set("student", fmt.Sprint(c.Student.ID))
	}
	return q
}

// WalkLink leads to the led run of what is on the Bench.
func (v benchView) WalkLink() string {
	q := atHand(v.Choice)
	q.Set("tempo", strconv.Itoa(v.Tempo))
	return fmt.Sprintf("/bench/%d/walk?%s", v.Exercise.ID, q.Encode())
}

// EarLink leads to the line by ear.
func (v benchView) EarLink() string {
	return fmt.Sprintf("/bench/%d/ear?%s", v.Exercise.ID, atHand(v.Choice).Encode())
}

// Each lists the addresses of the runs of every instrument in a class.
func (v walkView) Each() []string {
	var list []string
	for _, tab := range v.Tabs {
		if tab.Students == 0 {
			continue
		}
		q := url.Values{"instrument": {tab.ID}, "class": {fmt.Sprint(v.Class.ID)}, "unit": {v.Run().Unit}, "tempo": {strconv.Itoa(v.Run().Tempo)}}
		if v.Wants.Minutes > 0 {
			q.Set("minutes", strconv.Itoa(v.Wants.Minutes))
		}
		list = append(list, fmt.Sprintf("/bench/%d/walk/data?%s", v.Exercise.ID, q.Encode()))
	}
	return list
}

// WholeKey is the whole line.
func (v walkView) WholeKey() breakdown.ChunkKey { return v.Report.Chunks[len(v.Report.Chunks)-1].Key() }

// LastStage is the stage that is marked when a run is over.
func (v walkView) LastStage() routine.Step { return v.Routine[len(v.Routine)-1] }

// walkThrough shows a led run for whoever is at the Bench, or for a class.
func (s *handlers) walkThrough(w http.ResponseWriter, r *http.Request) error {
	v, err := s.walkView(r)
	if err != nil {
		return err
	}
	title := "Walk through " + v.Exercise.Title
	if v.Lead {
		title = "Lead the class through " + v.Exercise.Title
	}
	s.Page(w, r, http.StatusOK, "walk", title, v)
	return nil
}

// walkFile answers with a led run for a script that makes a file of it.
func (s *handlers) walkFile(w http.ResponseWriter, r *http.Request) error {
	v, err := s.walkView(r)
	if err != nil {
		return err
	}
	s.JSON(w, r, v.Data)
	return nil
}

func (s *handlers) walkView(r *http.Request) (walkView, error) {
	ctx, desk, ask := r.Context(), site.ClassOf(r), askOf(r)
	wants := teach.WalkWants{Tempo: tempoOf(r), Fresh: site.Text(r, "fresh") != ""}
	wants.Unit, _ = lesson.ParseUnit(site.Text(r, "unit"))
	if n := int(site.Number(r, "minutes")); n > 0 && n <= walk.MostMinutes {
		wants.Minutes = n
	}
	v := walkView{Wants: wants, Lead: site.Text(r, "lead") != "", Lesson: store.LessonID(site.Number(r, "lesson"))}
	parts, run, err := ledBy(ctx, desk, ask, wants, v.Lead)
	if err != nil {
		return v, err
	}
	if len(parts) == 0 {
		return v, store.ErrNotFound
	}
	v.Stand = parts[0].Stand
	v.Data, err = s.walkData(r, v.Class, parts, run)
	v.Data.File = fileName(v)
	return v, err
}

// fileName is what a file of the run is called: by book, number and instrument.
func fileName(v walkView) string {
	who := v.Instrument.Name
	if v.Lead {
		who = v.Class.Name
	}
	name := fmt.Sprintf("%s %02d %s", v.Exercise.Book, v.Exercise.Number, who)
	return strings.TrimSpace(strings.Map(func(r rune) rune {
		if strings.ContainsRune(`/\:*?"<>|`, r) || r < ' ' {
			return -1
		}
		return r
	}, name))
}

// ledBy lays out a run for a class or for whoever is at the Bench.
func ledBy(ctx context.Context, desk *teach.Class, ask teach.Request, wants teach.WalkWants, lead bool) ([]teach.LedPart, walk.Run, error) {
	if lead {
		ask.Student = 0
		return teach.Lead(ctx, desk, ask, wants)
	}
	v, err := loadBench(ctx, desk, ask)
	if err != nil || len(v.Report.Chunks) == 0 {
		return nil, walk.Run{}, err
	}
	part, run := teach.Walk(v.Stand, wants)
	return []teach.LedPart{part}, run, nil
}

// walkData is a run with its music for the page's script.
func (s *handlers) walkData(r *http.Request, class store.Class, parts []teach.LedPart, run walk.Run) (music.WalkData, error) {
	words, err := music.VoiceOfWords(s.Assets)
	if err != nil {
		return music.WalkData{}, err
	}
	saved, err := site.ClassOf(r).Settings(r.Context())
	words = words.With(saved, "/voice/own", url.Values{"class": {fmt.Sprint(class.ID)}})
	d := music.WalkData{Run: run, Said: music.SaidInClips(run), Voice: words, A4: parts[0].A4, Scale: routine.MetronomeMarks()}
	for k, p := range parts {
		d.Parts = append(d.Parts, music.NewWalkPart(p, run, s.Recordings.VoiceOf(p.Instrument), fmt.Sprintf("w%d-", k)))
	}
	return d, err
}
