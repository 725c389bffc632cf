package counted

import (
	"strconv"
	"strings"
	"unicode"
)

// token is a word or a sign of a line, with its place.
type token struct {
	text         string
	line, column int
}

// isBar says whether a token ends or begins measures.
func (t token) isBar() bool { return strings.Contains(t.text, "|") }

// inBeat are the words for parts of a beat, those that begin like others first.
var inBeat = []string{"la", "li", "ta", "e", "a"}

// tokens takes a count line apart. Labels may run together; digits stand alone.
func tokens(text string, line int) []token {
	var list []token
	for n, row := range strings.Split(text, "\n") {
		runes := []rune(row)
		for k := 0; k < len(runes); {
			c := runes[k]
			add := func(length int) {
				list = append(list, token{string(runes[k : k+length]), line + n, k + 1})
				k += length
			}
			two := string(runes[k:min(k+2, len(runes))])
			switch {
			case unicode.IsSpace(c):
				k++
			case two == "|:" || two == ":|" || two == "||" || two == "|]":
				add(2)
			case unicode.IsLetter(c):
				end := k
				for end < len(runes) && (unicode.IsLetter(runes[end]) || runes[end] == '.') {
					end++
				}
				for _, part := range together(string(runes[k:end])) {
					add(len([]rune(part)))
				}
			default:
				add(1)
			}
		}
	}
	return list
}

// together takes labels apart that run together, as "lali"; another word stays whole.
func together(word string) []string {
	var parts []string
	for rest := word; rest != ""; {
		found := ""
		for _, label := range inBeat {
			if strings.HasPrefix(rest, label) {
				found = label
				break
			}
		}
		if found == "" {
			return []string{word}
		}
		parts, rest = append(parts, found), rest[len(found):]
	}
	return parts
}

// numbers joins digits to numbers of two where a measure has as many beats.
func numbers(list []token, beats int) []token {
	if beats < 10 {
		return list
	}
	var joined []token
	for k := 0; k < len(list); k++ {
		t := list[k]
		if k+1 < len(list) && t.text == "1" && list[k+1].line == t.line && list[k+1].column == t.column+1 {
			if n, err := strconv.Atoi("1" + list[k+1].text); err == nil && n >= 10 && n <= beats {
				t.text, k = strconv.Itoa(n), k+1
			}
		}
		joined = append(joined, t)
	}
	return joined
}
