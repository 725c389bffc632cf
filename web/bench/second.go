package bench

import (
	"fmt"
	"net/http"
	"strings"

	"unhurriedbench/core/play"
	"unhurriedbench/web/music"
)

// SecondLink is the Bench of the other line, kept to whichever line is given.
func (v benchView) SecondLink(letter string) string {
	id := v.Second.Lines.A
	if letter == "B" {
		id = v.Second.Lines.B
	}
	v.Ask.Save = true
	return strings.Replace(v.Here(), fmt.Sprintf("/bench/%d?", v.Exercise.ID), fmt.Sprintf("/bench/%d?", id), 1)
}

// CompareLink sets part A beside part B.
func (v benchView) CompareLink() string {
	return fmt.Sprintf("/compare?a=%d&b=%d", v.Second.Lines.A, v.Second.Lines.B)
}

// heardOther is the other line as it is heard beside the chunk at hand, nil for none.
func (v benchView) heardOther() *music.PlaybackRound {
	if v.Second.Part == nil {
		return nil
	}
	round := music.NewPlaybackRound(play.RoundOf(*v.Second.Part, v.Played))
	return &round
}

// givenElsewhere is the address of the line that the student at hand, or the class, has
// been given, where it is not the one that is asked for; "" where it is, or where this one
// is asked for all the same.
func (v benchView) givenElsewhere(r *http.Request) string {
	o := v.Second
	if o.Letter == "" || o.Given == "" || o.Given == o.Letter || v.Ask.Save || r.Header.Get("HX-Target") == "side" {
		return ""
	}
	return v.SecondLink(o.Given)
}
