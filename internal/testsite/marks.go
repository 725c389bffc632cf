package testsite

import (
	"net/url"
	"strings"
)

// Script sends a form as the page's script does.
func (v *Visitor) Script(path string, form url.Values) (int, string) {
	v.T.Helper()
	r := v.Request("POST", path, strings.NewReader(form.Encode()))
	r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	r.Header.Set("HX-Request", "true")
	return v.Do(r)
}
