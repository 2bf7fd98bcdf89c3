from typing import Any

import pytest

from cobblewort.core.errors import InputError, UnknownPartError
from cobblewort.core.parts.readings import class_figures
from cobblewort.core.plans.catalogue import Catalogue, merge_patch
from cobblewort.core.plans.plan import Line, Plan
from cobblewort.formats.shipped import class_parts, shipped_classes
from tests.kits import kit, shipped


@pytest.mark.parametrize(
    ("target", "patch", "result"),
    [
        ({"a": "b"}, {"a": "c"}, {"a": "c"}),
        ({"a": "b"}, {"b": "c"}, {"a": "b", "b": "c"}),
        ({"a": "b"}, {"a": None}, {}),
        ({"a": "b", "b": "c"}, {"a": None}, {"b": "c"}),
        ({"a": ["b"]}, {"a": "c"}, {"a": "c"}),
        ({"a": "c"}, {"a": ["b"]}, {"a": ["b"]}),
        ({"a": {"b": "c"}}, {"a": {"b": "d", "c": None}}, {"a": {"b": "d"}}),
        ({"a": [{"b": "c"}]}, {"a": [1]}, {"a": [1]}),
        (["a", "b"], ["c", "d"], ["c", "d"]),
        ({"a": "b"}, ["c"], ["c"]),
        ({"a": "foo"}, "bar", "bar"),
        ({"e": None}, {"a": 1}, {"e": None, "a": 1}),
        ([1, 2], {"a": "b", "c": None}, {"a": "b"}),
        ({}, {"a": {"bb": {"ccc": None}}}, {"a": {"bb": {}}}),
    ],
)
def test_merge_patch_against_the_table_of_its_standard(
    target: object, patch: object, result: object
) -> None:
    """RFC 7396, appendix A, from memory."""
    assert merge_patch(target, patch) == result


def test_what_a_part_leaves_out_comes_from_its_class_and_says_so() -> None:
    """The shipped middle card states no board-to-die resistance for its flag's brown-out."""
    part = shipped().part("B06")
    assert part.voltages is not None
    assert part.voltages.brownout_v.basis == "typical"
    assert part.voltages.undervoltage_v is not None
    assert part.voltages.undervoltage_v.basis == "datasheet"
    figures = class_figures(part)
    assert "voltages.brownout_v" in figures
    assert "voltages.undervoltage_v" not in figures
    assert "rails.usb.path_ohm" in figures


def test_a_part_can_be_made_from_class_figures_alone() -> None:
    """A user can plan with a part of which nothing is known but its class."""
    catalogue = shipped().extended(
        [
            {
                "id": "mine",
                "kind": "board",
                "part_class": "fast_card",
                "maker": "?",
                "model": "Drawer",
            }
        ]
    )
    part = catalogue.part("mine")
    assert part.loads["own"].peak.nominal == 10.5
    assert len(class_figures(part)) > 20


def test_every_problem_of_a_pack_is_told_with_its_place() -> None:
    """Both wrong parts at once, each at its own index."""
    with pytest.raises(InputError) as caught:
        shipped().extended(
            [
                {"id": "a", "kind": "board", "maker": "m", "model": "x", "price": -1},
                {"id": "b", "kind": "toaster", "maker": "m", "model": "x"},
            ]
        )
    places = [place for place, _ in caught.value.problems]
    assert places == ["parts.0.price", "parts.1.kind"]


def test_a_rail_that_is_not_there_is_named() -> None:
    """A typing slip in a rail would silently cut a load off."""
    with pytest.raises(InputError, match="no rail 'mian'"):
        shipped().extended(
            [
                {
                    "id": "a",
                    "kind": "device",
                    "maker": "m",
                    "model": "x",
                    "rails": {"main": {"label": "m"}},
                    "loads": {
                        "own": {"rail": "mian", "unit": "a", "idle": 1, "normal": 1, "peak": 1}
                    },
                }
            ]
        )


def test_rails_in_a_ring_are_refused() -> None:
    """Two rails that feed each other would never end."""
    rails = {"a": {"label": "a", "feeds_from": "b"}, "b": {"label": "b", "feeds_from": "a"}}
    with pytest.raises(InputError, match="a ring"):
        shipped().extended(
            [{"id": "a", "kind": "device", "maker": "m", "model": "x", "rails": rails}]
        )


def test_unknown_class_and_unknown_part_have_sentences() -> None:
    """Both say what there is, or what to do."""
    with pytest.raises(InputError, match="must be one of"):
        shipped().extended([{"id": "a", "kind": "board", "part_class": "nope"}])
    with pytest.raises(UnknownPartError, match="no part 'Z99'"):
        shipped().part("Z99")


def test_compiled_parts_are_kept_until_their_part_changes() -> None:
    """A longer catalogue reuses what is compiled; a replaced part is compiled afresh."""
    base = shipped()
    compiled = base.compiled(base.part("B06"), 16)
    grown = base.extended([{"id": "zz", "kind": "tool", "maker": "m", "model": "x"}])
    assert grown.compiled(grown.part("B06"), 16) is compiled
    replaced = base.extended(
        [{"id": "B06", "kind": "board", "part_class": "middle_card", "maker": "m", "model": "x"}]
    )
    assert replaced.compiled(replaced.part("B06"), 16) is not compiled


def test_a_plan_brings_its_own_parts() -> None:
    """Parts in the plan come before those of the catalogue, and only for this plan."""
    own = {"id": "B06", "kind": "board", "part_class": "fast_card", "maker": "m", "model": "Mine"}
    plan = kit("B06", parts=[own])
    assert shipped().for_plan(plan).part("B06").model == "Mine"
    assert shipped().part("B06").model == "Hurdle 2"


def test_an_empty_catalogue_lists_nothing() -> None:
    """No parts, no kinds, no error."""
    empty = Catalogue({}, {})
    assert empty.parts() == []
    assert empty.parts(["board"]) == []


def test_a_plan_keeps_the_figures_it_was_made_with() -> None:
    """A line that names a revision gets that one; one that names none gets the newest."""
    old = {
        "id": "mine",
        "kind": "device",
        "part_class": "usb2_device",
        "maker": "m",
        "model": "x",
        "loads": {"own": {"peak": 0.5}},
    }
    new = {**old, "revision": 2, "loads": {"own": {"peak": 0.6}}}
    catalogue = Catalogue.from_documents([new], shipped_classes(), {("mine", 1): old})
    line = Line(id="a", role="add_on", part="mine")
    assert catalogue.of_line(line).loads["own"].peak.nominal == 0.6
    kept = line.model_copy(update={"part_revision": 1})
    assert catalogue.of_line(kept).loads["own"].peak.nominal == 0.5
    unknown = line.model_copy(update={"part_revision": 7})
    assert catalogue.of_line(unknown).revision == 2, "from another machine: the newest there is"
    plan = catalogue.pinned(Plan(name="p", lines=(line, kept.model_copy(update={"id": "b"}))))
    assert [entry.part_revision for entry in plan.lines] == [2, 1]


def test_what_is_put_away_stays_in_plans_and_is_offered_no_more() -> None:
    """A part put away is found by its id, and not among those on offer."""
    document = {"id": "mine", "part_class": "usb2_device", "maker": "m", "model": "x"}
    catalogue = Catalogue.from_documents([document], shipped_classes(), away=["mine"])
    assert catalogue.parts() == []
    assert catalogue.part("mine").model == "x"


@pytest.mark.parametrize(
    "document", class_parts(shipped_classes()), ids=lambda entry: str(entry["id"])
)
def test_every_class_makes_a_part_by_itself(document: dict[str, Any]) -> None:
    """Class figures alone are a whole part, and every figure of it says so."""
    part = shipped().part(str(document["id"]))
    assert (part.origin, part.price) == ("typical", None)
    assert not [f.path for f in shipped().sheet(part).figures if f.own]
