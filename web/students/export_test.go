package students

import "unhurriedbench/store"

// What tests of the pages know of the room.
var (
	ReadTable      = readTable
	ReadRosterLine = readRosterLine
	ReadRoster     = readRoster
)

const LongestRoster = longestRoster

// Known is who is there when a table is read.
func Known(classes []store.Class, students, left []store.Student) roster {
	return roster{classes: classes, students: students, left: left}
}
