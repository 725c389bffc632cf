package web

import (
	_ "embed"
	"fmt"
	"slices"
	"strings"
	"sync"
	"unicode/utf8"

	"unhurriedbench/store"
)

//go:embed common-passwords.txt
var commonPasswords string

// commonOnes are passwords that are tried first, in small letters. Source: from memory,
// what such lists have in common, of those that are long enough.
var commonOnes = sync.OnceValue(func() []string { return strings.Fields(commonPasswords) })

// UnfitPassword says why a password is not taken for a teacher, "" where it is. It must
// not be made of what others know of them.
func UnfitPassword(password string, t store.Teacher) string {
	plain := strings.ToLower(strings.TrimSpace(password))
	switch {
	case utf8.RuneCountInString(password) < store.ShortestPassword:
		return fmt.Sprintf("The password is too short. Use at least %d characters: three words do well.", store.ShortestPassword)
	case len(password) > store.LongestPassword:
		return fmt.Sprintf("The password is too long. Use at most %d characters.", store.LongestPassword)
	case slices.Contains(commonOnes(), plain), len(strings.Trim(plain, plain[:1])) == 0:
		return "That password is one of the commonest, which are tried first. Choose another: three words do well."
	}
	for _, word := range []string{t.Name, t.Email, t.School, before(t.Email, "@")} {
		if word = strings.ToLower(strings.TrimSpace(word)); word != "" && strings.Trim(strings.Replace(plain, word, "", 1), "0123456789!?. ") == "" {
			return "That password is your own name or address. Choose one that nobody can guess from them."
		}
	}
	return ""
}
