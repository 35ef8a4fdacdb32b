// Package api holds the contract. The Go server's types and interface are
// generated from it here, the page's in web/.
package api

//go:generate go tool oapi-codegen -config generate.yaml openapi.yaml
