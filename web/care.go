package web

import (
	"fmt"
	"net/http"
	"slices"
	"strings"
	"unicode/utf8"

	"github.com/go-chi/chi/v5"

	"unhurriedbench/core/care"
	"unhurriedbench/core/instrument"
	"unhurriedbench/store"
)

// careView is what there is to know of a kind of instrument, in the teacher's words where there
// are some.
type careView struct {
	Kinds   []care.Kind
	Kind    care.Kind
	Topics  []careTopic
	Problem string
}

type careTopic struct {
	care.Topic
	care.Advice
	Own   string // the teacher's words, in place of ours
	Typed string // what stands in the form
}

// OwnLines are the teacher's words, line by line.
func (t careTopic) OwnLines() []string { return strings.Split(t.Own, "\n") }

// careKey is the setting that holds a teacher's own words.
func careKey(k care.Kind, t care.Topic) string { return fmt.Sprintf("care-%s-%s", k, t) }

// careLink is the page for an instrument.
func careLink(id string) string {
	i, _ := instrument.ByID(id)
	return "/care/" + string(care.KindOf(i))
}

func (s *Server) care(w http.ResponseWriter, r *http.Request) {
	s.showCare(w, r, http.StatusOK, "", "")
}

func (s *Server) showCare(w http.ResponseWriter, r *http.Request, status int, problem string, at care.Topic) {
	v := careView{Kinds: care.Kinds(), Kind: care.Kind(chi.URLParam(r, "kind")), Problem: problem}
	if !slices.Contains(v.Kinds, v.Kind) {
		s.notFound(w, r)
		return
	}
	kept, err := deskOf(r).Settings(r.Context())
	if err != nil {
		s.failed(w, r, err)
		return
	}
	v.Topics = careTopics(kept, v.Kind)
	for k, topic := range v.Topics {
		if topic.Topic == at {
			v.Topics[k].Typed = r.FormValue("words")
		}
	}
	s.page(w, r, status, "care", v.Kind.Title()+": care", v)
}

// careTopics is what there is to know of a kind, in the teacher's words where there are some.
func careTopics(kept store.Settings, kind care.Kind) []careTopic {
	var list []careTopic
	for _, topic := range care.Topics() {
		own := kept[careKey(kind, topic)]
		list = append(list, careTopic{Topic: topic, Advice: care.For(kind, topic), Own: own, Typed: own})
	}
	return list
}

// keepCare puts the teacher's words in place of ours; none puts ours back.
func (s *Server) keepCare(w http.ResponseWriter, r *http.Request) {
	kind, topic := care.Kind(chi.URLParam(r, "kind")), care.Topic(text(r, "topic"))
	if !slices.Contains(care.Kinds(), kind) || !slices.Contains(care.Topics(), topic) {
		s.failed(w, r, fmt.Errorf("find what to say: %w", store.ErrNotFound))
		return
	}
	words := strings.TrimSpace(strings.ReplaceAll(r.FormValue("words"), "\r\n", "\n"))
	if utf8.RuneCountInString(words) > care.Longest {
		s.showCare(w, r, http.StatusUnprocessableEntity, fmt.Sprintf("%s: your words are longer than %d letters. Shorten them; nothing was changed.", topic.Title(), care.Longest), topic)
		return
	}
	if err := deskOf(r).KeepSettings(r.Context(), store.Settings{careKey(kind, topic): words}); err != nil {
		s.failed(w, r, err)
		return
	}
	said := "Your words stand there now."
	if words == "" {
		said = "Our words stand there again."
	}
	s.flash(r, topic.Title()+": "+said)
	http.Redirect(w, r, fmt.Sprintf("/care/%s#%s", kind, topic), http.StatusSeeOther)
}
