package bench

import (
	"encoding/json"
	"fmt"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/web/site"
)

// mostPieces bounds how many pieces an exercise is cut into by hand.
const mostPieces = 200

// cutForm is a change to the pieces of an exercise.
type cutForm struct {
	Do    string `form:"do" validate:"oneof=way move split join add restore"`
	Way   string `form:"way" validate:"max=20"` // "measures-2", "phrases"
	First int    `form:"first" validate:"min=0,max=9999"`
	Last  int    `form:"last" validate:"min=0,max=9999"`
	Kept  string `form:"kept" validate:"max=40000"` // of restore: the pieces as they were
}

func (*cutForm) Sentences() map[string]string {
	const measures = "Type the numbers of two measures of this exercise, the first and the last of the piece."
	const choose = "Choose how to cut the pieces from the list."
	return map[string]string{
		"Do oneof": choose, "Way max": choose, "First number": measures, "First min": measures, "First max": measures,
		"Last number": measures, "Last min": measures, "Last max": measures, "Kept max": "There are too many pieces to put back.",
	}
}

// cutPieces changes the pieces of an exercise: cuts them in another way, moves the ends of
// the one at hand, divides or joins it, or adds one. The log keeps the measures it was made
// with.
func (s *handlers) cutPieces(w http.ResponseWriter, r *http.Request) error {
	desk, ask := site.ClassOf(r), askOf(r)
	ask.Line = ""
	var form cutForm
	problems := s.Forms.Read(r, &form)
	v, err := loadBench(r.Context(), site.ClassOf(r), ask)
	if err != nil {
		return err
	}
	var list []breakdown.HandPiece
	at, said := v.Key, ""
	if len(problems) == 0 {
		list, at, said = v.cut(form)
	}
	if len(problems) == 0 && said == "" {
		problems = []string{"There is nothing to change there: a piece has at least one measure, and stays inside the exercise."}
	}
	if len(list) > mostPieces {
		problems = []string{fmt.Sprintf("An exercise has at most %d pieces. Cut it into longer ones.", mostPieces)}
	}
	if len(problems) > 0 {
		s.refuseMark(w, r, v.Choice, problems[0])
		return nil
	}
	before, err := json.Marshal(v.Options.Pieces)
	if err == nil {
		err = desk.CutByHand(r.Context(), v.Exercise.ID, list)
	}
	if err != nil {
		return err
	}
	ask.Piece = at.String()
	return s.showByHand(w, r, ask, byHand{Words: said, Action: "pieces", Undo: []field{{"do", "restore"}, {"kept", string(before)}}})
}

// cut works a change out: the pieces after it, none for the program's own, the piece at hand
// then, and what was done; "" where there is nothing to do.
func (v benchView) cut(form cutForm) (list []breakdown.HandPiece, at breakdown.PieceKey, said string) {
	at = v.Key
	whole := v.Report.Pieces[len(v.Report.Pieces)-1].Key()
	switch form.Do {
	case "way":
		way, count, _ := strings.Cut(form.Way, "-")
		n, _ := strconv.Atoi(count) // 0 for ways without a number
		list = v.Report.CutBy(breakdown.Way(way), n)
		said = "Cut " + v.cutWords(form.Way) + "."
		if breakdown.Way(way) == breakdown.ByPhrases {
			said = "The pieces are by phrases again."
		} else if len(list) == 0 {
			return nil, at, ""
		}
		if len(list) > 0 {
			at = list[0].Key
		}
		return list, at, said
	case "restore":
		if err := json.Unmarshal([]byte(form.Kept), &list); err != nil {
			return nil, at, ""
		}
		for k := range list {
			if list[k].Key.First < 0 || list[k].Key.Last < list[k].Key.First || list[k].Key.Last > 9999 || len(list[k].Why) > 200 {
				return nil, at, ""
			}
		}
		if len(list) > 0 && list[len(list)-1].Key != whole {
			return nil, at, ""
		}
		return list, at, "The pieces are as they were."
	}
	for _, p := range v.Report.Pieces {
		list = append(list, breakdown.HandPiece{Key: p.Key(), Why: p.Why})
	}
	one := len(list) == 1 // the whole alone
	if one {
		list = append(list, list[0])
	}
	list, at, said = changePieces(list[:len(list)-1], whole, v.Key, form)
	list = breakdown.WithWhole(list, whole)
	if said == "" || len(list) == 1 {
		return nil, v.Key, ""
	}
	return list, at, said
}

// byHandWhy is why a piece is one that a teacher cut.
const byHandWhy = "by hand"

// changePieces changes the pieces but for the whole.
func changePieces(list []breakdown.HandPiece, whole, at breakdown.PieceKey, form cutForm) ([]breakdown.HandPiece, breakdown.PieceKey, string) {
	here := slices.IndexFunc(list, func(p breakdown.HandPiece) bool { return p.Key == at })
	key := breakdown.PieceKey{First: form.First, Last: form.Last}
	inside := whole.First <= key.First && key.First <= key.Last && key.Last <= whole.Last
	has := func(key breakdown.PieceKey) bool {
		return slices.ContainsFunc(list, func(p breakdown.HandPiece) bool { return p.Key == key })
	}
	switch {
	case form.Do == "add" && inside && !has(key) && key != whole:
		return append(list, breakdown.HandPiece{Key: key, Why: byHandWhy}), key, fmt.Sprintf("Added: %s.", key.Words())
	case here < 0:
		return nil, at, ""
	case form.Do == "move" && inside && key != at && key != whole:
		list = moved(list, at, key)
		return list, key, fmt.Sprintf("The piece is %s now.", key.Words())
	case form.Do == "split" && at.First < form.First && form.First <= at.Last:
		first, second := breakdown.PieceKey{First: at.First, Last: form.First - 1}, breakdown.PieceKey{First: form.First, Last: at.Last}
		list[here] = breakdown.HandPiece{Key: first, Why: byHandWhy}
		list = slices.Insert(list, here+1, breakdown.HandPiece{Key: second, Why: byHandWhy})
		return list, first, fmt.Sprintf("Divided: %s and %s.", first.Words(), second.Words())
	case form.Do == "join":
		next := slices.IndexFunc(list, func(p breakdown.HandPiece) bool { return p.Key.First == at.Last+1 })
		if next < 0 {
			return nil, at, ""
		}
		both := breakdown.PieceKey{First: at.First, Last: list[next].Key.Last}
		list[here] = breakdown.HandPiece{Key: both, Why: byHandWhy}
		list = slices.Delete(list, next, next+1)
		return list, both, fmt.Sprintf("Joined: %s.", both.Words())
	}
	return nil, at, ""
}

// moved gives a piece other measures; the pieces that bordered on it border on it still, and
// those without a measure left are gone.
func moved(list []breakdown.HandPiece, from, to breakdown.PieceKey) []breakdown.HandPiece {
	var kept []breakdown.HandPiece
	for _, p := range list {
		now := p.Key
		switch {
		case p.Key == from:
			now = to
		case p.Key.First == from.Last+1:
			now.First = to.Last + 1
		case p.Key.Last == from.First-1:
			now.Last = to.First - 1
		}
		if now.First > now.Last || slices.ContainsFunc(kept, func(q breakdown.HandPiece) bool { return q.Key == now }) {
			continue
		}
		if now != p.Key {
			p = breakdown.HandPiece{Key: now, Why: byHandWhy}
		}
		kept = append(kept, p)
	}
	return kept
}

// cutWay is a way to cut, as the Bench offers it.
type cutWay struct{ Value, Words string }

// CutWays lists the ways to cut the exercise.
func (benchView) CutWays() []cutWay {
	return []cutWay{
		{"phrases", "by phrases"}, {"measures-1", "by single measures"}, {"measures-2", "by two measures"}, {"measures-4", "by four measures"},
		{"notes-5", "by five notes or more"}, {"notes-8", "by eight notes or more"}, {"hardest", "around the hardest measure"}, {"joining", "each joined to those before"},
	}
}

func (v benchView) cutWords(value string) string {
	for _, w := range v.CutWays() {
		if w.Value == value {
			return w.Words
		}
	}
	return "in another way"
}

// CutByHand says whether the pieces are the teacher's.
func (v benchView) CutByHand() bool { return len(v.Options.Pieces) > 0 }

// pieceMove is a change to the ends of the piece at hand.
type pieceMove struct {
	Words       string
	Key         string // on the keyboard
	First, Last int
}

// Moves lists the ways the ends of the piece at hand can go.
func (v benchView) Moves() []pieceMove {
	at, whole := v.Key, v.Report.Pieces[len(v.Report.Pieces)-1].Key()
	if at == whole {
		return nil
	}
	var list []pieceMove
	add := func(words, key string, first, last int) {
		if whole.First <= first && first <= last && last <= whole.Last && !(first == whole.First && last == whole.Last) {
			list = append(list, pieceMove{words, key, first, last})
		}
	}
	add("Begin a measure earlier", "", at.First-1, at.Last)
	add("Begin a measure later", "", at.First+1, at.Last)
	add("End a measure earlier", "<", at.First, at.Last-1)
	add("End a measure later", ">", at.First, at.Last+1)
	return list
}

// Middle is where the piece at hand is divided: the measure after its middle, 0 where it has
// one measure.
func (v benchView) Middle() int {
	at := v.Key
	if at.First == at.Last || v.Piece.Whole() {
		return 0
	}
	return (at.First+at.Last)/2 + 1
}

// JoinsNext says whether a piece follows the one at hand that it can be joined to.
func (v benchView) JoinsNext() bool {
	return slices.ContainsFunc(v.Report.Pieces, func(p breakdown.Piece) bool { return !p.Whole() && p.Key().First == v.Key.Last+1 })
}
