// Package desktop shows reminders as notifications on the desktop of the machine that the
// program runs on: on Linux and its kin by the Desktop Notifications Specification, version
// 1.3, over the session's D-Bus, with buttons and taking back; elsewhere by what the system
// has, which shows a notification and no more.
package desktop

import "time"

// timeout is how long the desktop has to answer.
const timeout = 5 * time.Second

// appName is who the notifications are from.
const appName = "Tin Cup"
