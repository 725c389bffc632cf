package web

import (
	"fmt"
	"strings"
	"testing"
)

func TestSheets(t *testing.T) {
	s := open(t)
	v, account := s.teacher(t, "a@school.example")
	b := furnish(t, s.store, account.ID)
	path := fmt.Sprintf("/bench/%d/sheets?section=%d", b.exercise, b.section)
	_, page := v.get(path)
	wants(t, page, "Sheets: 1 · First Lamp", "<small>Trombone</small>", `data-count="filled" data-name="filled" data-finger="filled"`, `"mechanism":"slide"`, "<th scope=\"row\">A · m. 1–2</th>", "Whole · m. 1–4", `<p class="rungs">Tempo <span>`)
	if n := strings.Count(page, "<section class=\"print-sheet\""); n != 1 {
		t.Errorf("%d sheets for a section of one trombone", n)
	}
	_, page = v.get(path + "&for=all")
	if n := strings.Count(page, "<section class=\"print-sheet\""); n != 31 {
		t.Errorf("%d sheets for every instrument", n)
	}
	_, page = v.get(path + "&for=one&instrument=clarinet&recipe=all")
	wants(t, page, "<small>Clarinet</small>", `data-count="empty" data-name="empty" data-finger="none"`, "<small>Clarinet: answers</small>", `data-count="filled" data-name="filled" data-finger="none"`, `"answer-clarinet-m0"`, `"sheet-clarinet-m0"`)
	if strings.Contains(page, "rungs\">Tempo") {
		t.Error("a sheet to be written on has a tempo ladder")
	}
	_, page = v.get(path + "&line=even-walk")
	wants(t, page, `<option value="even-walk" selected>`, "1 · First Lamp: Even walk <small>Trombone</small>")
	_, page = v.get(path + "&recipe=nonsense&line=none")
	wants(t, page, `<option value="practice" selected>`)
}
