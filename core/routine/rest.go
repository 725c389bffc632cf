package routine

import (
	"fmt"
	"math"

	"unhurriedbench/core/instrument"
)

// Rest is a pause for the lips after playing.
type Rest struct {
	Seconds float64 // 0 for none
	Why     string  // "It is new: lips rest about 12 s, as long as they played."
}

// RestFor says how long the lips rest after playing for some seconds: as long as they
// played, where what was played is new or high; instruments without lips need none, and
// neither does what they know. Source: common practice.
func RestFor(i instrument.Instrument, seconds float64, fresh, high bool) Rest {
	if !i.LipsTire() || seconds <= 0 || !fresh && !high {
		return Rest{}
	}
	why := "It is high"
	switch {
	case fresh && high:
		why = "It is new and high"
	case fresh:
		why = "It is new"
	}
	return Rest{seconds, fmt.Sprintf("%s: after each time the lips rest as long as they played, about %.0f s. Stop here if you are tired.", why, math.Ceil(seconds))}
}
