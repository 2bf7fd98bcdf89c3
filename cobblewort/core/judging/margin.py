"""Margins: one per limit that is checked, and how sure it is."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from math import inf, isfinite
from typing import Literal

import numpy as np

from cobblewort.core import words
from cobblewort.core.figures.arrays import BoolArray, ByState, FloatArray, Quantity
from cobblewort.core.figures.one_or_many import nominal
from cobblewort.core.judging.severity import (
    FAILS,
    KEPT_SOUND,
    LOADED_TIGHT_SHARE,
    SEVERITY_RANK,
    Consequence,
    Severity,
    Standing,
    severity_in,
    worst_of,
)
from cobblewort.core.judging.states import ANY_TIME, LookedAt
from cobblewort.core.judging.working import SumFunction
from cobblewort.core.text import Text

LimitKind = Literal["max", "min"]

RULER_LOW, RULER_HIGH = -0.5, 1.0
GAP_SPAN_MM = 20.0
"""A gap as wide as this fills a ruler."""


@dataclass(slots=True, frozen=True)
class WorstCase:
    """How a limit stands in the worst state that need not hold: everything at once."""

    value: float
    spare: float
    ruler_share: float
    state: str
    state_label: str


@dataclass(slots=True, frozen=True)
class Margin:
    """One limit and how the kit stands to it, at nominal figures in its worst planned state.

    `spare` is signed: negative is short. `spare_p05`, `spare_p95` and `holds_share` are None
    where no samples were drawn; they are those of the state whose value is told, the worst one:
    `state` is its id and `state_label` what people call it, both empty where states do not matter.
    `loaded_share` is how much of an electrical limit is taken for three hours a day.
    `ruler_share` is the length of its ruler, -0.5 to 1. `planned` is how it stands in what the plan
    asks for, `severity` with the `worst_case` too. The `by_state` tuples tell every state that was
    looked at, in the order of `states`.
    """

    id: str
    rule: str
    family: str
    label: str
    unit: str
    value: float
    limit: float
    limit_kind: LimitKind
    spare: float
    spare_p05: float | None
    spare_p95: float | None
    holds_share: float | None
    loaded_share: float | None
    ruler_share: float
    ruler_p05: float | None
    ruler_p95: float | None
    severity: Severity
    planned: Severity
    worst_case: WorstCase | None
    state: str
    state_label: str
    lines: tuple[str, ...]
    sockets: tuple[str, ...]
    states: tuple[str, ...]
    # Empty but in a report, as only drawings look at them:
    spare_by_state: tuple[float, ...]
    ruler_by_state: tuple[float, ...]
    severity_by_state: tuple[Severity, ...]

    @property
    def when(self) -> str:
        """The state in a sentence: ` while filming`; empty where states do not matter."""
        return words.when(self.state, self.state_label)

    @property
    def breaks_in_worst_case(self) -> bool:
        """Whether only a state that need not hold passes the limit, and that is worth saying."""
        return (
            self.worst_case is not None
            and self.worst_case.spare < 0
            and self.planned != self.severity
        )

    def stressed(self) -> Margin:
        """This margin with the figures of the state that need not hold."""
        if self.worst_case is None:
            return self
        at = self.worst_case
        return replace(
            self,
            value=at.value,
            spare=at.spare,
            ruler_share=at.ruler_share,
            state=at.state,
            state_label=at.state_label,
            holds_share=None,
            loaded_share=None,
        )

    @property
    def is_loaded_for_hours(self) -> bool:
        """Whether only how long it is loaded makes it tight."""
        loaded = self.loaded_share is not None and self.loaded_share > LOADED_TIGHT_SHARE
        return loaded and self.spare >= 0 and self.planned == "tight"


@dataclass(slots=True, frozen=True)
class Check:
    """A limit as a rule hands it over, before it is judged.

    `value` has shape (states, samples) over `states`, or (samples,) where they do not matter;
    `limit` has shape (samples,). What is known exactly is a plain number, and nominal figures by
    themselves may be a number a state. `consequence` is what passing it does.

    Of an electrical limit, always a maximum, `lasting` is the mean that loads it for three hours a
    day. `span` is what a full ruler stands for, by default the limit itself, of a gap 20 mm.
    `working` states the formula of the spare.

    Of what slows itself at the limit, `kept` works out how much it keeps of the speed that is asked
    of it, shape (states, samples), and that is judged instead of the value; it is asked only where
    some figure passes the limit. In the `light` states, in the order of `states`, nobody waits for
    it.
    """

    subject: str
    label: str
    unit: str
    kind: LimitKind
    value: Quantity | ByState
    limit: Quantity
    sentence: Callable[[Margin], Text]
    lines: tuple[str, ...]
    states: LookedAt = ANY_TIME
    sockets: tuple[str, ...] = ()
    consequence: Consequence = FAILS
    lasting: float | None = None
    span: float | None = None
    working: SumFunction | None = None
    kept: Callable[[], FloatArray] | None = None
    light: tuple[bool, ...] = ()

    def nominal_values(self) -> Sequence[float]:
        """Sample 0 of every state."""
        value = self.value
        if isinstance(value, list):
            return value
        if not isinstance(value, np.ndarray):
            return (value,)
        if value.ndim == 1:
            return (value.item(0),)
        of_states: list[float] = value[:, 0].tolist()
        return of_states

    def spares(self, samples: int) -> FloatArray:
        """The spare, shape (states, samples)."""
        value = self.value
        at = np.array(value)[:, np.newaxis] if isinstance(value, list) else value
        spare = self.limit - at if self.kind == "max" else at - self.limit
        return np.broadcast_to(spare, (len(self.states.ids), samples))


@dataclass(slots=True, frozen=True)
class _Judged:
    """A limit in every state: nominal spares, the share of draws in which it holds, its severity,
    and by which of two states of one severity the worse one is told.
    """

    spares: list[float]
    holds: list[float] | None
    severities: list[Severity]
    told_by: list[float]


def _judged(
    check: Check, values: Sequence[float], limit: float, span: float, sampled: FloatArray | None
) -> _Judged:
    """Every state for itself."""
    spares = [limit - value if check.kind == "max" else value - limit for value in values]
    holds = None if sampled is None else [1.0] * len(spares)
    all_hold = sampled is None or np.minimum.reduce(sampled, axis=None) >= 0
    if min(spares) >= 0 and all_hold:
        return _Judged(spares, holds, ["ok"] * len(spares), spares)
    told_by, sound = spares, None
    if check.kept is not None:
        kept = check.kept()
        told_by = shares = kept[:, 0].tolist()
        sound = kept[:, 1:] >= KEPT_SOUND
    else:
        shares = [_share(check, *of, limit, span) for of in zip(values, spares, strict=True)]
        sound = None if sampled is None else _is_sound(check, sampled[:, 1:])
    if sampled is not None and sound is not None:
        holds = sound.mean(axis=1).tolist()
    lights = check.light or (False,) * len(spares)
    severities = [
        severity_in(
            check.consequence,
            Standing(
                state,
                spares[k] < 0,
                shares[k],
                None if holds is None else holds[k],
                lights[k],
                check.unit == "V",
            ),
        )
        for k, state in enumerate(check.states.states)
    ]
    return _Judged(spares, holds, severities, told_by)


def _is_sound(check: Check, spares: FloatArray) -> BoolArray:
    """In which draws it holds; what slows holds while it gets nine tenths."""
    if check.consequence.kind != "slows":
        return spares >= 0
    limit = check.limit[1:] if isinstance(check.limit, np.ndarray) else check.limit
    least_spare = (KEPT_SOUND - 1) * limit if check.kind == "min" else limit - limit / KEPT_SOUND
    return spares >= least_spare


def _share(check: Check, value: float, spare: float, limit: float, span: float) -> float:
    """What is got of what is asked where that slows or wears, else what is taken of a limit."""
    asked, got = (value, limit) if check.kind == "max" else (limit, value)
    if check.consequence.kind in ("slows", "wears"):
        return got / asked if asked > 0 else 1.0
    if check.kind == "max":
        return (span - spare) / span if span > 0 else inf
    return asked / got if got > 0 else inf


def margin_of(rule: str, family: str, check: Check, samples: int) -> Margin:
    """Turn a check into a margin, with a band where there are samples.

    The state that is told is the planned one that matters most; of equal ones the tightest.
    Nominal figures are handled as plain floats, which is all that most calls need.

    Raises
    ------
    ValueError
        If a value or limit is not finite: a rule must say "not known" instead.
    """
    states, span = check.states, check.span
    values, limit = check.nominal_values(), nominal(check.limit)
    if not isfinite(sum(values) - limit):
        raise ValueError(f"{rule} {check.subject}: value and limit must be finite")
    if span is None:
        span = _span_of(check.unit, limit)
    sampled = check.spares(samples) if samples > 1 else None
    found = _judged(check, values, limit, span, sampled)
    spares, severities = found.spares, found.severities
    worst_case = None
    if states.worst_case is not None:
        at = states.worst_case
        worst_case = WorstCase(
            values[at], spares[at], _ruler(spares[at], span), states.ids[at], states.labels[at]
        )

    state = min(
        states.must_hold,
        key=lambda k: (-SEVERITY_RANK[severities[k]], found.told_by[k], spares[k]),
    )
    planned = severities[state]
    loaded = None if check.lasting is None or limit <= 0 else check.lasting / limit
    if planned == "ok" and loaded is not None and loaded > LOADED_TIGHT_SHARE:
        planned = "tight"
    p05 = p95 = None
    if sampled is not None:
        p05, p95 = percentiles(sampled[state, 1:])
    return Margin(
        id=f"{rule}:{check.subject}",
        rule=rule,
        family=family,
        label=check.label,
        unit=check.unit,
        value=values[state],
        limit=limit,
        limit_kind=check.kind,
        spare=spares[state],
        spare_p05=p05,
        spare_p95=p95,
        holds_share=None if found.holds is None else found.holds[state],
        loaded_share=loaded,
        ruler_share=_ruler(spares[state], span),
        ruler_p05=None if p05 is None else _ruler(p05, span),
        ruler_p95=None if p95 is None else _ruler(p95, span),
        severity=worst_of((planned, *severities)),
        planned=planned,
        worst_case=worst_case,
        state=states.ids[state],
        state_label=states.labels[state],
        lines=check.lines,
        sockets=check.sockets,
        states=states.ids,
        spare_by_state=(),
        ruler_by_state=(),
        severity_by_state=(),
    )


def got_share(margin: Margin, check: Check) -> float:
    """What is got of what is asked in the state that a margin tells, where passing it slows."""
    if check.kept is not None:
        kept: float = check.kept().item(margin.states.index(margin.state), 0)
        return kept
    span = margin.limit if check.span is None else check.span
    return _share(check, margin.value, margin.spare, margin.limit, span)


def with_states(margin: Margin, check: Check, samples: int) -> Margin:
    """A margin made of this check with how it stands in every state; what only hours of load make
    tight is tight in the state that the margin shows.
    """
    values, limit = check.nominal_values(), margin.limit
    span = _span_of(check.unit, limit) if check.span is None else check.span
    found = _judged(check, values, limit, span, check.spares(samples) if samples > 1 else None)
    severities = found.severities
    if margin.severity not in severities:
        severities[margin.states.index(margin.state)] = margin.severity
    return replace(
        margin,
        spare_by_state=tuple(found.spares),
        ruler_by_state=tuple(_ruler(spare, span) for spare in found.spares),
        severity_by_state=tuple(severities),
    )


def ruler_shares(margin: Margin, check: Check, samples: int) -> FloatArray:
    """The share of its ruler in every draw in the state that a margin tells, shape (samples,)."""
    spare = check.spares(samples)[margin.states.index(margin.state)]
    span = _span_of(check.unit, margin.limit) if check.span is None else check.span
    if span <= 0:
        return np.where(spare < 0, RULER_LOW, 0.0)
    shares: FloatArray = np.clip(spare / span, RULER_LOW, RULER_HIGH)
    return shares


def _span_of(unit: str, limit: float) -> float:
    """What a full ruler stands for: of gaps all the same, so that the least one is the tightest."""
    return GAP_SPAN_MM if unit == "mm" else limit


def percentiles(values: FloatArray) -> tuple[float, float]:
    """The 5 and 95 % values of one row, interpolated between order statistics as numpy does."""
    ordered = values.copy()
    ordered.sort()
    last = len(ordered) - 1
    return _at(ordered, 0.05 * last), _at(ordered, 0.95 * last)


def _at(ordered: FloatArray, place: float) -> float:
    low = int(place)
    value: float = ordered.item(low)
    above: float = ordered.item(min(low + 1, len(ordered) - 1))
    return value + (above - value) * (place - low)


def _ruler(spare: float, span: float) -> float:
    if span <= 0:
        return RULER_LOW if spare < 0 else 0.0
    share = spare / span
    if share < RULER_LOW:
        return RULER_LOW
    return share if share < RULER_HIGH else RULER_HIGH
