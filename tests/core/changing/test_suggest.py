"""The search for kits that none beats, against every kit there is and by what must always hold."""

from collections.abc import Iterator, Sequence
from decimal import Decimal
from itertools import product
from operator import le
from random import Random
from typing import Any

import pytest

from cobblewort.core.changing.suggest import CRITERIA, CriterionId, Suggestion, Wishes, suggest
from cobblewort.core.changing.suggest.easing import easings
from cobblewort.core.changing.suggest.search import cheapest
from cobblewort.core.errors import InputError
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.rules import RULES
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.patch import RemoveLine, apply_patch
from cobblewort.core.plans.plan import FEEDS_AT, Plan, Role
from cobblewort.core.plans.purpose import plan_for
from cobblewort.core.verdict.evaluate import evaluation_of
from cobblewort.core.verdict.evaluation import Evaluation
from cobblewort.formats.shipped import (
    shipped_classes,
    shipped_parts,
    shipped_places,
    shipped_purposes,
)
from tests.kits import ROLE_OF_LETTER, shipped
from tests.practice.test_practice import plan_of, read

FOUR: tuple[CriterionId, ...] = ("price", "watts", "noise", "margin")
SUPPLIES = (("S01",), ("S02",), ("S03",), ("S07", "C04"))


def wanted(purpose: str, place: str) -> Plan:
    """A plan that states its needs and has no parts."""
    plan = plan_for(shipped_purposes()[purpose], purpose, shipped_places()[place].place)
    return plan.model_copy(update={"lines": ()})


def cupboard(*parts: str) -> Catalogue:
    """A catalogue of these parts alone."""
    documents = [document for document in shipped_parts() if document["id"] in parts]
    return Catalogue.from_documents(documents, shipped_classes())


def last(plan: Plan, catalogue: Catalogue, wishes: Wishes) -> Suggestion:
    """What is known at the end."""
    *_, found = suggest(plan, catalogue, wishes)
    return found


def every_kit(
    empty: Plan,
    catalogue: Catalogue,
    levels: Sequence[Sequence[Sequence[str]]],
    wishes: Wishes,
) -> Iterator[tuple[tuple[str, ...], tuple[int, ...]]]:
    """Each combination in which nothing is wrong, as the page judges it, with its steps."""
    for choice in product(*levels):
        parts = tuple(part for options in choice for part in options)
        lines = [
            {"id": f"{part}-{number}", "role": ROLE_OF_LETTER[part[0]], "part": part}
            for number, part in enumerate(parts)
        ]
        plan = Plan.model_validate({**empty.model_dump(), "lines": lines})
        found = evaluation_of(plan, catalogue, 256)
        wrong = [
            finding
            for finding in found.findings
            if finding.family != "cost"
            and (
                finding.severity == "problem" or (finding.severity == "tight" and not wishes.tight)
            )
        ]
        if not wrong:
            yield (
                tuple(sorted(parts)),
                tuple(CRITERIA[name].worth(CRITERIA[name].of(found)) for name in wishes.criteria),
            )


def unbeaten(kits: Sequence[tuple[tuple[str, ...], tuple[int, ...]]]) -> set[tuple[int, ...]]:
    """The values that no others are as good as in everything and better in something."""
    values = {steps for _, steps in kits}
    return {
        own
        for own in values
        if not any(
            other != own and all(a <= b for a, b in zip(other, own, strict=True))
            for other in values
        )
    }


CUPBOARDS = [
    pytest.param(
        "sign",
        "loft",
        (("B04",), ("B06",), ("B10",)),
        (("M01",), ("M02",)),
        SUPPLIES,
        ((), ("K02",), ("K03",), ("K05",)),
        (("E01",), ("E03",), ("E04",)),
        (),
        id="a sign in a loft",
    ),
    pytest.param(
        "home-hub",
        "cupboard",
        (("B06",), ("B10",)),
        (("M02",), ("M05",)),
        SUPPLIES,
        ((), ("K03",), ("K05",)),
        (("E01",), ("E03",), ("E07",)),
        (("X09",),),
        id="a hub in a cupboard",
    ),
    pytest.param(
        "frost-camera",
        "outdoors-sun",
        (("B04",), ("B07",)),
        (("M02",), ("M05",)),
        (("S03",), ("S01",)),
        ((), ("K02",), ("K03",)),
        (("E12",), ("E13",)),
        (("X28",),),
        id="a camera in the sun",
        marks=pytest.mark.long,
    ),
    pytest.param(
        "remote-console",
        "rack",
        (("B06",), ("B10",)),
        (("M01",), ("M02",)),
        SUPPLIES,
        ((), ("K03",), ("K05",)),
        (("E01",), ("E03",)),
        (("X30", "X32"),),
        id="a console in a rack",
        marks=pytest.mark.long,
    ),
]


@pytest.mark.parametrize(
    "wishes",
    [
        Wishes(FOUR),
        Wishes((*FOUR, "tight"), tight=True),
        Wishes(("price", "headroom", "litres", "years", "rate", "work")),
    ],
    ids=["four", "tight", "others"],
)
@pytest.mark.parametrize(
    ("purpose", "place", "boards", "cards", "supplies", "coolers", "cases", "extra"), CUPBOARDS
)
def test_nothing_is_missing_that_trying_every_kit_finds(
    purpose: str,
    place: str,
    boards: Sequence[Sequence[str]],
    cards: Sequence[Sequence[str]],
    supplies: Sequence[Sequence[str]],
    coolers: Sequence[Sequence[str]],
    cases: Sequence[Sequence[str]],
    extra: Sequence[Sequence[str]],
    wishes: Wishes,
) -> None:
    """The front has the same values, and each kit of it is one of those."""
    levels = [boards, cards, supplies, coolers, cases, *([extra] if extra else [])]
    flat = {part for level in levels for options in level for part in options}
    catalogue, empty = cupboard(*flat), wanted(purpose, place)
    kits = list(every_kit(empty, catalogue, levels, wishes))
    found = last(empty, catalogue, wishes)
    assert found.proven
    assert {kit.steps for kit in found.kits} == unbeaten(kits)
    assert {(tuple(sorted(kit.parts)), kit.steps) for kit in found.kits} <= set(kits)


ALL_SUPPLIES = (*SUPPLIES, ("S05", "C01"), ("S06",), ("S08", "C04"), ("S14",), ("S30", "C04"))
DRAWN_FROM = (
    [(board,) for board in ("B04", "B05", "B06", "B07", "B09", "B10", "B11")],
    [(card,) for card in ("M01", "M02", "M03", "M05", "M08")],
    ALL_SUPPLIES,
    [(), ("K01",), ("K02",), ("K03",), ("K04",), ("K05",), ("K06",), ("K07",), ("K09",), ("K10",)],
    [(case,) for case in ("E01", "E02", "E03", "E04", "E06", "E07", "E12", "E13", "E15", "E17")],
)
EXTRAS: dict[str, Sequence[str]] = {
    "sign": (),
    "first-server": (),
    "something-else": (),
    "home-hub": ("X09",),
    "frost-camera": ("X28", "X03"),
    "climate-logger": ("X03", "X17"),
}


@pytest.mark.parametrize(
    "seed", [1, 2, *(pytest.param(seed, marks=pytest.mark.long) for seed in range(3, 41))]
)
def test_cupboards_at_random(seed: int) -> None:
    """A few parts of each kind, a purpose, a place and criteria by the draw: the same front as by
    trying every kit.
    """
    drawn = Random(seed)
    rest = [name for name in CRITERIA if name != "price"]
    wishes = Wishes(("price", *Random(-seed).sample(rest, 3)), tight=seed % 3 == 0)
    purpose = drawn.choice(list(EXTRAS))
    place = drawn.choice(list(shipped_places()))
    there = {str(part["id"]) for part in shipped_parts()}
    levels = []
    for options in DRAWN_FROM:
        known = [option for option in options if set(option) <= there]
        levels.append(drawn.sample(known, min(3, len(known))))
    empty = wanted(purpose, place)
    flat = {part for level in levels for options in level for part in options}
    catalogue = cupboard(*flat, *EXTRAS[purpose])
    feeds = FEEDS_AT[empty.place.power]
    levels[2] = [
        supply
        for supply in levels[2]
        if (source := catalogue.part(supply[0]).source) is not None and source.power_source in feeds
    ]
    levels[3] = [(), *(cooler for cooler in levels[3] if cooler)]  # none is always a choice
    levels.append([tuple(EXTRAS[purpose])])
    kits = [
        (parts, steps)
        for parts, steps in every_kit(empty, catalogue, levels, wishes)
        if all(
            part.ambient_min_c is None or part.ambient_min_c <= empty.place.ambient_min_c
            for part in map(catalogue.part, parts)
        )
    ]
    found = last(empty, catalogue, wishes)
    values = unbeaten(kits)
    assert found.proven
    assert {kit.steps for kit in found.kits} == values, (purpose, place, levels)


def test_the_first_kit_is_the_cheapest() -> None:
    """Stopped after one kit, its price is that of the front's first, and less is proven."""
    plan, catalogue = (
        wanted("home-hub", "cupboard"),
        cupboard("B06", "B10", "M02", "M05", "S01", "S03", "K03", "K05", "E01", "E03", "X09"),
    )
    whole = last(plan, catalogue, Wishes(FOUR))
    first = cheapest(plan, catalogue, Wishes())
    assert len(first.kits) == 1
    assert first.kits[0].values["price"] == whole.kits[0].values["price"]
    assert first.proven_to is not None
    assert first.proven_to <= Decimal(str(first.kits[0].values["price"]))


def test_the_order_of_the_cupboard_does_not_matter() -> None:
    """The same kits from the parts turned round."""
    parts = ("B04", "B06", "M01", "M02", "S01", "S02", "S06", "K02", "K03", "E01", "E03")
    documents = [document for document in shipped_parts() if document["id"] in parts]
    plan = wanted("climate-logger", "loft")
    plan = plan.model_copy(update={"requirements": ()})
    there = Catalogue.from_documents(documents, shipped_classes())
    back = Catalogue.from_documents(documents[::-1], shipped_classes())
    first, second = last(plan, there, Wishes(FOUR)), last(plan, back, Wishes(FOUR))
    assert first.kits
    assert [kit.parts for kit in first.kits] == [kit.parts for kit in second.kits]


SMALL_CUPBOARD = ("B04", "B06", "M01", "M02", "S01", "S06", "K02", "E01", "E03")


def test_pinned_and_left_out_parts() -> None:
    """What is required is in every kit, what is left out in none; both at once is told."""
    plan, catalogue = wanted("sign", "indoor-room"), cupboard(*SMALL_CUPBOARD)
    pinned = last(plan, catalogue, Wishes(FOUR, pinned={"board": "B06"}))
    assert pinned.kits
    assert all("B06" in kit.parts for kit in pinned.kits)
    without = last(plan, catalogue, Wishes(FOUR, left_out=frozenset({"B04"})))
    assert {kit.steps for kit in without.kits} == {kit.steps for kit in pinned.kits}
    cooled = last(plan, catalogue, Wishes(FOUR, pinned={"cooling": "K02"}))
    assert cooled.kits
    assert all("K02" in kit.parts for kit in cooled.kits)
    with pytest.raises(InputError, match="both required and left out"):
        last(plan, catalogue, Wishes(pinned={"board": "B06"}, left_out=frozenset({"B06"})))


@pytest.mark.parametrize(
    ("wishes", "told"),
    [
        (Wishes(()), "at least one criterion"),
        (Wishes(("price", "price")), "each criterion once"),
        (Wishes(pinned={"board": "B99"}), "There is no part 'B99'"),
        (Wishes(pinned={"add_on": "X09"}), "Only one of these roles can be fixed: board, power"),
        (Wishes(at_most=Decimal(0)), "above 0"),
    ],
)
def test_wishes_that_cannot_be_taken(wishes: Wishes, told: str) -> None:
    """Each is told before anything is tried."""
    with pytest.raises(InputError, match=told):
        last(wanted("sign", "indoor-room"), cupboard(*SMALL_CUPBOARD), wishes)


@pytest.mark.parametrize(
    ("left", "rule"),
    [
        (("M01", "M02", "S01", "S06", "E01"), None),
        (("B04", "M01", "M02", "S08", "C04", "E01"), None),
        (("B10", "M01", "M02", "S06", "E01"), None),
    ],
)
def test_an_empty_front_is_proven(left: Sequence[str], rule: str | None) -> None:
    """Without a board, or without a power supply that does, there is none, and that is known."""
    del rule
    found = last(wanted("sign", "indoor-room"), cupboard(*left), Wishes(FOUR))
    assert (found.kits, found.proven) == ((), True)


def test_what_is_owned_costs_nothing_and_can_be_all_there_is() -> None:
    """The dearer board is taken where it lies in the drawer."""
    plan, catalogue = wanted("sign", "indoor-room"), cupboard(*SMALL_CUPBOARD)
    owned = frozenset({"B06", "S01", "M02", "E03"})
    found = cheapest(plan, catalogue, Wishes(owned=owned)).kits[0]
    assert found.values["price"] == 0
    assert set(found.parts) == owned
    assert all(line.owned for line in found.plan.lines)
    alone = last(plan, catalogue, Wishes(owned=owned, owned_only=True))
    assert [set(kit.parts) for kit in alone.kits] == [owned]
    assert last(plan, catalogue, Wishes(owned_only=True)).kits == ()


def test_parts_without_a_price_are_counted() -> None:
    """They are in no kit, unless they are owned."""
    board = {**shipped().document(shipped().part("B04")), "id": "B91", "price": None}
    plan, catalogue = wanted("sign", "indoor-room"), cupboard(*SMALL_CUPBOARD).extended([board])
    found = last(plan, catalogue, Wishes())
    assert found.unpriced == 1
    assert all("B91" not in kit.parts for kit in found.kits)
    owned = last(plan, catalogue, Wishes(("price",), owned=frozenset({"B91"})))
    assert owned.unpriced == 0
    assert "B91" in owned.kits[0].parts


def test_at_most_so_much() -> None:
    """A limit below the cheapest leaves nothing, at it that one."""
    plan, catalogue = wanted("sign", "indoor-room"), cupboard(*SMALL_CUPBOARD)
    price = Decimal(str(cheapest(plan, catalogue, Wishes()).kits[0].values["price"]))
    assert last(plan, catalogue, Wishes(at_most=price - 1)).kits == ()
    assert last(plan, catalogue, Wishes(at_most=price)).kits != ()


def test_a_part_that_is_beaten_changes_nothing() -> None:
    """A second card that costs more and does no better is on no kit of the front."""
    plan = wanted("sign", "indoor-room")
    one = last(plan, cupboard(*(p for p in SMALL_CUPBOARD if p != "M02")), Wishes(FOUR))
    both = last(plan, cupboard(*SMALL_CUPBOARD), Wishes(FOUR))
    beaten = {"M02"} - {part for kit in both.kits for part in kit.parts}
    assert not beaten or [k.parts for k in one.kits] == [k.parts for k in both.kits]


@pytest.mark.parametrize("role", ["board", "power_supply", "boot_drive", "case"])
def test_a_drive_needs_every_role(role: Role) -> None:
    """Every kit of the front has each role once."""
    found = last(wanted("sign", "loft"), cupboard(*SMALL_CUPBOARD), Wishes(FOUR))
    assert found.kits
    for kit in found.kits:
        assert sum(line.role == role for line in kit.plan.lines) == 1


def test_without_a_case() -> None:
    """On wish a kit may stand open: it costs less by its case."""
    plan, catalogue = wanted("sign", "indoor-room"), cupboard(*SMALL_CUPBOARD)
    open_kit = cheapest(plan, catalogue, Wishes(without_case=True)).kits[0]
    assert all(line.role != "case" for line in open_kit.plan.lines)
    cased = cheapest(plan, catalogue, Wishes()).kits[0]
    assert open_kit.values["price"] < cased.values["price"]


def test_what_it_does_is_counted() -> None:
    """Less is judged as a whole than there are combinations; the reasons name rules."""
    plan, catalogue = wanted("sign", "loft"), cupboard(*SMALL_CUPBOARD)
    told = list(suggest(plan, catalogue, Wishes(FOUR)))
    assert told[-1].proven
    assert told[-1].whole > 0
    prices = [one.proven_to for one in told[:-1] if one.proven_to is not None]
    assert prices == sorted(prices), "what is proven only grows"


KITS = [entry for name in ("sound.yaml", "built.yaml") for entry in read(name)]
SHELL: tuple[Role, ...] = ("cooling", "case", "fastener")
STAGES: tuple[tuple[Role, ...], ...] = (
    ("add_on", "cable", "power_supply", "boot_drive", *SHELL),
    ("power_supply", "boot_drive", *SHELL),
    ("boot_drive", *SHELL),
    SHELL,
)


@pytest.mark.parametrize("entry", KITS, ids=lambda entry: entry["name"])
def test_no_kit_that_ran_is_cut_by_a_part_of_it(entry: dict[str, Any]) -> None:
    """Of each kit in use what is chosen first, judged by what may cut: where nothing stops the
    whole, nothing stops the part; and no criterion of the whole is better than the part promises.
    """
    plan = plan_of(entry)
    whole = evaluation_of(plan, shipped(), 256)
    if any(finding.severity in ("tight", "problem") for finding in whole.findings):
        return
    for still_open in STAGES:
        gone = [line.id for line in plan.lines if line.role in still_open]
        kit = Kit(apply_patch(plan, [RemoveLine(line=line) for line in gone]), shipped(), 1)
        cutting = [rule for rule in RULES.values() if rule.may_cut(frozenset(still_open))]
        outcomes = {rule.id: rule.judge(kit) for rule in cutting}
        for rule_id, outcome in outcomes.items():
            told = [f.sentence.text for f in outcome.findings if f.severity != "note"]
            assert told == [], (still_open, rule_id)
        begun = Evaluation(kit, outcomes, [], [], [])
        for criterion in CRITERIA.values():
            if criterion.begun is not None and ("power_supply" not in still_open):
                promised = criterion.bound(criterion.begun(begun))
                assert promised <= criterion.worth(criterion.of(whole)), criterion.id


def front_values(plan: Plan, catalogue: Catalogue) -> list[tuple[int, ...]]:
    """The values of the front in the usual criteria."""
    return [kit.steps for kit in last(plan, catalogue, Wishes(FOUR)).kits]


def is_no_worse(front: list[tuple[int, ...]], than: list[tuple[int, ...]]) -> bool:
    """Whether for each kit of one front there is one in the other that is as good in everything."""
    return all(any(all(map(le, own, old)) for own in front) for old in than)


@pytest.mark.parametrize(
    "seed", [1, *(pytest.param(seed, marks=pytest.mark.long) for seed in range(2, 26))]
)
def test_more_parts_or_less_to_do_never_make_it_worse(seed: int) -> None:
    """A part added, a requirement dropped, a milder place: for each kit there is one as good."""
    drawn = Random(100 + seed)
    purpose = drawn.choice(list(EXTRAS))
    plan = wanted(purpose, drawn.choice(["indoor-room", "loft", "outdoors-shaded", "workshop"]))
    few = {part for options in DRAWN_FROM for one in drawn.sample(options, 2) for part in one}
    more = {part for options in DRAWN_FROM for part in drawn.choice(options)}
    extra = EXTRAS[purpose]
    now = front_values(plan, cupboard(*few, *extra))
    assert is_no_worse(front_values(plan, cupboard(*few, *more, *extra)), now)
    for easing in list(easings(plan))[:2]:
        assert is_no_worse(front_values(easing.plan, cupboard(*few, *extra)), now), easing.text
