from dataclasses import replace

import numpy as np
import pytest

from cobblewort.core.judging.margin import Check, Margin, margin_of, with_states
from cobblewort.core.judging.severity import SEVERITY_RANK, SLOWS, WARNS
from cobblewort.core.judging.states import LookedAt, State


def check(value: object, limit: object, kind: str = "max", **fields: object) -> Check:
    """A check with a sentence that nobody reads."""
    return Check(  # type: ignore[arg-type]
        "x",
        "X",
        "A",
        kind,
        np.array(value, dtype=float),
        np.array(limit, dtype=float),
        lambda _: "",
        ("line",),
        **fields,
    )


def states(**others: bool) -> LookedAt:
    """Idle, which must hold, and others that must or need not."""
    named = {"idle": True, **others}.items()
    made = [State(name, name.title(), hard, False) for name, hard in named]
    return LookedAt.of(made, list(range(len(made))))


def checked(*args: object, **fields: object) -> Margin:
    """The margin of a check."""
    given = check(*args, **fields)  # type: ignore[arg-type]
    return margin_of("T-01", "power_supply", given, given.value.shape[-1])  # type: ignore[union-attr]


def test_spare_is_signed_by_the_kind_of_limit() -> None:
    """A maximum leaves limit less value, a minimum value less limit."""
    assert checked([2.0], [3.0]).spare == pytest.approx(1.0)
    assert checked([2.0], [3.0], "min").spare == pytest.approx(-1.0)


def test_a_hard_state_below_zero_stops() -> None:
    """The worst hard state decides, and names itself."""
    margin = checked([[1.0], [4.0]], [3.0], states=states(start=True))
    assert (margin.severity, margin.state, margin.spare) == ("problem", "start", -1.0)


def test_a_soft_state_below_zero_is_a_note() -> None:
    """Only everything at once breaks it, by less than a quarter; from there on it is tight."""
    margin = checked([[1.0], [3.7]], [3.0], states=states(all=False))
    assert (margin.severity, margin.state) == ("note", "idle")
    assert checked([[1.0], [3.75]], [3.0], states=states(all=False)).severity == "tight"


def test_a_breach_can_be_tight_by_its_nature() -> None:
    """A low-voltage mark is not a stop."""
    assert checked([4.5], [4.63], "min", consequence=WARNS).severity == "tight"


@pytest.mark.parametrize(("value", "severity"), [(2.39, "ok"), (2.41, "tight")])
def test_an_electrical_limit_above_80_percent_for_long_is_tight(
    value: float, severity: str
) -> None:
    """Each side of 80 % of 3 A; a burst to 97 % for a moment is nothing."""
    margin = checked([2.9], [3.0], lasting=value)
    assert margin.severity == severity
    assert margin.is_loaded_for_hours == (severity == "tight")
    assert margin.loaded_share == pytest.approx(value / 3)


def test_what_breaks_only_in_stress_keeps_its_planned_figures() -> None:
    """The bar is that of the planned state; the stress is beside it, and in the sentence."""
    margin = checked([[1.0], [4.0]], [3.0], states=states(all=False))
    assert (margin.value, margin.spare, margin.planned) == (1.0, 2.0, "ok")
    assert margin.worst_case is not None
    assert margin.worst_case.spare == -1.0
    told = margin.stressed()
    assert (told.value, told.spare, told.state, told.holds_share) == (4.0, -1.0, "all", None)


@pytest.mark.parametrize(("failing", "severity"), [(30, "ok"), (31, "tight")])
def test_it_must_hold_in_70_percent_of_the_samples(failing: int, severity: str) -> None:
    """100 draws after the nominal one; sample 0 stays out of the share."""
    value = np.array([1.0] * (101 - failing) + [4.0] * failing)
    margin = checked(value, [3.0])
    assert margin.severity == severity
    assert margin.holds_share == pytest.approx(1 - failing / 100)


def test_a_share_is_that_of_the_state_whose_figure_is_told() -> None:
    """The state that holds in half of the draws is told, with its half; not one that always does,
    nor the share in which all hold.
    """
    value = np.array([[1.0] * 101, [2.0] * 51 + [4.0] * 50, [2.5] + [2.5, 2.5, 4.0, 2.5] * 25])
    margin = checked(value, [3.0], states=states(day=True, night=True))
    assert (margin.severity, margin.state, margin.value) == ("tight", "day", 2.0)
    assert margin.holds_share == pytest.approx(0.5)


def test_percentiles_are_those_of_numpy_without_the_nominal_sample() -> None:
    """The 5 and 95 % values interpolate between order statistics."""
    rng = np.random.default_rng(3)
    value = rng.uniform(0, 3, 256)
    margin = checked(value, [3.0])
    expected = np.percentile(3.0 - value[1:], [5, 95])
    assert [margin.spare_p05, margin.spare_p95] == pytest.approx(list(expected))


def test_nominal_alone_has_no_band() -> None:
    """With one sample nothing is said about the rest."""
    margin = checked([1.0], [3.0])
    assert (margin.spare_p05, margin.spare_p95, margin.holds_share) == (None, None, None)


@pytest.mark.parametrize(("value", "share"), [(0, 1.0), (3, 0.5), (6, 0.0), (60, -0.5), (-60, 1.0)])
def test_the_ruler_is_clipped(value: float, share: float) -> None:
    """Spare over limit, from -0.5 to 1."""
    assert checked([float(value)], [6.0]).ruler_share == pytest.approx(share)


def test_a_span_replaces_the_limit() -> None:
    """A voltage's ruler is as long as what lies between source and limit."""
    margin = checked([4.9], [4.6], "min", span=0.5)
    assert margin.ruler_share == pytest.approx(0.6)


def test_what_is_not_finite_is_a_fault_of_the_rule() -> None:
    """A rule must say "not known" instead of handing over a NaN."""
    with pytest.raises(ValueError, match="must be finite"):
        checked([float("nan")], [3.0])


def test_every_state_is_told() -> None:
    """The page draws one state at a time."""
    given = check([[1.0], [4.0]], [3.0], states=states(all=False))
    margin = margin_of("T-01", "power_supply", given, 1)
    margin = with_states(margin, given, 1)
    assert margin.states == ("idle", "all")
    assert margin.spare_by_state == (2.0, -1.0)
    assert margin.severity_by_state == ("ok", "tight"), "by a third"


@pytest.mark.parametrize(
    ("planned", "at_once", "severity"),
    [
        (1.0, 1.0, "ok"),
        (0.90, 0.90, "ok"),
        (0.89, 1.0, "tight"),
        (0.60, 1.0, "tight"),
        (0.59, 1.0, "problem"),
        (1.0, 0.97, "ok"),
        (1.0, 0.10, "ok"),
        (0.59, 0.0, "problem"),
    ],
)
def test_what_slows_itself_is_judged_by_the_speed_it_keeps(
    planned: float, at_once: float, severity: str
) -> None:
    """All states past the limit; only what must hold counts, and the margin shows that state."""
    given = check([[70.0], [90.0], [120.0]], [80.0], states=states(day=True, all=False))
    given = replace(given, consequence=SLOWS, kept=lambda: np.array([[1.0], [planned], [at_once]]))
    margin = margin_of("T-01", "heat", given, 1)
    margin = with_states(margin, given, 1)
    assert (margin.severity, margin.state, margin.value) == (severity, "day", 90.0)
    assert margin.severity_by_state[0] == "ok"


def test_what_slows_itself_in_some_draws_is_tight() -> None:
    """As many draws must keep their speed as must hold any other limit."""
    value = np.full((1, 101), 79.0)
    value[0, 1:32] = 81.0
    kept = np.ones((1, 101))
    given = replace(check(value, np.full(101, 80.0)), consequence=SLOWS, kept=lambda: kept)
    assert margin_of("T-01", "heat", given, 101).severity == "ok", "they keep their speed"
    kept[0, 1:32] = 0.89
    margin = margin_of("T-01", "heat", given, 101)
    assert (margin.severity, margin.holds_share) == ("tight", pytest.approx(0.69))
    margin = with_states(margin, given, 101)
    assert margin.severity_by_state == ("tight",), "though its nominal figure is sound"


def test_nobody_asks_how_fast_it_is_where_nothing_is_too_hot() -> None:
    """To settle what slows itself takes solutions of its own."""

    def unasked() -> np.ndarray:
        raise AssertionError

    given = check([70.0], [80.0])
    given = replace(given, kept=unasked)
    assert margin_of("T-01", "heat", given, 1).severity == "ok"


@pytest.mark.parametrize(("limit", "share"), [(25.0, 0.25), (120.0, 0.25), (240.0, 0.25)])
def test_a_gap_is_measured_on_one_scale(limit: float, share: float) -> None:
    """5 mm are a quarter of a full ruler, in a small case and in a tower."""
    gap = replace(check([limit - 5.0], [limit]), unit="mm")
    margin = margin_of("T-01", "fit", gap, 1)
    assert margin.ruler_share == pytest.approx(share)


def test_each_severity_outweighs_the_one_before() -> None:
    """Sound, note, tight, stops."""
    assert sorted(SEVERITY_RANK, key=SEVERITY_RANK.__getitem__) == [
        "ok",
        "note",
        "tight",
        "problem",
    ]
    assert len(set(SEVERITY_RANK.values())) == len(SEVERITY_RANK)
