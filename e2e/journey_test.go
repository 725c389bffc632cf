package e2e

import (
	"path/filepath"
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
)

// A teacher uploads a file from another program, works a chunk with a student
// and sees the Board follow.
func TestFromAFileToTheBoard(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)

	// The file was written by hand, not by this project.
	file, err := filepath.Abs("../core/format/musicxml/testdata/harbor-steps.musicxml")
	if err != nil {
		t.Fatal(err)
	}
	click(p.MustElementR("a", "Add an exercise"))
	click(p.MustElementR(".entry-ways button", "A file"))
	p.MustElement("#preview")
	p.MustElement("input[name=number]").MustSelectAllText().MustInput("60")
	p.MustElement("input[type=file]").MustSetFiles(file)
	p.MustElement("#preview .preview-frame") // which moves what stands under it
	click(p.MustElementR("button", "Save"))
	p.MustElementR("h1", "60 · Harbor Steps")
	p.MustElement("svg.lanes")

	// Switching the instrument replaces the bench, not the page.
	p.MustEval(`() => { window.kept = true }`)
	click(p.MustElementR(".instruments a", "Trombone"))
	p.MustElementR(".instruments a[aria-current]", "Trombone")
	until(
		t,
		p,
		"the trombone's slide lane is drawn",
		`() => [...document.querySelectorAll(".lanes .lane-name")].some((e) => e.textContent === "Slide")`,
	)
	if !p.MustEval(`() => window.kept === true`).Bool() {
		t.Error("switching the instrument reloaded the page")
	}
	if got := p.MustElement(".head-words").MustText(); !strings.Contains(got, "E flat major") {
		t.Errorf("the trombone's part is described as %q", got)
	}

	// The count-off runs up to the pickup on four, then the cursor moves.
	words := p.MustEval(`() => [...document.querySelectorAll(".count-off li")].map((e) => e.firstChild.textContent).join(" ")`).Str()
	if words != "1 2 3" {
		t.Errorf("the count-off says %q, want 1 2 3", words)
	}
	p.MustElement("body").MustFocus()
	p.MustEval(`() => {
		window.passed = [];
		new MutationObserver(() => {
			const now = document.querySelector(".count-off .now")?.firstChild.textContent || document.querySelector(".cursor")?.dataset.pulse;
			if (now && window.passed.at(-1) !== now) window.passed.push(now);
		}).observe(document.querySelector("#bench"), { subtree: true, attributes: true, childList: true });
	}`)
	p.Keyboard.MustType(input.Space)
	until(t, p, "the cursor goes on to measure 1", `() => window.passed.includes("bench-p1_1")`)
	if got := p.MustEval(`() => window.passed.join(" ")`).Str(); !strings.Contains(got, "2 3 bench-p0_0 bench-p0_1 bench-p1_0 bench-p1_1") {
		t.Errorf("the count-off and the cursor passed %q", got)
	}
	p.Keyboard.MustType(input.Space)
	until(t, p, "it stops", `() => !document.querySelector(".cursor")`)

	// Two clean tries move the chunk on.
	click(p.MustElementR(".students a", "Tomo K"))
	p.MustElementR(".student-now", "Tomo K")
	p.Keyboard.MustType(input.KeyC)
	p.MustElementR(".advice", "1 of 2 clean in a row")
	p.Keyboard.MustType(input.KeyC)
	p.MustElementR(".advice", "on to Name")
	p.MustElementR(".stage-title", "Name it in time")

	word := func() string {
		t.Helper()
		p.MustNavigate(address + "/board").MustWaitLoad()
		return p.MustEval(`() => {
			const row = [...document.querySelectorAll(".board tbody tr")].find((r) => r.textContent.includes("Tomo K."));
			return row.lastElementChild.querySelector(".stage-bar")?.getAttribute("aria-label") || "";
		}`).Str()
	}
	if got := word(); got != "Count 33%" { // of three chunks one
		t.Fatalf("the Board shows %q, want Count 33%%", got)
	}

	// Taking one back in the history sends it back.
	p.MustEval(
		`() => [...document.querySelectorAll(".board tbody tr")].find((r) => r.textContent.includes("Tomo K.")).lastElementChild.querySelector("a").click()`,
	)
	p.MustElementR("dialog[open] .of-exercise", "Harbor Steps")
	click(p.MustElement("dialog[open] .every-try summary"))
	click(p.MustElementR("dialog[open] button", "Undo"))
	p.MustElementR("dialog[open] .undone", "taken back")
	if got := word(); got != "Count 17%" {
		t.Errorf("after undoing, the Board shows %q, want Count 17%%", got)
	}
}

// Typing ABC redraws the preview, says what is wrong, and keeps what was typed.
func TestTypingAnExercise(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	p.MustNavigate(address + "/exercises/new?way=abc").MustWaitLoad()
	p.MustElement("#preview svg")
	box := p.MustElement("textarea[name=abc]")
	box.MustSelectAllText().MustInput("T:Tide\nM:3/4\nL:1/4\nK:G\nG A B | c d |")
	p.MustElementR("#preview", "Measure 2, line 5: it holds 2 quarter notes")
	click(p.MustElementR("button", "Save"))
	p.MustElementR(".problems", "Measure 2, line 5: it holds 2 quarter notes")
	if got := p.MustElement("textarea[name=abc]").MustText(); !strings.Contains(got, "G A B | c d |") {
		t.Errorf("the typed text is now %q", got)
	}
	p.MustElement("textarea[name=abc]").MustSelectAllText().MustInput("T:Tide\nM:3/4\nL:1/4\nK:G\nG A B | c d e |]")
	p.MustElementR("#preview", "3/4, G major")
	click(p.MustElementR("button", "Save"))
	p.MustElementR("h1", "41 · Tide")
}

// A stumble asks for its cause, from the keyboard alone.
func TestMarkingFromTheKeyboard(t *testing.T) {
	t.Parallel()
	p, _ := signedIn(t, 1280)
	click(p.MustElementR(".exercise", "Fog Horn"))
	p.MustElement("svg.lanes")
	click(p.MustElementR(".instruments a", "Trumpet"))
	p.MustElementR(".instruments a[aria-current]", "Trumpet")
	click(p.MustElementR(".students a", "Lena S"))
	p.MustElementR(".student-now", "Lena S")

	p.Keyboard.MustType(input.ArrowDown)
	p.MustElementR("#chunks a[aria-current]", "B · m. 3–4")
	p.Keyboard.MustType(input.BracketRight)
	tempo := p.MustElement("#tempo-now").MustText()
	p.Keyboard.MustType(input.KeyX)
	p.MustElementR(".causes:not([hidden]) button", "rhythm")
	p.Keyboard.MustType(input.KeyR)
	p.MustElementR(".latest", "Count, m. 3–4: stumble, rhythm")
	if got := p.MustElement("#tempo-now").MustText(); got != tempo {
		t.Errorf("after a mark the tempo is %s, it was %s", got, tempo)
	}
	// Tab goes into the music once; arrows go from note to note.
	p.MustEval(`() => document.querySelector(".sheet").focus()`)
	p.Keyboard.MustType(input.Tab)
	p.Keyboard.MustType(input.ArrowRight)
	until(
		t,
		p,
		"the second note tells its reasons",
		`() => document.querySelector(".look:not([hidden]) .why")?.textContent.startsWith("A half: 2 beats, from 3 through 4.")`,
	)
	p.Keyboard.MustType(input.Escape)
	until(t, p, "the reasons are gone", `() => document.querySelector(".look").hidden`)

	p.Keyboard.MustType(input.Digit3)
	until(t, p, "the name lane is hidden", `() => !document.querySelector(".lanes .n")`)
	p.Keyboard.MustType(input.Digit3)
	until(t, p, "the name lane is back", `() => document.querySelector(".lanes .n")`)
	click(p.MustElementR(".latest button", "Undo"))
	until(t, p, "the mark is gone", `() => !document.querySelector(".latest")`)
}
