package e2e

import (
	"testing"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/proto"
)

// slowLine is a line of 1.6 Mbit/s where an answer takes 150 ms to come back.
var slowLine = proto.NetworkEmulateNetworkConditions{Latency: 150, DownloadThroughput: 200_000, UploadThroughput: 93_750}

// BenchmarkBenchOnASlowLine opens a Bench with nothing kept by the browser, and again with
// everything kept. It reports in seconds when the Bench can be used and when its music
// stands, and the bytes that came over the line.
func BenchmarkBenchOnASlowLine(b *testing.B) {
	for b.Loop() {
		p, address := signedIn(b, 1280)
		if err := (proto.NetworkEnable{}).Call(p); err != nil {
			b.Fatal(err)
		}
		if err := slowLine.Call(p); err != nil {
			b.Fatal(err)
		}
		if err := (proto.NetworkClearBrowserCache{}).Call(p); err != nil {
			b.Fatal(err)
		}
		report(b, p, address+"/bench/6?instrument=clarinet", "cold")
		report(b, p, address+"/bench/6?instrument=trombone", "warm")
	}
}

// saveFrom has the browser fetch nothing whose address has words in it.
func saveFrom(t *testing.T, p *rod.Page, words ...string) {
	t.Helper()
	if err := (proto.NetworkEnable{}).Call(p); err != nil {
		t.Fatal(err)
	}
	if err := (proto.NetworkSetBlockedURLs{Urls: append([]string{}, words...)}).Call(p); err != nil {
		t.Fatal(err)
	}
}

// Without the recorded notes the Bench says what is missing and counts off all the same;
// when they are there again, the same button plays.
func TestWithoutTheRecordedNotes(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("a long one, for bin/test --all")
	}
	p, address := signedIn(t, 1280)
	saveFrom(t, p, "*.flac*")
	bench(p, address+"/bench/6?instrument=clarinet")
	click(p.MustElement("#hear"))
	p.MustElementR(".advice", "recorded notes could not be fetched.*count-off works without them")
	p.MustElementR("#hear", "Hear it")
	click(p.MustElement("#go"))
	until(t, p, "the cursor moves", `() => document.querySelector(".cursor")`)
	click(p.MustElement("#go"))
	saveFrom(t, p)
	click(p.MustElement("#hear"))
	until(t, p, "the cursor moves", `() => document.querySelector(".cursor")`)
}

// Without the engraver the table stands in for the music, whichever of its files is missing.
func TestWithoutTheEngraver(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	for _, file := range []string{"*verovio*.wasm*", "*verovio*.js*"} {
		saveFrom(t, p, file)
		p.MustNavigate(address + "/bench/6?instrument=clarinet").MustWaitLoad()
		p.MustElementR(".sheet-note", "could not be drawn.*The table below has everything")
		if !p.MustHas("details.as-table[open]") {
			t.Errorf("without %s the table is closed", file)
		}
	}
}

func report(b *testing.B, p *rod.Page, address, state string) {
	b.Helper()
	bench(p, address)
	times := p.MustEval(`() => {
		const page = performance.getEntriesByType("navigation")[0];
		const files = performance.getEntriesByType("resource");
		return [page.domContentLoadedEventEnd, performance.getEntriesByName("bench:drawn")[0].startTime,
			files.reduce((sum, file) => sum + file.transferSize, page.transferSize)];
	}`).Arr()
	b.ReportMetric(times[0].Num()/1000, state+"-usable-s")
	b.ReportMetric(times[1].Num()/1000, state+"-music-s")
	b.ReportMetric(times[2].Num(), state+"-bytes")
}
