package site

import (
	"net"
	"net/http"
	"net/netip"
	"slices"
	"strings"
)

// Behind says that the site stands behind proxies with these addresses, which tell whom
// they ask for, and whether they are asked by HTTPS alone: cookies are then kept from
// plain HTTP, and browsers are made to stay with HTTPS. It is called before Routes.
func (s *Site) Behind(proxies []netip.Prefix, https bool) {
	s.proxies, s.https = proxies, https
	if s.Sessions.Cookie.Secure = https; https {
		s.Sessions.Cookie.Name = "__Host-bench" // which browsers keep to this site alone
	}
}

// fromProxies takes the caller's address from what a trusted proxy says of it. What
// anybody else says is not believed.
func (s *Site) fromProxies(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if s.https {
			w.Header().Set("Strict-Transport-Security", "max-age=31536000")
		}
		if peer, err := netip.ParseAddrPort(r.RemoteAddr); err == nil && s.trusted(peer.Addr()) {
			if caller, ok := s.callerIn(r.Header.Values("X-Forwarded-For")); ok {
				r.RemoteAddr = net.JoinHostPort(caller.String(), "0")
			}
		}
		next.ServeHTTP(w, r)
	})
}

func (s *Site) trusted(address netip.Addr) bool {
	return slices.ContainsFunc(s.proxies, func(p netip.Prefix) bool { return p.Contains(address.Unmap()) })
}

// callerIn finds the last address of a chain that is no proxy of ours: what stands before
// it the caller may have made up.
func (s *Site) callerIn(headers []string) (netip.Addr, bool) {
	chain := strings.Split(strings.Join(headers, ","), ",")
	for _, text := range slices.Backward(chain) {
		address, err := netip.ParseAddr(strings.TrimSpace(text))
		if err != nil {
			return netip.Addr{}, false
		}
		if !s.trusted(address) {
			return address.Unmap(), true
		}
	}
	return netip.Addr{}, false
}
