// Package testforms checks the forms of rooms.
package testforms

import (
	"net/http"
	"net/http/httptest"
	"net/url"
	"reflect"
	"strings"
	"testing"

	"unhurriedbench/web/site"
)

// HaveSentences fails where a check of a form has no sentence, or a sentence no check.
func HaveSentences(t *testing.T, forms ...site.Form) {
	t.Helper()
	for _, f := range forms {
		said := f.Sentences()
		shape := reflect.TypeOf(f).Elem()
		desired := map[string]bool{}
		for i := range shape.NumField() {
			field := shape.Field(i)
			for check := range strings.SplitSeq(field.Tag.Get("validate"), ",") {
				if check != "" {
					name, _, _ := strings.Cut(check, "=")
					desired[field.Name+" "+name] = true
				}
			}
			kind := field.Type
			if kind.Kind() == reflect.Pointer {
				kind = kind.Elem()
			}
			if kind.Kind() == reflect.Int || kind.Kind() == reflect.Int64 {
				desired[field.Name+" number"] = true
			}
			if field.Tag.Get("form") == "" {
				t.Errorf("%s of %s has no name in the form", field.Name, shape.Name())
			}
		}
		for key := range desired {
			if said[key] == "" {
				t.Errorf("%s has no sentence for %q", shape.Name(), key)
			}
		}
		for key := range said {
			if !desired[key] && shape.Name() != "policyForm" {
				t.Errorf("%s has a sentence for %q, which is not checked", shape.Name(), key)
			}
		}
	}
}

// Typed is what is typed into a form, and the first sentence that it says.
type Typed struct {
	Into   site.Form
	Values url.Values
	Says   string // "" where nothing is wrong
	Others int
}

// Say fails where a form says something else of what is typed.
func Say(t *testing.T, list ...Typed) {
	t.Helper()
	f, err := site.NewForms()
	if err != nil {
		t.Fatal(err)
	}
	for _, tt := range list {
		r := httptest.NewRequest(http.MethodPost, "/", strings.NewReader(tt.Values.Encode()))
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		if err := r.ParseForm(); err != nil {
			t.Fatal(err)
		}
		said := f.Read(r, tt.Into)
		if tt.Says == "" && len(said) > 0 || tt.Says != "" && (len(said) != 1+tt.Others || said[0] != tt.Says) {
			t.Errorf("%.80v says %q", tt.Values, said)
		}
	}
}
