package bench

import (
	"net/url"
	"reflect"
	"testing"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/instrument"
	"unhurriedbench/core/routine"
	"unhurriedbench/store"
	"unhurriedbench/teach"
)

// query is what stands in an address.
func query(t *testing.T, address string) map[string]string {
	t.Helper()
	at, err := url.Parse(address)
	if err != nil {
		t.Fatal(err)
	}
	got := map[string]string{"path": at.Path}
	for key, list := range at.Query() {
		got[key] = list[0]
	}
	return got
}

// An address of the Bench drops nothing of what is at hand but what another choice changes.
func TestLinksSaveWhatIsAtHand(t *testing.T) {
	t.Parallel()
	trombone, _ := instrument.ByID("trombone")
	at := atBench(teach.Work{
		Choice: teach.Choice{
			Exercise: store.Exercise{ID: 7}, Class: store.Class{ID: 3}, Student: store.Student{ID: 5}, Instrument: trombone, Key: breakdown.ChunkKey{First: 3, Last: 4},
			Ask: teach.Request{Other: "large", Save: true, OneNote: "Bb"},
		},
		Routine: routine.Standard(), Stage: routine.Name, Tempo: 66,
	})
	nobody := at
	nobody.Student = store.Student{}
	line := at
	line.Student, line.Ask.Line, line.Ask.Of, line.Ask.Student = store.Student{}, breakdown.OneNote, "1-2", 5
	type is = map[string]string
	for what, tt := range map[string]struct{ got, want is }{
		"another stage":      {query(t, at.Link("stage", "play")), is{"path": "/bench/7", "instrument": "trombone", "chunk": "3-4", "student": "5", "class": "3", "other": "large", "keep": "yes", "stage": "play"}},
		"of the class":       {query(t, nobody.Link("chunk", "1-2")), is{"path": "/bench/7", "instrument": "trombone", "chunk": "1-2", "class": "3", "stage": "name", "other": "large", "keep": "yes"}},
		"another instrument": {query(t, at.Link("instrument", "flute")), is{"path": "/bench/7", "instrument": "flute", "chunk": "3-4", "class": "3", "stage": "name", "other": "large", "keep": "yes"}},
		"another student":    {query(t, at.Link("student", 9)), is{"path": "/bench/7", "instrument": "trombone", "chunk": "3-4", "student": "9", "class": "3", "other": "large"}},
		"in a line":          {query(t, line.Link("tempo", 72)), is{"path": "/bench/7", "instrument": "trombone", "chunk": "3-4", "student": "5", "class": "3", "line": "one-note", "of": "1-2", "one": "Bb", "stage": "name", "other": "large", "keep": "yes", "tempo": "72"}},
		"out of a line":      {query(t, line.Link("line", "")), is{"path": "/bench/7", "instrument": "trombone", "chunk": "1-2", "student": "5", "class": "3", "one": "Bb", "stage": "name", "other": "large", "keep": "yes"}},
		"here":               {query(t, at.Here()), is{"path": "/bench/7", "instrument": "trombone", "chunk": "3-4", "stage": "name", "class": "3", "student": "5", "one": "Bb", "other": "large", "keep": "yes", "tempo": "66"}},
	} {
		if !reflect.DeepEqual(tt.got, tt.want) {
			t.Errorf("%s: %v, want %v", what, tt.got, tt.want)
		}
	}
}
