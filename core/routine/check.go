package routine

import (
	"fmt"
	"regexp"
	"slices"
	"strings"
	"unicode/utf8"

	"unhurriedbench/core/instrument"
)

// Bounds of what a teacher may write. The figures are ours.
const (
	MostSteps      = 12
	LongestTitle   = 60  // letters
	LongestWord    = 20  // letters
	LongestWords   = 300 // letters of what is said at a stage
	MostTimes      = 8
	MostClean      = 5 // in a row. Source: common practice
	MostTempoSteps = 12
)

// stageText is what a stage may be called in the log.
var stageText = regexp.MustCompile(`^[a-z][a-z0-9-]{0,19}$`)

// Written says whether the log may call a stage so.
func (s Stage) Written() bool { return stageText.MatchString(string(s)) }

// Check says what of a routine is not as it must be, in sentences; none where it is.
func (n Named) Check() []string {
	var problems []string
	wrong := func(format string, args ...any) { problems = append(problems, fmt.Sprintf(format, args...)) }
	switch letters := utf8.RuneCountInString(strings.TrimSpace(n.Title)); {
	case letters == 0:
		wrong("Give the routine a name.")
	case letters > LongestTitle:
		wrong("The name has %d letters. Make it %d or fewer.", letters, LongestTitle)
	}
	if n.Family != "" && !slices.Contains(instrument.Families(), n.Family) {
		wrong("Choose whom the routine is for from the list.")
	}
	switch {
	case len(n.Steps) == 0:
		wrong("A routine has one stage at least. Add one.")
	case len(n.Steps) > MostSteps:
		wrong("A routine has at most %d stages; this one has %d.", MostSteps, len(n.Steps))
	}
	seen := map[Stage]bool{}
	for k, s := range n.Steps {
		for _, problem := range s.check() {
			wrong("Stage %d: %s", k+1, problem)
		}
		if seen[s.Stage] {
			wrong("Stage %d: %s is in the routine already. A stage stands once; have it done more often instead.", k+1, s.Word)
		}
		seen[s.Stage] = true
	}
	return problems
}

// check says what of a stage is not as it must be.
func (s Step) check() []string {
	var problems []string
	wrong := func(format string, args ...any) { problems = append(problems, fmt.Sprintf(format, args...)) }
	if !s.Stage.Written() || s.Stage == Done {
		wrong("choose which it is from the list.")
	}
	if letters := utf8.RuneCountInString(strings.TrimSpace(s.Word)); letters == 0 || letters > LongestWord {
		wrong("give it a word of 1 to %d letters.", LongestWord)
	}
	if !slices.Contains(Forms(), s.Form()) {
		wrong("say whether it is a way to count, name, finger or play.")
	}
	for _, within := range []struct {
		what           string
		n, least, most int
	}{
		{"how often it is done", s.Times, 0, MostTimes}, {"how many clean in a row go on", s.Clean, 0, MostClean},
		{"how many clean in a row of a class go on", s.ClassClean, 0, MostClean},
		{"how many notches it climbs", s.TempoSteps, 0, MostTempoSteps},
	} {
		if within.n < within.least || within.n > within.most {
			wrong("%s is %d. Make it %d to %d.", within.what, within.n, within.least, within.most)
		}
	}
	if !slices.Contains(TempoRules(), s.Tempo) {
		wrong("choose its tempo from the list.")
	}
	for _, w := range s.Ways {
		if _, known := ParseWay(string(w)); !known {
			wrong("choose its ways from the list.")
		}
	}
	for _, c := range s.Mends {
		if _, known := ParseCause(string(c)); !known {
			wrong("choose what it mends from the list.")
		}
	}
	for _, own := range s.Say {
		if letters := utf8.RuneCountInString(own.Words); letters > LongestWords {
			wrong("what is said has %d letters. Make it %d or fewer.", letters, LongestWords)
		}
		if own.Family != "" && !slices.Contains(instrument.Families(), own.Family) {
			wrong("choose to whom it is said from the list.")
		}
	}
	return problems
}

// Catalogue lists every stage there are words for, as it stands in the first shipped
// routine that has it.
func Catalogue() Routine {
	var all Routine
	for _, n := range Shipped() {
		for _, s := range n.Steps {
			if !all.Has(s.Stage) {
				all = append(all, s)
			}
		}
	}
	return all
}

// OwnStage names a stage of the teacher's own by its word, so that it is none of those in
// a routine: "sing", "sing-2".
func OwnStage(word string, in Routine) Stage {
	var b strings.Builder
	for _, c := range strings.ToLower(word) {
		switch {
		case c >= 'a' && c <= 'z', c >= '0' && c <= '9' && b.Len() > 0:
			b.WriteRune(c)
		case b.Len() > 0 && !strings.HasSuffix(b.String(), "-"):
			b.WriteRune('-')
		}
		if b.Len() == 12 {
			break
		}
	}
	base := "own-" + strings.Trim(b.String(), "-")
	base = strings.TrimSuffix(base, "-")
	taken := func(s Stage) bool { return in.Index(s) >= 0 || s == Done }
	stage := Stage(base)
	for n := 2; taken(stage); n++ {
		stage = Stage(fmt.Sprintf("%s-%d", base, n))
	}
	return stage
}
