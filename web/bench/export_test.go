package bench

// What tests of the pages know of the room.
type (
	Heard     = heard
	FirstNote = firstNote
)

const MostRecipes = mostRecipes
