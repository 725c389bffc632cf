package site

import (
	"fmt"
)

// BackupWords says what backups hold of what is erased.
func (s *Site) BackupWords() string {
	if s.BackupNights > 0 {
		return fmt.Sprintf("Backups written before still hold it; the nightly ones are deleted after %d nights.",
			s.BackupNights)
	}
	return "Backups written before still hold it, until the administrator deletes them."
}

// NotErased asks again before something goes for good.
const NotErased = "Nothing was erased: tick the box beside Erase to say that it may go for good."
