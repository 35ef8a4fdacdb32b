package main

import (
	"os"
	"path/filepath"
	"strings"
	"time"
)

// machineZone returns the machine's time zone under its name in the tz
// database, which the page needs; time.Local, whose name tells nothing, where
// the machine does not say.
func machineZone() *time.Location {
	var names []string
	if tz, set := os.LookupEnv("TZ"); set {
		if tz = strings.TrimPrefix(tz, ":"); tz == "" {
			return time.UTC
		}
		names = append(names, zoneIn(tz))
	} else {
		if target, err := filepath.EvalSymlinks("/etc/localtime"); err == nil {
			names = append(names, zoneIn(target))
		}
		if text, err := os.ReadFile("/etc/timezone"); err == nil {
			names = append(names, strings.TrimSpace(string(text)))
		}
	}
	for _, name := range names {
		if name == "" || name == "Local" {
			continue
		}
		if zone, err := time.LoadLocation(name); err == nil {
			return zone
		}
	}
	return time.Local
}

// zoneIn returns the name of a zone from the path of its file.
func zoneIn(path string) string {
	if _, name, found := strings.Cut(path, "zoneinfo/"); found {
		return name
	}
	if filepath.IsAbs(path) {
		return ""
	}
	return path
}
