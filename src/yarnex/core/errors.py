"""Errors meant for the user: what is wrong, where, and what to do about it."""

from __future__ import annotations


class YarnexError(Exception):
    """Base of every error meant for the user; its text is what the terminal shows."""

    exit_code = 2

    def __init__(self, what: str, *, where: str = "", do: str = "") -> None:
        super().__init__("; ".join(filter(None, [f"{where}: {what}" if where else what, do])))
        self.what, self.where, self.do = what, where, do


class UnreadableError(YarnexError):
    """A document that cannot be read at all: missing, locked, broken or of an unknown format."""

    exit_code = 3


class PackError(YarnexError):
    """A sheet or rulebook with mistakes; its text lists every one with its line."""


class OutputError(YarnexError):
    """A result that cannot be written where it was asked for."""
