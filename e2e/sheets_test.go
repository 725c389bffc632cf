package e2e

import (
	"fmt"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/proto"
)

// paperSize is in inches.
type paperSize struct {
	name          string
	width, height float64
}

// printed prints the page at hand and reads it with poppler: the words of each page with
// their boxes.
func printed(t *testing.T, p *rod.Page, size paperSize) []string {
	t.Helper()
	margin := 0.5
	stream, err := p.PDF(&proto.PagePrintToPDF{PaperWidth: &size.width, PaperHeight: &size.height, MarginTop: &margin, MarginBottom: &margin, MarginLeft: &margin, MarginRight: &margin})
	if err != nil {
		t.Fatal(err)
	}
	data, err := io.ReadAll(stream)
	if err != nil {
		t.Fatal(err)
	}
	path := filepath.Join(t.TempDir(), "sheets.pdf")
	if err := os.WriteFile(path, data, 0o600); err != nil {
		t.Fatal(err)
	}
	out, err := exec.Command("pdftotext", "-bbox", path, "-").Output()
	if err != nil {
		t.Fatalf("pdftotext: %v", err)
	}
	return strings.Split(string(out), "<page ")[1:]
}

var wordBox = regexp.MustCompile(`<word xMin="([\d.-]+)" yMin="([\d.-]+)" xMax="([\d.-]+)" yMax="([\d.-]+)">([^<]*)</word>`)

// The sheets of a class come out in one print, a page each on Letter and on A4, with nothing
// outside the page.
func TestPrintingSheetsOfAClass(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	bench(p, address+"/bench/6?instrument=trombone") // the link stands under the music and moves until it is drawn
	click(p.MustElementR(".under-sheet a", "Print sheets"))
	until(t, p, "the sheets are drawn", `() => performance.getEntriesByName("sheets:drawn").length > 0`)
	var players []string
	for _, e := range p.MustElements(".print-sheet h2 small") {
		players = append(players, e.MustEval(`() => this.textContent.split(" · ")[0]`).Str())
	}
	if want := "[Clarinet Trumpet Trombone Violin Cello Snare drum]"; fmt.Sprint(players) != want {
		t.Errorf("there are sheets for %v, want %s", players, want)
	}
	for _, size := range []paperSize{{"Letter", 8.5, 11}, {"A4", 8.27, 11.69}} {
		pages := printed(t, p, size)
		if len(pages) != len(players) {
			t.Fatalf("%s: %d pages for %d sheets", size.name, len(pages), len(players))
		}
		for n, page := range pages {
			var words []string
			for _, w := range wordBox.FindAllStringSubmatch(page, -1) {
				words = append(words, w[5])
				right, _ := strconv.ParseFloat(w[3], 64) // the pattern has numbers alone
				bottom, _ := strconv.ParseFloat(w[4], 64)
				if right > 72*size.width || bottom > 72*size.height {
					t.Errorf("%s, page %d: %q ends at %s, %s", size.name, n+1, w[5], w[3], w[4])
				}
			}
			text := strings.Join(words, " ")
			for _, want := range []string{"Ferry Landing", players[n], "Count", "Chunk", "Tempo", "Date"} {
				if !strings.Contains(text, want) {
					t.Errorf("%s, page %d lacks %q: %s", size.name, n+1, want, text)
				}
			}
			if strings.Contains(text, "Shelf") || strings.Contains(text, "To the Bench") {
				t.Errorf("%s, page %d prints the screen: %s", size.name, n+1, text)
			}
		}
	}
	// To be counted and named, with the answers after it.
	p.MustNavigate(address + "/bench/6/sheets?class=1&instrument=violin&for=one&recipe=all").MustWaitLoad()
	until(t, p, "two sheets are drawn", `() => performance.getEntriesByName("sheets:drawn").length > 0`)
	counts := p.MustEval(`() => [...document.querySelectorAll(".print-sheet")].map((s) => s.querySelectorAll(".blank").length + " " + s.querySelectorAll(".n").length + " " + s.querySelectorAll(".c-struck").length + " " + s.querySelectorAll(".mark-trap").length).join(", ")`).Str()
	if counts != "60 0 0 0, 0 25 25 1" {
		t.Errorf("lines, names, counts and marks of the two sheets: %s", counts)
	}
}

// sheetsDrawn opens sheets of exercise 6 and waits until all are drawn.
func sheetsDrawn(t testing.TB, p *rod.Page, address, ask string) {
	t.Helper()
	p.MustNavigate(address + "/bench/6/sheets?class=1&" + ask).MustWaitLoad()
	until(t, p, "the sheets are drawn", `() => performance.getEntriesByName("sheets:drawn").length > 0`)
}

// Cards come as fronts and their backs, each behind its front when the sheet is turned; a line
// under the exercise stays on its page or has one of its own, with no system left alone.
func TestPrintingCardsAndLines(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	sheetsDrawn(t, p, address, "recipe=cards&for=one&instrument=clarinet")
	fronts := p.MustEval(`() => [...document.querySelectorAll(".fronts .note-card")].map((c) => c.querySelectorAll(".note").length).join("")`).Str()
	backs := p.MustEval(`() => [...document.querySelectorAll(".backs .note-card b")].map((b) => b.textContent).join(" ")`).Str()
	if fronts != "111111100" || backs != "E D C G F sharp F A" {
		t.Errorf("fronts %s, backs %s", fronts, backs)
	}
	for _, size := range []paperSize{{"Letter", 8.5, 11}, {"A4", 8.27, 11.69}} {
		pages := printed(t, p, size)
		if len(pages) != 2 || !strings.Contains(pages[1], ">sharp<") || strings.Contains(pages[0], ">sharp<") {
			t.Errorf("%s: cards on %d pages", size.name, len(pages))
		}
	}
	for ask, want := range map[string]int{
		"recipe=set&count=filled&names=filled&fingers=none&beside=one-note&for=one&instrument=trumpet":             1,
		"recipe=set&count=filled&names=filled&fingers=filled&beside=even-walk&boxes=yes&for=one&instrument=violin": 2,
		"recipe=set&count=empty&names=none&fingers=none&beside=one-note&answers=yes&for=one&instrument=trombone":   2,
		"line=alone&of=4-5&for=one&instrument=trumpet":                                                             1,
	} {
		sheetsDrawn(t, p, address, ask)
		pages := printed(t, p, paperSize{"Letter", 8.5, 11})
		if len(pages) != want {
			t.Errorf("%s: %d pages, want %d", ask, len(pages), want)
		}
	}
}

// Benchmark31Sheets draws and prints the sheets of all 31 instruments; it reports seconds.
func Benchmark31Sheets(b *testing.B) {
	p, address := signedIn(b, 1280)
	for b.Loop() {
		sheetsDrawn(b, p, address, "for=all")
		if _, err := p.PDF(&proto.PagePrintToPDF{}); err != nil {
			b.Fatal(err)
		}
	}
	b.ReportMetric(b.Elapsed().Seconds()/float64(b.N), "s/31-sheets")
}
