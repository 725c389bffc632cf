package abc

import (
	"fmt"
	"strings"

	"unhurriedbench/core/score"
)

var decorations = map[string]score.Mark{
	"accent": score.Accent, ">": score.Accent, "emphasis": score.Accent,
	"tenuto": score.Tenuto, "fermata": score.Fermata,
	"upbow": score.UpBow, "downbow": score.DownBow, "staccato": score.Staccato,
}

var shorthands = map[byte]string{
	'.': "staccato", 'H': "fermata", 'L': "accent", 'u': "upbow", 'v': "downbow",
	'O': "coda", 'S': "segno", '~': "roll", 'T': "trill", 'M': "lowermordent", 'P': "uppermordent",
}

func (v *voice) shorthand(c byte) { v.decorate(shorthands[c]) }

func (v *voice) decoration(s string) int {
	end := strings.IndexByte(s[1:], '!')
	if end < 0 {
		return 0
	}
	v.decorate(s[1 : 1+end])
	return end + 2
}

func (v *voice) decorate(name string) {
	if mark, ok := decorations[name]; ok {
		v.next.Marks = append(v.next.Marks, mark)
		return
	}
	switch name {
	case "pppp", "ppp", "pp", "p", "mp", "mf", "f", "ff", "fff", "ffff", "sfz":
		v.next.Dynamic = name
	case "0", "1", "2", "3", "4", "5", "6", "7", "open", "thumb":
		v.next.Fingering = name
	case "breath":
		if v.last != nil {
			v.last.Marks = append(v.last.Marks, score.Breath)
		}
	case "segno":
		v.measure.Segno = true
	case "coda":
		if len(v.measure.Events) > 0 { // after notes it says where the music is left
			v.measure.ToCoda = true
		} else {
			v.measure.Coda = true
		}
	case "dacoda", "tocoda":
		v.measure.ToCoda = true
	case "fine":
		v.measure.Fine = true
	case "D.C.", "dacapo":
		v.measure.Jump = score.Jump{To: "capo"}
	case "D.C.alfine":
		v.measure.Jump = score.Jump{To: "capo", Al: "fine"}
	case "D.C.alcoda":
		v.measure.Jump = score.Jump{To: "capo", Al: "coda"}
	case "D.S.":
		v.measure.Jump = score.Jump{To: "segno"}
	case "D.S.alfine":
		v.measure.Jump = score.Jump{To: "segno", Al: "fine"}
	case "D.S.alcoda":
		v.measure.Jump = score.Jump{To: "segno", Al: "coda"}
	case "crescendo(", "<(":
		v.next.Hairpin = score.Crescendo
	case "diminuendo(", ">(":
		v.next.Hairpin = score.Diminuendo
	case "crescendo)", "<)", "diminuendo)", ">)":
		v.next.HairpinEnds = true
	case "///":
		v.next.Roll = true
	case "roll", "trill":
		if v.clef == score.Percussion {
			v.next.Roll = true
			return
		}
		v.r.remark(name, fmt.Sprintf("the sign !%s! is left out.", name), "On bars and timpani write a roll as !///!.")
	default:
		v.r.remark(name, fmt.Sprintf("the sign !%s! is left out.", name), "")
	}
}
