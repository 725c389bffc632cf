package music_test

import (
	"bytes"
	"io"
	"math"
	"math/cmplx"
	"path"
	"regexp"
	"testing"

	"github.com/mewkiz/flac"
	"gonum.org/v1/gonum/dsp/fourier"

	"unhurriedbench/core/instrument"
	"unhurriedbench/web/music"
	"unhurriedbench/web/site"
)

// samplesOf decodes a recorded note.
func samplesOf(t *testing.T, file string) (samples []float64, rate float64) {
	t.Helper()
	content, err := site.Static.ReadFile("static/notes/" + file)
	if err != nil {
		t.Fatal(err)
	}
	stream, err := flac.New(bytes.NewReader(content))
	if err != nil {
		t.Fatalf("%s: %v", file, err)
	}
	for {
		frame, err := stream.ParseNext()
		if err == io.EOF {
			return samples, float64(stream.Info.SampleRate)
		}
		if err != nil {
			t.Fatalf("%s: %v", file, err)
		}
		for _, v := range frame.Subframes[0].Samples {
			samples = append(samples, float64(v)/32768)
		}
	}
}

// spectralPitch finds the pitch of a sound in hertz: the fundamental whose harmonics, each
// counted 0.84 of the one before, are strongest. Source: subharmonic summation (Hermes 1988,
// Journal of the Acoustical Society of America 83).
func spectralPitch(samples []float64, rate, lowest, highest float64) float64 {
	const padded = 1 << 17
	windowed := make([]float64, padded)
	for i, v := range samples {
		windowed[i] = v * (0.5 - 0.5*math.Cos(2*math.Pi*float64(i)/float64(len(samples))))
	}
	spectrum := fourier.NewFFT(padded).Coefficients(nil, windowed)
	strength := func(hz float64) float64 {
		at := int(math.Round(hz * padded / rate))
		if at >= len(spectrum) {
			return 0
		}
		return math.Sqrt(cmplx.Abs(spectrum[at])) // no one harmonic outweighs the rest
	}
	best, found := 0.0, 0.0
	for hz := lowest; hz < highest; hz *= math.Pow(2, 1.0/1200) {
		sum, weight := 0.0, 1.0
		for k := 1; k <= 15; k++ {
			sum += weight * strength(float64(k)*hz)
			weight *= 0.84
		}
		if sum > best {
			best, found = sum, hz
		}
	}
	return found
}

// Each recorded note has the pitch that its name and the list say, by its spectrum: a list
// of recordings may be labelled a semitone or an octave off.
func TestRecordedPitches(t *testing.T) {
	t.Parallel()
	list, total := theRecordings(t), 0
	for name, notes := range list {
		for _, n := range notes {
			file := path.Base(site.WithoutHash(n.URL))
			samples, rate := samplesOf(t, file)
			content, _ := site.Static.ReadFile("static/notes/" + file)
			total += len(content)
			lowest, from := 25.0, int(0.25*rate)
			if n.To == 0 { // a struck bar has no harmonics: its strongest partial is its pitch
				lowest, from = n.Hz/1.6, 0
			}
			highest := 4500.0
			if n.To == 0 {
				highest = n.Hz * 1.6
			}
			hz := spectralPitch(samples[from:min(len(samples), from+int(0.8*rate))], rate, lowest, highest)
			semitones := 69 + 12*math.Log2(hz/440)
			if math.Abs(semitones-float64(n.MIDI)) > 0.4 {
				t.Errorf("%s: %.1f Hz is not MIDI %d", file, hz, n.MIDI)
			}
			if off := 1200 * math.Log2(hz/n.Hz); math.Abs(off) > 25 { // a violin that swings is not measured closer
				t.Errorf("%s: %.2f Hz by its spectrum, %.2f in the list: %.0f cents apart", file, hz, n.Hz, off)
			}
			if math.Abs(samples[0]) > 0.4 || n.To > float64(len(samples))/rate+1e-6 || n.From > n.To {
				t.Errorf("%s begins at %.2f and goes round from %.2f to %.2f", file, samples[0], n.From, n.To)
			}
		}
		if len(notes) < 5 {
			t.Errorf("%s has only %d notes", name, len(notes))
		}
	}
	if total > 6<<20 {
		t.Errorf("the recorded notes are %d bytes, more than 6 MB", total)
	}
}

func theRecordings(t *testing.T) music.Recordings {
	t.Helper()
	files, err := site.Files()
	if err != nil {
		t.Fatal(err)
	}
	list, err := music.ReadRecordings(files)
	if err != nil {
		t.Fatal(err)
	}
	return list
}

// Every instrument is heard: by recorded notes no further than a seventh from any note of its
// third year, or by a sound that the page's script computes.
func TestEveryInstrumentIsHeard(t *testing.T) {
	t.Parallel()
	script, err := site.Static.ReadFile("static/voices.js")
	if err != nil {
		t.Fatal(err)
	}
	list := theRecordings(t)
	for _, i := range instrument.All() {
		v := i.Voice()
		notes := list[v.Name]
		if len(notes) == 0 {
			if !regexp.MustCompile(`(?m)^  "?` + v.Name + `"?: \{ hz:`).Match(script) {
				t.Errorf("%s is heard by %q, which is neither recorded nor computed", i.ID, v.Name)
			}
			continue
		}
		for p := i.Years[2].Low.Transpose(i.Transposition).MIDI(); p <= i.Years[2].High.Transpose(i.Transposition).MIDI(); p++ {
			near := 99
			for _, n := range notes {
				near = min(near, max(n.MIDI-p-v.Larger, p+v.Larger-n.MIDI))
			}
			if near > 10 {
				t.Errorf("%s: MIDI %d is %d semitones from the nearest recorded note", i.ID, p, near)
			}
		}
	}
}
