package store_test

import (
	"context"
	"testing"

	"unhurriedbench/internal/testdb"
)

// A plan without changed days has none in the table too, where a change is put beside others.
func TestAPlanWithoutChanges(t *testing.T) {
	t.Parallel()
	s, ctx := testdb.Open(t), context.Background()
	f := add(t, s, "oak")
	plan := homePlan(f, "a plan")
	plan.Changed = nil
	if err := f.SaveHomePlans(ctx, plan); err != nil {
		t.Fatal(err)
	}
	var changed string
	if err := s.DB().QueryRowContext(ctx, `SELECT changed::text FROM practice_plans WHERE student_id = $1`, plan.Student).Scan(&changed); err != nil || changed != "{}" {
		t.Errorf("its changed days are %s, %v", changed, err)
	}
}
