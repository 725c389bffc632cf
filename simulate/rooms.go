package simulate

// MixedBand is a first-year band of thirty.
func MixedBand() *Class {
	c := &Class{Name: "Monday band", Year: 1, Minutes: 30}
	c.Students = players(map[string]int{"flute": 4, "oboe": 1, "clarinet": 6, "alto-sax": 3, "tenor-sax": 1, "bassoon": 1,
		"horn-f": 2, "trumpet": 5, "trombone": 3, "euphonium-bc": 1, "tuba-bb": 1, "snare": 2})
	return c
}

// Strings are twelve in their second year.
func Strings() *Class {
	c := &Class{Name: "Wednesday strings", Year: 2, Minutes: 30}
	c.Students = players(map[string]int{"violin": 6, "viola": 2, "cello": 3, "bass": 1})
	return c
}

// Drums are five who strike what has no pitch.
func Drums() *Class {
	c := &Class{Name: "Friday percussion", Year: 1, Minutes: 30}
	c.Students = players(map[string]int{"snare": 5})
	return c
}

// firsts are first names of our own choosing, each with an initial by its place.
var firsts = []string{
	"Ada", "Bruno", "Cleo", "Dario", "Elif", "Finn", "Greta", "Hugo", "Ida", "Jonas", "Kira", "Lars", "Mina", "Nils",
	"Orla", "Pavel", "Quinn", "Rosa", "Sami", "Tova", "Ugo", "Vera", "Wim", "Xenia", "Yara", "Zeno", "Anouk", "Bela",
	"Carlo", "Dunja",
}

// order is in which instruments are handed out, so that a class is the same each time.
var order = []string{
	"flute", "oboe", "clarinet", "alto-sax", "tenor-sax", "bassoon", "horn-f", "trumpet", "trombone", "euphonium-bc",
	"tuba-bb", "snare", "violin", "viola", "cello", "bass",
}

// players are students of some instruments, of different quickness, one in six with a habit.
func players(of map[string]int) []Student {
	habits := []Habit{Rushes, Thirds, NoBreak, Late, Airy}
	var list []Student
	for _, id := range order {
		for range of[id] {
			n := len(list)
			s := Student{First: firsts[n%len(firsts)], Initial: string(rune('A' + (7*n)%26)), Instrument: id, Quick: 6 + n%4}
			if n%6 == 2 {
				s.Habit = habits[n/6%len(habits)]
			}
			list = append(list, s)
		}
	}
	return list
}
