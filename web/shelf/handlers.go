package shelf

import (
	"unhurriedbench/web/site"
)

// handlers answer for this room.
type handlers struct{ *site.Site }
