package lesson

import (
	"slices"

	"unhurriedbench/core/breakdown"
)

// Scene is what a class is at: a step, or of a step of several chunks one of them.
type Scene struct {
	Step         // of the chunk alone
	Place    int // of the whole step among those that fit
	Of       breakdown.ChunkKey
	Several  bool // the step has more scenes than this one
	LastOfIt bool // no other scene of the step comes after it
}

// Scenes are what a class goes through in a lesson, one after the other: the steps that fit,
// opened out by their chunks.
func (p Plan) Scenes() []Scene {
	var list []Scene
	for place, k := range p.Fit().In {
		list = append(list, p.Steps[k].scenes(place)...)
	}
	return list
}

func (s Step) scenes(place int) []Scene {
	var list []Scene
	parts := s.All()
	for from := 0; from < len(parts); {
		to := from
		for to < len(parts) && parts[to].Chunk == parts[from].Chunk {
			to++
		}
		scene := Scene{Step: s, Place: place, Of: parts[from].Chunk, Several: to-from < len(parts), LastOfIt: to == len(parts)}
		if first := parts[from]; len(s.Parts) > 0 {
			scene.Chunk, scene.Label, scene.Where, scene.Stage, scene.Word = first.Chunk, first.Label, first.Where, first.Stage, first.Word
			scene.Times, scene.Beats, scene.CountOff, scene.Notes = first.Times, first.Beats, first.CountOff, first.Notes
			scene.Form, scene.Rule, scene.Parts = parts[to-1].Form, first.Rule, nil
			if to-from > 1 {
				scene.Parts = slices.Clone(parts[from:to])
			}
		}
		if from > 0 {
			scene.Talk, scene.Names = 0, 0
		}
		list = append(list, scene)
		from = to
	}
	return list
}

// PlaceOf is the place of the step that a scene belongs to, by the place of the scene.
func (p Plan) PlaceOf(scene int) int {
	scenes := p.Scenes()
	if len(scenes) == 0 {
		return 0
	}
	return scenes[max(0, min(scene, len(scenes)-1))].Place
}
