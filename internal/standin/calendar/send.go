package calendar

import (
	"context"
	"fmt"
	"io"
	"net/http"
	"strings"
)

// Send asks a service at an address to change: a method, a path such as
// /museum/drill@museum or /museum/fault, and a body as the package says.
func Send(ctx context.Context, method, address, body string) error {
	req, err := http.NewRequestWithContext(ctx, method, address, strings.NewReader(body))
	if err != nil {
		return err
	}
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		return err
	}
	defer res.Body.Close()
	text, err := io.ReadAll(res.Body)
	if err == nil && res.StatusCode != http.StatusOK {
		err = fmt.Errorf("%s answers %d: %s", address, res.StatusCode, text)
	}
	return err
}
