package store

import (
	"context"
	"reflect"
	"sync"
	"time"

	"github.com/jmoiron/sqlx"
)

// ZoneSetting is the setting that holds a teacher's own time zone, by its IANA name.
const ZoneSetting = "zone"

// zones remembers for a while in which time zone the days of each teacher are reckoned; another
// server may have changed it.
type zones struct {
	mu sync.Mutex
	of map[TeacherID]zone
}

// zone is one that was read, until when it holds.
type zone struct {
	*time.Location
	until time.Time
}

// zoneHolds is how long a zone is remembered.
const zoneHolds = time.Minute

func (z *zones) known(t TeacherID) *time.Location {
	z.mu.Lock()
	defer z.mu.Unlock()
	if known := z.of[t]; time.Now().Before(known.until) {
		return known.Location
	}
	return nil
}

func (z *zones) remember(t TeacherID, at *time.Location) {
	z.mu.Lock()
	defer z.mu.Unlock()
	if z.of == nil {
		z.of = map[TeacherID]zone{}
	}
	z.of[t] = zone{at, time.Now().Add(zoneHolds)}
}

// forget forgets what has changed: of all teachers.
func (z *zones) forget() {
	z.mu.Lock()
	defer z.mu.Unlock()
	z.of = nil
}

// Zone is where the school is: the time zone that the teacher has chosen, else that of the
// installation, else that of the server. Where it cannot be read it is the server's.
func (d *Desk) Zone(ctx context.Context) *time.Location {
	if at := d.zones.known(d.teacher); at != nil {
		return at
	}
	var name string
	at := time.Local
	if err := d.db.GetContext(ctx, &name, `
		SELECT coalesce(nullif((SELECT value FROM settings WHERE teacher_id = $1 AND key = $2), ''), (SELECT zone FROM policy), '')`,
		d.teacher, ZoneSetting); err != nil {
		return at
	}
	if chosen, err := time.LoadLocation(name); err == nil && name != "" {
		at = chosen
	}
	d.zones.remember(d.teacher, at)
	return at
}

// zoneName is the zone as the database names it, "" for the server's.
func (d *Desk) zoneName(ctx context.Context) string {
	if at := d.Zone(ctx); at != time.Local {
		return at.String()
	}
	return ""
}

// InstallationZone is the time zone of the installation, "" where none is known.
func (s *Store) InstallationZone(ctx context.Context) (string, error) {
	var names []string
	err := s.db.SelectContext(ctx, &names, `SELECT zone FROM policy`)
	return append(names, "")[0], wrap("find the time zone", err)
}

// FirstZone sets the time zone of the installation where it has none.
func (s *Store) FirstZone(ctx context.Context, name string) error {
	defer s.zones.forget()
	return inTransaction(ctx, s.db, "keep the time zone", func(tx *sqlx.Tx) error {
		_, err := tx.ExecContext(ctx, `
			INSERT INTO policy (longest_days, idle_days, idle_minutes, retain_months, zone) VALUES ($1, $2, $3, $4, $5)
			ON CONFLICT (one) DO UPDATE SET zone = $5 WHERE policy.zone = ''`, StandardPolicy.LongestDays, StandardPolicy.IdleDays,
			StandardPolicy.IdleMinutes, StandardPolicy.RetainMonths, name)
		return err
	})
}

// moment is the type of a time.
var moment = reflect.TypeFor[time.Time]()

// inZone puts moments that were read into the zone of the desk, in a struct or a list of them; a
// day, which has no zone, stays as it is.
func (d *Desk) inZone(ctx context.Context, read any) {
	v := reflect.ValueOf(read).Elem()
	if !holdsMoments(v.Type()) {
		return
	}
	if at := d.Zone(ctx); at != time.Local {
		place(v, at)
	}
}

// holdsMoments says whether a value of a type may hold a time.
func holdsMoments(t reflect.Type) bool {
	switch t.Kind() {
	case reflect.Slice, reflect.Pointer:
		return holdsMoments(t.Elem())
	case reflect.Struct:
		if t == moment {
			return true
		}
		for k := range t.NumField() {
			if f := t.Field(k); (f.IsExported() || f.Anonymous) && holdsMoments(f.Type) {
				return true
			}
		}
	}
	return false
}

func place(v reflect.Value, at *time.Location) {
	switch v.Kind() {
	case reflect.Pointer:
		if !v.IsNil() {
			place(v.Elem(), at)
		}
	case reflect.Slice:
		if holdsMoments(v.Type().Elem()) {
			for k := range v.Len() {
				place(v.Index(k), at)
			}
		}
	case reflect.Struct:
		if v.Type() == moment {
			if t, is := v.Interface().(time.Time); is && t.Location() == time.Local && v.CanSet() {
				v.Set(reflect.ValueOf(t.In(at)))
			}
			return
		}
		for k := range v.NumField() {
			if f := v.Type().Field(k); (f.IsExported() || f.Anonymous) && holdsMoments(f.Type) {
				place(v.Field(k), at)
			}
		}
	}
}
