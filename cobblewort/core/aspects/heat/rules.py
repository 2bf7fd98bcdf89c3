"""Rules of heat: does it throttle, can it be cooled, does it stand the place."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import replace
from functools import partial
from math import isnan

from cobblewort.core import words
from cobblewort.core.aspects.fit.bays import Bays, bays_of, outside_of
from cobblewort.core.aspects.fit.model import stack_of
from cobblewort.core.aspects.fit.stack import StackResult
from cobblewort.core.aspects.heat.model import HeatResult, HotTemps
from cobblewort.core.aspects.heat.model import of as heat_of
from cobblewort.core.aspects.heat.workings import limit_term, throttle_term
from cobblewort.core.figures.one_or_many import nominal
from cobblewort.core.judging.findings import Observation
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import Items
from cobblewort.core.judging.margin import Check, Margin
from cobblewort.core.judging.remedies import add_missing, another, another_supply
from cobblewort.core.judging.rules import rule
from cobblewort.core.judging.severity import FAILS, INFORMS, SHOWS, SLOWS, UNKNOWN
from cobblewort.core.judging.working import Sum, computed_term
from cobblewort.core.parts.model import Part
from cobblewort.core.plans.plan import NOT_OF_IT
from cobblewort.core.text import EMPTY, Said, Text, say


@rule(
    "HEAT-01",
    "heat",
    "The processor keeps its clock",
    why="A processor that reaches its throttle temperature lowers its clock. Keeping 90 % or "
    "more of the required clock is OK, 60 % or more is tight, less is a problem. In idle and light "
    "phases it is a note, below 60 % tight.",
    formula="(Td - Tb)/Rdb + (Td - Tin)/(Rjc + Rtim + Rsink) = Psoc; (Tb - Tin)/Rba = Prest + "
    "(Td - Tb)/Rdb; inside air and wall from natural convection, radiation and vents; above the "
    "throttle temperature clock = ((P - P0)/(Ppeak - P0))^0.4 with the P at which it sits there",
    source="Churchill and Chu 1975; McAdams 1954; Stefan-Boltzmann; BS 5925 for vents",
    reads=(stack_of, heat_of),
    remedies=(add_missing("cooling"), another("cooling"), another("case"), another("board")),
)
def throttle(stack: StackResult, heat: HeatResult) -> Iterator[Check]:
    """Processor temperature at the highest ambient against throttling, as if nothing slowed itself,
    and what is kept of the clock.
    """
    if heat.board is None or not heat.coolable:
        return
    board = heat.board

    def sentence(margin: Margin) -> Text:
        speeds: list[float] = heat.speed_share[:, 0].tolist()
        state = heat.means.ids.index(margin.state)
        if speeds[state] < _TOLD_AS_KEPT:
            required_c = float(heat.wanted_die_c[state, 0])
            return _slows(
                f"The processor of {board.name}",
                "clock",
                speeds[state],
                required_c,
                margin.limit,
                heat,
                state,
            )
        shown, limit = words.apart(words.degrees, margin.value, margin.limit)
        return say(
            "The processor of {board} reaches {shown}{when} at {ambient} ambient; it throttles at "
            "{limit}.{most}",
            board=board.name,
            shown=shown,
            when=margin.when,
            limit=limit,
            ambient=words.degrees(heat.ambient_c),
            most=_ok_up_to(heat),
        )

    def working(state: int) -> Sum:
        die_c = float(heat.wanted_die_c[state, 0])
        figure = f"heat:full.die@{heat.states[state].id}"
        inputs = [
            throttle_term(board),
            computed_term("T_die", "processor at full clock", "°C", die_c, figure),
        ]
        return Sum("throttle temperature less processor temperature", "T_limit - T_die", inputs)

    lines = tuple(i.line.id for i in (board, stack.cooler, stack.case) if i is not None)
    yield Check(
        f"{board.id}.die",
        "Processor temperature at full clock",
        "°C",
        "max",
        heat.wanted_die_c,
        heat.throttle_c,
        sentence,
        lines,
        heat.means,
        span=max(1.0, nominal(heat.throttle_c) - heat.ambient_c),
        working=working,
        consequence=SLOWS,
        kept=lambda: heat.speed_share,
        light=heat.light,
    )


def _ok_up_to(heat: HeatResult) -> Text:
    """Up to which ambient the kit is sound, where there is one."""
    most_c = heat.hottest.ambient_c.item(0)
    return EMPTY if isnan(most_c) else say(" OK up to {most} ambient.", most=words.degrees(most_c))


_TOLD_AS_KEPT = 0.999
"""What keeps more is told by its temperature."""


def _slows(
    name: str, of: str, kept: float, wanted_c: float, limit_c: float, heat: HeatResult, state: int
) -> Text:
    """How far something slows in a state, and by how much it would be too hot otherwise."""
    at: dict[str, Said] = {
        "part": name,
        "ambient": words.degrees(heat.ambient_c),
        "when": words.when(heat.means.ids[state], heat.means.labels[state]),
    }
    if kept == 0:
        idles = heat.means.ids[state] == "idle"
        return say(
            "{part} exceeds {limit}{when} at {ambient} ambient{rests}.",
            limit=words.degrees(limit_c),
            rests="" if idles else " even when idle",
            **at,
        )
    return say(
        "{part} slows to {share} of its {of}{when} at {ambient} ambient. At full {of} it would "
        "exceed {limit} by {over}.",
        share=words.kept(kept),
        of=of,
        limit=words.degrees(limit_c),
        over=words.kelvins(max(1.0, wanted_c - limit_c)),
        **at,
    )


@rule(
    "HEAT-02",
    "heat",
    "The processor stays below its throttle temperature at its lowest clock",
    why="If the idle processor is too hot, no lower clock helps.",
    formula="Td at idle power <= throttle temperature",
    source="as HEAT-01",
    reads=(stack_of, heat_of),
    remedies=(add_missing("cooling"), another("cooling"), another("case"), another("board")),
)
def coolable(stack: StackResult, heat: HeatResult) -> Iterator[Observation]:
    """Silent unless the die is too hot at idle power."""
    if heat.board is not None and not heat.coolable:
        yield Observation(
            f"{heat.board.id}.die",
            FAILS,
            say(
                "At {ambient} ambient the processor of {board} exceeds {limit} even at its lowest "
                "clock.",
                ambient=words.degrees(heat.ambient_c),
                board=heat.board.name,
                limit=words.degrees(float(heat.throttle_c[0])),
            ),
            tuple(i.line.id for i in (heat.board, stack.cooler, stack.case) if i),
        )


@rule(
    "HEAT-03",
    "heat",
    "Every part is rated for the ambient range",
    why="Cards, batteries and drives have narrower limits than boards. A board is rated for the "
    "ambient; other parts in a case are rated for the air inside it.",
    formula="rated from <= lowest ambient; highest ambient, or inside air, <= rated to",
    source="maker's ambient rating",
    reads=("built", "place.ambient_max_c", "place.ambient_min_c", heat_of),
    remedies=(another("board", "storage", "boot_drive", "add_on"),),
)
def ambient_rating(
    built: Items, hottest_c: float, coldest_c: float, heat: HeatResult
) -> Iterator[Observation]:
    """Parts whose stated range does not hold the location's, or the air around them."""
    inside = heat.inside_c
    air_c = hottest_c if inside is None else max(heat.means.hard_of(inside[:, 0].tolist()))
    for line, part in built.by_line():
        if line.role in NOT_OF_IT or line.role == "fastener":
            continue
        low, high = part.ambient_min_c, part.ambient_max_c
        if low is not None and coldest_c < low:
            yield Observation(
                line.id,
                FAILS,
                say(
                    "{part} is rated from {low}; ambient falls to {coldest}.",
                    part=part.model,
                    low=words.counted(low, "°C"),
                    coldest=words.counted(coldest_c, "°C"),
                ),
                (line.id,),
            )
        elif high is not None and hottest_c > high:
            yield Observation(
                line.id,
                FAILS,
                say(
                    "{part} is rated up to {high}; ambient rises to {hottest}.",
                    part=part.model,
                    high=words.counted(high, "°C"),
                    hottest=words.counted(hottest_c, "°C"),
                ),
                (line.id,),
            )
        elif high is not None and air_c > high and part.kind != "board" and heat.shelters(line.id):
            yield Observation(
                line.id,
                FAILS,
                say(
                    "{part} is rated up to {high}; the air inside the case reaches {air}.",
                    part=part.model,
                    high=words.counted(high, "°C"),
                    air=words.degrees(air_c),
                ),
                (line.id,),
            )


@rule(
    "HEAT-07",
    "heat",
    "Parts outside the case stand the sun at the location",
    why="The sun warms what lies beside the case too. A power supply delivers less above its "
    "full-load temperature.",
    formula="highest ambient + 0.052 m²K/W x sun / 4 <= rated to, or full-load temperature, of "
    "each part outside the case but solar panels; a quarter of its surface faces the sun",
    source="sol-air temperature of a dark surface: ASHRAE Handbook Fundamentals (from memory); "
    "mean projected area of a convex body: Cauchy",
    reads=(bays_of, "built", "place.ambient_max_c", "place.sun_w_m2"),
)
def sun_outside(
    bays: Bays, built: Items, hottest_c: float, sun_w_m2: float
) -> Iterator[Observation]:
    """What only the sun takes above its rating, in one note: anybody can put it in the shade."""
    temp_c = hottest_c + _SOL_AIR_M2K_W * sun_w_m2 / 4
    warm = {
        item.line.id: (item.name, rated_c)
        for item in outside_of(built, bays)
        if "solar" not in item.part.offers
        and (rated_c := _rated_to_c(item.part)) is not None
        and hottest_c <= rated_c < temp_c
    }
    if warm:
        one = len(warm) == 1
        yield Observation(
            "outside",
            INFORMS,
            say(
                "{parts} {lie} outside the case in the sun: about {temp} at {hottest} ambient, "
                "rated up to {rated}. Put {them} in the shade.",
                parts=words.listed([name for name, _ in warm.values()]),
                lie="lies" if one else "lie",
                temp=words.degrees(temp_c),
                hottest=words.degrees(hottest_c),
                rated=words.counted(min(rated_c for _, rated_c in warm.values()), "°C"),
                them="it" if one else "them",
            ),
            tuple(warm),
        )


_SOL_AIR_M2K_W = 0.052


def _rated_to_c(part: Part) -> float | None:
    """The air up to which a part is rated, or a source delivers all of its current."""
    rated = [] if part.ambient_max_c is None else [part.ambient_max_c]
    if part.source is not None:
        rated.append(part.source.full_to_c.nominal)
    return min(rated, default=None)


@rule(
    "HEAT-05",
    "heat",
    "Drives and further boards keep their speed",
    why="A hot drive throttles. Drives under a board and further boards in a case get little air. "
    "A processor is judged as in HEAT-01. A drive is judged by the transfers that it is used for; "
    "where there are none it is a note, below 60 % tight.",
    formula="P = G_air (T - T_near) + G_wall (T - T_wall); above its throttle temperature P_hold "
    "at which it sits there, and speed = (P_hold - P_idle)/(P - P_idle), of a processor to the "
    "power of 0.4; of an M.2 module G is its face, and gap, joint and carrier behind each other",
    source="maker's throttle temperature; films, gap and joint of a module: typical, from memory",
    reads=(stack_of, heat_of),
    remedies=(another("storage", "boot_drive"), another("case"), another("cooling")),
)
def drives(stack: StackResult, heat: HeatResult) -> Iterator[Check]:
    """Each drive inside, and each further board, against throttling, and what it keeps of
    its speed.
    """
    for hot in heat.hot_bodies:
        if hot.slows:
            yield _drive_check(heat, stack, hot)


def _drive_check(heat: HeatResult, stack: StackResult, hot: HotTemps) -> Check:
    name, speed = hot.item.name, "speed"
    # Where a transfer waits for a drive, that transfer is judged, and tells why it is slow.
    consequence = SHOWS if hot.is_waited_for and not hot.warm.clock else SLOWS
    if hot.warm.clock:
        name, speed = f"The processor of {name}", "clock"

    def sentence(margin: Margin) -> Text:
        speeds: list[float] = hot.speed_share[:, 0].tolist()
        state = heat.means.ids.index(margin.state)
        if speeds[state] >= _TOLD_AS_KEPT:
            return _reaches(margin, heat, name, "it throttles at")
        wanted_c = float(hot.temp_c[state, 0])
        return _slows(name, speed, speeds[state], wanted_c, margin.limit, heat, state)

    check = _hot_check(heat, stack, hot, sentence, settled=False)
    label = f"Temperature at full speed: {hot.label}"
    return replace(
        check, label=label, consequence=consequence, kept=lambda: hot.speed_share, light=hot.light
    )


@rule(
    "HEAT-06",
    "heat",
    "Controllers, regulators and power supplies inside stay within their limits",
    why="Controllers and regulators get hot, and a power supply inside a case heats everything "
    "else.",
    formula="P = G_air (T - T_near) + G_wall (T - T_wall), T <= limit, with all throttling "
    "applied; P is the load's share, or what a converter loses, P_out (1/eta - 1)",
    source="maker's limit; resistance to air: typical, from memory",
    reads=(stack_of, heat_of),
    remedies=(another("case"), another("add_on"), another("cooling"), another_supply),
)
def hot_bodies(stack: StackResult, heat: HeatResult) -> Iterator[Check]:
    """Each other hot body inside against what it is rated for."""
    for hot in heat.hot_bodies:
        if not hot.slows:
            name = f"The {words.within(hot.label)}"
            told = partial(_reaches, heat=heat, name=name)
            yield _hot_check(heat, stack, hot, told, settled=True)


def _reaches(margin: Margin, heat: HeatResult, name: str, until: str = "its limit is") -> Text:
    shown, limit = words.apart(words.degrees, margin.value, margin.limit)
    return say(
        "{part} reaches {shown}{when} at {ambient} ambient; {until} {limit}.",
        part=name,
        shown=shown,
        when=margin.when,
        ambient=words.degrees(heat.ambient_c),
        until=until,
        limit=limit,
    )


def _hot_check(
    heat: HeatResult,
    stack: StackResult,
    hot: HotTemps,
    sentence: Callable[[Margin], Text],
    settled: bool,
) -> Check:
    """A hot body against its limit in every state, once all is settled or as if nothing slowed."""
    item = hot.item
    temp_c = hot.held_c if settled else hot.temp_c

    def working(state: int) -> Sum:
        name = hot.id if settled else f"full.{hot.id}"
        figure = f"heat:{name}@{heat.states[state].id}"
        temp = computed_term("T", hot.label, "°C", float(temp_c[state, 0]), figure)
        return Sum("limit less temperature", "T_limit - T", [limit_term(hot), temp])

    return Check(
        hot.id,
        f"Temperature: {hot.label}",
        "°C",
        "max",
        temp_c,
        hot.limit_c,
        sentence,
        tuple(i.line.id for i in (item, stack.case) if i),
        heat.means,
        span=max(1.0, nominal(hot.limit_c) - heat.ambient_c),
        working=working,
    )


@rule(
    "HEAT-04",
    "heat",
    "The thermal values are known",
    why="Without thermal values a temperature cannot be calculated. Of several boards one is "
    "calculated; equal boards under equal coolers get as warm.",
    formula="each board has thermal values, its own or typical ones, or is like a board that has",
    source="common practice",
    reads=(stack_of, heat_of, "built"),
)
def heat_known(stack: StackResult, heat: HeatResult, built: Items) -> Iterator[Observation]:
    """A note where the heat of a board cannot be worked out."""
    if heat.board is None and stack.board is not None:
        yield Observation(
            "heat",
            UNKNOWN,
            say("Not checked: temperature. {why}.", why=words.opening(heat.why_not)),
            (stack.board.line.id,),
        )
    if heat.board is not None and (others := _unlike(stack, built, heat.board)):
        yield Observation(
            "others",
            INFORMS,
            say(
                "Not checked: the temperature of {others}. It is calculated for {board} only.",
                others=words.few(i.name for i in others),
                board=heat.board.name,
            ),
            tuple(dict.fromkeys(i.line.id for i in others)),
        )


def _unlike(stack: StackResult, built: Items, board: Item) -> list[Item]:
    """Boards that are not of the kind of the one worked out, or lack a cooler like its own."""
    cooler = stack.cooler
    alike = [other for other in stack.boards if other.part is board.part]
    if cooler is not None:
        alike = alike[: sum(item.part is cooler.part for item in built)]
    return [other for other in stack.boards if other not in alike]
