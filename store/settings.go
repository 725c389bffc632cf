package store

import (
	"context"

	"unhurriedbench/core/finger"
)

// Settings are how a teacher counts, names and writes, by key. A key that is not
// there is left to the program. Package web says which keys there are.
type Settings map[string]string

// Settings lists a teacher's settings.
func (d *Desk) Settings(ctx context.Context) (Settings, error) {
	w, err := d.Ways(ctx)
	return w.Settings, err
}

// Ways are how a teacher teaches: the settings, what their instruments are, by instrument
// id, and the fingerings wanted for notes, by instrument id.
type Ways struct {
	Settings  Settings
	Kinds     map[string]string
	Preferred map[string]finger.Preferred
}

// Ways reads all of it at once.
func (d *Desk) Ways(ctx context.Context) (Ways, error) {
	var rows []struct {
		Table      int
		Key, Value string
		Pitch      int
	}
	err := d.all(ctx, &rows, "list how you teach", `
		SELECT 0 AS table, key, value, 0 AS pitch FROM settings WHERE teacher_id = $1
		UNION ALL SELECT 1, instrument, model, 0 FROM instrument_models WHERE teacher_id = $1
		UNION ALL SELECT 2, instrument, fingering, pitch FROM preferred WHERE teacher_id = $1`)
	w := Ways{Settings: Settings{}, Kinds: map[string]string{}, Preferred: map[string]finger.Preferred{}}
	for _, r := range rows {
		switch {
		case r.Table == 0:
			w.Settings[r.Key] = r.Value
		case r.Table == 1:
			w.Kinds[r.Key] = r.Value
		case w.Preferred[r.Key] == nil:
			w.Preferred[r.Key] = finger.Preferred{r.Pitch: r.Value}
		default:
			w.Preferred[r.Key][r.Pitch] = r.Value
		}
	}
	return w, err
}

// SaveSettings changes settings one by one, all or none, and leaves the others; ""
// leaves one to the program again.
func (d *Desk) SaveSettings(ctx context.Context, changed Settings) error {
	if _, moved := changed[ZoneSetting]; moved {
		defer d.zones.forget()
	}
	return d.inTransaction(ctx, "keep the settings", func(tx deskTx) error {
		for key, value := range changed {
			if err := tx.saveSetting(ctx, key, value); err != nil {
				return err
			}
		}
		return nil
	})
}

func (tx deskTx) saveSetting(ctx context.Context, key, value string) error {
	if value == "" {
		return tx.clear(ctx, `DELETE FROM settings WHERE teacher_id = $1 AND key = $2`, key)
	}
	return tx.change(ctx, `
		INSERT INTO settings (teacher_id, key, value) VALUES ($1, $2, $3)
		ON CONFLICT (teacher_id, key) DO UPDATE SET value = $3`, key, value)
}

// SaveModel keeps what a teacher's instrument is, or how it is taught; "" is the usual.
func (d *Desk) SaveModel(ctx context.Context, instrument, kind string) error {
	if kind == "" {
		return d.clear(ctx, "leave the kind", `DELETE FROM instrument_models
			WHERE teacher_id = $1 AND instrument = $2`, instrument)
	}
	return d.change(ctx, "keep the kind", `
		INSERT INTO instrument_models (teacher_id, instrument, model) VALUES ($1, $2, $3)
		ON CONFLICT (teacher_id, instrument) DO UPDATE SET model = $3`, instrument, kind)
}

// Kinds are what the teacher's instruments are, by instrument id.
func (d *Desk) Kinds(ctx context.Context) (map[string]string, error) {
	w, err := d.Ways(ctx)
	return w.Kinds, err
}
