"""Numbers as a person lists them."""

from __future__ import annotations

from collections.abc import Iterable


def ranges(numbers: Iterable[int]) -> str:
    """Page or row numbers as a person writes them.

    >>> ranges([1, 2, 3, 7])
    '1-3, 7'
    """
    runs: list[list[int]] = []
    for n in sorted(set(numbers)):
        if runs and n == runs[-1][-1] + 1:
            runs[-1].append(n)
        else:
            runs.append([n])
    return ", ".join(str(r[0]) if len(r) == 1 else f"{r[0]}-{r[-1]}" for r in runs)
