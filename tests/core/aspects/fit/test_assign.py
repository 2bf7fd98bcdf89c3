import itertools

from hypothesis import given, settings
from hypothesis import strategies as st

from cobblewort.core.aspects.fit.assign import Assignment, assign, fits
from cobblewort.core.changing.fixes import propose_fixes
from cobblewort.core.judging.item import expand
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.patch import apply_patch
from cobblewort.core.plans.plan import Plan
from tests.kits import checked, kit, shipped, told


def assigned(plan: Plan, catalogue: Catalogue | None = None) -> Assignment:
    return assign(expand(plan, (catalogue or shipped()).for_plan(plan), 1))


def where(result: Assignment) -> dict[str, str]:
    return {plug: socket.id for plug, (_, socket) in result.placed.items()}


def test_the_slowest_sufficient_socket_comes_first() -> None:
    """A USB 2 thing leaves the USB 3 sockets to the bridge that wants them."""
    found = where(assigned(kit("B06", "X06", "A12")))
    assert found["X06#1.usb"] == "B06#1.usb3"
    assert found["A12#1.usb"] == "B06#1.usb1"


def test_a_fast_thing_takes_a_slow_socket_when_the_fast_ones_are_gone() -> None:
    """USB 3 works in USB 2, slower."""
    found = where(assigned(kit("B06", "3xA12")))
    assert found["A12#3.usb"] in ("B06#1.usb3", "B06#1.usb4")


def test_a_pin_is_kept_and_the_others_make_room() -> None:
    """The user says which socket; what stood there moves."""
    plan = kit("B06", "X06", "X07")
    line = plan.line("X07").model_copy(update={"pins": {"usb": "B06#1.usb3"}})
    pinned = plan.model_copy(update={"lines": (*plan.lines[:2], line)})
    found = where(assigned(pinned))
    assert found["X07#1.usb"] == "B06#1.usb3"
    assert found["X06#1.usb"] == "B06#1.usb4"


def test_a_pin_to_nowhere_is_as_if_there_were_none() -> None:
    """A socket that went away with a swap does not lose the plug."""
    plan = kit("B06", "X06")
    line = plan.line("X06").model_copy(update={"pins": {"usb": "gone#1.usb9"}})
    found = where(assigned(plan.model_copy(update={"lines": (plan.lines[0], line)})))
    assert found["X06#1.usb"] == "B06#1.usb3"


def test_the_long_drive_takes_the_socket_that_holds_it() -> None:
    """Of two drives the short one goes where only it fits, whichever is listed first."""
    for order in (("D04", "D06"), ("D06", "D04")):
        found = where(assigned(kit("B10", "A06", *order)))
        assert found["D06#1.m2"] == "A06#1.first"
        assert found["D04#1.m2"] == "A06#1.second"


def test_a_drive_without_a_place_of_its_own_goes_where_it_merely_fits() -> None:
    """So that the rules can say what is wrong with it."""
    result = assigned(kit("B10", "A06", "2xD06"))
    assert where(result)["D06#2.m2"] == "A06#1.second"
    assert result.unplaced == []


def test_sata_in_the_m2_shape_goes_into_a_key_m_socket() -> None:
    """B+M fits M: mechanically there is nothing wrong with it."""
    assert where(assigned(kit("B10", "A02", "D08")))["D08#1.m2"] == "A02#1.m2"


def test_rivals_for_too_few_sockets_are_named() -> None:
    """Five things on four sockets: what cannot be satisfied is five plugs on four sockets."""
    result = assigned(kit("B04", "5xX07"))
    assert len(result.unplaced) == 1
    left = result.unplaced[0]
    assert (len(left.rivals), len(left.sockets), left.reason) == (5, 4, "taken")


def test_the_reason_tells_absence_from_unsuitability() -> None:
    """No such connector at all, against one that cannot take this plug."""
    nothing = assigned(kit("B06", "A02")).unplaced
    assert [(u.plug.id, u.reason) for u in nothing] == [("A02#1.flat", "none")]
    slow = {
        "id": "fast",
        "kind": "device",
        "maker": "m",
        "model": "x",
        "rails": {"bus": {"label": "b"}},
        "plugs": {
            "usb": {
                "connectors": ["usb-a"],
                "role": "device",
                "rail": "bus",
                "generation": 3,
                "min_generation": 3,
            }
        },
    }
    plan = Plan.model_validate(
        {
            "name": "t",
            "parts": [slow],
            "lines": [
                {"id": "b", "role": "board", "part": "B04"},
                {"id": "f", "role": "add_on", "part": "fast"},
            ],
        }
    )
    assert [u.reason for u in assigned(plan).unplaced] == ["unsuitable"]


def test_a_hub_brings_sockets_but_hangs_on_no_hub() -> None:
    """Four things and a hub on a board with four sockets all find a place."""
    result = assigned(kit("B04", "H03", "5xX07"))
    assert result.unplaced == []
    assert where(result)["H03#1.up"].startswith("B04#1.")


def test_the_same_kit_gives_the_same_answer() -> None:
    """Deterministic: twice the same, to the order."""
    plan = kit("B10", "S03", "H03", "3xA12", "3xD11", "X06", "X07", "A06", "D06", "D04")
    assert list(where(assigned(plan)).items()) == list(where(assigned(plan)).items())


@settings(max_examples=60, deadline=None)
@given(
    st.lists(st.sampled_from(["X06", "X07", "A12", "H02", "H03"]), min_size=1, max_size=6),
    st.sampled_from(["B04", "B06", "B10"]),
)
def test_as_many_plugs_are_placed_as_any_method_could(things: list[str], board: str) -> None:
    """Brute force over all orders of placing finds no better matching of the USB plugs."""
    lines = [{"id": "board", "role": "board", "part": board}]
    lines += [{"id": f"x{n}", "role": "add_on", "part": part} for n, part in enumerate(things)]
    plan = Plan.model_validate({"name": "t", "lines": lines})
    result = assigned(plan)
    sockets = [s for s in result.sockets.values() if s.socket.connector == "usb-a"]
    plugs = [p for p, _ in result.placed.values()] + [u.plug for u in result.unplaced]
    usb = [p for p in plugs if "usb-a" in p.plug.connectors]
    placed = sum(s.socket.connector == "usb-a" for _, s in result.placed.values())
    best = 0
    for order in itertools.islice(itertools.permutations(usb), 120):
        free, count = list(sockets), 0
        for plug in order:
            match = next((s for s in free if fits(plug, s)), None)
            if match is not None:
                free.remove(match)
                count += 1
        best = max(best, count)
    assert placed == best


def with_spare(board: str, connector: str) -> Catalogue:
    """The shipped catalogue, the board with one more socket of a kind."""
    document = shipped().document(shipped().part(board))
    socket = {"connector": connector, "role": "host", "rail": "main", "generation": 3}
    sockets = {**document.get("sockets", {}), "spare": {**socket, "label": "spare"}}
    return shipped().extended([{**document, "sockets": sockets}])


@settings(max_examples=60, deadline=None)
@given(
    st.lists(
        st.sampled_from(["X05", "X06", "X11", "A12", "D11", "H02", "C07", "X15", "X28"]),
        min_size=1,
        max_size=9,
    ),
    st.sampled_from(["B04", "B06", "B10"]),
    st.sampled_from(["usb-a", "header-5v", "camera-15"]),
)
def test_one_more_socket_never_leaves_more_plugs_without_one(
    things: list[str], board: str, connector: str
) -> None:
    """Random kits: a spare socket never makes an assignable set unassignable."""
    lines = [{"id": "board", "role": "board", "part": board}]
    for number, part in enumerate(things):
        role = {"D": "storage", "C": "cable"}.get(part[0], "add_on")
        lines.append({"id": f"x{number}", "role": role, "part": part})
    plan = Plan.model_validate({"name": "t", "lines": lines})
    more = assigned(plan, with_spare(board, connector))
    assert len(more.unplaced) <= len(assigned(plan).unplaced)


def test_a_flat_cable_with_its_contacts_the_other_way_goes_in_through_a_turned_one() -> None:
    """The same shape, and no contact: a cable with contacts on opposite sides makes it right."""
    (left,) = assigned(kit("B11", "A01")).unplaced
    assert (left.plug.id, left.reason) == ("A01#1.flat", "unsuitable")
    found = where(assigned(kit("B11", "A01", "C10")))
    assert found["A01#1.flat"] == "C10#1.out"
    assert found["C10#1.in"] == "B11#1.pcie"
    assert assigned(kit("B10", "A01", "C10")).unplaced[0].plug.id == "C10#1.in"


def test_the_turned_cable_is_a_way_out() -> None:
    """For EUR 4, and nothing else changes."""
    plan = kit("B11", "S03", "M02", "A01", "D03", "E12", "F01")
    (finding,) = told(checked(plan), "FIT-02")
    assert "the contacts face the other way" in finding.sentence.text
    first = propose_fixes(plan, shipped(), finding.id)[0]
    assert first.title.text == "Add Ribbon Turned"
    assert told(checked(apply_patch(plan, first.patch)), "FIT-02") == []


def test_one_thing_too_many_is_settled_by_a_hub() -> None:
    """The cheapest that breaks nothing comes first, before leaving something out."""
    plan = kit("B04", "S06", "M02", "5xX07")
    (finding,) = told(checked(plan), "FIT-02")
    titles = [fix.title.text for fix in propose_fixes(plan, shipped(), finding.id)]
    assert titles[0] == "Add Tendril 4 S"
