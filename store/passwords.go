package store

import (
	"context"
	"crypto/rand"
	"crypto/subtle"
	"encoding/base64"
	"errors"
	"fmt"
	"strings"

	"golang.org/x/crypto/argon2"
	"golang.org/x/crypto/bcrypt"
)

// The bounds of a password: letters at least, bytes at most.
const (
	ShortestPassword = 12
	LongestPassword  = 200
)

// ErrWrongPassword is for an address and password that do not belong together.
var ErrWrongPassword = errors.New("wrong address or password")

// Passwords are kept by Argon2id. Source of the method: RFC 9106; of its cost: the OWASP
// cheat sheet on storing passwords.
const (
	argonMemory = 19 * 1024 // KiB
	argonPasses = 2
	argonLanes  = 1
	saltBytes   = 16
	keyBytes    = 32
	argonCost   = "$argon2id$v=19$m=19456,t=2,p=1$"
)

// hashed is a password as it is kept.
func hashed(password string) string {
	salt := make([]byte, saltBytes)
	_, _ = rand.Read(salt) // never fails
	text := base64.RawStdEncoding.EncodeToString
	return argonCost + text(salt) + "$" + text(argonKey(password, salt))
}

func argonKey(password string, salt []byte) []byte {
	return argon2.IDKey([]byte(password), salt, argonPasses, argonMemory, argonLanes, keyBytes)
}

// fits says whether a password is the one that is kept, and whether it is kept in an
// older way.
func fits(archived, password string) (ok, older bool) {
	rest, ours := strings.CutPrefix(archived, argonCost)
	if !ours {
		return bcrypt.CompareHashAndPassword([]byte(archived), []byte(password)) == nil, true
	}
	salt, key, _ := strings.Cut(rest, "$")
	from := base64.RawStdEncoding.DecodeString
	rawSalt, badSalt := from(salt)
	rawKey, badKey := from(key)
	if badSalt != nil || badKey != nil {
		return false, false
	}
	return subtle.ConstantTimeCompare(argonKey(password, rawSalt), rawKey) == 1, false
}

// nobodysHash is compared with where there is no such account, so that the answer takes
// as long.
var nobodysHash = argonCost + "AAAAAAAAAAAAAAAAAAAAAA$AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA"

// CheckPassword returns the teacher with that address and password, or
// ErrWrongPassword. It takes as long when there is no such address. A password that is
// kept in an older way is kept again.
func (s *Store) CheckPassword(ctx context.Context, email, password string) (Teacher, error) {
	t, err := s.TeacherByEmail(ctx, email)
	if err != nil && !errors.Is(err, ErrNotFound) {
		return Teacher{}, err
	}
	archived := t.PasswordHash
	if archived == "" {
		archived = nobodysHash
	}
	ok, older := fits(archived, password)
	if !ok || t.PasswordHash == "" {
		return Teacher{}, ErrWrongPassword
	}
	if older {
		if _, err := s.db.ExecContext(ctx, `UPDATE teachers SET password_hash = $2
			WHERE id = $1`, t.ID, hashed(password)); err != nil {
			return Teacher{}, fmt.Errorf("keep the password anew: %w", err)
		}
	}
	return t, nil
}

// SetPassword gives a teacher another password, by themself or, by 0, on the machine, and
// ends all their sessions.
func (s *Store) SetPassword(ctx context.Context, by, id TeacherID, password string) (Teacher, error) {
	return s.changeTeacher(ctx, "change the password", logEntry{action: PasswordChanged, by: by}, `
		UPDATE teachers SET password_hash = $2, sessions = sessions + 1 WHERE id = $1 AND NOT demo
			AND removed_at IS NULL RETURNING `+teacherColumns, id, hashed(password))
}

// EndSessions ends all sessions of a teacher.
func (s *Store) EndSessions(ctx context.Context, id TeacherID) (Teacher, error) {
	return s.changeTeacher(ctx, "end the sessions", logEntry{action: SessionsEnded, by: id}, `
		UPDATE teachers SET sessions = sessions + 1 WHERE id = $1 RETURNING `+teacherColumns, id)
}
