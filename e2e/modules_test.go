package e2e

import (
	"encoding/json"
	"fmt"
	"net/http"
	"net/http/httptest"
	"reflect"
	"strings"
	"testing"

	"github.com/go-rod/rod"

	assets "unhurriedbench/web/site"
)

// emptyPage is a page of the program's scripts alone: no server but their files, and no database.
func emptyPage(t *testing.T) *rod.Page {
	t.Helper()
	files, err := assets.Files()
	if err != nil {
		t.Fatal(err)
	}
	mux := http.NewServeMux()
	mux.Handle("/static/", files)
	mux.HandleFunc("/", func(w http.ResponseWriter, _ *http.Request) {
		w.Header().Set("Content-Type", "text/html")
		_, _ = w.Write([]byte("<!doctype html><title>Scripts</title><main></main>")) // the browser has gone when this fails
	})
	server := httptest.NewServer(mux)
	t.Cleanup(server.Close)
	return page(t, server.URL, 1280)
}

// A call of a function of a module, by the module's name, and the answer as JSON.
type call struct {
	js   string // as "$tempo.stepped([60, 63], 60, 1)"
	want string
}

// The functions that scripts share, called in one page.
func TestModules(t *testing.T) {
	t.Parallel()
	p := emptyPage(t)
	for name, calls := range map[string][]call{
		"tempos by steps": {
			{"$tempo.stepped([60, 63, 66, 69], 60, 1)", "63"},
			{"$tempo.stepped([60, 63, 66, 69], 66, -1)", "63"},
			{"$tempo.stepped([60, 63, 66, 69], 64, 1)", "66"},
			{"$tempo.stepped([60, 63, 66, 69], 64, -1)", "63"},
			{"$tempo.stepped([60, 63, 66, 69], 64, 0)", "64"},
			{"$tempo.stepped([60, 63, 66, 69], 69, 1)", "69"},
			{"$tempo.stepped([60, 63, 66, 69], 50, -1)", "60"},
			{"$tempo.stepped([60, 63, 66, 69], 50, 1)", "60"},
			{"$tempo.stepped([60, 63, 66, 69], 80, 2)", "69"},
			{"$tempo.stepped([60, 63, 66, 69], 80, -1)", "69"},
		},
		"notes of a MIDI keyboard": { // Source: the order of sharps and flats
			{"$spell.spell(60, 0)", `{"step": 0, "alter": 0, "diatonic": 28}`},
			{"$spell.spell(59, 0)", `{"step": 6, "alter": 0, "diatonic": 27}`},
			{"$spell.spell(70, -2)", `{"step": 6, "alter": -1, "diatonic": 34}`},
			{"$spell.spell(70, 5)", `{"step": 5, "alter": 1, "diatonic": 33}`},
			{"$spell.spell(71, -7)", `{"step": 0, "alter": -1, "diatonic": 35}`},
			{"$spell.spell(60, 7)", `{"step": 6, "alter": 1, "diatonic": 27}`},
			{"[0, 1, 2, 3, 4, 5, 6].map((step) => $spell.inKey(step, 2))", "[1, 0, 0, 1, 0, 0, 0]"},
			{"[0, 1, 2, 3, 4, 5, 6].map((step) => $spell.inKey(step, -3))", "[0, 0, -1, 0, 0, -1, -1]"},
			{"[0, 1, 2, 3, 4, 5, 6].map((step) => $spell.inKey(step, 7))", "[1, 1, 1, 1, 1, 1, 1]"},
			{"[0, 1, 2, 3, 4, 5, 6].map((step) => $spell.inKey(step, 0))", "[0, 0, 0, 0, 0, 0, 0]"},
		},
		"what is clicked": {
			{"$player.wholeOf({ tempo: 60, beat: 0.25 })", "4"},
			{"$player.wholeOf({ tempo: 120, beat: 0.375 })", "1.3333333333333333"},
			{`$player.pulses({ // a fermata on beat two, of one beat
				plan: [{ index: 0, from: 0, to: 0.75 }], round: { holds: [{ at: 0.5, for: 0.25 }] },
				places: [0, 0.25, 0.5].map((at) => ({ measure: 0, pulse: { at, beat: true } })),
			}).map(({ at }) => at)`, "[0, 0.25, 0.75]"},
			{`$player.pulses({
				round: {}, plan: [{ index: 1, from: 0, to: 0.5 }, { index: 0, from: 0.25, to: 0.5 }],
				places: [[0, 0, true], [0, 0.25, true], [1, 0, true], [1, 0.125, false], [1, 0.5, true]]
					.map(([measure, at, beat]) => ({ measure, pulse: { at, beat } })),
			}).map(({ at, beat }) => [at, beat])`, `[[0, true], [0.125, false], [0.5, true]]`},
		},
		"when words are recorded": {
			{"$recordvoice.clicksOf(3, 60)", "[4, 6, 8, 10]"},
			{"$recordvoice.clicksOf(1, 120)", "[2, 3]"},
			{"$recordvoice.wav([0, 1, -1]).size", "50"},
		},
		"notes written on a blank staff": {
			{judged(`{ name: "B flat", alter: -1, byKey: -1, places: [-3, 4, 11], stands: "line 3" }`,
				`{ step: 4, sign: "" }`, `{ step: 4, sign: "flat" }`, `{ step: -3, sign: "" }`, `{ step: 4, sign: "natural" }`, `{ step: 3, sign: "" }`, "null"),
				`[true, true, true, "B flat: place 4 is right. The sign is not.", "B flat: you wrote place 3. It belongs on line 3.", "B flat: not written yet."]`},
			{judged(`{ name: "B natural", alter: 0, byKey: -1, places: [4], stands: "line 3" }`,
				`{ step: 4, sign: "natural" }`, `{ step: 4, sign: "" }`, `{ step: 4, sign: "sharp" }`),
				`[true, "B natural: place 4 is right. It needs a sign.", "B natural: place 4 is right, with another sign."]`},
			{"[100, 79, 71, 300, -200].map((y) => $write.stepAt(y, { bottom: 100, space: 20, lowest: -5, places: Array(19) }))", "[0, 2, 3, -5, 13]"},
		},
		"the lanes that are shown": {
			{`$lanes.rows({ named: true, fingered: true, mechanism: "valves" }, { tap: true, name: true, finger: true })`,
				`{"list": [{"lane": "tap", "y": 16.5, "height": 19}, {"lane": "name", "y": 38, "height": 24}, {"lane": "finger", "y": 64.5, "height": 29}], "height": 79}`},
			{`$lanes.rows({ named: false, fingered: false, mechanism: "sticks" }, { count: true, name: true, finger: true }).list.map((r) => r.lane)`, `["count"]`},
			{`$lanes.rows({ named: true, mechanism: "bars" }, { count: true, write: { count: true } }).height`, "43"},
			{`$lanes.rows({}, {})`, `{"list": [], "height": 7}`},
			{`$lanes.crowdedCounts({ pulses: [{ x: 10, pulse: { text: "1" } }, { x: 21, pulse: { text: "&" } }, { x: 30, pulse: {} }] })`, "1"},
			{`$lanes.crowdedCounts({ pulses: [{ x: 10, pulse: { text: "1" } }] })`, "0"},
		},
		"where systems end": {
			{`$sheet.broken({ mei: '<measure xml:id="a"/><measure xml:id="b"/><measure xml:id="c"/>', measures: [{ id: "a" }, { id: "b" }, { id: "c" }] },
				[{ width: 200, lead: 74, crowded: 1 }, { width: 200, crowded: 1 }, { width: 200, crowded: 1 }], 450, 1)`,
				`"<measure xml:id=\"a\"/><measure xml:id=\"b\"/><sb/><measure xml:id=\"c\"/>"`},
			{`$sheet.broken({ mei: '<measure xml:id="a"/><measure xml:id="b"/>', measures: [{ id: "a" }, { id: "b" }] },
				[{ width: 200, lead: 74, crowded: 1 }, { width: 200, crowded: 2 }], 450, 1)`, `"<measure xml:id=\"a\"/><sb/><measure xml:id=\"b\"/>"`},
			{`$sheet.broken({ mei: '<measure xml:id="a"/>', measures: [{ id: "a" }] }, [{ width: 900, lead: 74, crowded: 3 }], 450, 1)`, `"<measure xml:id=\"a\"/>"`},
		},
		"what becomes of what is sent": {
			{"[0, 200, 204, 303, 400, 401, 404, 409, 422, 429, 500, 502, 503, 504].map((status) => $outbox.outcome(status))",
				`["held", "sent", "sent", "sent", "refused", "signed out", "refused", "refused", "refused", "held", "failed", "held", "held", "held"]`},
			{"new Set(Array.from({ length: 200 }, () => $outbox.newKey())).size", "200"},
			{"/^[0-9a-f]{24}$/.test($outbox.newKey())", "true"},
		},
	} {
		t.Run(name, func(t *testing.T) {
			for _, c := range calls {
				answers(t, p, c)
			}
		})
	}
}

// judged has written notes judged: true, or what is said of one that is wrong.
func judged(note string, written ...string) string {
	return fmt.Sprintf(`[%s].map((w) => $write.judge(%s, w, Array.from({ length: 19 }, (_, k) => "place " + (k - 5)), -5)).map((j) => j.right || j.says)`,
		strings.Join(written, ", "), note)
}

// answers makes a call and compares its answer.
func answers(t *testing.T, p *rod.Page, c call) {
	t.Helper()
	got, err := p.Eval(withModules(t, "async () => { return JSON.stringify("+c.js+"); }"))
	if err != nil {
		t.Errorf("%s: %v", c.js, err)
		return
	}
	var is, want any
	if err := json.Unmarshal([]byte(c.want), &want); err != nil {
		t.Fatalf("%s is wanted of %s: %v", c.want, c.js, err)
	}
	if err := json.Unmarshal([]byte(got.Value.Str()), &is); err != nil || !reflect.DeepEqual(is, want) {
		t.Errorf("%s is %s, want %s", c.js, got.Value.Str(), c.want)
	}
}

// What waits is sent in its order, once each; what fails three times does not keep back what
// comes after it; what is taken out in time is not sent.
func TestTheOutbox(t *testing.T) {
	t.Parallel()
	p := emptyPage(t)
	// answers are statuses of the server in turn, 0 for no network; each line is an entry's path.
	const scene = `async () => {
		const sent = [], said = [], kept = new Map();
		const storage = { getItem: (k) => kept.get(k) ?? null, setItem: (k, v) => kept.set(k, v), removeItem: (k) => kept.delete(k) };
		const statuses = STATUSES;
		window.fetch = async (path, { body }) => {
			sent.push(path + " " + body);
			const status = statuses.shift() ?? 200;
			if (!status) throw new TypeError("no network");
			return { status, ok: status < 400, json: async () => ({}) };
		};
		const box = new $outbox.Outbox(storage, "place", { base: "/my/x/", again: 1e6, on: {
			answer: (entry, answer) => { said.push("answer " + entry.path + " " + answer.status); },
			held: (why, list) => said.push(why + " " + list.length),
			empty: (done) => said.push("empty " + JSON.stringify(done)),
		} });
		SCENE
		return JSON.stringify({ sent, said, left: box.list().map((entry) => entry.path), busy: box.busy });
	}`
	for name, tt := range map[string]struct{ statuses, scene, want string }{
		"in its order": {"[200, 204]", `box.add("/a", { n: 1 }); await box.later("/b", { n: 2 });`,
			`{"sent": ["/a n=1", "/b n=2"], "said": ["answer /a 200", "answer /b 204", "empty {\"sent\":2,\"refused\":0,\"full\":false,\"waited\":2}"], "left": [], "busy": false}`},
		"no network, then again": {"[0, 200, 200]", `box.add("/a", {}); await box.later("/b", {}); await box.send();`,
			`{"sent": ["/a ", "/a ", "/b "], "said": ["held 2", "answer /a 200", "answer /b 200", "empty {\"sent\":2,\"refused\":0,\"full\":false,\"waited\":2}"], "left": [], "busy": false}`},
		"signed out": {"[401]", `await box.later("/a", {});`, `{"sent": ["/a "], "said": ["signed out 1"], "left": ["/a"], "busy": false}`},
		"refused": {"[422, 409, 200]", `box.add("/a", {}); box.add("/b", {}); box.add("/c", {}, false); await box.send();`,
			`{"sent": ["/a ", "/b ", "/c "], "said": ["answer /a 422", "answer /b 409", "answer /c 200", "empty {\"sent\":0,\"refused\":2,\"full\":true,\"waited\":3}"], "left": [], "busy": false}`},
		"a failure of the server": {"[500, 500, 500, 200]", `box.add("/a", {}); box.add("/b", {}); await box.send(); await box.send(); await box.send();`,
			`{"sent": ["/a ", "/a ", "/a ", "/b "], "said": ["held 2", "held 2", "answer /a 500", "answer /b 200", "empty {\"sent\":1,\"refused\":1,\"full\":false,\"waited\":2}"], "left": [], "busy": false}`},
		"two at once send one time": {"[200]", `box.add("/a", {}); await Promise.all([box.send(), box.send()]);`,
			`{"sent": ["/a "], "said": ["answer /a 200", "empty {\"sent\":1,\"refused\":0,\"full\":false,\"waited\":1}"], "left": [], "busy": false}`},
		"what an earlier release left": {"[200]", `storage.setItem("place", '[{"page": "tries", "fields": "press=p"}]'); await box.send();`,
			`{"sent": ["/my/x/tries press=p"], "said": ["answer /my/x/tries 200", "empty {\"sent\":1,\"refused\":0,\"full\":false,\"waited\":1}"], "left": [], "busy": false}`},
		"what waits under an earlier link": {"[200, 200]", `storage.setItem("before", '[{"path": "/my/w/tries", "fields": "n=1", "counts": true}]');
			box.add("/my/x/ticks", { n: 2 }); box.takeOver("before", "/my/w/"); said.push(storage.getItem("before")); await box.send();`,
			`{"sent": ["/my/x/ticks n=2", "/my/x/tries n=1"], "said": [null, "answer /my/x/ticks 200", "answer /my/x/tries 200", "empty {\"sent\":2,\"refused\":0,\"full\":false,\"waited\":2}"], "left": [], "busy": false}`},
		"taken out": {"[]", `box.add("/a", { request_key: "one" }); box.add("/b", { request_key: "two" });
			said.push(box.remove("one"), box.remove("none"));`, `{"sent": [], "said": [true, false], "left": ["/b"], "busy": false}`},
		"not while it is sent": {"[200]", `box.add("/a", { request_key: "one" }); const way = box.send(); said.push(box.remove("one")); await way;`,
			`{"sent": ["/a request_key=one"], "said": [false, "answer /a 200", "empty {\"sent\":1,\"refused\":0,\"full\":false,\"waited\":1}"], "left": [], "busy": false}`},
	} {
		t.Run(name, func(t *testing.T) {
			script := strings.NewReplacer("STATUSES", tt.statuses, "SCENE", tt.scene).Replace(scene)
			answers(t, p, call{"JSON.parse(await (" + script + ")())", tt.want})
		})
	}
}
