package site

import (
	"errors"
	"fmt"
	"net/http"
	"reflect"
	"slices"
	"strings"

	"github.com/go-playground/form/v4"
	"github.com/go-playground/validator/v10"

	"unhurriedbench/core/instrument"
	"unhurriedbench/core/score"
	"unhurriedbench/reading"
	"unhurriedbench/teach"
)

// forms fills structs from what was typed, by their form tags, and checks them by their
// validate tags.
type forms struct {
	decoder *form.Decoder
	checks  *validator.Validate
}

// Form has a sentence for everything that can be wrong with it, by field and check:
// "FirstName required". A field that wants a number has one for "Field number" too. Where
// %s stands in it, what was typed is put.
type Form interface{ Sentences() map[string]string }

// NewForms makes the reader of forms, with the checks that are ours.
func NewForms() (forms, error) {
	f := forms{form.NewDecoder(), validator.New(validator.WithRequiredStructEnabled())}
	f.decoder.RegisterCustomTypeFunc(func(typed []string) (any, error) { return strings.TrimSpace(typed[0]), nil }, "")
	f.decoder.RegisterCustomTypeFunc(func(typed []string) (any, error) {
		return Initial(strings.ToUpper(strings.TrimSuffix(strings.TrimSpace(typed[0]), "."))), nil
	}, Initial(""))
	known := func(id string) bool { _, is := instrument.ByID(id); return is }
	var err error
	for name, check := range map[string]func(text string) bool{
		"instrument": known,
		"writtenfor": func(text string) bool { return text == "" || text == reading.Concert || known(text) },
		"school":     teach.ValidSchool,
	} {
		err = errors.Join(err, f.checks.RegisterValidation(name,
			func(field validator.FieldLevel) bool { return check(field.Field().String()) }, true))
	}
	if err != nil {
		return f, fmt.Errorf("prepare the forms: %w", err)
	}
	return f, nil
}

// Read fills a form, which is a pointer, and lists what is wrong with it, in the order of
// its fields. What could be read is in the form all the same.
func (f forms) Read(r *http.Request, into Form) []string {
	said := into.Sentences()
	var unread form.DecodeErrors
	if err := f.decoder.Decode(into, r.Form); err != nil && !errors.As(err, &unread) {
		return []string{"The form did not arrive as it was sent. Go back and send it again."}
	}
	var problems []string
	say := func(field reflect.StructField, check string) {
		sentence := strings.ReplaceAll(said[field.Name+" "+check], "%s", score.Clip(r.Form.Get(field.Tag.Get("form"))))
		if !slices.Contains(problems, sentence) {
			problems = append(problems, sentence)
		}
	}
	var wrong validator.ValidationErrors
	errors.As(f.checks.Struct(into), &wrong)
	shape := reflect.TypeOf(into).Elem()
	for i := range shape.NumField() {
		field := shape.Field(i)
		if _, bad := unread[field.Tag.Get("form")]; bad {
			say(field, "number")
			continue
		}
		at := slices.IndexFunc(wrong, func(e validator.FieldError) bool { return e.StructField() == field.Name })
		if at >= 0 {
			say(field, wrong[at].Tag())
		}
	}
	return problems
}

// First is the first of some sentences, "" for none.
func First(problems []string) string {
	if len(problems) == 0 {
		return ""
	}
	return problems[0]
}

// Initial is "P", typed as "p", "P" or "P.".
type Initial string
