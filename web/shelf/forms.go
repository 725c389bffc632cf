package shelf

import ()

type exerciseForm struct {
	Number     int    `form:"number" validate:"min=1,max=9999"`
	Book       string `form:"book" validate:"required,max=120"`
	Title      string `form:"title" validate:"max=120"`
	WrittenFor string `form:"written_for" validate:"writtenfor"`
}

func (*exerciseForm) Sentences() map[string]string {
	const number = "The number “%s” is not one from 1 to 9999. Type the exercise's number in the book."
	const long = "A title is longer than 120 letters. Shorten it."
	return map[string]string{
		"Number number": number, "Number min": number, "Number max": number,
		"Book required": "The book's title is missing. Choose a book, or type a title for a new one.",
		"Book max":      long, "Title max": long,
		"WrittenFor writtenfor": "Choose for whom it is written from the list.",
	}
}
