package settings

// What tests of the pages know of the room.
var SaidOf = saidOf
