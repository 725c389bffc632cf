package web

import (
	"cmp"
	"context"
	"fmt"
	"html/template"
	"net/http"
	"slices"
	"strings"
	"time"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/card"
	"unhurriedbench/core/format/mei"
	"unhurriedbench/core/progress"
	"unhurriedbench/core/routine"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
	"unhurriedbench/teach"
)

// cardDesk is a student's cards and where they stand with them.
type cardDesk struct {
	Reader   card.Reader
	Deck     []card.Card
	Log      []card.Answered
	Stumbles map[string]time.Time
	kept     taughtBy
}

// cardDesk reads the exercises that a student has worked on, those of the last weeks, and what
// they have answered.
func loadCards(ctx context.Context, desk *teach.Class, student store.Student) (cardDesk, error) {
	var d cardDesk
	reads, err := readerFor(ctx, desk, student)
	if err != nil {
		return d, err
	}
	d.kept = reads.kept
	o := reads.kept.Preferences.options(reads.Section)
	d.Reader = card.Reader{Instrument: reads.Instrument, Names: o.Name, Words: reads.kept.Preferences.words(), Year: reads.Section.Year}
	if d.Reader.Preferred, err = desk.Preferred(ctx, reads.Instrument.ID); err != nil {
		return d, err
	}
	if d.Log, err = desk.CardAnswers(ctx, student.ID, student.Instrument); err != nil {
		return d, err
	}
	home, err := homeAttempts(ctx, desk, student.ID, time.Now().AddDate(0, -3, 0))
	if err != nil {
		return d, err
	}
	stumbled, err := lastStumbles(ctx, desk, student.ID, home)
	if err != nil {
		return d, err
	}
	worked, err := workedPieces(ctx, desk, reads, home)
	if err != nil {
		return d, err
	}
	var pieces []card.Piece
	var notes []progress.Worked
	for _, w := range worked {
		pieces, notes = append(pieces, w.Piece), append(notes, w.notes)
	}
	d.Deck = card.Deck(reads.Instrument, pieces)
	d.addStumbles(worked, stumbled, progress.Notes(notes))
	return d, nil
}

// pieceAt names a piece of an exercise.
type pieceAt struct {
	exercise store.ExerciseID
	key      breakdown.PieceKey
}

// workedPiece is a piece that a student has worked on, with the notes in it.
type workedPiece struct {
	card.Piece
	at    pieceAt
	notes progress.Worked
}

// workedPieces are the pieces that a student has tried, as the teacher heard or they say, of the
// exercises tried last, in the order of the books.
func workedPieces(ctx context.Context, desk *teach.Class, reads aReader, home []store.HomeTry) ([]workedPiece, error) {
	student := reads.Student
	standings, err := desk.StudentStandings(ctx, student.ID)
	if err != nil {
		return nil, err
	}
	exercises, err := desk.Exercises(ctx)
	if err != nil {
		return nil, err
	}
	own, err := desk.OwnOutlines(ctx)
	if err != nil {
		return nil, err
	}
	rules, err := desk.Rules(ctx)
	if err != nil {
		return nil, err
	}
	worked := recentFirst(exercises, standings)
	worked = worked[:min(len(worked), mostLooked)]
	slices.SortStableFunc(worked, func(a, b store.Exercise) int { return cmp.Or(cmp.Compare(a.Book, b.Book), a.Number-b.Number) })
	var list []workedPiece
	for _, x := range worked {
		report, err := notesOf(ctx, desk, reads, x)
		if err != nil {
			return nil, err
		}
		if report == nil {
			continue
		}
		standing := standings[store.Task{Student: student.ID, Exercise: x.ID}]
		outline, steps := own.Of(x, student.Instrument), rules.For(student.ID, x.ID)
		for _, key := range outline.Pieces {
			state, at := standing.State(steps, key), pieceAt{x.ID, key}
			if state.Tries == 0 && !slices.ContainsFunc(home, func(t store.HomeTry) bool { return pieceAt{t.Exercise, t.Piece} == at }) {
				continue
			}
			where := fmt.Sprintf("%d · %s, %s", x.Number, x.Title, outline.Label(key))
			list = append(list, workedPiece{
				card.Piece{Where: where, Report: *report, Key: key}, at,
				progress.Worked{Name: where, Pitches: report.PitchesIn(key), Steps: steps, State: state},
			})
		}
	}
	return list, nil
}

// stumbledOver is what was stumbled over, and where.
type stumbledOver struct {
	pieceAt
	over routine.Cause
}

// lastStumbles says when a student stumbled last over what, as the teacher heard or they say.
func lastStumbles(ctx context.Context, desk *teach.Class, student store.StudentID, home []store.HomeTry) (map[stumbledOver]time.Time, error) {
	log, err := desk.StudentAttempts(ctx, student)
	if err != nil {
		return nil, err
	}
	last := map[stumbledOver]time.Time{}
	add := func(at pieceAt, t routine.Try, when time.Time) {
		if over := (stumbledOver{at, t.Cause}); t.Cause != routine.None && when.After(last[over]) {
			last[over] = when
		}
	}
	for _, a := range log {
		if !a.Undone {
			add(pieceAt{a.ExerciseID, a.Piece}, a.Try, a.At)
		}
	}
	for _, t := range home {
		add(pieceAt{t.Exercise, t.Piece}, t.Try, t.At)
	}
	return last, nil
}

// addStumbles says which cards were stumbled over, and when last. Where no note of a piece is
// in question, all of its are.
func (d *cardDesk) addStumbles(pieces []workedPiece, stumbled map[stumbledOver]time.Time, notes []progress.OwnNote) {
	d.Stumbles = map[string]time.Time{}
	for _, p := range pieces {
		var doubtful []score.Pitch
		for _, n := range notes {
			if n.Doubt != "" && slices.Contains(p.notes.Pitches, n.Pitch) {
				doubtful = append(doubtful, n.Pitch)
			}
		}
		if len(doubtful) == 0 {
			doubtful = p.notes.Pitches
		}
		for _, over := range routine.AllCauses() {
			at, is := stumbled[stumbledOver{p.at, over}]
			if !is {
				continue
			}
			for _, id := range card.Stumbled(p.Piece, over, doubtful) {
				if at.After(d.Stumbles[id]) {
					d.Stumbles[id] = at
				}
			}
		}
	}
}

// round is what is asked now.
func (d cardDesk) round(now time.Time, w card.Wanted) []card.Asked {
	return card.Round(d.Deck, d.Log, d.Stumbles, now, w)
}

// ownCard is a card of a round for the page's script.
type ownCard struct {
	ID      string      `json:"id"`
	Kind    card.Kind   `json:"kind"`
	MEI     string      `json:"mei"`
	Asking  card.Asking `json:"asking"`
	New     bool        `json:"new"`
	Why     string      `json:"why"`   // a key of the words
	Where   string      `json:"where"` // in what it was met
	Answer  string      `json:"answer"`
	More    string      `json:"more"`
	Help    string      `json:"help"`
	Ways    []cardWay   `json:"ways"`
	Choices []ownChoice `json:"choices"`
	Sounds  []int       `json:"sounds"` // MIDI numbers, one after the other; none of what is not played
}

// cardWay is how a note is played, to be drawn.
type cardWay struct {
	Name  string     `json:"name"`
	Event sheetEvent `json:"event"`
}

type ownChoice struct {
	Text  string   `json:"text"`
	Right bool     `json:"right"`
	Way   *cardWay `json:"way,omitempty"`
}

// ownCardsView is a round of cards.
type ownCardsView struct {
	ownFrame
	Drawn   sheetData
	Voice   voice
	A4      int
	Cards   []ownCard
	HasDeck bool
	Speed   speedPlot
}

func (s *Server) ownCards(w http.ResponseWriter, r *http.Request) {
	f, err := newOwnFrame(r, "cards")
	if err != nil {
		s.failedOwn(w, r, err)
		return
	}
	d, err := loadCards(r.Context(), deskOf(r), athome(r).Student)
	if err != nil {
		s.failedOwn(w, r, err)
		return
	}
	f.Title = f.Say("round.title")
	v := ownCardsView{ownFrame: f, HasDeck: len(d.Deck) > 0, Drawn: drawCards(d), Voice: s.recordings.voiceOf(d.Reader.Instrument), A4: d.kept.Preferences.pitchOfA(), Speed: newSpeedPlot(card.Speeds(d.Log, card.Name), f.ownWords)}
	for _, a := range d.round(time.Now(), d.kept.Preferences.cards()) {
		v.Cards = append(v.Cards, newOwnCard(d, a))
	}
	s.render(w, http.StatusOK, "owncards", "own-layout", v)
}

// drawCards is what drawings of fingerings need to know.
func drawCards(d cardDesk) sheetData {
	data := drawnFor(d.Reader.Instrument, d.kept.Preferences.stringColours(d.Reader.Instrument))
	data.Hands = d.Reader.Words.Hands
	return data
}

func newOwnCard(d cardDesk, a card.Asked) ownCard {
	answer := d.Reader.Answer(a.Card, d.Deck)
	c := ownCard{ID: a.ID(), Kind: a.Kind, MEI: cardMEI(a.Card), Asking: a.Asking, New: a.New, Why: "why." + string(a.Because), Where: a.Where, Answer: answer.Text, More: answer.More}
	if a.Asking != card.Fast {
		c.Help = answer.More
	}
	for _, way := range answer.Ways {
		c.Ways = append(c.Ways, newCardWay(d, way))
		c.Sounds = append(c.Sounds, way.Pitch.Transpose(d.Reader.Instrument.Transposition).MIDI())
	}
	for _, choice := range answer.Choices {
		own := ownChoice{Text: choice.Text, Right: choice.Right}
		if choice.Way != nil {
			way := newCardWay(d, *choice.Way)
			own.Way = &way
		}
		c.Choices = append(c.Choices, own)
	}
	return c
}

// newCardWay is a fingering with what its drawing needs.
func newCardWay(d cardDesk, w card.Way) cardWay {
	return cardWay{d.Reader.Show(w.Pitch), wayEvent(d.Reader.Instrument, d.Reader.Words, w.Pitch, w.Fingering)}
}

// cardMEI is the front of a card.
func cardMEI(c card.Card) string {
	four := score.Meter{Beats: 4, Unit: 4}
	m := score.Measure{Number: 1, Meter: four, Clef: c.Clef, Key: c.Key, Length: score.Frac(1, 1)}
	note := func(p score.Pitch, length score.Fraction, base int, start score.Fraction) score.Event {
		return score.Event{Start: start, Length: length, Value: score.Value{Base: base}, Pitch: p, Sign: p.Alter != 0}
	}
	switch {
	case c.Kind == card.Rhythm:
		m = c.Bar
	case c.Kind == card.Key:
		m.Events = []score.Event{{Kind: score.Rest, Length: score.Frac(1, 1), Value: score.Value{Base: 1}, WholeMeasure: true}}
	case len(c.Pitches) == 2:
		m.Events = []score.Event{note(c.Pitches[0], score.Frac(1, 2), 2, score.Frac(0, 1)), note(c.Pitches[1], score.Frac(1, 2), 2, score.Frac(1, 2))}
	default:
		m.Events = []score.Event{note(c.Pitches[0], score.Frac(1, 1), 1, score.Frac(0, 1))}
	}
	return mei.Write(score.Part{Measures: []score.Measure{m}}, mei.Options{})
}

// speedPlot is how quickly notes are named, day by day.
type speedPlot struct {
	Days  []card.Speed
	words ownWords
}

func newSpeedPlot(days []card.Speed, words ownWords) speedPlot {
	return speedPlot{days[max(0, len(days)-30):], words}
}

// Shown says whether there is a way to see in it.
func (p speedPlot) Shown() bool { return len(p.Days) > 1 }

// Last is how quickly it was on the last day.
func (p speedPlot) Last() string { return seconds(p.Days[len(p.Days)-1].Median) }

// seconds writes milliseconds: "2.4".
func seconds(millis int) string { return fmt.Sprintf("%.1f", float64(millis)/1000) }

// Words say it day by day.
func (p speedPlot) Words() string {
	words := make([]string, len(p.Days))
	for k, d := range p.Days {
		words[k] = p.words.Say("round.lineWords", p.words.Date(d.Day, false), seconds(d.Median))
	}
	return strings.Join(words, "; ")
}

// drawSpeedPlot draws a line from day to day; it falls as names come quicker.
func drawSpeedPlot(p speedPlot) template.HTML {
	const width, height, left, edge = 300, 96, 40, 12
	slowest := 0
	for _, d := range p.Days {
		slowest = max(slowest, d.Median)
	}
	first, last := p.Days[0].Day, p.Days[len(p.Days)-1].Day
	x := func(d card.Speed) float64 {
		return left + float64(width-left-edge)*d.Day.Sub(first).Hours()/max(last.Sub(first).Hours(), 1)
	}
	y := func(d card.Speed) float64 {
		return height - 22 - float64(height-34)*float64(d.Median)/float64(max(slowest, 1))
	}
	var b, line strings.Builder
	fmt.Fprintf(&b, `<svg class="speed-plot" viewBox="0 0 %d %d" width="%d" height="%d" role="img" aria-label="%s">`, width, height, width, height, template.HTMLEscapeString(p.Words()))
	fmt.Fprintf(&b, `<path class="floor" d="M%d %dH%d"/>`, left, height-22, width-edge)
	for k, d := range p.Days {
		fmt.Fprintf(&line, "%s%.1f %.1f", map[bool]string{true: "M", false: "L"}[k == 0], x(d), y(d))
		fmt.Fprintf(&b, `<circle cx="%.1f" cy="%.1f" r="3.5"/>`, x(d), y(d))
	}
	fmt.Fprintf(&b, `<path class="way" d="%s"/>`, line.String())
	fmt.Fprintf(&b, `<text x="4" y="%.1f">%s s</text><text x="%d" y="%d">%s</text><text class="to" x="%d" y="%d">%s</text></svg>`,
		y(p.Days[0])+4, seconds(p.Days[0].Median), left, height-4, p.words.Date(first, false), width-edge, height-4, p.words.Date(last, false))
	return template.HTML(b.String())
}
