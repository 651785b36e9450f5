"""Packages that load their heavy parts only when these are first asked for."""

from __future__ import annotations

import subprocess
import sys

import pytest


@pytest.mark.parametrize(
    ("package", "light", "heavy"),
    [
        ("yarnex.core.figures", "Figure", "figures_of"),
        ("yarnex.core.costs", "Bill", "costs_of"),
        ("yarnex.core.dates", "DatedItem", "dates_of"),
        ("yarnex.core.search", "Inquiry", "roster"),
    ],
)
def test_all_names_can_be_had(package, light, heavy):
    from importlib import import_module

    module = import_module(package)
    assert {light, heavy} <= set(module.__all__)
    assert all(getattr(module, name) is not None for name in module.__all__)
    with pytest.raises(AttributeError):
        _ = module.no_such_name


@pytest.mark.parametrize(
    ("module", "absent"),
    [
        ("yarnex.cli.main", ["yarnex.core.search.answers", "yarnex.core.figures.gather", "pint", "numpy", "openpyxl"]),
        (
            "yarnex.core.search",
            ["yarnex.core.figures.gather", "yarnex.core.costs.gather", "yarnex.core.dates.gather", "pint", "numpy"],
        ),
    ],
)
def test_what_is_not_needed_is_not_loaded(module, absent):
    code = f"import {module}, sys; print([m for m in {absent!r} if m in sys.modules])"
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True, timeout=60)
    assert done.stdout.strip() == "[]"
