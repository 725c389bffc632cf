package bench

import (
	"net/http"

	"unhurriedbench/teach"
	"unhurriedbench/web/music"
	"unhurriedbench/web/site"
)

// earView is the beginning of a line, to be found by ear before it is seen.
type earView struct {
	teach.Stand
	Data  earData
	Given []string // the names there are in it, each once
	First string
}

// earData is what the page's script needs of it.
type earData struct {
	music.StepMusic
	Notes int         `json:"notes"` // to be found
	Voice music.Voice `json:"voice"`
	A4    int         `json:"a4"`
	Tempo int         `json:"tempo"`
}

// BackLink leads to the Bench.
func (v earView) BackLink() string { return backTo(v.Choice) }

// Choices are how many notes may have been right.
func (v earView) Choices() []int {
	var list []int
	for n := range v.Data.Notes + 1 {
		list = append(list, n)
	}
	return list
}

// byEar has the first notes of a line heard and found.
func (s *handlers) byEar(w http.ResponseWriter, r *http.Request) error {
	b, err := loadBench(r.Context(), site.ClassOf(r), askOf(r))
	if err != nil {
		return err
	}
	v := earView{Stand: b.Stand}
	if n := len(v.Report.Chunks); n > 0 { // the line from its beginning, whichever chunk is at hand
		v.Played = v.Report.Chunks[n-1].Played(v.Report.Part)
	}
	opening := teach.ByEar(v.Report, int(site.Number(r, "notes")))
	v.Data = earData{StepMusic: music.NewStepMusic(v.Stand, "ear-"), Notes: len(opening.Names), Voice: s.Recordings.VoiceOf(v.Instrument), A4: v.A4, Tempo: v.Tempo}
	v.Given = opening.Given
	if len(opening.Names) > 0 {
		v.First = opening.Names[0]
	}
	s.Page(w, r, http.StatusOK, "ear", "By ear: "+v.Exercise.Title, v)
	return nil
}
