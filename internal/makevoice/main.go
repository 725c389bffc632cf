// Makevoice speaks the clips of core/voice with flite and writes them as one sound file with
// its index. It is run by hand when the clips change:
//
//	apt-get install flite lame && go run ./internal/makevoice web/site/static/voice
//
// The voice is flite's slt, whose licence lets anyone use, change and sell what it says. It
// prints when each sound of a word begins, and so where the vowel lies that falls on the beat.
package main

import (
	"encoding/json"
	"fmt"
	"log"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"

	"unhurriedbench/core/voice"
)

const (
	rate     = voice.Rate
	apart    = 0.12 // seconds of silence between clips
	edge     = 0.02 // kept before the first and after the last sound
	quickly  = "~"  // marks a quick name in the index
	quick    = 0.44 // seconds that a quick name takes at most
	crisp    = 0.8  // of the usual length of what is said on the beat
	shortest = 0.42 // of the usual length: faster it is not understood
)

// entry is a clip in the index, in seconds: where it begins and ends in the file, and where in
// it its first vowel begins.
type entry struct {
	At    float64 `json:"at"`
	Ends  float64 `json:"ends"`
	Vowel float64 `json:"vowel"`
}

func main() {
	log.SetFlags(0)
	if len(os.Args) != 2 {
		log.Fatal("makevoice FOLDER")
	}
	if err := run(os.Args[1]); err != nil {
		log.Fatal(err)
	}
}

func run(folder string) error {
	work, err := os.MkdirTemp("", "voice")
	if err != nil {
		return err
	}
	defer os.RemoveAll(work)
	var all []float64
	index := map[string]entry{}
	silence := make([]float64, int(apart*rate))
	mark := make([]float64, int(apart*rate)) // a click, by which a page finds how late its decoder begins
	mark[len(mark)/2] = voice.Loudest
	all = append(all, mark...)
	put := func(name string, s spoken) {
		index[name] = entry{round(float64(len(all)) / rate), round(float64(len(all)+len(s.samples)) / rate), round(s.vowel)}
		all = append(append(all, s.samples...), silence...)
	}
	for _, c := range voice.Clips() {
		name := strings.ReplaceAll(c.Text, ",", "")
		stretch := 0.9
		if c.Name {
			stretch = crisp
		}
		s, err := speak(work, c, stretch)
		if err != nil {
			return err
		}
		put(name, s)
		if length := s.length(); c.Name && strings.Contains(c.Text, " ") && length > quick {
			for length > quick && stretch > shortest {
				stretch = max(shortest, stretch*0.93)
				if s, err = speak(work, c, stretch); err != nil {
					return err
				}
				length = s.length()
			}
			put(name+quickly, s)
		}
	}
	wav := filepath.Join(work, "all.wav")
	if err := os.WriteFile(wav, voice.WriteWAV(all), 0o600); err != nil {
		return err
	}
	if out, err := exec.Command("lame", "--quiet", "-m", "m", "-b", "48", "--cbr", wav, filepath.Join(folder, "voice.mp3")).CombinedOutput(); err != nil {
		return fmt.Errorf("lame: %w: %s", err, out)
	}
	text, err := json.Marshal(map[string]any{"mark": round(apart / 2), "clips": index})
	if err != nil {
		return err
	}
	fmt.Printf("%d clips, %.0f s\n", len(index), float64(len(all))/rate)
	return os.WriteFile(filepath.Join(folder, "voice.json"), text, 0o644)
}

func round(seconds float64) float64 { return math.Round(seconds*10000) / 10000 }

// spoken is a clip, cut to what sounds.
type spoken struct {
	samples []float64
	vowel   float64
}

func (s spoken) length() float64 { return float64(len(s.samples)) / rate }

// speak says a clip at a share of the usual length.
func speak(work string, c voice.Clip, stretch float64) (spoken, error) {
	path := filepath.Join(work, "clip.wav")
	args := []string{"-voice", "slt", "--setf", "duration_stretch=" + strconv.FormatFloat(stretch, 'f', 3, 64), "-psdur", "-o", path}
	if c.Phones != "" {
		args = append(args, "-p", "pau "+c.Phones+" pau")
	} else {
		args = append(args, "-t", c.Text)
	}
	out, err := exec.Command("flite", args...).Output()
	if err != nil {
		return spoken{}, fmt.Errorf("flite %s: %w", c.Text, err)
	}
	data, err := os.ReadFile(path)
	if err != nil {
		return spoken{}, err
	}
	samples, err := voice.ReadWAV(data)
	if err != nil {
		return spoken{}, fmt.Errorf("%s: %w", c.Text, err)
	}
	begins, ends, vowel, last := -1.0, 0.0, -1.0, 0.0
	for _, segment := range strings.Fields(string(out)) {
		phone, text, _ := strings.Cut(segment, ":")
		until, err := strconv.ParseFloat(text, 64)
		if err != nil {
			return spoken{}, fmt.Errorf("%s: %s is no sound with its end", c.Text, segment)
		}
		if phone != "pau" {
			if begins < 0 {
				begins = last
			}
			if vowel < 0 && strings.ContainsAny(phone[:1], "aeiou") {
				vowel = last
			}
			ends = until
		}
		last = until
	}
	if begins < 0 || vowel < 0 {
		return spoken{}, fmt.Errorf("%s has no vowel: %s", c.Text, out)
	}
	from, to := max(0, int((begins-edge)*rate)), min(len(samples), int((ends+edge)*rate))
	cut := append([]float64(nil), samples[from:to]...)
	voice.Level(cut)
	return spoken{cut, voiced(samples, vowel) - float64(from)/rate}, nil
}

// voiced is when a vowel is heard that is said to begin at a time: where it rises to a third of
// its loudness, which after a stop is later. After r, m, n or l, which are voiced too, it is
// when it is said to begin.
func voiced(samples []float64, vowel float64) float64 {
	const hop, longest = 0.0025, 0.15
	most := 0.0
	for at := vowel; at < vowel+longest; at += hop {
		most = max(most, voicing(samples, at))
	}
	for at := vowel; at < vowel+longest; at += hop {
		if voicing(samples, at) >= most/3 {
			return at
		}
	}
	return vowel
}

// voicing is how loud the harmonics of a voice are about a time, from 150 to 1000 hertz.
func voicing(samples []float64, at float64) float64 {
	const frame = rate / 50
	from := int(at*rate) - frame/2
	if from < 0 || from+frame > len(samples) {
		return 0
	}
	sum := 0.0
	for hz := 150.0; hz <= 1000; hz += 50 {
		re, im := 0.0, 0.0
		for k := range frame {
			x := samples[from+k] * (0.5 - 0.5*math.Cos(2*math.Pi*float64(k)/frame))
			re += x * math.Cos(2*math.Pi*hz*float64(k)/rate)
			im += x * math.Sin(2*math.Pi*hz*float64(k)/rate)
		}
		sum += re*re + im*im
	}
	return math.Sqrt(sum)
}
