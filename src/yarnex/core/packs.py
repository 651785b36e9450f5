"""YAML packs (sheets, rulebooks, vocabularies): loaded with the line of every entry, and checked against a shape.

In: a file. Out: plain dicts, lists and strings; mappings carry their line. Every fault is reported, not only the first.
"""

from __future__ import annotations

from dataclasses import dataclass
from importlib.resources import files
from pathlib import Path
from typing import TYPE_CHECKING, Any

from yarnex.core.errors import PackError

if TYPE_CHECKING:
    from yaml import Node


class Entry(dict[str, Any]):
    """A mapping of a pack and the line on which it begins."""

    line: int = 0


@dataclass(frozen=True, slots=True)
class Field:
    """What a key may hold. kind: "text", "texts" (one or a list), "flag", "number", "entries" or "any"."""

    kind: str
    required: bool = False
    one_of: tuple[str, ...] = ()


def pack_text(folder: str, name: str) -> tuple[str, str]:
    """The text of a pack that ships with the tool, or of a file that the user named; and its name for messages.

    Raises PackError where there is neither.
    """
    shipped = files("yarnex") / "packs" / folder / f"{name}.yaml"
    if "/" not in name and not name.endswith((".yaml", ".yml")) and shipped.is_file():
        return shipped.read_text("utf-8"), f"{name}.yaml"
    path = Path(name)
    try:
        return path.read_text("utf-8"), path.as_posix()
    except (OSError, UnicodeDecodeError) as error:
        known = ", ".join(sorted(p.name.removesuffix(".yaml") for p in (files("yarnex") / "packs" / folder).iterdir()))
        why = "no such file" if isinstance(error, FileNotFoundError) else f"cannot be read ({error})"
        raise PackError(why, where=name, do=f"name a file or one of: {known}") from None


def load_entries(text: str, name: str) -> Entry:
    """A pack's mapping. Raises PackError for YAML that does not parse and for scalars that YAML turned into no text."""
    import yaml

    try:
        node = yaml.compose(text, Loader=getattr(yaml, "CSafeLoader", yaml.SafeLoader))
    except yaml.YAMLError as error:
        mark = getattr(error, "problem_mark", None)
        where = f"{name}, line {mark.line + 1}" if mark else name
        raise PackError(
            f"not YAML ({getattr(error, 'problem', None) or error})", where=where, do="mend that line"
        ) from None
    faults: list[str] = []
    made = _plain(node, name, faults) if node is not None else None
    if faults:
        raise PackError("\n".join(faults))
    if not isinstance(made, Entry):
        raise PackError("must be a mapping with keys", where=name)
    return made


def _plain(node: Node, name: str, faults: list[str]) -> Any:
    from yaml import MappingNode, SequenceNode

    at = f"{name}, line {node.start_mark.line + 1}"
    if isinstance(node, MappingNode):
        out = Entry()
        out.line = node.start_mark.line + 1
        for key_node, value_node in node.value:
            key = str(key_node.value)
            if key in out:
                faults.append(f"{name}, line {key_node.start_mark.line + 1}: {key!r} stands twice")
            out[key] = _plain(value_node, name, faults)
        return out
    if isinstance(node, SequenceNode):
        return [_plain(item, name, faults) for item in node.value]
    tag = node.tag.rsplit(":", 1)[-1]
    if tag == "str":
        return str(node.value)
    if tag == "bool" and str(node.value) in ("true", "false"):
        return node.value == "true"
    if tag == "int" and str(node.value).isdigit():
        return int(str(node.value))
    faults.append(f"{at}: {node.value!r} would be read as a {tag}, not as text; put it in quotes")
    return None


def check_keys(entry: Any, shape: dict[str, Field], where: str, faults: list[str]) -> None:
    """Add a fault for each key that is unknown, missing or of the wrong kind."""
    if not isinstance(entry, Entry):
        faults.append(f"{where}: must be a mapping with keys {', '.join(shape)}")
        return
    at = f"{where}, line {entry.line}"
    for key in entry:
        if key not in shape:
            faults.append(f"{at}: unknown key {key!r}; known are {', '.join(shape)}")
    for key, field in shape.items():
        if key not in entry:
            if field.required:
                faults.append(f"{at}: missing key {key!r}")
            continue
        value = entry[key]
        fits = {
            "text": isinstance(value, str),
            "texts": isinstance(value, str) or (isinstance(value, list) and all(isinstance(v, str) for v in value)),
            "flag": isinstance(value, bool),
            "number": isinstance(value, int) and not isinstance(value, bool),
            "entries": isinstance(value, list),
            "any": True,
        }[field.kind]
        if not fits:
            wanted = {"texts": "text or a list of texts", "flag": "true or false", "entries": "a list"}.get(
                field.kind, f"a {field.kind}"
            )
            faults.append(f"{at}, {key}: {value!r} is not {wanted}")
        elif field.one_of and value not in field.one_of:
            faults.append(f"{at}, {key}: {value!r} is none of {', '.join(field.one_of)}")


def texts(entry: Entry, key: str) -> tuple[str, ...]:
    """The value of a "texts" key as a tuple; empty where the key is missing."""
    value = entry.get(key, [])
    return (value,) if isinstance(value, str) else tuple(value)
