package my

import (
	"net/http"

	"unhurriedbench/web/site"
)

// What tests of the pages know of the room.
var (
	SaidAt   = saidAt
	OwnFiles = ownFiles
	AtHome   = athome
)

// RequireStudent is what a student's routes stand behind.
func RequireStudent(s *site.Site) func(http.Handler) http.Handler {
	return (&handlers{Site: s}).requireStudent
}
