"""Figures: Document -> reported amounts, each with label, period, basis and plain value; checks, spreads and ratios."""

from yarnex.core.figures.gather import figures_of
from yarnex.core.figures.model import Figure, FigurePeriod

__all__ = ["Figure", "FigurePeriod", "figures_of"]
