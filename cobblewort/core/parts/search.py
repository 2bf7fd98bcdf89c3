"""Finding parts by whatever is shown of them: names, kinds, classes and figures, with one typo.

Texts are cut into words; a figure and its unit are one word (`3 A` is `3a`). A part is found where
every word that was typed begins one of its own, or, of four letters and more, is one slip away.
"""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Iterable, Iterator
from functools import lru_cache

from cobblewort.core.parts.key_value import key_value
from cobblewort.core.parts.model import Part

KIND_WORDS = {
    "board": "boards single-board computers",
    "power_supply": "supply power adapter battery",
    "cable": "cables lead",
    "hub": "hubs",
    "card": "memory cards",
    "drive": "drives disks storage",
    "storage_adapter": "storage board adapters carrier",
    "device": "add-on device sensor",
    "cooler": "coolers cooling fan heat sink",
    "case": "cases box shell",
    "fastener": "fasteners screws standoffs",
    "tool": "tools borrow set-up",
    "machine": "other equipment computer switch",
}
_FIGURE = re.compile(r"(\d+(?:\.\d+)?)\s+([a-z°%]{1,3})(?![a-z0-9])")
_WORD = re.compile(r"\d+(?:\.\d+)?[a-z°%]*|[a-z°%]+")
_LEAST_TO_SLIP = 4
_MOST_WORDS = 12


def words_of(text: str) -> list[str]:
    """The words of a text, in small letters without accents; a decimal comma is a point."""
    plain = unicodedata.normalize("NFKD", text.lower())
    plain = "".join(c for c in plain if not unicodedata.combining(c))
    plain = re.sub(r"(?<=\d),(?=\d)", ".", plain)
    return _WORD.findall(_FIGURE.sub(r"\1\2 ", plain))


class PartIndex:
    """The words of some parts, and who has each."""

    def __init__(self, parts: Iterable[Part]) -> None:
        self._parts = list(parts)
        self._having: dict[str, set[int]] = {}
        for number, part in enumerate(self._parts):
            for word in _words_of_part(part):
                self._having.setdefault(word, set()).add(number)

    def find(self, text: str) -> list[Part]:
        """Parts in which every typed word is found: those it names first, then in their order."""
        typed = words_of(text)[:_MOST_WORDS]
        if not typed:
            return list(self._parts)
        found = set(range(len(self._parts)))
        for word in typed:
            found &= self._with(word)
            if not found:
                return []
        names = [set(words_of(f"{self._parts[n].model}")) for n in sorted(found)]
        ranked = sorted(
            zip(sorted(found), names, strict=True),
            key=lambda entry: (-len(entry[1] & set(typed)), entry[0]),
        )
        return [self._parts[number] for number, _ in ranked]

    def _with(self, typed: str) -> set[int]:
        """Those with a word that begins as typed, else with one a slip away."""
        matching = [word for word in self._having if _begins(word, typed)]
        if not matching and len(typed) >= _LEAST_TO_SLIP and typed.isalpha():
            matching = [word for word in self._having if is_one_slip(typed, word)]
        return set().union(*(self._having[word] for word in matching))


@lru_cache(maxsize=2)
def _index_of(parts: tuple[Part, ...]) -> PartIndex:
    return PartIndex(parts)


def find_parts(parts: Iterable[Part], text: str) -> list[Part]:
    """Parts in which every typed word is found; their index is kept while they are the same."""
    return _index_of(tuple(parts)).find(text)


def _words_of_part(part: Part) -> Iterator[str]:
    class_words = (part.part_class or "").replace("_", " ")
    shown = (
        part.maker,
        part.model,
        part.summary,
        key_value(part).text,
        KIND_WORDS[part.kind],
        class_words,
    )
    for text in shown:
        yield from words_of(text)


def _begins(word: str, typed: str) -> bool:
    """Whether a word begins as typed; a number is not the beginning of a longer number."""
    if not word.startswith(typed):
        return False
    rest = word[len(typed) :]
    return not (typed[-1].isdigit() and rest[:1] and rest[0] in "0123456789.")


def is_one_slip(typed: str, word: str) -> bool:
    """Whether two words differ by one letter more, less or other, or two that changed places."""
    if abs(len(typed) - len(word)) > 1 or typed == word:
        return typed == word
    start = 0
    while start < min(len(typed), len(word)) and typed[start] == word[start]:
        start += 1
    one, other = typed[start:], word[start:]
    return (
        one[1:] == other[1:]
        or one[1:] == other
        or one == other[1:]
        or (one[:2] == other[1::-1] and one[2:] == other[2:])
    )
