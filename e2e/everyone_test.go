package e2e

import (
	"compress/gzip"
	"io"
	"os"
	"strings"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"
)

// views are the screens a signed-in teacher has, with an element that is there
// once they are drawn.
var views = []struct{ name, path, drawn string }{
	{"Shelf", "/", ".exercise"},
	{"entry", "/exercises/new", "[name=names]"},
	{"many at once", "/exercises/many", "[name=files]"},
	{"entry by ABC", "/exercises/new?way=abc", "#preview"},
	{"Bench", "/bench/6?instrument=trombone&student=1", "svg.lanes"},
	{"Bench for clarinet", "/bench/10?instrument=clarinet", "svg.lanes"},
	{"Difficulty by instrument", "/bench/6/hardest?class=1", ".grades"},
	{"Sheets", "/bench/6/sheets?class=1", ".print-sheet svg.lanes"},
	{"Tuning note", "/tune", ".tune td"},
	{"technique for a class", "/technique?class=1&kind=scale", ".print-sheet svg.lanes"},
	{"a line by ear", "/bench/12/ear?class=1&instrument=trombone", ".ear-given:not(:empty)"},
	{"notes to write", "/bench/12/write?class=1&instrument=trombone", ".blank-staff"},
	{"before a line", "/bench/12/before?class=1", ".before-line td, .empty-screen"},
	{"a led run", "/bench/6/walk?class=1&instrument=trombone", ".walk-list li"},
	{"Board", "/board", ".board td"},
	{"Board by exercise", "/board/heat", ".heat td"},
	{"Board by week", "/board/weeks", ".week-plot"},
	{"Groups", "/board/groups", ".teams li"},
	{"Grades", "/board/grades", ".gradebook td"},
	{"history", "/students/1", ".by-chunk"},
	{"history of an exercise", "/students/1?exercise=1", ".tries"},
	{"Students", "/people", ".people li"},
	{"a table of students", "/people/table", "[name=table]"},
	{"check-ins", "/check-ins?class=1", ".checkin-table td"},
	{"care of an instrument", "/care/brass", ".care h2"},
	{"a page for the family", "/students/1/family", ".family .note-staff"},
	{"plans for home", "/plans?class=1", ".plan-list li"},
	{"cards for a class", "/cards?class=1", ".class-front svg"},
	{"a student without a plan", "/students/2/plan", ".plan-make"},
	{"the seats of a class", "/classes/1/seats?across=6", ".seat-name"},
	{"Settings", "/settings", ".settings"},
	{"Record your voice", "/settings/voice", ".record-words li"},
	{"Routines", "/routines", ".routine-cards"},
	{"Changing a routine", "/routines/edit?id=pluck-first&copy=yes", ".stage-cards"},
	{"Your account", "/account", ".account"},
	{"Trash", "/removed", "h1"},
	{"Activity log", "/account/log", "h1"},
	{"Parts", "/exercises/6/parts", ".fields"},
	{"Same or different", "/compare?a=6&a-from=1&a-to=2&b=11&b-from=1&b-to=2", ".ruler-table"},
	{"Fingering chart", "/fingerings/flute", ".in-chart"},
	{"Fingering chart for strings", "/fingerings/violin", ".in-chart"},
	{"Fingering chart for a drum", "/fingerings/snare", ".empty-screen"},
	{"Bench for bassoon", "/bench/6?instrument=bassoon", "svg.lanes"},
	{"Drill", "/bench/6?instrument=trombone&line=drill&stage=finger", "svg.lanes"},
}

// axe reads axe-core.
func axe(t *testing.T) string {
	t.Helper()
	packed, err := os.Open("axe.min.js.gz")
	if err != nil {
		t.Fatal(err)
	}
	defer packed.Close()
	plain, err := gzip.NewReader(packed)
	if err != nil {
		t.Fatal(err)
	}
	script, err := io.ReadAll(plain)
	if err != nil {
		t.Fatal(err)
	}
	return string(script)
}

// accessible has axe-core look for breaches of WCAG A and AA, and of its own best practice.
func accessible(t *testing.T, p *rod.Page, axe, name string) {
	t.Helper()
	p.MustEval("() => { " + axe + " }")
	found := p.MustEval(`async () => {
		const result = await axe.run(document, { runOnly: ["wcag2a", "wcag2aa", "wcag21aa", "wcag22aa", "best-practice"] });
		return result.violations.map((v) => v.id + ": " + v.nodes.map((n) => n.html + " " + n.failureSummary).slice(0, 4).join("; ")).join("\n");
	}`).Str()
	if found != "" {
		t.Errorf("%s:\n%s", name, found)
	}
}

// Outside check: axe-core finds nothing on any page.
func TestAccessibility(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("a long one, for bin/test --all")
	}
	server, script := site(t), axe(t)
	p := page(t, server.URL, 1280)
	accessible(t, p, script, "sign-in")
	signIn(p)
	for _, v := range views {
		p.MustNavigate(server.URL + v.path).MustWaitLoad()
		p.MustElement(v.drawn)
		accessible(t, p, script, v.name)
		if broken := p.MustEval(`() => [...document.querySelectorAll("tr")].filter((row) => row.checkVisibility() && getComputedStyle(row).display !== "table-row").map((row) => row.className + " " + row.innerText).join("; ")`).Str(); broken != "" {
			t.Errorf("%s: these rows of a table are laid out as something else: %s", v.name, broken)
		}
	}
}

// states are what pages become as they are used.
var states = []struct {
	name, path string
	reach      func(p *rod.Page)
}{
	{"a clean try and its undo", "/bench/6?instrument=trombone&student=1", func(p *rod.Page) {
		click(p.MustElement("#mark-clean"))
		p.MustElementR(".did", "clean")
	}},
	{"the causes of a stumble", "/bench/6?instrument=trombone&student=1", func(p *rod.Page) {
		click(p.MustElement("#mark-stumble"))
		p.MustElement(".causes:not([hidden])")
	}},
	{"everybody clean", "/bench/12?instrument=clarinet", func(p *rod.Page) {
		click(p.MustElement("#all-clean"))
		p.MustElementR(".did", "Undo for everybody")
	}},
	{"nobody chosen", "/bench/12?instrument=clarinet", func(p *rod.Page) {
		click(p.MustElement("#mark-clean"))
		p.MustElementR(".advice", "Nobody is chosen")
	}},
	{"an overtaken mark", "/bench/6?instrument=trombone&student=1&chunk=1-3&stage=play", func(p *rod.Page) {
		p.MustEval(`() => { document.querySelector("#mark [name=seen]").value = "-1"; }`)
		click(p.MustElement("#mark-clean"))
		p.MustElement(".asked")
	}},
	{"all that can be opened", "/bench/10?instrument=clarinet&student=4&stage=finger", func(p *rod.Page) {
		p.MustEval(`() => { for (const d of document.querySelectorAll("details")) d.open = true; }`)
	}},
	{"a note large", "/bench/6?instrument=clarinet&stage=finger", func(p *rod.Page) {
		p.MustEval(`() => document.querySelectorAll(".lanes [data-event]")[4].focus()`)
		p.MustElement(".look:not([hidden])")
	}},
	{"the keys", "/bench/6?instrument=clarinet", func(p *rod.Page) {
		click(p.MustElement("[data-keys]"))
		p.MustElement("dialog.keys[open]")
	}},
	{"a drill", "/bench/6?instrument=trombone&line=drill&stage=finger", func(p *rod.Page) {
		click(p.MustElement("#go"))
		p.MustElement(".cursor")
	}},
	{"a history over the Board", "/board", func(p *rod.Page) {
		click(p.MustElement(".board td a"))
		p.MustElement("dialog.history-dialog[open] h2")
	}},
	{"an exercise with a fault", "/exercises/new?way=abc", func(p *rod.Page) {
		p.MustElement("#preview svg")
		p.MustElement("[name=abc]").MustSelectAllText().MustInput("M:4/4\nK:C\nC D E F|G A B c|c4|]")
		p.MustElementR("#preview", "L:1/4 missing")
	}},
	{"a list of many exercises", "/exercises/many", func(p *rod.Page) {
		chooseTunes(p)
		p.MustElementR(".many-list .why", "is not something this reads")
	}},
	{"a list of students before it is kept", "/people", func(p *rod.Page) {
		p.MustElement(".new-class [name=name]").MustInput("Friday")
		p.MustElement(".new-class [name=list]").MustInput("Alma R trombone\nBo kazoo")
		click(p.MustElement(".new-class button"))
		p.MustElementR("h1, h2", "Friday|list|List")
	}},
	{"settings saved", "/settings", func(p *rod.Page) {
		p.MustElement("[name=rests]").MustSelect("the word “rest”")
		click(p.MustElementR("button", "Save the settings"))
		p.MustElementR(".flash", "rests are")
	}},
	{"a fingering taught", "/fingerings/flute#n70", func(p *rod.Page) {
		p.MustElement("article.chosen")
		click(p.MustElementR("article.chosen button", "in both octaves"))
		p.MustElementR(".flash", "Undo")
	}},
	{"keys that sound no note", "/fingerings/flute#n70", func(p *rod.Page) {
		click(p.MustElement(".figure-large [aria-label='left hand, G♯']"))
		p.MustElementR(".chart-found", "Closest")
	}},
	{"planning lessons", "/lessons", func(p *rod.Page) { p.MustElement(".lesson-minutes") }},
	{"the plan of a lesson", "/lessons", func(p *rod.Page) {
		onwards(p, "Suggest a lesson")
		find(p, "button", "Start lesson")
	}},
	{"a lesson that runs", "/lessons", func(p *rod.Page) {
		onwards(p, "Suggest a lesson")
		onwards(p, "Start lesson")
		p.MustElement(".lesson-sheet svg.lanes")
		click(p.MustElements(".name-chip")[1])
		click(p.MustElements(".room:not([hidden]) .room-card")[2])
		p.MustElement(".lesson-sheets[data-lines='2'] svg.lanes")
	}},
	{"a lesson that asks what becomes of an exception", "/lessons", func(p *rod.Page) {
		p.MustNavigate(p.MustElement(".lesson-list .running a").MustProperty("href").Str()).MustWaitLoad()
		p.MustElement(".lesson-sheet svg.lanes")
		click(p.MustElementR("button", "End the lesson"))
		p.MustElement("dialog.pending[open]")
	}},
	{"a lesson that is over", "/lessons", func(p *rod.Page) {
		p.MustNavigate(p.MustElement(".lesson-list .running a").MustProperty("href").Str()).MustWaitLoad()
		p.MustElement(".lesson-sheet svg.lanes")
		click(p.MustElementR("button", "End the lesson")) // an exception is not marked yet, and it asks
		leads(p, p.MustElement("dialog.pending[open] [data-pending=drop]"))
		find(p, "h2", "What was done")
	}},
	{"a check-in", "/check-ins?class=1", func(p *rod.Page) {
		p.MustEval(`(on) => { document.querySelector("[aria-labelledby=set-day] [name=on]").value = on; }`, time.Now().Format(time.DateOnly))
		onwards(p, "^Schedule$")
		onwards(p, "Start check-ins")
		p.MustElement(".due-sheet svg.lanes")
		click(p.MustElement("#clean-0"))
		p.MustElement(".was-clean .due-sheet svg.lanes")
	}},
	{"a led run that goes on", "/bench/7/walk?instrument=trombone&class=1", func(p *rod.Page) {
		click(p.MustElement("[data-walk-begin]"))
		p.MustElement("#walk .engraving svg.lanes")
		p.Keyboard.MustType(input.ArrowRight)
		p.MustElementR("#walk .walk-says", "Clap and count")
		p.MustElement("#walk .cursor")
	}},
	{"a led class", "/bench/7/walk?lead=yes&class=1", func(p *rod.Page) {
		click(p.MustElement("[data-walk-begin]"))
		p.MustElement("#walk .walk-part svg.lanes")
	}},
	{"a plan for home", "/students/1/plan", func(p *rod.Page) {
		onwards(p, "(Make|Update) plan")
		p.MustElement(".home-items li")
	}},
	{"a link to a student's own page", "/students/3/plan", func(p *rod.Page) {
		onwards(p, "Make the link")
		p.MustElement(".own-link .code")
	}},
	{"cards that are turned", "/cards?class=1", func(p *rod.Page) {
		p.MustElement(".class-front svg")
		click(p.MustElement("#class-cards [data-turn]"))
	}},
	{"a student who was heard", "/students/1", func(p *rod.Page) { p.MustElement(".note-staff") }},
	{"a seat that is taken up", "/classes/1/seats", func(p *rod.Page) {
		click(p.MustElement(".seat-name"))
		p.MustElement(".placing .spare")
	}},
	{"what is not there", "/bench/" + missing, func(p *rod.Page) { p.MustElementR("h1", "not found") }},
}

// axe-core finds nothing in what pages become.
func TestAccessibilityInEveryState(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("a long one, for bin/test --all")
	}
	server, script := site(t), axe(t)
	p := page(t, server.URL, 1280)
	signIn(p)
	for _, s := range states {
		p.MustNavigate("about:blank").MustWaitLoad() // so that an address that differs in its hash alone loads
		p.MustNavigate(server.URL + s.path).MustWaitLoad()
		if strings.HasPrefix(s.path, "/bench/6") || strings.HasPrefix(s.path, "/bench/1") {
			p.MustElement("svg.lanes")
		}
		s.reach(p)
		accessible(t, p, script, s.name)
	}
}

// resettles is how long a page takes to lie again in another width; music is drawn again
// after a fifth of a second.
const resettles = 400 * time.Millisecond

// No page is wider than the screen, on phones and tablets, and the words of the Bench's
// buttons are not cut off.
func TestNothingIsCutOff(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("a long one, for bin/test --all")
	}
	p, address := signedIn(t, 390)
	for _, v := range views {
		p.MustNavigate(address + v.path).MustWaitLoad()
		p.MustElement(v.drawn)
		for _, width := range []int{360, 390, 768, 1024} {
			p.MustSetViewport(width, 800, 1, width < 600)
			time.Sleep(resettles)
			over := p.MustEval(`() => document.documentElement.scrollWidth - document.documentElement.clientWidth`).Int()
			if over > 0 {
				t.Errorf("%s is %d pixels wider than a screen of %d", v.name, over, width)
			}
			cut := p.MustEval(`() => [...document.querySelectorAll(".at-once .btn, .bar-top a, .bar-top button, .stages a")]
				.filter((e) => e.scrollWidth > e.clientWidth + 1 || e.scrollHeight > e.clientHeight + 1).map((e) => e.textContent.trim()).join(", ")`).Str()
			if cut != "" {
				t.Errorf("%s at %d pixels: cut off are %s", v.name, width, cut)
			}
		}
	}
}

// No two marks of a lane may touch: a count or fingering under the wrong note
// would be rehearsed.
func TestLanesStandUnderTheirNotes(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("a long one, for bin/test --all")
	}
	server := site(t)
	for _, width := range []int{1280, 390} {
		p := page(t, server.URL, width)
		signIn(p)
		for _, path := range []string{"/bench/6?instrument=trombone", "/bench/10?instrument=violin", "/bench/11?instrument=trumpet", "/bench/5?instrument=clarinet", "/bench/12?instrument=snare", "/bench/6?instrument=flute", "/bench/10?instrument=alto-sax", "/bench/6?instrument=bass", "/bench/13?instrument=snare", "/bench/6?instrument=timpani", "/bench/6?instrument=bells", "/bench/7?instrument=bassoon"} {
			bench(p, server.URL+path)
			found := p.MustEval(`() => {
				const bad = [];
				for (const selector of [".n", ".f", ".c-struck"]) {
					const boxes = [...document.querySelectorAll(".lanes " + selector)].map((e) => ({ text: e.textContent, r: e.getBoundingClientRect() }));
					for (let i = 1; i < boxes.length; i++) {
						const [a, b] = [boxes[i - 1], boxes[i]];
						if (Math.abs(a.r.top - b.r.top) < 4 && a.r.right > b.r.left + 1 && a.r.left < b.r.right) bad.push(selector + " " + a.text + " touches " + b.text);
					}
				}
				return bad.join(", ");
			}`).Str()
			if found != "" {
				t.Errorf("%s at %d pixels: %s", path, width, found)
			}
			if over := p.MustEval(`() => {
				const systems = [...document.querySelectorAll("g.system")].map((system) =>
					Math.min(...[...system.querySelectorAll("g.staff[data-n='1'] > path")].map((line) => line.getBoundingClientRect().top)));
				const lanes = [...document.querySelectorAll("svg.lanes > g")].map((g) =>
					Math.max(...[...g.querySelectorAll("text, circle")].map((mark) => mark.getBoundingClientRect().bottom)));
				return Math.max(-99, ...systems.slice(1).map((top, k) => lanes[k] - top));
			}`).Num(); over > 0 {
				t.Errorf("%s at %d pixels: a lane reaches %.0f pixels into the next staff", path, width, over)
			}
		}
	}
}
