// Package e2e drives the real interface in Chromium.
package e2e

import (
	"context"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"os"
	"os/exec"
	"regexp"
	"runtime/debug"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/cdp"
	"github.com/go-rod/rod/lib/launcher"
	"github.com/go-rod/rod/lib/proto"
	"github.com/go-rod/rod/lib/utils"

	"unhurriedbench/demo"
	"unhurriedbench/internal/testdb"
	"unhurriedbench/internal/testsite"
	"unhurriedbench/store"
	"unhurriedbench/web"
)

// patience is how long a page is waited for to become what a test wants of it: on a slow and
// busy machine, counted from the start each time. Nothing waits for as long that comes.
const patience = time.Minute

// waits makes each wait of a page end with patience.
func waits() utils.Sleeper {
	end, pause := time.Now().Add(patience), rod.DefaultSleeper()
	return func(ctx context.Context) error {
		if time.Now().After(end) {
			return fmt.Errorf("it has not come in %s", patience)
		}
		return pause(ctx)
	}
}

// tested says which test a page belongs to, by its target.
var tested sync.Map

// failing has what goes wrong in a page fail its test alone: rod's own Must methods panic,
// which would take all other tests along.
func failing(t testing.TB, p *rod.Page) *rod.Page {
	tested.Store(p.TargetID, t)
	if err := (proto.EmulationSetFocusEmulationEnabled{Enabled: true}).Call(p); err != nil { // other tests have windows too
		t.Fatalf("have the page in front: %v", err)
	}
	t.Cleanup(func() { tested.Delete(p.TargetID) })
	return p.Sleeper(waits).WithPanic(func(problem any) { stop(p, problem) })
}

// stop ends the test of a page.
func stop(p *rod.Page, problem any) {
	if t, known := tested.Load(p.TargetID); known {
		where := ""
		if info, err := p.Info(); err == nil {
			where = info.URL
		}
		t.(testing.TB).Fatalf("%v, at %s\n%s", problem, where, debug.Stack())
	}
	panic(problem)
}

// missing is in the address of what no site has.
const missing = "999999"

// demoTemplate is a database with the demo, loaded once.
var demoTemplate = sync.OnceValues(func() (testdb.Template, error) {
	return testdb.NewTemplate(func(s *store.Store) error { return demo.Load(context.Background(), s) })
})

// TestMain takes the template away at the end.
func TestMain(m *testing.M) {
	code := m.Run()
	endChromium()
	if template, err := demoTemplate(); err == nil {
		_ = template.Delete() // with the server's folder, if not here
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

// shared is the Chromium of all tests; another one takes its place when it is gone.
var shared struct {
	sync.Mutex
	browser *rod.Browser
	started *launcher.Launcher
}

// chromium is a Chromium that answers.
func chromium() (*rod.Browser, error) {
	shared.Lock()
	defer shared.Unlock()
	if shared.browser != nil {
		if _, err := shared.browser.Version(); err == nil {
			return shared.browser, nil
		}
		shared.started.Cleanup()
	}
	program, err := exec.LookPath("chromium")
	if err != nil {
		return nil, errors.New("this test needs Chromium: run bin/test, which installs it")
	}
	l := launcher.New().Bin(program).Leakless(false).NoSandbox(true).
		Set("disable-gpu").Set("disable-quic").Set("no-first-run").Set("disable-background-networking").
		Set("disable-component-update").Set("disable-sync").Set("autoplay-policy", "no-user-gesture-required").
		Set("disable-background-timer-throttling").Set("disable-backgrounding-occluded-windows").Set("disable-renderer-backgrounding")
	control, err := l.Launch()
	if err != nil {
		return nil, fmt.Errorf("start Chromium: %w", err)
	}
	browser := rod.New().ControlURL(control)
	if err := browser.Connect(); err != nil {
		return nil, fmt.Errorf("reach Chromium: %w", err)
	}
	shared.browser, shared.started = browser, l
	return browser, nil
}

// endChromium ends the Chromium of the tests, if there was one.
func endChromium() {
	shared.Lock()
	defer shared.Unlock()
	if shared.browser != nil {
		_ = shared.browser.Close() // it may have gone before
		shared.started.Cleanup()
	}
}

// page opens an address of the site as somebody who was never there: nothing that another
// test kept is in the browser. Anything the page logs as an error fails the test.
func page(t testing.TB, address string, width int) *rod.Page {
	t.Helper()
	browser, err := chromium()
	if err != nil {
		t.Fatal(err)
	}
	somebody, err := browser.Incognito()
	if err != nil {
		t.Fatalf("open a window of its own: %v", err)
	}
	t.Cleanup(func() {
		if err := (proto.TargetDisposeBrowserContext{BrowserContextID: somebody.BrowserContextID}).Call(browser); err != nil {
			t.Log(err)
		}
	})
	opened, err := somebody.Page(proto.TargetCreateTarget{})
	if err != nil {
		t.Fatalf("open a page: %v", err)
	}
	p := failing(t, opened)
	watch(t, p)
	p.MustEvalOnNewDocument(leaves)
	p.MustSetViewport(width, 800, 1, width < 600)
	p.MustNavigate(address).MustWaitLoad()
	return p
}

// leaves has a page left without the browser's own question, which can keep it from answering
// for ever; what would have asked is written down.
const leaves = `(() => {
	const refuse = Event.prototype.preventDefault;
	Event.prototype.preventDefault = function () {
		if (this.type === "beforeunload") window.asksToLeave = true;
		else refuse.call(this);
	};
})()`

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
	}, func(*proto.PageJavascriptDialogOpening) { // a page that is left with typed text asks
		_ = proto.PageHandleJavaScriptDialog{Accept: true}.Call(p)
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
	leads(p, p.MustElement(".demo-door button"))
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

// click presses an element once it lies still, and again where it moved away from under the
// press or out of the window.
func click(e *rod.Element) {
	const tries = 5
	for try := 1; ; try++ {
		if err := e.WaitStable(settled); err != nil {
			stop(e.Page(), err)
		}
		_, _ = e.Eval(`() => { this.pressed = false; this.addEventListener("click", () => { this.pressed = true; }, { once: true, capture: true }); }`)
		err := e.Click(proto.InputMouseButtonLeft, 1)
		var away *rod.InvisibleShapeError
		switch {
		case err != nil && (try == tries || !errors.As(err, &away)):
			stop(e.Page(), err)
		case err != nil:
			continue
		case try == tries:
			return
		}
		pressed, err := e.Eval(`() => this.pressed`)
		if err != nil || pressed.Value.Bool() { // with an error the page is another
			return
		}
	}
}

// tapOn is click for a finger.
func tapOn(e *rod.Element) {
	if err := e.WaitStable(settled); err != nil {
		stop(e.Page(), err)
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
		switch {
		case err == nil:
			return element
		case !givesWay(err):
			stop(p, err)
		}
	}
}

// givesWay says whether a page was asked while it gave way to the next.
func givesWay(err error) bool {
	var gone *cdp.Error
	return errors.As(err, &gone) && (strings.Contains(gone.Message, "navigated or closed") || strings.Contains(gone.Message, "context"))
}

// until waits until a function of the page gives something, and fails with what
// was waited for.
func until(t testing.TB, p *rod.Page, what, js string) {
	t.Helper()
	if err := p.Wait(rod.Eval("async () => Boolean(await (" + js + ")())").ByPromise()); err != nil {
		t.Fatalf("%s: %v", what, err)
	}
}

// leads presses what leads to another page, and waits until that is there.
func leads(p *rod.Page, e *rod.Element) {
	p.MustEval(`() => { window.before = true; }`)
	click(e)
	arrived(p)
}

// arrived waits for the page that comes after one that was marked as before.
func arrived(p *rod.Page) {
	for end := time.Now().Add(patience); ; {
		err := p.Wait(rod.Eval(`() => !window.before && document.readyState === "complete"`))
		if err == nil {
			return
		}
		if !givesWay(err) || time.Now().After(end) {
			stop(p, err)
		}
	}
}

// withModules lets a script for a page, an async function with a block, call the modules of the
// program by their names, as $lanes.
func withModules(t *testing.T, script string) string {
	t.Helper()
	head, body, block := strings.Cut(script, "{")
	if !block || !strings.HasSuffix(strings.TrimSpace(head), "=>") {
		t.Fatalf("%s is no function with a block", script)
	}
	var imports strings.Builder
	seen := map[string]bool{}
	for _, found := range regexp.MustCompile(`\$([a-z]+)\.`).FindAllStringSubmatch(body, -1) {
		if name := found[1]; !seen[name] {
			seen[name] = true
			fmt.Fprintf(&imports, "const $%s = await import(%q);\n", name, testsite.AddressOf(t, name+".js"))
		}
	}
	return head + "{\n" + imports.String() + body
}
