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

// mostChunks bounds how many chunks an exercise is cut into by hand.
const mostChunks = 200

// chunkForm is a change to the chunks of an exercise.
type chunkForm struct {
	Do    string `form:"do" validate:"oneof=way move split join add restore"`
	Way   string `form:"way" validate:"max=20"` // "measures-2", "phrases"
	First int    `form:"first" validate:"min=0,max=9999"`
	Last  int    `form:"last" validate:"min=0,max=9999"`
	Saved string `form:"kept" validate:"max=40000"` // of restore: the chunks as they were
}

func (*chunkForm) Sentences() map[string]string {
	const measures = "Type the numbers of two measures of this exercise, the first and the last of the chunk."
	const choose = "Choose how to cut the chunks from the list."
	return map[string]string{
		"Do oneof": choose, "Way max": choose, "First number": measures, "First min": measures, "First max": measures,
		"Last number": measures, "Last min": measures, "Last max": measures,
		"Saved max": "There are too many chunks to put back.",
	}
}

// editChunks changes the chunks of an exercise: cuts them in another way, moves the ends of
// the one at hand, divides or joins it, or adds one. The log keeps the measures it was made
// with.
func (s *handlers) editChunks(w http.ResponseWriter, r *http.Request) error {
	desk, ask := site.ClassOf(r), askOf(r)
	ask.Line = ""
	var form chunkForm
	problems := s.Forms.Read(r, &form)
	v, err := loadBench(r.Context(), site.ClassOf(r), ask)
	if err != nil {
		return err
	}
	var list []breakdown.HandChunk
	at, said := v.Key, ""
	if len(problems) == 0 {
		list, at, said = v.cut(form)
	}
	if len(problems) == 0 && said == "" {
		problems = []string{"There is nothing to change there: a chunk has at least one measure, and stays inside the exercise."}
	}
	if len(list) > mostChunks {
		problems = []string{fmt.Sprintf("An exercise has at most %d chunks. Cut it into longer ones.", mostChunks)}
	}
	if len(problems) > 0 {
		s.refuseMark(w, r, v.Choice, problems[0])
		return nil
	}
	before, err := json.Marshal(v.Options.Chunks)
	if err == nil {
		err = desk.SaveHandChunks(r.Context(), v.Exercise.ID, list)
	}
	if err != nil {
		return err
	}
	ask.Chunk = at.String()
	return s.showByHand(w, r, ask, byHand{Words: said, Action: "chunks", Undo: []field{{"do", "restore"},
		{"kept", string(before)}}})
}

// cut works a change out: the chunks after it, none for the program's own, the chunk at hand
// then, and what was done; "" where there is nothing to do.
func (v benchView) cut(form chunkForm) (list []breakdown.HandChunk, at breakdown.ChunkKey, said string) {
	at = v.Key
	whole := v.Report.Chunks[len(v.Report.Chunks)-1].Key()
	switch form.Do {
	case "way":
		way, count, _ := strings.Cut(form.Way, "-")
		n, _ := strconv.Atoi(count) // 0 for ways without a number
		list = v.Report.CutBy(breakdown.Way(way), n)
		said = "Cut " + v.chunkEditWords(form.Way) + "."
		if breakdown.Way(way) == breakdown.ByPhrases {
			said = "The chunks are by phrases again."
		} else if len(list) == 0 {
			return nil, at, ""
		}
		if len(list) > 0 {
			at = list[0].Key
		}
		return list, at, said
	case "restore":
		if err := json.Unmarshal([]byte(form.Saved), &list); err != nil {
			return nil, at, ""
		}
		for k := range list {
			if list[k].Key.First < 0 || list[k].Key.Last < list[k].Key.First || list[k].Key.Last > 9999 ||
				len(list[k].Why) > 200 {
				return nil, at, ""
			}
		}
		if len(list) > 0 && list[len(list)-1].Key != whole {
			return nil, at, ""
		}
		return list, at, "The chunks are as they were."
	}
	for _, p := range v.Report.Chunks {
		list = append(list, breakdown.HandChunk{Key: p.Key(), Why: p.Why})
	}
	one := len(list) == 1 // the whole alone
	if one {
		list = append(list, list[0])
	}
	list, at, said = changeChunks(list[:len(list)-1], whole, v.Key, form)
	list = breakdown.WithWhole(list, whole)
	if said == "" || len(list) == 1 {
		return nil, v.Key, ""
	}
	return list, at, said
}

// byHandWhy is why a chunk is one that a teacher cut.
const byHandWhy = "by hand"

// changeChunks changes the chunks but for the whole.
func changeChunks(list []breakdown.HandChunk, whole, at breakdown.ChunkKey,
	form chunkForm) ([]breakdown.HandChunk, breakdown.ChunkKey, string) {
	here := slices.IndexFunc(list, func(p breakdown.HandChunk) bool { return p.Key == at })
	key := breakdown.ChunkKey{First: form.First, Last: form.Last}
	inside := whole.First <= key.First && key.First <= key.Last && key.Last <= whole.Last
	has := func(key breakdown.ChunkKey) bool {
		return slices.ContainsFunc(list, func(p breakdown.HandChunk) bool { return p.Key == key })
	}
	switch {
	case form.Do == "add" && inside && !has(key) && key != whole:
		return append(list, breakdown.HandChunk{Key: key, Why: byHandWhy}), key, fmt.Sprintf("Added: %s.", key.Words())
	case here < 0:
		return nil, at, ""
	case form.Do == "move" && inside && key != at && key != whole:
		list = moved(list, at, key)
		return list, key, fmt.Sprintf("The chunk is %s now.", key.Words())
	case form.Do == "split" && at.First < form.First && form.First <= at.Last:
		first, second := breakdown.ChunkKey{First: at.First, Last: form.First - 1},
			breakdown.ChunkKey{First: form.First, Last: at.Last}
		list[here] = breakdown.HandChunk{Key: first, Why: byHandWhy}
		list = slices.Insert(list, here+1, breakdown.HandChunk{Key: second, Why: byHandWhy})
		return list, first, fmt.Sprintf("Divided: %s and %s.", first.Words(), second.Words())
	case form.Do == "join":
		next := slices.IndexFunc(list, func(p breakdown.HandChunk) bool { return p.Key.First == at.Last+1 })
		if next < 0 {
			return nil, at, ""
		}
		both := breakdown.ChunkKey{First: at.First, Last: list[next].Key.Last}
		list[here] = breakdown.HandChunk{Key: both, Why: byHandWhy}
		list = slices.Delete(list, next, next+1)
		return list, both, fmt.Sprintf("Joined: %s.", both.Words())
	}
	return nil, at, ""
}

// moved gives a chunk other measures; the chunks that bordered on it border on it still, and
// those without a measure left are gone.
func moved(list []breakdown.HandChunk, from, to breakdown.ChunkKey) []breakdown.HandChunk {
	var saved []breakdown.HandChunk
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
		if now.First > now.Last || slices.ContainsFunc(saved, func(q breakdown.HandChunk) bool { return q.Key == now }) {
			continue
		}
		if now != p.Key {
			p = breakdown.HandChunk{Key: now, Why: byHandWhy}
		}
		saved = append(saved, p)
	}
	return saved
}

// chunkEdit is a way to cut, as the Bench offers it.
type chunkEdit struct{ Value, Words string }

// ChunkEdits lists the ways to cut the exercise.
func (benchView) ChunkEdits() []chunkEdit {
	return []chunkEdit{
		{"phrases", "by phrases"}, {"measures-1", "by single measures"}, {"measures-2", "by two measures"},
		{"measures-4", "by four measures"},
		{"notes-5", "by five notes or more"}, {"notes-8", "by eight notes or more"},
		{"hardest", "around the hardest measure"}, {"joining", "each joined to those before"},
	}
}

func (v benchView) chunkEditWords(value string) string {
	for _, w := range v.ChunkEdits() {
		if w.Value == value {
			return w.Words
		}
	}
	return "in another way"
}

// ChunkedByHand says whether the chunks are the teacher's.
func (v benchView) ChunkedByHand() bool { return len(v.Options.Chunks) > 0 }

// chunkMove is a change to the ends of the chunk at hand.
type chunkMove struct {
	Words       string
	Key         string // on the keyboard
	First, Last int
}

// Moves lists the ways the ends of the chunk at hand can go.
func (v benchView) Moves() []chunkMove {
	at, whole := v.Key, v.Report.Chunks[len(v.Report.Chunks)-1].Key()
	if at == whole {
		return nil
	}
	var list []chunkMove
	add := func(words, key string, first, last int) {
		if whole.First <= first && first <= last && last <= whole.Last && !(first == whole.First && last == whole.Last) {
			list = append(list, chunkMove{words, key, first, last})
		}
	}
	add("Begin a measure earlier", "", at.First-1, at.Last)
	add("Begin a measure later", "", at.First+1, at.Last)
	add("End a measure earlier", "<", at.First, at.Last-1)
	add("End a measure later", ">", at.First, at.Last+1)
	return list
}

// Middle is where the chunk at hand is divided: the measure after its middle, 0 where it has
// one measure.
func (v benchView) Middle() int {
	at := v.Key
	if at.First == at.Last || v.Chunk.Whole() {
		return 0
	}
	return (at.First+at.Last)/2 + 1
}

// JoinsNext says whether a chunk follows the one at hand that it can be joined to.
func (v benchView) JoinsNext() bool {
	return slices.ContainsFunc(v.Report.Chunks, func(p breakdown.Chunk) bool {
		return !p.Whole() &&
			p.Key().First == v.Key.Last+1
	})
}
