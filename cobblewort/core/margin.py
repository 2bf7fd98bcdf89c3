"""Margins: one per limit that is checked, and how sure it is."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import partial
from math import isfinite
from typing import Literal, get_args

import numpy as np

from cobblewort.core.arrays import FloatArray
from cobblewort.core.working import SumFunction

Severity = Literal["sound", "note", "tight", "stops"]
Family = Literal["need", "fit", "supply", "heat", "data", "life", "cost", "noise", "safety"]
FAMILIES: tuple[Family, ...] = get_args(Family)
"""Families in the order in which people read them."""
LimitKind = Literal["max", "min"]

SEVERITY_RANK: dict[Severity, int] = {"sound": 0, "note": 1, "tight": 2, "stops": 3}
_SOUND: Severity = "sound"
RULER_LOW, RULER_HIGH = -0.5, 1.0
LOADED_TIGHT_SHARE = 0.80
"""An electrical limit loaded above this is tight: common practice for continuous loads."""
HOLDS_TIGHT_SHARE = 0.95


@dataclass(slots=True)
class Margin:
    """One limit and how the kit stands to it, at nominal figures in its worst state.

    `spare` is signed: negative is short. `spare_p05`, `spare_p95` and `holds_share` are None
    where no samples were drawn. `ruler_share` is the length of its ruler, -0.5 to 1. The `by_state`
    tuples tell every state that was looked at, in the order of `states`.
    """

    id: str
    rule: str
    family: Family
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
    state: str
    lines: tuple[str, ...]
    sockets: tuple[str, ...]
    states: tuple[str, ...]
    spare_by_state: tuple[float, ...]
    ruler_by_state: tuple[float, ...]
    severity_by_state: tuple[Severity, ...]


@dataclass(slots=True)
class Check:
    """A limit as a rule hands it over, before it is judged.

    `value` and `limit` have shape (states, samples), or (samples,) where states do not matter;
    `span` has shape (samples,). `hard` says which
    states must hold (the phases of the duty and the start); the others may only make it tight.
    `span` is what a full ruler stands for, by default the limit itself; `breach` is what a broken
    limit is called. `working` states the formula of the spare.
    """

    subject: str
    label: str
    unit: str
    kind: LimitKind
    value: FloatArray
    limit: FloatArray
    sentence: Callable[[Margin], str]
    lines: tuple[str, ...]
    states: Sequence[str] = ("",)
    hard: Sequence[bool] = (True,)
    sockets: tuple[str, ...] = ()
    electrical: bool = False
    span: FloatArray | None = None
    breach: Severity = "stops"
    working: SumFunction | None = None


def judge(rule: str, family: Family, check: Check) -> Margin:
    """Turn a check into a margin; the one place where severity is decided.

    Nominal figures are handled as plain floats, which is all that most calls need.

    Raises
    ------
    ValueError
        If a value or limit is not finite: a rule must say "not known" instead.
    """
    value = check.value if check.value.ndim == 2 else check.value[np.newaxis, :]
    limit = check.limit if check.limit.ndim == 2 else check.limit[np.newaxis, :]
    upward = check.kind == "max"
    values: list[float] = value[:, 0].tolist()
    limits: list[float] = limit[:, 0].tolist()
    if len(limits) == 1:
        limits *= len(values)
    spans = limits if check.span is None else [check.span.item(0)] * len(limits)
    pairs = zip(values, limits, strict=True)
    spares = [b - a for a, b in pairs] if upward else [a - b for a, b in pairs]
    least = min(spares)
    if not isfinite(sum(spares)):
        raise ValueError(f"{rule} {check.subject}: value and limit must be finite")
    rulers = tuple(map(_ruler, spares, spans))
    severities = _severities(check, values, limits, spares, least)
    hard = [k for k, is_hard in enumerate(check.hard) if is_hard]
    state = min(hard, key=spares.__getitem__)
    loaded = None
    if check.electrical:
        loaded = max((values[k] / limits[k] for k in hard if limits[k] > 0), default=None)

    holds = p05 = p95 = None
    sampled_spare = None
    if value.shape[1] > 1:
        sampled_spare = limit - value if upward else value - limit
        holds = 1.0
        if sampled_spare.min() < 0:
            holds = float((sampled_spare[hard, 1:] >= 0).all(axis=0).mean())
    severity: Severity = "sound"
    if spares[state] < 0:
        severity = check.breach
    elif least < 0:
        severity, state = "tight", spares.index(least)
    elif (holds is not None and holds < HOLDS_TIGHT_SHARE) or "tight" in severities:
        severity = "tight"

    if sampled_spare is not None:
        p05, p95 = percentiles(sampled_spare[state, 1:])
    return Margin(
        id=f"{rule}:{check.subject}",
        rule=rule,
        family=family,
        label=check.label,
        unit=check.unit,
        value=values[state],
        limit=limits[state],
        limit_kind=check.kind,
        spare=spares[state],
        spare_p05=p05,
        spare_p95=p95,
        holds_share=holds,
        loaded_share=loaded,
        ruler_share=rulers[state],
        ruler_p05=None if p05 is None else _ruler(p05, spans[state]),
        ruler_p95=None if p95 is None else _ruler(p95, spans[state]),
        severity=severity,
        state=check.states[state],
        lines=check.lines,
        sockets=check.sockets,
        states=tuple(check.states),
        spare_by_state=tuple(spares),
        ruler_by_state=rulers,
        severity_by_state=severities,
    )


def _severities(
    check: Check, values: list[float], limits: list[float], spares: list[float], least: float
) -> tuple[Severity, ...]:
    """Severity of each state alone, at nominal figures."""
    if least >= 0 and not check.electrical:
        return (_SOUND,) * len(spares)
    return tuple(map(partial(_state_severity, check), check.hard, spares, values, limits))


def _state_severity(check: Check, hard: bool, spare: float, value: float, limit: float) -> Severity:
    """Severity of one state alone, at nominal figures."""
    if spare < 0:
        return check.breach if hard else "tight"
    if check.electrical and hard and value > LOADED_TIGHT_SHARE * limit:
        return "tight"
    return "sound"


def percentiles(values: FloatArray) -> tuple[float, float]:
    """The 5 and 95 % values of one row, interpolated between order statistics as numpy does."""
    ordered = np.sort(values)
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
