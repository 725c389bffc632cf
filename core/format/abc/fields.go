package abc

import (
	"fmt"
	"regexp"
	"strconv"
	"strings"

	"unhurriedbench/core/score"
)

// field reads one information field; inline is true for [M:3/4] among notes.
func (r *reader) field(name byte, value string, inline bool) {
	switch name {
	case 'T':
		if r.score.Title == "" {
			r.score.Title = value
		}
	case 'C':
		r.score.Composer = value
	case 'M':
		r.meterField(value)
	case 'L':
		unit, err := score.ParseFraction(value)
		if err != nil || unit.Cmp(score.Fraction{}) <= 0 || unit.Den() > 64 {
			r.fail(fmt.Sprintf("L:%s is not a note length.", value), "Write L:1/4 or L:1/8.")
			return
		}
		r.unit, r.unitSet = unit, true
	case 'K':
		r.keyField(value)
		if !r.inBody && len(r.problems) == 0 {
			r.startBody()
		}
	case 'Q':
		r.tempoField(value)
	case 'V':
		id, settings, _ := strings.Cut(value, " ")
		r.chooseVoice(id, settings)
	case 'P':
		if r.inBody && r.voice != nil {
			r.voice.measure.Rehearsal = value
		}
	case 'm', 'U', 's':
		r.remark(string(name), fmt.Sprintf("%c: lines are left out.", name), "")
	case 'R':
		r.score.TempoWords = value
	case 'I':
		r.directive(value)
	}
	if inline && strings.IndexByte("MLKQVPIRNr", name) < 0 {
		r.fail(fmt.Sprintf("[%c:…] cannot stand among the notes.", name), "Put it on a line of its own above K:.")
	}
}

func (r *reader) meterField(value string) {
	m, ok := parseMeter(value)
	if !ok {
		r.fail(fmt.Sprintf("M:%s is not a meter this reads.", value), "Write M:4/4, M:3/4, M:6/8, M:C or M:C|.")
		return
	}
	r.meter, r.meterSet = m, true
	if r.inBody {
		r.voice.settingsChanged()
	}
}

func parseMeter(value string) (score.Meter, bool) {
	switch value {
	case "C":
		return score.Meter{Beats: 4, Unit: 4, Symbol: "common"}, true
	case "C|":
		return score.Meter{Beats: 2, Unit: 2, Symbol: "cut"}, true
	}
	top, bottom, ok := strings.Cut(value, "/")
	beats, err1 := strconv.Atoi(strings.TrimSpace(top))
	unit, err2 := strconv.Atoi(strings.TrimSpace(bottom))
	if !ok || err1 != nil || err2 != nil || beats < 1 || beats > 24 {
		return score.Meter{}, false
	}
	switch unit {
	case 1, 2, 4, 8, 16:
		return score.Meter{Beats: beats, Unit: unit}, true
	}
	return score.Meter{}, false
}

var (
	keyText  = regexp.MustCompile(`^([A-G])([#b]?)\s*([A-Za-z]*)`)
	clefText = regexp.MustCompile(`^(?:clef=)?"?(treble|bass|alto|tenor|perc(?:ussion)?|[GFC][1-5])([+-]8)?"?$`)
	modes    = map[string]string{
		"": "major", "maj": "major", "ion": "major", "m": "minor", "min": "minor", "aeo": "minor",
		"mix": "mixolydian", "dor": "dorian", "phr": "phrygian", "lyd": "lydian", "loc": "locrian",
	}
)

// keyField reads K: with its key, mode and clef.
func (r *reader) keyField(value string) {
	key, rest, ok := parseKey(value)
	if !ok {
		r.fail(fmt.Sprintf("K:%s is not a key this reads.", value), "Write K:C, K:F, K:Bb, K:Dm and so on.")
		return
	}
	if rest != value { // a field with a clef alone leaves the key as it is
		r.key = key
	}
	for _, word := range strings.Fields(rest) {
		if clef, ok := parseClef(word); ok {
			r.clef = clef
		} else if strings.ContainsAny(word[:1], "^_=") || word == "exp" {
			r.fail(fmt.Sprintf("K:%s adds accidentals to the signature.", value),
				"Write the accidentals in front of the notes instead.")
		}
	}
	if r.inBody {
		r.voice.settingsChanged()
	}
}

func parseKey(value string) (key score.Key, rest string, ok bool) {
	if value == "" || strings.EqualFold(value, "none") {
		return score.Key{}, "", true
	}
	if strings.HasPrefix(value, "clef=") || clefText.MatchString(strings.Fields(value)[0]) {
		return score.Key{}, value, true
	}
	found := keyText.FindStringSubmatch(value)
	if found == nil {
		return score.Key{}, "", false
	}
	rest = value[len(found[0]):]
	word := strings.ToLower(found[3])
	if clefText.MatchString(word) || word == "clef" {
		rest, word = value[len(found[0])-len(found[3]):], ""
	}
	if len(word) > 3 {
		word = word[:3]
	}
	mode, known := modes[word]
	if !known {
		return score.Key{}, "", false
	}
	step, _ := score.ParseStep(found[1][0])
	fifths := strings.Index("FCGDAEB", step.String()) - 1
	switch found[2] {
	case "#":
		fifths += 7
	case "b":
		fifths -= 7
	}
	shift, _ := score.ModeFifths(mode)
	key = score.Key{Fifths: fifths - shift, Mode: mode}
	return key, strings.TrimSpace(rest), key.Fifths >= -7 && key.Fifths <= 7
}

func parseClef(word string) (score.Clef, bool) {
	found := clefText.FindStringSubmatch(word)
	if found == nil {
		return score.Clef{}, false
	}
	var clef score.Clef
	switch name := found[1]; name {
	case "perc":
		clef = score.Percussion
	default:
		if named, ok := score.ClefNamed(name); ok {
			clef = named
		} else {
			clef = score.Clef{Sign: name[:1], Line: int(name[1] - '0')}
		}
	}
	switch found[2] {
	case "-8":
		clef.Octave = -1
	case "+8":
		clef.Octave = 1
	}
	return clef, true
}

var tempoText = regexp.MustCompile(`(?:(\d+)/(\d+)\s*=\s*)?(\d+)\s*$`)

// tempoField reads Q:1/4=72, Q:72 and words in quotes.
func (r *reader) tempoField(value string) {
	if open := strings.IndexByte(value, '"'); open >= 0 {
		if end := strings.IndexByte(value[open+1:], '"'); end >= 0 {
			r.score.TempoWords = value[open+1 : open+1+end]
			value = value[:open] + value[open+end+2:]
		}
	}
	value = strings.TrimSpace(value)
	if value == "" {
		return
	}
	found := tempoText.FindStringSubmatch(value)
	if found == nil {
		r.fail(fmt.Sprintf("Q:%s is not a tempo.", value), "Write Q:1/4=72.")
		return
	}
	beat := r.meter.Beat()
	if found[1] != "" {
		parsed, err := score.ParseFraction(found[1] + "/" + found[2])
		if err != nil || parsed.IsZero() {
			r.fail(fmt.Sprintf("Q:%s is not a tempo.", value), "Write Q:1/4=72.")
			return
		}
		beat = parsed
	}
	perMinute, err := strconv.Atoi(found[3])
	if err != nil || perMinute < 1 || perMinute > 400 {
		r.fail(fmt.Sprintf("Q:%s is not a tempo.", value), "Write a number of beats a minute from 1 to 400.")
		return
	}
	if r.score.Tempo.PerMinute == 0 {
		r.score.Tempo = score.Tempo{Beat: beat, PerMinute: perMinute}
	}
}

var voiceSetting = regexp.MustCompile(`([A-Za-z]+)=("[^"]*"|\S+)`)

// chooseVoice goes on in the voice with that id, starting it when it is new.
func (r *reader) chooseVoice(id, settings string) {
	var v *voice
	for _, known := range r.voices {
		if known.id == id {
			v = known
		}
	}
	// Music typed before any V: line belongs to the voice that is named first.
	if v == nil && len(r.voices) == 1 && r.voices[0].unnamed && r.voices[0].empty() {
		v = r.voices[0]
		v.id, v.unnamed = id, false
	}
	if v == nil {
		v = newVoice(r, id)
		v.unnamed = r.inBody && len(r.voices) == 0
		r.voices = append(r.voices, v)
		if r.inBody {
			v.enter()
		}
	}
	for _, found := range voiceSetting.FindAllStringSubmatch(settings, -1) {
		value := strings.Trim(found[2], `"`)
		switch found[1] {
		case "name", "nm":
			v.part.Name = value
		case "clef":
			if clef, ok := parseClef(value); ok {
				v.setClef(clef)
			}
		case "transpose":
			if n, err := strconv.Atoi(value); err == nil && n >= -36 && n <= 36 {
				v.part.Sounds = score.ChromaticInterval(n)
			}
		}
	}
	if word := strings.TrimSpace(settings); word != "" {
		if clef, ok := parseClef(strings.Fields(word)[0]); ok {
			v.setClef(clef)
		}
	}
	r.voice = v
}
