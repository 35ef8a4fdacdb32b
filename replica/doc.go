// Package replica holds a test of continuous replication by litestream, which is a module of its
// own so that what it needs is not what the program needs. make replica-test runs it.
package replica
