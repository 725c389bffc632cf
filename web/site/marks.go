package site

import (
	"net/http"

	"unhurriedbench/store"
)

// RequestKeyOf reads the key of a press; "" where there is none to go by.
func RequestKeyOf(r *http.Request) store.RequestKey {
	if press := Text(r, "press"); len(press) <= store.LongestPress {
		return store.RequestKey(press)
	}
	return ""
}

// MarkGone answers a mark for what the exercise or the routine does not have.
const MarkGone = "That chunk or stage is not here any more, so nothing was marked. Open the exercise again."
