import pytest

from cobblewort.core.errors import InputError
from cobblewort.core.plans.patch import (
    AddLine,
    EditLine,
    PinPlug,
    RemoveLine,
    SetFields,
    SwapPart,
    apply_patch,
)
from tests.kits import demo, kit


def test_a_new_line_stands_in_kit_order() -> None:
    """Added last, it still comes before the case."""
    plan = apply_patch(kit("B06", "E03"), [AddLine(role="power_supply", part="S01")])
    assert [line.role for line in plan.lines] == ["board", "power_supply", "case"]


def test_line_ids_do_not_repeat() -> None:
    """The role, then the role with a number."""
    plan = kit("B06")
    for _ in range(3):
        plan = apply_patch(plan, [AddLine(role="add_on", part="X07")])
    assert [line.id for line in plan.lines[1:]] == ["add_on", "add_on-2", "add_on-3"]


def test_a_swap_forgets_the_pins_of_and_to_the_line() -> None:
    """Sockets of another part are other sockets."""
    plan = apply_patch(
        kit("B06", "H03", "X07"), [PinPlug(line="X07", plug="usb", socket="H03#1.d2")]
    )
    assert plan.line("X07").pins == {"usb": "H03#1.d2"}
    swapped = apply_patch(plan, [SwapPart(line="H03", part="H02")])
    assert swapped.line("X07").pins == {}


def test_removing_a_line_takes_its_traces_along() -> None:
    """Pins to it and its place in the duty go too."""
    schedule = [{"name": "p", "hours": 1, "lines": {"H03": "off", "X07": "idle"}}]
    plan = apply_patch(
        kit("B06", "H03", "X07", schedule=schedule),
        [PinPlug(line="X07", plug="usb", socket="H03#1.d1"), RemoveLine(line="H03")],
    )
    assert plan.line("X07").pins == {}
    assert plan.schedule[0].lines == {"X07": "idle"}


def test_a_pin_can_be_taken_back() -> None:
    """A null socket lets the program choose again."""
    plan = apply_patch(kit("B06", "X07"), [PinPlug(line="X07", plug="usb", socket="B06#1.usb1")])
    assert apply_patch(plan, [PinPlug(line="X07", plug="usb", socket=None)]).line("X07").pins == {}


def test_editing_leaves_what_is_not_named() -> None:
    """Owning a part does not change how many there are."""
    plan = apply_patch(kit("2xD11"), [EditLine(line="D11", owned=True)])
    assert (plan.lines[0].quantity, plan.lines[0].owned) == (2, True)


@pytest.mark.parametrize(
    "change", [SwapPart(line="x", part="B06"), RemoveLine(line="x"), EditLine(line="x", owned=True)]
)
def test_a_line_that_is_not_there_is_named(change: SwapPart | RemoveLine | EditLine) -> None:
    """The sentence says which lines there are."""
    with pytest.raises(InputError, match=r"no line 'x' \(it has: B06\)"):
        apply_patch(kit("B06"), [change])


@pytest.mark.parametrize(
    ("fields", "text"),
    [
        ({"budget": -1}, "must be at least 0"),
        ({"budget": "a lot"}, "must be an amount"),
        ({"name": " "}, "must not be empty"),
        ({"place": {"ambient_min_c": 30, "ambient_max_c": 10}}, "must not be above"),
        ({"place": {"ambient_max_c": 1e9}}, "must be at most 90"),
        ({"schedule": [{"name": "a", "hours": 20}, {"name": "b", "hours": 5}]}, "at most 24 h"),
    ],
)
def test_wrong_fields_are_refused_with_a_sentence(fields: dict[str, object], text: str) -> None:
    """Absurd values give sentences, never a traceback."""
    with pytest.raises(InputError, match=text):
        apply_patch(kit("B06"), [SetFields(fields=fields)])  # type: ignore[arg-type]


def test_no_more_than_four_hundred_pieces() -> None:
    """The limit counts pieces, not lines."""
    with pytest.raises(InputError, match="at most 400 parts"):
        apply_patch(kit("B06", "399xX07"), [EditLine(line="X07", quantity=400)])


def test_a_swapped_part_keeps_no_plug_where_the_old_one_was() -> None:
    """Neither its own pins nor those of others into it; what it has nothing to do with stays."""
    plan = kit("B10", "S03", "M02", "H03", "X06", "A12", "D11")
    pinned = apply_patch(
        plan,
        (
            PinPlug(line="X06", plug="usb", socket="H03#1.d1"),
            PinPlug(line="H03", plug="up", socket="B10#1.usb1"),
            PinPlug(line="D11", plug="sata", socket="A12#1.disk"),
        ),
    )
    swapped = apply_patch(pinned, (SwapPart(line="H03", part="H01"),))
    assert swapped.line("H03").pins == {}
    assert swapped.line("X06").pins == {}
    assert swapped.line("D11").pins == {"sata": "A12#1.disk"}


def test_of_place_and_settings_only_what_is_given_is_changed() -> None:
    """Two tabs that change two days of one place both keep theirs."""
    plan = demo("bat-recorder")
    warm = apply_patch(plan, (SetFields(fields={"place": {"ambient_max_c": 41}}),))
    assert warm.place == plan.place.model_copy(update={"ambient_max_c": 41})
    both = apply_patch(warm, (SetFields(fields={"settings": {"push_slot": True}}),))
    both = apply_patch(both, (SetFields(fields={"settings": {"read_only_root": True}}),))
    assert (both.settings.push_slot, both.settings.read_only_root) == (True, True)
    with pytest.raises(InputError, match=r"place\.ambient_max_c"):
        apply_patch(plan, (SetFields(fields={"place": {"ambient_max_c": "hot"}}),))
