package testsite

import (
	"context"
	"testing"

	"unhurriedbench/store"
)

// StudentCalled finds a student by the first name.
func StudentCalled(t *testing.T, desk *store.Desk, class store.ClassID, name string) store.StudentID {
	t.Helper()
	students, err := desk.Students(context.Background(), class)
	if err != nil {
		t.Fatal(err)
	}
	for _, student := range students {
		if student.FirstName == name {
			return student.ID
		}
	}
	t.Fatalf("nobody is called %s", name)
	return 0
}
