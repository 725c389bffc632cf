package e2e

import (
	"encoding/base64"
	"encoding/binary"
	"encoding/json"
	"math"
	"slices"
	"testing"

	"github.com/go-rod/rod"

	"unhurriedbench/core/instrument"
)

// renderedRate is the sampling rate of what is rendered.
const renderedRate = 44100.0

// sounding is one note as core has it: in seconds and, for pitched ones, as a MIDI number.
type sounding struct {
	At      float64
	Seconds float64
	MIDI    int
	Clear   bool // it begins after a silence: it is not slurred
}

// rendered plays the chunk of a Bench into a buffer, as the player of the page at hand does,
// and gives the samples with what core says of it.
func rendered(t *testing.T, p *rod.Page, address string) ([]float64, []sounding) {
	t.Helper()
	answer := p.MustEval(withModules(t, `async (address, rate) => {
		const bench = new DOMParser().parseFromString(await (await fetch(address)).text(), "text/html");
		const { round, voice, a4 } = JSON.parse(bench.querySelector(".hear").dataset.heard);
		const data = JSON.parse(bench.querySelector("#bench .sheet-data").textContent);
		const plan = { round, voice, a4, beat: data.beat, tempo: Number(bench.getElementById("tempo-now").textContent), plan: [], places: [], want: { notes: true } };
		const whole = 60 / plan.tempo / plan.beat;
		const context = new OfflineAudioContext(1, Math.ceil(rate * (round.length * whole + 1)), rate);
		$player.lay(context.destination, plan, await $player.loadSounds(plan), 0.25, { notes: true });
		const samples = (await context.startRendering()).getChannelData(0);
		const bytes = new Uint8Array(Int16Array.from(samples, (v) => 32767 * Math.max(-1, Math.min(1, v))).buffer);
		let text = "";
		for (let i = 0; i < bytes.length; i += 8192) text += String.fromCharCode(...bytes.subarray(i, i + 8192));
		return { samples: btoa(text), notes: JSON.stringify(round.notes.map((n, k) => ({
			At: 0.25 + n.at * whole, Seconds: n.sounds * whole, MIDI: (n.midi || [])[0] || 0, Clear: !n.joined && !n.roll && !n.graces })) ) };
	}`), address, renderedRate)
	raw, err := base64.StdEncoding.DecodeString(answer.Get("samples").Str())
	if err != nil {
		t.Fatal(err)
	}
	samples := make([]float64, len(raw)/2)
	for i := range samples {
		samples[i] = float64(int16(binary.LittleEndian.Uint16(raw[2*i:]))) / 32768
	}
	var notes []sounding
	if err := json.Unmarshal([]byte(answer.Get("notes").Str()), &notes); err != nil {
		t.Fatal(err)
	}
	return samples, notes
}

// onset finds where a sound begins near a time, in seconds: the first sample that stands
// out from what is heard just before, -1 for none.
func onset(samples []float64, near float64) float64 {
	from, to := int((near-0.012)*renderedRate), int((near+0.03)*renderedRate)
	quiet := from + int(math.Round(0.004*renderedRate))
	before := 0.0
	for _, v := range samples[from:quiet] {
		before = max(before, math.Abs(v))
	}
	for i := quiet; i < min(to, len(samples)); i++ {
		if math.Abs(samples[i]) > 3*before+0.0015 {
			return float64(i) / renderedRate
		}
	}
	return -1
}

// likeness is how like itself a stretch is a lag later, from -1 to 1.
func likeness(x []float64, lag float64) float64 {
	var same, here, there float64
	whole := int(lag)
	part := lag - float64(whole)
	for i := 0; i+whole+1 < len(x); i++ {
		later := x[i+whole]*(1-part) + x[i+whole+1]*part
		same += x[i] * later
		here += x[i] * x[i]
		there += later * later
	}
	return 2 * same / (here + there + 1e-12)
}

// centsOff is how far a stretch is from a pitch, in cents: the lag within a whole step of
// it at which the sound is most like itself, and how like. The octave above is distinguished by
// half the lag, other pitches by the likeness.
func centsOff(x []float64, midi int) (cents, like float64, octaveHigher bool) {
	hz := 440 * math.Pow(2, float64(midi-69)/12)
	best, found := -2.0, 0.0
	for c := -200.0; c <= 200; c += 2 {
		if like := likeness(x, renderedRate/(hz*math.Pow(2, c/1200))); like > best {
			best, found = like, c
		}
	}
	return found, best, likeness(x, renderedRate/hz/2) > 0.97*best
}

// What the player renders begins each note when core says, to 2 ms, and has core's concert
// pitch, for every instrument. Timing and pitch are read off the samples.
func TestHeardOnEveryInstrument(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("a long one, for bin/test --all")
	}
	p, address := signedIn(t, 1280)
	bench(p, address+"/bench/6?instrument=flute")
	for _, i := range instrument.All() {
		samples, notes := rendered(t, p, address+"/bench/6?chunk=1-8&instrument="+i.ID)
		if len(notes) < 6 {
			t.Errorf("%s: only %d notes are heard", i.ID, len(notes))
		}
		timed := 0
		for k, n := range notes {
			if k > 0 && slices.Contains([]string{"bells", "timpani"}, i.Voice().Name) {
				break // they ring on into the next note
			}
			if n.Clear {
				timed++
				if at := onset(samples, n.At); math.Abs(at-n.At) > 0.002 {
					t.Errorf("%s: note %d begins at %.4f s, core says %.4f", i.ID, k+1, at, n.At)
				}
			}
			if n.MIDI == 0 || n.Seconds < 0.2 || i.Voice().Name == "xylophone" {
				continue
			}
			from := int((n.At + 0.35*n.Seconds) * renderedRate)
			off, like, higher := centsOff(samples[from:from+int(0.35*n.Seconds*renderedRate)], n.MIDI)
			if math.Abs(off) > 25 || like < 0.6 || higher && i.Family != "percussion" {
				t.Errorf("%s: note %d is %.0f cents from MIDI %d, %.2f like it, an octave higher: %v", i.ID, k+1, off, n.MIDI, like, higher)
			}
		}
		if timed == 0 {
			t.Errorf("%s: no onset was measured", i.ID)
		}
	}
}

// Hearing is one key, stops by the same, goes loop where that is wanted, and
// leaves every second round to the student; the wishes are kept.
func TestHearing(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	bench(p, address+"/bench/6?instrument=trumpet&chunk=4-5&tempo=208")
	press(p, "h")
	p.MustElementR("#hear", "Stop")
	until(t, p, "the cursor moves", `() => document.querySelector(".cursor")`)
	until(t, p, "the chunk ends by itself", `() => document.querySelector("#hear").textContent.includes("Hear it") && !document.querySelector(".cursor")`)

	click(p.MustElement(".hear summary"))
	click(p.MustElement("[data-want=echo]"))
	if !p.MustElement("[data-want=again]").MustProperty("checked").Bool() {
		t.Error("an answer is wanted, and the chunk does not go round")
	}
	p.MustReload().MustWaitLoad()
	until(t, p, "the wishes are kept", `() => document.querySelector("[data-want=echo]").checked && document.querySelector("svg.lanes")`)
	press(p, "h")
	p.MustElementR("#hear", "Your turn")
	until(t, p, "it comes round again", `() => document.querySelector("#hear").textContent.trim().startsWith("Stop")`)
	press(p, "h")
	p.MustElementR("#hear", "Hear it")

	click(p.MustElement(".hear summary"))
	click(p.MustElement("[data-everybody]"))
	p.MustElementR(".firsts", `Clarinet: [^:]*Trumpet: `)
	click(p.MustElement("[data-one]"))
	press(p, "p")
}

// A room tunes: the note, the drone, and what each instrument reads.
func TestTuning(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	p.MustNavigate(address + "/tune?note=Bb").MustWaitLoad()
	p.MustElementR("tr", "Clarinet.*C")
	p.MustElementR("tr", "Trumpet.*C.*open")
	press(p, " ")
	p.MustElementR("[data-hold]", "Stop")
	press(p, " ")
	p.MustElementR("[data-hold]", "Hold concert B flat")
}

// Two lines stand over one ruler, the other one small or as large; the frame of the chunk and
// the keys go through both, and the other line is heard at core's times.
func TestTwoLinesOnTheBench(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	p.MustNavigate(address + "/exercises/35/parts").MustWaitLoad()
	leads(p, p.MustElementR("form button", "Save"))
	p.MustElementR("p", "This is part A; part B is")
	bench(p, address+"/bench/35?instrument=clarinet&chunk=1-2")
	heads := `(n) => document.querySelectorAll("#bench g.staff[data-n='" + n + "'] .notehead").length`
	if own, other := p.MustEval(heads, 1).Int(), p.MustEval(heads, 3).Int(); own < 20 || own != other {
		t.Errorf("%d notes in the line, %d over it", own, other)
	}
	aligned := p.MustEval(`() => {
		const x = (id) => document.getElementById(id).querySelector(".notehead").getBoundingClientRect();
		const middle = (r) => r.left + r.width / 2;
		return ["n0_0", "n0_1", "n3_0", "n7_0"].map((n) => Math.abs(middle(x("bench-" + n)) - middle(x("bench-other-" + n)))).reduce((a, b) => Math.max(a, b));
	}`).Num()
	if aligned > 6 {
		t.Errorf("notes that sound together stand %.1f pixels apart", aligned)
	}
	frame := p.MustEval(`() => document.querySelector(".chunk-box").getBoundingClientRect().top < document.querySelector("#bench g.staff[data-n='3']").getBoundingClientRect().top`).Bool()
	if !frame {
		t.Error("the frame of the chunk leaves the other line out")
	}
	p.MustElement(".two-lines [name=other]").MustSelect("as large")
	until(t, p, "the other line is as large", `() => { const h = (n) => document.querySelector("#bench g.staff[data-n='" + n + "']")?.querySelector(".notehead")?.getBoundingClientRect().height; return document.querySelector(".two-lines [name=other]").value === "large" && h(1) && Math.abs(h(1) - h(3)) < 1; }`)
	click(p.MustElement("#hear"))
	until(t, p, "the cursor goes", `() => document.querySelector(".cursor")`)
	click(p.MustElement("#hear"))
	click(p.MustElementR(".two-lines a", "Part B"))
	p.MustElementR("h1", "Two Lanterns, part B")
	until(t, p, "part A stands over it", `() => document.querySelectorAll("#bench g.staff[data-n='3'] .notehead").length >= 20`)
}
