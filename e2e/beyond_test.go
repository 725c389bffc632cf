package e2e

import (
	"context"
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/go-rod/rod"

	"unhurriedbench/core/instrument"
	"unhurriedbench/internal/testdb"
	"unhurriedbench/store"
)

// wide is a line that no instrument has all of: from the lowest a tuba sounds to the highest
// of a piccolo.
const wide = "T:From Cellar to Roof\nM:4/4\nL:1/4\nK:C\nE,,, F,, c''' b''|G A B c|G A c'' z|C2 E2|]\n"

// oneOfEach is an instrument of each kind of lane that has pitches.
var oneOfEach = []string{"trumpet", "trombone", "violin", "bassoon", "bells"}

// wideSite serves a teacher with one exercise, the wide line, and a class with one student
// for each kind of lane; it gives a page that is signed in, the address and the students' links.
func wideSite(t *testing.T) (p *rod.Page, address string, links []string) {
	t.Helper()
	s, ctx := testdb.Open(t), context.Background()
	teacher, err := s.AddTeacher(ctx, "sam@school.example", "Sam Oduya", "Lantern Hall", "three ferry lamps")
	if err != nil {
		t.Fatal(err)
	}
	desk := s.For(teacher.ID)
	_, err = desk.AddExercise(ctx, store.Exercise{Book: "Own", Number: 1, Title: "From Cellar to Roof"}, store.Source{Format: "abc", Content: wide})
	var students []store.Student
	for k, id := range oneOfEach {
		students = append(students, store.Student{FirstName: "Nia", Initial: string(rune('A' + k)), Instrument: id})
	}
	var class store.ClassID
	if err == nil {
		class, err = desk.AddClass(ctx, "Monday", students...)
	}
	if err == nil {
		students, err = desk.Students(ctx, class)
	}
	for _, student := range students {
		if err == nil {
			err = desk.MakeOwnPages(ctx, student.ID)
		}
		var own store.OwnPage
		if err == nil {
			own, err = desk.OwnPageOf(ctx, student.ID)
		}
		links = append(links, "/my/"+own.Key+"/")
	}
	if err != nil {
		t.Fatal(err)
	}
	server := serve(t, s)
	p = page(t, server.URL, 1280)
	p.MustElement("[name=email]").MustInput("sam@school.example")
	p.MustElement("[name=password]").MustInput("three ferry lamps")
	leads(p, p.MustElement("form.fields button"))
	return p, server.URL, links
}

// pale counts the notes that are drawn as beyond their instrument, and how often it is said.
func pale(p *rod.Page) (notes, said int) {
	return p.MustEval(`() => document.querySelectorAll(".engraving g.note.beyond, .due-sheet g.note.beyond, .stand-sheet g.note.beyond, .lesson-sheet g.note.beyond").length`).Int(),
		p.MustEval(`() => document.querySelectorAll(".lanes .beyond-word").length`).Int()
}

// A note beyond an instrument is drawn pale and said, and the rest of the music stands with
// its lanes, wherever music is shown.
func TestANoteBeyondTheInstrument(t *testing.T) {
	t.Parallel()
	if testing.Short() {
		t.Skip("a long one, for bin/test --all")
	}
	p, address, links := wideSite(t)
	drawn := func(where string, atLeast int) {
		t.Helper()
		if notes, said := pale(p); notes < atLeast || said < 1 {
			t.Errorf("%s: %d notes are pale, and it is said %d times", where, notes, said)
		}
		if out := p.MustEval(`() => [...document.querySelectorAll(".beyond-word")].filter((w) => w.getBoundingClientRect().top < w.closest("svg").parentElement.getBoundingClientRect().top).length`).Int(); out > 0 {
			t.Errorf("%s: %d words stand over the edge of the music", where, out)
		}
		if text := p.MustElement("body").MustText(); containsAny(text, "could not be drawn", "undefined", "TypeError") {
			t.Errorf("%s says %s", where, text)
		}
	}
	for _, i := range instrument.All() {
		if i.Unpitched() || i.Mechanism == instrument.Drums { // whose lines are made of what they have
			continue
		}
		bench(p, address+"/bench/1?instrument="+i.ID)
		drawn("the Bench for "+i.ID, 1)
	}
	p.MustNavigate(address + "/bench/1/sheets?for=all").MustWaitLoad()
	until(t, p, "the sheets are drawn", `() => performance.getEntriesByName("sheets:drawn").length > 0`)
	if sheets := len(p.MustElements(".print-sheet svg.lanes")); sheets != len(instrument.All()) {
		t.Errorf("%d sheets are drawn", sheets)
	}
	drawn("the sheets", 27)
	for _, id := range oneOfEach {
		p.MustNavigate(address + "/exercises/new").MustWaitLoad()
		if err := p.MustElement("[name=written_for]").Select([]string{"[value=" + id + "]"}, true, rod.SelectorTypeCSSSector); err != nil {
			t.Fatal(err)
		}
		p.MustElement("[name=count]").MustInput("1 2 3 4 | 1 2 3 4")
		p.MustElement("[name=names]").MustInput("c''' d e")
		p.MustElementR(".counted-status", "3 named")
		p.MustElement("#counted-sheet svg.lanes .beyond-word")
		drawn("the preview for "+id, 3)
	}
	p.MustNavigate(address + "/lessons").MustWaitLoad()
	onwards(p, "Suggest a lesson")
	onwards(p, "Start lesson")
	for range 3 { // past the warm-up
		click(p.MustElement("[data-next]"))
	}
	p.MustElement(".lesson-sheet svg.lanes .beyond-word")
	for k := range p.MustElements(".room:not([hidden]) .room-card") {
		card := p.MustElements(".room:not([hidden]) .room-card")[k]
		click(card)
	}
	p.MustElement(".lesson-sheet svg.lanes .beyond-word")
	drawn("the lesson", 1)
	p.MustNavigate(address + "/check-ins?class=1").MustWaitLoad()
	p.MustEval(`(on) => { const f = document.querySelector("[aria-labelledby=set-day] form"); f.on.value = on; f.minutes.value = 60; }`, time.Now().Format(time.DateOnly))
	onwards(p, "^Schedule$")
	for k, id := range oneOfEach {
		p.MustNavigate(fmt.Sprintf("%s/check-ins/%d?class=1", address, k+1)).MustWaitLoad()
		choice := p.MustElement(".due-more select")
		choice.MustEval(`() => { this.selectedIndex = 1; }`)
		click(p.MustElementR(".due-more button", "Ask for it"))
		p.MustElement(".due-sheet svg.lanes .touch")
		if len(p.MustElements(".due-sheet")) != len(p.MustElements(".due-sheet svg.lanes")) {
			t.Errorf("the check-in for %s lacks music", id)
		}
		drawn("the check-in for "+id, 1)
	}
	for k, link := range links {
		p.MustNavigate(fmt.Sprintf("%s/students/%d/plan", address, k+1)).MustWaitLoad()
		onEveryDay(p)
		onwards(p, "(Make|Update) plan")
		find(p, ".home-items li", "")
		p.MustNavigate(address + link).MustWaitLoad()
		day := p.MustElement(`.own-step[data-music]:not([data-music=""]):not([data-kind=warm])`).MustAttribute("data-date")
		if shown := p.MustElements(`.own-day:not([hidden]) [data-date="` + *day + `"]`); len(shown) == 0 {
			click(p.MustElement(`[data-show="` + *day + `"]`))
		}
		click(p.MustElement(`.own-day:not([hidden]) .own-step[data-music]:not([data-music=""]):not([data-kind=warm]) [data-open]`))
		p.MustElement("#stand:not([hidden]) svg.lanes .touch")
		drawn("the student's page of "+oneOfEach[k], 1)
	}
}

func containsAny(text string, words ...string) bool {
	for _, w := range words {
		if strings.Contains(text, w) {
			return true
		}
	}
	return false
}
