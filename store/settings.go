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
	Naming   string            `json:"naming,omitempty"`
	Naturals string            `json:"naturals,omitempty"`
	British  bool              `json:"british,omitempty"`
	Cues     [2]string         `json:"cues,omitzero"`

	// Preferred is the fingering wanted for a written note, by instrument id and
	// MIDI number.
	Preferred map[string]map[int]string `json:"preferred,omitempty"`
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
