"""Recordings written down (WebVTT, SubRip) -> Document: turns as paragraphs, with speaker and time of every cue."""

from __future__ import annotations

import html
import io
import re

from yarnex.core.document import Document, Problem
from yarnex.core.errors import UnreadableError
from yarnex.core.patterns import pattern
from yarnex.core.reading.assemble import assemble
from yarnex.core.reading.inline import Inline, paragraph
from yarnex.core.reading.layout.paragraphs import Draft

TAG = pattern(r"<[^>]*>")
NAMED = pattern(r"(?:>>\s*)?([A-Z][\w.'’ -]{1,48}?):\s+(?=\S)")
PAUSE = 20.0  # seconds of silence after which unnamed speech begins a new paragraph
LONG = 900  # characters after which unnamed speech begins a new paragraph at a sentence's end


def read_transcript(data: bytes, path: str, sha256: str) -> Document:
    """The document in a caption file's bytes. Raises UnreadableError where no cue can be read."""
    from yarnex.core.reading.text import decode

    text, problem = decode(data, path)
    problems = [problem] if problem else []
    text = text.lstrip("\ufeff").replace("\r\n", "\n").replace("\r", "\n")
    captions = text.startswith("WEBVTT")
    import webvtt
    from webvtt.errors import MalformedCaptionError, MalformedFileError

    try:
        cues = list(
            (
                webvtt.WebVTT.from_buffer(io.StringIO(text))
                if captions
                else webvtt.WebVTT.from_buffer(io.StringIO(text), format="srt")
            ).captions
        )
    except (MalformedCaptionError, MalformedFileError, ValueError, AttributeError, TypeError, IndexError):
        cues = []
    if not cues:
        raise UnreadableError("no cue with times and words in it", where=path, do="export the captions again")
    marks = len(re.findall(r"^\s*[\d:.,]+\s+-->", text, re.MULTILINE))
    if marks > len(cues):
        problems.append(
            Problem(f"{marks - len(cues)} of {marks} cues are malformed or empty", do="export the captions again")
        )
    drafts: list[Draft] = [paragraph(note, kind="paragraph") for note in _notes(text)] if captions else []
    speaker = said = ""
    inline = Inline()
    last_end = 0.0
    for cue in cues:
        raw = html.unescape(TAG.sub("", cue.raw_text if captions else cue.text))
        words = " ".join(raw.split())
        if not words:
            continue
        voice = " ".join((cue.voice or "").split()) if captions else ""
        named = NAMED.match(words) if not voice else None
        if named and len(named[1].split()) <= 5:
            voice, words = named[1], words[named.end() :]
        who = voice or said
        start = _seconds(cue.start)
        turn = (voice and voice != speaker) or named or start - last_end > PAUSE
        if turn or (not said and inline.at > LONG and re.search(r"[.?!]\Z", _tail(inline))):
            _close(inline, drafts)
            inline = Inline()
        begin = inline.at
        if inline.empty and voice:
            inline.put(f"{voice}: ")
        inline.put(words + " ")
        inline.mark(begin, "time", f"{start:g}")
        if who:
            inline.mark(begin, "speaker", who)
        speaker = said = who
        last_end = _seconds(cue.end)
    _close(inline, drafts)
    return assemble(drafts, path=path, format="vtt" if captions else "srt", sha256=sha256, problems=problems)


def _tail(inline: Inline) -> str:
    return "".join(inline._letters[-3:]).strip()


def _close(inline: Inline, drafts: list[Draft]) -> None:
    draft = inline.draft()
    if draft is not None:
        drafts.append(draft)


def _seconds(clock: str) -> float:
    total = 0.0
    for part in clock.replace(",", ".").split(":"):
        total = 60 * total + float(part)
    return round(total, 3)


def _notes(text: str) -> list[str]:
    """Remarks that stand before the first cue: who speaks, what the recording is."""
    head = re.split(r"^\s*[\d:.]+\s+-->", text, maxsplit=1, flags=re.MULTILINE)[0]
    title = re.match(r"WEBVTT[ \t-]+(\S[^\n]*)", head)
    notes = [title[1]] if title else []
    notes += [m[1] for m in re.finditer(r"^NOTE[ \t]*\n?((?:.+\n?)+)", head, re.MULTILINE)]
    return [" ".join(n.split()) for n in notes if n.strip()]
