package students

import (
	"unhurriedbench/web/site"
)

type classForm struct {
	Name string `form:"name" validate:"required,max=80"`
}

func (*classForm) Sentences() map[string]string {
	return map[string]string{
		"Name required": "The class has no name. Type one, such as Tuesday brass.",
		"Name max":      "The class's name is longer than 80 letters. Shorten it.",
	}
}

type yearForm struct {
	Year int `form:"year" validate:"min=1,max=3"`
}

func (*yearForm) Sentences() map[string]string {
	const choose = "Choose the first, second or third year of playing from the list."
	return map[string]string{"Year number": choose, "Year min": choose, "Year max": choose}
}

type givingForm struct {
	Colleague int64  `form:"colleague" validate:"min=1"`
	May       string `form:"may" validate:"oneof=look teach"`
}

func (*givingForm) Sentences() map[string]string {
	const choose = "Choose the colleague who is given the class."
	return map[string]string{
		"Colleague number": choose, "Colleague min": choose,
		"May oneof": "Say whether your colleague may look at the class, or teach it.",
	}
}

// secondForm is a student's second instrument.
type secondForm struct {
	Class      int64  `form:"class"`
	Instrument string `form:"instrument" validate:"instrument"`
}

func (*secondForm) Sentences() map[string]string {
	return map[string]string{
		"Class number":          "Choose the class from the list.",
		"Instrument instrument": "Choose the second instrument from the list.",
	}
}

type studentForm struct {
	Class      int64        `form:"class"`
	FirstName  string       `form:"first_name" validate:"required,max=40"`
	Initial    site.Initial `form:"initial" validate:"max=1"`
	Instrument string       `form:"instrument" validate:"instrument"`
}

func (*studentForm) Sentences() map[string]string {
	return map[string]string{
		"Class number":          "Choose the student's class from the list.",
		"FirstName required":    "The first name is missing. Type it, without the family name.",
		"FirstName max":         "The first name is longer than 40 letters. Shorten it.",
		"Initial max":           "The initial is one letter: family names are not kept here.",
		"Instrument instrument": "Choose the student's instrument from the list.",
	}
}
