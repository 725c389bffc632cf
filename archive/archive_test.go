package archive_test

import (
	"archive/zip"
	"bytes"
	"context"
	"encoding/csv"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"regexp"
	"slices"
	"strings"
	"testing"
	"time"
	"unhurriedbench/core/instrument"

	"github.com/santhosh-tekuri/jsonschema/v6"

	"unhurriedbench/archive"
	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/card"
	"unhurriedbench/core/finger"
	"unhurriedbench/core/homeplan"
	"unhurriedbench/core/lesson"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
	"unhurriedbench/core/voice"
	"unhurriedbench/demo"
	"unhurriedbench/internal/testdb"
	"unhurriedbench/reading"
	"unhurriedbench/store"
)

// demoDesk is the demo's desk with, beside the demo, one of everything that it lacks.
func demoDesk(t testing.TB, s *store.Store) *store.Desk {
	t.Helper()
	ctx := context.Background()
	if err := demo.Load(ctx, s); err != nil {
		t.Fatal(err)
	}
	teacher, err := s.DemoTeacher(ctx)
	if err != nil {
		t.Fatal(err)
	}
	d := s.For(teacher.ID)
	exercises, err := d.Exercises(ctx)
	if err != nil {
		t.Fatal(err)
	}
	classes, err := d.Classes(ctx)
	if err != nil {
		t.Fatal(err)
	}
	students, err := d.Students(ctx, classes[0].ID)
	if err != nil {
		t.Fatal(err)
	}
	x, st := exercises[0], students[0]
	formula, err := d.AddStudent(ctx, store.Student{ClassID: classes[0].ID, FirstName: "=1+1", Initial: "-", Instrument: "oboe"})
	if err != nil {
		t.Fatal(err)
	}
	gone, err := d.AddStudent(ctx, store.Student{ClassID: classes[0].ID, FirstName: "'Quoted, \"twice\"", Instrument: "oboe"})
	if err != nil {
		t.Fatal(err)
	}
	try := store.Attempt{StudentID: st.ID, ExerciseID: x.ID, Chunk: x.Outline.Chunks[0], Try: routine.Try{Stage: routine.Count, Clean: true}, Tempo: 60}
	other := try
	other.StudentID = formula
	batch, err := d.AddTogether(ctx, "", try, other)
	if err != nil {
		t.Fatal(err)
	}
	if err := d.SaveSpokenWords(ctx, []store.SpokenWord{{Word: "E flat", Vowel: 0.05, Sound: voice.WriteWAV(make([]float64, 900))}}); err != nil {
		t.Fatal(err)
	}
	own, err := d.SaveRoutine(ctx, routine.Named{Title: "Ours", Why: "Sung.", Family: "brass", Steps: routine.Routine{
		{Stage: "own-sing", Word: "Sing", Kind: routine.Name, Mends: []routine.Cause{routine.Sound}, Ways: []routine.Way{routine.Echo}, Times: 3, NoClick: true,
			Tempo: routine.Climb, TempoSteps: 2, Clean: 4, Stay: true, Say: []routine.Saying{{Family: "brass", Words: "Sing, all of you."}}},
		routine.Standard()[0], routine.Standard()[3],
	}})
	if err != nil {
		t.Fatal(err)
	}
	held, err := d.AddLesson(ctx, classes[0].ID, lesson.Plan{Minutes: 30, Steps: []lesson.Step{{
		Exercise: int64(x.ID), Number: 1, Title: "First", Chunk: x.Outline.Chunks[0], Label: "A", Stage: routine.Count, Word: "Count", Form: routine.Count, Times: 2, Tempo: 60,
		Talk: 20, Beats: 8, CountOff: 4, Notes: 6, Group: []int64{int64(st.ID)},
	}}})
	if err != nil {
		t.Fatal(err)
	}
	class, err := d.AddClass(ctx, "Period 5, away")
	if err != nil {
		t.Fatal(err)
	}
	second, err := d.AddSecondInstrument(ctx, st.ID, classes[0].ID, "cello")
	if err != nil {
		t.Fatal(err)
	}
	if err := d.SetCheckins(ctx, store.Checkin{Student: st.ID, On: time.Date(2026, 11, 24, 0, 0, 0, 0, time.UTC), Due: []lesson.Step{{
		Exercise: int64(x.ID), Number: 1, Title: "First", Chunk: x.Outline.Chunks[0], Label: "A", Stage: routine.Play, Word: "Play", Form: routine.Play, Times: 1, Tempo: 60, Beats: 8, CountOff: 4, Notes: 6,
	}}}); err != nil {
		t.Fatal(err)
	}
	checkins, err := d.StudentCheckins(ctx, st.ID, 1)
	if err != nil {
		t.Fatal(err)
	}
	for _, err := range []error{
		d.MarkAtCheckin(ctx, "", checkins[0].ID, try), d.EndCheckin(ctx, checkins[0].ID, "=Steadier, \"much\".", store.Checkin{On: time.Date(2026, 12, 1, 0, 0, 0, 0, time.UTC)}),
		d.SaveHomePlans(ctx, store.HomePlan{Student: st.ID, From: time.Date(2026, 12, 1, 0, 0, 0, 0, time.UTC), Until: time.Date(2026, 12, 8, 0, 0, 0, 0, time.UTC), Weekdays: []int{1, 4}, Minutes: 15, Changed: map[string]int{"2026-12-03": 0},
			Plan: homeplan.Make([]homeplan.Day{{On: 20788, Minutes: 15}}, []homeplan.Chunk{{Chunk: lesson.Chunk{Exercise: int64(x.ID), Number: 1, Title: "First", Key: x.Outline.Chunks[0], Label: "A", Beats: 8, Tempo: 60}, Steps: routine.Standard(), Due: true}}, homeplan.Daily{Warm: true, Cards: true})}),
		d.SaveSeats(ctx, classes[0].ID, [][]store.StudentID{{students[1].ID}, {second, st.ID}}),
		d.UndoTogether(ctx, batch), d.HasLeft(ctx, gone), d.MoveToTrash(ctx, store.TrashClass, int64(class)), d.MoveToTrash(ctx, store.TrashStudent, int64(formula)),
		d.MoveToTrash(ctx, store.TrashExercise, int64(exercises[2].ID)), d.SaveOctaveChoice(ctx, x.ID, "trombone", instrument.OctaveChoice{Chosen: true, Octaves: -1, Folded: true}), d.SaveYear(ctx, classes[0].ID, 2),
		d.MoveExercise(ctx, exercises[1].ID, exercises[0].ID),
		d.SaveAnnotation(ctx, x.ID, "oboe", score.Place{Measure: 1}, breakdown.Annotation{Kind: breakdown.AnnotationWord, Word: "=soft", Pitch: 67}),
		d.SaveDuetPart(ctx, store.DuetPart{A: x.ID, Entry: 2}),
		d.BeginLesson(ctx, held), d.AtStep(ctx, held, 1, []store.StudentID{st.ID}), d.EndLesson(ctx, held),
		d.ChooseRoutine(ctx, store.Chooser{}, own), d.ChooseRoutine(ctx, store.Chooser{Class: classes[0].ID}, own), d.ChooseRoutine(ctx, store.Chooser{Exercise: x.ID}, "echo-first"),
		d.ChooseRoutine(ctx, store.Chooser{Instrument: "trombone"}, own), d.SaveNote(ctx, st.ID, "=Sits by the window, \"second row\"."), d.SaveRule(ctx, st.ID, routine.Rule{Clean: 3, Stay: true}),
		d.AddAttempts(ctx, store.Attempt{StudentID: st.ID, ExerciseID: x.ID, Chunk: x.Outline.Chunks[0], Try: routine.Try{Stage: routine.Done, Moved: true}}),
		d.SaveHandChunks(ctx, x.ID, []breakdown.HandChunk{{Key: breakdown.ChunkKey{First: 1, Last: 1}, Why: "by hand"}, {Key: breakdown.ChunkKey{First: 1, Last: 2}}}),
		d.SaveFingering(ctx, x.ID, "oboe", score.Place{Event: 1}, finger.Spot{Pitch: 60, Text: "1 2 3 | 4 5 6 C"}), d.Prefer(ctx, "oboe", 65, "1 2 3 | 4 6"),
		d.SaveModel(ctx, "oboe", "left-f"), d.SaveSettings(ctx, store.Settings{"two": "pair", "school": "takadimi"}), d.SaveSchool(ctx, classes[0].ID, "numbers"),
		d.SaveOverrides(ctx, x.ID, store.OwnPart{Instrument: "horn-f", Source: store.Source{Format: "abc", Content: "T:Own\nL:1/4\nK:F\nF4|]"}}),
	} {
		if err != nil {
			t.Fatal(err)
		}
	}
	sayAtHome(t, s, d, st.ID, x)
	return d
}

// sayAtHome has a student open their own page, say of two tries how they went, tick a line and
// answer cards.
func sayAtHome(t testing.TB, s *store.Store, d *store.Desk, student store.StudentID, x store.Exercise) {
	t.Helper()
	ctx := context.Background()
	if err := d.MakeOwnPages(ctx, student); err != nil {
		t.Fatal(err)
	}
	page, err := d.OwnPageOf(ctx, student)
	if err != nil {
		t.Fatal(err)
	}
	home, err := s.AtHome(ctx, page.Key)
	if err != nil {
		t.Fatal(err)
	}
	at := time.Date(2026, 12, 1, 16, 0, 0, 0, time.UTC)
	for _, err := range []error{
		home.Say(ctx, store.HomeTry{Exercise: x.ID, Chunk: x.Outline.Chunks[0], Try: routine.Try{Stage: routine.Play, Cause: routine.Rhythm}, Tempo: 60, At: at, RequestKey: "one"}),
		home.Say(ctx, store.HomeTry{Exercise: x.ID, Chunk: x.Outline.Chunks[0], Try: routine.Try{Stage: routine.Play, Clean: true}, Beside: store.Better, Changed: "slower", At: at, RequestKey: "two"}),
		home.Tick(ctx, store.HomeTick{On: at.Truncate(24 * time.Hour), Line: "warm"}),
		home.AnswerCards(ctx, store.CardAnswer{Instrument: home.Student.Instrument, Answered: card.Answered{Card: "name:F4:C3", Grade: card.Slow, Millis: 5000, At: at}, RequestKey: "three"}),
	} {
		if err != nil {
			t.Fatal(err)
		}
	}
}

func packed(t testing.TB, d *store.Desk) []byte {
	t.Helper()
	e, err := d.Everything(context.Background())
	if err != nil {
		t.Fatal(err)
	}
	var b bytes.Buffer
	if err := archive.Write(&b, e); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}

// files are the contents of a zip by name.
func files(t testing.TB, data []byte) map[string]string {
	t.Helper()
	z, err := zip.NewReader(bytes.NewReader(data), int64(len(data)))
	if err != nil {
		t.Fatal(err)
	}
	found := map[string]string{}
	for _, f := range z.File {
		in, err := f.Open()
		if err != nil {
			t.Fatal(err)
		}
		content, err := io.ReadAll(in)
		if err != nil {
			t.Fatal(err)
		}
		found[f.Name] = string(content)
	}
	return found
}

func TestTheDemosArchive(t *testing.T) {
	desk := demoDesk(t, testdb.Open(t))
	whole := packed(t, desk)
	t.Run("the round trip", func(t *testing.T) { roundTrip(t, desk, whole) })
	t.Run("what others read", func(t *testing.T) { othersRead(t, whole) })
	t.Run("broken ones", func(t *testing.T) { brokenArchives(t, whole) })
	t.Run("moments", func(t *testing.T) { wrongMoments(t, whole) })
	t.Run("read and written", func(t *testing.T) { readAndWritten(t, whole) })
}

// What a teacher owns is the same, file by file, once it is brought into another
// installation, and their students stand where they stood.
func roundTrip(t *testing.T, from *store.Desk, first []byte) {
	ctx := context.Background()
	e, err := archive.Read(bytes.NewReader(first), int64(len(first)))
	if err != nil {
		t.Fatal(err)
	}
	there := testdb.Open(t)
	for _, other := range []string{"somebody else", "and another"} { // so that ids differ
		if _, err := there.AddTeacher(ctx, strings.ReplaceAll(other, " ", "")+"@school.example", other, "", "a long password"); err != nil {
			t.Fatal(err)
		}
	}
	account, err := there.AddTeacher(ctx, "new@school.example", "New", "", "a long password")
	if err != nil {
		t.Fatal(err)
	}
	to := there.For(account.ID)
	if b, err := to.Import(ctx, e); err != nil || b.Books != 1 || b.Tries != len(e.Tries) || b.Students != len(e.Students) {
		t.Fatalf("bringing it in gives %+v, %v", b, err)
	}
	before, after := files(t, first), files(t, packed(t, to))
	if len(before) != len(after) || len(before) < 15 {
		t.Errorf("there are %d files, then %d", len(before), len(after))
	}
	for name, content := range before {
		if after[name] != content {
			t.Errorf("%s differs after the round trip", name)
		}
	}
	// chunks that are alike share once it is known that they are
	if _, err := reading.New(reading.Memory).RefreshAll(ctx, there, false); err != nil {
		t.Fatal(err)
	}
	if was, is := standings(t, from), standings(t, to); !slices.Equal(was, is) || len(was) < 100 {
		t.Errorf("%d students' chunks stand as %d", len(was), len(is))
	}
	// Once more into the same account: names are taken, and nothing is lost.
	if _, err := to.Import(ctx, e); err != nil {
		t.Fatal(err)
	}
	books, err := to.Books(ctx)
	if err != nil || len(books) != 2 || books[1].Title != books[0].Title+" (2)" {
		t.Errorf("brought in twice the books are %v, %v", books, err)
	}
}

// standings tells where everybody stands, without ids.
func standings(t *testing.T, d *store.Desk) []string {
	t.Helper()
	ctx := context.Background()
	classes, err := d.Classes(ctx)
	if err != nil {
		t.Fatal(err)
	}
	exercises, err := d.Exercises(ctx)
	if err != nil {
		t.Fatal(err)
	}
	numbers := map[store.ExerciseID]int{}
	for _, x := range exercises {
		numbers[x.ID] = x.Number
	}
	var list []string
	for _, class := range classes {
		students, err := d.Students(ctx, class.ID)
		if err != nil {
			t.Fatal(err)
		}
		found, err := d.ClassStandings(ctx, class.ID)
		if err != nil {
			t.Fatal(err)
		}
		for _, student := range students {
			for task, at := range found {
				if task.Student != student.ID || numbers[task.Exercise] == 0 { // deleted, it is not read again
					continue
				}
				for chunk, state := range at.Chunks {
					list = append(list, fmt.Sprint(student.Name(), numbers[task.Exercise], chunk, state, at.Times[chunk].Last))
				}
			}
		}
	}
	slices.Sort(list)
	return list
}

// Outside checks: owned.json is what its schema says, by another program's reading of the
// schema, and the CSV files are read by the standard library; no cell is a formula.
func othersRead(t *testing.T, whole []byte) {
	content := files(t, whole)
	schema, err := jsonschema.UnmarshalJSON(strings.NewReader(content["owned.schema.json"]))
	if err != nil {
		t.Fatal(err)
	}
	c := jsonschema.NewCompiler()
	if err := c.AddResource("owned.schema.json", schema); err != nil {
		t.Fatal(err)
	}
	compiled, err := c.Compile("owned.schema.json")
	if err != nil {
		t.Fatal(err)
	}
	owned, err := jsonschema.UnmarshalJSON(strings.NewReader(content["owned.json"]))
	if err != nil {
		t.Fatal(err)
	}
	if err := compiled.Validate(owned); err != nil {
		t.Error(err)
	}
	for name, least := range map[string]int{"students.csv": 20, "tries.csv": 200} {
		rows, err := csv.NewReader(strings.NewReader(content[name])).ReadAll()
		if err != nil || len(rows) < least {
			t.Errorf("%s has %d rows, %v", name, len(rows), err)
		}
		for _, row := range rows {
			for _, cell := range row {
				if cell != "" && strings.ContainsAny(cell[:1], "=+-@\t") {
					t.Errorf("%s has the cell %q", name, cell)
				}
			}
		}
	}
}

// changed is an archive with a file changed.
func changed(t *testing.T, data []byte, name string, change func(string) string) []byte {
	t.Helper()
	var b bytes.Buffer
	z := zip.NewWriter(&b)
	for file, content := range files(t, data) {
		if file == name {
			content = change(content)
		}
		if content == "" {
			continue
		}
		out, err := z.Create(file)
		if err == nil {
			_, err = io.WriteString(out, content)
		}
		if err != nil {
			t.Fatal(err)
		}
	}
	if err := z.Close(); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}

// No moment in an archive may lie where there is no calendar for it.
func wrongMoments(t *testing.T, whole []byte) {
	moment := regexp.MustCompile(`"\d{4}-\d\d-\d\dT[^"]*Z"`)
	owned := files(t, whole)["owned.json"]
	found := moment.FindAllStringIndex(owned, -1)
	if len(found) < 8 {
		t.Fatalf("there are only %d moments", len(found))
	}
	for _, at := range found {
		data := changed(t, whole, "owned.json", func(s string) string { return s[:at[0]] + `"9998-01-01T00:00:00Z"` + s[at[1]:] })
		if _, err := archive.Read(bytes.NewReader(data), int64(len(data))); err == nil {
			t.Errorf("the year 9998 is taken in %s", owned[max(0, at[0]-30):at[1]])
		}
	}
}

// Archives that are broken, or say what cannot be, are refused with a sentence of our own.
func brokenArchives(t *testing.T, whole []byte) {
	replaced := func(old, by string) func(string) string {
		return func(s string) string {
			if !strings.Contains(s, old) {
				t.Errorf("there is no %q to replace", old)
			}
			return strings.Replace(s, old, by, 1)
		}
	}
	for says, data := range map[string][]byte{
		"no archive":                    []byte("PK nonsense"),
		"lacks the file owned.json":     changed(t, whole, "owned.json", func(string) string { return "" }),
		"cannot be read as JSON":        changed(t, whole, "owned.json", func(s string) string { return s[:len(s)/2] }),
		"reads format 2":                changed(t, whole, "owned.json", replaced(`"format": 2`, `"format": 3`)),
		"is not known here":             changed(t, whole, "owned.json", replaced(`"instrument": "oboe"`, `"instrument": "kazoo"`)),
		"1 to 3":                        changed(t, whole, "owned.json", replaced(`"year": 2`, `"year": 4`)),
		"1 to 9999":                     changed(t, whole, "owned.json", replaced(`"number": 1,`, `"number": 0,`)),
		"5 either way":                  changed(t, whole, "owned.json", replaced(`"trombone": -1`, `"trombone": -100000000`)),
		"lacks the music":               changed(t, whole, "owned.json", replaced(`"music": "`, `"music": "0`)),
		"is no at":                      changed(t, whole, "tries.csv", replaced("2026-", "1970-")),
		"is not one of 11 cells":        changed(t, whole, "tries.csv", func(s string) string { return s + "1,2,3\r\n" }),
		"does not begin with the line":  changed(t, whole, "tries.csv", replaced("student", "pupil")),
		"a student or an exercise":      changed(t, whole, "tries.csv", func(s string) string { return s + "99999,2026-01-01T00:00:00Z,999,1,1,2,count,clean,60,,\r\n" }),
		"at no stage":                   changed(t, whole, "tries.csv", func(s string) string { return s + "99999,2026-01-01T00:00:00Z,1,1,1,2,DONE,clean,60,,\r\n" }),
		"is no result":                  changed(t, whole, "tries.csv", func(s string) string { return s + "99999,2026-01-01T00:00:00Z,1,1,1,2,count,wobble,60,,\r\n" }),
		"takes back what was not there": changed(t, whole, "tries.csv", func(s string) string { return s + "99999,2026-01-01T00:00:00Z,1,1,1,2,count,clean,60,99998,\r\n" }),
		"is in class 77":                changed(t, whole, "students.csv", func(s string) string { return s + "999,77,A,,oboe,,\r\n" }),
		"a first name":                  changed(t, whole, "students.csv", func(s string) string { return s + "999,1," + strings.Repeat("A", 41) + ",,oboe,,\r\n" }),
		"it may hold 1000":              changed(t, whole, "owned.json", replaced(`"classes": [`, `"classes": [`+strings.Repeat(`{"no": 1, "name": "x", "year": 1},`, 1001))),
		"cannot be read as sound":       changed(t, whole, "voice/E flat.wav", func(string) string { return "RIFF no sound" }),
		"none that is spoken":           changed(t, whole, "owned.json", replaced(`"vowel": 0.05`, `"vowel": 0.05}, {"word": "E flat", "vowel": 0`)),
		"at no time of its sound":       changed(t, whole, "owned.json", replaced(`"vowel": 0.05`, `"vowel": -1`)),
		"larger than a file may be":     changed(t, whole, "students.csv", func(s string) string { return s + strings.Repeat("x", 201<<20) }),
	} {
		_, err := archive.Read(bytes.NewReader(data), int64(len(data)))
		var p archive.Problem
		if !errors.As(err, &p) || !strings.Contains(err.Error(), says) {
			t.Errorf("want %q, got %v", says, err)
		}
	}
}

// What Everything keeps is what JSON keeps: an archive read back writes the same archive.
func readAndWritten(t *testing.T, whole []byte) {
	e, err := archive.Read(bytes.NewReader(whole), int64(len(whole)))
	if err != nil {
		t.Fatal(err)
	}
	var again bytes.Buffer
	if err := archive.Write(&again, e); err != nil {
		t.Fatal(err)
	}
	was, is := files(t, whole), files(t, again.Bytes())
	for name := range was {
		if was[name] != is[name] {
			t.Errorf("%s is not written as it was read", name)
		}
	}
	if !json.Valid([]byte(was["owned.json"])) {
		t.Error("owned.json is no JSON")
	}
}

// An archive that an earlier release wrote, of format 1, is read with all that is in it.
func TestFormat1(t *testing.T) {
	data, err := os.ReadFile("testdata/format1.zip")
	if err != nil {
		t.Fatal(err)
	}
	e, err := archive.Read(bytes.NewReader(data), int64(len(data)))
	if err != nil {
		t.Fatal(err)
	}
	class, gone, x := e.Classes[0], e.Classes[2], e.Books[0].Exercises[0]
	own, at := e.Routines[0].Steps[0], class.AtHome[0]
	for what, got := range map[string]any{
		"3 classes, one deleted":    len(e.Classes) == 3 && class.Removed == nil && gone.Removed != nil,
		"the students of a class":   e.Students[1].Class == 1,
		"a chunk cut by hand":       len(x.Chunks) == 2 && x.Chunks[0].Measures == "1-1",
		"an annotation":             len(x.Annotations) == 1 && x.Annotations[0].Word == "=soft",
		"a round":                   x.Second != nil && x.Second.Entry == 2,
		"the chunk of a lesson":     class.Lessons[0].Steps[0].Chunk.Last > 0,
		"the chunk of a check-in":   class.Checkins[0].Due[0].Chunk.Last > 0,
		"the chunk of a plan":       class.HomePlans[0].Plan.Days[0].Items[1].Step.Chunk.Last > 0,
		"the tempos of a stage":     own.TempoSteps == 2,
		"the key of a try at home":  at.Tries[0].RequestKey == "one",
		"a line of a plan, ticked":  at.Done[0].Line == "warm",
		"what was tried":            len(e.Tries) > 1000,
		"the music of every source": len(e.Music) > 0,
	} {
		if got != true {
			t.Errorf("it lacks %s", what)
		}
	}
	to := testdb.Open(t)
	account, err := to.AddTeacher(t.Context(), "new@school.example", "New", "", "a long password")
	if err != nil {
		t.Fatal(err)
	}
	if _, err := to.For(account.ID).Import(t.Context(), e); err != nil {
		t.Error(err)
	}
}
