package testsite

import (
	"context"
	"testing"

	"unhurriedbench/demo"
)

// InDemo is a visitor who is signed in to the demo.
func InDemo(t *testing.T) *Visitor {
	t.Helper()
	s := Open(t)
	if err := demo.Load(context.Background(), s.Store); err != nil {
		t.Fatal(err)
	}
	v := s.Visitor(t)
	v.Post("/sign-in/demo", nil)
	return v
}
