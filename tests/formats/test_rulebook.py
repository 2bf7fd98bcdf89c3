from pathlib import Path

from cobblewort.core.judging.rules import RULES
from cobblewort.formats.rulebook import rulebook_text

KEPT = Path(__file__).parents[2] / "docs" / "rules.md"


def test_the_rule_book_is_that_of_the_registry() -> None:
    """`make docs` writes it; a stale one fails here."""
    assert KEPT.read_text(encoding="utf-8") == rulebook_text()


def test_every_rule_stands_in_it_once() -> None:
    """With its title."""
    text = rulebook_text()
    for rule in RULES.values():
        assert text.count(f"### {rule.id} {rule.title}\n") == 1
