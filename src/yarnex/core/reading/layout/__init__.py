"""From marks on a page to ordered blocks of text: words, lines, columns, tables, furniture, paragraphs, linear text.

In: the words, drawn rules and bars of each page, in points from the page's top left. Out: the pieces of a
`Document`. Pure functions of their arguments; files are opened elsewhere.
"""
