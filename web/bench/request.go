package bench

import (
	"net/http"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

func askOf(r *http.Request) teach.Request {
	return teach.Request{
		Exercise: site.ID[store.ExerciseID](r), Instrument: site.Text(r, "instrument"), Chunk: site.Text(r, "chunk"),
		Stage:   site.Text(r, "stage"),
		Student: store.StudentID(site.Number(r, "student")), Class: store.ClassID(site.Number(r, "class")),
		Tempo: tempoOf(r), OneNote: site.Text(r, "one"), First: int(site.Number(r, "first")), Line: breakdown.PracticeVersion(site.Text(r, "line")),
		Of: site.Text(r, "of"), Other: site.Text(r, "other"), Save: site.Text(r, "keep") != "", Then: site.Text(r, "then"),
	}
}

// tempoOf reads a tempo in beats a minute, 0 for one that is off the scale.
func tempoOf(r *http.Request) int {
	scale, tempo := routine.MetronomeMarks(), int(site.Number(r, "tempo"))
	if tempo < scale[0] || tempo > scale[len(scale)-1] {
		return 0
	}
	return tempo
}
