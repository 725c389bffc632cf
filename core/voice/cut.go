package voice

import (
	"math"
	"regexp"
	"slices"
)

// Word is a word cut out of a recording.
type Word struct {
	Samples []float64
	From    float64 // seconds into the recording at which it begins
	Vowel   float64 // seconds from its beginning to its first vowel
	Heard   bool    // something was said
}

// How a recording is cut. The figures are ours, fitted to a synthesiser's words, whose sounds it
// tells the times of.
const (
	hop       = Rate / 200 // samples between two looks at how loud it is: 5 ms
	before    = 0.4        // seconds before a click in which its word may begin
	kept      = 0.03       // seconds kept before a word and after it
	overNoise = 4.0        // how much louder than the quiet a word is, as amplitude
	underPeak = 0.045      // and no softer than so much of its loudest
	gapInside = 0.22       // seconds of quiet inside a word: the stop of "eight"
	shortest  = 0.06       // seconds
	evenLevel = 0.11       // of every word, as a root mean square
	lowVowel  = 500.0      // hertz between which a vowel is loud: below, a nasal is too,
	highVowel = 3400.0     // and above, a hiss
	risen     = 0.5        // of its loudest, by which a vowel has begun
	hums      = 0.034      // seconds that an l, m, n, r or w takes after that
	syllable  = 0.2        // seconds from its first sound in which the first vowel is at its loudest
)

// Loudest is the loudest sample of any word.
const Loudest = 0.95

// humming are the beginnings of words that hum before their vowel; "one" is said with a w.
var humming = regexp.MustCompile(`^([bcdfgkps]|th)?[lmnrw]|^tr|^twe|^one`)

// Cut cuts words out of a recording in which each was said on a click: clicks are the times of
// the clicks in seconds, one for each word, and a last one that ends the recording. A word that
// was not heard has Heard false.
func Cut(samples []float64, words []string, clicks []float64) []Word {
	if len(clicks) != len(words)+1 {
		return make([]Word, len(words))
	}
	loud := envelope(samples)
	quiet := quietOf(loud)
	list := make([]Word, len(words))
	for k, word := range words {
		list[k] = cutOne(samples, loud, quiet, clicks[k]-before, clicks[k+1]-before)
		if list[k].Heard && humming.MatchString(word) {
			list[k].Vowel = min(list[k].Vowel+hums, float64(len(list[k].Samples))/Rate)
		}
	}
	return list
}

// envelope is the root mean square of 10 ms about every hop.
func envelope(samples []float64) []float64 {
	loud := make([]float64, len(samples)/hop)
	for k := range loud {
		sum, n := 0.0, 0
		for _, s := range samples[max(0, (k-1)*hop):min(len(samples), (k+1)*hop)] {
			sum, n = sum+s*s, n+1
		}
		loud[k] = math.Sqrt(sum / float64(max(n, 1)))
	}
	return loud
}

// quietOf is how loud it is where nobody speaks: what a fifth of the time is softer than.
func quietOf(loud []float64) float64 {
	if len(loud) == 0 {
		return 0
	}
	sorted := slices.Clone(loud)
	slices.Sort(sorted)
	return sorted[len(sorted)/5]
}

// cutOne cuts the word that is loudest between two times.
func cutOne(samples, loud []float64, quiet, from, to float64) Word {
	at := func(seconds float64) int { return max(0, min(len(loud), int(seconds*Rate/hop))) }
	first, last := at(from), at(to)
	if last <= first {
		return Word{}
	}
	peak := first
	for k := first; k < last; k++ {
		if loud[k] > loud[peak] {
			peak = k
		}
	}
	least := max(overNoise*quiet, underPeak*loud[peak])
	if loud[peak] < 2*least && loud[peak] < 2*overNoise*quiet || loud[peak] < 0.003 {
		return Word{}
	}
	gap := int(gapInside * Rate / hop)
	begin, end := peak, peak
	for k, silent := peak, 0; k >= first && silent < gap; k-- {
		if silent++; loud[k] >= least {
			begin, silent = k, 0
		}
	}
	for k, silent := peak, 0; k < last && silent < gap; k++ {
		if silent++; loud[k] >= least {
			end, silent = k, 0
		}
	}
	if float64((end-begin)*hop) < shortest*Rate {
		return Word{}
	}
	a := max(0, begin*hop-int(kept*Rate))
	b := min(len(samples), (end+1)*hop+int(kept*Rate), a+LongestWord*Rate)
	w := Word{Samples: slices.Clone(samples[a:b]), From: float64(a) / Rate, Heard: true}
	w.Vowel = vowelOf(w.Samples)
	Level(w.Samples)
	return w
}

// vowelOf finds where the first vowel of a word begins: where the sound between a hum and a hiss
// has risen to half of its loudest in the first syllable.
func vowelOf(samples []float64) float64 {
	band := envelope(lowPass(highPass(samples, lowVowel), highVowel))
	all := 0.0
	for _, x := range band {
		all = max(all, x)
	}
	begins := slices.IndexFunc(band, func(x float64) bool { return x > 0.25*all })
	if begins < 0 {
		return 0
	}
	until := min(len(band), begins+int(syllable*Rate/hop))
	peak := slices.Max(band[begins:until])
	for k := begins; k < until; k++ {
		if band[k] >= risen*peak {
			return float64(k*hop) / Rate
		}
	}
	return float64(begins*hop) / Rate
}

// Level makes a word as loud as every other, and fades its ends.
func Level(samples []float64) {
	sum, top := 0.0, 0.0
	for _, s := range samples {
		sum, top = sum+s*s, max(top, math.Abs(s))
	}
	if top == 0 {
		return
	}
	by := min(evenLevel/math.Sqrt(sum/float64(len(samples))), Loudest/top)
	fade := min(len(samples)/2, int(0.005*Rate))
	for k := range samples {
		edge := min(1, float64(k)/float64(fade), float64(len(samples)-1-k)/float64(fade))
		samples[k] *= by * edge
	}
}

// highPass and lowPass are the second-order filters of R. Bristow-Johnson's cookbook for audio
// equalisers, with the sharpness of Butterworth.
func highPass(samples []float64, hertz float64) []float64 {
	cos, alpha := turn(hertz)
	return filtered(samples, (1+cos)/2, -(1 + cos), (1+cos)/2, 1+alpha, -2*cos, 1-alpha)
}

func lowPass(samples []float64, hertz float64) []float64 {
	cos, alpha := turn(hertz)
	return filtered(samples, (1-cos)/2, 1-cos, (1-cos)/2, 1+alpha, -2*cos, 1-alpha)
}

func turn(hertz float64) (cos, alpha float64) {
	w := 2 * math.Pi * hertz / Rate
	return math.Cos(w), math.Sin(w) / math.Sqrt2
}

func filtered(in []float64, b0, b1, b2, a0, a1, a2 float64) []float64 {
	out := make([]float64, len(in))
	var x1, x2, y1, y2 float64
	for k, x := range in {
		y := (b0*x + b1*x1 + b2*x2 - a1*y1 - a2*y2) / a0
		x2, x1, y2, y1 = x1, x, y1, y
		out[k] = y
	}
	return out
}
