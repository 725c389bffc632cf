package settings

import (
	"fmt"
	"net/http"
	"slices"
	"strings"
	"unicode/utf8"

	"github.com/go-chi/chi/v5"

	"unhurriedbench/core/care"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// careView is what there is to know of a kind of instrument, in the teacher's words where there
// are some.
type careView struct {
	Kinds   []care.Kind
	Kind    care.Kind
	Topics  []teach.CareTopic
	Problem string
}

func (s *handlers) care(w http.ResponseWriter, r *http.Request) error {
	return s.showCare(w, r, http.StatusOK, "", "")
}

func (s *handlers) showCare(w http.ResponseWriter, r *http.Request, status int, problem string, at care.Topic) error {
	v := careView{Kinds: care.Kinds(), Kind: care.Kind(chi.URLParam(r, "kind")), Problem: problem}
	if !slices.Contains(v.Kinds, v.Kind) {
		s.NotFound(w, r)
		return nil
	}
	saved, err := site.ClassOf(r).Settings(r.Context())
	if err != nil {
		return err
	}
	v.Topics = teach.CareTopics(saved, v.Kind)
	for k, topic := range v.Topics {
		if topic.Topic == at {
			v.Topics[k].Typed = r.FormValue("words")
		}
	}
	s.Page(w, r, status, "care", v.Kind.Title()+": care", v)
	return nil
}

// saveCare puts the teacher's words in place of ours; none puts ours back.
func (s *handlers) saveCare(w http.ResponseWriter, r *http.Request) error {
	kind, topic := care.Kind(chi.URLParam(r, "kind")), care.Topic(site.Text(r, "topic"))
	if !slices.Contains(care.Kinds(), kind) || !slices.Contains(care.Topics(), topic) {
		return fmt.Errorf("find what to say: %w", store.ErrNotFound)
	}
	words := strings.TrimSpace(strings.ReplaceAll(r.FormValue("words"), "\r\n", "\n"))
	if utf8.RuneCountInString(words) > care.Longest {
		return s.showCare(w, r, http.StatusUnprocessableEntity,
			fmt.Sprintf("%s: your words are longer than %d letters. Shorten them; nothing was changed.", topic.Title(),
				care.Longest), topic)
	}
	if err := site.ClassOf(r).SaveSettings(r.Context(), store.Settings{teach.CareKey(kind, topic): words}); err != nil {
		return err
	}
	said := "Your words stand there now."
	if words == "" {
		said = "Our words stand there again."
	}
	s.Flash(r, topic.Title()+": "+said)
	http.Redirect(w, r, fmt.Sprintf("/care/%s#%s", kind, topic), http.StatusSeeOther)
	return nil
}
