package store

import (
	"context"
	"database/sql"
	"fmt"
	"time"

	"github.com/jmoiron/sqlx"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/card"
	"unhurriedbench/core/homeplan"
	"unhurriedbench/core/lesson"
	"unhurriedbench/core/routine"
)

// Everything is all that a teacher owns, as it is moved to another installation. Rows are
// numbered from 1 in each list; what is read from them can be made again and is left out,
// and so is what belongs to the installation: accounts, sharing, the log of who did what.
type Everything struct {
	Settings  Settings            `json:"settings"`
	Kinds     map[string]string   `json:"instruments"`
	Preferred []ArchivedFingering `json:"preferredFingerings"`
	Routines  []ArchivedRoutine   `json:"routines,omitempty"`           // the teacher's own
	Followed  map[string]string   `json:"instrumentRoutines,omitempty"` // by instrument; "own-1" is the first of Routines
	Books     []ArchivedBook      `json:"books"`
	Classes   []ArchivedClass     `json:"classes"`

	Spoken []ArchivedWord `json:"recordedWords,omitempty"`

	Music    map[string]Source `json:"-"` // by hash
	Sounds   map[string][]byte `json:"-"` // of the words, by word
	Students []ArchivedStudent `json:"-"`
	Tries    []ArchivedTry     `json:"-"`
}

// ArchivedWord is a word that the teacher has recorded.
type ArchivedWord struct {
	Word  string  `json:"word"`
	Vowel float64 `json:"vowel"` // seconds from its beginning to its first vowel
}

// ArchivedFingering is a fingering wanted for a written note, or, with a measure and an event,
// at one place.
type ArchivedFingering struct {
	Instrument string `json:"instrument"`
	Measure    int    `json:"measure,omitempty"` // from 0
	Event      int    `json:"event,omitempty"`   // of the measure, from 0
	Pitch      int    `json:"pitch"`             // a MIDI number
	Fingering  string `json:"fingering"`
}

// ArchivedRoutine is a routine of the teacher's own; choices name it by No, as "own-1".
type ArchivedRoutine struct {
	No     int             `json:"no"`
	Title  string          `json:"title"`
	Why    string          `json:"why,omitempty"`
	Family string          `json:"family,omitempty"`
	Steps  routine.Routine `json:"stages"`
}

// ArchivedBook is a book with its exercises, those taken away included.
type ArchivedBook struct {
	Title     string             `json:"title"`
	Removed   *time.Time         `json:"deleted,omitempty"`
	Exercises []ArchivedExercise `json:"exercises"`
}

// ArchivedExercise is an exercise; No is its number in the whole archive.
type ArchivedExercise struct {
	No     int `json:"no"`
	Number int `json:"number"`
	// in its book, where the teacher put it elsewhere than by its number
	Place      int                 `json:"place,omitempty"`
	Title      string              `json:"title"`
	Music      string              `json:"music"` // the hash of its source
	Part       int                 `json:"part"`
	WrittenFor string              `json:"writtenFor,omitempty"`
	Routine    string              `json:"routine,omitempty"`
	Audience   *breakdown.Audience `json:"for,omitempty"` // where the teacher said for whom it is
	Removed    *time.Time          `json:"deleted,omitempty"`
	Own        []ArchivedOwnPart   `json:"ownParts,omitempty"`
	Octaves    map[string]int      `json:"octaves,omitempty"` // by instrument
	// instruments whose notes beyond them lie in the nearest octave
	Folded      []string             `json:"folded,omitempty"`
	Fingerings  []ArchivedFingering  `json:"fingerings,omitempty"`
	Annotations []ArchivedAnnotation `json:"annotations,omitempty"`
	Chunks      []ArchivedChunk      `json:"chunks,omitempty"` // in learning order, the whole last
	Second      *ArchivedSecond      `json:"duetPart,omitempty"`
}

// ArchivedSecond is the second line of an exercise: another exercise by its No, or a round.
type ArchivedSecond struct {
	Exercise int `json:"exercise,omitempty"`
	Entry    int `json:"entersAfter,omitempty"` // full measures
}

// ArchivedAnnotation is what a teacher wrote over a note of an instrument's part, or struck out there.
type ArchivedAnnotation struct {
	Instrument string                   `json:"instrument"`
	Measure    int                      `json:"measure"` // from 0
	Event      int                      `json:"event"`   // of the measure, from 0
	Pitch      int                      `json:"pitch"`   // a MIDI number, 0 for a rest or a stroke
	Kind       breakdown.AnnotationKind `json:"kind"`
	Word       string                   `json:"word,omitempty"`
}

// ArchivedChunk is a chunk cut by hand.
type ArchivedChunk struct {
	Measures string `json:"measures"` // "3-4"
	Why      string `json:"why,omitempty"`
}

// ArchivedOwnPart is an instrument's own part of an exercise.
type ArchivedOwnPart struct {
	Instrument string `json:"instrument"`
	Music      string `json:"music"`
	Part       int    `json:"part"`
}

// ArchivedClass is a class; its students name it by No.
type ArchivedClass struct {
	No       int        `json:"no"`
	Name     string     `json:"name"`
	School   string     `json:"countedIn,omitempty"`
	Year     int        `json:"year"`
	DuetPart string     `json:"duetPart,omitempty" db:"duet_part"`
	Routine  string     `json:"routine,omitempty"`
	Shape    Shape      `json:"shape,omitzero"` // of its lessons
	Removed  *time.Time `json:"deleted,omitempty"`

	GroupOf   int                  `json:"groupOf,omitempty" db:"-"` // the class whose students these are, by its No
	Members   []int                `json:"members,omitempty"`        // of a group, by their No
	Lessons   []ArchivedLesson     `json:"lessons,omitempty"`
	DuetParts map[int]string       `json:"duetParts,omitempty"` // of students with a line of their own, by their No
	Rules     map[int]ArchivedRule `json:"rules,omitempty"`     // of students with a rule of their own
	Notes     map[int]string       `json:"notes,omitempty"`     // of students
	Seats     map[int]ArchivedSeat `json:"seats,omitempty"`     // of students
	HomePlans []ArchivedHomePlan   `json:"practicePlans,omitempty"`
	AtHome    []ArchivedAtHome     `json:"atHome,omitempty"`
	Checkins  []ArchivedCheckin    `json:"checkIns,omitempty"`
	Seconds   map[int]int          `json:"secondInstruments,omitempty"` // whose second instrument a student stands for
}

// ArchivedLesson is a lesson of a class. Its steps name exercises, and who is not there or in
// a group students, by No.
type ArchivedLesson struct {
	Made    time.Time     `json:"made"`
	Begun   *time.Time    `json:"begun,omitempty"`
	Ended   *time.Time    `json:"ended,omitempty"`
	Minutes int           `json:"minutes"`
	At      int           `json:"at,omitempty"` // the step, from 0
	Absent  []int64       `json:"absent,omitempty"`
	Steps   []lesson.Step `json:"steps"`
}

// ArchivedCheckin is a check-in of a student, by their No. What is due names exercises by No;
// its tries are those of the log that were marked together under its number.
type ArchivedCheckin struct {
	Student  int           `json:"student"`
	On       time.Time     `json:"on"`
	Heard    *time.Time    `json:"heard,omitempty"`
	Comment  string        `json:"comment,omitempty"`
	Together int           `json:"together,omitempty"` // 0 where nothing was marked
	Due      []lesson.Step `json:"due"`
}

// ArchivedAtHome is what a student, by their No, has said and done at home. The link of their page
// does not go along: it is made again.
type ArchivedAtHome struct {
	Student int                  `json:"student"`
	Tries   []ArchivedHomeTry    `json:"tries,omitempty"`
	Done    []ArchivedTick       `json:"done,omitempty"`
	Cards   []ArchivedCardAnswer `json:"cards,omitempty"`
}

// ArchivedHomeTry is a try at home as the student says it went, at an exercise by its No.
type ArchivedHomeTry struct {
	Exercise   int                `json:"exercise"`
	Chunk      breakdown.ChunkKey `json:"measures"`
	Stage      routine.Stage      `json:"stage"`
	Clean      bool               `json:"clean"`
	Cause      routine.Cause      `json:"cause,omitempty"`
	Tempo      int                `json:"tempo,omitempty"`
	Beside     Beside             `json:"besideTheOneBefore,omitempty"`
	Changed    string             `json:"changed,omitempty"`
	At         time.Time          `json:"at"`
	RequestKey RequestKey         `json:"requestKey" db:"request_key"`
}

// ArchivedTick is a line of a plan that was done on a day.
type ArchivedTick struct {
	On   time.Time `json:"on"`
	Line string    `json:"line"`
}

// ArchivedCardAnswer is an answer to a reading card.
type ArchivedCardAnswer struct {
	Instrument string     `json:"instrument"`
	Card       string     `json:"card"`
	Grade      card.Grade `json:"grade"`
	Millis     int        `json:"millis,omitempty"`
	At         time.Time  `json:"at"`
	RequestKey RequestKey `json:"requestKey" db:"request_key"`
}

// ArchivedHomePlan is what a student, by their No, does at home. Its lines name exercises by No.
type ArchivedHomePlan struct {
	Student  int            `json:"student"`
	From     time.Time      `json:"from"`
	Until    time.Time      `json:"until"`
	Weekdays []int          `json:"weekdays"`
	Minutes  int            `json:"minutes"`
	Changed  map[string]int `json:"changed,omitempty"`
	Plan     homeplan.Plan  `json:"plan"`
}

// ArchivedSeat is where a student sits.
type ArchivedSeat struct {
	Row   int `json:"row"`   // from 1 at the front
	Place int `json:"place"` // from 1 at the left as the teacher sees it
}

// ArchivedRule is what is settled for a student, whatever the routine says.
type ArchivedRule struct {
	Clean int  `json:"cleanToGoOn,omitempty"`
	Stay  bool `json:"stays,omitempty"`
}

// ArchivedStudent is a student, those who have left or were taken away included.
type ArchivedStudent struct {
	No, Class     int
	Student       // without ids
	Left, Removed *time.Time
}

// ArchivedTry is a row of the log.
type ArchivedTry struct {
	No                int
	At                time.Time
	Student, Exercise int // by their No
	Chunk             breakdown.ChunkKey
	routine.Try
	Tempo     int
	TakesBack int // the No of the try it takes back, 0 for a try
	Together  int // tries of one number were marked together; 0 for one by itself
}

// Everything reads all that the teacher owns, as it is at one moment, and writes down that
// it was taken along.
func (d *Desk) Everything(ctx context.Context) (Everything, error) {
	const doing = "gather everything"
	if !d.guest.Own() {
		return Everything{}, wrap(doing, sql.ErrNoRows)
	}
	e := Everything{Settings: Settings{}, Kinds: map[string]string{}, Preferred: []ArchivedFingering{},
		Books: []ArchivedBook{}, Classes: []ArchivedClass{}, Music: map[string]Source{}, Sounds: map[string][]byte{}}
	tx, err := d.db.BeginTxx(ctx, &sql.TxOptions{Isolation: sql.LevelRepeatableRead})
	if err != nil {
		return e, wrap(doing, err)
	}
	defer func() { _ = tx.Rollback() }() // nothing is left to roll back once it is committed
	g := gathering{deskTx{tx, d}, &e, map[ExerciseID]*ArchivedExercise{}, map[ClassID]int{}, map[StudentID]int{},
		map[string]string{}, map[int64]int{0: 0}}
	for _, gather := range []func(context.Context) error{g.routines, g.settings, g.spoken, g.books, g.ownParts, g.seconds,
		g.music, g.classes, g.students, g.lessons, g.tries, g.checkIns, g.homePlans, g.atHome} {
		if err := gather(ctx); err != nil {
			return e, wrap(doing, err)
		}
	}
	if err := g.logAction(ctx, logEntry{action: MaterialExported}); err != nil {
		return e, wrap(doing, err)
	}
	return e, wrap(doing, tx.Commit())
}

// gathering is everything on its way out, with the numbers that ids have become.
type gathering struct {
	deskTx
	e         *Everything
	exercises map[ExerciseID]*ArchivedExercise
	classOf   map[ClassID]int
	studentOf map[StudentID]int
	routineOf map[string]string // of the teacher's own, as the archive numbers them
	batches   map[int64]int     // of tries that were marked together
}

// routine is what an archive calls a routine.
func (g gathering) routine(id string) string {
	if own, is := g.routineOf[id]; is {
		return own
	}
	return id
}

// routines gathers the teacher's own routines, and which instruments follow which.
func (g gathering) routines(ctx context.Context) error {
	own, err := ownRoutines(ctx, g.Tx, g.teacher)
	if err != nil {
		return err
	}
	for k, n := range own {
		g.routineOf[n.ID] = fmt.Sprint(ownRoutine, k+1)
		g.e.Routines = append(g.e.Routines, ArchivedRoutine{k + 1, n.Title, n.Why, n.Family, n.Steps})
	}
	var followed []struct{ Instrument, Routine string }
	if err := g.list(ctx, &followed, `SELECT instrument, routine FROM instrument_routines
		WHERE teacher_id = $1`); err != nil {
		return err
	}
	for _, f := range followed {
		if g.e.Followed == nil {
			g.e.Followed = map[string]string{}
		}
		g.e.Followed[f.Instrument] = g.routine(f.Routine)
	}
	return nil
}

// spoken gathers the words that the teacher has recorded.
func (g gathering) spoken(ctx context.Context) error {
	var list []SpokenWord
	if err := g.list(ctx, &list, `SELECT word, vowel, sound FROM spoken_words WHERE teacher_id = $1 ORDER BY word`); err != nil {
		return err
	}
	for _, w := range list {
		g.e.Spoken = append(g.e.Spoken, ArchivedWord{w.Word, w.Vowel})
		g.e.Sounds[w.Word] = w.Sound
	}
	return nil
}

func (g gathering) list(ctx context.Context, into any, query string) error {
	return sqlx.SelectContext(ctx, g.Tx, into, query, g.teacher)
}

func (g gathering) settings(ctx context.Context) error {
	var settings, kinds []struct{ Key, Value string }
	if err := g.list(ctx, &settings, `SELECT key, value FROM settings WHERE teacher_id = $1`); err != nil {
		return err
	}
	for _, s := range settings {
		if s.Key == RoutineSetting {
			s.Value = g.routine(s.Value)
		}
		g.e.Settings[s.Key] = s.Value
	}
	if err := g.list(ctx, &kinds, `SELECT instrument AS key, model AS value FROM instrument_models
		WHERE teacher_id = $1`); err != nil {
		return err
	}
	for _, k := range kinds {
		g.e.Kinds[k.Key] = k.Value
	}
	return g.list(ctx, &g.e.Preferred, `SELECT instrument, pitch, fingering FROM preferred WHERE teacher_id = $1
		ORDER BY instrument, pitch`)
}

func (g gathering) books(ctx context.Context) error {
	var books []struct {
		ID      BookID
		Title   string
		Removed *time.Time
	}
	if err := g.list(ctx, &books, `SELECT id, title, removed_at AS removed FROM books WHERE teacher_id = $1
		ORDER BY id`); err != nil {
		return err
	}
	var exercises []struct {
		ID     ExerciseID
		BookID BookID `db:"book_id"`
		ArchivedExercise
		WrittenFor string `db:"written_for"`
	}
	if err := g.list(ctx, &exercises, `
		SELECT id, book_id, number, coalesce(place, 0) AS place, title, hash AS music, part, written_for, routine, audience,
			removed_at AS removed FROM exercises WHERE teacher_id = $1 ORDER BY id`); err != nil {
		return err
	}
	at := map[BookID]int{}
	for k, b := range books {
		at[b.ID] = k
		g.e.Books = append(g.e.Books, ArchivedBook{Title: b.Title, Removed: b.Removed, Exercises: []ArchivedExercise{}})
	}
	place := map[ExerciseID][2]int{}
	for k, x := range exercises {
		x.No, x.ArchivedExercise.WrittenFor, x.Routine = k+1, x.WrittenFor, g.routine(x.Routine)
		list := &g.e.Books[at[x.BookID]].Exercises
		place[x.ID] = [2]int{at[x.BookID], len(*list)}
		*list = append(*list, x.ArchivedExercise)
	}
	for id, p := range place {
		g.exercises[id] = &g.e.Books[p[0]].Exercises[p[1]]
	}
	return nil
}

func (g gathering) ownParts(ctx context.Context) error {
	var own []struct {
		ExerciseID ExerciseID `db:"exercise_id"`
		ArchivedOwnPart
	}
	if err := g.list(ctx, &own, `SELECT exercise_id, instrument, hash AS music, part FROM overrides
		WHERE teacher_id = $1 ORDER BY exercise_id, instrument`); err != nil {
		return err
	}
	for _, o := range own {
		x := g.exercises[o.ExerciseID]
		x.Own = append(x.Own, o.ArchivedOwnPart)
	}
	var octaves []struct {
		ExerciseID ExerciseID `db:"exercise_id"`
		Instrument string
		Octaves    *int
		Folded     bool
	}
	if err := g.list(ctx, &octaves, `SELECT exercise_id, instrument, octaves, folded FROM octave_choices
		WHERE teacher_id = $1 ORDER BY exercise_id, instrument`); err != nil {
		return err
	}
	for _, o := range octaves {
		x := g.exercises[o.ExerciseID]
		if o.Folded {
			x.Folded = append(x.Folded, o.Instrument)
		}
		if o.Octaves == nil {
			continue
		}
		if x.Octaves == nil {
			x.Octaves = map[string]int{}
		}
		x.Octaves[o.Instrument] = *o.Octaves
	}
	var places []struct {
		ExerciseID ExerciseID `db:"exercise_id"`
		ArchivedFingering
	}
	if err := g.list(ctx, &places, `
		SELECT exercise_id, instrument, measure, event, pitch, fingering FROM fingerings WHERE teacher_id = $1
		ORDER BY exercise_id, instrument, measure, event`); err != nil {
		return err
	}
	for _, p := range places {
		x := g.exercises[p.ExerciseID]
		x.Fingerings = append(x.Fingerings, p.ArchivedFingering)
	}
	return g.byHand(ctx)
}

// seconds gathers the second lines.
func (g gathering) seconds(ctx context.Context) error {
	var seconds []struct {
		ExerciseID ExerciseID `db:"exercise_id"`
		OtherID    ExerciseID `db:"other_id"`
		Entry      int
	}
	if err := g.list(ctx, &seconds, `SELECT exercise_id, coalesce(other_id, 0) AS other_id, entry FROM duet_parts
		WHERE teacher_id = $1`); err != nil {
		return err
	}
	for _, s := range seconds {
		archived := &ArchivedSecond{Entry: s.Entry}
		if other := g.exercises[s.OtherID]; other != nil {
			archived.Exercise = other.No
		}
		g.exercises[s.ExerciseID].Second = archived
	}
	return nil
}

// byHand gathers the marks and the chunks of the exercises.
func (g gathering) byHand(ctx context.Context) error {
	var marks []struct {
		ExerciseID ExerciseID `db:"exercise_id"`
		ArchivedAnnotation
	}
	if err := g.list(ctx, &marks, `
		SELECT exercise_id, instrument, measure, event, pitch, kind, word FROM annotations WHERE teacher_id = $1
		ORDER BY exercise_id, instrument, measure, event, kind, word`); err != nil {
		return err
	}
	for _, m := range marks {
		x := g.exercises[m.ExerciseID]
		x.Annotations = append(x.Annotations, m.ArchivedAnnotation)
	}
	var byHand []struct {
		ExerciseID   ExerciseID `db:"exercise_id"`
		Chunks, Whys string
	}
	if err := g.list(ctx, &byHand, `SELECT exercise_id, chunks, whys FROM hand_chunks WHERE teacher_id = $1`); err != nil {
		return err
	}
	for _, c := range byHand {
		x := g.exercises[c.ExerciseID]
		for _, p := range handChunks(c.Chunks, c.Whys) {
			x.Chunks = append(x.Chunks, ArchivedChunk{p.Key.String(), p.Why})
		}
	}
	return nil
}

func (g gathering) music(ctx context.Context) error {
	var sources []struct {
		Hash string
		Source
	}
	if err := g.list(ctx, &sources, `SELECT hash, format, content FROM sources WHERE teacher_id = $1`); err != nil {
		return err
	}
	for _, s := range sources {
		g.e.Music[s.Hash] = s.Source
	}
	return nil
}

func (g gathering) classes(ctx context.Context) error {
	var classes []struct {
		ID      ClassID
		OfClass ClassID `db:"of_class"`
		ArchivedClass
	}
	if err := g.list(ctx, &classes, `SELECT id, coalesce(of_class, 0) AS of_class, name, school, year, duet_part, routine, shape, removed_at AS removed
		FROM classes WHERE teacher_id = $1 ORDER BY id`); err != nil {
		return err
	}
	for k, s := range classes {
		s.No, s.Routine = k+1, g.routine(s.Routine)
		g.classOf[s.ID], s.GroupOf = s.No, g.classOf[s.OfClass]
		g.e.Classes = append(g.e.Classes, s.ArchivedClass)
	}
	return nil
}

func (g gathering) students(ctx context.Context) error {
	var students []struct {
		Student
		ArchivedRule
		Left, Removed *time.Time
	}
	if err := g.list(ctx, &students, `
		SELECT id, class_id, first_name, initial, instrument, duet_part, note, coalesce(also_of, 0) AS also_of, seat_row, seat_place, clean_to_go_on AS clean, stays AS stay, left_at AS left, removed_at AS removed FROM students WHERE teacher_id = $1 ORDER BY id`); err != nil {
		return err
	}
	for k, s := range students {
		g.studentOf[s.ID] = k + 1
	}
	if err := g.groups(ctx); err != nil {
		return err
	}
	for k, s := range students {
		archived := ArchivedStudent{No: k + 1, Class: g.classOf[s.ClassID], Student: s.Student, Left: s.Left,
			Removed: s.Removed}
		class := &g.e.Classes[archived.Class-1]
		if s.Row > 0 {
			if class.Seats == nil {
				class.Seats = map[int]ArchivedSeat{}
			}
			class.Seats[archived.No] = ArchivedSeat{s.Row, s.Place}
		}
		if s.AlsoOf != 0 {
			if class.Seconds == nil {
				class.Seconds = map[int]int{}
			}
			class.Seconds[archived.No] = g.studentOf[s.AlsoOf]
		}
		if s.ArchivedRule != (ArchivedRule{}) {
			if class.Rules == nil {
				class.Rules = map[int]ArchivedRule{}
			}
			class.Rules[archived.No] = s.ArchivedRule
		}
		if s.Note != "" {
			if class.Notes == nil {
				class.Notes = map[int]string{}
			}
			class.Notes[archived.No] = s.Note
		}
		if s.DuetPart != "" {
			if class.DuetParts == nil {
				class.DuetParts = map[int]string{}
			}
			class.DuetParts[archived.No] = s.DuetPart
		}
		archived.Student = Student{FirstName: s.FirstName, Initial: s.Initial, Instrument: s.Instrument}
		g.e.Students = append(g.e.Students, archived)
	}
	return nil
}

// groups gathers who is in which group.
func (g gathering) groups(ctx context.Context) error {
	var members []struct {
		Group   ClassID   `db:"group_id"`
		Student StudentID `db:"student_id"`
	}
	if err := g.list(ctx, &members, `SELECT group_id, student_id FROM group_members WHERE teacher_id = $1
		ORDER BY group_id, student_id`); err != nil {
		return err
	}
	for _, m := range members {
		group := &g.e.Classes[g.classOf[m.Group]-1]
		group.Members = append(group.Members, g.studentOf[m.Student])
	}
	return nil
}

// lessons gathers the lessons, without steps at exercises and students that are erased.
func (g gathering) lessons(ctx context.Context) error {
	var rows []lessonRow
	if err := g.list(ctx, &rows, g.lessonsOfAll()+` ORDER BY l.id`); err != nil {
		return err
	}
	for _, row := range rows {
		l, err := row.lesson()
		if err != nil {
			return err
		}
		archived := ArchivedLesson{Made: l.Made.UTC(), Begun: inUTC(l.Begun), Ended: inUTC(l.Ended),
			Minutes: l.Plan.Minutes, At: l.Step, Steps: []lesson.Step{}}
		for _, s := range l.Plan.Steps {
			x := g.exercises[ExerciseID(s.Exercise)]
			if x == nil {
				continue
			}
			s.Exercise, s.Group = int64(x.No), numbered(s.Group, g.studentOf)
			archived.Steps = append(archived.Steps, s)
		}
		var absent []int64
		for _, id := range l.Absent {
			absent = append(absent, int64(id))
		}
		archived.Absent = numbered(absent, g.studentOf)
		class := &g.e.Classes[g.classOf[l.Class]-1]
		class.Lessons = append(class.Lessons, archived)
	}
	return nil
}

// numbered turns ids of students into what stands for them elsewhere, and leaves out those
// for whom nothing does.
func numbered[N ~int | ~int64](ids []int64, of map[StudentID]N) []int64 {
	var list []int64
	for _, id := range ids {
		if n, known := of[StudentID(id)]; known {
			list = append(list, int64(n))
		}
	}
	return list
}

func inUTC(t *time.Time) *time.Time {
	if t == nil {
		return nil
	}
	utc := t.UTC()
	return &utc
}

// checkIns gathers the check-ins, without what is due of exercises that are erased.
func (g gathering) checkIns(ctx context.Context) error {
	var rows []checkinRow
	if err := g.list(ctx, &rows, `SELECT `+checkinColumns+
		` FROM checkins c WHERE c.teacher_id = $1 ORDER BY c.id`); err != nil {
		return err
	}
	for _, row := range rows {
		c, err := row.checkin()
		if err != nil {
			return err
		}
		archived := ArchivedCheckin{Student: g.studentOf[c.Student], On: c.On.UTC(), Heard: inUTC(c.Heard),
			Comment: c.Comment, Together: g.batches[int64(c.Batch)], Due: []lesson.Step{}}
		for _, s := range c.Due {
			if x := g.exercises[ExerciseID(s.Exercise)]; x != nil {
				s.Exercise = int64(x.No)
				archived.Due = append(archived.Due, s)
			}
		}
		class := &g.e.Classes[g.e.Students[archived.Student-1].Class-1]
		class.Checkins = append(class.Checkins, archived)
	}
	return nil
}

// homePlans gathers the plans, without lines at exercises that are erased.
func (g gathering) homePlans(ctx context.Context) error {
	var rows []homePlanRow
	if err := g.list(ctx, &rows, `SELECT `+homePlanColumns+
		` FROM practice_plans h WHERE h.teacher_id = $1 ORDER BY h.student_id`); err != nil {
		return err
	}
	for _, row := range rows {
		p, err := row.homePlan()
		if err != nil {
			return err
		}
		p.renumber(func(id int64) int64 {
			if x := g.exercises[ExerciseID(id)]; x != nil {
				return int64(x.No)
			}
			return 0
		})
		archived := ArchivedHomePlan{g.studentOf[p.Student], p.From.UTC(), p.Until.UTC(), p.Weekdays, p.Minutes,
			p.Changed, p.Plan}
		class := &g.e.Classes[g.e.Students[archived.Student-1].Class-1]
		class.HomePlans = append(class.HomePlans, archived)
	}
	return nil
}

// atHome gathers what students have said and done at home.
func (g gathering) atHome(ctx context.Context) error {
	at := map[StudentID]*ArchivedAtHome{}
	var order []StudentID
	of := func(id StudentID) *ArchivedAtHome {
		if at[id] == nil {
			at[id] = &ArchivedAtHome{Student: g.studentOf[id]}
			order = append(order, id)
		}
		return at[id]
	}
	var tries []homeTryRow
	if err := g.list(ctx, &tries, `SELECT `+homeTryColumns+
		` FROM home_tries h WHERE h.teacher_id = $1 ORDER BY h.id`); err != nil {
		return err
	}
	for _, r := range tries {
		if x := g.exercises[r.Exercise]; x != nil {
			t := r.homeTry()
			of(r.Student).Tries = append(of(r.Student).Tries, ArchivedHomeTry{x.No, t.Chunk, t.Stage, t.Clean, t.Cause,
				t.Tempo, t.Beside, t.Changed, t.At.UTC(), t.RequestKey})
		}
	}
	var ticks []struct {
		Student StudentID
		HomeTick
	}
	if err := g.list(ctx, &ticks, `SELECT student_id AS student, on_day AS on, line FROM home_ticks
		WHERE teacher_id = $1 ORDER BY student_id, on_day, line`); err != nil {
		return err
	}
	for _, r := range ticks {
		of(r.Student).Done = append(of(r.Student).Done, ArchivedTick{r.On.UTC(), r.Line})
	}
	var cards []struct {
		Student StudentID
		CardAnswer
	}
	if err := g.list(ctx, &cards, `SELECT student_id AS student, instrument, card, grade, millis, at, request_key
		FROM card_answers WHERE teacher_id = $1 ORDER BY id`); err != nil {
		return err
	}
	for _, r := range cards {
		of(r.Student).Cards = append(of(r.Student).Cards, ArchivedCardAnswer{r.Instrument, r.Card, r.Grade, r.Millis,
			r.At.UTC(), r.RequestKey})
	}
	for _, id := range order {
		class := &g.e.Classes[g.e.Students[at[id].Student-1].Class-1]
		class.AtHome = append(class.AtHome, *at[id])
	}
	return nil
}

func (g gathering) tries(ctx context.Context) error {
	var rows []struct {
		attemptRow
		Undoes, Batch int64
	}
	if err := g.list(ctx, &rows, `
		SELECT id, student_id, exercise_id, first_measure, last_measure, stage, clean, cause, moved, measure, tempo, at,
			coalesce(undoes, 0) AS undoes, coalesce(batch, 0) AS batch FROM attempts WHERE teacher_id = $1
				ORDER BY id`); err != nil {
		return err
	}
	numbers, batches := map[int64]int{}, g.batches
	for k, r := range rows {
		numbers[int64(r.ID)] = k + 1
		if _, known := batches[r.Batch]; !known {
			batches[r.Batch] = len(batches)
		}
		a := r.attempt()
		g.e.Tries = append(g.e.Tries, ArchivedTry{
			No: k + 1, At: a.At.UTC(), Student: g.studentOf[a.StudentID], Exercise: g.exercises[a.ExerciseID].No,
			Chunk: a.Chunk, Try: a.Try, Tempo: a.Tempo, TakesBack: numbers[r.Undoes], Together: batches[r.Batch],
		})
	}
	return nil
}
