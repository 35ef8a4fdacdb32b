package markdown

import (
	"bytes"
	"fmt"
	"regexp"
	"slices"
	"sort"
	"strings"
	"unicode"

	"github.com/yuin/goldmark"
	"github.com/yuin/goldmark/ast"
	"github.com/yuin/goldmark/extension"
	extast "github.com/yuin/goldmark/extension/ast"
	"github.com/yuin/goldmark/text"
	"github.com/yuin/goldmark/util"

	"tincup/internal/core/book"
	"tincup/internal/core/capture"
	"tincup/internal/core/exchange"
	"tincup/internal/formats/plaintext"
)

// parser knows what task lists need of GitHub Flavored Markdown.
var parser = goldmark.New(goldmark.WithExtensions(extension.TaskList, extension.Strikethrough)).Parser()

// Read implements exchange.Codec.
func (Format) Read(file []byte, world exchange.World) ([]exchange.Item, []exchange.Refusal, error) {
	source, err := plaintext.Decode(file)
	if err != nil {
		return nil, nil, err
	}
	source = bytes.Map(printable, bytes.ReplaceAll(source, []byte("\r\n"), []byte("\n")))
	if at := tooDeep.FindIndex(source); at != nil {
		return nil, nil, &exchange.Error{Line: 1 + bytes.Count(source[:at[0]], []byte("\n")), Column: 1,
			Reason: fmt.Sprintf("The line is indented by %d characters or more: deeper than to-dos can stand. Indent by two for each level.", maxIndent)}
	}
	r := reader{source: source, env: world.Sentences, instead: world.Instead}
	document := parser.Parse(text.NewReader(unquoted(source)))
	for at, b := range source {
		if b == '\n' {
			r.ends = append(r.ends, at)
		}
	}
	r.look(document)
	section := ""
	for node := document.FirstChild(); node != nil; node = node.NextSibling() {
		switch node := node.(type) {
		case *ast.Heading:
			section = strings.TrimSpace(r.inline(node).sentence)
		case *ast.ThematicBreak:
			section = ""
		case *ast.List:
			r.list(node, -1, section)
		case *ast.HTMLBlock: // a legend, or a remark of the file's own
		default:
			r.leaveOut(node, "This is no item of a task list.")
		}
	}
	return r.items, r.refused, nil
}

// printable puts spaces in the place of what no line can hold.
func printable(r rune) rune {
	if r != '\n' && r != '\t' && (unicode.IsControl(r) || r == '\u2028' || r == '\u2029' || r == unicode.ReplacementChar) {
		return ' '
	}
	return r
}

// maxIndent is how far a line is indented at most: what is deeper no list can hold, and takes the
// parser time by its cube.
const maxIndent = 400

var tooDeep = regexp.MustCompile(fmt.Sprintf(`(?m)^[ \t]{%d}`, maxIndent))

// quotations are lines that are quoted.
var quotations = regexp.MustCompile(`(?m)^[ \t]*>.+$`)

// unquoted is a source of the same length in which nothing that is quoted means anything: notes are
// taken as they stand, whatever they hold.
func unquoted(source []byte) []byte {
	return quotations.ReplaceAllFunc(source, func(line []byte) []byte {
		mark := bytes.IndexByte(line, '>') + 1
		return append(slices.Clone(line[:mark]), bytes.Repeat([]byte("x"), len(line)-mark)...)
	})
}

type reader struct {
	source []byte
	// ends are where lines end.
	ends []int
	env  capture.Env
	// instead are sentences that are read in the place of others, by their lines.
	instead map[int]string
	// boxes: some item has a box.
	boxes   bool
	items   []exchange.Item
	refused []exchange.Refusal
}

// look reads the legend, and looks whether there are boxes.
func (r *reader) look(document ast.Node) {
	_ = ast.Walk(document, func(node ast.Node, entering bool) (ast.WalkStatus, error) {
		switch node := node.(type) {
		case *extast.TaskCheckBox:
			r.boxes = true
		case *ast.HTMLBlock:
			if entering && node.Parent() == document {
				for line := range bytes.Lines(node.Lines().Value(r.source)) {
					kind, is, _ := strings.Cut(string(line), ":")
					learn(&r.env.Names, strings.TrimSpace(kind), held(strings.TrimSpace(is)))
				}
			}
		}
		return ast.WalkContinue, nil
	}) // it fails where the function does
}

// line is the line of an offset in the source, from 1.
func (r *reader) line(at int) int { return 1 + sort.SearchInts(r.ends, at) }

func (r *reader) begin(line int) int {
	if line <= 1 {
		return 0
	}
	return r.ends[line-2] + 1
}

func (r *reader) leaveOut(node ast.Node, reason string) {
	line := r.line(node.Pos())
	words, _, _ := bytes.Cut(r.source[r.begin(line):], []byte("\n"))
	r.refused = append(r.refused, exchange.Refusal{
		Error: exchange.Error{Line: line, Column: 1, Reason: reason},
		Title: string([]rune(string(words))[:min(80, len([]rune(string(words))))]),
	})
}

// tasks reports whether a node is a list that has a box, in it or below.
func (r *reader) tasks(node ast.Node) bool {
	list, is := node.(*ast.List)
	if !is {
		return false
	}
	for item := list.FirstChild(); item != nil; item = item.NextSibling() {
		if _, has := box(item); has {
			return true
		}
		for below := item.FirstChild(); below != nil; below = below.NextSibling() {
			if r.tasks(below) {
				return true
			}
		}
	}
	return false
}

// box is the box of an item.
func box(item ast.Node) (*extast.TaskCheckBox, bool) {
	if first := item.FirstChild(); first != nil {
		b, is := first.FirstChild().(*extast.TaskCheckBox)
		return b, is
	}
	return nil, false
}

// list reads the items of a list, under an item.
func (r *reader) list(list *ast.List, under int, section string) {
	for node := list.FirstChild(); node != nil; node = node.NextSibling() {
		checked, has := box(node)
		words := inlined{}
		if first := node.FirstChild(); first != nil && (first.Kind() == ast.KindTextBlock || first.Kind() == ast.KindParagraph) {
			words = r.inline(first)
		}
		note := strings.HasPrefix(words.sentence, "note:")
		if r.boxes && !has && !note && !slices.ContainsFunc(children(node), r.tasks) {
			r.leaveOut(node, "There is no box in front, as in “- [ ] Order mount board”.")
			continue
		}
		if strings.TrimSpace(words.sentence) == "" {
			r.leaveOut(node, "There is nothing to do in it.")
			continue
		}
		at := len(r.items)
		line := r.line(node.Pos())
		if said, ok := r.instead[line]; ok {
			words.sentence = exchange.OneLine(said)
		}
		item := r.sentence(words)
		if line > 0 {
			item.Line, item.Column = line, node.Pos()-r.begin(line)+1
		}
		item.Under = under
		if item.Section = section; under >= 0 {
			item.List, item.Section = r.items[under].List, r.items[under].Section
		}
		if has && checked.IsChecked && item.Todo.Status.Open() {
			item.Todo.Status = book.Completed
		}
		r.items = append(r.items, item)
		rest := children(node)[1:]
		r.items[at].Notes = joined(item.Notes, words.rest, r.notes(node, rest))
		for _, below := range rest {
			if sub, is := below.(*ast.List); is && r.below(below) {
				r.items[at].Todo.InOrder = r.items[at].Todo.InOrder || sub.IsOrdered()
				r.list(sub, at, section)
			}
		}
	}
}

// below reports whether a node under an item has its subtasks.
func (r *reader) below(node ast.Node) bool {
	_, is := node.(*ast.List)
	return is && (!r.boxes || r.tasks(node) || r.noted(node))
}

// noted reports whether a list has a note.
func (r *reader) noted(list ast.Node) bool {
	return slices.ContainsFunc(children(list), func(item ast.Node) bool {
		first := item.FirstChild()
		return first != nil && strings.HasPrefix(r.inline(first).sentence, "note:")
	})
}

func children(node ast.Node) (all []ast.Node) {
	for child := node.FirstChild(); child != nil; child = child.NextSibling() {
		all = append(all, child)
	}
	return all
}

func joined(parts ...string) string {
	return strings.Join(slices.DeleteFunc(parts, func(s string) bool { return s == "" }), "\n\n")
}

// sentence reads what an item says.
func (r *reader) sentence(words inlined) exchange.Item {
	d := capture.Read(words.sentence, r.env)
	item, remark := itemOf(&d), ""
	if len(d.Problems) > 0 {
		remark = d.Problems[0].Reason
	} else {
		item, remark = with(item, words.comments)
	}
	if remark != "" { // nothing of it is lost
		item = itemOf(&capture.Draft{Title: words.sentence})
		item.Remarks = append(item.Remarks, remark+" The line stays as it is written.")
	}
	if item.Todo.Source.Link == "" {
		item.Todo.Source.Link = words.link
	}
	if len(words.comments) == 0 {
		item.Sentence = words.sentence
	}
	return item
}

// inlined is what stands in a line and behind it in its paragraph.
type inlined struct {
	sentence, rest string
	// link is where the first link leads.
	link     string
	comments map[string]string
}

// inline reads a paragraph: its text without markup.
func (r *reader) inline(block ast.Node) inlined {
	var words inlined
	var first, rest strings.Builder
	out := &first
	var take func(node ast.Node)
	take = func(node ast.Node) {
		switch node := node.(type) {
		case *ast.Text:
			out.Write(plain(node.Value(r.source)))
			if node.SoftLineBreak() || node.HardLineBreak() {
				if out == &rest {
					out.WriteByte('\n')
				}
				out = &rest
			}
			return
		case *ast.String:
			out.Write(node.Value)
		case *ast.AutoLink:
			out.Write(node.Label(r.source))
		case *ast.Link:
			if words.link == "" {
				words.link = string(node.Destination)
			}
		case *ast.RawHTML:
			html := string(node.Segments.Value(r.source))
			name, value, ok := name(html)
			if _, known := told[name]; ok && known {
				if words.comments == nil {
					words.comments = map[string]string{}
				}
				words.comments[name] = value
			} else {
				out.WriteString(html)
			}
		case *ast.CodeSpan:
			for part := node.FirstChild(); part != nil; part = part.NextSibling() {
				if t, is := part.(*ast.Text); is {
					out.Write(t.Value(r.source))
				}
			}
			return
		}
		for part := node.FirstChild(); part != nil; part = part.NextSibling() {
			take(part)
		}
	}
	take(block)
	words.sentence, words.rest = exchange.OneLine(strings.Map(printable, first.String())), rest.String()
	return words
}

// plain takes away backslashes before punctuation, and reads entities.
func plain(s []byte) []byte {
	var out []byte
	for len(s) > 0 {
		cut := bytes.IndexByte(s, '\\')
		if cut < 0 || cut+1 >= len(s) {
			return append(out, entities(s)...)
		}
		out = append(out, entities(s[:cut])...)
		if util.IsPunct(s[cut+1]) {
			out = append(out, s[cut+1])
			s = s[cut+2:]
			continue
		}
		out = append(out, '\\')
		s = s[cut+1:]
	}
	return out
}

func entities(s []byte) []byte { return util.ResolveEntityNames(util.ResolveNumericReferences(s)) }
