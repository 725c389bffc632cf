package count

import "unhurriedbench/core/score"

// hold is shown where a syllable is held on and nothing new is said.
const hold = "–"

// restWord is said for a rest.
const restWord = "rest"

// say is what is said or thought at the k-th moment of a note or rest.
func (s span) say(k int, o Options, said words) string {
	now := s.moments[k]
	if s.rest {
		return s.sayRest(k, o)
	}
	switch o.School {
	case Values:
		return s.sayValue(k, o)
	case Places, Function:
		if now.starts {
			return now.pace.at(o.School, now.place, now.tuplet)
		}
		return hold
	case OneTa:
		if now.starts {
			return "ta"
		}
		return hold
	case Words:
		if now.starts {
			return said.at(now)
		}
		return hold
	}
	return now.pace.at(Numbers, now.place, now.tuplet)
}

// sayRest counts a rest. The syllable schools keep silent. In one-breath ta a
// quarter rest, or in compound meters one of a beat, is the word and others are
// numbers at their place.
func (s span) sayRest(k int, o Options) string {
	now := s.moments[k]
	number := now.pace.at(Numbers, now.place, now.tuplet)
	switch o.School {
	case Values, Places, Function, Words:
		return ""
	case OneTa:
		if s.length == score.Frac(1, 4) && !now.pace.compound || s.length == now.pace.beat && now.pace.compound {
			return restWord
		}
		return number
	}
	if o.Rests == AsWord {
		if now.starts {
			return restWord
		}
		return hold
	}
	return number
}

// plainRests says whether a rest with this label stands without brackets.
func (o Options) plainRests(label string) bool {
	return o.Rests == AtPlace || o.School == OneTa || label == restWord || label == hold
}

// syncopa are the syllables for eighth, quarter, eighth, where they are wanted.
var syncopa = [...]string{"", "syn", "co", "pa"}

// sayValue gives syllables by value. Source: common practice of the Kodály
// line: ta for a quarter, ti for an eighth, ti-ka for sixteenths, ta-a for a
// half, tam for a dotted quarter, tri-o-la for a triplet. A sixteenth before a longer
// note of its beat is ka: ka-tim as against tim-ka, ka-ti-ka as against ti-ti-ka (our
// choice). Ties count as the note they add up to.
func (s span) sayValue(k int, o Options) string {
	now := s.moments[k]
	quarter, eighth := score.Frac(1, 4), score.Frac(1, 8)
	if !now.starts {
		switch {
		// it is held over a beat that it does not fill
		case s.length.Cmp(quarter) <= 0 || s.written.Tuplet.Actual == 3 && !now.pace.compound:
			return hold
		case s.length == score.Frac(3, 8) || !now.pace.compound && s.length.Sub(now.gone).Less(quarter):
			return "m"
		}
		return "a"
	}
	if s.written.Tuplet.Actual == 3 && !now.pace.compound {
		return now.triola()
	}
	if o.Syncopa && s.syncope > 0 {
		return syncopa[s.syncope]
	}
	if s.short {
		return "ka"
	}
	switch {
	case s.length == score.Frac(3, 8) || s.length == score.Frac(3, 4) && now.pace.compound:
		return "tam"
	case s.length == score.Frac(3, 16):
		return "tim"
	case s.length.Cmp(quarter) >= 0:
		return "ta"
	case s.length.Cmp(eighth) >= 0:
		return "ti"
	}
	// Sixteenths alternate on their own grid; anything shorter follows it.
	if now.place.Within(eighth).IsZero() {
		return "ti"
	}
	return "ka"
}

// triola is the syllable of a triplet note by its third of the triplet.
func (now moment) triola() string { return [...]string{"ti", "tri", "o", "la"}[now.third] }
