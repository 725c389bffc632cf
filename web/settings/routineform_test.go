package settings

import (
	"testing"

	"unhurriedbench/core/instrument"
)

// The instrument that stands for a family is one of it; of percussion one with hands.
func TestFirstOfAFamily(t *testing.T) {
	t.Parallel()
	for _, family := range instrument.Families() {
		i := firstOf(family)
		if i.Family != family || family == "percussion" && !i.TwoHands {
			t.Errorf("for %s stands the %s", family, i.Name)
		}
	}
	if i := firstOf("kitchen"); i.ID != instrument.ConcertReader().ID {
		t.Errorf("for no family stands the %s", i.Name)
	}
}
