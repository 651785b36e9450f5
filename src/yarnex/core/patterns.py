"""Regular expressions that are compiled when first used: a run needs a small part of the hundreds that the modules hold."""

from __future__ import annotations

import re
from typing import Any, AnyStr, cast

METHODS = (
    "search",
    "match",
    "fullmatch",
    "finditer",
    "findall",
    "sub",
    "subn",
    "split",
    "groups",
    "groupindex",
    "flags",
)


class _Pattern:
    """Stands for a compiled pattern; its methods are those of the compiled one from the first call on."""

    def __init__(self, source: str | bytes, flags: int) -> None:
        self.pattern = source
        self._flags = flags

    def __getattr__(self, name: str) -> Any:
        if name not in METHODS:
            raise AttributeError(name)
        compiled = re.compile(self.pattern, self._flags)
        self.__dict__.update({method: getattr(compiled, method) for method in METHODS})
        return self.__dict__[name]

    def __repr__(self) -> str:
        return f"pattern({self.pattern!r}, {self._flags!r})"


def pattern(source: AnyStr, flags: int = 0) -> re.Pattern[AnyStr]:
    """What `re.compile` gives, made when first used. A mistake in it shows then: a test uses them all."""
    return cast("re.Pattern[AnyStr]", _Pattern(source, flags))
