"""What is true of every sentence that the rules say."""

from __future__ import annotations

import re
from itertools import chain
from pathlib import Path

import pytest

from cobblewort.core.judging.severity import LIKELY_SHARE
from cobblewort.core.verdict.explain import explain
from tests.kits import checked, demo, shipped
from tests.sentences.gather import of_demo, of_rules, page

MOST_WORDS = 25
PAGE = Path(__file__).parents[2] / "docs" / "sentences.md"
UNITS = r"(?:mm|A|V|W|Wh|°C|mA|kg|dB\(A\))"
SAID = sorted(
    set(
        chain(
            ((rule, severity, text) for _, told in of_demo() for rule, severity, text in told),
            ((rule, severity, text) for rule, _, said in of_rules() for severity, text in said),
        )
    )
)


@pytest.mark.parametrize("said", SAID, ids=lambda said: f"{said[0]} {said[2][:40]}")
def test_a_sentence_can_be_read_aloud(said: tuple[str, str, str]) -> None:
    """Short, with figures of four digits at most, the right article, and a full stop."""
    _, severity, text = said
    assert text.endswith(".")
    for one in re.split(r"(?<=[.:;]) ", text):
        assert len(re.findall(r"[^\W\d]\w*", one)) <= MOST_WORDS, one
    assert not re.search(r"\ba (?:M\.2|[AEIOaeio]\w)", text), "an"
    for figure in re.findall(rf"(?<![\w.])(\d+(?:\.\d+)?) {UNITS}", text):
        digits = figure.lstrip("0.").replace(".", "")
        assert len(digits) <= 4 or figure.isdigit(), figure
    for share in re.findall(r"OK in (\d+) of 100", text):
        assert severity == "tight"
        assert int(share) < 100 * LIKELY_SHARE
    assert "0.0 dB(A)" not in text


def test_the_page_of_sentences_is_the_newest() -> None:
    """`make sentences` writes it."""
    assert PAGE.read_text(encoding="utf-8") == page()


def test_shares_of_a_whole_come_to_no_more_than_it() -> None:
    """What makes a band wide is told as shares in whole percent; those of one figure never pass
    100 but for what rounding adds.
    """
    plan = demo("choir-recorder")
    told = 0
    for margin in checked(plan, 64).margins:
        doubts = explain(plan, shipped(), margin.id).doubts
        if doubts:
            told += 1
            assert sum(doubt.share for doubt in doubts) <= 1.0 + 1e-9, margin.id
    assert told > 5
