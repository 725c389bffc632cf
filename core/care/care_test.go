package care

import (
	"strings"
	"testing"

	"unhurriedbench/core/instrument"
)

// Every kind has something to say of every topic, with its source, in sentences; nothing is
// said twice of one kind.
func TestEveryKindHasEveryTopic(t *testing.T) {
	for _, k := range Kinds() {
		if k.Title() == "" {
			t.Errorf("%s has no title", k)
		}
		seen := map[string]bool{}
		for _, topic := range Topics() {
			a := For(k, topic)
			if len(a.Lines) < 2 || a.Source == "" || topic.Title() == "" {
				t.Errorf("%s, %s: %d lines from %q", k, topic, len(a.Lines), a.Source)
			}
			for _, line := range a.Lines {
				if seen[line] || !strings.HasSuffix(line, ".") {
					t.Errorf("%s, %s: %q", k, topic, line)
				}
				seen[line] = true
			}
		}
		careful := strings.Join(For(k, Careful).Lines, " ")
		for _, want := range []string{"85 dBA", "doctor", "school’s rules"} {
			if !strings.Contains(careful, want) {
				t.Errorf("%s has no caution of %s", k, want)
			}
		}
	}
}

// Asking twice does not make cautions grow.
func TestCautionsStayAsTheyAre(t *testing.T) {
	for range 3 {
		if n := len(For(Brass, Careful).Lines); n != 7 {
			t.Errorf("there are %d cautions for brass", n)
		}
	}
}

// What blows into a mouthpiece or a reed is advised not to share it, and no string player to empty
// water.
func TestKindsOfInstruments(t *testing.T) {
	for _, i := range instrument.All() {
		k := KindOf(i)
		all := ""
		for _, topic := range Topics() {
			all += strings.Join(For(k, topic).Lines, " ")
		}
		if i.Blown != strings.Contains(all, "one person’s own") {
			t.Errorf("%s, of the %s: blown is %v", i.ID, k, i.Blown)
		}
		if i.LipsTire() && !strings.Contains(all, "Lips rest") {
			t.Errorf("%s: nothing is said of tired lips", i.ID)
		}
		if strings.Contains(all, "Water out") != (k == Brass) || strings.Contains(all, "rosin") != (k == Strings) {
			t.Errorf("%s, of the %s, is told of another kind", i.ID, k)
		}
	}
	for id, want := range map[string]Kind{"piccolo": Flutes, "oboe": Reeds, "alto-sax": Reeds, "tuba-bb": Brass, "double-bass": Strings, "timpani": Percussion, "marimba": Percussion} {
		if i, known := instrument.ByID(id); known && KindOf(i) != want {
			t.Errorf("%s is of the %s, want %s", id, KindOf(i), want)
		}
	}
}
