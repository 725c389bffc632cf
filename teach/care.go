package teach

import (
	"fmt"
	"strings"

	"unhurriedbench/core/care"
	"unhurriedbench/store"
)

// CareTopic is what there is to know about one side of a kind of instrument: ours, and the
// teacher's own words where they have some.
type CareTopic struct {
	care.Topic
	care.Advice
	Own   string // the teacher's words, in place of ours
	Typed string // what stands in the form
}

// OwnLines are the teacher's words, line by line.
func (t CareTopic) OwnLines() []string { return strings.Split(t.Own, "\n") }

// CareKey is the setting that holds a teacher's own words.
func CareKey(k care.Kind, t care.Topic) string { return fmt.Sprintf("care-%s-%s", k, t) }

// CareTopics is what there is to know of a kind, in the teacher's words where there are some.
func CareTopics(saved store.Settings, kind care.Kind) []CareTopic {
	var list []CareTopic
	for _, topic := range care.Topics() {
		own := saved[CareKey(kind, topic)]
		list = append(list, CareTopic{Topic: topic, Advice: care.For(kind, topic), Own: own, Typed: own})
	}
	return list
}
