package store

import "context"

// Settings are how a teacher counts, names and writes, by key. A key that is not
// there is left to the program. Package web says which keys there are.
type Settings map[string]string

// Settings lists a teacher's settings.
func (d *Desk) Settings(ctx context.Context) (Settings, error) {
	var rows []struct{ Key, Value string }
	err := d.all(ctx, &rows, "list the settings", `SELECT key, value FROM settings WHERE teacher_id = $1`)
	kept := Settings{}
	for _, r := range rows {
		kept[r.Key] = r.Value
	}
	return kept, err
}

// KeepSettings changes settings one by one, all or none, and leaves the others; ""
// leaves one to the program again.
func (d *Desk) KeepSettings(ctx context.Context, changed Settings) error {
	return d.inTransaction(ctx, "keep the settings", func(tx deskTx) error {
		for key, value := range changed {
			if err := tx.keepSetting(ctx, key, value); err != nil {
				return err
			}
		}
		return nil
	})
}

func (tx deskTx) keepSetting(ctx context.Context, key, value string) error {
	if value == "" {
		return tx.clear(ctx, `DELETE FROM settings WHERE teacher_id = $1 AND key = $2`, key)
	}
	return tx.change(ctx, `
		INSERT INTO settings (teacher_id, key, value) VALUES ($1, $2, $3)
		ON CONFLICT (teacher_id, key) DO UPDATE SET value = $3`, key, value)
}

// KeepKind keeps what a teacher's instrument is, or how it is taught; "" is the usual.
func (d *Desk) KeepKind(ctx context.Context, instrument, kind string) error {
	if kind == "" {
		return d.clear(ctx, "leave the kind", `DELETE FROM instrument_kinds WHERE teacher_id = $1 AND instrument = $2`, instrument)
	}
	return d.change(ctx, "keep the kind", `
		INSERT INTO instrument_kinds (teacher_id, instrument, kind) VALUES ($1, $2, $3)
		ON CONFLICT (teacher_id, instrument) DO UPDATE SET kind = $3`, instrument, kind)
}

// Kinds are what the teacher's instruments are, by instrument id.
func (d *Desk) Kinds(ctx context.Context) (map[string]string, error) {
	var rows []struct{ Instrument, Kind string }
	err := d.all(ctx, &rows, "list the kinds", `SELECT instrument, kind FROM instrument_kinds WHERE teacher_id = $1`)
	kinds := map[string]string{}
	for _, r := range rows {
		kinds[r.Instrument] = r.Kind
	}
	return kinds, err
}
