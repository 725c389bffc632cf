package music

import (
	"encoding/json"
	"fmt"
	"net/http"
	"net/url"
	"strings"

	"unhurriedbench/core/voice"
	"unhurriedbench/store"
	"unhurriedbench/web/site"
)

// With adds where a teacher's own words are, if there are any; at leads to both, without their
// ending, and q says whose.
func (v SpokenVoice) With(saved store.Settings, at string, q url.Values) SpokenVoice {
	version := saved[store.VoiceSetting]
	if version == "" {
		return v
	}
	q.Set("v", version)
	v.Own = &SpokenVoice{Sound: at + ".wav?" + q.Encode(), Index: at + ".json?" + q.Encode()}
	return v
}

// clipAt is where a word lies in a sound, in seconds.
type clipAt struct {
	At    float64 `json:"at"`
	Ends  float64 `json:"ends"`
	Vowel float64 `json:"vowel"`
}

// apart is the silence between two words, in seconds.
const apart = 0.1

// joinWords puts words into one sound.
func joinWords(words []store.SpokenWord) (samples []float64, clips map[string]clipAt, err error) {
	clips = map[string]clipAt{}
	for _, w := range words {
		sound, err := voice.ReadWAV(w.Sound)
		if err != nil {
			return nil, nil, fmt.Errorf("read the word %s: %w", w.Word, err)
		}
		at := float64(len(samples)) / voice.Rate
		clips[w.Word] = clipAt{at, at + float64(len(sound))/voice.Rate, w.Vowel}
		samples = append(append(samples, sound...), make([]float64, int(apart*voice.Rate))...)
	}
	return samples, clips, nil
}

// ServeWords answers with a teacher's own words, as one sound or, at an address that ends in
// ".json", where each lies in it.
func ServeWords(w http.ResponseWriter, r *http.Request) error {
	words, err := site.ClassOf(r).SpokenWords(r.Context())
	if err != nil {
		return err
	}
	samples, clips, err := joinWords(words)
	if err != nil {
		return err
	}
	var content []byte
	if strings.HasSuffix(r.URL.Path, ".json") {
		w.Header().Set("Content-Type", "application/json")
		if content, err = json.Marshal(map[string]any{"clips": clips}); err != nil {
			return fmt.Errorf("list the words: %w", err)
		}
	} else {
		w.Header().Set("Content-Type", "audio/wav")
		content = voice.WriteWAV(samples)
	}
	w.Header().Set("Cache-Control", "private, max-age=31536000, immutable") // the address names their version
	_, _ = w.Write(content)                                                 // the reader has gone when this fails
	return nil
}
