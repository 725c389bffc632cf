package e2e

import (
	"testing"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
)

// names lists the chunks on the page.
func names(p *rod.Page) string {
	return p.MustEval(`() => [...document.querySelectorAll(".chunk-name")].map((e) => e.textContent).join(", ")`).Str()
}

// becomes waits for the chunks to be some.
func becomes(t *testing.T, p *rod.Page, want string) {
	t.Helper()
	until(t, p, "the chunks are "+want, `() => [...document.querySelectorAll(".chunk-name")].map((e) => e.textContent).join(", ") === "`+want+`" && document.querySelector("svg.lanes .chunk-box")`)
}

// The end of a chunk is moved by a key and by dragging; the list, the frame and the log
// follow, and a key takes it back. What was tried keeps its measures.
func TestChunksAreMovedByKeysAndByHand(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	bench(p, address+"/bench/6?instrument=trombone&student=3&chunk=4-5&stage=count")
	plain := names(p)
	if plain != "A · m. 1–3, B · m. 4–5, C · m. 6–8, Whole · m. 1–8" {
		t.Fatalf("the program cuts %s", plain)
	}
	later, _ := input.Period.Shift()
	p.Keyboard.MustType(later)
	p.MustElementR(".did-by-hand", "The chunk is m. 4–6 now")
	becomes(t, p, "A · m. 1–3, B · m. 4–6, C · m. 7–8, Whole · m. 1–8")
	p.Keyboard.MustType(input.KeyC)
	p.MustElementR(".latest li", "Count, m. 4–6: clean")
	p.Keyboard.MustType(input.KeyZ)
	p.MustElementR(".did-by-hand", "The chunks are as they were")
	becomes(t, p, plain)
	p.MustElementR(".latest li", "Count, m. 4–6: clean") // what was tried was tried

	click(p.MustElement("#chunks li:nth-child(2) a"))
	p.MustElementR(".at-hand", "Chunk B")
	p.MustWaitStable()
	box := p.MustElement(`.lanes .edge[data-edge="last"]`).MustShape().Box()
	sixth := p.MustEval(`() => { const b = document.querySelector(".engraving").bars.find((b) => b.number === 6); const o = document.querySelector(".engraving").getBoundingClientRect(); return [o.left + b.right - 20, o.top + (b.top + b.bottom) / 2]; }`).Arr()
	p.Mouse.MustMoveTo(box.X+box.Width/2, box.Y+box.Height/2).MustDown(proto.InputMouseButtonLeft)
	p.Mouse.MustMoveTo(sixth[0].Num()-60, sixth[1].Num()).MustMoveTo(sixth[0].Num(), sixth[1].Num()).MustUp(proto.InputMouseButtonLeft)
	becomes(t, p, "A · m. 1–3, B · m. 4–6, C · m. 7–8, Whole · m. 1–8")
	click(p.MustElement("[data-undo-hand]"))
	becomes(t, p, plain)
	click(p.MustElement(".cut-by-hand summary"))
	p.MustElement(`.cut-by-hand select[name=way]`).MustSelect("by four measures")
	becomes(t, p, "A · m. 1–4, B · m. 5–8, Whole · m. 1–8")
	p.Keyboard.MustType(input.KeyZ)
	becomes(t, p, plain)
}

// An alert leads to its note, is struck out, and comes back; what is written over a note
// stands in the music.
func TestAlertsAndMarks(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	bench(p, address+"/bench/6?instrument=trombone&chunk=4-5&stage=name")
	click(p.MustElement(".watch summary"))
	click(p.MustElement(".watch li:first-child [data-jump]"))
	p.MustElementR(".look:not([hidden]) [data-look=now] b", "E natural")
	if over := p.MustEval(`() => document.activeElement.matches(".lanes .touch")`).Bool(); !over {
		t.Error("the note is not at hand")
	}
	click(p.MustElementR(".pencils button", "^Circle$"))
	p.MustElementR(".did-by-hand", "Written: a circle in m. 4")
	p.MustElement(".lanes ellipse.pencil")
	click(p.MustElement("[data-undo-hand]"))
	p.MustElementR(".did-by-hand", "Rubbed out: a circle in m. 4")
	until(t, p, "the circle is gone", `() => document.querySelector("svg.lanes") && !document.querySelector(".lanes ellipse.pencil")`)
	click(p.MustElement(".watch summary"))
	click(p.MustElementR(".watch li:first-child .strike button", "trap"))
	p.MustElementR(".did-by-hand", "Struck out: trap in m. 4")
	until(t, p, "the diamond is gone", `() => document.querySelector("svg.lanes") && !document.querySelector(".lanes .mark-trap")`)
	p.MustElementR(".watch summary", "Struck out: 1")
	p.Keyboard.MustType(input.KeyZ)
	p.MustElement(".lanes .mark-trap")
}

// From the hardest cell to its drill.
func TestTheHardestCellsDrill(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	p.MustNavigate(address + "/bench/6/hardest?class=1&instrument=trombone&measure=5").MustWaitLoad()
	click(p.MustElementR(".hardest-side a", "^Drill "))
	p.MustElementR("h1", "Hard changes of 6")
	p.MustElement("svg.lanes")
	// And a line in its place.
	p.MustElement(".line-switch select[name=line]").MustSelect("Notes only")
	p.MustElementR("h1", "Notes only: 6")
	p.MustElement("svg.lanes")
	p.MustElement(".line-switch select[name=line]").MustSelect("As written")
	p.MustElementR("h1", "^6 · Ferry Landing")
	p.MustElement("svg.lanes")
}
