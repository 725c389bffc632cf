package students

import "unhurriedbench/store"

// What tests of the pages know of the room.
var (
	ReadTable      = readTable
	ReadRosterLine = readRosterLine
)

const LongestRoster = longestRoster

// Known is who is there when a table is read.
func Known(sections []store.Section, students, left []store.Student) roster {
	return roster{sections: sections, students: students, left: left}
}
