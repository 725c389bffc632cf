package instrument

import (
	"regexp"
	"slices"
	"strings"
)

// shortNames are what schools call instruments in lists of students, beside the names here, in
// English, German, French, Spanish and Italian: in small letters, without points. One that speaks
// of several instruments has them all. Source: common practice of score order and class lists.
var shortNames = map[string][]string{
	"piccolo":          {"picc", "pic", "piccoloflöte", "pikkolo", "petite flûte", "flautín", "flautin", "ottavino"},
	"flute":            {"fl", "flöte", "querflöte", "flûte", "flûte traversière", "flauta", "flauta travesera", "flauto"},
	"oboe":             {"ob", "hautbois", "htb"},
	"bassoon":          {"bsn", "bn", "fagott", "fg", "basson", "fagot", "fagotto"},
	"eb-clarinet":      {"eb cl", "e♭ cl", "es-klarinette", "petite clarinette", "requinto"},
	"clarinet":         {"cl", "clar", "clt", "bb cl", "bb clarinet", "klarinette", "klar", "kl", "clarinette", "clarinete", "clarinetto"},
	"bass-clarinet":    {"b cl", "bcl", "bs cl", "bass cl", "bass clar", "bassklarinette", "bkl", "clarinette basse", "clarinete bajo", "clarinetto basso"},
	"soprano-sax":      {"s sax", "sop sax", "sopransaxophon", "saxophone soprano", "saxofón soprano", "sax soprano"},
	"alto-sax":         {"a sax", "asax", "alto", "alto sax", "alto saxophone", "altsaxophon", "altsax", "saxophone alto", "sax alto", "saxofón alto", "saxofon alto", "sassofono contralto"},
	"tenor-sax":        {"t sax", "tsax", "tenor", "tenor sax", "tenorsaxophon", "tenorsax", "saxophone ténor", "sax tenor", "saxofón tenor", "saxofon tenor", "sassofono tenore"},
	"bari-sax":         {"b sax", "bsax", "bari", "bari sax", "baritonsaxophon", "baritonsax", "saxophone baryton", "saxofón barítono", "saxofon baritono", "sassofono baritono"},
	"trumpet":          {"tpt", "trp", "trpt", "tp", "trompete", "trompette", "trompeta", "tromba", "cnt"},
	"horn-f":           {"hn", "hrn", "f horn", "fr horn", "french horn", "f hn", "waldhorn", "cor", "trompa", "corno"},
	"trombone":         {"tbn", "trb", "trom", "posaune", "pos", "trombón", "trombon"},
	"euphonium-bc":     {"euph", "euph bc", "bar bc", "baritone bc", "eufonio", "bombardino", "baritone", "bar", "baryton"},
	"euphonium-tc":     {"euph tc", "bar tc", "baritone tc", "baritone", "bar", "baryton"},
	"tuba-bb":          {"tba", "sousa", "sousaphone", "bb tuba"},
	"snare":            {"sd", "s dr", "snare dr", "kleine trommel", "kl tr", "caisse claire", "caja", "tamburo", "rullante", "perc", "percussion", "drums", "drum", "schlagzeug", "percussions", "percusión", "percusion", "percussione", "batterie", "batería"},
	"bass-drum":        {"bd", "b dr", "große trommel", "grosse trommel", "gr tr", "grosse caisse", "bombo", "grancassa", "perc", "percussion", "drums", "drum", "schlagzeug", "percussions", "percusión", "percusion", "percussione"},
	"small-percussion": {"perc", "percussion", "schlagzeug", "percussions", "percusión", "percusion", "percussione", "cym", "cymbals", "becken", "cymbales", "platillos", "piatti"},
	"bells":            {"glock", "glsp", "orchestra bells", "jeu de timbres", "campanelli", "mallets", "mallet percussion", "perc", "percussion", "schlagzeug", "percussions", "percusión", "percusion", "percussione"},
	"xylophone":        {"xyl", "xylo", "xylophon", "xilófono", "xilofono", "mallets", "mallet percussion"},
	"marimba":          {"mar", "mallets", "mallet percussion"},
	"timpani":          {"timp", "pauken", "pk", "timbales", "kettledrums"},
	"violin":           {"vln", "vn", "vl", "violine", "geige", "violon", "violín", "violino"},
	"viola":            {"vla", "va", "bratsche", "br", "alto"},
	"cello":            {"vc", "vcl", "vlc", "violoncello", "violoncelle", "violonchelo", "chelo"},
	"bass":             {"db", "kb", "cb", "str bass", "st bass", "string bass", "kontrabass", "contrabass", "contrebasse", "contrabajo", "contrabbasso", "bass"},
}

// bassAlone are what "bass" may stand for in a band, beside the strings'.
var bassAlone = []string{"bass", "tuba-bb", "bass-clarinet"}

// numbered is the number of a player's part at the end of a name: "Tpt. 2", "Cl III".
var numbered = regexp.MustCompile(`\s+(\d+|i{1,3}|1st|2nd|3rd)$`)

// clefs are the letters of a baritone's clef, apart: "T. C.".
var clefs = regexp.MustCompile(`\b([tb]) c\b`)

// Named lists the instruments that a name may speak of, whole: as it is called here, or as lists of
// schools have it, with or without points and the number of a part. One is sure; of several the
// reader of the list has to say which; none is none known.
func Named(text string) []Instrument {
	name := strings.ToLower(strings.Join(strings.Fields(strings.ReplaceAll(text, ".", ". ")), " "))
	name = strings.ReplaceAll(name, ".", "")
	name = clefs.ReplaceAllString(name, "${1}c")
	name = numbered.ReplaceAllString(strings.TrimSpace(name), "")
	for _, i := range catalogue {
		if name != "bass" && (strings.EqualFold(name, i.Name) || name == i.ID) {
			return []Instrument{i}
		}
	}
	var list []Instrument
	for _, i := range catalogue {
		if slices.Contains(shortNames[i.ID], name) || name == "bass" && slices.Contains(bassAlone, i.ID) {
			list = append(list, i)
		}
	}
	return list
}

// Among leaves of several instruments those that fit what else is played: where all others are
// bowed, the one that is bowed, and where none is, the one that is not.
func Among(list, others []Instrument) []Instrument {
	if len(list) < 2 || len(others) == 0 {
		return list
	}
	bowed, blown := true, true
	for _, i := range others {
		bowed, blown = bowed && i.Bowed(), blown && !i.Bowed()
	}
	fits := slices.DeleteFunc(slices.Clone(list), func(i Instrument) bool { return bowed && !i.Bowed() || blown && i.Bowed() })
	if len(fits) != 1 {
		return list
	}
	return fits
}

// OneOf names several instruments, to be chosen from: "a bass, a tuba or a bass clarinet".
func OneOf(list []Instrument) string {
	var b strings.Builder
	for k, i := range list {
		switch {
		case k > 0 && k == len(list)-1:
			b.WriteString(" or ")
		case k > 0:
			b.WriteString(", ")
		}
		b.WriteString(i.Name)
	}
	return b.String()
}
