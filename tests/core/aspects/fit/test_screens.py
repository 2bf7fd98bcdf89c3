"""Screens and their leads: three sizes of socket, and the lead in the drawer has another."""

import pytest

from cobblewort.core.aspects.fit.model import of as fit_of
from cobblewort.core.changing.fixes import propose_fixes
from cobblewort.core.judging.kit import Kit
from cobblewort.core.plans.patch import apply_patch
from tests.kits import checked, kit, shipped, told, with_part

MIDDLE = ("B06", "S01", "M02", "K03", "E03", "T04", "X27")


def test_a_screen_without_a_lead_is_told_with_both_sizes() -> None:
    """And the lead that joins them is the way out."""
    plan = kit(*MIDDLE)
    (finding,) = told(checked(plan), "FIT-28")
    assert finding.sentence.text == (
        "No cable connects Pane 10 (full-size video) to Hurdle 2 (micro video)."
    )
    first = propose_fixes(plan, shipped(), finding.id)[0]
    assert first.title.text == "Add Picture Micro"
    assert told(checked(apply_patch(plan, first.patch)), "FIT-28") == []


@pytest.mark.parametrize(
    ("board", "supply", "cable", "joined"),
    [
        ("B06", "S01", "C12", True),
        ("B06", "S01", "C11", False),
        ("B06", "S01", "C13", False),
        ("B04", "S06", "C11", True),
        ("B04", "S06", "C12", False),
    ],
)
def test_only_the_lead_of_the_right_size_joins(
    board: str, supply: str, cable: str, joined: bool
) -> None:
    """Full, mini and micro are three shapes; none goes into another."""
    report = checked(kit(board, supply, "M02", "E12", "X27", cable))
    assert (told(report, "FIT-28") == []) == joined


def test_a_second_board_is_no_screen() -> None:
    """It gives a picture and wants none; a screen may hang on either board."""
    assert told(checked(kit("2xB06", "2xS01", "2xM02")), "FIT-28") == []
    assert told(checked(kit("2xB06", "2xS01", "2xM02", "X27", "C12")), "FIT-28") == []
    assert len(told(checked(kit("2xB06", "2xS01", "2xM02", "X27")), "FIT-28")) == 1


def test_a_board_without_a_picture_says_so() -> None:
    """No lead helps there."""
    blind = with_part(
        id="B98",
        kind="board",
        part_class="middle_card",
        maker="m",
        model="Blind",
        sockets={"video1": None, "video2": None},
    )
    (finding,) = told(checked(kit("B98", "S01", "M02", "X27"), catalogue=blind), "FIT-28")
    assert finding.sentence.text == "Blind has no video port; Pane 10 needs one."


def test_the_opening_takes_the_plug_of_a_video_lead() -> None:
    """11 x 7 mm through 13 x 8 mm."""
    report = checked(kit(*MIDDLE, "C12"))
    assert [f for f in report.findings if f.rule in ("FIT-18", "FIT-19")] == []


def test_a_borrowed_screen_only_asks_for_a_borrowed_lead() -> None:
    """It is there for one evening."""
    (finding,) = told(checked(kit("B06", "S01", "M02", "K03", "E03", "T04", "T03")), "FIT-28")
    assert finding.severity == "note"
    assert finding.sentence.text.endswith("one for set-up.")


def test_a_full_size_socket_does_not_show_through_an_opening_for_a_micro_one() -> None:
    """15 mm of socket behind 13 mm of opening."""
    report = checked(kit("B04", "S06", "M02", "E03", "X27", "C11"))
    assert [f.severity for f in told(report, "FIT-19") if "video" in f.sentence.text] == ["problem"]


def ends(parts: tuple[str, ...]) -> dict[str, str]:
    """Where the ends of the video leads are."""
    placed = fit_of(Kit(kit(*parts), shipped(), 1)).placed
    return {plug: socket.id for plug, (_, socket) in placed.items() if plug.startswith("C1")}


@pytest.mark.parametrize(
    ("parts", "expected"),
    [
        # the lead of the other machine's picture, though the board has the same socket
        (("B04", "S06", "M02", "N01", "X30", "C11"), {"C11#1": ("N01#1.video", "X30#1.video")}),
        # two of one model: one for each way
        (
            ("B04", "S06", "M02", "N01", "X30", "2xC11", "X27"),
            {"C11#1": ("N01#1.video", "X30#1.video"), "C11#2": ("B04#1.video1", "X27#1.video")},
        ),
        # the screen stands first in the list, so that both ends have to change places
        (
            ("B06", "S01", "M02", "N01", "X27", "X30", "C12", "C11"),
            {"C11#1": ("N01#1.video", "X30#1.video"), "C12#1": ("B06#1.video1", "X27#1.video")},
        ),
    ],
)
def test_a_picture_goes_to_who_looks_at_it(
    parts: tuple[str, ...], expected: dict[str, tuple[str, str]]
) -> None:
    """That of the board to its screen, that of the other machine to what takes it in."""
    assert told(checked(kit(*parts)), "FIT-28") == []
    wanted = {f"{cable}.board": near for cable, (near, _) in expected.items()}
    wanted |= {f"{cable}.screen": far for cable, (_, far) in expected.items()}
    assert ends(parts) == wanted


def test_what_takes_a_picture_in_is_no_screen() -> None:
    """It wants no lead to the board; the one from the other machine is told, or asked for."""
    (alone,) = told(checked(kit("B06", "S01", "M02", "X30")), "FIT-28")
    assert (alone.severity, alone.lines) == ("note", ("X30",))
    plan = kit("B06", "S01", "M02", "X30", "N01")
    (missing,) = told(checked(plan), "FIT-28")
    assert missing.sentence.text == (
        "No video cable connects Desk computer to Snare (full-size video)."
    )
    assert propose_fixes(plan, shipped(), missing.id)[0].title.text == "Add Picture Full"


def test_a_lead_that_joins_nothing_is_told_once() -> None:
    """Its two ends are not two things to do; where a screen is dark, that is told instead."""
    report = checked(kit("B06", "S01", "M02", "C13"))
    assert told(report, "FIT-02") == []
    assert [(f.severity, f.sentence.text) for f in told(report, "FIT-44")] == [
        ("tight", "Nothing uses the Picture Mini cable: it is plugged in nowhere.")
    ]
    dark = checked(kit("B06", "S01", "M02", "X27", "C11"))
    assert (len(told(dark, "FIT-28")), told(dark, "FIT-44")) == (1, [])


def test_a_picture_socket_that_many_share_moves_nobody() -> None:
    """A part that somebody describes so is judged like any other."""
    wall = with_part(
        id="X90",
        kind="device",
        part_class="usb2_device",
        maker="m",
        model="Wall of screens",
        offers={"video_in": {}},
        sockets={"video": {"connector": "video-full", "role": "picture_in", "many": True}},
    )
    report = checked(kit("B04", "S06", "M02", "X90", "2xC11", "N01"), catalogue=wall)
    assert [f for f in told(report, "FIT-28") if f.severity == "problem"] == []
