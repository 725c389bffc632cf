package site_test

import (
	"io"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"

	"github.com/prometheus/common/expfmt"
	"github.com/prometheus/common/model"

	"unhurriedbench/internal/testsite"
)

// Metrics count requests by route, never by path, in a format that another reader takes;
// they are not shown on the site itself.
func TestMetrics(t *testing.T) {
	t.Parallel()
	s := testsite.Open(t)
	v, account := s.Teacher(t, "a@school.example")
	testsite.Furnish(t, s.Store, account.ID)
	v.Get("/board")
	v.Get("/students/" + strings.Repeat("7", 5))
	if answer, err := v.Client.Do(v.Request("INVENTED", "/board", nil)); err != nil {
		t.Fatal(err)
	} else {
		answer.Body.Close()
	}
	w := httptest.NewRecorder()
	s.Whole.Metrics().ServeHTTP(w, httptest.NewRequest(http.MethodGet, "/", http.NoBody))
	text, err := io.ReadAll(w.Body)
	if err != nil {
		t.Fatal(err)
	}
	// Outside check: the Prometheus project's own reader of its text format.
	parser := expfmt.NewTextParser(model.UTF8Validation)
	families, err := parser.TextToMetricFamilies(strings.NewReader(string(text)))
	if err != nil {
		t.Fatal(err)
	}
	seen := map[string]uint64{}
	for _, m := range families["unhurried_request_seconds"].GetMetric() {
		labels := map[string]string{}
		for _, l := range m.GetLabel() {
			labels[l.GetName()] = l.GetValue()
		}
		seen[labels["method"]+" "+labels["route"]+" "+labels["status"]] = m.GetHistogram().GetSampleCount()
	}
	for _, want := range []string{"GET /board 200", "GET /students/{id} 404", "POST /sign-in 303"} {
		if seen[want] != 1 {
			t.Errorf("%s is counted %d times in %v", want, seen[want], seen)
		}
	}
	if families["go_sql_open_connections"] == nil {
		t.Error("the connections to the database are not told")
	}
	for _, word := range []string{"77777", "INVENTED", "Ines", "school.example"} {
		if strings.Contains(string(text), word) {
			t.Errorf("the metrics name %s", word)
		}
	}
	if status, _ := v.Get("/metrics"); status != http.StatusNotFound {
		t.Errorf("/metrics on the site gives %d", status)
	}
}
