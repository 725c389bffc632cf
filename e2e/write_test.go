package e2e

import (
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
)

// Notes are put on a blank staff by pointer and by keys, and checked.
func TestNotesAreWritten(t *testing.T) {
	t.Parallel()
	p, address := signedIn(t, 1280)
	p.MustNavigate(address + "/bench/6?instrument=trombone&class=1").MustWaitLoad()
	more := p.MustElementR("summary", "More")
	click(more)
	p.MustElement(".more[open] a")
	p.Keyboard.MustType(input.Escape)
	until(t, p, "the menu is closed and its button has the focus", `() => !document.querySelector(".more[open]") && document.activeElement.matches(".more summary")`)
	click(more)
	leads(p, p.MustElementR("a", "Write the notes"))
	p.MustElement(".blank-staff")
	n := p.MustEval(`() => JSON.parse(document.getElementById("write-data").textContent).notes.length`).Int()
	touch := func(k, lower int) {
		at := p.MustEval(`(k, lower) => {
			const data = JSON.parse(document.getElementById("write-data").textContent);
			const svg = document.querySelector(".blank-staff");
			svg.scrollIntoView({ block: "center" });
			const box = svg.getBoundingClientRect(), step = data.notes[k].places.find((at) => at >= 0) - lower;
			const { alter, byKey } = data.notes[k];
			return { sign: alter === byKey ? "" : ["flat", "natural", "sharp"][alter + 1], x: box.left + data.slots[k], y: box.top + data.bottom - step * data.space / 2 };
		}`, k, lower)
		p.Mouse.MustMoveTo(at.Get("x").Num(), at.Get("y").Num())
		p.Mouse.MustDown(proto.InputMouseButtonLeft)
		p.Mouse.MustUp(proto.InputMouseButtonLeft)
		if sign := at.Get("sign").Str(); sign != "" {
			p.Keyboard.MustType(map[string]input.Key{"flat": input.KeyB, "natural": input.KeyN, "sharp": input.KeyS}[sign])
		}
	}
	for k := range n - 1 {
		touch(k, 0)
	}
	touch(0, 1) // a step too low
	click(p.MustElement("[data-write-check]"))
	p.MustElementR(".write-said li", "you wrote .* It belongs on ")
	p.MustElementR(".write-said li", "not written yet")
	touch(n-1, 0)
	p.MustElement(".blank-staff .slot").MustFocus()
	p.Keyboard.MustType(input.ArrowUp) // mends the first
	click(p.MustElement("[data-write-check]"))
	p.MustElementR(".write-said li", "All [0-9]+ are right")
	if wrong := p.MustElements(".blank-staff .slot.wrong"); len(wrong) != 0 {
		t.Errorf("%d notes stand as wrong", len(wrong))
	}
}
