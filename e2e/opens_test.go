package e2e

import (
	"context"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/go-rod/rod"

	"unhurriedbench/core/format"
	"unhurriedbench/demo"
	"unhurriedbench/internal/testdb"
	"unhurriedbench/store"
)

// material adds every file of the readers' tests to the demo teacher's book, each part
// of a score of several for itself, and lists the exercises there are.
func material(t *testing.T, s *store.Store) []store.ExerciseID {
	t.Helper()
	ctx := context.Background()
	if err := demo.Load(ctx, s); err != nil {
		t.Fatal(err)
	}
	teacher, err := s.DemoTeacher(ctx)
	if err != nil {
		t.Fatal(err)
	}
	var files []string
	for _, pattern := range []string{"abc/testdata/*.abc", "abc/testdata/by-hand/*.abc", "musicxml/testdata/*.musicxml"} {
		found, err := filepath.Glob("../core/format/" + pattern)
		if err != nil || len(found) < 5 {
			t.Fatalf("%s: %d files, %v", pattern, len(found), err)
		}
		files = append(files, found...)
	}
	number := 100
	for _, name := range files {
		data, err := os.ReadFile(name)
		if err != nil {
			t.Fatal(err)
		}
		f, err := format.Read(context.Background(), name, data)
		if err != nil {
			t.Fatal(err)
		}
		for part := range f.Score.Parts {
			number++
			_, err := s.For(teacher.ID).
				AddExercise(ctx, store.Exercise{Book: "Readers' files", Number: number, Title: filepath.Base(name), Part: part},
					store.Source{Format: f.Kind, Content: f.Text})
			if err != nil {
				t.Fatal(err)
			}
		}
	}
	list, err := s.For(teacher.ID).Exercises(ctx)
	if err != nil {
		t.Fatal(err)
	}
	var ids []store.ExerciseID
	for _, x := range list {
		ids = append(ids, x.ID)
	}
	return ids
}

// show puts another bench in place of the one on the page, as a tab of it does, and
// waits until its lanes are drawn.
func show(p *rod.Page, address string) error {
	p.MustEval(`(address) => htmx.ajax("GET", address, { target: "#bench", swap: "outerHTML" })`, address)
	return p.Wait(rod.Eval(`() => document.querySelector("#bench svg.lanes") && document.querySelector(".sheet-note").hidden`))
}

// Every exercise there is opens on the Bench with its lanes, for a woodwind, a brass
// instrument, a string and a drum; nothing is said in the console (page fails on
// that), no ruler is in sight and no page is endless.
func TestEverythingOpens(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("a long one, for bin/test --all")
	}
	s := testdb.Open(t)
	ids := material(t, s)
	server := serve(t, s)
	p := page(t, server.URL, 1280)
	signIn(p)
	bench(p, server.URL+"/bench/1?instrument=clarinet")
	for _, id := range ids {
		for _, instrument := range []string{"clarinet", "trombone", "violin", "snare"} {
			address := fmt.Sprintf("/bench/%d?instrument=%s", id, instrument)
			if err := show(p, address); err != nil {
				t.Fatalf("%s: its lanes are not drawn: %v", address, err)
			}
			wrong := p.MustEval(`() => {
				const rulers = [...document.querySelectorAll("#bench g.staff[data-n='2']")].filter((g) => g.style.visibility !== "hidden").length;
				const note = document.querySelector(".sheet-note").textContent;
				return (rulers ? rulers + " rulers in sight " : "") + (document.querySelector("#bench .engraving").offsetHeight > 8000 ? "endless " : "") +
					(/could not/.test(note) ? note : "");
			}`).Str()
			if wrong != "" {
				t.Errorf("%s: %s", address, wrong)
			}
		}
	}
}

// Back after changing the instrument shows one instrument, staff and lanes alike.
func TestBackAfterAnotherInstrument(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	bench(p, address+"/bench/6?instrument=violin")
	first := lanesOf(p)
	click(p.MustElementR(".instruments a", "Trombone"))
	until(t, p, "the trombone's lane is drawn", `() => [...document.querySelectorAll(".lane-name")].some((e) => e.textContent === "Slide")`)
	if lanesOf(p) == first {
		t.Fatal("the trombone's part is the violin's")
	}
	p.MustEval(`() => history.back()`)
	until(
		t,
		p,
		"the violin is back",
		`() => document.querySelector(".instruments a[aria-current]")?.textContent.includes("Violin") && document.querySelector("svg.lanes")`,
	)
	p.MustWaitLoad()
	p.MustElement("svg.lanes")
	if got := lanesOf(p); got != first {
		t.Errorf("after Back the page shows\n%s, want\n%s", got, first)
	}
}

// lanesOf is what stands on the staff and in the lanes: the clef, names and fingerings.
func lanesOf(p *rod.Page) string {
	return p.MustEval(`() => document.querySelector(".sheet-data").textContent.match(/clef.shape=\\?"(\w)/)?.[1] + " " +
		[...document.querySelectorAll(".lanes .lane-name, .lanes .n, .lanes .f")].map((e) => e.textContent).join(" ")`).Str()
}

// An alternate is underlined; its panel tells the usual way, and one press puts it
// back wherever the note comes.
func TestTheUsualFingeringIsRestored(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	bench(p, address+"/bench/6?instrument=oboe&stage=finger")
	before := len(p.MustElements(".f-alternate"))
	if before < 2 {
		t.Fatalf("%d forked Fs are underlined", before)
	}
	p.MustEval(`() => document.querySelectorAll(".lanes .touch")[2].dispatchEvent(new MouseEvent("click", { bubbles: true }))`)
	p.MustElementR(".look .why", "Not the usual way")
	p.MustElementR(".look .usual-way", "Usual: .*F key")
	click(p.MustElementR(".look button", "only here"))
	until(
		t,
		p,
		"one F is the usual one",
		fmt.Sprintf(`() => document.querySelector("#bench svg.lanes") && document.querySelectorAll(".f-alternate").length === %d`, before-1),
	)
	p.MustEval(`() => document.querySelectorAll(".lanes .touch")[3].dispatchEvent(new MouseEvent("click", { bubbles: true }))`)
	click(p.MustElementR(".look button", "Use the usual one"))
	until(t, p, "every F is the usual one", `() => document.querySelector("#bench svg.lanes") && !document.querySelector(".f-alternate")`)
	if stage := p.MustElement(".stages [aria-current]").MustText(); !strings.Contains(stage, "Finger") {
		t.Errorf("after the choice the stage is %s", stage)
	}
}

// The music of another page is drawn beside the Bench's: each keeps its own lanes, and
// no id is given twice.
func TestTwoSheetsOnOnePage(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	bench(p, address+"/bench/6?instrument=trombone")
	first := func() string {
		return p.MustEval(`() => [...document.querySelectorAll(".engraving:not(.second) .lanes .f")].map((e) => e.textContent).join(" ")`).Str()
	}
	before := first()
	p.MustEval(withModules(t, `async () => {
		const other = new DOMParser().parseFromString(await (await fetch("/fingerings/trombone")).text(), "text/html");
		const data = JSON.parse(other.querySelector(".sheet-data").textContent);
		const host = document.createElement("div");
		host.className = "engraving second";
		document.querySelector(".sheet").append(host);
		await $engrave.draw(host.appendChild(document.createElement("div")), data.mei, { scale: 40 });
		$lanes.draw(host, data, { shown: { name: true, finger: true }, chunk: { whole: true } });
	}`))
	if got := p.MustEval(`() => document.querySelectorAll(".second svg.lanes .f-ring").length`).Int(); got < 30 {
		t.Errorf("the second sheet has %d fingerings", got)
	}
	if after := first(); after != before || after == "" {
		t.Errorf("the first sheet was %q, and is %q", before, after)
	}
	twice := p.MustEval(`() => {
		const ids = [...document.querySelectorAll("g.note[id], g.measure[id], g.chord[id], g.rest[id]")].map((e) => e.id);
		return ids.filter((id, k) => ids.indexOf(id) !== k).slice(0, 5).join(" ");
	}`).Str()
	if twice != "" {
		t.Errorf("ids are given twice: %s", twice)
	}
}
