package filter

import "tincup/internal/core/question"

// Filter is a question that can be answered, said and checked. The zero Filter holds
// everything.
type Filter struct{ question.Tree }

// Parse reads the JSON form of a question. Errors are *question.ParseError.
func Parse(data []byte) (Filter, error) {
	tree, err := question.Parse(data)
	return Filter{tree}, err
}

// Must is Parse for filters that are known to be right; it panics on others.
func Must(text string) Filter {
	f, err := Parse([]byte(text))
	if err != nil {
		panic("filter: " + err.Error())
	}
	return f
}

// All is a filter that holds where every one of some does.
func All(filters ...Filter) Filter { return Filter{question.All(trees(filters)...)} }

// Any is a filter that holds where one of some does, each of which asks something.
func Any(filters ...Filter) Filter { return Filter{question.Any(trees(filters)...)} }

func trees(filters []Filter) []question.Tree {
	trees := make([]question.Tree, len(filters))
	for i, f := range filters {
		trees[i] = f.Tree
	}
	return trees
}
