"""Real files of each format, damaged by the thousand: no traceback, no hang, no lost neighbour.

    python bench/fuzz.py [--count 2000] [--seed 1] [--scans] [FILE ...]

Without files the demo documents and small files made on the spot (one of each format) are damaged. Every damaged file
is read together with a sound one, in processes as the program does it. A reader's own fault, a process that broke
down, a file not read in time and a sound file lost count as failures; a file said to be unreadable does not.
Damage: bytes changed, cut out, doubled, cut short, set to the ends of their range; in packages also inside the parts.
Exit code 1 where there were failures; the files that caused them are kept in the folder that is named.
"""

from __future__ import annotations

import argparse
import io
import random
import sys
import tempfile
import time
import zipfile
from collections import Counter
from importlib.resources import files
from pathlib import Path

sys.path.insert(0, str(Path(__file__).resolve().parents[1]))

from tests.samples import SAMPLES

from yarnex.core.reading import ReadOptions
from yarnex.core.reading.pool import read_many

INTERESTING = (0, 1, 0x7F, 0x80, 0xFF)
PACKAGES = (".docx", ".xlsx", ".pptx", ".odt", ".ods", ".odp", ".epub", ".zip")
STALL = 60.0


def damage(data: bytes, chance: random.Random) -> bytes:
    """The bytes with one to a dozen faults."""
    out = bytearray(data)
    for _ in range(chance.choice((1, 1, 2, 3, 6, 12))):
        if not out:
            break
        at = chance.randrange(len(out))
        length = min(len(out) - at, chance.choice((1, 1, 4, 16, 256)))
        kind = chance.randrange(7)
        if kind == 0:
            out[at] = chance.randrange(256)
        elif kind == 1:
            out[at] = chance.choice(INTERESTING)
        elif kind == 2:
            del out[at : at + length]
        elif kind == 3:
            out[at:at] = out[at : at + length]
        elif kind == 4:
            out = out[: max(1, at)]
        elif kind == 5:
            other = chance.randrange(len(out))
            out[at : at + length] = out[other : other + length]
        else:
            out[at : at + length] = bytes(chance.randrange(256) for _ in range(length))
    return bytes(out)


def damage_inside(data: bytes, chance: random.Random) -> bytes:
    """A package with a damaged part, packed again soundly."""
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as old:
            parts = {i.filename: old.read(i) for i in old.infolist()}
    except (zipfile.BadZipFile, OSError):
        return damage(data, chance)
    name = chance.choice(sorted(parts))
    parts[name] = damage(parts[name], chance)
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as new:
        for part, content in parts.items():
            new.writestr(part, content)
    return out.getvalue()


def main() -> int:
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("--count", type=int, default=2000)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--scans", action="store_true", help="recognise pictures of text too (slow)")
    parser.add_argument("files", nargs="*", type=Path)
    given = parser.parse_args()
    chance = random.Random(given.seed)
    sources = {p.name: p.read_bytes() for p in given.files}
    if not sources:
        sources = {name: make() for name, make in SAMPLES.items()}
        sources |= {
            f.name: f.read_bytes() for f in (files("yarnex.demo") / "documents").iterdir() if not f.name.startswith("_")
        }
    folder = Path(tempfile.mkdtemp(prefix="yarnex-fuzz-"))
    (folder / "sound.txt").write_text("LEASE\n\nThis file is sound.\n")
    names = sorted(sources)
    paths = []
    for number in range(given.count):
        name = names[number % len(names)]
        inside = name.endswith(PACKAGES) and chance.random() < 0.6
        path = folder / f"{number:06d}-{name}"
        path.write_bytes((damage_inside if inside else damage)(sources[name], chance))
        paths.append(path.as_posix())
        if number % 50 == 49:
            paths.append((folder / "sound.txt").as_posix())
    outcomes: Counter[str] = Counter()
    bad: list[tuple[str, str]] = []
    began = time.perf_counter()
    options = ReadOptions(scans="recognise" if given.scans else "skip")
    for path, readings, _ in read_many(paths, options, stall=STALL, limit=STALL):
        fault = next(
            (
                r.error.what
                for r in readings
                if r.error and ("reader" in r.error.what or "not read within" in r.error.what)
            ),
            "",
        )
        if fault or (path.endswith("sound.txt") and readings[0].document is None):
            bad.append((path, fault or "a sound file was lost"))
            outcomes["failed"] += 1
        else:
            outcomes["read" if readings[0].document is not None else "said to be unreadable"] += 1
            if not path.endswith("sound.txt"):
                Path(path).unlink()
    print(
        f"{len(paths)} files in {time.perf_counter() - began:.0f} s: {', '.join(f'{n} {o}' for o, n in sorted(outcomes.items()))}"
    )
    for path, fault in bad:
        print(f"{path}: {fault}")
    return 1 if bad else 0


if __name__ == "__main__":
    sys.exit(main())
