package account

import (
	"net/url"
	"testing"

	"unhurriedbench/internal/testforms"
)

func TestForms(t *testing.T) {
	t.Parallel()
	testforms.HaveSentences(t, &teacherForm{}, &policyForm{})
	zero := policyForm{}
	testforms.Say(t,
		testforms.Typed{Into: &policyForm{}, Values: url.Values{"longest_days": {"9"}, "idle_days": {"9"}, "idle_minutes": {"9"}}, Says: "Nothing was changed: the months that records are kept are a number from 0, for no end, to 120."},
		testforms.Typed{Into: &teacherForm{}, Values: url.Values{"name": {"Wren"}, "email": {"wren"}}, Says: "The address has no @. Type the e-mail address you will sign in with."},
		testforms.Typed{Into: &zero, Values: url.Values{"longest_days": {"9"}, "idle_days": {"9"}, "idle_minutes": {"9"}, "retain_months": {"0"}}})
	if *zero.RetainMonths != 0 {
		t.Errorf("no end to records is %d months", *zero.RetainMonths)
	}
}
