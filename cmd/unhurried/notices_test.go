package main

import (
	"os"
	"os/exec"
	"strings"
	"testing"
)

// Every module that is built into the program has its notice, in the version that is built
// in; bin/notices writes them.
func TestNotices(t *testing.T) {
	notices, err := os.ReadFile("../../deploy/NOTICES.txt")
	if err != nil {
		t.Fatal(err)
	}
	list, err := exec.Command("go", "list", "-deps", "-f", "{{with .Module}}{{if not .Main}}{{.Path}} {{.Version}}{{end}}{{end}}", ".").Output()
	if err != nil {
		t.Fatal(err)
	}
	modules := strings.Fields(strings.ReplaceAll(string(list), " ", "@"))
	if len(modules) < 10 {
		t.Fatalf("only %d modules are built in", len(modules))
	}
	for _, module := range modules {
		if !strings.Contains(string(notices), "\n"+strings.Replace(module, "@", " ", 1)+"\n") {
			t.Errorf("%s has no notice: run bin/notices", module)
		}
	}
	if !strings.Contains(string(notices), "Redistribution and use in source and binary forms") || !strings.Contains(string(notices), "Apache License") {
		t.Error("the texts of the licences are not there")
	}
}
