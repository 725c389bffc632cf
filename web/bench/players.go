package bench

import (
	"html/template"
	"strconv"
	"strings"

	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// Rows lists a group's students as links to the Bench with each of them at hand, and a box
// to leave them out. A class has sixty, in every answer to a mark, and all that is not
// ours is escaped, so it is not a template.
func (v benchView) Rows(group teach.Players) template.HTML {
	const placeholder store.StudentID = -1 // whose place each student's id takes
	before, after, _ := strings.Cut(template.HTMLEscapeString(v.PlayerLink(store.Student{ID: placeholder,
		Instrument: group.Instrument.ID})), "student=-1")
	target := `#bench`
	if group.Current {
		target = `#side`
	}
	b := make([]byte, 0, 900*len(group.Students))
	for _, s := range group.Students {
		id, name := strconv.FormatInt(int64(s.ID), 10), template.HTMLEscapeString(s.Name())
		link := before + "student=" + id + after
		b = append(b, `<li><a id="student-`+id+`" href="`+link+`" `...)
		if s.Current {
			b = append(b, `aria-current="true" `...)
		}
		b = append(b, `hx-include="#tempo-field" hx-get="`+link+`" hx-target="`+target+`" hx-swap="outerHTML">`+name+` `...)
		b = append(b, site.StateBar(v.RoutineOf(s.Student), s.State)...)
		b = append(b, `</a>`...)
		if v.MayMark() {
			b = append(b, `<label class="but"><input type="checkbox" name="except" value="`+id+`"`+
				map[bool]string{true: " checked"}[s.Aside]+`><span class="visually-hidden">not `+name+`</span></label>`...)
		}
		b = append(b, `</li>`...)
	}
	return template.HTML(b)
}
