"""Room between plugs: what a careful person would find by trying every arrangement."""

import itertools

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from cobblewort.core.aspects.fit.assign import (
    Assignment,
    PlugRef,
    SocketRef,
    assign,
    fits,
    keep_out,
)
from cobblewort.core.aspects.fit.model import of as fit_of
from cobblewort.core.changing.fixes import propose_fixes
from cobblewort.core.judging.item import expand
from cobblewort.core.judging.kit import Kit
from cobblewort.core.plans.patch import PinPlug, apply_patch
from cobblewort.core.plans.plan import Plan
from tests.kits import SMALL, checked, kit, shipped, told

THINGS = ["X05", "X06", "X08", "X09", "X10", "X11", "X30"]


def assigned(plan: Plan) -> Assignment:
    """What goes where."""
    return assign(expand(plan, shipped(), 1))


def plan_of(*things: str) -> Plan:
    """Each thing on a line of its own, on a card with four stacked sockets."""
    lines = [{"id": "board", "role": "board", "part": "B06"}]
    lines += [{"id": f"x{n}", "role": "add_on", "part": part} for n, part in enumerate(things)]
    return Plan.model_validate({"name": "t", "lines": lines})


def goes_somehow(plugs: list[PlugRef], sockets: list[SocketRef]) -> bool:
    """Brute force: some way of plugging everything in keeps every pair apart."""
    for chosen in itertools.permutations(sockets, len(plugs)):
        pairs = list(zip(plugs, chosen, strict=True))
        if all(fits(p, s) for p, s in pairs) and not any(
            keep_out(p, s, q, t) for (p, s), (q, t) in itertools.combinations(pairs, 2)
        ):
            return True
    return False


@settings(max_examples=60, deadline=None)
@given(st.lists(st.sampled_from(THINGS), min_size=1, max_size=4))
def test_an_arrangement_is_found_whenever_there_is_one(things: list[str]) -> None:
    """Against trying all of them."""
    result = assigned(plan_of(*things))
    plugs = [plug for plug, _ in result.placed.values()]
    sockets = [s for s in result.sockets.values() if s.socket.connector == "usb-a"]
    assert (result.crowded == []) == goes_somehow(plugs, sockets)
    assert not result.gave_up
    assert len(plugs) == len(things)


def test_wide_things_go_apart_of_their_own_accord() -> None:
    """Two sticks of 24 and 20 mm want (24 + 20) / 2 = 22 mm; the stacks lie 18 mm apart and the
    sockets of a stack 7.4 mm: nowhere to go. A thin one beside a wide one has room crosswise.
    """
    assert assigned(plan_of("X08", "X05")).crowded
    assert assigned(plan_of("X10", "X09")).crowded == []
    (pair,) = assigned(plan_of("X08", "X05")).crowded
    assert (pair.wanted_mm, round(pair.apart_mm, 1)) in ((22.0, 18.0), (11.5, 7.4))


def test_a_pinned_plug_stays_and_the_others_move() -> None:
    """The user's choice is kept even where it costs an arrangement."""
    plan = plan_of("X10", "X09")
    free = assigned(plan)
    there = free.placed["x0#1.usb"][1].id
    pinned = apply_patch(plan, (PinPlug(line="x1", plug="usb", socket=there),))
    result = assigned(pinned)
    assert result.placed["x1#1.usb"][1].id == there
    assert result.placed["x0#1.usb"][1].id != there


def test_the_snag_names_both_and_the_extension_lead_settles_it() -> None:
    """The cheapest way out that gives nothing up costs EUR 5 and takes the wide one away."""
    plan = kit(*SMALL, "X11", "X05")
    (finding,) = told(checked(plan), "FIT-18")
    assert finding.severity == "problem"
    assert "24.5 mm" in finding.sentence.text
    fixes = propose_fixes(plan, shipped(), finding.id)
    assert any("Tail A" in fix.title.text and finding.id in fix.resolves for fix in fixes)
    first = fixes[0]
    after = apply_patch(plan, first.patch)
    assert told(checked(after), "FIT-18") == []


def test_a_hub_hangs_on_a_hub_but_never_in_a_ring() -> None:
    """Five things and four hubs fill a board with four sockets; chains end at the board."""
    result = assigned(kit("B04", "5xH02", "3xX07"))
    assert result.unplaced == []
    hubs = {p.item.id: s.item for p, s in result.placed.values() if p.name == "up"}
    for start, first in hubs.items():
        seen, at = {start}, first
        while at.part.kind == "hub":
            assert at.id not in seen
            seen.add(at.id)
            at = hubs[at.id]
        assert at.part.kind == "board"


def test_forty_wide_things_end_in_time_and_in_words() -> None:
    """Where there is no room for all, the search stops and the rest is told as too few sockets."""
    report = checked(kit(*SMALL, "40xX11"))
    assert told(report, "FIT-02")
    assert told(report, "FIT-18")


@pytest.mark.parametrize("spare", [0, 1, 2])
def test_another_socket_never_brings_a_clash(spare: int) -> None:
    """With sockets of hubs added, what had room keeps it."""
    things = ("X10", "X09")
    assert assigned(plan_of(*things, *["H02"] * spare)).crowded == []


def test_an_extension_is_used_for_what_it_was_bought_for() -> None:
    """A wide stick, and one that hears at 2.4 GHz, go onto it; a slim fast one does not."""

    def where(*parts: str) -> dict[str, str]:
        placed = fit_of(Kit(kit("B06", "S01", "M02", *parts), shipped(), 1)).placed
        return {plug: socket.id for plug, (_, socket) in placed.items()}

    assert where("C07", "X09")["X09#1.usb"] == "C07#1.out"
    assert where("X30", "C07")["X30#1.usb"] == "C07#1.out"
    assert where("C07", "D09", "A12")["A12#1.usb"].startswith("B06#1.")
    placed = where("2xC07", "X09", "X30")
    assert {placed["C07#1.in"][:3], placed["C07#2.in"][:3]} == {"B06"}, "never one on another"
    assert told(checked(kit("B06", "S01", "M02", "X09", "C07", "D09", "A12")), "FIT-40") == []
