package e2e

import (
	"bytes"
	"context"
	"image"
	_ "image/png"
	"io"
	"log/slog"
	"net/http"
	"regexp"
	"strings"
	"sync/atomic"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/makiuchi-d/gozxing"
	"github.com/makiuchi-d/gozxing/qrcode"

	"unhurriedbench/store"
	"unhurriedbench/web"
)

// awaySite serves the demo; while away is set, nobody answers.
func awaySite(t *testing.T, away *atomic.Bool) (string, *store.Store) {
	t.Helper()
	template, err := demoTemplate()
	if err != nil {
		t.Fatal(err)
	}
	s := template.Open(t)
	server, err := web.New(s, slog.New(slog.NewTextHandler(io.Discard, nil)))
	if err != nil {
		t.Fatal(err)
	}
	routes := server.Routes()
	running := run(t, http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if away.Load() {
			connection, _, err := w.(http.Hijacker).Hijack()
			if err == nil {
				connection.Close()
			}
			return
		}
		routes.ServeHTTP(w, r)
	}))
	return running.URL, s
}

// scanned reads the code of a link as a phone does.
// Outside check: ZXing, a reader of such codes that the program does not use.
func scanned(t *testing.T, code *rod.Element) string {
	t.Helper()
	picture, err := code.Screenshot(proto.PageCaptureScreenshotFormatPng, 0)
	if err != nil {
		t.Fatal(err)
	}
	decoded, _, err := image.Decode(bytes.NewReader(picture))
	if err != nil {
		t.Fatal(err)
	}
	bitmap, err := gozxing.NewBinaryBitmapFromImage(decoded)
	if err != nil {
		t.Fatal(err)
	}
	text, err := qrcode.NewQRCodeReader().Decode(bitmap, nil)
	if err != nil {
		t.Fatalf("the code cannot be read: %v", err)
	}
	return text.GetText()
}

// onEveryDay chooses every day of the week for a plan, so that today has steps.
func onEveryDay(p *rod.Page) {
	for _, day := range p.MustElements("[name=day]") {
		if !day.MustProperty("checked").Bool() {
			click(day)
		}
	}
}

// practiceLink makes a plan for the first student and a link to their page.
func practiceLink(p *rod.Page, address string) string {
	p.MustNavigate(address + "/students/1/plan").MustWaitLoad()
	onEveryDay(p)
	onwards(p, "(Make|Update) plan")
	find(p, ".home-items li", "")
	onwards(p, "Make the link")
	return find(p, ".own-address input", "").MustProperty("value").Str()
}

// A student scans the code on the plan, types the PIN wrong five times, gets another one, and
// does steps of the day by touch on a phone; the network goes in the middle, the page is opened
// again without it, and what was said arrives once when it is back.
func TestAStudentsDayOnAPhone(t *testing.T) {
	t.Parallel()
	var away atomic.Bool
	address, s := awaySite(t, &away)
	teacher := page(t, address, 1280)
	signIn(teacher)
	teacher.MustNavigate(address + "/students/1/plan").MustWaitLoad()
	onEveryDay(teacher)
	onwards(teacher, "(Make|Update) plan")
	find(teacher, ".home-items li", "")
	onwards(teacher, "Make the link")
	link := scanned(t, find(teacher, ".own-code .code", ""))
	if !regexp.MustCompile(`^` + address + `/my/[A-Z0-9]{26}/$`).MatchString(link) {
		t.Fatalf("the code says %q", link)
	}
	setPIN := func(pin string) {
		find(teacher, "[name=pin]", "").MustInput(pin)
		onwards(teacher, "PIN|Change it")
		find(teacher, ".flash", "asks for the PIN")
	}
	setPIN("0417")

	phone := page(t, link, 360)
	phone.MustSetViewport(360, 740, 2, true)
	give := func(pin string) {
		phone.MustElement("[name=pin]").MustInput(pin)
		phone.MustEval(`() => { window.before = true; }`)
		tapOn(find(phone, "button", "Open"))
		arrived(phone)
	}
	for range 5 {
		give("1111")
	}
	find(phone, "[role=alert]", "Too many were wrong")
	setPIN("2605")
	give("2605")
	find(phone, ".own-hello", ", Ines")
	until(t, phone, "the worker keeps the page", `async () => {
		const kept = await caches.open("my-page " + new URL(document.body.dataset.base, location).pathname);
		return (await kept.match(location.origin + document.body.dataset.base)) && (await navigator.serviceWorker.ready) && navigator.serviceWorker.controller;
	}`)

	tap := func(selector, words string) { tapOn(find(phone, selector, words)) }
	step := func(n int) *rod.Element { return phone.MustElements(".own-day:not([hidden]) .own-step")[n] }
	tapOn(step(0).MustElement("[data-open]"))
	find(phone, "#stand:not([hidden]) svg.lanes", "")
	tap("[data-did]", "")
	find(phone, "#day:not([hidden]) .own-step.done[data-line=warm]", "")

	say := func(result string) {
		tapOn(step(1).MustElement("[data-open]"))
		find(phone, "#stand:not([hidden]) svg.lanes", "")
		tap("[data-tried]", "")
		find(phone, ".stand-advice", "Once more")
		tap("[data-tried]", "")
		if result == "clean" {
			tap(`[data-result="clean"]`, "")
		} else {
			tap(`[data-result=""]`, "")
			tap(`[data-result="`+result+`"]`, "")
		}
		tap(`[data-beside="better"]`, "")
		tap(`[data-changed="counted"]`, "")
		find(phone, ".stand-advice", "Noted")
	}
	away.Store(true)
	say("rhythm")
	find(phone, ".own-waiting", "without network")
	phone.MustReload().MustWaitLoad() // from what the worker keeps
	find(phone, ".own-hello", ", Ines")
	find(phone, ".own-step.done[data-line=warm]", "")
	say("clean")
	tap("[data-did]", "")
	find(phone, "#day:not([hidden]) .own-step.done:nth-child(2)", "")
	phone.MustNavigate(link + "cards").MustWaitLoad()
	find(phone, ".round-front svg", "")
	away.Store(false)
	until(t, phone, "what waited is sent", `() => JSON.parse(localStorage.getItem("waits " + document.body.dataset.base) || "[]").length === 0`)

	teacher.MustNavigate(address + "/students/1/plan").MustWaitLoad()
	find(teacher, ".home-said small", "1 day, 2 of")
	said := teacher.MustElements(".home-said li")
	if len(said) != 2 {
		t.Fatalf("the teacher sees %d tries, want 2", len(said))
	}
	for k, want := range []string{"clean; better than before, changed: counted aloud", "stumble over the rhythm; better than before, changed: counted aloud"} {
		if text := said[k].MustText(); !strings.Contains(text, want) || !strings.Contains(text, "the student’s word") {
			t.Errorf("try %d is %q, want %q", k+1, text, want)
		}
	}
	demo, err := s.DemoTeacher(context.Background())
	if err != nil {
		t.Fatal(err)
	}
	tries, err := s.For(demo.ID).HomeTries(context.Background(), 0, 1, time.Time{})
	if err != nil || len(tries[1]) != 2 {
		t.Errorf("%d tries are kept, %v", len(tries[1]), err)
	}

	// The page ended, the phone says so, and keeps nothing.
	onwards(teacher, "Turn off the link")
	phone.MustNavigate(link).MustWaitLoad()
	find(phone, "h1", "This link leads nowhere")
	until(t, phone, "nothing is kept", `async () => (await caches.keys()).length === 0`)
}

// keyOf is the key of a figure.
func keyOf(n int) input.Key { return input.Key('0' + n) }

// A round of cards by keys alone: letters and figures press, space goes on, what is missed
// comes again, and the round has an end.
func TestARoundByKeys(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	p.MustNavigate(address + "/students/1/plan").MustWaitLoad()
	onwards(p, "Make the link")
	link := find(p, ".own-address input", "").MustProperty("value").Str()
	p.MustNavigate(link + "cards").MustWaitLoad()
	find(p, ".round-front svg", "")
	total := func() string { return find(p, ".round-of", "of").MustText() }
	before := total()
	wrong := p.MustEval(`() => { const c = JSON.parse(document.getElementById("round").textContent)[0]; return c.choices.findIndex((choice) => !choice.right) + 1; }`).Int()
	p.Keyboard.MustType(keyOf(wrong))
	find(p, ".round-verdict", "^It is ")
	if after := total(); after == before {
		t.Errorf("after a miss it is still %s", after)
	}
	for range 40 {
		if p.MustEval(`() => !document.querySelector(".round-end").hidden`).Bool() {
			break
		}
		if p.MustEval(`() => !document.querySelector(".round-next").hidden`).Bool() {
			p.MustEval(`() => document.activeElement.blur()`)
			p.Keyboard.MustType(' ')
			find(p, ".round-front svg", "")
			continue
		}
		k := p.MustEval(`() => {
			const id = document.querySelector(".round-ask").textContent;
			const cards = JSON.parse(document.getElementById("round").textContent);
			const at = Number(document.querySelector(".round-of").textContent.split(" ")[0]) - 1;
			const c = cards[Math.min(at, cards.length - 1) === at ? at : 0];
			if (id !== JSON.parse(document.getElementById("own-words").textContent)["q." + c.kind]) throw new Error("a card of " + c.kind + " asks " + id);
			return (c.choices || []).length ? c.choices.findIndex((choice) => choice.right) + 1 : 0;
		}`).Int()
		if k > 0 {
			p.Keyboard.MustType(keyOf(k))
			find(p, ".round-verdict", "^Right")
			continue
		}
		p.MustEval(`() => document.activeElement.blur()`)
		p.Keyboard.MustType(' ')
		find(p, ".round-judge", "")
		p.Keyboard.MustType('1')
	}
	find(p, ".round-end", "cards, .* right the first time")
	p.MustNavigate(address + "/students/1").MustWaitLoad()
	find(p, ".home-said", "Cards: [1-9]")
}

// axe-core finds nothing on a student's pages, and none is wider than a small phone.
func TestAStudentsPagesForEveryone(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("a long one, for bin/test --all")
	}
	p, address := signedIn(t, 360)
	script := axe(t)
	link := practiceLink(p, address)
	look := func(name string) {
		t.Helper()
		accessible(t, p, script, name)
		for _, width := range []int{360, 768} {
			p.MustSetViewport(width, 740, 1, width < 600)
			time.Sleep(resettles)
			if over := p.MustEval(`() => document.documentElement.scrollWidth - document.documentElement.clientWidth`).Int(); over > 0 {
				t.Errorf("%s is %d pixels wider than a screen of %d", name, over, width)
			}
			cut := p.MustEval(`() => [...document.querySelectorAll(".btn, .own-nav a, .own-open")].filter((e) => e.offsetParent && (e.scrollWidth > e.clientWidth + 1 || e.scrollHeight > e.clientHeight + 1)).map((e) => e.textContent.trim()).join(", ")`).Str()
			if cut != "" {
				t.Errorf("%s at %d pixels: cut off are %s", name, width, cut)
			}
		}
		p.MustSetViewport(360, 740, 1, true)
	}
	p.MustNavigate(link).MustWaitLoad()
	find(p, ".own-step", "")
	look("a student's day")
	open := p.MustElements(".own-day:not([hidden]) .own-step [data-open], .own-day .own-step [data-open]")
	tapOn(open[1])
	find(p, "#stand:not([hidden]) svg.lanes", "")
	look("a step")
	for range 2 {
		tapOn(find(p, "[data-tried]", ""))
	}
	look("how it was")
	tapOn(find(p, `[data-result=""]`, ""))
	look("what stumbled")
	for _, page := range []struct{ name, path, drawn string }{
		{"a round of cards", "cards", ".round-front svg"}, {"what a student can play", "notes", ".note-staff"}, {"a student's instrument", "care", ".care h2"},
	} {
		p.MustNavigate(link + page.path).MustWaitLoad()
		find(p, page.drawn, "")
		look(page.name)
	}
	p.MustNavigate(address + "/students/1/plan").MustWaitLoad()
	find(p, "[name=pin]", "").MustInput("0417")
	onwards(p, "Ask for a PIN")
	find(p, ".flash", "asks for the PIN")
	p.MustNavigate(link).MustWaitLoad()
	find(p, "[name=pin]", "")
	look("a PIN")
	p.MustNavigate(address + "/my/NOBODYSKEYATALLNOBODYSKEYA/").MustWaitLoad()
	look("a link that leads nowhere")
}
