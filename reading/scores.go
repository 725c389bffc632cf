// Package reading reads what teachers brought in once, keeps it, and gives every
// instrument its part.
package reading

import (
	"context"
	"errors"
	"sync"

	lru "github.com/hashicorp/golang-lru/v2/simplelru"
	"golang.org/x/sync/singleflight"

	"unhurriedbench/core/format"
	"unhurriedbench/core/score"
	"unhurriedbench/store"
)

// Reader reads sources and keeps their scores in memory. Scores it gives are shared
// and must not be changed.
type Reader struct {
	reading singleflight.Group

	mu    sync.Mutex
	saved *lru.LRU[string, readScore] // by the source's hash
	bytes int                         // all that is kept
	books *lru.LRU[string, []int]     // the octaves of a book's lines for an instrument
	most  int
}

// readScore is a source that was read, or what is wrong with it.
type readScore struct {
	score score.Score
	err   error
	bytes int
}

// Memory is how many bytes of scores a Reader keeps by default:
// some three thousand exercises of a method book, or twenty full scores.
const Memory = 192 << 20

// mostScores bounds how many scores are kept, however small.
const mostScores = 20000

// New makes a Reader that keeps about a given number of bytes of scores, the least recently
// used going first.
func New(bytes int) *Reader {
	r := &Reader{most: bytes}
	r.saved, _ = lru.NewLRU(mostScores, func(_ string, s readScore) { r.bytes -= s.bytes }) // the error is for a size of 0
	r.books, _ = lru.NewLRU[string, []int](mostBooks, nil)
	return r
}

// Score reads a source, unless it is kept. The error is a score.Problems; once ctx ends, it
// is the context's.
func (r *Reader) Score(ctx context.Context, source store.Source) (score.Score, error) {
	return r.read(ctx, source.Hash(), func() (store.Source, error) { return source, nil })
}

// File reads a file that was brought in, with the errors of Score.
func (r *Reader) File(ctx context.Context, name string, data []byte) (format.File, error) {
	f, err := format.Unpack(name, data)
	if err != nil || format.StoredAsABC(f.Kind) {
		if err != nil {
			return f, err
		}
		return format.Read(ctx, name, data)
	}
	f.Score, err = r.Score(ctx, store.Source{Format: f.Kind, Content: f.Text})
	return f, err
}

// score reads a source of a desk, and fetches it only where it is not kept.
func (r *Reader) score(ctx context.Context, d Desk, hash string) (score.Score, error) {
	return r.read(ctx, hash, func() (store.Source, error) { return d.Source(ctx, hash) })
}

// read gives what is kept under a hash, or reads it once for all who ask. Where the request that it
// was read for has gone, the next who asks has it read.
func (r *Reader) read(ctx context.Context, hash string, fetch func() (store.Source, error)) (score.Score, error) {
	if s, ok := r.find(hash); ok {
		return s.score, s.err
	}
	found, err, shared := r.reading.Do(hash, func() (any, error) {
		source, err := fetch()
		if err != nil {
			return nil, err
		}
		var s readScore
		s.score, s.err = format.ReadKind(ctx, source.Format, []byte(source.Content))
		if ended := ctx.Err(); ended != nil {
			return nil, ended
		}
		s.bytes = sizeOf(s.score)
		r.save(hash, s)
		return s, nil
	})
	if shared && ctx.Err() == nil && (errors.Is(err, context.Canceled) || errors.Is(err, context.DeadlineExceeded)) {
		return r.read(ctx, hash, fetch)
	}
	if err != nil {
		return score.Score{}, err
	}
	s := found.(readScore)
	return s.score, s.err
}

func (r *Reader) find(hash string) (readScore, bool) {
	r.mu.Lock()
	defer r.mu.Unlock()
	return r.saved.Get(hash)
}

func (r *Reader) save(hash string, s readScore) {
	r.mu.Lock()
	defer r.mu.Unlock()
	if s.bytes > r.most || r.saved.Contains(hash) {
		return
	}
	r.saved.Add(hash, s)
	for r.bytes += s.bytes; r.bytes > r.most; {
		r.saved.RemoveOldest()
	}
}

// sizeOf is about how much memory a score takes.
func sizeOf(s score.Score) int {
	const perEvent, perMeasure, perScore = 400, 300, 2000
	size := perScore
	for _, p := range s.Parts {
		for _, m := range p.Measures {
			size += perMeasure + perEvent*len(m.Events)
		}
	}
	return size
}
