package instrument

// How long a player goes on one breath in the first, second and third year, in seconds. The
// figures are ours, from memory of beginners: the flute and the large brass take most air,
// the oboe least.
var usualBreath = [3]float64{8, 11, 14}

// BreathSeconds is how long a player goes on one breath in a year of playing, in seconds; 0
// for an instrument that is not blown.
func (i Instrument) BreathSeconds(year int) float64 {
	if !i.Blown {
		return 0
	}
	row := i.breath
	if row == [3]float64{} {
		row = usualBreath
	}
	return row[min(max(year, 1), 3)-1]
}
