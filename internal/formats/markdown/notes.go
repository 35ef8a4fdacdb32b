package markdown

import (
	"strings"

	"github.com/yuin/goldmark/ast"
)

// notes is what stands under an item besides subtasks, as it is written there: of quotations what is
// quoted.
func (r *reader) notes(item ast.Node, under []ast.Node) string {
	var parts []string
	for n, node := range under {
		if r.below(node) {
			continue
		}
		from := r.line(node.Pos())
		to := r.after(item)
		if n+1 < len(under) {
			to = r.line(under[n+1].Pos())
		}
		if fenced, is := node.(*ast.FencedCodeBlock); is && fenced.Info == nil && fenced.Lines().Len() > 0 {
			from = min(from, r.line(fenced.Lines().At(0).Start)-1)
		}
		first := r.source[r.begin(from):]
		indent := len(first) - len(strings.TrimLeft(string(first), " \t"))
		_, quoted := node.(*ast.Blockquote)
		var lines []string
		for n := from; n < to; n++ {
			line := r.text(n)
			if quoted {
				inside, is := strings.CutPrefix(strings.TrimLeft(line, " \t"), ">")
				if !is {
					if strings.TrimSpace(line) == "" {
						break
					}
					inside = line // of a paragraph that goes on without the mark
				}
				lines = append(lines, strings.TrimPrefix(inside, " "))
				continue
			}
			lines = append(lines, line[min(indent, len(line)-len(strings.TrimLeft(line, " \t"))):])
		}
		part := strings.Join(lines, "\n")
		if !quoted {
			part = strings.TrimRight(part, " \t\n")
		}
		parts = append(parts, part)
	}
	return strings.Join(parts, "\n\n")
}

// text is a line of the source.
func (r *reader) text(line int) string {
	end := len(r.source)
	if line-1 < len(r.ends) {
		end = r.ends[line-1]
	}
	return string(r.source[r.begin(line):end])
}

// after is the line at which what comes after a node begins.
func (r *reader) after(node ast.Node) int {
	for ; node != nil; node = node.Parent() {
		if next := node.NextSibling(); next != nil {
			return r.line(next.Pos())
		}
	}
	return len(r.ends) + 2
}
