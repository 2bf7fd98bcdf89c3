from dataclasses import asdict, fields

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from cobblewort.core.errors import UnknownPartError
from cobblewort.core.judging.rules import RULES
from cobblewort.core.parts.model import PART
from cobblewort.core.plans.plan import Plan
from cobblewort.core.verdict.report import ASPECTS, RULERS, Report
from tests.kits import SMALL, checked, demo, kit, margin, shipped, told, with_part

SHIPPED_IDS = [part.id for part in shipped().parts()]


def test_the_bat_recorder_is_sound() -> None:
    """Demo 1: nothing stops it, nothing is tight."""
    report = checked(demo("bat-recorder"), 256)
    assert report.severity == "ok"
    assert report.findings == []
    assert [f.id for f in report.aside] == ["SAFE-04:static"]


def test_the_moss_cabinet_is_tight_by_its_card() -> None:
    """Demo 2: the card lasts about as long as is wanted, which is told with how sure that is; the
    film under the lamp costs some of the clock in some cases, which nobody notices.
    """
    report = checked(demo("moss-cabinet"), 256)
    assert report.severity == "tight"
    (tight,) = [f for f in report.findings if f.severity == "tight"]
    assert tight.rule == "LIFE-01"
    holds = margin(report, tight.margin or "").holds_share
    assert holds is not None
    assert 0.2 < holds < 0.7
    assert told(report, "HEAT-01") == []
    good_up_to = report.heat.hottest_ambient_c
    assert good_up_to is not None
    assert 32 < good_up_to < 42


def test_the_choir_recorder_shows_its_three_mistakes() -> None:
    """Demo 3: a tower too tall, a drive too long, a supply too small that cannot announce 5 A."""
    report = checked(demo("choir-recorder"), 256)
    stops = {f.rule for f in report.findings if f.severity == "problem"}
    assert stops == {"FIT-05", "FIT-07", "PWR-02", "PWR-04"}


def test_the_repaired_choir_recorder_is_stopped_by_nothing() -> None:
    """Supply that announces 5 A, a short second drive, a clip-on cooler."""
    plan = kit(
        "B10",
        "S03",
        "M02",
        "D06",
        "D04",
        "A06",
        "X06",
        "K05",
        "E03",
        place={"ambient_max_c": 26},
        schedule=[{"name": "recording", "hours": 2.5, "activity": "light"}],
    )
    assert checked(plan, 256).count("problem") == 0


def test_rulers_stand_in_the_order_of_the_aspects() -> None:
    """Those with nothing to look at say what is missing."""
    report = checked(kit(*SMALL))
    assert [f.id for f in report.families] == [ruler.id for ruler in RULERS]
    missing = {f.id: f.why_not for f in report.families if not f.checked}
    said = {"data": "no rate required", "cost": "no budget", "noise": "no noise limit"}
    assert said.items() <= missing.items()
    missing = {f.id: f.why_not for f in checked(kit("M02")).families}
    assert (missing["power"], missing["heat"]) == ("no power supply", "no board")
    assert {f.id: f.why_not for f in checked(kit("B06")).families}[
        "lifetime"
    ] == "no part with lifetime data"


def test_of_full_bars_the_one_that_may_be_none_is_told() -> None:
    """A recorder's card and a fan both outlast it: with draws the one that is less sure."""
    plan = kit("B10", "S03", "M02", "K05", "E03", retention={"years": 1, "writes": "light"})
    rulers = {}
    for samples in (1, 128):
        report = checked(plan, samples)
        lifetime = next(f for f in report.families if f.id == "lifetime")
        own = [m for m in report.margins if m.family == "lifetime"]
        full = [m for m in own if m.ruler_share == 1.0]
        assert len(full) > 1, [m.spare for m in own]
        rulers[samples] = lifetime.margin
        least = min(full, key=lambda m: (1.0 if m.ruler_p05 is None else m.ruler_p05, m.spare))
        assert lifetime.margin == least.id
    assert rulers[128] == "LIFE-02:K05#1.fan"


def test_a_ruler_is_the_worst_of_its_family() -> None:
    """By severity first, then by the lowest ruler."""
    report = checked(demo("choir-recorder"), 256)
    supply = next(f for f in report.families if f.id == "power")
    own = [m for m in report.margins if m.family == "power" and m.severity == "problem"]
    assert supply.severity == "problem"
    assert supply.ruler_share == min(m.ruler_share for m in own)


def test_a_family_stopped_without_a_number_shows_no_ruler() -> None:
    """A missing socket has no spare: mark and sentence stand alone."""
    report = checked(kit(*SMALL, "A02"))
    fit = next(f for f in report.families if f.id == "fit")
    assert (fit.severity, fit.margin, fit.ruler_share) == ("problem", None, None)


def test_findings_are_worst_first_and_name_lines_that_exist() -> None:
    """Order and references hold on every demo plan."""
    rank = {"problem": 0, "tight": 1, "note": 2}
    for plan_id in ("bat-recorder", "moss-cabinet", "choir-recorder"):
        plan = demo(plan_id)
        report = checked(plan, 64)
        order = [rank[f.severity] for f in report.findings]
        assert order == sorted(order)
        lines = {line.id for line in plan.lines}
        assert all(set(f.lines) <= lines for f in report.findings)
        assert all(f.margin is None or report.margin(f.margin) for f in report.findings)


def test_an_unknown_part_is_an_error_with_its_place() -> None:
    """The line that names it is told."""
    with pytest.raises(UnknownPartError) as caught:
        checked(kit("B06", "S99"))
    assert caught.value.problems[0][0] == "lines.1.part"


def test_evaluating_twice_gives_the_same_bits() -> None:
    """Bands included."""
    assert asdict(checked(demo("choir-recorder"), 64)) == asdict(
        checked(demo("choir-recorder"), 64)
    )


def test_nominal_figures_do_not_depend_on_the_samples() -> None:
    """Sample 0 is the nominal evaluation."""
    one, many = checked(demo("choir-recorder"), 1), checked(demo("choir-recorder"), 64)
    for a, b in zip(one.margins, many.margins, strict=True):
        assert a.id == b.id
        assert a.value == pytest.approx(b.value, rel=1e-3, abs=0.02)


def test_an_edit_elsewhere_moves_no_band() -> None:
    """A draw is keyed by part and field: another drive leaves the cooler's room as it was."""
    before = checked(kit(*SMALL), 64).margin("FIT-05:above")
    after = checked(kit(*SMALL, "X07"), 64).margin("FIT-05:above")
    assert before == after


@settings(max_examples=80, deadline=None)
@given(
    st.lists(st.sampled_from(SHIPPED_IDS), min_size=0, max_size=12, unique=True),
    st.floats(-40, 80),
    st.sampled_from([1, 8]),
)
def test_any_kit_from_the_catalogue_is_judged(
    parts: list[str], ambient: float, samples: int
) -> None:
    """Property: evaluate never raises on a valid plan, and no figure is NaN."""
    plan = kit(*parts, place={"ambient_min_c": -40, "ambient_max_c": ambient})
    report = checked(plan, samples)
    assert all(abs(m.ruler_share) <= 1 for m in report.margins)
    assert report.severity == (report.findings[0].severity if report.findings else "ok")


def test_swapping_two_equal_things_changes_nothing() -> None:
    """Property: the order of two lines with the same part does not matter to any figure."""
    plan = kit(*SMALL)
    extra = [
        {"id": "a", "role": "add_on", "part": "X07"},
        {"id": "b", "role": "add_on", "part": "X07"},
    ]
    lines = [line.model_dump() for line in plan.lines]
    one = checked(Plan.model_validate({"name": "t", "lines": [*lines, *extra]}))
    two = checked(Plan.model_validate({"name": "t", "lines": [*lines, *reversed(extra)]}))
    assert sorted(m.spare for m in one.margins) == pytest.approx(
        sorted(m.spare for m in two.margins)
    )


@settings(max_examples=30, deadline=None)
@given(st.floats(0.0, 0.3), st.floats(0.0, 0.3))
def test_a_wider_input_band_never_narrows_an_output_band(narrow: float, more: float) -> None:
    """Property: doubt about the board's draw can only widen the band of the supply's margin.

    By chance the draws of two figures go a little against each other (a correlation of about
    1/sqrt(256)), so that a very small added doubt may hide within a few percent of the band.
    """

    def band(share: float) -> float:
        figure = {
            "nominal": 6.2,
            "low": 6.2 * (1 - share),
            "high": 6.2 * (1 + share),
            "basis": "estimate",
        }
        base = PART.dump_python(shipped().part("B06"), mode="json")
        base["loads"]["own"]["peak"] = figure
        report = checked(kit(*SMALL), 256, shipped().extended([base]))
        found = report.margin("PWR-02:S01#1.out")
        assert found is not None
        assert found.spare_p05 is not None
        assert found.spare_p95 is not None
        return found.spare_p95 - found.spare_p05

    assert band(narrow + more) >= 0.97 * band(narrow)


def test_four_hundred_parts_are_judged() -> None:
    """The most a plan may hold: a sentence for what finds no socket, and no error."""
    report = checked(kit(*SMALL[:5], "395xX07"))
    sentences = [finding.sentence.text for finding in told(report, "FIT-02")]
    assert sentences == ["391 of 395 Gloaming 384 have no free USB-A port: all 4 are in use."]


@pytest.mark.parametrize(
    ("parts", "role", "rule"),
    [
        ((), "board", None),
        (("B06",), "power_supply", None),
        (("B06", "S01"), "boot_drive", None),
        (("B06", "S01", "M02", "A02"), None, "FIT-02"),
        (("B06", "S01", "M02", "C13"), None, "FIT-44"),
        (("B06", "S01", "M02"), "case", None),
        (("B06", "S01", "M02", "K03"), "case", None),
        (("B06", "S01", "M02", "E03"), None, None),  # cool enough as it is
        (("B10", "S03", "M02", "E03"), "cooling", None),
        (SMALL, None, None),
    ],
)
def test_the_one_next_thing_to_do(
    parts: tuple[str, ...], role: str | None, rule: str | None
) -> None:
    """What is missing first, then what stops it, then what is still open."""
    step = checked(kit(*parts)).next_step
    assert step.role == role
    assert (step.finding or "").split(":")[0] == (rule or "")
    assert step.text.text.endswith(".")


def test_what_is_next_once_nothing_is_wrong() -> None:
    """What nothing uses, then what is asked of it, then to buy, build and test; never a budget that
    nobody wants to set.
    """
    idle = checked(kit(*SMALL, "H02")).next_step
    assert idle.finding == "FIT-44:H02"
    assert idle.text.text.endswith("Remove it, or mark it as spare.")
    assert "Open Purpose" in checked(kit(*SMALL)).next_step.text.text
    wifi = {"id": "a", "text": "Wi-Fi", "function": "wifi"}
    steps = [
        checked(kit(*SMALL, requirements=[wifi], status=status)).next_step.text.text
        for status in ("planning", "ordered", "built", "tested")
    ]
    assert "order the parts" in steps[0]
    assert "Tested" in steps[2]
    assert len(set(steps)) == 4


WIFI = [{"id": "a", "text": "Wi-Fi", "function": "wifi"}]
ON_ITS_PORT = ("B06", "S01", "M02", "D11", "A12", "E01")
"""A spinning disk on the USB port of a middle board, which gives by typical figures just enough."""


def test_what_is_worth_measuring_is_told_last() -> None:
    """A limit that holds in fewer than nine of ten likely cases, with the figure that decides it
    and can be measured: after buying it, or at once what is there already.
    """
    plan = kit(*ON_ITS_PORT, requirements=WIFI)
    step = checked(plan, 256).next_step
    assert step.figure is not None
    assert (margin(checked(plan, 256), step.figure).holds_share or 0) < 0.9
    assert "When it arrives, measure the draw of Drum 1T." in step.text.text
    lines = [line.model_copy(update={"owned": line.id == "D11"}) for line in plan.lines]
    owned = checked(plan.model_copy(update={"lines": tuple(lines)}), 256).next_step
    assert owned.text.text.startswith("Measure the draw of Drum 1T.")


@pytest.mark.parametrize(
    ("parts", "samples", "status"),
    [
        (SMALL, 256, "planning"),  # all is sure enough
        (ON_ITS_PORT, 1, "planning"),  # nominal figures tell nothing of it
        (ON_ITS_PORT, 256, "tested"),  # the test has shown it
    ],
)
def test_nothing_is_to_be_measured(parts: tuple[str, ...], samples: int, status: str) -> None:
    """What is sure, not drawn, or proven."""
    step = checked(kit(*parts, requirements=WIFI, status=status), samples).next_step
    assert (step.figure, "easure" in step.text.text) == (None, False)


def test_a_figure_that_a_part_lacks_is_asked_for() -> None:
    """Before anything is ordered; not once its note is ticked."""
    catalogue = with_part(id="F90", kind="fastener", maker="m", model="Gift")
    plan = kit(*SMALL, "F90", requirements=WIFI)
    step = checked(plan, 1, catalogue).next_step
    assert step.finding == "COST-02:F90"
    assert step.text.text.endswith("measure it, and enter it under Parts.")
    done = plan.model_copy(update={"done": ("COST-02:F90",)})
    assert "order the parts" in checked(done, 1, catalogue).next_step.text.text


def test_every_rule_explains_itself() -> None:
    """Title, reason, formula and source are there, and the id carries its family."""
    assert len(RULES) >= 15
    for rule in RULES.values():
        assert all((rule.title, rule.why, rule.formula, rule.source))
        of = [aspect for aspect in ASPECTS if rule.id.startswith(f"{aspect.prefix}-")]
        assert [aspect.family for aspect in of] == [rule.family]
        assert rule.function.__doc__


def test_the_list_of_aspects_and_the_report_agree() -> None:
    """Each aspect that lays something out has its field, and each field its aspect."""
    laid_out = {aspect.id for aspect in ASPECTS if aspect.report is not None}
    general = {
        "plan",
        "samples",
        "severity",
        "families",
        "margins",
        "findings",
        "done",
        "aside",
        "lines",
        "next_step",
    }
    assert {field.name for field in fields(Report)} - general == laid_out


def test_a_reminder_that_is_ticked_is_put_away() -> None:
    """Out of the findings and told beside them; a snag that is no note cannot be ticked."""
    reminder = {"id": "copy", "text": "Keep a second copy."}
    plan = kit(*SMALL, reminders=[reminder], place={"ambient_max_c": 60})
    before = checked(plan)
    assert [f.sentence.text for f in told(before, "SAFE-05")] == ["Keep a second copy."]
    stops = next(f.id for f in before.findings if f.severity == "problem")
    ticked = plan.model_copy(update={"done": ("SAFE-05:copy", stops, "gone")})
    after = checked(ticked)
    assert told(after, "SAFE-05") == []
    assert [f.id for f in after.done] == ["SAFE-05:copy"]
    assert after.count("problem") == before.count("problem")


def test_a_reminder_about_something_waits_for_it() -> None:
    """Microphones are reminded of where there are any."""
    reminder = {"id": "people", "text": "Tell them.", "about": "audio_in"}
    assert told(checked(kit(*SMALL, reminders=[reminder])), "SAFE-05") == []
    assert told(checked(kit(*SMALL, "X05", reminders=[reminder])), "SAFE-05") != []
