package store_test

import (
	"context"
	"errors"
	"strings"
	"testing"

	"golang.org/x/crypto/bcrypt"

	"unhurriedbench/internal/testdb"
	"unhurriedbench/store"
)

// A password kept by an older program is taken once more, and then kept as they are now.
func TestOlderPasswords(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	const password = "a long password"
	teacher, err := s.AddTeacher(ctx, "wren@school.example", "Wren", "", password)
	if err != nil {
		t.Fatal(err)
	}
	if !strings.HasPrefix(teacher.PasswordHash, "$argon2id$") {
		t.Errorf("a password is kept as %s", teacher.PasswordHash)
	}
	old, err := bcrypt.GenerateFromPassword([]byte(password), bcrypt.MinCost)
	if err != nil {
		t.Fatal(err)
	}
	if _, err := s.DB().ExecContext(ctx, `UPDATE teachers SET password_hash = $1`, string(old)); err != nil {
		t.Fatal(err)
	}
	if _, err := s.CheckPassword(ctx, teacher.Email, "another password"); !errors.Is(err, store.ErrWrongPassword) {
		t.Errorf("another password gives %v", err)
	}
	for range 2 {
		if _, err := s.CheckPassword(ctx, teacher.Email, password); err != nil {
			t.Fatal(err)
		}
	}
	archived, err := s.TeacherByEmail(ctx, "WREN@school.example")
	if err != nil || !strings.HasPrefix(archived.PasswordHash, "$argon2id$") || archived.PasswordHash == teacher.PasswordHash {
		t.Errorf("kept anew it is %s, %v", archived.PasswordHash, err)
	}
	if archived.Sessions != teacher.Sessions {
		t.Error("keeping a password anew has ended sessions")
	}
	long := strings.Repeat("a long password ", 10) // bcrypt would have cut it
	changed, err := s.SetPassword(ctx, teacher.ID, teacher.ID, long)
	if err != nil || changed.Sessions != teacher.Sessions+1 {
		t.Errorf("another password ends no session: %+v, %v", changed, err)
	}
	if _, err := s.CheckPassword(ctx, teacher.Email, long[:80]); !errors.Is(err, store.ErrWrongPassword) {
		t.Errorf("half a long password gives %v", err)
	}
	if _, err := s.CheckPassword(ctx, teacher.Email, long); err != nil {
		t.Error(err)
	}
}
