package testsite

import (
	"context"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"unhurriedbench/store"
)

// OwnPageOf gives a student a page of their own, and its address.
func OwnPageOf(t *testing.T, s *Site, b Belongings, student store.StudentID) string {
	t.Helper()
	ctx, desk := context.Background(), s.Store.For(b.Teacher)
	if err := desk.MakeOwnPages(ctx, student); err != nil {
		t.Fatal(err)
	}
	page, err := desk.OwnPageOf(ctx, student)
	if err != nil {
		t.Fatal(err)
	}
	return "/my/" + page.Key + "/"
}

// Answered sends a form as a page's script does, and says what came.
func (v *Visitor) Answered(path string, form url.Values) int {
	v.T.Helper()
	r := v.Request(http.MethodPost, path, strings.NewReader(form.Encode()))
	r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	r.Header.Set("Accept", "application/json")
	r.Header.Set("Origin", "null") // of a page that tells no referrer, in browsers that say no more
	answer, err := v.Client.Do(r)
	if err != nil {
		v.T.Fatal(err)
	}
	answer.Body.Close()
	return answer.StatusCode
}
