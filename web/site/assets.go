package site

import (
	"crypto/sha256"
	"embed"
	"encoding/hex"
	"errors"
	"fmt"
	"io/fs"
	"mime"
	"net/http"
	"path"
	"strings"
	"sync"

	"github.com/vearutop/statigz"
	"github.com/vearutop/statigz/brotli"
)

//go:embed static
var Static embed.FS

// Assets are the embedded files that browsers fetch. The address of each holds
// a hash of its content, so that it may be kept for a year and is fetched again
// the day it changes.
type Assets struct {
	hashed map[string]string // "bench.css" is "bench.1f0a2b3c4d.css"
	plain  map[string]string // and back
	files  http.Handler

	modules *modules
}

// Files reads and packs the embedded files, once for the program. Small
// files are packed here, the large ones lie packed in static/lib.
var Files = sync.OnceValues(func() (*Assets, error) {
	if err := mime.AddExtensionType(".woff2", "font/woff2"); err != nil {
		return nil, fmt.Errorf("name the type of fonts: %w", err)
	}
	a := &Assets{hashed: map[string]string{}, plain: map[string]string{},
		modules: &modules{sources: map[string][]byte{}, sent: map[string][]byte{}, addresses: map[string]string{},
			needs: map[string][]string{}}}
	err := fs.WalkDir(Static, "static", func(name string, entry fs.DirEntry, err error) error {
		if err != nil || entry.IsDir() {
			return err
		}
		content, err := Static.ReadFile(name)
		if err != nil {
			return err
		}
		name = strings.TrimPrefix(name, "static/")
		if path.Ext(name) == ".js" && path.Dir(name) == "." {
			a.modules.sources[name] = content
			return nil
		}
		a.add(name, content)
		return nil
	})
	for name := range a.modules.sources {
		err = errors.Join(err, a.modules.link(name, nil, func(name string, content []byte) string {
			a.add(name, content)
			return "/static/" + a.hashed[name]
		}))
	}
	if err != nil {
		return nil, fmt.Errorf("read the browser files: %w", err)
	}
	a.files = statigz.FileServer(linked{Static, a.modules}, brotli.AddEncoding, statigz.EncodeOnInit)
	return a, nil
})

// add names a file. Of one that lies only packed, the gzipped form gives the hash.
func (a *Assets) add(name string, content []byte) {
	if path.Ext(name) == ".br" {
		return
	}
	name = strings.TrimSuffix(name, ".gz")
	sum := sha256.Sum256(content)
	extension := path.Ext(name)
	hashed := strings.TrimSuffix(name, extension) + "." + hex.EncodeToString(sum[:5]) + extension
	a.hashed[name], a.plain[hashed] = hashed, name
}

// Address is where a browser fetches a file of static, such as "bench.css".
func (a *Assets) Address(name string) (string, error) {
	hashed, ok := a.hashed[name]
	if !ok {
		return "", fmt.Errorf("there is no browser file %s", name)
	}
	return "/static/" + hashed, nil
}

// year is how long a file is kept whose address changes with its content.
const year = "public, max-age=31536000, immutable"

// ServeHTTP sends a file. A page from before the last change may ask by an old
// hash: it gets today's file, which is not kept.
func (a *Assets) ServeHTTP(w http.ResponseWriter, r *http.Request) {
	requested := strings.TrimPrefix(r.URL.Path, "/static/")
	name, current := a.plain[requested]
	if !current {
		name = WithoutHash(requested)
		if _, ok := a.hashed[name]; !ok {
			http.NotFound(w, r)
			return
		}
	}
	w.Header().Set("Cache-Control", "no-cache")
	if current {
		w.Header().Set("Cache-Control", year)
	}
	plain := r.Clone(r.Context())
	plain.URL.Path = "/static/" + name
	a.files.ServeHTTP(w, plain)
}

// WithoutHash takes the part before the extension out of a name, where there is one.
func WithoutHash(name string) string {
	extension := path.Ext(name)
	stem := strings.TrimSuffix(name, extension)
	return strings.TrimSuffix(stem, path.Ext(stem)) + extension
}
