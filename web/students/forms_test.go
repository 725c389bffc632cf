package students

import (
	"net/url"
	"strings"
	"testing"

	"unhurriedbench/internal/testforms"
)

func TestForms(t *testing.T) {
	t.Parallel()
	testforms.HaveSentences(t, &classForm{}, &yearForm{}, &givingForm{}, &studentForm{}, &secondForm{})
	var s studentForm
	testforms.Say(t,
		testforms.Typed{Into: &s, Values: url.Values{"class": {"7"}, "first_name": {" Ines "}, "initial": {"p."}, "instrument": {"trombone"}}},
		testforms.Typed{Into: &studentForm{}, Values: url.Values{"class": {"7"}, "first_name": {strings.Repeat("é", 40)}, "instrument": {"trombone"}}},
		testforms.Typed{Into: &studentForm{}, Values: url.Values{"class": {"x"}, "first_name": {"  "}, "initial": {"Nwosu"}, "instrument": {"kazoo"}},
			Says: "Choose the student's class from the list.", Others: 3},
		testforms.Typed{Into: &studentForm{}, Values: url.Values{"first_name": {strings.Repeat("é", 41)}, "instrument": {"oboe"}}, Says: "The first name is longer than 40 letters. Shorten it."},
		testforms.Typed{Into: &givingForm{}, Values: url.Values{"colleague": {"3"}, "may": {"own"}}, Says: "Say whether your colleague may look at the class, or teach it."})
	if s != (studentForm{Class: 7, FirstName: "Ines", Initial: "P", Instrument: "trombone"}) {
		t.Errorf("a student is read as %+v", s)
	}
}
