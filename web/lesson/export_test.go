package lesson

// What tests of the pages know of the room.
type (
	LessonAnswer = lessonAnswer
	ClassNote    = classNote
)
