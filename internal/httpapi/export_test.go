package httpapi

// AppendRow and EncodeRow write the same row, one as bytes at once.
var (
	AppendRow = appendRow
	EncodeRow = encodeRow
)
