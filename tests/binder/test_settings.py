"""The settings of a binder: read, checked, and mistakes told with their file."""

from __future__ import annotations

from pathlib import Path

import pytest

from yarnex.core.binder import settings_of
from yarnex.core.errors import YarnexError
from yarnex.core.reading import find_files


def test_without_a_file_the_usual_ones_hold(tmp_path):
    assert settings_of(tmp_path).model is None
    (tmp_path / "yarnex.toml").write_text("")
    assert settings_of(tmp_path).pooling == "mean"


@pytest.mark.parametrize("named", ["models/small", "/opt/models/small"])
def test_the_model_is_named_from_where_the_file_stands(tmp_path, named):
    (tmp_path / "yarnex.toml").write_text(f'[find]\nmodel = "{named}"\npooling = "first"\n')
    (tmp_path / "leases").mkdir()
    told = settings_of(tmp_path / "leases")
    assert told.model == (Path(named) if named.startswith("/") else tmp_path / named)
    assert told.pooling == "first"


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("[find\n", r"yarnex\.toml: not TOML .*line 1"),
        ("[search]\n", "unknown setting 'search'"),
        ("model = 'x'\n", "unknown setting 'model'"),
        ("[find]\nmodell = 'x'\n", r"unknown setting 'modell' in \[find\]; known are \[find\] model"),
        ("[find]\nmodel = 3\n", "model: 3 is no text"),
        ("[find]\npooling = 'max'\n", "pooling: 'max' is unknown; write one of mean, first"),
    ],
)
def test_mistakes_are_told(tmp_path, text, said):
    (tmp_path / "yarnex.toml").write_text(text)
    with pytest.raises(YarnexError, match=said):
        settings_of(tmp_path)


def test_a_file_that_is_no_text_is_told(tmp_path):
    (tmp_path / "yarnex.toml").write_bytes(b"\xff\xfe\x00")
    with pytest.raises(YarnexError, match="cannot be read"):
        settings_of(tmp_path)


def test_the_file_is_no_document(tmp_path):
    (tmp_path / "yarnex.toml").write_text("")
    (tmp_path / "lease.txt").write_text("LEASE")
    assert find_files([tmp_path]) == ([(tmp_path / "lease.txt").as_posix()], [])
