package testsite

import (
	"context"
	"testing"

	"unhurriedbench/store"
)

// TeacherID is a teacher's id, by their address.
func TeacherID(t *testing.T, s *Site, email string) store.TeacherID {
	t.Helper()
	teacher, err := s.Store.TeacherByEmail(context.Background(), email)
	if err != nil {
		t.Fatal(err)
	}
	return teacher.ID
}
