package web

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
)

// forms fills structs from what was typed, by their form tags, and checks them by their
// validate tags.
type forms struct {
	decoder *form.Decoder
	checks  *validator.Validate
}

// aForm has a sentence for everything that can be wrong with it, by field and check:
// "FirstName required". A field that wants a number has one for "Field number" too. Where
// %s stands in it, what was typed is put.
type aForm interface{ sentences() map[string]string }

func newForms() (forms, error) {
	f := forms{form.NewDecoder(), validator.New(validator.WithRequiredStructEnabled())}
	f.decoder.RegisterCustomTypeFunc(func(typed []string) (any, error) { return strings.TrimSpace(typed[0]), nil }, "")
	f.decoder.RegisterCustomTypeFunc(func(typed []string) (any, error) {
		return initial(strings.ToUpper(strings.TrimSuffix(strings.TrimSpace(typed[0]), "."))), nil
	}, initial(""))
	known := func(id string) bool { _, is := instrument.ByID(id); return is }
	var err error
	for name, check := range map[string]func(text string) bool{
		"instrument": known,
		"writtenfor": func(text string) bool { return text == "" || text == reading.Concert || known(text) },
		"school":     validSchool,
	} {
		err = errors.Join(err, f.checks.RegisterValidation(name, func(field validator.FieldLevel) bool { return check(field.Field().String()) }, true))
	}
	if err != nil {
		return f, fmt.Errorf("prepare the forms: %w", err)
	}
	return f, nil
}

// read fills a form, which is a pointer, and lists what is wrong with it, in the order of
// its fields. What could be read is in the form all the same.
func (f forms) read(r *http.Request, into aForm) []string {
	said := into.sentences()
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

// first is the first of some sentences, "" for none.
func first(problems []string) string {
	if len(problems) == 0 {
		return ""
	}
	return problems[0]
}

type sectionForm struct {
	Name string `form:"name" validate:"required,max=80"`
}

func (*sectionForm) sentences() map[string]string {
	return map[string]string{
		"Name required": "The section has no name. Type one, such as Tuesday brass.",
		"Name max":      "The section's name is longer than 80 letters. Shorten it.",
	}
}

type yearForm struct {
	Year int `form:"year" validate:"min=1,max=3"`
}

func (*yearForm) sentences() map[string]string {
	const choose = "Choose the first, second or third year of playing from the list."
	return map[string]string{"Year number": choose, "Year min": choose, "Year max": choose}
}

type givingForm struct {
	Colleague int64  `form:"colleague" validate:"min=1"`
	May       string `form:"may" validate:"oneof=look teach"`
}

func (*givingForm) sentences() map[string]string {
	const choose = "Choose the colleague who is given the section."
	return map[string]string{
		"Colleague number": choose, "Colleague min": choose,
		"May oneof": "Say whether your colleague may look at the section, or teach it.",
	}
}

// initial is "P", typed as "p", "P" or "P.".
type initial string

// secondForm is a student's second instrument.
type secondForm struct {
	Section    int64  `form:"section"`
	Instrument string `form:"instrument" validate:"instrument"`
}

func (*secondForm) sentences() map[string]string {
	return map[string]string{
		"Section number":        "Choose the section from the list.",
		"Instrument instrument": "Choose the second instrument from the list.",
	}
}

type studentForm struct {
	Section    int64   `form:"section"`
	FirstName  string  `form:"first_name" validate:"required,max=40"`
	Initial    initial `form:"initial" validate:"max=1"`
	Instrument string  `form:"instrument" validate:"instrument"`
}

func (*studentForm) sentences() map[string]string {
	return map[string]string{
		"Section number":        "Choose the student's section from the list.",
		"FirstName required":    "The first name is missing. Type it, without the family name.",
		"FirstName max":         "The first name is longer than 40 letters. Shorten it.",
		"Initial max":           "The initial is one letter: family names are not kept here.",
		"Instrument instrument": "Choose the student's instrument from the list.",
	}
}

type ruleForm struct {
	Clean int  `form:"clean" validate:"min=0,max=5"`
	Stay  bool `form:"stay"`
}

func (*ruleForm) sentences() map[string]string {
	const choose = "Choose how many clean tries in a row go on: 1 to 5."
	return map[string]string{"Clean number": choose, "Clean min": choose, "Clean max": choose}
}

type teacherForm struct {
	Name   string `form:"name" validate:"required,max=120"`
	School string `form:"school" validate:"max=120"`
	Email  string `form:"email" validate:"contains=@,max=120"`
}

func (*teacherForm) sentences() map[string]string {
	const long = "A name or an address is longer than 120 letters. Shorten it."
	return map[string]string{
		"Name required": "Your name is missing. Type the name your students call you.", "Name max": long, "School max": long, "Email max": long,
		"Email contains": "The address has no @. Type the e-mail address you will sign in with.",
	}
}

type houseForm struct {
	LongestDays  int  `form:"longest_days" validate:"min=1,max=90"`
	IdleDays     int  `form:"idle_days" validate:"min=1,max=90"`
	IdleMinutes  int  `form:"idle_minutes" validate:"min=5,max=240"`
	RetainMonths *int `form:"retain_months" validate:"required,min=0,max=120"` // 0 is a choice
}

func (*houseForm) sentences() map[string]string {
	said := map[string]string{}
	for field, words := range map[string]string{
		"LongestDays": "the longest session is a number of days from 1 to 90", "IdleDays": "the days without use are a number from 1 to 90",
		"IdleMinutes":  "the minutes on a shared computer are a number from 5 to 240",
		"RetainMonths": "the months that records are kept are a number from 0, for no end, to 120",
	} {
		for _, check := range []string{"number", "required", "min", "max"} {
			said[field+" "+check] = "Nothing was changed: " + words + "."
		}
	}
	return said
}

type exerciseForm struct {
	Number     int    `form:"number" validate:"min=1,max=9999"`
	Book       string `form:"book" validate:"required,max=120"`
	Title      string `form:"title" validate:"max=120"`
	WrittenFor string `form:"written_for" validate:"writtenfor"`
}

func (*exerciseForm) sentences() map[string]string {
	const number = "The number “%s” is not one from 1 to 9999. Type the exercise's number in the book."
	const long = "A title is longer than 120 letters. Shorten it."
	return map[string]string{
		"Number number": number, "Number min": number, "Number max": number,
		"Book required": "The book's title is missing. Choose a book, or type a title for a new one.",
		"Book max":      long, "Title max": long,
		"WrittenFor writtenfor": "Choose for whom it is written from the list.",
	}
}
