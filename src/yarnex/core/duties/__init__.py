"""Duties: Document -> who must, must not or may do what, by when, on what condition; and the requirements of calls and policies."""

from yarnex.core.duties.gather import duties_of
from yarnex.core.duties.model import Duty, Requirement
from yarnex.core.duties.requirements import requirements_of

__all__ = ["Duty", "Requirement", "duties_of", "requirements_of"]
