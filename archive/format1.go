package archive

import (
	"bytes"
	"encoding/json"
)

// renamed are the names that format 1 had for what is called otherwise since.
var renamed = map[string]string{
	"sections": "classes", "pieces": "chunks", "piece": "chunk", "takenAway": "deleted", "marks": "annotations",
	"secondLine": "duetPart",
	"lines":      "duetParts", "homePlans": "practicePlans", "press": "requestKey", "rungs": "tempoSteps",
}

// renamedColumns are the same of the columns of students.csv.
var renamedColumns = map[string]string{"section": "class", "taken away": "deleted"}

// fromFormat1 gives the names of format 2 to what stands in owned.json of format 1.
func fromFormat1(text []byte) ([]byte, error) {
	d := json.NewDecoder(bytes.NewReader(text))
	d.UseNumber()
	var whole map[string]any
	if err := d.Decode(&whole); err != nil {
		return nil, err
	}
	whole = rename(whole).(map[string]any)
	classes, _ := whole["classes"].([]any)
	for _, c := range classes {
		if class, is := c.(map[string]any); is && class["line"] != nil { // elsewhere it is a line of a plan
			class["duetPart"] = class["line"]
			delete(class, "line")
		}
	}
	return json.Marshal(whole)
}

func rename(value any) any {
	switch value := value.(type) {
	case map[string]any:
		fresh := make(map[string]any, len(value))
		for key, of := range value {
			if now, is := renamed[key]; is {
				key = now
			}
			fresh[key] = rename(of)
		}
		return fresh
	case []any:
		for k := range value {
			value[k] = rename(value[k])
		}
	}
	return value
}
