package settings_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"math"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"unhurriedbench/core/voice"
	"unhurriedbench/internal/testsite"
)

// spoken is a recording of tones that begin at some times, as a microphone gives it.
func spoken(seconds float64, at ...float64) []byte {
	samples := make([]float64, int(seconds*voice.Rate))
	for _, from := range at {
		for k := range voice.Rate / 3 {
			t := float64(k) / voice.Rate
			samples[int(from*voice.Rate)+k] = 0.3*math.Sin(2*math.Pi*700*t) + 0.2*math.Sin(2*math.Pi*1200*t)
		}
	}
	return voice.WriteWAV(samples)
}

// A set of words is recorded in one go, cut and kept; what was not heard is named, and nothing else
// is put in its place. Runs of the teacher and of students are told where the words are.
func TestRecordingAVoice(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	b := testsite.Furnish(t, s.Store, account.ID)
	run := fmt.Sprintf("/bench/%d/walk/data?instrument=trombone&class=%d", b.Exercise, b.Class)
	if _, data := v.Get(run); strings.Contains(data, `"own"`) {
		t.Error("nobody has recorded anything, and a run has own words")
	}
	_, page := v.Get("/settings/voice?set=letters-1")
	testsite.Wants(t, page, "Record your voice", "Names, letters, 1 of", "0 of", "B flat")
	send := func(wav []byte, words, clicks string) (int, string) {
		return v.SendAs("take", "/settings/voice", map[string]string{"words": words, "clicks": clicks}, [2]string{"take.wav", string(wav)})
	}
	if status, said := send(spoken(6, 1, 3.1), `["one","two","three"]`, "[1,2.5,4,5.5]"); status != http.StatusNoContent {
		t.Fatalf("a recording gives %d, %s", status, said)
	}
	_, page = v.Get("/settings/voice")
	testsite.Wants(t, page, "2 of 3 words are recorded", "Not heard: three.", "2 of 12", "/settings/voice/word?v=", "word=one")
	for name, bad := range map[string]struct {
		wav           []byte
		words, clicks string
	}{
		"no sound":        {[]byte("RIFF"), `["one"]`, "[1,2]"},
		"too long":        {spoken(voice.LongestTake + 1), `["one"]`, "[1,2]"},
		"another word":    {spoken(2, 1), `["../one"]`, "[1,2]"},
		"too few clicks":  {spoken(2, 1), `["one"]`, "[1]"},
		"no list":         {spoken(2, 1), `one`, "[1,2]"},
		"more than a set": {spoken(2, 1), `["one"` + strings.Repeat(`,"two"`, 40) + "]", "[1" + strings.Repeat(",2", 41) + "]"},
	} {
		if status, said := send(bad.wav, bad.words, bad.clicks); status != http.StatusUnprocessableEntity || !strings.Contains(said, "ecord ") {
			t.Errorf("%s gives %d, %s", name, status, said)
		}
	}
	_, data := v.Get(run)
	var told struct {
		Voice struct{ Own struct{ Sound, Index string } }
	}
	if err := json.Unmarshal([]byte(data), &told); err != nil || told.Voice.Own.Sound == "" {
		t.Fatalf("the run has own words at %+v, %v", told, err)
	}
	_, index := v.Get(told.Voice.Own.Index)
	_, sound := v.Get(told.Voice.Own.Sound)
	var list struct {
		Clips map[string]struct{ At, Ends, Vowel float64 }
	}
	samples, err := voice.ReadWAV([]byte(sound))
	if json.Unmarshal([]byte(index), &list) != nil || err != nil || len(list.Clips) != 2 {
		t.Fatalf("the words are %s, %v", index, err)
	}
	for word, c := range list.Clips {
		if c.Ends-c.At < 0.3 || c.Ends-c.At > 0.6 || int(c.Ends*voice.Rate) > len(samples) || c.Vowel < 0.01 || c.Vowel > 0.08 {
			t.Errorf("%s lies at %+v of %d samples", word, c, len(samples))
		}
	}
	if status, one := v.Get("/settings/voice/word?word=one"); status != http.StatusOK || !bytes.HasPrefix([]byte(one), []byte("RIFF")) {
		t.Errorf("the word gives %d", status)
	}
	other, _ := s.Teacher(t, "b@school.example")
	if status, _ := other.Get("/settings/voice/word?word=one"); status != http.StatusNotFound {
		t.Errorf("another teacher's word gives %d", status)
	}
	v.Post("/settings/voice/drop", url.Values{"word": {"one"}})
	if _, index = v.Get(told.Voice.Own.Index); strings.Contains(index, `"one"`) || !strings.Contains(index, `"two"`) {
		t.Errorf("without one the words are %s", index)
	}
	v.Post("/settings/voice/drop", url.Values{"all": {"yes"}})
	if _, data := v.Get(run); strings.Contains(data, `"own"`) {
		t.Error("all words are removed, and a run has own ones")
	}
}
