package store

import (
	"context"
	"strconv"
	"time"
)

// SpokenWord is a word of led runs as a teacher has recorded it.
type SpokenWord struct {
	Word  string
	Vowel float64 // seconds from its beginning to its first vowel
	Sound []byte  // a sound file
}

// VoiceSetting is the setting that holds when a teacher's words were last recorded or taken out,
// "" where there are none.
const VoiceSetting = "voice"

// oneOf narrows a query to some words; without any named, to all.
const oneOf = ` AND (word = ANY($2) OR cardinality($2::text[]) = 0)`

// SpokenWords lists a teacher's words with their sound, by the alphabet: those that are named, or
// all.
func (d *Desk) SpokenWords(ctx context.Context, words ...string) ([]SpokenWord, error) {
	var list []SpokenWord
	err := d.all(ctx, &list, "find your words",
		`SELECT word, vowel, sound FROM spoken_words WHERE teacher_id = $1`+oneOf+` ORDER BY word`, append([]string{}, words...))
	return list, err
}

// RecordedWords lists which words a teacher has recorded, by the alphabet.
func (d *Desk) RecordedWords(ctx context.Context) ([]string, error) {
	var list []string
	err := d.all(ctx, &list, "list your words", `SELECT word FROM spoken_words WHERE teacher_id = $1 ORDER BY word`)
	return list, err
}

// SaveSpokenWords keeps words in place of earlier ones.
func (d *Desk) SaveSpokenWords(ctx context.Context, words []SpokenWord) error {
	if len(words) == 0 {
		return nil
	}
	return d.inTransaction(ctx, "keep your words", func(tx deskTx) error {
		for _, w := range words {
			if err := tx.change(ctx, `INSERT INTO spoken_words (teacher_id, word, vowel, sound) VALUES ($1, $2, $3, $4)
				ON CONFLICT (teacher_id, word) DO UPDATE SET vowel = excluded.vowel, sound = excluded.sound`, w.Word, w.Vowel, w.Sound); err != nil {
				return err
			}
		}
		return tx.voiceChanged(ctx)
	})
}

// DeleteSpokenWords takes words out, so that they are the program's again; without any named, all.
func (d *Desk) DeleteSpokenWords(ctx context.Context, words ...string) error {
	return d.inTransaction(ctx, "take your words out", func(tx deskTx) error {
		if err := tx.clear(ctx, `DELETE FROM spoken_words WHERE teacher_id = $1`+oneOf, append([]string{}, words...)); err != nil {
			return err
		}
		return tx.voiceChanged(ctx)
	})
}

// voiceChanged sets down when the words were last changed, or that there are none.
func (tx deskTx) voiceChanged(ctx context.Context) error {
	var left int
	if err := tx.one(ctx, &left, `SELECT count(*) FROM spoken_words WHERE teacher_id = $1`); err != nil {
		return err
	}
	version := ""
	if left > 0 {
		version = strconv.FormatInt(time.Now().UnixMilli(), 10)
	}
	return tx.saveSetting(ctx, VoiceSetting, version)
}
