package e2e

import (
	"encoding/base64"
	"math"
	"os"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"sync/atomic"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"

	"unhurriedbench/core/count"
)

// says waits until a run says something, and is drawn.
func says(t testing.TB, p *rod.Page, words string) {
	t.Helper()
	p.MustElementR("#walk .walk-says", words)
	p.MustElement("#walk .engraving svg.lanes")
}

// A run on the Bench: it goes on by itself, is taken again, back and slower by keys and a pedal,
// asks at its end, and gives the page back.
func TestWalkOnTheBench(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	p.MustNavigate(address + "/bench/6?instrument=trombone&class=1").MustWaitLoad()
	p.MustElement("svg.lanes")
	leads(p, p.MustElementR("a", "Walk me through it"))
	p.MustElementR(".walk-list", "Silent slide, measures 1 to 3")
	click(p.MustElement("[data-walk-begin]"))
	says(t, p, "Listen to the line")
	until(t, p, "the cursor goes through the music", `() => document.querySelector("#walk .cursor")`)
	if large := p.MustElement("#walk .walk-large").MustText(); large == "" {
		t.Error("nothing stands large")
	}
	press := func(keys ...input.Key) {
		for _, key := range keys {
			p.Keyboard.MustType(key)
		}
	}
	press(input.ArrowRight)
	says(t, p, "Clap and count the line with me")
	press(input.ArrowRight)
	says(t, p, "Name the line with me")
	press(input.PageUp) // the pedal's other side
	says(t, p, "Clap and count the line with me")
	if to := p.MustElement(".walk-back-to").MustText(); to != "to Listen" {
		t.Errorf("back leads %s", to)
	}
	before := p.MustElement(".walk-tempo").MustText()
	press(input.BracketLeft)
	if after := p.MustElement(".walk-tempo").MustText(); after == before {
		t.Errorf("slower leaves %s", after)
	}
	until(t, p, "the music again", `() => document.querySelector("#walk .cursor")`)
	press(input.PageDown)
	until(t, p, "the pass from its count-off", `() => document.querySelector("#walk .walk-count .now") && !document.querySelector("#walk .walk-count").hidden`)
	says(t, p, "Clap and count the line with me")
	for moves := p.MustEval(`() => JSON.parse(document.getElementById("walk-data").textContent).run.moves.length`).Int(); moves > 1; moves-- {
		press(input.ArrowRight)
	}
	p.MustElementR(".walk-question", "Measure 4: E natural or E flat")
	click(p.MustElementR(".walk-choices button", "E flat"))
	p.MustElementR(".walk-answer", "E natural it is: look again.")
	press(input.Escape)
	until(t, p, "the page again", `() => document.getElementById("walk").hidden && document.activeElement.matches("[data-walk-begin]")`)
}

// A class is led with a lane for each different music, everybody's first note, and how each
// fingers it; afterwards all are marked by one press.
func TestLeadTheClass(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	p.MustNavigate(address + "/bench/6/walk?lead=yes&class=1").MustWaitLoad()
	click(p.MustElement("[data-walk-begin]"))
	says(t, p, "Listen to the line")
	if parts := len(p.MustElements("#walk .walk-leaf:not(.other) .walk-part")); parts != 4 {
		t.Errorf("%d musics are shown, want 4", parts)
	}
	firsts := p.MustElement("#walk .walk-music").MustText()
	for _, want := range []string{"Clarinet starts on", "Trumpet starts on", "fourth position", "Snare drum starts on"} {
		if !strings.Contains(strings.Join(strings.Fields(firsts), " "), want) {
			t.Errorf("%q is not to be seen in %s", want, firsts)
		}
	}
	for range 4 {
		p.Keyboard.MustType(input.ArrowRight)
	}
	says(t, p, "Silent hands")
	until(t, p, "the trumpet's valves", `() => [...document.querySelectorAll("#walk text.f")].some((text) => text.textContent === "1-2")`)
	for moves := p.MustEval(`() => JSON.parse(document.getElementById("walk-data").textContent).run.moves.length`).Int(); moves > 4; moves-- {
		p.Keyboard.MustType(input.ArrowRight)
	}
	click(p.MustElement(".walk-choices button"))
	leads(p, find(p, "#walk-mark button", "All clean at Play"))
	find(p, ".did-by-hand, .did, .flash", "clean")
}

// The count-off, counts and names of a run are heard when they are due: the first vowel of each
// word begins within 15 ms of its click, in all schools at three tempos.
// Outside check: the vowel is found in the rendered sound, by its harmonics, without the index
// of the words. After r, m, n and l, which are voiced as it is, no such place is to be found, so
// that words that begin with those are left out.
func TestVoiceOnTheBeat(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("a long one, for bin/test --all")
	}
	p, address := signedIn(t, 1280)
	p.MustNavigate(address + "/bench/6/walk?instrument=trombone&class=1").MustWaitLoad()
	p.MustEval(`() => { window.found = null; }`)
	worst, words := 0.0, 0
	for _, school := range count.Schools() {
		for _, tempo := range []int{60, 84, 120} {
			off := p.MustEval(onsets, string(school), tempo).Arr()
			for _, one := range off {
				words++
				worst = max(worst, math.Abs(one.Get("off").Num()))
				if d := one.Get("off").Num(); math.Abs(d) > 15 {
					t.Errorf("by %s at %d the vowel of %q lies %.1f ms from its beat", school, tempo, one.Get("word").Str(), d)
				}
			}
		}
	}
	if words < 150 {
		t.Errorf("only %d words were heard", words)
	}
	t.Logf("%d words, the farthest %.1f ms from its beat", words, worst)
}

// onsets renders what is said of a school at a tempo, each word alone, and gives how many
// milliseconds from its beat the vowel begins.
const onsets = `async (school, tempo) => {
	const modules = JSON.parse(document.getElementById("walk-data").textContent);
	const script = [...document.querySelectorAll("script[type=module]")].map((s) => s.src).find((src) => src.includes("walkpage"));
	const text = await (await fetch(script)).text();
	const walk = text.match(/"([^"]*\/walk\.[^"]*)"/)[1];
	const spokenFile = (await (await fetch(walk)).text()).match(/"([^"]*\/spoken\.[^"]*)"/)[1];
	const Spoken = await import(new URL(spokenFile, location));
	const words = await Spoken.load(modules.voice);
	const said = {
		numbers: ["two", "four", "five", "six", "and", "ee"], pulsed: ["two", "four", "and", "eight"], kodaly: ["ta", "ti", "ka"],
		takadimi: ["ta", "ka", "di", "ki"], gordon: ["du", "de", "ta"], ta: ["ta", "two", "four"], words: ["sail", "chor", "ho", "pas", "tide"],
	}[school].concat(["go", "D", "C sharp", "E flat", "B natural", "G"]);
	const rate = 16000, room = 60 / tempo, out = [];
	for (const word of said) {
		const context = new OfflineAudioContext(1, 1.6 * rate, rate);
		Spoken.sayOn(words, context.destination, word, 1, room);
		const samples = (await context.startRendering()).getChannelData(0);
		out.push({ word, off: 1000 * (vowel(samples, rate) - 1) });
	}
	return out;

	// vowel is where the harmonics of the voice first reach three tenths of their level in the
	// next tenth of a second, and stay there.
	function vowel(samples, rate) {
		const frame = Math.round(0.016 * rate), hop = Math.round(0.002 * rate), level = [], from = Math.round(0.7 * rate);
		for (let at = from; at + frame < samples.length; at += hop) {
			let energy = 0;
			for (let hz = 160; hz <= 900; hz += 40) {
				let re = 0, im = 0;
				for (let k = 0; k < frame; k++) {
					const w = 0.5 - 0.5 * Math.cos(2 * Math.PI * k / frame), a = 2 * Math.PI * hz * k / rate;
					re += w * samples[at + k] * Math.cos(a); im += w * samples[at + k] * Math.sin(a);
				}
				energy += re * re + im * im;
			}
			level.push(Math.sqrt(energy));
		}
		const most = Math.max(...level);
		const k = level.findIndex((v, i) => {
			const soon = Math.max(...level.slice(i, i + 50));
			return soon > most / 4 && v > 0.3 * soon && level.slice(i, i + 15).every((u) => u > 0.25 * soon);
		});
		return (from + k * hop + frame / 2) / rate;
	}
}`

// A student is led through a step on a phone, by touch, by a pedal and without network, and says
// then how it was; what they answered of a name arrives as their word.
func TestAStudentIsLed(t *testing.T) {
	t.Parallel()
	var away atomic.Bool
	address, s := awaySite(t, &away)
	teacher := page(t, address, 1280)
	signIn(teacher)
	link := practiceLink(teacher, address)
	phone := page(t, link, 360)
	phone.MustSetViewport(360, 740, 2, true)
	find(phone, ".own-step", "")
	until(t, phone, "the worker keeps the page", `async () => (await navigator.serviceWorker.ready) && navigator.serviceWorker.controller`)
	tapOn(phone.MustElements(".own-day:not([hidden]) .own-step:not([data-kind=warm]) [data-open]")[0])
	find(phone, "#stand:not([hidden]) svg.lanes", "")
	tapOn(find(phone, "[data-walk-me]", "Walk me through it"))
	says(t, phone, ".")
	until(t, phone, "the cursor", `() => document.querySelector("#walk .cursor")`)
	if over := phone.MustEval(`() => [...document.querySelectorAll("#walk button")].filter((b) => b.offsetParent && (b.getBoundingClientRect().bottom > innerHeight + 1 || b.scrollWidth > b.clientWidth + 1)).map((b) => b.textContent).join()`).Str(); over != "" {
		t.Errorf("at 360x740 %s is cut off", over)
	}
	first := phone.MustElement(".walk-says").MustText()
	tapOn(find(phone, "#walk [data-walk=on]", ""))
	until(t, phone, "the next pass", `() => document.querySelector(".walk-says").textContent !== `+strconv.Quote(first))
	second := phone.MustElement(".walk-says").MustText()
	phone.Keyboard.MustType(input.PageDown)
	says(t, phone, regexp.QuoteMeta(second))
	phone.Keyboard.MustType(input.PageUp)
	says(t, phone, regexp.QuoteMeta(first))
	tapOn(phone.MustElement("#walk .walk-music")) // again
	says(t, phone, regexp.QuoteMeta(first))

	away.Store(true) // it goes on offline
	for phone.MustEval(`() => document.querySelector(".walk-end").hidden`).Bool() {
		phone.Keyboard.MustType(input.ArrowRight)
	}
	asks := len(phone.MustElements(".walk-choices button")) > 0
	if asks {
		tapOn(phone.MustElement(".walk-choices button"))
	}
	tapOn(find(phone, ".walk-after button", "Done"))
	find(phone, ".ask-title", "How was it")
	tapOn(find(phone, "[data-result=clean]", ""))
	tapOn(find(phone, "[data-beside=better]", ""))
	tapOn(find(phone, "[data-changed]", ""))
	away.Store(false)
	phone.MustEval(`() => { window.dispatchEvent(new Event("online")); }`)
	want := 1
	if asks {
		want = 2
	}
	until(t, phone, "nothing waits", `() => JSON.parse(localStorage.getItem("waits " + document.body.dataset.base) || "[]").length === 0`)
	var said int
	if err := s.DB().QueryRow(`SELECT count(*) FROM home_tries WHERE student_id = 1`).Scan(&said); err != nil || said != want {
		t.Errorf("%d tries at home arrived, want %d; %v", said, want, err)
	}
}

// A run is kept as sound and as a video that a browser plays, as long as it takes, small, and
// named by book, number and instrument.
func TestRunAsFiles(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("a long one, for bin/test --all")
	}
	p, address := signedIn(t, 1280)
	p.MustNavigate(address + "/bench/6/walk?instrument=trombone&class=1&unit=line&minutes=2&tempo=120").MustWaitLoad()
	player := page(t, address+"/sign-in", 1280)
	player.MustNavigate("about:blank") // where what is made may be played
	click(p.MustElement(".walk-save summary"))
	seconds := p.MustEval(`() => JSON.parse(document.getElementById("walk-data").textContent).run.seconds`).Num()
	for _, kind := range []string{"sound", "video"} {
		click(p.MustElement("[data-save=" + kind + "]"))
		p.Timeout(5*time.Minute).MustElementR(".walk-save [role=status]", "is made|could not")
		if said := p.MustElement(".walk-save [role=status]").MustText(); !strings.Contains(said, "06 trombone") || !strings.Contains(said, "is made") {
			t.Fatalf("the %s: %s", kind, said)
		}
		content := p.MustEval(`async () => {
			const bytes = new Uint8Array(await document.querySelector("[data-media]").made.arrayBuffer());
			let text = "";
			for (let k = 0; k < bytes.length; k += 30000) text += String.fromCharCode(...bytes.subarray(k, k + 30000));
			return { type: document.querySelector("[data-media]").made.type, bytes: bytes.length, content: btoa(text) };
		}`)
		made := player.MustEval(`async (kind, type, content) => {
			const media = document.createElement(kind === "sound" ? "audio" : "video");
			media.src = URL.createObjectURL(new Blob([Uint8Array.from(atob(content), (c) => c.charCodeAt(0))], { type }));
			await new Promise((resolve, reject) => { media.onloadedmetadata = resolve; media.onerror = () => reject(new Error("it does not play")); });
			return { seconds: media.duration, width: media.videoWidth, height: media.videoHeight };
		}`, kind, content.Get("type").Str(), content.Get("content").Str())
		if got := made.Get("seconds").Num(); got < seconds*0.9 || got > seconds*1.25+5 {
			t.Errorf("the %s lasts %.1f s, and the run %.1f", kind, got, seconds)
		}
		if kind == "video" && (made.Get("width").Int() != 1280 || made.Get("height").Int() != 720) {
			t.Errorf("the video is %d by %d", made.Get("width").Int(), made.Get("height").Int())
		}
		if perMinute := content.Get("bytes").Num() / (seconds / 60); perMinute > 2e6 {
			t.Errorf("the %s has %.1f MB a minute", kind, perMinute/1e6)
		}
		t.Logf("%s: %s, %.1f s, %.2f MB", kind, content.Get("type").Str(), made.Get("seconds").Num(), content.Get("bytes").Num()/1e6)
		if folder := os.Getenv("UNHURRIED_MADE"); folder != "" {
			bytes, err := base64.StdEncoding.DecodeString(content.Get("content").Str())
			if err == nil {
				err = os.WriteFile(filepath.Join(folder, kind), bytes, 0o600)
			}
			if err != nil {
				t.Error(err)
			}
		}
	}
}
