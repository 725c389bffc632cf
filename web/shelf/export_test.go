package shelf

// What tests of the pages know of the room.
const StartingABC = startingABC
