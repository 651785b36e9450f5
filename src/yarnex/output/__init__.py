"""Results in, pages and files out: terminal, Markdown, HTML, CSV and JSON.

`report` turns a result into a neutral Report; each renderer turns a Report into one format. JSON is made from the
results themselves.
"""
