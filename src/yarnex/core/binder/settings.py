"""The settings of a binder: `yarnex.toml`, written by its owner.

    [find]
    model = "models/general"  # a folder with model.onnx and tokenizer.json, beside this file or anywhere on the machine
    pooling = "mean"          # or "first": how the vectors of its words become that of a sentence

In: a folder. Out: the settings of the binder around it, each checked. All of them may be left out.
"""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path
from typing import Any

from yarnex.core.binder.store import binder_of
from yarnex.core.errors import YarnexError
from yarnex.core.reading.files import SETTINGS

KNOWN = {"find": ("model", "pooling")}
POOLINGS = ("mean", "first")


@dataclass(frozen=True, slots=True)
class Settings:
    """model: the folder of a sentence-embedding model, None where none is named. pooling: "mean" or "first"."""

    model: Path | None = None
    pooling: str = "mean"


def settings_of(folder: Path) -> Settings:
    """The settings of the binder around a folder; the usual ones where it has no file.

    Raises YarnexError with the file, and the line where the fault has one.
    """
    binder = binder_of(folder)
    file = binder / SETTINGS if binder is not None else None
    if file is None or not file.is_file():
        return Settings()
    import tomllib

    where = file.as_posix()
    try:
        told = tomllib.loads(file.read_text("utf-8"))
    except tomllib.TOMLDecodeError as error:
        raise YarnexError(f"not TOML ({error})", where=where, do="mend that line") from None
    except (OSError, UnicodeDecodeError) as error:
        raise YarnexError(f"cannot be read ({error})", where=where, do="write it as text, in UTF-8") from None
    return _checked(told, file)


def _checked(told: dict[str, Any], file: Path) -> Settings:
    where = file.as_posix()
    for table, keys in told.items():
        if table not in KNOWN or not isinstance(keys, dict):
            raise YarnexError(f"unknown setting {table!r}", where=where, do=f"known are {_known()}")
        for key, value in keys.items():
            if key not in KNOWN[table]:
                raise YarnexError(f"unknown setting {key!r} in [{table}]", where=where, do=f"known are {_known()}")
            if not isinstance(value, str) or not value.strip():
                raise YarnexError(f"{key}: {value!r} is no text", where=where, do=f'write {key} = "…"')
    find = told.get("find", {})
    pooling = find.get("pooling", "mean")
    if pooling not in POOLINGS:
        raise YarnexError(f"pooling: {pooling!r} is unknown", where=where, do=f"write one of {', '.join(POOLINGS)}")
    return Settings(file.parent / Path(find["model"]).expanduser() if "model" in find else None, pooling)


def _known() -> str:
    return ", ".join(f"[{table}] {key}" for table, keys in KNOWN.items() for key in keys)
