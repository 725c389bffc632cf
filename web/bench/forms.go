package bench

import ()

type ruleForm struct {
	Clean int  `form:"clean" validate:"min=0,max=5"`
	Stay  bool `form:"stay"`
}

func (*ruleForm) Sentences() map[string]string {
	const choose = "Choose how many clean tries in a row go on: 1 to 5."
	return map[string]string{"Clean number": choose, "Clean min": choose, "Clean max": choose}
}
