"""Work at many things in several processes, a few at a time, with the results in the order of the things."""

from __future__ import annotations

import os
import sys
from collections import deque
from collections.abc import Callable, Iterable, Iterator
from typing import TypeVar

Name = TypeVar("Name")
Thing = TypeVar("Thing")
Made = TypeVar("Made")
MAX_PROCESSES = 8
AHEAD = 3  # things a process that may wait for it, so that not all are in memory at once


def processors() -> int:
    """How many processes to work with."""
    count = len(os.sched_getaffinity(0)) if hasattr(os, "sched_getaffinity") else os.cpu_count() or 1
    return max(1, min(MAX_PROCESSES, count))


def worked_at(
    work: Callable[[Thing], Made], things: Iterable[tuple[Name, Thing]], processes: int
) -> Iterator[tuple[Name, Made]]:
    """For each named thing its name and what `work` makes of it, in order. work: a function of a module.

    Where the processes break down, for want of memory say, what is left is done in this one.
    """
    if processes < 2:
        yield from ((name, work(thing)) for name, thing in things)
        return
    import multiprocessing
    from concurrent.futures import Future, ProcessPoolExecutor
    from concurrent.futures.process import BrokenProcessPool

    context = multiprocessing.get_context("fork" if sys.platform == "linux" else "spawn")
    waiting: deque[tuple[Name, Thing, Future[Made] | None]] = deque()
    with ProcessPoolExecutor(processes, context) as pool:

        def begun(thing: Thing) -> Future[Made] | None:
            try:
                return pool.submit(work, thing)
            except BrokenProcessPool:
                return None

        def ended() -> tuple[Name, Made]:
            name, thing, future = waiting.popleft()
            if future is not None:
                try:
                    return name, future.result()
                except BrokenProcessPool:
                    pass
            return name, work(thing)

        for name, thing in things:
            waiting.append((name, thing, begun(thing)))
            if len(waiting) > AHEAD * processes:
                yield ended()
        while waiting:
            yield ended()
