"""Patterns are made when first used: here all of them are, so that a mistake in one shows in the tests."""

from __future__ import annotations

import importlib
import pickle
import pkgutil
import re

import pytest
from hypothesis import given
from hypothesis import strategies as st

import yarnex.core
from yarnex.core import patterns
from yarnex.core.patterns import pattern


def test_stands_for_a_compiled_pattern() -> None:
    lazy = pattern(r"(?P<sum>\d+) (?:pounds|euros)", re.IGNORECASE)
    found = lazy.search("about 40 POUNDS or 50 euros")
    assert found is not None and found["sum"] == "40"
    assert [m["sum"] for m in lazy.finditer("1 pounds, 2 euros", 3)] == ["2"]
    assert lazy.pattern == r"(?P<sum>\d+) (?:pounds|euros)"
    assert lazy.flags & re.IGNORECASE and lazy.groups == 1
    assert lazy.sub("", "1 pounds") == ""


def test_can_be_sent_to_another_process() -> None:
    assert pickle.loads(pickle.dumps(pattern("a+"))).fullmatch("aaa")
    with pytest.raises(AttributeError):
        pattern("a").no_such_method  # noqa: B018


def modules() -> list[str]:
    return [m.name for m in pkgutil.walk_packages(yarnex.core.__path__, "yarnex.core.")]


@pytest.mark.parametrize("name", modules())
def test_every_pattern_of_a_module_can_be_made(name: str) -> None:
    module = importlib.import_module(name)
    for value in vars(module).values():
        for held in (
            value.values() if isinstance(value, dict) else value if isinstance(value, tuple | list) else [value]
        ):
            if type(held).__name__ == "_Pattern":
                assert held.groups >= 0


@pytest.fixture
def kept(tmp_path, monkeypatch):
    """A cache of its own, as at the start of a run; called, a later run begins."""
    monkeypatch.setenv("YARNEX_CACHE", str(tmp_path))

    def later() -> None:
        monkeypatch.setattr(patterns, "_codes", {})
        monkeypatch.setattr(patterns, "_state", {"recalled": False, "new": False})

    later()
    return later


HARD = [
    (r"(?P<a>\d+)\s*(?P<b>[a-zß]+)?(?(b)x|y)", re.IGNORECASE),
    (rb"\x00[\xff-]{2,5}", 0),
    (r"""  (?<!\w) [£$€]  # a sign
           (?: \d+ ) """, re.VERBOSE),
    (r"^(?s:.)+?\Z|(a)(?=b)|\1", re.MULTILINE | re.ASCII),
]  # fmt: skip


@pytest.mark.parametrize(("source", "flags"), HARD)
def test_a_kept_pattern_is_the_compiled_one(source, flags, kept):
    made = re.compile(source, flags)
    assert patterns.compiled_as_before(source, int(flags)) == made
    patterns.keep_patterns()
    kept()
    again = patterns.compiled_as_before(source, int(flags))
    assert not patterns._state["new"]
    assert again == made and again.groupindex == made.groupindex and again.groups == made.groups


@pytest.mark.filterwarnings("ignore::FutureWarning")
@given(st.text("ab()[]|*+?\\\\dw.^$-{}1,", max_size=12), st.text("ab1 -", max_size=12))
def test_any_source_matches_as_the_compiled_one_does_or_is_refused_as_it_is(source, text):
    try:
        made = re.compile(source)
    except re.error as error:
        with pytest.raises(re.error, match=re.escape(error.msg)):
            patterns.compiled_as_before(source, 0)
        return
    ours = patterns.compiled_as_before(source, 0)
    assert [m.span() for m in ours.finditer(text)] == [m.span() for m in made.finditer(text)]


def test_code_that_the_engine_does_not_take_is_passed_over(kept):
    patterns._state["recalled"] = True
    patterns._codes["a+", 0] = (0, [99, 99], 0, {}, ())
    assert patterns.compiled_as_before("a+", 0).fullmatch("aaa")
