package web

import (
	"net/http"
	"net/http/httptest"
	"net/url"
	"reflect"
	"strings"
	"testing"
)

// allForms are the forms that are read by their tags.
var allForms = []aForm{&sectionForm{}, &yearForm{}, &givingForm{}, &studentForm{}, &secondForm{}, &ruleForm{}, &teacherForm{}, &houseForm{}, &exerciseForm{}, &pencilForm{}, &cutForm{}}

// Every check of every form has a sentence, and every sentence a check.
func TestEveryCheckHasASentence(t *testing.T) {
	t.Parallel()
	for _, f := range allForms {
		said := f.sentences()
		shape := reflect.TypeOf(f).Elem()
		wanted := map[string]bool{}
		for i := range shape.NumField() {
			field := shape.Field(i)
			for check := range strings.SplitSeq(field.Tag.Get("validate"), ",") {
				if check != "" {
					name, _, _ := strings.Cut(check, "=")
					wanted[field.Name+" "+name] = true
				}
			}
			kind := field.Type
			if kind.Kind() == reflect.Pointer {
				kind = kind.Elem()
			}
			if kind.Kind() == reflect.Int || kind.Kind() == reflect.Int64 {
				wanted[field.Name+" number"] = true
			}
			if field.Tag.Get("form") == "" {
				t.Errorf("%s of %s has no name in the form", field.Name, shape.Name())
			}
		}
		for key := range wanted {
			if said[key] == "" {
				t.Errorf("%s has no sentence for %q", shape.Name(), key)
			}
		}
		for key := range said {
			if !wanted[key] && shape.Name() != "houseForm" {
				t.Errorf("%s has a sentence for %q, which is not checked", shape.Name(), key)
			}
		}
	}
}

func TestReadingForms(t *testing.T) {
	t.Parallel()
	f, err := newForms()
	if err != nil {
		t.Fatal(err)
	}
	read := func(into aForm, values url.Values) []string {
		r := httptest.NewRequest(http.MethodPost, "/", strings.NewReader(values.Encode()))
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		if err := r.ParseForm(); err != nil {
			t.Fatal(err)
		}
		return f.read(r, into)
	}
	var s studentForm
	if said := read(&s, url.Values{"section": {"7"}, "first_name": {" Ines "}, "initial": {"p."}, "instrument": {"trombone"}}); len(said) > 0 || s != (studentForm{7, "Ines", "P", "trombone"}) {
		t.Errorf("a student is read as %+v, %v", s, said)
	}
	if said := read(&s, url.Values{"section": {"7"}, "first_name": {strings.Repeat("é", 40)}, "instrument": {"trombone"}}); len(said) > 0 {
		t.Errorf("forty letters of two bytes: %v", said)
	}
	for _, tt := range []struct {
		into   aForm
		typed  url.Values
		says   string
		others int
	}{
		{&studentForm{}, url.Values{"section": {"x"}, "first_name": {"  "}, "initial": {"Nwosu"}, "instrument": {"kazoo"}}, "Choose the student's section from the list.", 3},
		{&studentForm{}, url.Values{"first_name": {strings.Repeat("é", 41)}, "instrument": {"oboe"}}, "The first name is longer than 40 letters. Shorten it.", 0},
		{&exerciseForm{}, url.Values{"number": {"12345678901234567890123"}, "book": {"B"}}, "The number “12345678901234567890123” is not one from 1 to 9999. Type the exercise's number in the book.", 0},
		{&exerciseForm{}, url.Values{"number": {strings.Repeat("9", 100000)}, "book": {"B"}}, "The number “" + strings.Repeat("9", 40) + "…” is not one from 1 to 9999. Type the exercise's number in the book.", 0},
		{&exerciseForm{}, url.Values{"number": {"1.5"}, "book": {strings.Repeat("b", 121)}, "title": {strings.Repeat("t", 121)}, "written_for": {"kazoo"}}, "The number “1.5” is not one from 1 to 9999. Type the exercise's number in the book.", 2},
		{&houseForm{}, url.Values{"longest_days": {"9"}, "idle_days": {"9"}, "idle_minutes": {"9"}}, "Nothing was changed: the months that records are kept are a number from 0, for no end, to 120.", 0},
		{&teacherForm{}, url.Values{"name": {"Wren"}, "email": {"wren"}}, "The address has no @. Type the e-mail address you will sign in with.", 0},
		{&givingForm{}, url.Values{"colleague": {"3"}, "may": {"own"}}, "Say whether your colleague may look at the section, or teach it.", 0},
	} {
		said := read(tt.into, tt.typed)
		if len(said) != 1+tt.others || said[0] != tt.says {
			t.Errorf("%.80v says %q", tt.typed, said)
		}
	}
	zero := houseForm{}
	if said := read(&zero, url.Values{"longest_days": {"9"}, "idle_days": {"9"}, "idle_minutes": {"9"}, "retain_months": {"0"}}); len(said) > 0 || *zero.RetainMonths != 0 {
		t.Errorf("no end to records: %v", said)
	}
}
