package stress

import (
	"context"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
)

// No connection to the database is to be had: pages say so in our own words, and are there
// again as soon as one is.
func TestConnectionsExhausted(t *testing.T) {
	c := newCluster(t, "-c max_connections=20")
	db := c.open("postgres")
	c.do(db, "CREATE DATABASE records")
	s := newServer(t, c.url("records"))
	u := furnish(t, s.address(), 1)
	held := c.open("postgres")
	held.SetMaxIdleConns(20)
	ctx := context.Background()
	c.do(db, "SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = 'records'")
	taken := 0
	for range 20 {
		conn, err := held.Conn(ctx)
		if err != nil {
			break
		}
		defer conn.Close()
		taken++
	}
	if taken < 15 {
		t.Fatalf("only %d connections were taken", taken)
	}
	status, page, err := u.get("/board")
	if err != nil || status != http.StatusServiceUnavailable || !strings.Contains(page, "The records cannot be reached") || strings.Contains(page, "SQLSTATE") {
		t.Errorf("without a connection the Board gives %d, %v: %.300s", status, err, page)
	}
	if status, _, err := u.post("/bench/1/attempts", mark(1, "held")); err != nil || status != http.StatusServiceUnavailable {
		t.Errorf("without a connection a mark gives %d, %v", status, err)
	}
	c.do(db, "SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = 'postgres' AND pid <> pg_backend_pid()")
	s.waitReady()
	if status, _, err := u.post("/bench/1/attempts", mark(1, "held")); err != nil || status != http.StatusSeeOther {
		t.Errorf("with connections again a mark gives %d, %v", status, err)
	}
	if status, page, _ := u.get("/board"); status != http.StatusOK || !strings.Contains(page, "Student1") {
		t.Errorf("with connections again the Board gives %d", status)
	}
}

// room makes a small disk and says where; only root can.
func room(t *testing.T, c *cluster, size string) string {
	t.Helper()
	if os.Getuid() != 0 {
		t.Skip("a small disk can be made by root alone")
	}
	folder := filepath.Join(c.folder, "small")
	if err := os.Mkdir(folder, 0o755); err != nil {
		t.Fatal(err)
	}
	if said, err := exec.Command("mount", "-t", "tmpfs", "-o", "size="+size, "tmpfs", folder).CombinedOutput(); err != nil {
		t.Skipf("no small disk can be made here: %s", said)
	}
	t.Cleanup(func() {
		if said, err := exec.Command("umount", "-l", folder).CombinedOutput(); err != nil {
			t.Errorf("%v: %s", err, said)
		}
	})
	return folder
}

// The disk under the records is full: a mark is refused in our own words and is not there,
// what can be read is shown, and once there is room the same mark is taken.
func TestTheDiskIsFull(t *testing.T) {
	c := newCluster(t, "")
	small := room(t, c, "40m")
	t.Cleanup(func() { _ = c.shell(`as_postgres "$PG_BIN/pg_ctl" stop -m immediate -D "$FOLDER/data"`) }) // before the disk goes
	if err := c.shell(`chown postgres:postgres "$FOLDER/small"`); err != nil {
		t.Fatal(err)
	}
	db := c.open("postgres")
	c.do(db, "CREATE TABLESPACE small LOCATION '"+small+"'")
	c.do(db, "CREATE DATABASE records TABLESPACE small")
	s := newServer(t, c.url("records"))
	u := furnish(t, s.address(), 1)
	records := c.open("records")
	c.do(records, "CREATE TABLE filler (x text)")
	c.do(records, "ALTER TABLE filler ALTER x SET STORAGE EXTERNAL")
	for _, size := range []int{1 << 20, 64 << 10, 7000, 1000, 10} { // until not a row more goes in
		for {
			if _, err := records.Exec("INSERT INTO filler SELECT repeat('x', $1)", size); err != nil {
				break
			}
		}
	}
	refused := 0
	for n := range 400 { // pages of the tables have some room left
		status, page, err := u.post("/bench/1/attempts", mark(1, "full-"+string(rune('a'+n%26))+strings.Repeat("x", n/26)))
		if err != nil {
			t.Fatal(err)
		}
		if status == http.StatusSeeOther {
			continue
		}
		refused++
		if status != http.StatusInternalServerError && status != http.StatusServiceUnavailable || strings.Contains(page, "SQLSTATE") || !strings.Contains(page, "Unhurried Bench") {
			t.Errorf("on a full disk a mark gives %d: %.300s", status, page)
		}
		if refused == 3 {
			break
		}
	}
	if refused == 0 {
		t.Fatal("the disk is not full: this has shown nothing")
	}
	before := len(marksOf(t, records))
	if status, page, err := u.post("/bench/1/attempts", mark(1, "the-one")); err != nil || status < 500 {
		t.Errorf("a mark gives %d, %v: %.200s", status, err, page)
	}
	if after := len(marksOf(t, records)); after != before {
		t.Errorf("a mark that was refused is there: %d, then %d", before, after)
	}
	if status, page, _ := u.get("/students/1"); status == http.StatusOK && !strings.Contains(page, "Student1") {
		t.Errorf("a page that can be read is empty")
	}
	c.do(records, "DROP TABLE filler")
	if status, page, err := u.post("/bench/1/attempts", mark(1, "the-one")); err != nil || status != http.StatusSeeOther {
		t.Errorf("with room again a mark gives %d, %v: %.300s", status, err, page)
	}
	if found := marksOf(t, records); found["the-one"] != 1 {
		t.Errorf("the mark is there %d times", found["the-one"])
	}
}

// A backup that finds no room says so and leaves nothing that looks like one.
func TestABackupFindsNoRoom(t *testing.T) {
	c := newCluster(t, "")
	small := room(t, c, "64k")
	c.do(c.open("postgres"), "CREATE DATABASE records")
	s := newServer(t, c.url("records"))
	furnish(t, s.address(), 4)
	c.do(c.open("records"), "INSERT INTO activity (action, detail) SELECT 'x', md5(n::text) FROM generate_series(1, 20000) n")
	file := filepath.Join(small, "all.backup")
	run := exec.Command(program, "backup", file)
	run.Env = append(os.Environ(), "UNHURRIED_DATABASE="+c.url("records"))
	said, err := run.CombinedOutput()
	if err == nil || !strings.Contains(string(said), "write the backup") || !strings.Contains(string(said), "no space left") {
		t.Errorf("the backup says %s, %v", said, err)
	}
	left, err := os.ReadDir(small)
	if err != nil || len(left) > 0 {
		t.Errorf("it leaves %v, %v", left, err)
	}
}
