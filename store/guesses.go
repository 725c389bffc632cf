package store

import (
	"context"
	"crypto/sha256"
	"time"
)

// guessTime is how long counted guesses stay.
const guessTime = 10 * time.Minute

func guesser(key string) []byte {
	sum := sha256.Sum256([]byte("guesses " + key))
	return sum[:]
}

// CountGuesses counts guesses of a key, such as an address, in the time that begins at
// since. All servers on the database count together.
func (s *Store) CountGuesses(ctx context.Context, key string, since time.Time, more int) error {
	_, err := s.db.ExecContext(ctx, `
		WITH old AS (DELETE FROM guesses WHERE since < $4)
		INSERT INTO guesses (hash, since, n) VALUES ($1, $2, $3)
		ON CONFLICT (hash, since) DO UPDATE SET n = guesses.n + $3`, guesser(key), since, more, since.Add(-guessTime))
	return wrap("count a guess", err)
}

// Guesses are how many were counted since one time and since the one before it.
func (s *Store) Guesses(ctx context.Context, key string, since, before time.Time) (now, then int, err error) {
	var counted struct{ Now, Then int }
	err = s.one(ctx, &counted, "look for guesses", `
		SELECT coalesce(sum(n) FILTER (WHERE since = $2), 0) AS now, coalesce(sum(n) FILTER (WHERE since = $3), 0) AS then
		FROM guesses WHERE hash = $1 AND since IN ($2, $3)`, guesser(key), since, before)
	return counted.Now, counted.Then, err
}
