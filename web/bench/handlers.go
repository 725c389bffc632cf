package bench

import (
	"unhurriedbench/web/music"
	"unhurriedbench/web/site"
)

// handlers answer for this room.
type handlers struct {
	*site.Site
	Recordings music.Recordings
}
