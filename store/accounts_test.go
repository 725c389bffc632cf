package store_test

import (
	"context"
	"errors"
	"testing"

	"unhurriedbench/internal/testdb"
	"unhurriedbench/store"
)

// Who may take whose account away, and what that does.
func TestAccountsAreDeleted(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	owner, err := s.AddFirstTeacher(ctx, "owner@school.example", "Owner", "", "a long password")
	if err != nil {
		t.Fatal(err)
	}
	a, b := add(t, s, "a"), add(t, s, "b")
	for what, err := range map[string]error{
		"another's, by no owner":             s.RemoveTeacher(ctx, a.teacher, b.teacher),
		"the owner's, by another":            s.RemoveTeacher(ctx, a.teacher, owner.ID),
		"the owner's own, with others there": s.RemoveTeacher(ctx, owner.ID, owner.ID),
		"put back, what was not taken":       s.PutTeacherBack(ctx, owner.ID, a.teacher),
		"erased, what was not taken":         s.EraseTeacher(ctx, owner.ID, a.teacher),
		"handed over by no owner":            s.HandOver(ctx, a.teacher, b.teacher),
	} {
		if !errors.Is(err, store.ErrNotFound) {
			t.Errorf("%s gives %v", what, err)
		}
	}
	if err := errors.Join(s.RemoveTeacher(ctx, a.teacher, a.teacher), s.RemoveTeacher(ctx, owner.ID, b.teacher)); err != nil {
		t.Fatal(err)
	}
	for _, f := range []fixture{a, b} {
		if _, err := s.CheckPassword(ctx, f.mark+"@school.example", "a long password"); !errors.Is(err, store.ErrWrongPassword) {
			t.Errorf("%s signs in to an account that was taken away: %v", f.mark, err)
		}
		if _, err := s.TeacherByID(ctx, f.teacher); !errors.Is(err, store.ErrNotFound) {
			t.Errorf("%s is found: %v", f.mark, err)
		}
	}
	if list, err := s.RemovedTeachers(ctx); err != nil || len(list) != 2 {
		t.Errorf("taken away are %v, %v", list, err)
	}
	if err := s.PutTeacherBack(ctx, owner.ID, a.teacher); err != nil {
		t.Fatal(err)
	}
	if _, err := s.CheckPassword(ctx, "a@school.example", "a long password"); err != nil {
		t.Errorf("back again, signing in gives %v", err)
	}
	if err := s.EraseTeacher(ctx, owner.ID, b.teacher); err != nil {
		t.Fatal(err)
	}
	if found := rowsWith(t, s, "of b"); len(found) > 0 {
		t.Errorf("of an erased account stands in %v", found)
	}
	if err := s.HandOver(ctx, owner.ID, a.teacher); err != nil {
		t.Fatal(err)
	}
	if err := s.RemoveTeacher(ctx, owner.ID, owner.ID); err != nil {
		t.Errorf("who has handed over stays: %v", err)
	}
	if _, err := s.DB().Exec(`UPDATE teachers SET removed_at = now() - interval '31 days' WHERE removed_at IS NOT NULL`); err != nil {
		t.Fatal(err)
	}
	if _, err := s.DB().Exec(`INSERT INTO sessions (token, data, expiry) VALUES ('over', '', now() - interval '1 minute'), ('goes on', '', now() + interval '1 minute')`); err != nil {
		t.Fatal(err)
	}
	if err := s.DeleteExpired(ctx); err != nil {
		t.Fatal(err)
	}
	var open string
	if err := s.DB().QueryRow(`SELECT string_agg(token, ',') FROM sessions`).Scan(&open); err != nil || open != "goes on" {
		t.Errorf("the sessions %q are kept, %v", open, err)
	}
	if found := rowsWith(t, s, "owner@school.example"); len(found) > 0 {
		t.Errorf("after its days an account stands in %v", found)
	}
	var erased int
	if err := s.DB().QueryRow(`SELECT count(*) FROM activity WHERE action = 'account erased'`).Scan(&erased); err != nil || erased != 2 {
		t.Errorf("the log tells of %d erased accounts, %v", erased, err)
	}
}

func TestTheOwnerChoosesLimits(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	owner, err := s.AddFirstTeacher(ctx, "owner@school.example", "Owner", "", "a long password")
	if err != nil {
		t.Fatal(err)
	}
	other := add(t, s, "a")
	if h, err := s.Policy(ctx); err != nil || h != store.StandardPolicy {
		t.Errorf("at first the limits are %+v, %v", h, err)
	}
	chosen := store.Policy{LongestDays: 30, IdleDays: 3, IdleMinutes: 15, RetainMonths: 24}
	if err := s.SavePolicy(ctx, other.teacher, chosen); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("another teacher's choice gives %v", err)
	}
	for range 2 {
		if err := s.SavePolicy(ctx, owner.ID, chosen); err != nil {
			t.Fatal(err)
		}
	}
	if h, err := s.Policy(ctx); err != nil || h != chosen {
		t.Errorf("the limits are %+v, %v", h, err)
	}
}
