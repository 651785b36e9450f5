"""Many files -> their readings, in the order given, each read in a process of its own kind that can be ended.

A file that hangs, eats the memory or brings a library down is said to be unreadable; its process is replaced and
the others go on. Bounds: MEMORY a process, STALL seconds without a sign of work, LIMIT seconds in all.
"""

from __future__ import annotations

import multiprocessing
import os
import signal
import sys
import time
import warnings
from collections import deque
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from multiprocessing.connection import Connection, wait
from pathlib import Path
from typing import Any

from yarnex.core.errors import UnreadableError, YarnexError
from yarnex.core.reading.files import ReadOptions, read_file
from yarnex.core.reading.outcome import Reading
from yarnex.core.reading.packing import pack, unpack
from yarnex.core.side_by_side import processors

MEMORY = 6_000_000_000  # bytes of address space of one reading process, where the system can bound it
STALL = 180.0
LIMIT = 3_600.0
AHEAD = 64  # results that may wait for their turn

Told = Callable[[str, int, int], None]


@dataclass(slots=True)
class _Worker:
    process: Any
    pipe: Connection
    place: int = -1  # which file it reads; -1: idle
    began: float = 0.0
    heard: float = 0.0


def read_many(
    paths: Sequence[str],
    options: ReadOptions,
    *,
    processes: int = 0,
    told: Told | None = None,
    stall: float = STALL,
    limit: float = LIMIT,
) -> Iterator[tuple[str, list[Reading], bytes]]:
    """For each path, in order: the path, its readings, and the same as bytes to keep (b"" for a failure not to keep).

    told: called with a path, the page just read and the number of pages.
    """
    if not paths:
        return
    count = min(processes or processors(), len(paths))
    options = replace(options, threads=max(1, processors() // count), progress=None)
    context = multiprocessing.get_context("fork" if sys.platform == "linux" else "spawn")
    workers = [_start(context, options) for _ in range(count)]
    waiting = deque(range(len(paths)))
    done: dict[int, bytes | UnreadableError | YarnexError] = {}
    turn = 0
    try:
        while turn < len(paths):
            for worker in workers:
                if worker.place < 0 and waiting and waiting[0] < turn + AHEAD:
                    worker.place = waiting.popleft()
                    worker.began = worker.heard = time.monotonic()
                    worker.pipe.send(paths[worker.place])
            while turn in done:
                yield _result(paths[turn], done.pop(turn))
                turn += 1
            busy = [w for w in workers if w.place >= 0]
            if not busy:
                continue
            ready = wait([w.pipe for w in busy], timeout=0.5)
            now = time.monotonic()
            for i, worker in enumerate(workers):
                if worker.place < 0:
                    continue
                path = paths[worker.place]
                fault: UnreadableError | None = None
                if worker.pipe in ready:
                    try:
                        message = worker.pipe.recv()
                    except (EOFError, OSError):
                        fault = UnreadableError(
                            "its reader broke down (too much memory, or a fault that the file sets off)",
                            where=path,
                            do="split it or export it again",
                        )
                    else:
                        worker.heard = now
                        if message[0] == "page":
                            if told is not None:
                                told(path, message[1], message[2])
                        else:
                            done[worker.place] = message[1] if message[0] == "read" else _error(message)
                            worker.place = -1
                elif now - worker.heard > stall or now - worker.began > limit:
                    fault = UnreadableError(
                        f"not read within {int(stall if now - worker.heard > stall else limit)} seconds",
                        where=path,
                        do="split it or export it again",
                    )
                if fault is not None:
                    done[worker.place] = fault
                    _end(worker)
                    workers[i] = _start(context, options)
    finally:
        for worker in workers:
            _end(worker)


def _result(path: str, outcome: bytes | YarnexError) -> tuple[str, list[Reading], bytes]:
    if isinstance(outcome, UnreadableError):
        return path, [Reading(path, None, outcome)], b""
    if isinstance(outcome, YarnexError):
        raise outcome
    return path, unpack(outcome, path), outcome


def _error(message: tuple[str, str, str, str]) -> YarnexError:
    kind, what, where, do = message
    return (UnreadableError if kind == "unreadable" else YarnexError)(what, where=where, do=do)


def _start(context: Any, options: ReadOptions) -> _Worker:
    here, there = context.Pipe()
    process = context.Process(target=_work, args=(there, options), daemon=True)
    process.start()
    there.close()
    return _Worker(process, here)


def _end(worker: _Worker) -> None:
    worker.pipe.close()
    if worker.process.is_alive():
        worker.process.kill()
    worker.process.join(5)
    worker.process.close()


def _work(pipe: Connection, options: ReadOptions) -> None:
    """The life of a reading process: a path in, its readings out."""
    signal.signal(signal.SIGINT, signal.SIG_IGN)  # the process that reads for a person decides
    _bound_memory()
    warnings.simplefilter("ignore")
    with Path(os.devnull).open("w") as nowhere:  # what libraries print of a damaged file says nothing to a reader
        os.dup2(nowhere.fileno(), 1)
        os.dup2(nowhere.fileno(), 2)

    def told(_: str, page: int, of: int) -> None:
        pipe.send(("page", page, of))

    options = replace(options, progress=told)
    while True:
        try:
            path = pipe.recv()
        except (EOFError, OSError):
            return
        try:
            pipe.send(("read", pack(read_file(path, options), path)))
        except UnreadableError as error:
            pipe.send(("unreadable", error.what, error.where, error.do))
        except YarnexError as error:
            pipe.send(("wrong", error.what, error.where, error.do))
        except MemoryError:
            pipe.send(("unreadable", "too large to read in the memory allowed", path, "split it or export it again"))
        except RecursionError:
            pipe.send(("unreadable", "too deeply nested to read", path, "export it again"))
        except Exception as error:
            # a fault of a reader: the others go on, and the line says where to look
            pipe.send(
                ("unreadable", f"its reader failed ({_fault(error)})", path, "export it again, and report this fault")
            )


def _fault(error: BaseException) -> str:
    """A fault in a word or two: its kind, and the module and line of ours where it rose."""
    place = ""
    trace = error.__traceback__
    while trace is not None:
        name = trace.tb_frame.f_code.co_filename.replace("\\", "/")
        if "/yarnex/" in name:
            place = f"{name.rsplit('/', 1)[-1]} line {trace.tb_lineno}"
        trace = trace.tb_next
    return " at ".join(filter(None, [type(error).__name__, place]))


def _bound_memory() -> None:
    try:
        import resource

        _, hard = resource.getrlimit(resource.RLIMIT_AS)
        bound = MEMORY if hard == resource.RLIM_INFINITY else min(MEMORY, hard)
        resource.setrlimit(resource.RLIMIT_AS, (bound, hard))
    except (ImportError, ValueError, OSError):
        return
