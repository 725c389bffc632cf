package web_test

import (
	"context"
	"net/url"
	"regexp"
	"slices"
	"strings"
	"testing"

	"golang.org/x/net/html"

	"unhurriedbench/demo"
	"unhurriedbench/internal/testsite"
)

// notWords are words and turns that no page shows: a dialect of ours for what has a plain name.
var notWords = []string{
	`whoever`, `anew`, `is none`, `but for`, `of theirs`, `so many`, `in the way that`, `round and round`,
	`\bsections?\b`, `piece of it`, `has it hardest`, `^The room$`, `In the room the`, `Read it whole`, `The same as a table`, `who needs help`,
	`Take it as a group`, `down to quarters`, `Who is where`, `By exercise and stage`, `Week by week`, `Regroup`, `For a gradebook`,
	`^Made of`, `Propose`, `Plan a lesson`, `what is begun`, `comes easiest`, `Take this plan away`, `End the page`, `Lay it out`, `Lay out`,
	`Plan of `, `Plans? for home`, `Page of `, `own page`, `set a day`, `Hear them`, `Bring in`, `Bring it`, `Take a table`, `Taken away`, `Take away`, `Put back`,
	`Put on the Shelf`, `Put it on the Shelf`, `Take off the Shelf`, `Count it and name it`, `Many at once`, `As written for`, `First note near`, `\bmet\b`, `\bowned\b`,
	`Changes that failed`, `holds now`, `Everybody.s one note`, `Tune the room`, `What stands on it`, `\brecipes?\b`, `Keep it as`, `Take everything along`,
	`Given to you`, `Otherwise for`, `Settle it`, `^not here`, `looks after this`, `Who did what`, `\bnotch`, `line of the staff`,
	`Nobody waits`, `^Leave it$`, `^Do it$`, `^Set it$`, `^Look at it$`,
}

// Every page in plain words: what is seen, and what a screen reader says of it.
func TestPlainWords(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	if err := demo.Load(context.Background(), s.Store); err != nil {
		t.Fatal(err)
	}
	v := s.Visitor(t)
	v.Post("/sign-in/demo", nil)
	_, lesson := v.Post("/lessons", url.Values{"minutes": {"30"}, "begun": {"yes"}, "next": {"yes"}, "left": {"yes"}})
	lesson, _, _ = strings.Cut(lesson, "?")
	v.Post("/plans/own-pages", url.Values{"class": {"1"}})
	seen := map[string][]string{} // places by what is not a word
	for _, path := range slices.Concat(demoPaths, studentsPaths(t, s, 3), []string{lesson, "/bench/6?student=3&stage=name", "/bench/6?instrument=snare",
		"/bench/12/ear", "/bench/6/before", "/exercises/new?way=file", "/exercises/new?way=abc", "/routines/edit?copy=standard", "/students/3?exercise=6", "/missing"}) {
		_, page := v.Get(path)
		if strings.HasPrefix(page, "{") {
			continue // for a script
		}
		for _, text := range textsOf(t, page) {
			for _, bad := range notWords {
				if regexp.MustCompile(`(?i)` + bad).MatchString(text) {
					if line := path + ": " + strings.Join(strings.Fields(text), " "); !slices.Contains(seen[bad], line) {
						seen[bad] = append(seen[bad], line)
					}
				}
			}
		}
	}
	for bad, list := range seen {
		t.Errorf("%s is shown:\n  %s", bad, strings.Join(list[:min(len(list), 12)], "\n  "))
	}
}

// textsOf are the runs of text of a page that anybody reads or hears read.
func textsOf(t *testing.T, page string) []string {
	t.Helper()
	root, err := html.Parse(strings.NewReader(page))
	if err != nil {
		t.Fatal(err)
	}
	var list []string
	for n := range root.Descendants() {
		if n.Type == html.TextNode && strings.TrimSpace(n.Data) != "" && n.Parent.Data != "script" && n.Parent.Data != "style" {
			list = append(list, n.Data)
		}
		for _, a := range n.Attr {
			if slices.Contains([]string{"title", "aria-label", "placeholder", "alt", "data-confirm"}, a.Key) {
				list = append(list, a.Val)
			}
		}
	}
	return list
}
