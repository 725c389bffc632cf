package main

import (
	"errors"
	"fmt"
	"os"
	"os/user"
	"strconv"
	"syscall"
)

// servants are the users that a server started by root becomes, the first that exists.
var servants = []string{"unhurried", "nobody"}

// leaveRoot gives up root's rights for good, and names the user that is taken instead;
// "" where the program was not root.
func leaveRoot() (string, error) {
	if os.Geteuid() != 0 {
		return "", nil
	}
	for _, name := range servants {
		found, err := user.Lookup(name)
		if err != nil {
			continue
		}
		uid, wrongUser := strconv.Atoi(found.Uid)
		gid, wrongGroup := strconv.Atoi(found.Gid)
		if err := errors.Join(wrongUser, wrongGroup); err != nil {
			return "", fmt.Errorf("become %s: %w", name, err)
		}
		if err := errors.Join(syscall.Setgroups([]int{gid}), syscall.Setgid(gid), syscall.Setuid(uid)); err != nil {
			return "", fmt.Errorf("become %s: %w", name, err)
		}
		return name, nil
	}
	return "", errors.New("the program was started as root, and there is neither a user unhurried nor nobody to become. Make one, or start it as another user")
}
