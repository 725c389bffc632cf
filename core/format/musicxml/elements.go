package musicxml

import "encoding/xml"

// The elements below are those of MusicXML 4.0 that a single-staff exercise
// uses, under the names of the standard.

type document struct {
	Title         string `xml:"work>work-title"`
	MovementTitle string `xml:"movement-title"`
	Creators      []struct {
		Type string `xml:"type,attr"`
		Name string `xml:",chardata"`
	} `xml:"identification>creator"`
	Miscellaneous []miscellaneous `xml:"identification>miscellaneous>miscellaneous-field"`
	PartList      []struct {
		ID   string `xml:"id,attr"`
		Name string `xml:"part-name"`
	} `xml:"part-list>score-part"`
	Parts []xmlPart `xml:"part"`
}

type miscellaneous struct {
	Name string `xml:"name,attr"`
}

type xmlPart struct {
	ID       string       `xml:"id,attr"`
	Measures []xmlMeasure `xml:"measure"`
}

// xmlMeasure keeps its children in document order, which carries meaning.
type xmlMeasure struct {
	Number   string
	Implicit string
	Items    []any // *attributes, *note, *backup, *forward, *direction, *barline, *sound
}

// UnmarshalXML decodes the children one by one, in order.
func (m *xmlMeasure) UnmarshalXML(d *xml.Decoder, start xml.StartElement) error {
	for _, attr := range start.Attr {
		switch attr.Name.Local {
		case "number":
			m.Number = attr.Value
		case "implicit":
			m.Implicit = attr.Value
		}
	}
	for {
		token, err := d.Token()
		if err != nil {
			return err
		}
		switch t := token.(type) {
		case xml.EndElement:
			return nil
		case xml.StartElement:
			item := newItem(t.Name.Local)
			if item == nil {
				if err := d.Skip(); err != nil {
					return err
				}
				continue
			}
			if err := d.DecodeElement(item, &t); err != nil {
				return err
			}
			m.Items = append(m.Items, item)
		}
	}
}

func newItem(name string) any {
	switch name {
	case "attributes":
		return new(attributes)
	case "note":
		return new(note)
	case "backup":
		return new(backup)
	case "forward":
		return new(forward)
	case "direction":
		return new(direction)
	case "barline":
		return new(barline)
	case "sound":
		return new(sound)
	}
	return nil
}

type attributes struct {
	Divisions int `xml:"divisions"`
	Keys      []struct {
		Fifths string `xml:"fifths"`
		Mode   string `xml:"mode"`
	} `xml:"key"`
	Times []struct {
		Symbol   string   `xml:"symbol,attr"`
		Beats    []string `xml:"beats"`
		BeatType []string `xml:"beat-type"`
		Senza    *string  `xml:"senza-misura"`
	} `xml:"time"`
	Staves int `xml:"staves"`
	Clefs  []struct {
		Number int    `xml:"number,attr"`
		Sign   string `xml:"sign"`
		Line   int    `xml:"line"`
		Octave int    `xml:"clef-octave-change"`
	} `xml:"clef"`
	Transposes []struct {
		Diatonic  int `xml:"diatonic"`
		Chromatic int `xml:"chromatic"`
		Octave    int `xml:"octave-change"`
	} `xml:"transpose"`
	Repeats []struct {
		Type  string `xml:"type,attr"`
		Count int    `xml:",chardata"`
	} `xml:"measure-style>measure-repeat"`
}

type note struct {
	Chord *empty `xml:"chord"`
	Grace *empty `xml:"grace"`
	Cue   *empty `xml:"cue"`
	Pitch *struct {
		Step   string `xml:"step"`
		Alter  string `xml:"alter"`
		Octave int    `xml:"octave"`
	} `xml:"pitch"`
	Unpitched *struct {
		Step   string `xml:"display-step"`
		Octave int    `xml:"display-octave"`
	} `xml:"unpitched"`
	Rest *struct {
		Measure string `xml:"measure,attr"`
	} `xml:"rest"`
	Duration int `xml:"duration"`
	Ties     []struct {
		Type string `xml:"type,attr"`
	} `xml:"tie"`
	Voice      string  `xml:"voice"`
	Type       string  `xml:"type"`
	Dots       []empty `xml:"dot"`
	Accidental string  `xml:"accidental"`
	TimeMod    *struct {
		Actual int     `xml:"actual-notes"`
		Normal int     `xml:"normal-notes"`
		Type   string  `xml:"normal-type"`
		Dots   []empty `xml:"normal-dot"`
	} `xml:"time-modification"`
	Staff     int `xml:"staff"`
	Notations []struct {
		Slurs []struct {
			Type   string `xml:"type,attr"`
			Number string `xml:"number,attr"`
		} `xml:"slur"`
		Tuplets []struct {
			Type string `xml:"type,attr"`
		} `xml:"tuplet"`
		Articulations []struct {
			Items []anyElement `xml:",any"`
		} `xml:"articulations"`
		Technical []struct {
			Items []anyElement `xml:",any"`
		} `xml:"technical"`
		Ornaments []struct {
			Tremolos []tremolo    `xml:"tremolo"`
			Trills   []empty      `xml:"trill-mark"`
			Others   []anyElement `xml:",any"`
		} `xml:"ornaments"`
		Fermatas []empty `xml:"fermata"`
		Tied     []struct {
			Type string `xml:"type,attr"`
		} `xml:"tied"`
		Others []anyElement `xml:",any"`
	} `xml:"notations"`
}

type anyElement struct {
	XMLName xml.Name
	Text    string `xml:",chardata"`
}

type empty struct{}

type backup struct {
	Duration int `xml:"duration"`
}

type forward struct {
	Duration int    `xml:"duration"`
	Voice    string `xml:"voice"`
	Staff    int    `xml:"staff"`
}

type direction struct {
	Directive string `xml:"directive,attr"`
	Types     []struct {
		Words     []string `xml:"words"`
		Rehearsal []string `xml:"rehearsal"`
		Segno     *empty   `xml:"segno"`
		Coda      *empty   `xml:"coda"`
		Dynamics  []struct {
			Items []anyElement `xml:",any"`
		} `xml:"dynamics"`
		Metronome *struct {
			Unit      string  `xml:"beat-unit"`
			Dots      []empty `xml:"beat-unit-dot"`
			PerMinute string  `xml:"per-minute"`
		} `xml:"metronome"`
		Wedge *struct {
			Type string `xml:"type,attr"`
		} `xml:"wedge"`
	} `xml:"direction-type"`
	Sound *sound `xml:"sound"`
}

type sound struct {
	Tempo    string `xml:"tempo,attr"`
	DaCapo   string `xml:"dacapo,attr"`
	DalSegno string `xml:"dalsegno,attr"`
	Fine     string `xml:"fine,attr"`
	ToCoda   string `xml:"tocoda,attr"`
	Segno    string `xml:"segno,attr"`
	Coda     string `xml:"coda,attr"`
}

type barline struct {
	Location string `xml:"location,attr"`
	Style    string `xml:"bar-style"`
	Ending   *struct {
		Number string `xml:"number,attr"`
		Type   string `xml:"type,attr"`
	} `xml:"ending"`
	Repeat *struct {
		Direction string `xml:"direction,attr"`
		Times     int    `xml:"times,attr"`
	} `xml:"repeat"`
	Segno *empty `xml:"segno"`
	Coda  *empty `xml:"coda"`
}

type tremolo struct {
	Type  string `xml:"type,attr"`
	Marks int    `xml:",chardata"`
}
