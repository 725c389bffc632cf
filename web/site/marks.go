package site

import (
	"net/http"

	"unhurriedbench/store"
)

// RequestKeyOf reads the key of a request that counts once, which outbox.js may send again; ""
// without one, or with one that is too long to be ours.
func RequestKeyOf(r *http.Request) store.RequestKey {
	if key := Text(r, "request_key"); len(key) <= store.LongestKey {
		return store.RequestKey(key)
	}
	return ""
}

// MarkGone answers a mark for what the exercise or the routine does not have.
const MarkGone = "That chunk or stage is not here any more, so nothing was marked. Open the exercise again."
