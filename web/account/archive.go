package account

import (
	"bytes"
	"errors"
	"fmt"
	"net/http"
	"slices"
	"time"

	"unhurriedbench/archive"
	"unhurriedbench/store"
	"unhurriedbench/teach"
	"unhurriedbench/web/site"
)

// takeArchive sends everything the teacher owns as one file.
func (s *handlers) takeArchive(w http.ResponseWriter, r *http.Request) error {
	everything, err := site.ClassOf(r).Everything(r.Context())
	if err != nil {
		return err
	}
	var b bytes.Buffer
	if err := archive.Write(&b, everything); err != nil {
		return err
	}
	w.Header().Set("Content-Type", "application/zip")
	w.Header().Set("Content-Disposition", fmt.Sprintf(`attachment; filename="unhurried-bench-%s.zip"`,
		s.Now().Format(time.DateOnly)))
	_, _ = b.WriteTo(w) // the reader has gone when this fails
	return nil
}

// importArchive adds what is in such a file.
func (s *handlers) importArchive(w http.ResponseWriter, r *http.Request) error {
	everything, err := readArchive(r)
	var problem archive.Problem
	if errors.As(err, &problem) {
		return s.showAccount(w, r, http.StatusUnprocessableEntity, "Nothing was brought in. "+problem.Error())
	}
	var brought store.Brought
	if err == nil {
		brought, err = site.ClassOf(r).Import(r.Context(), everything)
	}
	if err != nil {
		return err
	}
	s.Flash(r, fmt.Sprintf("Imported: %d books with %d exercises, %d classes with %d students, %d tries.",
		brought.Books, brought.Exercises, brought.Classes, brought.Students, brought.Tries))
	http.Redirect(w, r, "/account", http.StatusSeeOther)
	return nil
}

// readArchive reads the file of the form, and whether its settings are some that there are.
func readArchive(r *http.Request) (store.Everything, error) {
	tooLarge := archive.Problem(fmt.Sprintf("The archive is larger than %d MB, or did not arrive whole.",
		archive.Largest>>20))
	if site.FormError(r) != nil {
		return store.Everything{}, tooLarge
	}
	file, header, err := r.FormFile("file")
	if err != nil {
		return store.Everything{}, archive.Problem("Choose the file that was taken along.")
	}
	defer file.Close()
	everything, err := archive.Read(file, header.Size)
	if err != nil {
		return everything, err
	}
	for key := range everything.Settings {
		known := key == store.RoutineSetting || slices.ContainsFunc(site.SettingsSaid,
			func(said site.SettingSaid) bool { return slices.Contains(said.Keys, key) })
		if !known {
			return everything, archive.Problem(fmt.Sprintf("The archive has the setting %q, which is not known here.", key))
		}
	}
	if err := teach.PreferencesOf(everything.Settings).Fit(); err != nil {
		return everything, archive.Problem("In the archive’s settings: " + err.Error() + ".")
	}
	return everything, nil
}
