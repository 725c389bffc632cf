package e2e

import (
	"os"
	"path/filepath"
	"strconv"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
)

// TestScreenshots refreshes the pictures of docs/screenshots from the demo when
// UNHURRIED_SCREENSHOTS names that folder.
func TestScreenshots(t *testing.T) {
	folder := os.Getenv("UNHURRIED_SCREENSHOTS")
	if folder == "" {
		t.Skip("pictures are only taken when UNHURRIED_SCREENSHOTS names a folder")
	}
	server := site(t)
	p := page(t, server.URL+"/sign-in", 1280)
	take := func(name string) {
		t.Helper()
		// Bounded, since a page that is quite at rest may never say that it is idle.
		if err := p.WaitIdle(2 * time.Second); err != nil {
			t.Fatal(err)
		}
		picture, err := p.Screenshot(false, &proto.PageCaptureScreenshot{Format: proto.PageCaptureScreenshotFormatPng})
		if err != nil {
			t.Fatal(err)
		}
		if err := os.WriteFile(filepath.Join(folder, name+".png"), picture, 0o644); err != nil {
			t.Fatal(err)
		}
	}
	signIn(p)
	for _, view := range []struct{ name, path, drawn string }{
		{"shelf", "/", ".exercise"},
		{"sheets", "/bench/6/sheets?class=1", "[data-print-sheets]:not(:disabled)"},
		{"bench", "/bench/6?instrument=trombone&student=1&chunk=4-5", "svg.lanes"},
		{"bench-clarinet", "/bench/9?instrument=clarinet&student=5&chunk=7-8&stage=finger", "svg.lanes"},
		{"board", "/board", ".help-cards > :nth-child(1) .where-line:not(:empty)"},
		{"people", "/people", ".people li"},
		{"fingerings", "/fingerings/violin#n76", ".chart-staff .touch.chosen"},
		{"technique", "/technique?class=1&kind=three-values", ".print-sheet:last-of-type svg.lanes"},
	} {
		p.MustNavigate(server.URL + view.path).MustWaitLoad()
		p.MustElement(view.drawn)
		take(view.name)
	}
	p.MustNavigate(server.URL + "/bench/6/walk?lead=yes&class=1").MustWaitLoad()
	led := func(moves int, cursor int) { // into a run, and to a place of its cursor
		click(p.MustElement("[data-walk-begin], [data-walk-me]"))
		says(t, p, ".")
		for range moves {
			p.Keyboard.MustType(input.ArrowRight)
		}
		says(t, p, ".")
		until(t, p, "the cursor", `() => Number(document.querySelector("#walk .cursor")?.getAttribute("x")) > `+strconv.Itoa(cursor))
	}
	led(8, 350)
	take("lead-class")
	p.Keyboard.MustType(input.Escape)
	p.MustNavigate(server.URL + "/exercises/new").MustWaitLoad()
	if err := p.MustElement("[name=written_for]").Select([]string{"[value=clarinet]"}, true, rod.SelectorTypeCSSSector); err != nil {
		t.Fatal(err)
	}
	p.MustElement("[name=title]").MustInput("Second Ferry")
	p.MustElement("[name=count]").MustInput("1 2 3 4 | 1 & 2 3 | 1 (2) & 3 [4] | =1 | =2 | 1 2 & 3 5")
	p.MustElement("[name=names]").MustInput("gabc | cbag | gab | gabc | cb=ag")
	p.MustElementR(".counted-status", "19 named")
	time.Sleep(2 * time.Second)
	take("entry")
	p.MustNavigate(server.URL + "/lessons").MustWaitLoad()
	onwards(p, "Suggest a lesson")
	take("lesson-plan")
	onwards(p, "Start lesson")
	p.MustElement(".lesson-sheet svg.lanes")
	for range 4 {
		click(p.MustElement("[data-next]"))
		p.MustElement(".lesson-sheet svg.lanes")
	}
	click(p.MustElements(".name-chip")[2])
	time.Sleep(2 * time.Second)
	take("lesson")
	waitsToday(p, server.URL, 25)
	onwards(p, "Start check-ins")
	until(t, p, "the music is drawn", `() => performance.getEntriesByName("due:drawn").length > 0`)
	click(p.MustElement("#clean-0"))
	p.MustElement(".was-clean")
	p.MustElement("[name=comment]").MustInput("Counts aloud by himself now.")
	p.MustEval(`() => scrollTo(0, 0)`)
	time.Sleep(time.Second)
	take("check-in")
	heard := p.MustEval(`() => new URL(document.querySelector(".board-ways a").href).pathname`).Str()
	onwards(p, "Done, next")
	p.MustNavigate(server.URL + heard).MustWaitLoad()
	p.MustElement(".note-staff")
	take("student")
	p.MustNavigate(server.URL + "/cards?class=1").MustWaitLoad()
	find(p, ".class-front svg", "")
	click(p.MustElement("#class-cards [data-next]"))
	find(p, ".class-front svg", "")
	click(p.MustElement("#class-cards [data-turn]"))
	time.Sleep(time.Second)
	take("cards")
	p.MustNavigate(server.URL + "/students/1/plan").MustWaitLoad()
	onEveryDay(p)
	onwards(p, "(Make|Update) plan")
	find(p, ".home-items li", "")
	onwards(p, "Make the link")
	link := find(p, ".own-address input", "").MustProperty("value").Str()
	p.MustNavigate(server.URL + "/students/1/plan").MustWaitLoad()
	find(p, ".home-items li", "")
	take("plan")
	p.MustSetViewport(390, 844, 1, true)
	p.MustNavigate(link).MustWaitLoad()
	find(p, ".own-step", "")
	time.Sleep(time.Second)
	take("at-home")
	steps := p.MustElements(".own-day .own-step [data-open]")
	tapOn(steps[1])
	find(p, "#stand:not([hidden]) svg.lanes", "")
	time.Sleep(2 * time.Second)
	take("at-home-step")
	led(3, 150)
	take("walk")
}
