package site

import (
	_ "embed"
	"fmt"
	"strings"
	"sync"
	"unicode/utf8"

	"unhurriedbench/store"
)

// The commonest passwords: from a published list, which bin/vendor fetches, and of our own,
// from memory.
var (
	//go:embed common-passwords.txt
	publishedPasswords string
	//go:embed common-passwords-own.txt
	ownPasswords string
)

// commonOnes are passwords that are tried first, in small letters.
var commonOnes = sync.OnceValue(func() map[string]bool {
	set := map[string]bool{}
	for word := range strings.FieldsSeq(strings.ToLower(publishedPasswords + "\n" + ownPasswords)) {
		set[word] = true
	}
	return set
})

// common says whether a password, in small letters, is one that is tried first: one of the
// commonest, also with figures and marks around it, or one letter again and again.
func common(plain string) bool {
	word := strings.Trim(plain, "0123456789!?.,-_#*$@ ")
	return plain == "" || commonOnes()[plain] || commonOnes()[word] || len(strings.Trim(plain, plain[:1])) == 0
}

// UnfitPassword says why a password is not taken for a teacher, "" where it is. It must
// not be made of what others know of them.
func UnfitPassword(password string, t store.Teacher) string {
	plain := strings.ToLower(strings.TrimSpace(password))
	switch {
	case utf8.RuneCountInString(password) < store.ShortestPassword:
		return fmt.Sprintf("The password is too short. Use at least %d characters: three words do well.",
			store.ShortestPassword)
	case len(password) > store.LongestPassword:
		return fmt.Sprintf("The password is too long. Use at most %d characters.", store.LongestPassword)
	case common(plain):
		return "That password is one of the commonest, which are tried first. Choose another: three words do well."
	}
	for _, word := range []string{t.Name, t.Email, t.School, before(t.Email, "@")} {
		if word = strings.ToLower(strings.TrimSpace(word)); word != "" &&
			strings.Trim(strings.Replace(plain, word, "", 1), "0123456789!?. ") == "" {
			return "That password is your own name or address. Choose one that nobody can guess from them."
		}
	}
	return ""
}
