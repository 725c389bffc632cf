package archive

import (
	"slices"
	"time"
	"unicode/utf8"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/card"
	"unhurriedbench/core/count"
	"unhurriedbench/core/homeplan"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/lesson"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
	"unhurriedbench/core/voice"
	"unhurriedbench/reading"
	"unhurriedbench/store"
)

// The longest texts, in letters. They are no shorter than the forms that texts are typed in
// allow.
const (
	longestTitle     = 300
	longestName      = 80
	longestFirstName = 40
	longestFingering = 80
	longestSetting   = 20_000
	mostLessons      = 2_000  // of a class
	mostCheckins     = 20_000 // of a class
)

// sensible says whether a moment can be one of the program's.
func sensible(at time.Time) bool { return at.Year() >= 2000 && at.Year() < 2200 }

// checks goes on after what is wrong; the first thing stays.
type checks struct{ err error }

func (c *checks) that(ok bool, words string, args ...any) {
	if !ok && c.err == nil {
		c.err = problem(words, args...)
	}
}

func (c *checks) length(what, text string, least, most int) {
	n := utf8.RuneCountInString(text)
	c.that(n >= least && n <= most, "In the archive %s, %q, has %d letters; it may have %d to %d.", what,
		score.Clip(text), n, least, most)
}

func (c *checks) instrument(id string) {
	_, known := instrument.ByID(id)
	c.that(known, "The archive names the instrument %q, which is not known here.", score.Clip(id))
}

func (c *checks) moment(at *time.Time) {
	c.that(at == nil || sensible(*at), "The archive has a date that cannot be right.")
}

func (c *checks) fingering(f store.ArchivedFingering) {
	c.instrument(f.Instrument)
	c.length("a fingering", f.Fingering, 1, longestFingering)
	c.that(f.Pitch >= 0 && f.Pitch <= 127 && f.Measure >= 0 && f.Measure < 10_000 && f.Event >= 0 &&
		f.Event < 10_000, "The archive has a fingering at no place that there is.")
}

// check says what is wrong with what an archive holds: values that are none, or a number
// that names nothing.
func check(e store.Everything) error {
	var c checks
	c.amounts(e)
	for key, value := range e.Settings {
		c.length("a setting", key, 1, 40)
		c.length("a setting", value, 0, longestSetting)
	}
	for id, kind := range e.Kinds {
		c.instrument(id)
		c.length("the kind of an instrument", kind, 1, 40)
	}
	for _, f := range e.Preferred {
		c.fingering(f)
	}
	known := voice.NewVocabulary()
	for k, w := range e.Spoken {
		c.that(known.Has(w.Word) && !slices.ContainsFunc(e.Spoken[:k], func(o store.ArchivedWord) bool { return o.Word == w.Word }),
			"The archive has the recorded word %q, which is none that is spoken, or has it twice.", score.Clip(w.Word))
		c.that(w.Vowel >= 0 && w.Vowel <= voice.LongestWord, "The recorded word %q in the archive begins at no time of its sound.", score.Clip(w.Word))
	}
	c.routines(e)
	exercises := c.books(e)
	c.duetParts(e, exercises)
	classes, groups := map[int]bool{}, map[int]bool{}
	for _, s := range e.Classes {
		c.length("the name of a class", s.Name, 1, longestName)
		c.that(s.Year >= 1 && s.Year <= 3, "The class %q in the archive is in year %d; there are 1 to 3.",
			score.Clip(s.Name), s.Year)
		c.that(s.School == "" || slices.Contains(count.Schools(), count.School(s.School)),
			"The class %q in the archive is counted in a way that is not known here.", score.Clip(s.Name))
		c.line(s.DuetPart)
		for _, line := range s.DuetParts {
			c.line(line)
		}
		c.lessons(s, exercises)
		for _, note := range s.Notes {
			c.length("a note", note, 0, store.LongestNote)
		}
		for _, rule := range s.Rules {
			c.that(rule.Clean >= 0 && rule.Clean <= routine.MostClean,
				"The archive asks for %d clean tries in a row; there are 1 to %d.", rule.Clean, routine.MostClean)
		}
		c.moment(s.Removed)
		c.that(s.GroupOf == 0 || classes[s.GroupOf] && !groups[s.GroupOf],
			"The group %q in the archive is of class %d, which it lacks.", score.Clip(s.Name), s.GroupOf)
		groups[s.No] = s.GroupOf != 0
		c.that(s.Shape.Valid(), "The lessons of the class %q in the archive are laid out in no way that there is.", score.Clip(s.Name))
		c.that(!classes[s.No], "Two classes in the archive have the number %d.", s.No)
		classes[s.No] = true
	}
	students, in := map[int]bool{}, map[int]int{}
	for _, s := range e.Students {
		c.length("a first name", s.FirstName, 1, longestFirstName)
		c.length("an initial", s.Initial, 0, 1)
		c.instrument(s.Instrument)
		c.that(classes[s.Class] && !groups[s.Class], "Student %d in the archive is in class %d, which it lacks.", s.No, s.Class)
		c.that(!students[s.No], "Two students in the archive have the number %d.", s.No)
		students[s.No], in[s.No] = true, s.Class
	}
	for _, s := range e.Classes {
		c.members(s, in)
		c.seconds(s, in)
		c.checkins(s, in, exercises, len(e.Tries))
		c.homePlans(s, in, exercises)
		c.atHome(s, in, exercises)
	}
	c.tries(e, students, exercises)
	return c.err
}

// members checks who is in a group: students of its class, each once.
func (c *checks) members(s store.ArchivedClass, in map[int]int) {
	seen := map[int]bool{}
	for _, no := range s.Members {
		class, there := in[no]
		c.that(there && s.GroupOf != 0 && class == s.GroupOf && !seen[no],
			"The group %q in the archive has student %d, who is not in its class.", score.Clip(s.Name), no)
		seen[no] = true
	}
}

func (c *checks) line(line string) {
	c.that(line == "" || line == "A" || line == "B", "The archive gives out the line %q; there are A and B.",
		score.Clip(line))
}

// lessons checks the lessons of a class.
func (c *checks) lessons(s store.ArchivedClass, exercises map[int]bool) {
	c.that(len(s.Lessons) <= mostLessons, "The class %q in the archive has %d lessons; it may have %d.",
		score.Clip(s.Name), len(s.Lessons), mostLessons)
	for _, l := range s.Lessons {
		c.moment(&l.Made)
		c.moment(l.Begun)
		c.moment(l.Ended)
		c.that(l.Ended == nil || l.Begun != nil, "A lesson in the archive has ended and not begun.")
		c.that(l.Minutes >= 1 && l.Minutes <= lesson.MostMinutes && l.At >= 0 && len(l.Steps) <= lesson.MostSteps,
			"A lesson in the archive has %d minutes and %d steps.", l.Minutes, len(l.Steps))
		for _, step := range l.Steps {
			c.step(step, exercises)
		}
	}
}

// step checks a step of a lesson, or what is due at a check-in.
func (c *checks) step(step lesson.Step, exercises map[int]bool) {
	c.that(exercises[int(step.Exercise)], "A lesson or check-in in the archive is at exercise %d, which it lacks.", step.Exercise)
	c.that(step.Times >= 0 && step.Times <= lesson.MostTimes && step.Talk >= 0 && step.Talk <= lesson.MostTalk &&
		step.Tempo >= 0 && step.Tempo < 1000 && step.Beats >= 0 && step.Beats < 10_000 && step.CountOff >= 0 &&
		step.CountOff < 100 && step.Notes >= 0 && step.Notes < 100_000,
		"A lesson or check-in in the archive has a step that cannot be.")
	c.length("a step of a lesson", step.Title+step.Label+step.Word+step.Why, 0, longestTitle)
}

// seconds checks whose second instrument students stand for, and where the students of a
// class sit; in is the class of each.
func (c *checks) seconds(s store.ArchivedClass, in map[int]int) {
	firsts := map[int]bool{}
	for second, first := range s.Seconds {
		c.that(in[second] == s.No && in[first] != 0 && second != first && !firsts[first],
			"Student %d in the archive is the second instrument of student %d, which cannot be.", second, first)
		firsts[first] = true
	}
	for student, seat := range s.Seats {
		c.that(in[student] == s.No && seat.Row >= 1 && seat.Row <= store.MostRows && seat.Place >= 1 &&
			seat.Place <= store.MostPlaces, "Student %d in the archive has a seat that there is not.", student)
	}
}

// homePlans checks the plans of a class's students.
func (c *checks) homePlans(s store.ArchivedClass, in map[int]int, exercises map[int]bool) {
	planned := map[int]bool{}
	for _, p := range s.HomePlans {
		c.moment(&p.From)
		c.moment(&p.Until)
		c.that(in[p.Student] == s.No && !planned[p.Student],
			"A plan in the archive is of student %d, who is not in its class, or has another.", p.Student)
		planned[p.Student] = true
		c.that(p.From.Before(p.Until) && p.Minutes >= 1 && p.Minutes <= homeplan.MostMinutes &&
			len(p.Weekdays) <= 7 && len(p.Changed) <= homeplan.MostDays && len(p.Plan.Days) <= homeplan.MostDays,
			"A plan in the archive has days or minutes that cannot be.")
		for _, w := range p.Weekdays {
			c.that(w >= 0 && w <= 6, "A plan in the archive is on weekday %d; there are 0 to 6.", w)
		}
		for _, d := range p.Plan.Days {
			c.that(len(d.Items) <= lesson.MostSteps && d.Minutes <= homeplan.MostMinutes,
				"A plan in the archive has a day that cannot be.")
			for _, i := range d.Items {
				if i.Kind.OfAChunk() {
					c.step(i.Step, exercises)
				}
				c.length("a reason", i.Why, 0, longestTitle)
			}
		}
		for _, l := range p.Plan.Left {
			c.step(l.Step, exercises)
		}
		c.that(len(p.Plan.Asked) <= store.MostAsked && len(p.Plan.Page) <= store.MostAsked,
			"A plan in the archive asks for %d lines; there are %d at most.", max(len(p.Plan.Asked), len(p.Plan.Page)), store.MostAsked)
		for _, id := range slices.Concat(p.Plan.Asked, p.Plan.Page) {
			c.that(exercises[int(id)], "A plan in the archive is of exercise %d, which it lacks.", id)
		}
	}
}

// atHome checks what a class's students have said and done at home.
func (c *checks) atHome(s store.ArchivedClass, in map[int]int, exercises map[int]bool) {
	seen := map[int]bool{}
	for _, k := range s.AtHome {
		c.that(in[k.Student] == s.No && !seen[k.Student],
			"What was done at home in the archive is of student %d, who is not in its class, or stands there twice.", k.Student)
		seen[k.Student] = true
		presses, cards, lines := map[store.RequestKey]bool{}, map[store.RequestKey]bool{}, map[store.ArchivedTick]bool{}
		for _, t := range k.Tries {
			c.moment(&t.At)
			_, known := routine.ParseCause(string(t.Cause))
			c.that(exercises[t.Exercise] && t.Tempo >= 0 && t.Tempo <= 400 && t.Chunk.First <= t.Chunk.Last &&
				(known || t.Clean && t.Cause == routine.None) && store.KnownBeside(string(t.Beside)) &&
				len(t.RequestKey) >= 1 && len(t.RequestKey) <= store.LongestKey && !presses[t.RequestKey],
				"The archive has a try at home that cannot be.")
			presses[t.RequestKey] = true
			c.length("a stage", string(t.Stage), 1, longestTitle)
			c.length("what changed", t.Changed, 0, longestTitle)
		}
		for _, t := range k.Done {
			c.moment(&t.On)
			c.length("a line that was done", t.Line, 1, store.LongestLine)
			c.that(!lines[t], "The archive has a line that was done twice on a day.")
			lines[t] = true
		}
		for _, a := range k.Cards {
			c.moment(&a.At)
			_, known := card.ParseKind(string(card.KindOf(a.Card)))
			_, instrumentKnown := instrument.ByID(a.Instrument)
			c.that(known && instrumentKnown && len(a.Card) <= card.LongestID && a.Grade >= card.Missed &&
				a.Grade <= card.Quick && a.Millis >= 0 && a.Millis <= store.LongestAnswer &&
				len(a.RequestKey) >= 1 && len(a.RequestKey) <= store.LongestKey && !cards[a.RequestKey],
				"The archive has an answer to a card that cannot be.")
			cards[a.RequestKey] = true
		}
	}
}

// checkins checks the check-ins of a class's students.
func (c *checks) checkins(s store.ArchivedClass, in map[int]int, exercises map[int]bool, tries int) {
	c.that(len(s.Checkins) <= mostCheckins, "The class %q in the archive has %d check-ins; it may have %d.",
		score.Clip(s.Name), len(s.Checkins), mostCheckins)
	toCome := map[int]bool{}
	for _, k := range s.Checkins {
		c.moment(&k.On)
		c.moment(k.Heard)
		c.length("a comment", k.Comment, 0, store.LongestComment)
		c.that(in[k.Student] == s.No, "A check-in in the archive is of student %d, who is not in its class.", k.Student)
		c.that(k.Heard != nil || !toCome[k.Student], "Student %d in the archive has two check-ins to come.", k.Student)
		toCome[k.Student] = toCome[k.Student] || k.Heard == nil
		c.that(k.Together >= 0 && k.Together <= tries && len(k.Due) <= store.MostDue,
			"A check-in in the archive has what it cannot have.")
		for _, step := range k.Due {
			c.step(step, exercises)
		}
	}
}

// routines checks the teacher's own routines.
func (c *checks) routines(e store.Everything) {
	numbers := map[int]bool{}
	for _, r := range e.Routines {
		problems := append(routine.Named{Title: r.Title, Family: r.Family, Steps: r.Steps}.Check(), "")
		c.that(problems[0] == "", "The routine %q in the archive cannot be kept: %s", score.Clip(r.Title), problems[0])
		c.length("what a routine is for", r.Why, 0, longestTitle)
		c.that(r.No > 0 && !numbers[r.No], "Two routines in the archive have the number %d.", r.No)
		numbers[r.No] = true
	}
	for id := range e.Followed {
		c.instrument(id)
	}
}

// duetParts checks the second lines.
func (c *checks) duetParts(e store.Everything, exercises map[int]bool) {
	taken := map[int]bool{}
	for _, b := range e.Books {
		for _, x := range b.Exercises {
			if x.Second == nil {
				continue
			}
			other, entry := x.Second.Exercise, x.Second.Entry
			round := other == 0 && entry >= 1 && entry <= store.MostEntry
			c.that(round || entry == 0 && exercises[other] && other != x.No && !taken[other],
				"Exercise %d in the archive has a second line that cannot be.", x.No)
			taken[other] = true
		}
	}
}

// amounts checks that no list is longer than a teacher's can be.
func (c *checks) amounts(e store.Everything) {
	exercises, chosen := 0, len(e.Preferred)
	for _, b := range e.Books {
		exercises += len(b.Exercises)
		for _, x := range b.Exercises {
			chosen += len(x.Own) + len(x.Octaves) + len(x.Folded) + len(x.Fingerings) + len(x.Annotations) + len(x.Chunks)
		}
	}
	for _, list := range []struct {
		what      string
		has, most int
	}{
		{"classes", len(e.Classes), mostClasses}, {"routines", len(e.Routines), store.MostRoutines},
		{"books", len(e.Books), mostBooks}, {"exercises", exercises, mostOfBooks},
		{"fingerings, octaves, own parts, marks and chunks", chosen, mostChosen}, {"settings", len(e.Settings) +
			len(e.Kinds), mostSettings},
	} {
		c.that(list.has <= list.most, "The archive holds %d %s; it may hold %d.", list.has, list.what, list.most)
	}
}

// books checks the books, and gives the numbers of their exercises.
func (c *checks) books(e store.Everything) map[int]bool {
	exercises := map[int]bool{}
	for _, b := range e.Books {
		c.length("the title of a book", b.Title, 1, longestTitle)
		c.moment(b.Removed)
		numbers := map[int]bool{}
		for _, x := range b.Exercises {
			c.length("the title of an exercise", x.Title, 0, longestTitle)
			c.that(x.Number >= 1 && x.Number <= 9999, "An exercise of %q in the archive has the number %d; there are 1 to 9999.", score.Clip(b.Title), x.Number)
			c.that(x.Removed != nil || !numbers[x.Number], "Two exercises of %q in the archive have the number %d.",
				score.Clip(b.Title), x.Number)
			c.that(x.Place >= 0 && x.Place <= mostOfBooks, "An exercise of %q in the archive stands at a place that there is not.", score.Clip(b.Title))
			if x.Audience != nil {
				_, known := breakdown.ParseAudience(string(*x.Audience))
				c.that(known, "Exercise %d of %q in the archive is for nobody that is known here.", x.Number, score.Clip(b.Title))
			}
			numbers[x.Number] = numbers[x.Number] || x.Removed == nil
			c.that(!exercises[x.No], "Two exercises in the archive are counted as %d.", x.No)
			exercises[x.No] = true
			c.moment(x.Removed)
			if x.WrittenFor != "" && x.WrittenFor != reading.Concert {
				c.instrument(x.WrittenFor)
			}
			c.music(e, x.Music, x.Part)
			own := map[string]bool{}
			for _, o := range x.Own {
				c.instrument(o.Instrument)
				c.music(e, o.Music, o.Part)
				c.that(!own[o.Instrument], "Exercise %d in the archive has two parts for one instrument.", x.No)
				own[o.Instrument] = true
			}
			for id, octaves := range x.Octaves {
				c.instrument(id)
				c.that(octaves >= -5 && octaves <= 5, "A part in the archive is %d octaves away; there are 5 either way.", octaves)
			}
			for _, id := range x.Folded {
				c.instrument(id)
			}
			places := map[store.ArchivedFingering]bool{}
			for _, f := range x.Fingerings {
				c.fingering(f)
				f.Pitch, f.Fingering = 0, ""
				c.that(!places[f], "A place of exercise %d in the archive has two fingerings.", x.No)
				places[f] = true
			}
			c.byHand(x)
		}
	}
	return exercises
}

// byHand checks the marks and the chunks of an exercise.
func (c *checks) byHand(x store.ArchivedExercise) {
	marks := map[store.ArchivedAnnotation]bool{}
	for _, m := range x.Annotations {
		c.instrument(m.Instrument)
		c.length("a mark", m.Word, 0, breakdown.LongestWord)
		c.that(slices.Contains(breakdown.AnnotationKinds(), m.Kind),
			"Exercise %d in the archive has a mark of no kind that there is.", x.No)
		c.that(m.Pitch >= 0 && m.Pitch <= 127 && m.Measure >= 0 && m.Measure < 10_000 && m.Event >= 0 &&
			m.Event < 10_000, "The archive has a mark at no place that there is.")
		m.Pitch = 0
		c.that(!marks[m], "A mark of exercise %d in the archive stands twice.", x.No)
		marks[m] = true
	}
	for _, p := range x.Chunks {
		key, ok := breakdown.ParseChunkKey(p.Measures)
		c.that(ok && key.Last < 10_000, "Exercise %d in the archive has a chunk of no measures that there are.", x.No)
		c.length("why a chunk is one", p.Why, 0, 200)
	}
}

func (c *checks) music(e store.Everything, hash string, part int) {
	_, has := e.Music[hash]
	c.that(has, "The archive lacks the music %q.", score.Clip(hash))
	c.that(part >= 0 && part < 1000, "An exercise in the archive is made from part %d of its file.", part)
}

func (c *checks) tries(e store.Everything, students, exercises map[int]bool) {
	tries, takenBack := map[int]store.ArchivedTry{}, map[int]bool{}
	for _, t := range e.Tries {
		c.that(students[t.Student] && exercises[t.Exercise],
			"Try %d in the archive is of a student or an exercise that it lacks.", t.No)
		c.that(t.Chunk.First >= 0 && t.Chunk.Last >= t.Chunk.First && t.Chunk.Last < 10_000,
			"Try %d in the archive is at no measures that there are.", t.No)
		c.that(t.Stage.Written() && (t.Stage != routine.Done || t.Moved), "Try %d in the archive is at no stage.", t.No)
		c.that(t.Tempo >= 0 && t.Tempo < 1000, "Try %d in the archive has the tempo %d.", t.No, t.Tempo)
		c.that(t.Together >= 0 && t.Together <= len(e.Tries),
			"Try %d in the archive was marked together with none that there is.", t.No)
		back, there := tries[t.TakesBack]
		alike := there && back.Student == t.Student && back.Exercise == t.Exercise && back.Chunk == t.Chunk
		c.that(t.TakesBack == 0 || alike && !takenBack[t.TakesBack],
			"Try %d in the archive takes back what was not there or is taken back already.", t.No)
		_, twice := tries[t.No]
		c.that(t.No > 0 && !twice, "Two tries in the archive have the number %d.", t.No)
		tries[t.No], takenBack[t.TakesBack] = t, true
	}
}
