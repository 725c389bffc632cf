package account

import ()

type teacherForm struct {
	Name   string `form:"name" validate:"required,max=120"`
	School string `form:"school" validate:"max=120"`
	Email  string `form:"email" validate:"contains=@,max=120"`
}

func (*teacherForm) Sentences() map[string]string {
	const long = "A name or an address is longer than 120 letters. Shorten it."
	return map[string]string{
		"Name required": "Your name is missing. Type the name your students call you.", "Name max": long,
		"School max": long, "Email max": long,
		"Email contains": "The address has no @. Type the e-mail address you will sign in with.",
	}
}

type policyForm struct {
	LongestDays  int    `form:"longest_days" validate:"min=1,max=90"`
	IdleDays     int    `form:"idle_days" validate:"min=1,max=90"`
	IdleMinutes  int    `form:"idle_minutes" validate:"min=5,max=240"`
	RetainMonths *int   `form:"retain_months" validate:"required,min=0,max=120"` // 0 is a choice
	Zone         string `form:"zone"`
}

func (*policyForm) Sentences() map[string]string {
	said := map[string]string{}
	for field, words := range map[string]string{
		"LongestDays":  "the longest session is a number of days from 1 to 90",
		"IdleDays":     "the days without use are a number from 1 to 90",
		"IdleMinutes":  "the minutes on a shared computer are a number from 5 to 240",
		"RetainMonths": "the months that records are kept are a number from 0, for no end, to 120",
	} {
		for _, check := range []string{"number", "required", "min", "max"} {
			said[field+" "+check] = "Nothing was changed: " + words + "."
		}
	}
	return said
}
