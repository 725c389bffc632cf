package instrument

// How long a player goes on one breath in the first, second and third year, in seconds. The
// figures are ours, from memory of beginners: the flute and the large brass take most air,
// the oboe least.
var (
	usualBreath = [3]float64{8, 11, 14}
	ownBreath   = map[string][3]float64{
		"piccolo": {8, 11, 13}, "flute": {7.5, 10, 12}, "oboe": {10, 13, 17}, "bass-clarinet": {7.5, 10, 12},
		"bari-sax": {7.5, 10, 12},
		"trombone": {7.5, 10, 12}, "trombone-f": {7.5, 10, 12}, "euphonium-bc": {7.5, 10, 12}, "euphonium-tc": {7.5, 10, 12},
		"tuba-bb": {6.5, 8.5, 10}, "tuba-eb": {6.5, 8.5, 10.5},
	}
)

// BreathSeconds is how long a player goes on one breath in a year of playing, in seconds; 0
// for an instrument that is not blown.
func (i Instrument) BreathSeconds(year int) float64 {
	if !i.Blown {
		return 0
	}
	row, own := ownBreath[i.ID]
	if !own {
		row = usualBreath
	}
	return row[min(max(year, 1), 3)-1]
}
