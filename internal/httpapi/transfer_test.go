package httpapi_test

import (
	"bytes"
	"compress/gzip"
	"errors"
	"fmt"
	"io"
	"net"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"tincup/internal/app"
)

// What the build compressed is handed out so to those who take it, and answers of some
// size are compressed when asked.
func TestWhatIsCompressed(t *testing.T) {
	s := newSite(t, app.Settings{})
	for accept, want := range map[string][2]string{"br, gzip": {"br", "B"}, "gzip": {"gzip", "G"}, "gzip;q=1, br;q=0": {"gzip", "G"},
		"identity": {"", "22"}, "br;q=x": {"", "22"}} {
		a := s.call("GET", "/assets/app-2.js", "", "Accept-Encoding: "+accept)
		if a.header.Get("Content-Encoding") != want[0] || a.body != want[1] || a.header.Get("Vary") != "Accept-Encoding" ||
			!strings.Contains(a.header.Get("Content-Type"), "javascript") {
			t.Errorf("%s: %q as %q, %v", accept, a.body, a.header.Get("Content-Encoding"), a.header)
		}
	}
	if a := s.call("GET", "/assets/app-1.js", "", "Accept-Encoding: br"); a.body != "1" || a.header.Get("Content-Encoding") != "" {
		t.Errorf("what was not compressed at the build: %v", a.header)
	}
	const elsewhere = "X-Forwarded-For: 192.0.2.7"
	small := s.call("GET", "/api/views/cup", "", "Accept-Encoding: gzip", elsewhere)
	if small.header.Get("Content-Encoding") != "" {
		t.Error("a small answer is compressed")
	}
	for i := range 30 {
		s.capture(fmt.Sprintf(`{"title":"To-do number %d"}`, i))
	}
	plain := s.call("GET", "/api/views/cup", "", "Accept-Encoding: identity")
	packed := s.call("GET", "/api/views/cup", "", "Accept-Encoding: gzip", elsewhere)
	if forwarded := s.call("GET", "/api/views/cup", "", "Accept-Encoding: gzip", "Forwarded: for=192.0.2.7"); forwarded.body != packed.body {
		t.Error("through a proxy of RFC 7239 it is another answer")
	}
	if here := s.call("GET", "/api/views/cup", "", "Accept-Encoding: gzip"); here.body != plain.body || here.header.Get("Content-Encoding") != "" {
		t.Errorf("on this machine itself it is packed: %v", here.header)
	}
	r, err := gzip.NewReader(strings.NewReader(packed.body))
	if err != nil || packed.header.Get("Content-Encoding") != "gzip" {
		t.Fatalf("%v: %v", err, packed.header)
	}
	content, err := io.ReadAll(r)
	if err != nil || string(content) != plain.body || len(packed.body)*3 > len(plain.body) || plain.header.Get("Content-Encoding") != "" {
		t.Errorf("%d bytes are %d, and not the same: %v", len(plain.body), len(packed.body), err)
	}
}

// HEAD answers where GET does, with the same head and no body.
func TestHead(t *testing.T) {
	s := newSite(t, app.Settings{})
	id, _ := s.capture(`{"title":"a"}`)
	file := s.want(201, "POST", "/api/todos/"+id+"/attachments?name=x.txt", "hello", octets).text(t, "attachments.0.hash")
	for _, path := range []string{"/", "/today", "/assets/app-1.js", "/healthz", "/api/openapi.json", "/api/overview", "/api/todos/" + id,
		"/api/views/cup", "/api/history", "/api/todos/" + id + "/attachments/" + file, "/api/events"} {
		head := s.want(200, "HEAD", path, "")
		if head.body != "" || path != "/api/events" && head.header.Get("Content-Type") != s.call("GET", path, "").header.Get("Content-Type") {
			t.Errorf("%s: %q, %v", path, head.body, head.header)
		}
	}
	s.want(404, "HEAD", "/api/nothing", "")
}

// An upload that is cut off is told so where anyone listens, and leaves nothing.
func TestUploadsThatBreakOff(t *testing.T) {
	s := newSite(t, app.Settings{})
	id, _ := s.capture(`{"title":"a"}`)
	conn, err := net.Dial("tcp", strings.TrimPrefix(s.url, "http://"))
	if err != nil {
		t.Fatal(err)
	}
	fmt.Fprintf(conn, "POST /api/todos/%s/attachments?name=x.bin HTTP/1.1\r\nHost: %s\r\nContent-Type: application/octet-stream\r\nContent-Length: 9000\r\n\r\nonly this",
		id, strings.TrimPrefix(s.url, "http://"))
	time.Sleep(50 * time.Millisecond)
	if err := conn.(*net.TCPConn).CloseWrite(); err != nil {
		t.Fatal(err)
	}
	answer, err := io.ReadAll(conn)
	if err != nil || !bytes.HasPrefix(answer, []byte("HTTP/1.1 400")) || !bytes.Contains(answer, []byte("stopped coming")) {
		t.Errorf("it answers %s, %v", answer, err)
	}
	if left, _ := filepath.Glob(s.path + "-files/coming-*"); len(left) > 0 {
		t.Errorf("left: %v", left)
	}
	if strings.Contains(s.log.String(), "level=ERROR") {
		t.Errorf("the log says %s", s.log.String())
	}
}

// What stands in the place of the folder of files is named, and no fault of ours.
func TestAFileInPlaceOfTheFolder(t *testing.T) {
	s := newSite(t, app.Settings{})
	id, _ := s.capture(`{"title":"a"}`)
	if err := os.WriteFile(s.path+"-files", []byte("mine"), 0o600); err != nil {
		t.Fatal(err)
	}
	got := s.want(http.StatusServiceUnavailable, "POST", "/api/todos/"+id+"/attachments?name=x.txt", "hello", octets)
	if !strings.Contains(got.text(t, "detail"), s.path+"-files") {
		t.Errorf("it says %s", got.body)
	}
	if content, err := os.ReadFile(s.path + "-files"); err != nil || string(content) != "mine" {
		t.Error("it was touched")
	}
	if err := errors.Join(os.Remove(s.path+"-files"), os.Mkdir(s.path+"-files", 0o700)); err != nil {
		t.Fatal(err)
	}
	s.want(http.StatusServiceUnavailable, "POST", "/api/todos/"+id+"/attachments?name=x.txt", "hello", octets)
}

func TestAlteredFilesAreNotHandedOut(t *testing.T) {
	s := newSite(t, app.Settings{})
	id, _ := s.capture(`{"title":"a"}`)
	hash := s.want(201, "POST", "/api/todos/"+id+"/attachments?name=x.txt", "hello", octets).text(t, "attachments.0.hash")
	one := "/api/todos/" + id + "/attachments/" + hash
	if got := s.want(200, "GET", one, ""); !strings.Contains(got.header.Get("Content-Security-Policy"), "frame-ancestors 'none'") {
		t.Errorf("%v", got.header)
	}
	if err := os.WriteFile(filepath.Join(s.path+"-files", hash[:2], hash), []byte("other"), 0o600); err != nil {
		t.Fatal(err)
	}
	if got := s.want(409, "GET", one, ""); !strings.Contains(got.body, "no longer those that were attached") {
		t.Errorf("it says %s", got.body)
	}
}
