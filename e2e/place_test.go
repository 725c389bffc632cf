package e2e

import (
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
)

// place is what a Bench shows to be at hand: the title, and what is marked as current.
const place = `() => [document.title,
	document.querySelector("#chunks [aria-current] .chunk-name").textContent.split(" ")[0],
	document.querySelector("#stage-tabs [aria-current]").id,
	document.getElementById("tempo-now").textContent,
	document.querySelector(".student-now b")?.textContent || "nobody",
	[...document.querySelectorAll(".lane-switches [aria-pressed=true]")].length + " lanes",
].join(", ")`

// What is at hand is in the address: reloading, a bookmark opened another day, the menu
// from another page, and Back all show it.
func TestThePlaceIsKept(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("a long one, for bin/test --all")
	}
	p, address := signedIn(t, 1280)
	bench(p, address+"/bench/10?instrument=clarinet")
	click(p.MustElementR(".instruments a", "Trombone"))
	until(t, p, "the title names the trombone", `() => document.title.includes("trombone")`)
	p.MustElement("svg.lanes")
	p.MustWaitStable()
	click(p.MustElement("#students [data-at-hand] a"))
	p.MustElement(".student-now")
	p.MustWaitStable()
	click(p.MustElementR("#chunks a", "^B"))
	until(t, p, "chunk B is at hand", `() => document.querySelector("#chunks [aria-current] .chunk-name").textContent.startsWith("B")`)
	p.MustWaitStable()
	click(p.MustElement("#stage-finger"))
	p.MustElementR(".stage-title", "Finger it silently")
	p.MustWaitStable()
	click(p.MustElement("#faster"))
	want := p.MustEval(place).Str()
	kept := p.MustInfo().URL

	same := func(how string) {
		t.Helper()
		p.MustElement("svg.lanes")
		if got := p.MustEval(place).Str(); got != want {
			t.Errorf("%s: at hand is %s, want %s", how, got, want)
		}
	}
	p.MustReload().MustWaitLoad()
	same("reloaded")
	click(p.MustElementR("nav a", "Students"))
	p.MustElementR("h1", "Students")
	click(p.MustElementR("nav a", "Bench"))
	p.MustElement("#bench")
	same("by the menu")
	p.MustNavigate(address + "/settings").MustWaitLoad()
	p.MustNavigate(kept).MustWaitLoad()
	same("by a bookmark")
	click(p.MustElementR("#chunks a", "^A"))
	until(t, p, "chunk A is at hand", `() => document.querySelector("#chunks [aria-current] .chunk-name").textContent.startsWith("A")`)
	p.MustEval(`() => history.back()`)
	until(t, p, "chunk B is back", `() => document.querySelector("#chunks [aria-current] .chunk-name")?.textContent.startsWith("B")`)
	same("by Back")
	p.MustEval(`() => history.forward()`)
	until(t, p, "chunk A is there again", `() => document.querySelector("#chunks [aria-current] .chunk-name")?.textContent.startsWith("A")`)
}

// Two tabs on one student: a mark moves the student on, and the other tab's mark asks
// before it counts.
func TestTwoTabs(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	const path = "/bench/9?instrument=trombone&student=1&stage=count"
	bench(p, address+path)
	other := p.Browser().MustPage()
	watch(t, other)
	other = failing(t, other)
	bench(other, address+path)
	other.MustActivate()
	for range 2 {
		other.Keyboard.MustType(input.KeyC)
		other.MustWaitRequestIdle()()
		other.MustWaitStable()
	}
	other.MustElementR(".advice", "on to Name")
	p.MustActivate()
	p.Keyboard.MustType(input.KeyC)
	p.MustElementR(".asked", "Since this page was opened .* has gone on to Name .*clean at Count")
	click(p.MustElementR(".asked a", "Go to Name"))
	p.MustElementR(".stage-title", "Name it in time")
	p.MustElement(".latest")
	if tries := len(p.MustElements(".latest li")); tries != 2 {
		t.Errorf("%d tries are logged, want the other tab's two", tries)
	}
}

// Without scripts the table stands in for the music and says so, and a stumble is marked
// with its cause.
func TestWithoutScripts(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	if err := (proto.EmulationSetScriptExecutionDisabled{Value: true}).Call(p); err != nil {
		t.Fatal(err)
	}
	// The browser says when the page is there: a listener in the page would not be called.
	arrived := p.MustWaitNavigation()
	p.MustNavigate(address + "/bench/9?instrument=trombone&student=1&stage=count")
	arrived()
	seen := p.MustEval(`() => [...document.querySelectorAll("p, button, th, legend")].filter((e) => e.checkVisibility()).map((e) => e.textContent.trim()).join("\n")`).Str()
	for _, words := range []string{"The music is drawn with JavaScript", "Count\n", "What stumbled?\nrhythm\n"} {
		if !strings.Contains(seen, words) {
			t.Errorf("%q is not to be seen", words)
		}
	}
	for _, words := range []string{"loading", "count-off", "Tap"} {
		if strings.Contains(seen, words) {
			t.Errorf("%q is to be seen, and nothing comes of it", words)
		}
	}
	press := func(selector, said string) {
		t.Helper()
		wait := p.MustWaitNavigation()
		p.MustEval(`(selector) => document.querySelector(selector).click()`, selector)
		wait()
		if got := p.MustEval(`() => document.querySelector(".flash").textContent`).Str(); !strings.Contains(got, said) {
			t.Errorf("%s says %s, want %s", selector, got, said)
		}
	}
	press(".no-script [value=rhythm]", "Count, m. 7–8: a stumble, rhythm.")
	press("#mark-clean", "Count, m. 7–8: clean.")
}

// The lanes that are shown stay shown on the bench of another instrument, and its switches say so.
func TestLanesStayAsTheyAreShown(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	bench(p, address+"/bench/10?instrument=clarinet")
	click(p.MustElement(`.lane-switches [data-lane="name"]`))
	pressed := func() string {
		return p.MustEval(`() => [...document.querySelectorAll(".lane-switches [aria-pressed=true]")].map((b) => b.dataset.lane).join(" ")`).Str()
	}
	shown := pressed()
	if strings.Contains(shown, "name") {
		t.Fatalf("switched off, the lane of names is pressed: %s", shown)
	}
	click(p.MustElementR(".instruments a", "Trombone"))
	until(t, p, "the title names the trombone", `() => document.title.includes("trombone")`)
	p.MustElement("svg.lanes")
	if after := pressed(); after != shown {
		t.Errorf("of the trombone %s are pressed, want %s", after, shown)
	}
	if p.MustHas(".lanes .n") {
		t.Error("the lane of names is drawn")
	}
}
