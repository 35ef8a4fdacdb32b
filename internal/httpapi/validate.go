package httpapi

import (
	"errors"
	"fmt"
	"net/http"
	"strings"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/getkin/kin-openapi/openapi3filter"
	"github.com/getkin/kin-openapi/routers"
	"github.com/getkin/kin-openapi/routers/gorillamux"
	"github.com/gin-gonic/gin"
)

// validator checks requests against the contract.
type validator struct{ router routers.Router }

func newValidator(doc *openapi3.T) (*validator, error) {
	doc.Servers = nil // any host the guard let through
	router, err := gorillamux.NewRouter(doc)
	if err != nil {
		return nil, fmt.Errorf("the contract: %w", err)
	}
	return &validator{router}, nil
}

// check returns a *problem for a request that the contract does not allow.
func (v *validator) check(c *gin.Context) error {
	route, params, err := v.router.FindRoute(c.Request)
	if err != nil {
		return bad(http.StatusNotFound, "Not there", "There is nothing at this address.")
	}
	raw := takesBytes(route.Operation)
	if raw && c.ContentType() != octets {
		return notThisType()
	}
	err = openapi3filter.ValidateRequest(c.Request.Context(), &openapi3filter.RequestValidationInput{
		Request: c.Request, PathParams: params, Route: route,
		Options: &openapi3filter.Options{AuthenticationFunc: openapi3filter.NoopAuthenticationFunc,
			ExcludeRequestBody: raw}, // read as it comes, not into memory
	})
	if err == nil {
		return nil
	}
	return contractProblem(err)
}

const octets = "application/octet-stream"

// takesBytes reports whether the body of an operation is a file. What the client
// says of the body decides nothing.
func takesBytes(op *openapi3.Operation) bool {
	return op.RequestBody != nil && op.RequestBody.Value.Content[octets] != nil
}

func notThisType() error {
	return bad(http.StatusUnsupportedMediaType, "Not a type this address takes",
		"The Content-Type of the request is not one this address takes; the contract names it.")
}

func contractProblem(err error) error {
	var tooLarge *http.MaxBytesError
	if errors.As(err, &tooLarge) {
		return tooLarge
	}
	var request *openapi3filter.RequestError
	if !errors.As(err, &request) {
		return bad(http.StatusBadRequest, "Not a valid request", "The request cannot be read: "+firstLine(err)+".")
	}
	var schema *openapi3.SchemaError
	found := errors.As(err, &schema)
	switch {
	case request.Parameter != nil:
		reason := request.Reason
		if found {
			reason = schema.Reason
		}
		return &problem{status: http.StatusBadRequest, title: "A parameter is wrong", field: request.Parameter.Name,
			detail: fmt.Sprintf("The parameter %s is wrong: %s.", request.Parameter.Name, reason)}
	case strings.Contains(request.Reason, "Content-Type"):
		return notThisType()
	case found:
		return schemaProblem(schema)
	}
	return bad(http.StatusBadRequest, "Not valid JSON",
		"The body is not the JSON this address takes: "+firstLine(request)+".")
}

func schemaProblem(e *openapi3.SchemaError) error {
	field := strings.Join(e.JSONPointer(), ".")
	p := &problem{status: http.StatusBadRequest, title: "A field is wrong", field: field}
	switch name, unknown := strings.CutPrefix(e.Reason, `property "`); {
	case unknown && strings.Contains(name, "unsupported"):
		p.field, _, _ = strings.Cut(name, `"`)
		p.detail = fmt.Sprintf("There is no field “%.60s” here; the contract lists those there are.", p.field)
	case unknown:
		p.field, _, _ = strings.Cut(name, `"`)
		p.detail = fmt.Sprintf("The field “%.60s” is missing.", p.field)
	case field == "":
		p.detail = "The body is wrong: " + e.Reason + "."
	default:
		p.detail = fmt.Sprintf("The field “%.60s” is wrong: %s.", field, e.Reason)
	}
	return p
}

func firstLine(err error) string {
	line, _, _ := strings.Cut(err.Error(), "\n")
	const most = 160
	if len(line) > most {
		line = line[:most] + "…"
	}
	return strings.TrimSuffix(line, ".")
}
