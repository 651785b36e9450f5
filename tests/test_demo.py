"""The demo documents: built from their sources, each of the length that it claims, in the folder that is asked for."""

from __future__ import annotations

import importlib.util
import sys
from pathlib import Path

import pytest

from yarnex.core.reading import read_document
from yarnex.demo import CLAIM, CONTRACTS, REPORTS, copy_documents

ROOT = Path(__file__).parent.parent


def tool(name: str):
    spec = importlib.util.spec_from_file_location(name, ROOT / "tools" / f"{name}.py")
    module = importlib.util.module_from_spec(spec)
    sys.modules[spec.name] = module  # dataclasses look their module up
    spec.loader.exec_module(module)
    return module


@pytest.fixture(scope="module")
def builder():
    return tool("build_demo")


def texts(folder: Path) -> dict[str, str]:
    return {path.name: read_document(path).text for path in sorted(folder.iterdir())}


def test_the_shipped_documents_are_those_that_the_sources_make(builder, tmp_path, monkeypatch):
    monkeypatch.setattr(builder, "TARGET", tmp_path / "built")
    builder.main()
    copy_documents(tmp_path / "shipped")
    copy_documents(tmp_path / "shipped", CONTRACTS)
    assert texts(tmp_path / "built") == texts(tmp_path / "shipped")


def test_the_shipped_reports_and_claim_are_those_that_the_sources_make(tmp_path, monkeypatch):
    builder = tool("build_demo_reports")
    (tmp_path / "built").mkdir()
    monkeypatch.setattr(builder, "TARGET", tmp_path / "built")
    builder.main()
    copy_documents(tmp_path / "shipped", REPORTS)
    copy_documents(tmp_path / "shipped", CLAIM)
    assert texts(tmp_path / "built") == texts(tmp_path / "shipped")
