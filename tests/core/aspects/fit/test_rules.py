import pytest

from cobblewort.core.plans.patch import EditLine, RemoveLine, apply_patch
from tests.kits import SMALL, checked, kit, margin, shipped, told, with_part


def test_a_sound_kit_fires_no_rule_of_fit() -> None:
    """Every rule of fit is silent on a kit that goes together."""
    report = checked(kit(*SMALL))
    assert [f for f in report.findings if f.family == "fit"] == []


@pytest.mark.parametrize(
    ("parts", "missing"),
    [
        ((), {"board", "power_supply", "boot_drive"}),
        (("B06", "S01"), {"boot_drive"}),
        (("B06", "M02"), {"power_supply"}),
        (("S01", "M02"), {"board"}),
    ],
)
def test_fit_01_names_what_is_missing(parts: tuple[str, ...], missing: set[str]) -> None:
    """One snag for each of board, supply and boot medium; none when all are there."""
    findings = told(checked(kit(*parts)), "FIT-01")
    assert {f.id.split(":")[1] for f in findings} == missing
    assert all(f.severity == "problem" for f in findings)


def test_fit_02_too_few_sockets() -> None:
    """Five plugs on four sockets; silent with four."""
    finding = told(checked(kit("B04", "S06", "M02", "5xX07")), "FIT-02")[0]
    assert finding.severity == "problem"
    assert finding.sentence.text == "1 of 5 Gloaming 384 has no free USB-A port: all 4 are in use."
    assert told(checked(kit("B04", "S06", "M02", "4xX07")), "FIT-02") == []


@pytest.mark.parametrize(
    ("parts", "told_of"),
    [
        ((*SMALL, "C02"), "the Braid C5 cable: it is plugged in nowhere"),
        ((*SMALL, "S05"), "the Traveller 65 power supply: it is plugged in nowhere"),
        ((*SMALL, "H02"), "the Tendril 4 S hub: nothing is plugged into it"),
        ((*SMALL, "A12"), "the Leash Q storage adapter: nothing is plugged into it"),
        ((*SMALL, "E01"), "nothing is checked in it"),
    ],
)
def test_fit_44_what_nothing_uses(parts: tuple[str, ...], told_of: str) -> None:
    """It is tight while it is to be bought, and a note where it is there; FIT-02 says no more."""
    plan = kit(*parts)
    report = checked(plan)
    (finding,) = told(report, "FIT-44")
    assert finding.severity == "tight"
    assert told_of in finding.sentence.text
    assert finding.lines[0] not in {line for f in told(report, "FIT-02") for line in f.lines}
    line = finding.lines[0]
    owned = apply_patch(plan, (EditLine(line=line, owned=True),))
    assert [f.severity for f in told(checked(owned), "FIT-44")] == ["note"]
    for change in (RemoveLine(line=line), EditLine(line=line, spare=True)):
        assert told(checked(apply_patch(plan, (change,))), "FIT-44") == []


@pytest.mark.parametrize(
    "parts",
    [
        SMALL,  # unused sockets of a board
        ("B04", "S05", "2xC01", "M02"),  # a second cable of a kind, in one line
        ("B04", "S06", "M02", "5xX07", "H03"),
        (*SMALL, "A12", "D11"),
        ("B04", "S06", "M02", "T04"),  # a borrowed reader with nothing in it
    ],
)
def test_fit_44_stays_silent(parts: tuple[str, ...]) -> None:
    """What is used, borrowed, or one more of what is used."""
    assert told(checked(kit(*parts)), "FIT-44") == []


def test_a_spare_is_bought_and_does_nothing() -> None:
    """It costs what it did, and stands for no supply, load or fit."""
    plan = kit("B04", "S06", "M02", "X07")
    spare = apply_patch(plan, (EditLine(line="X07", spare=True),))
    without = apply_patch(plan, (RemoveLine(line="X07"),))
    assert checked(spare).cost.total == checked(plan).cost.total
    assert [m.spare for m in checked(spare).margins] == [m.spare for m in checked(without).margins]
    unfed = checked(apply_patch(plan, (EditLine(line="S06", spare=True),)))
    assert [f.severity for f in told(unfed, "FIT-01")] == ["problem"]
    assert [line.spare for line in checked(spare).lines] == [False, False, False, True]


def test_fit_03_holes() -> None:
    """A pattern that the case lacks stops it; a plate takes any; unknown is a note."""
    own = {
        "id": "E99",
        "kind": "case",
        "part_class": "sealed_plastic",
        "maker": "m",
        "model": "Tin",
    }
    case = {
        "inner_length_mm": 120,
        "inner_width_mm": 90,
        "inner_height_mm": 50,
        "max_above_mm": 40,
        "max_below_mm": 8,
    }
    wrong = with_part(**own, case={**case, "holes": ["H2"]})
    plan = kit("B06", "S01", "M02", "E99")
    assert [f.severity for f in told(checked(plan, catalogue=wrong), "FIT-03")] == ["problem"]
    plate = with_part(**own, case={**case, "any_holes": True})
    assert told(checked(plan, catalogue=plate), "FIT-03") == []
    silent_board = with_part(**own, case={**case, "holes": ["H1"]}).extended(
        [
            {
                "id": "B06",
                "kind": "board",
                "part_class": "middle_card",
                "maker": "m",
                "model": "x",
                "stack": {"holes": None},
            }
        ]
    )
    findings = told(checked(plan, catalogue=silent_board), "FIT-03")
    assert [f.severity for f in findings] == ["note"]
    assert findings[0].sentence.text.startswith("Not checked:")


def test_fit_04_one_millimetre_too_long() -> None:
    """A board of 93 mm in a case of 92 mm, and one that just fits."""

    def with_length(length_mm: float) -> list[str]:
        catalogue = shipped().extended(
            [
                {
                    "id": "B06",
                    "kind": "board",
                    "part_class": "middle_card",
                    "maker": "m",
                    "model": "x",
                    "stack": {"length_mm": length_mm},
                }
            ]
        )
        report = checked(kit("B06", "S01", "M02", "E02"), catalogue=catalogue)
        return [f.id for f in told(report, "FIT-04")]

    assert with_length(93) == ["FIT-04:length"]
    assert with_length(92) == []


def test_fit_05_the_lid_does_not_close_over_a_tower() -> None:
    """Die 2.4 + paste 0.05 + tower 52 in a case with 40 mm; the plate sink fits."""
    report = checked(kit("B10", "S03", "M02", "K07", "E03"))
    assert margin(report, "FIT-05:above").value == pytest.approx(2.4 + 0.05 + 52)
    assert [f.severity for f in told(report, "FIT-05")] == ["problem"]
    assert told(checked(kit("B10", "S03", "M02", "K03", "E03")), "FIT-05") == []


def test_fit_05_a_board_below_needs_depth() -> None:
    """12 mm below in a case with 3 mm; 14 mm hold it."""
    low = checked(kit("B10", "S03", "M02", "A06", "D04", "E02"))
    assert margin(low, "FIT-05:below").spare == pytest.approx(3 - 12)
    deep = checked(kit("B10", "S03", "M02", "A06", "D04", "E03"))
    assert margin(deep, "FIT-05:below").spare == pytest.approx(2)


@pytest.mark.parametrize(
    ("cooler", "add_on", "spare_mm"), [("K05", "A01", 9 - 13.9), ("K06", "A02", 16 - 16.4)]
)
def test_fit_06_cooler_under_a_board_above(cooler: str, add_on: str, spare_mm: float) -> None:
    """Die 2.4, pad 0.5 and the cooler against the free height."""
    report = checked(kit("B10", "S03", "M02", cooler, add_on, "D03", "E03"))
    assert margin(report, f"FIT-06:{add_on}#1").spare == pytest.approx(spare_mm)
    assert [f.severity for f in told(report, "FIT-06")] == ["problem"]


def test_fit_06_silent_where_there_is_room_and_loud_under_a_tower() -> None:
    """A plate sink of 11 mm clears 16; a tower lets no board stand above it."""
    assert told(checked(kit("B10", "S03", "M02", "K03", "A02", "D06", "E03")), "FIT-06") == []
    findings = told(checked(kit("B10", "S03", "M02", "K07", "A02", "D06", "E01")), "FIT-06")
    assert "for a board above" in findings[0].sentence.text


def test_fit_07_a_drive_that_is_too_long() -> None:
    """80 mm in a socket for 30 and 42; the short one is silent."""
    finding = told(checked(kit("B10", "S03", "M02", "A04", "D06")), "FIT-07")[0]
    assert finding.severity == "problem"
    assert "2230 and 2242" in finding.sentence.text
    assert finding.sockets == ("A04#1.m2",)
    assert told(checked(kit("B10", "S03", "M02", "A04", "D03")), "FIT-07") == []


def test_fit_08_the_right_shape_and_the_wrong_protocol() -> None:
    """SATA in a PCIe socket will not be detected; PCIe is silent."""
    finding = told(checked(kit("B10", "S03", "M02", "A02", "D08")), "FIT-08")[0]
    assert finding.severity == "problem"
    assert "not detect" in finding.sentence.text
    assert told(checked(kit("B10", "S03", "M02", "A02", "D06")), "FIT-08") == []


def test_fit_09_the_lead_is_missing() -> None:
    """A supply with a socket needs a lead; with one the rule is silent."""
    report = checked(kit("B06", "S07", "M02"))
    assert "(USB-A port)" in told(report, "FIT-09")[0].sentence.text
    assert told(checked(kit("B06", "S07", "C04", "M02")), "FIT-09") == []


def test_fit_45_what_lies_outside_gets_wet() -> None:
    """In one note with its names; what is rated, inside or in the dry is not told of."""
    parts = ("B07", "S02", "M02", "X17", "X03", "X23", "X28", "E04")
    wet = checked(kit(*parts, place={"wet": True, "ambient_min_c": 0, "ambient_max_c": 30}))
    (finding,) = told(wet, "FIT-45")
    assert (finding.severity, set(finding.lines)) == ("note", {"S02", "X17"})
    assert told(checked(kit(*parts)), "FIT-45") == []
    covered = kit("B07", "S33", "M02", "X23", "X03", "E04", place={"wet": True, "power": "solar"})
    assert told(checked(covered), "FIT-45") == []
