package main

import (
	"strings"
	"testing"
)

// Metrics are served on loopback alone.
func TestMetricsStayOnTheMachine(t *testing.T) {
	for _, address := range []string{"0.0.0.0:9464", ":9464", "192.0.2.1:9464", "[::]:9464", "localhost:9464", "127.0.0.1"} {
		if err := startMetrics(t.Context(), nil, address, nil); err == nil || !strings.Contains(err.Error(), "for this machine alone") {
			t.Errorf("%s gives %v", address, err)
		}
	}
	if err := startMetrics(t.Context(), nil, "", nil); err != nil {
		t.Errorf("without metrics: %v", err)
	}
}
