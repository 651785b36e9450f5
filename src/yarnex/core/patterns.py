"""Regular expressions that are compiled when first used: a run needs a small part of the hundreds that the modules hold."""

from __future__ import annotations

import re
from typing import Any, AnyStr, cast

from yarnex.core.prepared import keep, recalled

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
        compiled = compiled_as_before(self.pattern, int(self._flags))
        self.__dict__.update({method: getattr(compiled, method) for method in METHODS})
        return self.__dict__[name]

    def __repr__(self) -> str:
        return f"pattern({self.pattern!r}, {self._flags!r})"


def pattern(source: AnyStr, flags: int = 0) -> re.Pattern[AnyStr]:
    """What `re.compile` gives, made when first used. A mistake in it shows then: a test uses them all."""
    return cast("re.Pattern[AnyStr]", _Pattern(source, flags))


KEPT = "patterns"
_codes: dict[tuple[str | bytes, int], tuple[Any, ...]] = {}
_state = {"recalled": False, "new": False}


def compiled_as_before(source: str | bytes, flags: int) -> re.Pattern[Any]:
    """What `re.compile` gives, from the code that an earlier run made for the engine: making it is a good part of a short run.

    The code is that of this version of Python; where its engine is given its code in another way, `re.compile` is used.
    """
    if not _state["recalled"]:
        _state["recalled"] = True
        _codes.update(recalled(KEPT) or {})
    try:
        import _sre  # type: ignore[import-not-found]

        known = _codes.get((source, flags))
        if known is None:
            known = _codes[source, flags] = _code_of(source, flags)
            _state["new"] = True
        return cast("re.Pattern[Any]", _sre.compile(source, *known))
    except (ImportError, AttributeError, TypeError, ValueError, RuntimeError):
        return re.compile(source, flags)


def keep_patterns() -> None:
    """Keep the code of what this run has compiled, for the next."""
    if _state["new"]:
        keep(KEPT, (recalled(KEPT) or {}) | _codes)
        _state["new"] = False


def _code_of(source: str | bytes, flags: int) -> tuple[Any, ...]:
    """What the engine is given beside the source: flags, code, number of groups, their places by name and names by place."""
    from re import _compiler, _parser  # type: ignore[attr-defined]

    parsed = _parser.parse(source, flags)
    places = dict(parsed.state.groupdict)
    names: list[str | None] = [None] * parsed.state.groups
    for name, place in places.items():
        names[place] = name
    whole = int(flags | parsed.state.flags)
    code = [int(c) for c in _compiler._code(parsed, flags)]
    return whole, code, parsed.state.groups - 1, places, tuple(names)
