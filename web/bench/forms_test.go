package bench

import (
	"testing"

	"unhurriedbench/internal/testforms"
)

func TestForms(t *testing.T) {
	t.Parallel()
	testforms.HaveSentences(t, &ruleForm{}, &annotationForm{}, &chunkForm{})
}
