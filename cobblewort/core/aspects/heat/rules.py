"""Rules of heat: does it throttle, can it be cooled, does it stand the place."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from functools import partial

from cobblewort.core import words
from cobblewort.core.aspects.fit.model import stack_of
from cobblewort.core.aspects.heat.model import HeatResult, HotTemps
from cobblewort.core.aspects.heat.model import of as heat_of
from cobblewort.core.aspects.heat.workings import limit_term, throttle_term
from cobblewort.core.figures.one_or_many import nominal
from cobblewort.core.judging.findings import Observation
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.margin import (
    HOLDS_TIGHT_SHARE,
    KEPT_SOUND,
    KEPT_WORST_CASE_TIGHT,
    Check,
    Margin,
)
from cobblewort.core.judging.remedies import add_missing, another, another_supply
from cobblewort.core.judging.rules import rule
from cobblewort.core.judging.states import LookedAt
from cobblewort.core.judging.working import Sum, computed_term
from cobblewort.core.plans.plan import NOT_OF_IT


@rule(
    "HEAT-01", "heat", "The processor keeps its clock",
    why="A processor that reaches its throttle point slows itself; in a sealed case or a hot loft "
    "that is soon reached. What counts is what it keeps of the clock that is asked of it: 98 % and "
    "more is sound, from 60 % on tight, less stops it. With everything at once it is worth a note, "
    "below 50 % tight.",
    formula="(Td - Tb)/Rdb + (Td - Tin)/(Rjc + Rtim + Rsink) = Psoc; (Tb - Tin)/Rba = Prest + "
    "(Td - Tb)/Rdb; inside air and wall from natural convection, radiation and vents; past the "
    "throttle point clock = ((P - P0)/(Ppeak - P0))^0.4 with the P at which it sits there",
    source="Churchill and Chu 1975; McAdams 1954; Stefan-Boltzmann; BS 5925 for vents",
    reads=(stack_of, heat_of),
    remedies=(add_missing("cooling"), another("cooling"), another("case"), another("board")),
)  # fmt: skip
def throttle(kit: Kit) -> Iterator[Check]:
    """Die temperature on the hottest day against the throttle point, as if nothing slowed itself,
    and what is kept of the clock.
    """
    stack = stack_of(kit)
    heat = heat_of(kit)
    if heat.board is None or not heat.coolable:
        return
    board = heat.board

    def sentence(margin: Margin) -> str:
        speeds: list[float] = heat.speed_share[:, 0].tolist()
        state = _slowed_in(margin, speeds, heat.means)
        if state is not None:
            wanted_c = float(heat.wanted_die_c[state, 0])
            return _slows(
                f"The processor of {board.name}", "clock", speeds[state], wanted_c, margin.limit,
                heat, state,
            )  # fmt: skip
        shown, limit = words.apart(words.degrees, margin.value, margin.limit)
        most_c = words.degrees(float(heat.hottest.die_c[0]))
        return (
            f"The processor of {board.name} comes to {shown}{margin.when} at "
            f"{words.degrees(heat.ambient_c)} outside and throttles at {limit}: it is good up to "
            f"{most_c} outside."
        )

    def working(state: int) -> Sum:
        die_c = float(heat.wanted_die_c[state, 0])
        figure = f"heat:full.die@{heat.states[state].id}"
        inputs = [
            throttle_term(board),
            computed_term("T_die", "die at full clock", "°C", die_c, figure),
        ]
        return Sum("throttle point less die temperature", "T_limit - T_die", inputs)

    lines = tuple(i.line.id for i in (board, stack.cooler, stack.case) if i is not None)
    yield Check(
        f"{board.id}.die", "Processor temperature at full clock", "°C", "max", heat.wanted_die_c,
        heat.throttle_c, sentence, lines,
        heat.means,
        span=max(1.0, nominal(heat.throttle_c) - heat.ambient_c),
        working=working, kept=lambda: heat.speed_share,
    )  # fmt: skip


def _slowed_in(margin: Margin, speeds: Sequence[float], states: LookedAt) -> int | None:
    """The state of which it is told how far something slows itself; None where it hardly does in
    what matters, and its temperature is told.
    """
    here = states.ids.index(margin.state)
    if speeds[here] < KEPT_SOUND:
        return here
    if margin.holds_share is not None and margin.holds_share < HOLDS_TIGHT_SHARE:
        return None
    lowest = min(speeds)
    told = margin.severity == "note" or lowest < KEPT_WORST_CASE_TIGHT
    return speeds.index(lowest) if told else None


def _slows(
    name: str, of: str, kept: float, wanted_c: float, limit_c: float, heat: HeatResult, state: int
) -> str:
    """How far something slows itself in a state, and by how much it would be too hot otherwise."""
    when = words.when(heat.means.ids[state], heat.means.labels[state])
    if kept == 0:
        return (
            f"{name} passes its {words.degrees(limit_c)}{when} at "
            f"{words.degrees(heat.ambient_c)} outside even at rest."
        )
    return (
        f"{name} slows to {words.percent(kept)} of its {of}{when} at "
        f"{words.degrees(heat.ambient_c)} outside; at full {of} it would pass its "
        f"{words.degrees(limit_c)} by {words.degrees(max(1.0, wanted_c - limit_c))}."
    )


@rule(
    "HEAT-02", "heat", "It can be cooled at all",
    why="Where even the idle processor passes its throttle point no clock helps.",
    formula="Td at idle power <= throttle point",
    source="as HEAT-01",
    reads=(stack_of, heat_of),
    remedies=(add_missing("cooling"), another("cooling"), another("case"), another("board")),
)  # fmt: skip
def coolable(kit: Kit) -> Iterator[Observation]:
    """Silent unless the die is too hot at idle power."""
    stack = stack_of(kit)
    heat = heat_of(kit)
    if heat.board is not None and not heat.coolable:
        yield Observation(
            f"{heat.board.id}.die", "problem",
            f"Even at its lowest clock the processor of {heat.board.name} passes "
            f"{words.degrees(float(heat.throttle_c[0]))} at {words.degrees(heat.ambient_c)} "
            "outside: this kit cannot be cooled there.",
            tuple(i.line.id for i in (heat.board, stack.cooler, stack.case) if i),
        )  # fmt: skip


@rule(
    "HEAT-03", "heat", "Every part stands the coldest and the hottest day",
    why="Cards, batteries and drives have narrower limits than boards. A board is rated for the "
    "room that it stands in; what else sits in a case is rated for the air in there.",
    formula="rated from <= coldest day; hottest day, or inside air, <= rated to",
    source="maker's ambient rating",
    reads=("built", "place.ambient_max_c", "place.ambient_min_c", heat_of),
    remedies=(another("board", "storage", "boot_drive", "add_on"),),
)  # fmt: skip
def ambient_rating(kit: Kit) -> Iterator[Observation]:
    """Parts whose stated range does not hold the place's, or the air that they sit in."""
    place, heat = kit.plan.place, heat_of(kit)
    inside = heat.inside_c
    coldest_c, hottest_c = place.ambient_min_c, place.ambient_max_c
    air_c = hottest_c if inside is None else max(heat.means.hard_of(inside[:, 0].tolist()))
    for line, part in kit.built.by_line():
        if line.role in NOT_OF_IT or line.role == "fastener":
            continue
        low, high = part.ambient_min_c, part.ambient_max_c
        if low is not None and coldest_c < low:
            yield Observation(
                line.id, "problem",
                f"{part.model} is rated from {low:g} °C; the coldest day here is "
                f"{coldest_c:g} °C.",
                (line.id,),
            )  # fmt: skip
        elif high is not None and hottest_c > high:
            yield Observation(
                line.id, "problem",
                f"{part.model} is rated to {high:g} °C; the hottest day here is "
                f"{hottest_c:g} °C.",
                (line.id,),
            )  # fmt: skip
        elif high is not None and air_c > high and part.kind != "board" and heat.shelters(line.id):
            yield Observation(
                line.id, "problem",
                f"{part.model} is rated to {high:g} °C; the air that it sits in comes to "
                f"{words.degrees(air_c)}.",
                (line.id,),
            )  # fmt: skip


@rule(
    "HEAT-05", "heat", "Drives and further boards keep their speed",
    why="Fast drives slow themselves when they are hot, and a drive under a board or in a small "
    "case has little air; so has every further board in the same case. What counts is what it "
    "keeps of its speed: 98 % and more is sound, from 60 % on tight, less stops it. With "
    "everything at once it is worth a note, below 50 % tight.",
    formula="P = G_air (T - T_near) + G_wall (T - T_wall); past its throttle point P_hold at which "
    "it sits there, and speed = (P_hold - P_idle)/(P - P_idle), of a processor to the power of "
    "0.4; of an M.2 module G is its face, and gap, joint and carrier behind each other",
    source="maker's throttle point; films, gap and joint of a module: typical, from memory",
    reads=(stack_of, heat_of),
    remedies=(another("storage", "boot_drive"), another("case"), another("cooling")),
)  # fmt: skip
def drives(kit: Kit) -> Iterator[Check]:
    """Each drive inside, and each further board, against its throttle point, and what it keeps of
    its speed.
    """
    for hot in heat_of(kit).hot_bodies:
        if hot.slows:
            yield _drive_check(kit, hot)


def _drive_check(kit: Kit, hot: HotTemps) -> Check:
    heat, name, speed = heat_of(kit), hot.item.name, "speed"
    if hot.warm.clock:
        name, speed = f"The processor of {name}", "clock"

    def sentence(margin: Margin) -> str:
        speeds: list[float] = hot.speed_share[:, 0].tolist()
        state = _slowed_in(margin, speeds, heat.means)
        if state is None:
            return _comes_to(margin, heat, name, "it slows itself at")
        wanted_c = float(hot.temp_c[state, 0])
        return _slows(name, speed, speeds[state], wanted_c, margin.limit, heat, state)

    check = _hot_check(kit, hot, sentence, settled=False)
    check.label = f"Temperature at full speed: {hot.label}"
    check.kept = lambda: hot.speed_share
    return check


@rule(
    "HEAT-06", "heat", "Controllers, regulators and a supply inside stay within their limits",
    why="The processor is not the only hot thing: controllers and their coils are hot enough to "
    "burn, and a supply in a closed box heats itself and all the rest.",
    formula="P = G_air (T - T_near) + G_wall (T - T_wall), T <= limit, with all that slows itself "
    "slowed; P is the load's share, or what a converter loses, P_out (1/eta - 1)",
    source="maker's limit; resistance to air: typical, from memory",
    reads=(stack_of, heat_of),
    remedies=(another("case"), another("add_on"), another("cooling"), another_supply),
)  # fmt: skip
def hot_bodies(kit: Kit) -> Iterator[Check]:
    """Each other hot body inside against what it is rated for."""
    for hot in heat_of(kit).hot_bodies:
        if not hot.slows:
            name = f"The {words.within(hot.label)}"
            say = partial(_comes_to, heat=heat_of(kit), name=name)
            yield _hot_check(kit, hot, say, settled=True)


def _comes_to(margin: Margin, heat: HeatResult, name: str, until: str = "it is good to") -> str:
    shown, limit = words.apart(words.degrees, margin.value, margin.limit)
    return (
        f"{name} comes to {shown}{margin.when} at {words.degrees(heat.ambient_c)} outside; "
        f"{until} {limit}."
    )


def _hot_check(kit: Kit, hot: HotTemps, sentence: Callable[[Margin], str], settled: bool) -> Check:
    """A hot body against its limit in every state, once all is settled or as if nothing slowed."""
    heat, item = heat_of(kit), hot.item
    temp_c = hot.held_c if settled else hot.temp_c

    def working(state: int) -> Sum:
        name = hot.id if settled else f"full.{hot.id}"
        figure = f"heat:{name}@{heat.states[state].id}"
        temp = computed_term("T", hot.label, "°C", float(temp_c[state, 0]), figure)
        return Sum("limit less temperature", "T_limit - T", [limit_term(hot), temp])

    return Check(
        hot.id, f"Temperature: {hot.label}", "°C", "max", temp_c, hot.limit_c,
        sentence, tuple(i.line.id for i in (item, stack_of(kit).case) if i),
        heat.means,
        span=max(1.0, nominal(hot.limit_c) - heat.ambient_c), working=working,
    )  # fmt: skip


@rule(
    "HEAT-04", "heat", "There is something to judge",
    why="A board without thermal figures is not cool: nothing is known. Of several boards one is "
    "worked out; those of its kind under a cooler of the same kind get as warm.",
    formula="each board has thermal figures of its own or of its class, or is like one that has",
    source="common practice",
    reads=(stack_of, heat_of, "built"),
)  # fmt: skip
def heat_known(kit: Kit) -> Iterator[Observation]:
    """A note where the heat of a board cannot be worked out."""
    stack, heat = stack_of(kit), heat_of(kit)
    if heat.board is None and stack.board is not None:
        yield Observation(
            "heat", "note", f"Not known: how warm it gets, as {heat.why_not}.",
            (stack.board.line.id,),
        )  # fmt: skip
    if heat.board is not None and (others := _unlike(kit, heat.board)):
        yield Observation(
            "others", "note",
            f"Not known: how warm {words.few(i.name for i in others)} "
            f"{'gets' if len(others) == 1 else 'get'}; heat is worked out for "
            f"{heat.board.name} and what is like it.",
            tuple(dict.fromkeys(i.line.id for i in others)),
        )  # fmt: skip


def _unlike(kit: Kit, board: Item) -> list[Item]:
    """Boards that are not of the kind of the one worked out, or lack a cooler like its own."""
    stack = stack_of(kit)
    cooler = stack.cooler
    alike = [other for other in stack.boards if other.part is board.part]
    if cooler is not None:
        alike = alike[: sum(item.part is cooler.part for item in kit.built)]
    return [other for other in stack.boards if other not in alike]
