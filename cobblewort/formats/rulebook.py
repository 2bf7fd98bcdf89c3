"""The rule book as Markdown, from the registry: `python -m cobblewort.formats.rulebook FILE`."""

from __future__ import annotations

import sys
from itertools import groupby
from pathlib import Path

from cobblewort.core.verdict.report import ASPECTS, rules_in_order

_HEAD = """# Rules

Made from the registry of rules by `make docs`; a stale copy fails the tests. Severity is decided in
one place for all rules, see [How it computes](model.md).
"""


def rulebook_text() -> str:
    """Every rule by family: what it checks, why, formula, source, whether it knows ways out."""
    parts = [_HEAD]
    labels = {aspect.id: aspect.label for aspect in ASPECTS}
    for family, rules in groupby(rules_in_order(), key=lambda rule: rule.family):
        parts.append(f"\n## {labels[family]}\n")
        for rule in rules:
            ways = "It offers fixes." if rule.remedies else "It offers no fixes."
            parts.append(
                f"\n### {rule.id} {rule.title}\n\n{rule.why}\n\n"
                f"- Formula: {rule.formula}\n- Source: {rule.source}\n- {ways}\n"
            )
    return "".join(parts)


if __name__ == "__main__":
    Path(sys.argv[1]).write_text(rulebook_text(), encoding="utf-8")
