package testsite

import ()

// EveryDay are all days of the week, as a form sends them.
var EveryDay = []string{"0", "1", "2", "3", "4", "5", "6"}
