package musicxml

import (
	"context"
	"fmt"
	"strings"
	"testing"

	"unhurriedbench/core/score"
)

// fileOf is a file of parts, each with its measures in 4/4 from the first on.
func fileOf(parts ...[]string) string {
	var b strings.Builder
	b.WriteString("<score-partwise><part-list>")
	for k := range parts {
		fmt.Fprintf(&b, `<score-part id="P%d"><part-name>Part %d</part-name></score-part>`, k, k+1)
	}
	b.WriteString("</part-list>")
	for k, measures := range parts {
		fmt.Fprintf(&b, `<part id="P%d">`, k)
		for n, m := range measures {
			if n == 0 && !strings.Contains(m, "<attributes>") {
				m = "<attributes><divisions>8</divisions><time><beats>4</beats><beat-type>4</beat-type></time></attributes>" + m
			}
			fmt.Fprintf(&b, `<measure number="%d">%s</measure>`, n+1, m)
		}
		b.WriteString("</part>")
	}
	return b.String() + "</score-partwise>"
}

// pitched is a note of n eighths of a quarter.
func pitched(step string, duration int, more string) string {
	return fmt.Sprintf(`<note><pitch><step>%s</step><octave>4</octave></pitch><duration>%d</duration>%s</note>`, step, duration, more)
}

func readFile(t *testing.T, text string) (score.Score, string) {
	t.Helper()
	s, err := Read(context.Background(), []byte(text))
	if err != nil {
		t.Fatal(err)
	}
	said := ""
	for _, p := range s.Remarks {
		said += p.Error() + "\n"
	}
	return s, said
}

func struckIn(p score.Part) string {
	var words []string
	for _, s := range p.Sounding(p.Order()) {
		words = append(words, s.Pitch.Step.String())
	}
	return strings.Join(words, "")
}

// One measure that cannot be read is shown empty and said, with its part; the rest of the file
// is kept.
func TestOneBadMeasure(t *testing.T) {
	whole, nothing := pitched("C", 32, ""), `<note><duration>32</duration></note>`
	s, said := readFile(t, fileOf([]string{whole, nothing, whole, whole}, []string{whole, whole, whole, whole}))
	if got := struckIn(s.Parts[0]) + " " + struckIn(s.Parts[1]); got != "CCC CCCC" {
		t.Errorf("the parts strike %s", got)
	}
	if !strings.Contains(said, "Part 1, measure 2, note 1: a note has neither a pitch nor a rest. The measure is shown empty.") {
		t.Errorf("it says %s", said)
	}
	long := whole + pitched("D", 8, "")
	s, said = readFile(t, fileOf([]string{whole, long, whole, whole}, []string{whole, whole, whole, whole}))
	if got := struckIn(s.Parts[0]); got != "CCC" || !strings.Contains(said, "Part 1, measure 2: it holds 5 quarter notes, and 4/4 asks for 4 quarter notes. The measure is shown empty.") {
		t.Errorf("a measure too long is read as %s and says %s", got, said)
	}
	// Alone it is asked about, and read by its bar lines where that is wanted.
	alone := fileOf([]string{whole, long, whole, whole})
	if _, err := Read(context.Background(), []byte(alone)); err == nil {
		t.Error("a measure too long is read without a word")
	}
	s, said = readFile(t, ByBarLines(alone))
	if got := struckIn(s.Parts[0]); got != "CCDCC" || s.Parts[0].Measures[1].Meter.String() != "5/4" || !strings.Contains(said, "read by their bar lines: m. 2") {
		t.Errorf("by its bar lines it is read as %s in %s and says %s", got, s.Parts[0].Measures[1].Meter, said)
	}
	// Where hardly anything can be read the file is refused.
	if _, err := Read(context.Background(), []byte(fileOf([]string{nothing, nothing, whole}))); err == nil {
		t.Error("a file of broken measures is read")
	}
}

// What files have that was passed over silently, or refused.
func TestWhatFilesHave(t *testing.T) {
	whole := pitched("C", 32, "")
	tied := func(kind string) string { return `<notations><tied type="` + kind + `"/></notations>` }
	s, _ := readFile(t, fileOf([]string{pitched("C", 32, tied("start")), pitched("C", 32, tied("stop"))}))
	if got := struckIn(s.Parts[0]); got != "C" {
		t.Errorf("a tie that is a sign alone strikes %s", got)
	}
	first, second := `<barline location="left"><ending number="1" type="start"/></barline>`, `<barline location="left"><ending number="2" type="start"/></barline>`
	back := `<barline location="right"><ending number="1" type="stop"/><repeat direction="backward"/></barline>`
	for _, again := range []struct{ tie, want string }{{tied("stop"), "CDECDF"}, {"", "CDECDDF"}} {
		s, _ = readFile(t, fileOf([]string{
			pitched("C", 16, "") + pitched("D", 16, tied("start")),
			first + pitched("D", 16, tied("stop")) + pitched("E", 16, "") + back,
			second + pitched("D", 16, again.tie) + pitched("F", 16, ""),
		}))
		if got := struckIn(s.Parts[0]); got != again.want {
			t.Errorf("a second ending with the tie %q strikes %s, want %s", again.tie, got, again.want)
		}
		if back, _ := readFile(t, string(Write(s))); struckIn(back.Parts[0]) != again.want {
			t.Errorf("written and read it strikes %s, want %s", struckIn(back.Parts[0]), again.want)
		}
	}
	// Another part plays a pickup of a quarter, and this one rests; an empty one is as long.
	for _, silence := range []string{`<note><rest measure="yes"/><duration>8</duration></note>`, `<forward><duration>8</duration></forward>`} {
		s, _ = readFile(t, strings.ReplaceAll(fileOf([]string{silence, whole}, []string{pitched("C", 8, ""), whole}), `<measure number="1">`, `<measure number="0" implicit="yes">`))
		if got := [2]string{s.Parts[0].Measures[0].Length.String(), s.Parts[1].Measures[0].Length.String()}; got != [2]string{"1/4", "1/4"} || s.Parts[0].Measures[1].Number != 1 {
			t.Errorf("%s makes pickups of %v", silence, got)
		}
	}
	half := `<barline location="middle"><bar-style>light-heavy</bar-style><repeat direction="backward"/></barline>`
	s, _ = readFile(t, fileOf([]string{whole, pitched("D", 16, "") + half + pitched("E", 16, ""), pitched("F", 32, "")}))
	if got := struckIn(s.Parts[0]); got != "CDCDEF" || len(s.Parts[0].Measures) != 4 {
		t.Errorf("a repeat in the middle of a measure plays %s in %d measures", got, len(s.Parts[0].Measures))
	}
	chant := "<attributes><divisions>8</divisions></attributes>"
	s, said := readFile(t, fileOf([]string{chant + pitched("C", 8, "") + pitched("D", 8, "") + pitched("E", 8, ""), pitched("F", 8, "") + pitched("E", 8, ""), pitched("D", 40, ""+"<type>whole</type>")}[:2]))
	if got := struckIn(s.Parts[0]); got != "CDEFE" || s.Parts[0].Measures[0].Meter.String() != "3/4" || !strings.Contains(said, "There is no meter in it") {
		t.Errorf("a chant without a time signature is read as %s in %s: %s", got, s.Parts[0].Measures[0].Meter, said)
	}
	short := strings.Replace(fileOf([]string{whole, strings.Repeat(pitched("D", 1, ""), 4) + pitched("E", 28, "<dot/>"), whole, whole}), "<divisions>8<", "<divisions>32<", 1)
	if _, err := Read(context.Background(), []byte(strings.ReplaceAll(short, "<duration>32<", "<duration>128<"))); err == nil || !strings.Contains(err.Error(), "shorter than a sixty-fourth") {
		if _, said := readFile(t, strings.ReplaceAll(short, "<duration>32<", "<duration>128<")); !strings.Contains(said, "shorter than a sixty-fourth") {
			t.Errorf("a 128th says %s (%v)", said, err)
		}
	}
	s, said = readFile(t, fileOf([]string{`<direction><direction-type><words>play 3 times</words></direction-type></direction><barline location="left"><repeat direction="forward"/></barline>` +
		whole + `<barline location="right"><repeat direction="backward"/></barline>`, pitched("E", 32, "")}))
	if got := struckIn(s.Parts[0]); got != "CCCE" || said != "" {
		t.Errorf("play 3 times plays %s: %s", got, said)
	}
}

// A tempo that is given to the player alone holds where it is one, and the first holds.
func TestTempoOfTheSound(t *testing.T) {
	for _, tt := range []struct {
		sounds string
		want   int
	}{
		{`<sound tempo="72"/>`, 72}, {`<sound tempo="71.6"/>`, 72}, {`<sound tempo="72"/><sound tempo="90"/>`, 72}, {`<sound tempo="0.4"/>`, 0},
		{`<sound tempo="99999"/>`, 0}, {`<sound tempo="99999"/><sound tempo="80"/>`, 80}, {`<sound tempo="brisk"/>`, 0}, {`<sound/>`, 0},
	} {
		s, _ := readFile(t, `<score-partwise><part-list><score-part id="P1"><part-name>Oboe</part-name></score-part></part-list><part id="P1"><measure number="1">
			<attributes><divisions>1</divisions><time><beats>4</beats><beat-type>4</beat-type></time></attributes>`+tt.sounds+pitched("C", 4, "<type>whole</type>")+`</measure></part></score-partwise>`)
		if s.Tempo.PerMinute != tt.want {
			t.Errorf("%s: %d beats a minute, want %d", tt.sounds, s.Tempo.PerMinute, tt.want)
		}
	}
}
