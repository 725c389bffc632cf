package e2e

import (
	"compress/gzip"
	"io"
	"os"
	"testing"
)

// views are the screens a signed-in teacher has, with an element that is there
// once they are drawn.
var views = []struct{ name, path, drawn string }{
	{"Shelf", "/", ".exercise"},
	{"entry", "/exercises/new", "#preview svg"},
	{"Bench", "/bench/6?instrument=trombone&student=1", "svg.lanes"},
	{"Bench for clarinet", "/bench/10?instrument=clarinet", "svg.lanes"},
	{"Board", "/board", ".board td"},
	{"history", "/students/1", ".tries"},
	{"People", "/people", ".people li"},
	{"Settings", "/settings", ".settings"},
	{"Parts", "/exercises/6/parts", ".fields"},
	{"Same or different", "/compare?a=6&a-from=1&a-to=2&b=11&b-from=1&b-to=2", ".ruler-table"},
	{"Fingering chart", "/fingerings/flute", ".in-chart"},
	{"Fingering chart for strings", "/fingerings/violin", ".in-chart"},
	{"Fingering chart for a drum", "/fingerings/snare", ".empty-screen"},
	{"Bench for bassoon", "/bench/6?instrument=bassoon", "svg.lanes"},
	{"Drill", "/bench/6?instrument=trombone&drill=yes&stage=finger", "svg.lanes"},
}

// Outside check: axe-core finds no breach of WCAG A and AA.
func TestAccessibility(t *testing.T) {
	packed, err := os.Open("axe.min.js.gz")
	if err != nil {
		t.Fatal(err)
	}
	defer packed.Close()
	plain, err := gzip.NewReader(packed)
	if err != nil {
		t.Fatal(err)
	}
	axe, err := io.ReadAll(plain)
	if err != nil {
		t.Fatal(err)
	}
	server := site(t)
	p := page(t, server.URL, 1280)
	check := func(name string) {
		p.MustEval("() => { " + string(axe) + " }")
		found := p.MustEval(`async () => {
			const result = await axe.run(document, { runOnly: ["wcag2a", "wcag2aa", "wcag21aa", "wcag22aa"] });
			return result.violations.map((v) => v.id + ": " + v.nodes.map((n) => n.html + " " + n.failureSummary).slice(0, 4).join("; ")).join("\n");
		}`).Str()
		if found != "" {
			t.Errorf("%s:\n%s", name, found)
		}
	}
	check("sign-in")
	signIn(p)
	for _, v := range views {
		p.MustNavigate(server.URL + v.path).MustWaitLoad()
		p.MustElement(v.drawn)
		check(v.name)
	}
}

func TestNothingIsCutOffOnAPhone(t *testing.T) {
	p, address := signedIn(t, 390)
	for _, v := range views {
		p.MustNavigate(address + v.path).MustWaitLoad()
		p.MustElement(v.drawn)
		over := p.MustEval(`() => document.documentElement.scrollWidth - document.documentElement.clientWidth`).Int()
		if over > 0 {
			t.Errorf("%s is %d pixels wider than the screen", v.name, over)
		}
	}
}

// No two marks of a lane may touch: a count or fingering under the wrong note
// would be rehearsed.
func TestLanesStandUnderTheirNotes(t *testing.T) {
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
