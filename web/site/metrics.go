package site

import (
	"net/http"
	"slices"
	"strconv"
	"time"

	"github.com/prometheus/client_golang/prometheus"
	"github.com/prometheus/client_golang/prometheus/collectors"
	"github.com/prometheus/client_golang/prometheus/promhttp"
)

// metrics is what the server counts of itself, for anyone who runs the machine. A request is
// known by its route alone.
type metrics struct {
	registry *prometheus.Registry
	took     *prometheus.HistogramVec
	under    prometheus.Gauge
}

func (s *Site) newMetrics() *metrics {
	m := &metrics{
		registry: prometheus.NewRegistry(),
		took: prometheus.NewHistogramVec(prometheus.HistogramOpts{
			Name: "unhurried_request_seconds", Help: "How long requests took, by method, route and status.",
			Buckets: []float64{.005, .01, .025, .05, .1, .2, .3, .5, 1, 2.5, 10},
		}, []string{"method", "route", "status"}),
		under: prometheus.NewGauge(prometheus.GaugeOpts{Name: "unhurried_requests_under_way",
			Help: "Requests that are being answered."}),
	}
	m.registry.MustRegister(m.took, m.under, collectors.NewGoCollector(),
		collectors.NewProcessCollector(collectors.ProcessCollectorOpts{}),
		collectors.NewDBStatsCollector(s.Store.DB(), "unhurried"))
	return m
}

func (m *metrics) observe(method, route string, status int, took time.Duration) {
	if route == "" {
		route = "none"
	}
	if !slices.Contains([]string{http.MethodGet, http.MethodHead, http.MethodPost}, method) { // which callers may invent
		method = "other"
	}
	m.took.WithLabelValues(method, route, strconv.Itoa(status)).Observe(took.Seconds())
}

// Metrics answers in the Prometheus text format. It is for the machine itself: serve it on
// a loopback address alone.
func (s *Site) Metrics() http.Handler {
	return promhttp.HandlerFor(s.metrics.registry, promhttp.HandlerOpts{})
}
