package web

import (
	"strings"

	"unhurriedbench/core/breakdown"
	"unhurriedbench/core/instrument"
)

// Watch lists what to watch for in the piece at hand.
func (v benchView) Watch() []watched {
	var list []watched
	for _, passage := range v.Passages {
		i := passage.At
		for _, e := range v.Report.Measures[i].Events {
			if e.Start.Less(passage.From) || !e.Start.Less(passage.To) {
				continue
			}
			label, why := e.ShortName, e.Why
			if label == "" {
				label = e.Fingering
			}
			tuning := v.Instrument.Mechanism == instrument.Drums && e.Care != ""
			if tuning {
				why = strings.TrimSpace(strings.ToUpper(e.Care[:1]) + e.Care[1:] + ". " + why)
			}
			if tuning || e.Has(breakdown.Trap) || e.Has(breakdown.Accidental) || e.Has(breakdown.Carried) || e.Has(breakdown.Cancelled) ||
				e.Change != nil && e.Change.Hard {
				list = append(list, watched{v.Report.Measures[i].Number, label, e.Has(breakdown.Trap), why})
			}
		}
	}
	return list
}

type watched struct {
	Measure int
	Name    string
	Trap    bool
	Why     string
}
