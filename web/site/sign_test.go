package site

import (
	"html/template"
	"os"
	"strings"
	"testing"

	"unhurriedbench/core/routine"
)

// A stage that is new needs a sign of its own and a colour.
func TestEveryStageHasItsSign(t *testing.T) {
	t.Parallel()
	asset := func(string) string { return "" }
	other := template.FuncMap{"asset": asset, "because": asset, "alertWord": asset, "staff": asset}
	shared, err := template.New("").Funcs(functions).Funcs(other).ParseFS(templateFiles, "templates/_parts.html")
	if err != nil {
		t.Fatal(err)
	}
	style, err := os.ReadFile("static/bench.css")
	if err != nil {
		t.Fatal(err)
	}
	sign := func(stage string) string {
		var b strings.Builder
		if err := shared.ExecuteTemplate(&b, "stage-sign", stage); err != nil {
			t.Fatal(err)
		}
		return strings.ReplaceAll(b.String(), stage, "")
	}
	none, signs := sign("no-such-stage"), map[string]string{}
	for _, step := range routine.Standard() {
		stage := string(step.Stage)
		drawn := sign(stage)
		if drawn == none {
			t.Errorf("the stage %s has no sign in the template stage-sign", stage)
		}
		if signs[drawn] != "" {
			t.Errorf("the stages %s and %s have one sign", signs[drawn], stage)
		}
		signs[drawn] = stage
		if !strings.Contains(string(style), "--"+stage+":") {
			t.Errorf("the stage %s has no colour --%s in bench.css", stage, stage)
		}
	}
}
