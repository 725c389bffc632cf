package voice

import (
	"math"
	"math/rand/v2"
	"testing"
)

// spoken makes a word of sounds: a hiss, a hum and a vowel, each so many seconds.
func spoken(hiss, hum, vowel float64) []float64 {
	noise := rand.New(rand.NewPCG(1, 2))
	var list []float64
	for range int(hiss * Rate) {
		list = append(list, 0.12*(2*noise.Float64()-1))
	}
	list = highPass(list, 4000)
	tone := func(seconds, loud float64, formants ...float64) {
		for k := range int(seconds * Rate) {
			t, sum := float64(k)/Rate, 0.0
			for h := 1.0; h < 30; h++ { // a voice of 120 Hz
				weight := 0.02 / h
				for _, f := range formants {
					weight += math.Exp(-math.Pow((120*h-f)/90, 2) / 2)
				}
				sum += weight * math.Sin(2*math.Pi*120*h*t)
			}
			list = append(list, loud*min(1, t/0.01)*sum/float64(len(formants)))
		}
	}
	tone(hum, 0.12, 250)
	tone(vowel, 0.3, 650, 1200)
	return list
}

// take puts words on their times into a recording with some noise.
func take(seconds, noise float64, at map[float64][]float64) []float64 {
	hiss := rand.New(rand.NewPCG(3, 4))
	list := make([]float64, int(seconds*Rate))
	for k := range list {
		list[k] = noise * (2*hiss.Float64() - 1)
	}
	for from, word := range at {
		for k, s := range word {
			list[int(from*Rate)+k] += s
		}
	}
	return list
}

// Words are cut where they are, early and late ones too; their vowel is found behind a hiss, and
// one that was not said is missed.
func TestCut(t *testing.T) {
	t.Parallel()
	for _, noise := range []float64{0, 0.002, 0.01} {
		recorded := take(9, noise, map[float64][]float64{
			0.93: spoken(0.12, 0, 0.3),   // six, on its click
			2.70: spoken(0, 0, 0.4),      // and, early
			5.35: spoken(0.1, 0.05, 0.5), // three, late
		})
		words := []string{"six", "A", "three", "four"}
		list := Cut(recorded, words, []float64{1, 3, 5, 7, 9})
		for k, want := range []struct{ vowel, from, to float64 }{{1.05, 0.93, 1.35}, {2.70, 2.70, 3.10}, {5.50, 5.35, 6.00}} {
			w := list[k]
			if !w.Heard {
				t.Errorf("noise %g: %s is not heard", noise, words[k])
				continue
			}
			ends := w.From + float64(len(w.Samples))/Rate
			if vowel := w.From + w.Vowel; math.Abs(vowel-want.vowel) > 0.04 || w.From > want.from+0.01 || w.From < want.from-0.1 || ends < want.to-0.02 || ends > want.to+0.15 {
				t.Errorf("noise %g: %s is cut from %.3f to %.3f with its vowel at %.3f, want %.2f to %.2f, %.2f", noise, words[k], w.From, ends, vowel,
					want.from, want.to, want.vowel)
			}
			loud := 0.0
			for _, s := range w.Samples {
				loud = max(loud, math.Abs(s))
			}
			if loud > Loudest+1e-9 || loud < 0.1 {
				t.Errorf("%s is as loud as %.2f", words[k], loud)
			}
		}
		if list[3].Heard {
			t.Errorf("noise %g: what was not said is heard from %.3f", noise, list[3].From)
		}
	}
	if list := Cut(nil, []string{"one"}, []float64{1, 2}); len(list) != 1 || list[0].Heard {
		t.Errorf("an empty recording gives %v", list)
	}
	if list := Cut(make([]float64, Rate), []string{"one", "two"}, []float64{1, 2}); len(list) != 2 || list[0].Heard || list[1].Heard {
		t.Errorf("too few clicks give %v", list)
	}
	if list := Cut(make([]float64, Rate), []string{"one"}, []float64{math.NaN(), math.Inf(1)}); len(list) != 1 || list[0].Heard {
		t.Errorf("clicks at no time give %v", list)
	}
}

func TestWAV(t *testing.T) {
	t.Parallel()
	samples := []float64{0, 0.5, -0.5, 1, -1}
	data := WriteWAV(samples)
	back, err := ReadWAV(data)
	if err != nil || len(back) != len(samples) {
		t.Fatalf("%v, %v", back, err)
	}
	for k := range samples {
		if math.Abs(back[k]-samples[k]) > 1e-3 {
			t.Errorf("sample %d is %f, not %f", k, back[k], samples[k])
		}
	}
	for n := range data { // cut anywhere it is refused or short, never a crash
		if got, err := ReadWAV(data[:n]); err == nil && len(got) > len(samples) {
			t.Errorf("%d bytes give %d samples", n, len(got))
		}
	}
	wrong := func(at int, by byte) []byte {
		list := append([]byte{}, data...)
		list[at] = by
		return list
	}
	for _, bad := range [][]byte{nil, []byte("no sound"), wrong(0, 'X'), wrong(22, 2), wrong(24, 1), wrong(34, 8), wrong(16, 255)} {
		if _, err := ReadWAV(bad); err == nil {
			t.Errorf("%v is read", bad)
		}
	}
	if _, err := ReadWAV(WriteWAV(make([]float64, LongestTake*Rate+1))); err != ErrLong {
		t.Errorf("a long one gives %v", err)
	}
}

// Everything that is spoken can be recorded, once.
func TestSets(t *testing.T) {
	t.Parallel()
	known, seen := NewVocabulary(), map[string]string{}
	for _, s := range Sets() {
		if len(s.Words) == 0 || len(s.Words) > InSet {
			t.Errorf("%s has %d words", s.ID, len(s.Words))
		}
		for _, word := range s.Words {
			if seen[word] != "" || !known.Has(word) {
				t.Errorf("%q is in %s and %s", word, seen[word], s.ID)
			}
			seen[word] = s.ID
		}
	}
	for _, c := range Clips() {
		if seen[plain(c.Text)] == "" {
			t.Errorf("%q is in no set", c.Text)
		}
	}
}
