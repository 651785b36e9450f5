"""Patterns are made when first used: here all of them are, so that a mistake in one shows in the tests."""

from __future__ import annotations

import importlib
import pickle
import pkgutil
import re

import pytest

import yarnex.core
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
