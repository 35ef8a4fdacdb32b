package feed

import (
	"context"
	"errors"
	"fmt"
	"io"
	"net"
	"net/http"
	"net/netip"
	"net/url"
	"slices"
	"strings"
	"syscall"
	"time"

	"tincup/internal/app"
)

// MaxBytes is how much a calendar may hold, once it is unpacked.
const MaxBytes = 10 << 20

const (
	fetchTime    = 20 * time.Second
	maxRedirects = 5
)

// Reader reads calendars. It is safe for concurrent use.
type Reader struct {
	client *http.Client
}

// NewReader makes one. private allows addresses on this machine and on private networks.
func NewReader(private bool) *Reader {
	dialer := &net.Dialer{Timeout: 10 * time.Second}
	if !private {
		dialer.Control = func(_, address string, _ syscall.RawConn) error { return public(address) }
	}
	return &Reader{&http.Client{
		Timeout: fetchTime,
		Transport: &http.Transport{
			DialContext: dialer.DialContext, TLSHandshakeTimeout: 10 * time.Second, MaxResponseHeaderBytes: 64 << 10,
			ForceAttemptHTTP2: true, MaxIdleConns: 4, IdleConnTimeout: time.Minute,
		},
		CheckRedirect: func(_ *http.Request, via []*http.Request) error {
			if len(via) > maxRedirects {
				return errTooManyRedirects
			}
			return nil
		},
	}}
}

var (
	errTooManyRedirects = fmt.Errorf("it sends on to another address more than %d times", maxRedirects)
	errPrivate          = errors.New("it is on this machine or on a private network; start with --private-calendars to allow that")
)

// public refuses the addresses of this machine and of private networks. It looks at what
// is dialled, so that a name cannot stand for one of them.
func public(address string) error {
	at, err := netip.ParseAddrPort(address)
	if err != nil {
		return err
	}
	ip := at.Addr().Unmap()
	if !ip.IsGlobalUnicast() || ip.IsPrivate() || slices.ContainsFunc(inside, func(p netip.Prefix) bool { return p.Contains(ip) }) {
		return errPrivate
	}
	return nil
}

// inside are blocks of the IANA special-purpose address registries (RFC 6890) that net/netip knows
// as global and that lead to this machine, to a private network, or, translated, to any address of
// the IPv4 Internet.
var inside = []netip.Prefix{
	netip.MustParsePrefix("0.0.0.0/8"),      // this network, RFC 791 section 3.2
	netip.MustParsePrefix("100.64.0.0/10"),  // shared by a provider's customers, RFC 6598
	netip.MustParsePrefix("192.0.0.0/24"),   // protocol assignments, RFC 6890
	netip.MustParsePrefix("198.18.0.0/15"),  // benchmarks, RFC 2544
	netip.MustParsePrefix("240.0.0.0/4"),    // reserved, RFC 1112 section 4
	netip.MustParsePrefix("64:ff9b::/96"),   // translated, RFC 6052
	netip.MustParsePrefix("64:ff9b:1::/48"), // translated within a network, RFC 8215
	netip.MustParsePrefix("2002::/16"),      // 6to4, RFC 3056
	netip.MustParsePrefix("2001::/23"),      // protocol assignments, Teredo among them, RFC 2928
	netip.MustParsePrefix("fec0::/10"),      // site-local, RFC 3879
}

// CheckAddress refuses what is no address of a calendar, and returns it as it is asked for.
func CheckAddress(address string) (string, error) {
	u, err := url.Parse(strings.TrimSpace(address))
	if err != nil || u.Host == "" {
		return "", say("“%.80s” is not an address: one such as https://example.org/calendar.ics is wanted.", address)
	}
	switch u.Scheme = strings.ToLower(u.Scheme); u.Scheme {
	case "http", "https":
	case "webcal": // common practice, no source: the same over HTTPS
		u.Scheme = "https"
	default:
		return "", say("An address beginning with “%.20s:” is not read: one with https:// or http:// is wanted.", u.Scheme)
	}
	u.Fragment = ""
	return u.String(), nil
}

// sentence is an error that is told to the person as it is.
type sentence string

func (s sentence) Error() string { return string(s) }

func say(format string, args ...any) error { return sentence(fmt.Sprintf(format, args...)) }

// Fetch implements app.Calendars. It asks only for what has changed since it was known
// (RFC 9110 section 13). Its errors are sentences for the person.
func (r *Reader) Fetch(ctx context.Context, address string, known app.Validators) (app.Fetched, error) {
	var none app.Fetched
	address, err := CheckAddress(address)
	if err != nil {
		return none, err
	}
	req, err := http.NewRequestWithContext(ctx, http.MethodGet, address, nil)
	if err != nil {
		return none, say("“%.80s” is not an address.", address)
	}
	req.Header.Set("Accept", "text/calendar, text/plain;q=0.5, */*;q=0.1")
	req.Header.Set("User-Agent", "tincup")
	if known.ETag != "" {
		req.Header.Set("If-None-Match", known.ETag)
	}
	if known.Modified != "" {
		req.Header.Set("If-Modified-Since", known.Modified)
	}
	res, err := r.client.Do(req)
	if err != nil {
		return none, unreachable(req.URL.Host, err)
	}
	defer res.Body.Close()
	if res.StatusCode == http.StatusNotModified && known != (app.Validators{}) {
		return app.Fetched{Unchanged: true, Validators: known}, nil
	}
	if res.StatusCode != http.StatusOK {
		return none, refused(req.URL.Host, res.StatusCode)
	}
	text, err := io.ReadAll(io.LimitReader(res.Body, MaxBytes+1))
	switch {
	case err != nil:
		return none, unreachable(req.URL.Host, err)
	case len(text) > MaxBytes:
		return none, errTooLarge
	}
	return app.Fetched{Text: text, Validators: app.Validators{
		ETag: short(res.Header.Get("ETag")), Modified: short(res.Header.Get("Last-Modified"))}}, nil
}

var errTooLarge = say("The calendar has more than %d MB, which is the most.", MaxBytes>>20)

// short is a validator of a reasonable length; others are not sent back.
func short(validator string) string {
	if len(validator) > 1024 {
		return ""
	}
	return validator
}

func unreachable(host string, err error) error {
	var slow interface{ Timeout() bool }
	var name *net.DNSError
	switch {
	case errors.Is(err, errPrivate):
		return say("“%.80s” is not asked: %v.", host, errPrivate)
	case errors.Is(err, errTooManyRedirects):
		return say("“%.80s” leads nowhere: %v.", host, errTooManyRedirects)
	case errors.As(err, &name) && name.IsNotFound:
		return say("There is no machine called “%.80s”.", host)
	case errors.As(err, &slow) && slow.Timeout(), errors.Is(err, context.DeadlineExceeded):
		return say("“%.80s” takes longer than %d seconds to answer.", host, int(fetchTime/time.Second))
	case errors.Is(err, syscall.ECONNREFUSED):
		return say("Nothing answers at “%.80s”.", host)
	}
	var whole *url.Error // its own text holds the address, which may be a secret
	if errors.As(err, &whole) {
		err = whole.Err
	}
	return say("“%.80s” could not be read: %.200v.", host, err)
}

func refused(host string, status int) error {
	switch status {
	case http.StatusUnauthorized, http.StatusForbidden:
		return say("“%.80s” does not let us read this calendar (%d). It may want a secret address, or a name and a password before the host.", host, status)
	case http.StatusNotFound, http.StatusGone:
		return say("“%.80s” has no calendar at this address (%d).", host, status)
	}
	return say("“%.80s” answers with %d %s in place of a calendar.", host, status, http.StatusText(status))
}
