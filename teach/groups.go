package teach

import (
	"context"
	"slices"

	"unhurriedbench/store"
)

// WholeClasses lists the classes without their groups: those students are in, and that have a
// year, a way of counting, seats and colleagues.
func (c *Class) WholeClasses(ctx context.Context) ([]store.Class, error) {
	list, err := c.Classes(ctx)
	return slices.DeleteFunc(list, store.Class.Group), err
}

// GroupsOf lists the groups of a class by name.
func (c *Class) GroupsOf(ctx context.Context, class store.ClassID) ([]store.Class, error) {
	list, err := c.Classes(ctx)
	return slices.DeleteFunc(list, func(other store.Class) bool { return other.OfClass != class || !other.Group() }), err
}
