"""Rules of noise: the limit of the location."""

from __future__ import annotations

from collections.abc import Iterator

from cobblewort.core import words
from cobblewort.core.aspects.noise.model import NoiseResult
from cobblewort.core.aspects.noise.model import of as noise_of
from cobblewort.core.judging.findings import Observation
from cobblewort.core.judging.margin import Check, Margin
from cobblewort.core.judging.remedies import another, remove_named
from cobblewort.core.judging.rules import rule
from cobblewort.core.judging.severity import BOTHERS, UNKNOWN
from cobblewort.core.judging.working import Sum, plan_term, reading_term
from cobblewort.core.text import Text, say


@rule(
    "NOISE-01",
    "noise",
    "The kit is quiet enough for the location",
    why="A fan disturbs sleep and is recorded by every microphone.",
    formula="10 lg(sum of 10^(L_i / 10)) <= limit of the location, at 1 m, fans at full speed",
    source="ISO 3744, energy sum of levels (from memory); levels are the makers' own",
    reads=(noise_of, "place.noise_max_dba"),
    remedies=(another("cooling", "storage", "boot_drive"), remove_named),
    eased_by=(),
)
def quiet_enough(noise: NoiseResult, most: float | None) -> Iterator[Check | Observation]:
    """The level of all that turns against the limit; silent where the location has none."""
    if most is None:
        return
    if noise.unknown:
        yield Observation(
            "level",
            UNKNOWN,
            say(
                "Not checked: noise. {parts} {have} no noise value.",
                parts=words.few(i.name for i in noise.unknown),
                have="has" if len(noise.unknown) == 1 else "have",
            ),
            tuple(dict.fromkeys(i.line.id for i in noise.unknown)),
        )
    lines = tuple(dict.fromkeys(item.line.id for item, _ in noise.heard))

    def sentence(margin: Margin) -> Text:
        shown, limit = words.apart(words.decibels, margin.value, margin.limit)
        return say(
            "{parts} {be} {shown} at 1 m; the limit here is {limit}.",
            parts=words.opening(words.few(item.the for item, _ in noise.heard)),
            shown=shown,
            be="is" if len(noise.heard) == 1 else "are",
            limit=limit,
        )

    def working(state: int) -> Sum:
        del state
        limit = plan_term("L_max", "limit of the location", "dB(A)", float(most))
        levels = [
            reading_term(f"L_{n}", f"noise of {item.name}", "dB(A)", item, "noise_dba", own)
            for n, (item, _) in enumerate(noise.heard, 1)
            if (own := item.part.noise_dba) is not None
        ]
        powers = " + ".join(f"10 ** ({term.symbol} / 10)" for term in levels)
        total = f"10 * log10({powers})" if levels else "0"
        return Sum(
            "limit less the sum of the levels, added as powers",
            f"L_max - {total}",
            [limit, *levels],
        )

    yield Check(
        "place",
        "Noise at 1 m",
        "dB(A)",
        "max",
        noise.level_dba,
        float(most),
        sentence,
        lines,
        consequence=BOTHERS,
        working=working,
    )
