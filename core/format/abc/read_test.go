package abc

import "testing"

func TestX(t *testing.T) {
	s, err := Read("X:1\nT:Hi\nM:4/4\nL:1/4\nK:Bb\nF|:B>c d2|=e e E2-|E4:|1 B,4:|2 _B4|]\n")
	if err != nil { t.Fatal(err) }
	for _, m := range s.Parts[0].Measures {
		t.Log(m.Number, m.Offset, m.RepeatStart, m.RepeatEnd, m.Endings)
		for _, e := range m.Events { t.Log("  ", e.Pitch, e.Start, e.Length, e.Sign, e.Tied) }
	}
	t.Log(s.Parts[0].Order(), s.Remarks)
}
