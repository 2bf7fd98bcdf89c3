"""Margins: one per limit that is checked, and how sure it is."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from math import isfinite
from typing import Literal

import numpy as np

from cobblewort.core import words
from cobblewort.core.figures.arrays import ByState, FloatArray, Quantity
from cobblewort.core.figures.one_or_many import nominal
from cobblewort.core.judging.states import ANY_TIME, START, LookedAt
from cobblewort.core.judging.working import SumFunction
from cobblewort.core.text import Text

Severity = Literal["ok", "note", "tight", "problem"]
LimitKind = Literal["max", "min"]

SEVERITY_RANK: dict[Severity, int] = {"ok": 0, "note": 1, "tight": 2, "problem": 3}
RULER_LOW, RULER_HIGH = -0.5, 1.0
LOADED_TIGHT_SHARE = 0.80
"""An electrical limit loaded above this is tight: common practice for continuous loads."""
HOLDS_TIGHT_SHARE = 0.95
GAP_SPAN_MM = 20.0
"""A gap as wide as this fills a ruler."""
KEPT_SOUND = 0.98
"""What slows itself keeps its speed while it keeps this much of what is asked of it: nobody notices
the rest."""
KEPT_STOPS = 0.60
"""Below this it no longer does what is asked of it."""
KEPT_WORST_CASE_TIGHT = 0.50
"""Below this even a state that need not hold is worth more than a note."""


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
    where no samples were drawn. `state` is the id of the worst one and `state_label` what people
    call it, both empty where states do not matter. `ruler_share` is the length of its ruler, -0.5
    to 1. `planned` is how it stands in what the plan asks for, `severity` with the `worst_case`
    too. The `by_state` tuples tell every state that was looked at, in the order of `states`.
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
        )


@dataclass(slots=True, frozen=True)
class Check:
    """A limit as a rule hands it over, before it is judged.

    `value` has shape (states, samples) over `states`, or (samples,) where they do not matter;
    `limit` has shape (samples,). What is known exactly is a plain number, and nominal figures by
    themselves may be a number a state. States that need not hold
    may only make it tight. An electrical limit, always a maximum, is tight where it is loaded high
    for long: `lasting` are the means of its value over what the plan asks for. `span` is what a
    full ruler stands for, by default the limit itself, of a gap 20 mm; `breach` is what a broken
    limit is called. `working` states the formula of the spare.

    The second in which a kit starts has to stay within such a limit at nominal figures alone, as
    sockets and supplies stand a little more for so long (common practice: one disk on a board).

    Of what slows itself at the limit, `kept` works out how much it keeps of the speed that is asked
    of it, shape (states, samples), and that decides instead of the limit; it is asked only where
    some figure passes the limit. Rules of thumb are right for most, not for 95 of a hundred: they
    are tight where they hold in less than the `likely_share` of draws.
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
    lasting: Sequence[float] = ()
    span: float | None = None
    breach: Severity = "problem"
    working: SumFunction | None = None
    kept: Callable[[], FloatArray] | None = None
    likely_share: float = HOLDS_TIGHT_SHARE

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


def margin_of(rule: str, family: str, check: Check, samples: int) -> Margin:
    """Turn a check into a margin, with a band where there are samples; the one place where severity
    is decided.

    Nominal figures are handled as plain floats, which is all that most calls need.

    Raises
    ------
    ValueError
        If a value or limit is not finite: a rule must say "not known" instead.
    """
    upward, states, span = check.kind == "max", check.states, check.span
    values, limit = check.nominal_values(), nominal(check.limit)
    if not isfinite(sum(values) - limit):
        raise ValueError(f"{rule} {check.subject}: value and limit must be finite")
    if span is None:
        span = _span_of(check.unit, limit)
    hard_values, worst_case = values, None
    if states.worst_case is not None:
        at = states.worst_case
        hard_values, value = states.hard_of(values), values[at]
        past = limit - value if upward else value - limit
        worst_case = WorstCase(value, past, _ruler(past, span), states.ids[at], states.labels[at])
    shown = max(hard_values) if upward else min(hard_values)
    loaded = max(check.lasting) / limit if check.lasting and limit > 0 else None

    holds = p05 = p95 = None
    sampled_spare = None
    if samples > 1:
        sampled_spare = check.spares(samples)
        holds = _holding_share(check, sampled_spare)
    planned: Severity = "ok"
    passed = shown > limit if upward else shown < limit
    beyond = worst_case is not None and worst_case.spare < 0
    severity: Severity = "ok"
    if check.kept is not None and (passed or beyond or (holds is not None and holds < 1.0)):
        kept = check.kept()
        planned, severity, holds = _by_speed(check, kept)
        slowest = min(states.must_hold, key=kept[:, 0].__getitem__)
        if kept[slowest, 0] < KEPT_SOUND:
            shown = values[slowest]
    else:
        if passed:
            planned = check.breach
        elif (
            (loaded is not None and loaded > LOADED_TIGHT_SHARE)
            or (holds is not None and holds < check.likely_share)
        ) and check.breach != "note":
            planned = "tight"
        severity = "tight" if beyond and planned == "ok" else planned

    state = states.must_hold[hard_values.index(shown)]
    spare = limit - shown if upward else shown - limit
    if sampled_spare is not None:
        p05, p95 = percentiles(sampled_spare[state, 1:])
    return Margin(
        id=f"{rule}:{check.subject}",
        rule=rule,
        family=family,
        label=check.label,
        unit=check.unit,
        value=shown,
        limit=limit,
        limit_kind=check.kind,
        spare=spare,
        spare_p05=p05,
        spare_p95=p95,
        holds_share=holds,
        loaded_share=loaded,
        ruler_share=_ruler(spare, span),
        ruler_p05=None if p05 is None else _ruler(p05, span),
        ruler_p95=None if p95 is None else _ruler(p95, span),
        severity=severity,
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


def _holding_share(check: Check, spares: FloatArray) -> float:
    """In which share of the draws a limit holds in every state that must."""
    if np.minimum.reduce(spares, axis=None) >= 0:
        return 1.0
    states = check.states
    # A moment over a limit for currents is ridden out, if it is not meant to be over.
    sure = [k for k in states.must_hold if not (check.lasting and states.ids[k] == START)]
    return float((spares[sure, 1:] >= 0).all(axis=0).mean())


def _by_speed(check: Check, kept: FloatArray) -> tuple[Severity, Severity, float | None]:
    """How much it matters that something slows itself in what is planned, and with all states; and
    in which share of the draws it hardly does in any state that must hold.
    """
    must_hold = list(check.states.must_hold)
    holds = None
    if kept.shape[1] > 1:
        holds = float((kept[must_hold, 1:] >= KEPT_SOUND).all(axis=0).mean())
    severities = [
        _speed_severity(check, share, is_hard)
        for share, is_hard in zip(kept[:, 0].tolist(), check.states.hard, strict=True)
    ]
    planned = [severities[k] for k in must_hold]
    if holds is not None and holds < HOLDS_TIGHT_SHARE:
        planned.append("tight")
    worst = max(planned, key=SEVERITY_RANK.__getitem__)
    return worst, max(worst, *severities, key=SEVERITY_RANK.__getitem__), holds


def _speed_severity(check: Check, kept: float, is_hard: bool) -> Severity:
    if kept >= KEPT_SOUND:
        return "ok"
    if is_hard:
        return "tight" if kept >= KEPT_STOPS else check.breach
    return "note" if kept >= KEPT_WORST_CASE_TIGHT else "tight"


def with_states(margin: Margin, check: Check) -> Margin:
    """A margin made of this check with how it stands in every state, at nominal figures; what only
    draws make tight is tight in the state that the margin shows.
    """
    values, limit = check.nominal_values(), margin.limit
    span = _span_of(check.unit, limit) if check.span is None else check.span
    spares = [limit - shown if check.kind == "max" else shown - limit for shown in values]
    if check.kept is not None and min(spares) < 0:
        kept = check.kept()[:, 0].tolist()
        severities = [
            _speed_severity(check, share, is_hard)
            for share, is_hard in zip(kept, check.states.hard, strict=True)
        ]
    else:
        severities = [
            (check.breach if is_hard else "tight") if spare < 0 else "ok"
            for spare, is_hard in zip(spares, check.states.hard, strict=True)
        ]
    if margin.severity not in severities:
        severities[margin.states.index(margin.state)] = margin.severity
    return replace(
        margin,
        spare_by_state=tuple(spares),
        ruler_by_state=tuple(_ruler(spare, span) for spare in spares),
        severity_by_state=tuple(severities),
    )


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
