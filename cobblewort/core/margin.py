"""Margins: one per limit that is checked, and how sure it is."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from math import isfinite
from typing import Literal

import numpy as np

from cobblewort.core.arrays import FloatArray

Severity = Literal["sound", "note", "tight", "stops"]
Family = Literal["fit", "supply", "heat", "data", "life", "cost", "noise", "safety"]
LimitKind = Literal["max", "min"]

SEVERITY_RANK: dict[Severity, int] = {"sound": 0, "note": 1, "tight": 2, "stops": 3}
RULER_LOW, RULER_HIGH = -0.5, 1.0
LOADED_TIGHT_SHARE = 0.80
"""An electrical limit loaded above this is tight: common practice for continuous loads."""
HOLDS_TIGHT_SHARE = 0.95


@dataclass(slots=True, frozen=True)
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
    limit is called.
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
    sign = 1.0 if check.kind == "max" else -1.0
    values: list[float] = value[:, 0].tolist()
    limits: list[float] = limit[:, 0].tolist()
    limits = limits * len(values) if len(limits) == 1 else limits
    nominal = [sign * (b - a) for a, b in zip(values, limits, strict=True)]
    if not all(map(isfinite, nominal)):
        raise ValueError(f"{rule} {check.subject}: value and limit must be finite")
    hard = [k for k in range(len(nominal)) if check.hard[k]]
    worst_hard = min(hard, key=nominal.__getitem__)
    worst = min(range(len(nominal)), key=nominal.__getitem__)

    spare = sign * (limit - value) if value.shape[1] > 1 else None
    holds = None if spare is None else float((spare[hard, 1:] >= 0).all(axis=0).mean())
    severity: Severity = "sound"
    state = worst_hard
    if nominal[worst_hard] < 0:
        severity = check.breach
    elif nominal[worst] < 0:
        severity, state = "tight", worst
    elif holds is not None and holds < HOLDS_TIGHT_SHARE:
        severity = "tight"

    loaded = None
    if check.electrical:
        loaded = max((values[k] / limits[k] for k in hard if limits[k] > 0), default=None)
        if severity == "sound" and loaded is not None and loaded > LOADED_TIGHT_SHARE:
            severity = "tight"
    spans = limits if check.span is None else [float(check.span[0])] * len(limits)
    span = spans[state]
    p05 = p95 = None
    if spare is not None:
        p05, p95 = _percentiles(spare[state, 1:])
    return Margin(
        id=f"{rule}:{check.subject}",
        rule=rule,
        family=family,
        label=check.label,
        unit=check.unit,
        value=values[state],
        limit=limits[state],
        limit_kind=check.kind,
        spare=nominal[state],
        spare_p05=p05,
        spare_p95=p95,
        holds_share=holds,
        loaded_share=loaded,
        ruler_share=_ruler(nominal[state], span),
        ruler_p05=None if p05 is None else _ruler(p05, span),
        ruler_p95=None if p95 is None else _ruler(p95, span),
        severity=severity,
        state=check.states[state],
        lines=check.lines,
        sockets=check.sockets,
        states=tuple(check.states),
        spare_by_state=tuple(nominal),
        ruler_by_state=tuple(map(_ruler, nominal, spans)),
        severity_by_state=tuple(
            _state_severity(check, k, nominal[k], values[k], limits[k]) for k in range(len(nominal))
        ),
    )


def _state_severity(check: Check, state: int, spare: float, value: float, limit: float) -> Severity:
    """Severity of one state alone, at nominal figures."""
    if spare < 0:
        return check.breach if check.hard[state] else "tight"
    loaded = check.electrical and limit > 0 and value / limit > LOADED_TIGHT_SHARE
    return "tight" if loaded and check.hard[state] else "sound"


def _percentiles(values: FloatArray) -> tuple[float, float]:
    """The 5 and 95 % values, interpolated between order statistics as numpy does by default."""
    ordered = np.sort(values)
    last = len(ordered) - 1

    def at(share: float) -> float:
        place = share * last
        low = int(place)
        high = min(low + 1, last)
        return float(ordered[low] + (ordered[high] - ordered[low]) * (place - low))

    return at(0.05), at(0.95)


def _ruler(spare: float, span: float) -> float:
    if span <= 0:
        return RULER_LOW if spare < 0 else 0.0
    return min(RULER_HIGH, max(RULER_LOW, spare / span))
