package walk

import (
	"slices"
	"strings"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/lesson"
	"unhurriedbench/core/routine"
)

// builder makes the moves of a run.
type builder struct {
	ask     Ask
	tempo   int
	players []Player
	lead    Player
	line    lesson.Line
	chunks  []breakdown.Chunk // the whole last
	matters map[breakdown.ChunkKey][]mind
	counts  countLane
	mixed   bool // the players' music has different names
}

func newBuilder(ask Ask, tempo int, players []Player) *builder {
	b := &builder{ask: ask, tempo: tempo, players: players, lead: players[0], chunks: players[0].Report.Chunks,
		matters: map[breakdown.ChunkKey][]mind{}, counts: newCountLane(players[0].Report.Part, ask.Options.Count)}
	for _, p := range players[1:] {
		b.mixed = b.mixed || !sameNames(p.Report, b.lead.Report)
	}
	b.line = b.lessonLine()
	return b
}

// sameNames says whether two parts are named alike, note for note.
func sameNames(a, b breakdown.Report) bool {
	return slices.EqualFunc(a.Measures, b.Measures, func(x, y breakdown.Measure) bool {
		return slices.EqualFunc(x.Events, y.Events, func(e, f breakdown.Event) bool { return e.Name == f.Name })
	})
}

// lessonLine is the line as a lesson plans it.
func (b *builder) lessonLine() lesson.Line {
	r := b.lead.Report
	var keys []breakdown.ChunkKey
	for _, c := range b.chunks {
		keys = append(keys, c.Key())
	}
	outline := breakdown.OutlineOf(r.Part).CutAs(keys)
	grades := make([]int, len(r.Measures))
	for k, m := range r.Measures {
		grades[k] = m.Difficulty.Grade()
	}
	hard := lesson.HardWithin(grades)
	l := lesson.Line{Title: r.Title, Grade: r.Difficulty.Grade(), New: strings.Join(r.News(), ", ")}
	for _, c := range b.chunks {
		p := lesson.Chunk{Key: c.Key(), Label: c.Label, Steps: b.ask.Routine, Same: outline.First(c.Key()), Tempo: b.tempo}
		if !c.Whole() && len(b.chunks) > 1 {
			p.Where = c.InWords()
			p.Hard = slices.ContainsFunc(c.At, func(i int) bool { return hard[i] })
		}
		if state, known := b.ask.States[p.Key]; known {
			p.States = []routine.State{state}
		}
		l.Chunks = append(l.Chunks, p)
	}
	return l
}

// lessonChunk is a chunk as the lesson has it.
func (b *builder) lessonChunk(key breakdown.ChunkKey) lesson.Chunk {
	if k := slices.IndexFunc(b.line.Chunks, func(p lesson.Chunk) bool { return p.Key == key }); k >= 0 {
		return b.line.Chunks[k]
	}
	return lesson.Chunk{Key: key}
}

// passes are all passes through the line, in order, without their words and times.
func (b *builder) passes() []Move {
	steps := b.ask.Unit.Steps(b.line, nil)
	if len(steps) == 0 { // everything is earned: it is heard and played
		whole := b.chunks[len(b.chunks)-1]
		last := b.ask.Routine[len(b.ask.Routine)-1]
		return []Move{b.pass(whole, last, Listen, Heard, heardFirst), b.pass(whole, last, Play, Alone, needed)}
	}
	last := b.ask.Routine.Last()
	var list []Move
	heard := map[breakdown.ChunkKey]bool{}
	whole := b.chunks[len(b.chunks)-1].Key()
	chunked := false // some chunk stood alone
	for _, s := range steps {
		for _, p := range s.All() {
			chunk, there := b.chunkOf(p.Chunk)
			if !there {
				continue
			}
			step := b.ask.Routine.Step(p.Stage)
			act := actOf(step, b.lead.Instrument)
			isWhole := p.Chunk == whole
			chunked = chunked || !isWhole
			switch {
			case p.Joined:
				m := b.pass(chunk, step, ownAct(act, step), Alone, joins)
				m.Joined = true
				list = append(list, m)
				continue
			case isWhole && chunked && p.Stage == last: // its chunks were played
				list = append(list, b.pass(chunk, step, ownAct(act, step), Alone, needed))
				continue
			}
			hard := b.lessonChunk(p.Chunk).Hard
			if !heard[p.Chunk] && !(isWhole && chunked) && act != Look {
				list = append(list, b.pass(chunk, step, Listen, Heard, heardRank(isWhole, hard)))
				heard[p.Chunk] = true
			} else if slices.Contains(step.Ways, routine.Listen) {
				list = append(list, b.pass(chunk, step, Listen, Heard, heardAgain))
			}
			list = append(list, b.together(chunk, step, act, isWhole, hard)...)
			if p.Stage == last {
				list = append(list, b.pass(chunk, step, ownAct(act, step), Alone, alone(isWhole, hard)))
			} else if hard && ownAct(act, step) == act {
				list = append(list, b.pass(chunk, step, act, Alone, aloneOnTheWay))
			}
		}
	}
	return list
}

func heardRank(whole, hard bool) rank {
	if whole || hard {
		return heardFirst
	}
	return heardAgain
}

// alone is how much is lost without the pass alone at the last stage.
func alone(whole, hard bool) rank {
	switch {
	case whole:
		return needed
	case hard:
		return middle
	}
	return aloneWhereEasy
}

// together are the passes of a stage with the program: one, with a sung one before it where
// the routine has that way.
func (b *builder) together(c breakdown.Chunk, step routine.Step, act Act, whole, hard bool) []Move {
	at := middleWhereEasy
	if hard || whole {
		at = middle
	}
	if step.Stage == b.ask.Routine.Last() {
		at = needed
		if whole {
			at = middle // it is played alone too
		}
	}
	var list []Move
	if slices.Contains(step.Ways, routine.Sing) && !b.lead.Instrument.Unpitched() {
		list = append(list, b.pass(c, step, Sing, Together, alsoSung))
	}
	return append(list, b.pass(c, step, act, Together, at))
}

// chunkOf finds a chunk, or chunks joined, by its key.
func (b *builder) chunkOf(key breakdown.ChunkKey) (breakdown.Chunk, bool) {
	if k := slices.IndexFunc(b.chunks, func(c breakdown.Chunk) bool { return c.Key() == key }); k >= 0 {
		return b.chunks[k], true
	}
	return b.lead.Report.Join(b.chunks, key)
}

// pass is a move without its words and times.
func (b *builder) pass(c breakdown.Chunk, step routine.Step, act Act, with With, r rank) Move {
	m := Move{Chunk: c.Key().String(), Where: "the line", Stage: step.Stage, Form: step.Form(), Word: step.Word,
		Act: act, With: with, rank: r, key: c.Key(), chunk: c, step: step}
	switch {
	case !c.Whole():
		m.Where = c.InWords()
	case b.ask.Where != "":
		m.Where = b.ask.Where
	}
	return m
}
