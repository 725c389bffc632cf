package shelf

import (
	"net/url"
	"strings"
	"testing"

	"unhurriedbench/internal/testforms"
)

func TestForms(t *testing.T) {
	t.Parallel()
	testforms.HaveSentences(t, &exerciseForm{})
	no := func(typed string) string {
		return "The number “" + typed + "” is not one from 1 to 9999. Type the exercise's number in the book."
	}
	testforms.Say(t,
		testforms.Typed{Into: &exerciseForm{}, Values: url.Values{"number": {"12345678901234567890123"}, "book": {"B"}}, Says: no("12345678901234567890123")},
		testforms.Typed{Into: &exerciseForm{}, Values: url.Values{"number": {strings.Repeat("9", 100000)}, "book": {"B"}}, Says: no(strings.Repeat("9", 40) + "…")},
		testforms.Typed{Into: &exerciseForm{}, Values: url.Values{"number": {"1.5"}, "book": {strings.Repeat("b", 121)}, "title": {strings.Repeat("t", 121)}, "written_for": {"kazoo"}},
			Says: no("1.5"), Others: 2})
}
