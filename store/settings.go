package store

import (
	"context"
	"encoding/json"
	"fmt"
)

// Settings is how a teacher counts, names and writes. Empty fields are the
// defaults of core.
type Settings struct {
	School   string            `json:"school,omitempty"`
	SlowBeat bool              `json:"slowBeat,omitempty"`
	Rests    string            `json:"rests,omitempty"`
	Words    map[string]string `json:"words,omitempty"`
	Syncopa  bool              `json:"syncopa,omitempty"`
	Naming   string            `json:"naming,omitempty"`
	Naturals string            `json:"naturals,omitempty"`
	British  bool              `json:"british,omitempty"`
	Cues     [2]string         `json:"cues,omitzero"`

	// Preferred is the fingering wanted for a written note, by instrument id and
	// MIDI number.
	Preferred map[string]map[int]string `json:"preferred,omitempty"`
	Fingers   FingerSettings            `json:"fingers,omitzero"`
}

// FingerSettings is how a teacher speaks of fingers, and what their instruments
// have.
type FingerSettings struct {
	Hands      bool              `json:"hands,omitempty"`      // L1 to R3 in place of 1 to 6
	Spacing    bool              `json:"spacing,omitempty"`    // on strings, in place of low and high
	Two        string            `json:"two,omitempty"`        // the cello's patterns
	Three      string            `json:"three,omitempty"`      //
	Colours    map[string]string `json:"colours,omitempty"`    // of strings, by letter: "#2f6f62"
	FourValves map[string]bool   `json:"fourValves,omitempty"` // by instrument id
	Sticking   map[string]string `json:"sticking,omitempty"`   // by instrument id
	Kinds      map[string]string `json:"kinds,omitempty"`      // what else an instrument or its school is, by instrument id
}

// Settings reads a teacher's settings.
func (s *Store) Settings(ctx context.Context, teacher int64) (Settings, error) {
	var text []byte
	if err := s.one(ctx, &text, "read the settings", `SELECT settings FROM teachers WHERE id = $1`, teacher); err != nil {
		return Settings{}, err
	}
	var kept Settings
	if err := json.Unmarshal(text, &kept); err != nil {
		return Settings{}, fmt.Errorf("read the settings: %w", err)
	}
	return kept, nil
}

// KeepSettings replaces a teacher's settings.
func (s *Store) KeepSettings(ctx context.Context, teacher int64, kept Settings) error {
	text, err := json.Marshal(kept)
	if err != nil {
		return fmt.Errorf("keep the settings: %w", err)
	}
	return s.change(ctx, "keep the settings", `UPDATE teachers SET settings = $2 WHERE id = $1`, teacher, text)
}

// KeepSchool sets a section's own way of counting; "" is the teacher's.
func (s *Store) KeepSchool(ctx context.Context, teacher, section int64, school string) error {
	return s.change(ctx, "keep the way of counting", `
		UPDATE sections SET school = $3 WHERE teacher_id = $1 AND id = $2`, teacher, section, school)
}
