"""Findings, documents and a rulebook in, flags out: risks, gaps, inconsistencies and strengths with reason and remedy."""

from yarnex.core.flags.apply import Flag, apply_rules
from yarnex.core.flags.rulebook import Rule, Rulebook, load_rulebook, parse_rulebook

__all__ = ["Flag", "Rule", "Rulebook", "apply_rules", "load_rulebook", "parse_rulebook"]
