"""A one-line diagram: what it shows, its symbols, its lay-out on paper."""
