"""All of it in, a Briefing out: what to say and in which order, without any formatting."""

from yarnex.core.briefing.build import Briefing, KeyDate, OpenQuestion, brief

__all__ = ["Briefing", "KeyDate", "OpenQuestion", "brief"]
