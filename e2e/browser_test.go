// Package e2e drives the real interface in Chromium.
package e2e

import (
	"context"
	"errors"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"os"
	"os/exec"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/cdp"
	"github.com/go-rod/rod/lib/launcher"
	"github.com/go-rod/rod/lib/proto"

	"unhurriedbench/demo"
	"unhurriedbench/internal/testdb"
	"unhurriedbench/store"
	"unhurriedbench/web"
)

// patience bounds the whole visit to a page, on a slow and busy machine.
const patience = 6 * time.Minute

// missing is in the address of what no site has.
const missing = "999999"

// demoTemplate is a database with the demo, loaded once.
var demoTemplate = sync.OnceValues(func() (testdb.Template, error) {
	return testdb.NewTemplate(func(s *store.Store) error { return demo.Load(context.Background(), s) })
})

// TestMain takes the template away at the end.
func TestMain(m *testing.M) {
	code := m.Run()
	if template, err := demoTemplate(); err == nil {
		_ = template.Drop() // with the server's folder, if not here
	}
	os.Exit(code)
}

// site serves the demo on a database of its own.
func site(t testing.TB) *httptest.Server {
	t.Helper()
	template, err := demoTemplate()
	if err != nil {
		t.Fatal(err)
	}
	return serve(t, template.Open(t))
}

// serve runs the program on a store.
func serve(t testing.TB, s *store.Store) *httptest.Server {
	t.Helper()
	server, err := web.New(s, slog.New(slog.NewTextHandler(io.Discard, nil)))
	if err != nil {
		t.Fatal(err)
	}
	return run(t, server.Routes())
}

// run serves a handler.
func run(t testing.TB, h http.Handler) *httptest.Server {
	t.Helper()
	running := httptest.NewServer(h)
	t.Cleanup(running.Close)
	return running
}

// page opens a fresh browser on an address of the site. Anything the page logs
// as an error fails the test.
func page(t testing.TB, address string, width int) *rod.Page {
	t.Helper()
	program, err := exec.LookPath("chromium")
	if err != nil {
		t.Fatal("this test needs Chromium: run bin/test, which installs it")
	}
	l := launcher.New().Bin(program).Leakless(false).NoSandbox(true).
		Set("disable-gpu").Set("disable-quic").Set("no-first-run").Set("disable-background-networking").
		Set("disable-component-update").Set("disable-sync").Set("autoplay-policy", "no-user-gesture-required")
	control, err := l.Launch()
	if err != nil {
		t.Fatalf("start Chromium: %v", err)
	}
	browser := rod.New().ControlURL(control)
	if err := browser.Connect(); err != nil {
		t.Fatalf("reach Chromium: %v", err)
	}
	t.Cleanup(func() {
		if err := browser.Close(); err != nil {
			t.Log(err)
		}
		l.Cleanup()
	})
	p := browser.MustPage()
	watch(t, p)
	p = p.Timeout(patience)
	p.MustSetViewport(width, 800, 1, width < 600)
	p.MustNavigate(address).MustWaitLoad()
	return p
}

// watch collects what goes wrong in the page.
func watch(t testing.TB, p *rod.Page) {
	t.Helper()
	var mu sync.Mutex
	var wrong []string
	add := func(text string) {
		mu.Lock()
		defer mu.Unlock()
		wrong = append(wrong, text)
	}
	go p.EachEvent(func(e *proto.RuntimeExceptionThrown) {
		add(e.ExceptionDetails.Text + " " + e.ExceptionDetails.Exception.Description)
	}, func(e *proto.RuntimeConsoleAPICalled) {
		for _, a := range e.Args {
			if text := a.Value.Str(); strings.Contains(text, "[Error]") { // the engraver's complaints
				add(text)
			}
		}
	}, func(e *proto.LogEntryAdded) {
		refused := strings.Contains(e.Entry.Text, "status of 422") || // a form that came back
			strings.Contains(e.Entry.Text, "status of 401") && strings.Contains(e.Entry.URL, "/my/") || // a PIN is asked for
			strings.Contains(e.Entry.Text, "status of 404") && strings.Contains(e.Entry.URL, "/my/") || // a link that was ended
			strings.Contains(e.Entry.URL, missing)
		kept := strings.Contains(e.Entry.Text, "ERR_BLOCKED_BY_CLIENT") || // what a test keeps from the page
			strings.Contains(e.Entry.Text, "ERR_INTERNET_DISCONNECTED") ||
			strings.Contains(e.Entry.Text, "ERR_EMPTY_RESPONSE") // of a server that is away
		if e.Entry.Level == proto.LogLogEntryLevelError && !refused && !kept {
			add(e.Entry.Text + " " + e.Entry.URL)
		}
	})()
	if err := (proto.LogEnable{}).Call(p); err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() {
		mu.Lock()
		defer mu.Unlock()
		if len(wrong) > 0 {
			t.Errorf("the page reports:\n%s", strings.Join(wrong, "\n"))
		}
	})
}

// signIn enters as the demo teacher.
func signIn(p *rod.Page) {
	wait := p.MustWaitNavigation()
	click(p.MustElement(".demo-door button"))
	wait()
	p.MustElementR("h1", "Shelf")
}

// signedIn opens a fresh browser of a width on the Shelf of a demo of its own, and gives
// the site's address.
func signedIn(t testing.TB, width int) (*rod.Page, string) {
	t.Helper()
	server := site(t)
	p := page(t, server.URL, width)
	signIn(p)
	return p, server.URL
}

// settled is how long what is pressed has to lie still before: a press on what moves, as a page
// still takes its shape, goes astray.
const settled = 100 * time.Millisecond

// click presses an element once it lies still.
func click(e *rod.Element) {
	if err := e.WaitStable(settled); err != nil {
		panic(err) // as rod's own Must does
	}
	e.MustClick()
}

// tapOn is click for a finger.
func tapOn(e *rod.Element) {
	if err := e.WaitStable(settled); err != nil {
		panic(err)
	}
	e.MustTap()
}

// bench opens an address and waits until its lanes are drawn.
func bench(p *rod.Page, address string) {
	p.MustNavigate(address).MustWaitLoad()
	p.MustElement("svg.lanes")
}

// find waits for an element with some words, "" for any, also while the page gives way to the next one.
func find(p *rod.Page, selector, words string) *rod.Element {
	if words == "" {
		words = "^" // any
	}
	for {
		element, err := p.ElementR(selector, words)
		var gone *cdp.Error
		switch {
		case err == nil:
			return element
		case !errors.As(err, &gone) || !strings.Contains(gone.Message, "navigated or closed"):
			panic(err) // as rod's own Must does
		}
	}
}

// until waits until a function of the page gives something, and fails with what
// was waited for.
func until(t testing.TB, p *rod.Page, what, js string) {
	t.Helper()
	if err := p.Wait(rod.Eval("() => Boolean((" + js + ")())")); err != nil {
		t.Fatalf("%s: %v", what, err)
	}
}
