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
			r.score.Title = score.Cut(value)
		}
	case 'C':
		r.score.Composer = score.Cut(value)
	case 'M':
		r.meterField(value)
	case 'L':
		unit, err := score.ParseFraction(value)
		if err != nil || unit.Cmp(score.Fraction{}) <= 0 || unit.Den() > 64 || unit.Cmp(score.Frac(2, 1)) > 0 {
			r.fail(fmt.Sprintf("L:%s is not a note length.", score.Clip(value)), "Write L:1/4 or L:1/8.")
			return
		}
		r.now().unit, r.unitSet = unit, true
	case 'K':
		r.keyField(value)
		if !r.inBody && !r.badKey {
			r.startBody()
		}
	case 'Q':
		r.tempoField(value)
	case 'V':
		id, settings, _ := strings.Cut(value, " ")
		r.chooseVoice(id, settings)
	case 'P':
		if r.inBody && r.voice != nil {
			r.voice.measure.Rehearsal = score.Cut(value)
		} else {
			r.order, r.orderLine = value, r.line
		}
	case 'U':
		r.symbol(value)
	case 'w':
		r.words(value)
	case 'm', 's':
		r.remark(string(name), fmt.Sprintf("%c: lines are left out.", name), "")
	case 'R':
		r.score.TempoWords = score.Cut(value)
	case 'I':
		r.directive(value)
	}
	if inline && strings.IndexByte("MLKQVPIRNr", name) < 0 {
		r.remark("inline "+string(name), fmt.Sprintf("[%c:…] among the notes is left out.", name),
			"Put it on a line of its own above K:.")
	}
}

func (r *reader) meterField(value string) {
	if value == "none" {
		r.byBars, r.meterSet = true, true
		return
	}
	m, ok := parseMeter(value)
	if severalMeters.MatchString(value) {
		r.remark("meters", fmt.Sprintf("M:%s is no single meter; it is read by its bar lines.", score.Clip(value)),
			"Write each change of meter where it comes, as [M:3/4].")
		r.byBars, r.meterSet = true, true
		return
	}
	if !ok {
		r.meterSet = true // it was meant to be
		r.fail(fmt.Sprintf("M:%s is not a meter this reads.", score.Clip(value)), "Write M:4/4, M:3/4, M:6/8, M:C or M:C|.")
		return
	}
	r.now().meter, r.meterSet = m, true
	if r.inBody {
		r.voice.settingsChanged()
	}
}

// severalMeters are meters by turns, "2/4 3/4", and a lone figure, "2".
var severalMeters = regexp.MustCompile(`^\d{1,2}(/\d{1,2}([ +]+\d{1,2}/\d{1,2})+)?$`)

// symbol reads U: T = !trill!, which gives a letter a sign.
func (r *reader) symbol(value string) {
	letter, sign, ok := strings.Cut(value, "=")
	letter, sign = strings.TrimSpace(letter), strings.Trim(strings.TrimSpace(sign), "!+")
	if !ok || len(letter) != 1 || strings.IndexByte("HIJKLMNOPQRSTUVWhijklmnopqrstuvw~", letter[0]) < 0 {
		r.fail(fmt.Sprintf("U:%s gives no letter a sign.", score.Clip(value)), "Write U: T = !trill!.")
		return
	}
	r.symbols[letter[0]] = sign
}

// words reads w: under a line of strokes as their sticking; other words are left out.
func (r *reader) words(value string) {
	if r.voice == nil || r.voice.clef.Sign != "percussion" || !r.voice.stick(strings.Fields(value)) {
		r.remark("w", "words under the notes are left out.", "")
	}
}

func parseMeter(value string) (score.Meter, bool) {
	switch value {
	case "C":
		return score.Meter{Beats: 4, Unit: 4, Symbol: "common"}, true
	case "C|":
		return score.Meter{Beats: 2, Unit: 2, Symbol: "cut"}, true
	}
	top, bottom, _ := strings.Cut(value, "/")
	return score.ParseMeter(strings.Trim(strings.TrimSpace(top), "()"), bottom)
}

var (
	keyText  = regexp.MustCompile(`^([A-G])([#b]?)\s*([A-Za-z]*)`)
	clefText = regexp.MustCompile(`^(?:clef=)?"?(treble|bass|alto|tenor|perc(?:ussion)?|[GFC][1-5])([+_^-]8)?"?$`)
	// settingText is a K: that says something else than a key, which stays as it is.
	settingText = regexp.MustCompile(`^(clef|octave|transpose|sound|shift|score|middle|staffscale|stafflines)=`)
	modes       = map[string]string{
		"": "major", "maj": "major", "ion": "major", "m": "minor", "min": "minor", "aeo": "minor",
		"mix": "mixolydian", "dor": "dorian", "phr": "phrygian", "lyd": "lydian", "loc": "locrian",
	}
)

// keyField reads K: with its key, mode, accidentals, clef, octave and transposition.
func (r *reader) keyField(value string) {
	key, rest, ok := parseKey(value)
	if !ok {
		r.badKey = true
		r.fail(fmt.Sprintf("K:%s is not a key this reads.", score.Clip(value)), "Write K:C, K:F, K:Bb, K:Dm and so on.")
		return
	}
	now := r.now()
	if rest != value { // a field with a clef alone leaves the key as it is
		now.key, now.signs = key, nil
	}
	alone := false
	signs := map[score.Step]int{}
	for _, word := range strings.Fields(rest) {
		name, setting, _ := strings.Cut(word, "=")
		switch clef, isClef := parseClef(word); {
		case isClef:
			now.clef = clef
		case word == "exp":
			alone = true
		case strings.ContainsAny(word[:1], "^_=") && len(word) > 1:
			for word != "" {
				text, used := parsePitch(word)
				if used == 0 || !text.explicit {
					r.fail(fmt.Sprintf("K:%s: %s is not an accidental.", score.Clip(value), score.Clip(word)),
						"Write K:D =c, for example.")
					return
				}
				signs[text.step] = text.alter
				word = word[used:]
			}
		case name == "sound":
			if semitones, ok := r.sound(setting); ok {
				now.set("transpose", semitones)
			}
		case name == "shift" || name == "score":
			r.moves(name+"=", setting)
		case name == "octave" || name == "transpose":
			n, err := strconv.Atoi(setting)
			if err != nil || n < -36 || n > 36 {
				r.fail(fmt.Sprintf("K:%s: %s is not a number this reads.", score.Clip(value), score.Clip(word)),
					"Write octave=-1 or transpose=-2.")
				return
			}
			now.set(name, n)
		}
	}
	if len(signs) > 0 {
		r.addSigns(now, signs, alone, value)
	}
	if r.inBody {
		r.voice.settingsChanged()
	}
}

// addSigns changes a key by the accidentals that K: adds, or to those alone. Where an
// ordinary signature has them all it is that one; else they are written at the notes.
func (r *reader) addSigns(now *settings, signs map[score.Step]int, alone bool, value string) {
	desired := func(s score.Step) int {
		if alter, set := signs[s]; set {
			return alter
		}
		if alone {
			return 0
		}
		return now.key.Alter(s)
	}
	for fifths := -7; fifths <= 7; fifths++ {
		k, same := score.Key{Fifths: fifths}, true
		for s := score.C; s <= score.B; s++ {
			same = same && k.Alter(s) == desired(s)
		}
		if same {
			if now.key.Fifths != fifths {
				now.key = k
			}
			return
		}
	}
	now.signs = map[score.Step]int{}
	if alone {
		now.key = score.Key{}
	}
	for s, alter := range signs {
		if now.key.Alter(s) != alter {
			now.signs[s] = alter
		}
	}
	r.remark(
		"signs",
		fmt.Sprintf("K:%s asks for a signature that is not one of the fifteen; its accidentals are written at the notes.", score.Clip(value)),
		"",
	)
}

// moves remarks on what would have the notes read or played elsewhere than they are typed.
func (r *reader) moves(what, value string) {
	r.remark(what, what+score.Clip(value)+" is left out: the notes are read as they are typed.",
		"Say for whom it is written, or type it where it sounds.")
}

// sound reads sound=, which says how a written note sounds, "sound=cB" or, from C, "sound=B,":
// how many half steps that is.
func (r *reader) sound(setting string) (semitones int, ok bool) {
	from, n := parsePitch(setting + " ")
	if n == 0 || n > len(setting) {
		r.remark("sound", fmt.Sprintf("sound=%s is not read.", score.Clip(setting)), "Write transpose=-2, for example.")
		return 0, false
	}
	to, m := parsePitch(setting[n:] + " ")
	if m == 0 {
		from, to = pitchText{step: score.C, octave: 4}, from
	}
	pitch := func(p pitchText) int { return score.Pitch{Step: p.step, Alter: p.alter, Octave: p.octave}.MIDI() }
	semitones = pitch(to) - pitch(from)
	return semitones, semitones >= -36 && semitones <= 36
}

// set takes octave= or transpose=.
func (s *settings) set(name string, n int) {
	switch name {
	case "octave":
		s.octaves = min(max(n, -4), 4)
	case "transpose":
		s.sounds = score.ChromaticInterval(n)
	}
}

func parseKey(value string) (key score.Key, rest string, ok bool) {
	if value == "" || strings.EqualFold(value, "none") {
		return score.Key{}, "", true
	}
	if strings.EqualFold(value, "HP") { // the bagpipe's scale
		return score.Key{Fifths: 2}, "", true
	}
	if settingText.MatchString(value) || clefText.MatchString(strings.Fields(value)[0]) {
		return score.Key{}, value, true
	}
	found := keyText.FindStringSubmatch(value)
	if found == nil {
		return score.Key{}, "", false
	}
	rest = value[len(found[0]):]
	word := strings.ToLower(found[3])
	if clefText.MatchString(word) || strings.HasPrefix(rest, "=") || word == "exp" {
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
	fifths := step.Fifths()
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
	case "-8", "_8":
		clef.Octave = -1
	case "+8", "^8":
		clef.Octave = 1
	}
	return clef, true
}

var tempoText = regexp.MustCompile(`(?:(\d+)/(\d+)\s*=\s*)?(\d+)\s*$`)

// tempoField reads Q:1/4=72, Q:72, and words in quotes before or after it.
func (r *reader) tempoField(value string) {
	for {
		open := strings.IndexByte(value, '"')
		end := strings.IndexByte(value[open+1:], '"')
		if open < 0 || end < 0 {
			break
		}
		r.score.TempoWords = strings.TrimSpace(r.score.TempoWords + " " + value[open+1:open+1+end])
		value = value[:open] + value[open+end+2:]
	}
	value = strings.TrimSpace(value)
	if value == "" {
		return
	}
	found := tempoText.FindStringSubmatch(value)
	if found == nil {
		r.fail(fmt.Sprintf("Q:%s is not a tempo.", score.Clip(value)), "Write Q:1/4=72.")
		return
	}
	beat := r.now().meter.Beat()
	if found[1] != "" {
		parsed, err := score.ParseFraction(found[1] + "/" + found[2])
		if err != nil || parsed.IsZero() {
			r.fail(fmt.Sprintf("Q:%s is not a tempo.", score.Clip(value)), "Write Q:1/4=72.")
			return
		}
		beat = parsed
	}
	perMinute, err := strconv.Atoi(found[3])
	if err != nil || perMinute < 1 || perMinute > score.FastestMark {
		r.fail(fmt.Sprintf("Q:%s is not a tempo.", score.Clip(value)),
			fmt.Sprintf("Write a number of beats a minute from 1 to %d.", score.FastestMark))
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
			v.unnamed = false
		}
	}
	// Music typed before any V: line belongs to the voice that is named first.
	if v == nil && len(r.voices) == 1 && r.voices[0].unnamed && r.voices[0].empty() {
		v = r.voices[0]
		v.id, v.unnamed = id, false
	}
	if v == nil && len(r.voices) == score.MostParts {
		r.stop(score.TooManyParts())
		return
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
			v.part.Name = score.Cut(value)
		case "clef":
			if clef, ok := parseClef(value); ok {
				v.setOwnClef(clef)
			}
		case "transpose", "octave":
			if n, err := strconv.Atoi(value); err == nil && n >= -36 && n <= 36 {
				v.own = append(v.own, ownSetting{found[1], n})
				if v.entered {
					v.set(found[1], n)
				}
			}
		case "sound":
			if semitones, ok := r.sound(value); ok {
				v.own = append(v.own, ownSetting{"transpose", semitones})
				if v.entered {
					v.set("transpose", semitones)
				}
			}
		case "shift", "score":
			r.moves(found[1]+"=", value)
		}
	}
	if v.entered {
		v.settingsChanged()
	}
	if word := strings.TrimSpace(settings); word != "" {
		if clef, ok := parseClef(strings.Fields(word)[0]); ok {
			v.setOwnClef(clef)
		}
	}
	r.voice = v
}
