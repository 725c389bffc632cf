package my

import (
	"net/http"

	"unhurriedbench/core/card"
	"unhurriedbench/teach"
	"unhurriedbench/web/music"
	"unhurriedbench/web/site"
)

// ownCardsView is a round of cards.
type ownCardsView struct {
	ownFrame
	Drawn   music.SheetData
	Voice   music.Voice
	A4      int
	Cards   []music.OwnCard
	HasDeck bool
	Speed   teach.SpeedPlot
}

func (s *handlers) ownCards(w http.ResponseWriter, r *http.Request) error {
	f, err := newOwnFrame(r, "cards")
	if err != nil {
		return err
	}
	d, err := teach.LoadDeck(r.Context(), site.ClassOf(r), athome(r).Student)
	if err != nil {
		return err
	}
	f.Title = f.Say("round.title")
	v := ownCardsView{ownFrame: f, HasDeck: len(d.Deck) > 0, Drawn: music.DrawCards(d),
		Voice: s.Recordings.VoiceOf(d.Reader.Instrument), A4: d.Settings.Preferences.PitchOfA(),
		Speed: teach.NewSpeedPlot(card.Speeds(d.Log, card.Name), f.Catalog)}
	for _, a := range d.Round(s.Now(), d.Settings.Preferences.Cards()) {
		v.Cards = append(v.Cards, music.NewOwnCard(d, a))
	}
	s.Render(w, http.StatusOK, "owncards", "own-layout", v)
	return nil
}
