package teach

import (
	"embed"
	"encoding/json"
	"fmt"
	"strings"
	"sync"
	"time"
)

//go:embed words/*.json
var wordFiles embed.FS

// Catalog is all wording of a student's own page in a language, by key. What comes from the
// trade and the teacher, names, fingerings and the stages' words, is said as it is on the
// Bench.
type Catalog map[string]string

// readCatalog reads a language's file.
func readCatalog(language string) (Catalog, error) {
	text, err := wordFiles.ReadFile("words/" + language + ".json")
	if err != nil {
		return nil, fmt.Errorf("read the words of a student's page: %w", err)
	}
	words := Catalog{}
	if err := json.Unmarshal(text, &words); err != nil {
		return nil, fmt.Errorf("read the words of a student's page in %s: %w", language, err)
	}
	return words, nil
}

// English is the one language there is.
var English = sync.OnceValues(func() (Catalog, error) { return readCatalog("en") })

// Say is the wording of a key, with what stands for {1}, {2} and so on. A key that is missing
// says itself.
func (w Catalog) Say(key string, fill ...any) string {
	text, known := w[key]
	if !known {
		return key
	}
	for k, v := range fill {
		text = strings.ReplaceAll(text, fmt.Sprintf("{%d}", k+1), fmt.Sprint(v))
	}
	return text
}

// Script is what a page's script says, as keys of some beginnings with their wording.
func (w Catalog) Script(beginnings ...string) Catalog {
	some := Catalog{}
	for key, text := range w {
		for _, beginning := range beginnings {
			if strings.HasPrefix(key, beginning+".") {
				some[key] = text
			}
		}
	}
	return some
}

// Weekday names a day of the week.
func (w Catalog) Weekday(on time.Time) string { return w.Say(fmt.Sprintf("weekday.%d", on.Weekday())) }

// Short is Weekday in three letters or so.
func (w Catalog) Short(on time.Time) string { return w.Say(fmt.Sprintf("short.%d", on.Weekday())) }

// Date says a day: "Monday 2 January", or "2 January".
func (w Catalog) Date(on time.Time, weekday bool) string {
	key := "date.short"
	if weekday {
		key = "date.long"
	}
	return w.Say(key, w.Weekday(on), on.Day(), w.Say(fmt.Sprintf("month.%d", on.Month())))
}

// Number says a number in words as far as they go.
func (w Catalog) Number(n int) string {
	if text, known := w[fmt.Sprintf("number.%d", n)]; known {
		return text
	}
	return fmt.Sprint(n)
}
