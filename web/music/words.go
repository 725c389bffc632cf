package music

import (
	"unhurriedbench/core/breakdown"
)

// AlertWord names an alert for a teacher.
func AlertWord(a breakdown.Alert) string {
	words := map[breakdown.Alert]string{
		breakdown.InKey: "key signature", breakdown.Trap: "trap", breakdown.Accidental: "sign",
		breakdown.Carried: "sign still holds", breakdown.Cancelled: "sign is over",
		breakdown.Respelled: "two names", breakdown.Long: "long note", breakdown.Last: "last note",
		breakdown.Prepare: "move in the rest", breakdown.HardChange: "hard change",
		breakdown.LookAlike: "a third, not a step", breakdown.New: "new", breakdown.Skip: "easily skipped",
		breakdown.Held: "fermata", breakdown.Breathe: "breath mark", breakdown.Accented: "accent",
		breakdown.Swells: "hairpin",
	}
	if word, known := words[a]; known {
		return word
	}
	return string(a)
}
