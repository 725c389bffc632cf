package e2e

import (
	"context"
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"

	"unhurriedbench/demo"
	"unhurriedbench/internal/testdb"
)

// A colleague finds a class they were given, marks in it by keys, and finds nothing to
// mark with once they may only look.
func TestAClassOfAColleague(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	if err := demo.Load(ctx, s); err != nil {
		t.Fatal(err)
	}
	owner, err := s.DemoTeacher(ctx)
	if err != nil {
		t.Fatal(err)
	}
	colleague, err := s.AddTeacher(ctx, "sam@school.example", "Sam Oduya", "Lantern Hall", "three ferry lamps")
	if err != nil {
		t.Fatal(err)
	}
	desk := s.For(owner.ID)
	classes, err := desk.Classes(ctx)
	if err == nil {
		err = desk.ShareClass(ctx, classes[0].ID, colleague.ID, true)
	}
	if err != nil {
		t.Fatal(err)
	}
	server := serve(t, s)
	p := page(t, server.URL, 1280)
	p.MustElement("[name=email]").MustInput("sam@school.example")
	p.MustElement("[name=password]").MustInput("three ferry lamps")
	leads(p, p.MustElement("form.fields button"))
	p.MustNavigate(server.URL + "/people").MustWaitLoad()
	click(p.MustElementR(".given a", classes[0].Name))
	p.MustElementR(".section-tabs a", owner.Name)
	click(p.MustElementR(".board thead a", "Ferry Landing"))
	p.MustElement("svg.lanes")
	p.MustElementR(".guest-line", owner.Name+".*You may mark")
	click(p.MustElementR("#students a", "Ines P"))
	p.MustElementR("#bar-who", "Ines P")
	until(t, p, "the trombone's lanes", `() => document.querySelector("#bench svg.lanes") && document.querySelector(".sheet-note").hidden`)
	p.Keyboard.MustType(input.KeyC)
	p.MustElementR(".did", "clean")
	p.MustElementR(".latest", "by Sam Oduya")

	if err := desk.ShareClass(ctx, classes[0].ID, colleague.ID, false); err != nil {
		t.Fatal(err)
	}
	p.MustReload().MustWaitLoad()
	p.MustElementR(".guest-line", "You may look")
	p.Keyboard.MustType(input.KeyC, input.KeyX, input.KeyE, input.KeyU)
	if offered := p.MustEval(`() => [...document.querySelectorAll("#mark-clean, #mark-stumble, #all-clean, .latest button, [data-undo]")].length`).Int(); offered > 0 {
		t.Errorf("%d ways to mark are offered to who may look", offered)
	}
	students, err := desk.Students(ctx, classes[0].ID)
	if err != nil {
		t.Fatal(err)
	}
	marks := 0
	for _, student := range students {
		log, err := desk.StudentAttempts(ctx, student.ID)
		if err != nil {
			t.Fatal(err)
		}
		for _, a := range log {
			if strings.HasPrefix(a.By, "Sam") {
				marks++
			}
		}
	}
	if marks != 1 {
		t.Errorf("the colleague has made %d marks, want 1", marks)
	}
}
