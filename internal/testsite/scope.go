package testsite

import (
	"fmt"
	"net/http"
	"regexp"
	"strings"
)

// IdFor is whose id a route's {id} stands for.
func (b Belongings) IdFor(route string) int64 {
	switch {
	case strings.HasPrefix(route, "/students"):
		return int64(b.Student)
	case strings.HasPrefix(route, "/attempts"):
		return int64(b.Attempt)
	case strings.HasPrefix(route, "/classes"):
		return int64(b.Class)
	case strings.HasPrefix(route, "/books"):
		return int64(b.Book)
	case strings.HasPrefix(route, "/lessons"):
		return int64(b.Lesson)
	case strings.HasPrefix(route, "/account"):
		return int64(b.Teacher)
	}
	return int64(b.Exercise)
}

// Path is a route with what it names filled in.
func (b Belongings) Path(route string) string {
	return strings.NewReplacer("{id}", fmt.Sprint(b.IdFor(route)), "{instrument}", "oboe", "{what}", "exercises").Replace(route)
}

// pressKey is another in every page.
var pressKey = regexp.MustCompile(`name="request_key" value="[^"]*"`)

// ago is how long something is past, which goes on while a test looks.
var ago = regexp.MustCompile(`just now|\d+ min ago`)

// Everything opens every screen of a teacher.
func Everything(v *Visitor, b Belongings) map[string]string {
	pages := map[string]string{}
	for _, path := range []string{
		"/", "/board", "/people", "/routines", fmt.Sprintf("/lessons?class=%d", b.Class), "/board/heat", "/board/weeks", "/board/groups", "/board/grades", "/removed", "/settings", "/fingerings/oboe", fmt.Sprintf("/exercises/new?book=%d", b.Book),
		fmt.Sprintf("/students/%d", b.Student), fmt.Sprintf("/exercises/%d/edit", b.Exercise), fmt.Sprintf("/exercises/%d/parts", b.Exercise),
		fmt.Sprintf("/bench/%d?instrument=trombone&student=%d", b.Exercise, b.Student), fmt.Sprintf("/bench/%d?instrument=oboe", b.Exercise),
		fmt.Sprintf("/bench/%d?instrument=horn-f", b.Exercise), fmt.Sprintf("/exercises/%d/export?instrument=trombone&as=abc", b.Exercise),
	} {
		status, page := v.Get(path)
		if status != http.StatusOK {
			v.T.Fatalf("%s of one's own gives %d", path, status)
		}
		pages[path] = ago.ReplaceAllString(pressKey.ReplaceAllString(page, ""), "")
	}
	return pages
}
