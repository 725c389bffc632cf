package settings

import (
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"net/url"
	"slices"
	"strings"

	"unhurriedbench/core/voice"
	"unhurriedbench/store"
	"unhurriedbench/web/site"
)

// voiceView is what a teacher may record, a set of words open.
type voiceView struct {
	Sets    []voiceSet
	Open    voiceSet
	Heard   map[string]bool
	Version string
	Any     bool
}

// voiceSet is a set of words with how many of them are recorded.
type voiceSet struct {
	voice.Set
	Recorded int
}

// Data are the words of the open set, for the page's script.
func (v voiceView) Data() []string { return v.Open.Words }

// HearLink leads to the sound of a recorded word.
func (v voiceView) HearLink(word string) string {
	return "/settings/voice/word?" + url.Values{"word": {word}, "v": {v.Version}}.Encode()
}

// voice shows which words of led runs are the teacher's own, and records more.
func (s *handlers) voice(w http.ResponseWriter, r *http.Request) error {
	desk := site.ClassOf(r)
	saved, err := desk.Settings(r.Context())
	if err != nil {
		return err
	}
	recorded, err := desk.RecordedWords(r.Context())
	if err != nil {
		return err
	}
	v := voiceView{Heard: map[string]bool{}, Version: saved[store.VoiceSetting], Any: len(recorded) > 0}
	for _, word := range recorded {
		v.Heard[word] = true
	}
	for _, set := range voice.Sets() {
		own := voiceSet{Set: set}
		for _, word := range set.Words {
			if v.Heard[word] {
				own.Recorded++
			}
		}
		v.Sets = append(v.Sets, own)
		if set.ID == site.Text(r, "set") || len(v.Sets) == 1 {
			v.Open = own
		}
	}
	s.Page(w, r, http.StatusOK, "voice", "Record your voice", v)
	return nil
}

// wordSound answers with a recorded word.
func (s *handlers) wordSound(w http.ResponseWriter, r *http.Request) error {
	list, err := site.ClassOf(r).SpokenWords(r.Context(), site.Text(r, "word"))
	if err != nil {
		return err
	}
	if len(list) == 0 {
		return fmt.Errorf("find the word: %w", store.ErrNotFound)
	}
	w.Header().Set("Content-Type", "audio/wav")
	w.Header().Set("Cache-Control", "private, max-age=31536000, immutable")
	_, _ = w.Write(list[0].Sound) // the reader has gone when this fails
	return nil
}

// take is a recording that has come: its sound, its words, and the clicks they were said on.
type take struct {
	samples []float64
	words   []string
	clicks  []float64
}

// readTake reads a recording. What is wrong is a sentence.
func readTake(r *http.Request) (t take, wrong string) {
	const again = "The recording did not come whole. Record it again."
	file, _, err := r.FormFile("take")
	if err != nil {
		return t, again
	}
	defer file.Close()
	data, err := io.ReadAll(io.LimitReader(file, 2*voice.LongestTake*voice.Rate+10_000))
	if err != nil {
		return t, again
	}
	if t.samples, err = voice.ReadWAV(data); err != nil {
		return t, strings.ToUpper(err.Error()[:1]) + err.Error()[1:] + "."
	}
	known := voice.NewVocabulary()
	if json.Unmarshal([]byte(r.FormValue("words")), &t.words) != nil || json.Unmarshal([]byte(r.FormValue("clicks")), &t.clicks) != nil ||
		len(t.clicks) != len(t.words)+1 || len(t.words) > voice.InSet ||
		slices.ContainsFunc(t.words, func(word string) bool { return !known.Has(word) }) {
		return t, again
	}
	return t, ""
}

// saveTake cuts a recording into its words and keeps those that were heard.
func (s *handlers) saveTake(w http.ResponseWriter, r *http.Request) error {
	if site.FormError(r) != nil {
		http.Error(w, "The recording is larger than 5 MB, or did not come whole. Record it again.", http.StatusRequestEntityTooLarge)
		return nil
	}
	t, wrong := readTake(r)
	if wrong != "" {
		http.Error(w, wrong, http.StatusUnprocessableEntity)
		return nil
	}
	var heard []store.SpokenWord
	var missed []string
	for k, word := range voice.Cut(t.samples, t.words, t.clicks) {
		if !word.Heard {
			missed = append(missed, t.words[k])
			continue
		}
		heard = append(heard, store.SpokenWord{Word: t.words[k], Vowel: word.Vowel, Sound: voice.WriteWAV(word.Samples)})
	}
	if err := site.ClassOf(r).SaveSpokenWords(r.Context(), heard); err != nil {
		return err
	}
	said := fmt.Sprintf("%d of %d words are recorded. Hear them below.", len(heard), len(t.words))
	if len(missed) > 0 {
		said += " Not heard: " + strings.Join(missed, ", ") + ". Record these again, nearer to the microphone."
	}
	s.Flash(r, said)
	w.WriteHeader(http.StatusNoContent)
	return nil
}

// dropWords takes recorded words out: the one that is named, or all.
func (s *handlers) dropWords(w http.ResponseWriter, r *http.Request) error {
	var words []string
	if word := site.Text(r, "word"); word != "" {
		words = append(words, word)
	} else if site.Text(r, "all") == "" {
		return fmt.Errorf("find the word: %w", store.ErrNotFound)
	}
	if err := site.ClassOf(r).DeleteSpokenWords(r.Context(), words...); err != nil {
		return err
	}
	if len(words) == 0 {
		s.Flash(r, "All words are the program’s again.")
	}
	http.Redirect(w, r, "/settings/voice?"+url.Values{"set": {site.Text(r, "set")}}.Encode(), http.StatusSeeOther)
	return nil
}
