"""The kits that are scanned, and what may not be said of any."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator
from itertools import product

from cobblewort.core.aspects.heat.model import of as heat_of
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.rules import RULES
from cobblewort.core.plans.plan import Plan
from tests.kits import kit, shipped

HOTTEST_C = 130.0
"""Nothing in a kit that can be cooled comes to more: solder and plastic would give way before."""
CARRIERS = {"2230": ("A04", "A06"), "2242": ("A04", "A02"), "2280": ("A03", "A02"), "2.5": ("A12",)}
"""Boards and leads that a drive of a size is tried on."""
_SLACK_K = 0.1


def plans() -> Iterator[Plan]:
    """Each kit on the default day, in the order of the catalogue."""
    parts = [part for part in shipped().parts() if part.origin == "pack"]

    def of_kind(kind: str) -> list[str]:
        return [part.id for part in parts if part.kind == kind]

    drives: list[tuple[str, ...]] = [()]
    for part in parts:
        if part.drive is not None:
            drives += [(carrier, part.id) for carrier in CARRIERS[part.drive.size]]
    for board, case, cooler, drive in product(
        of_kind("board"), ["", *of_kind("case")], ["", *of_kind("cooler")], drives
    ):
        outside = {"micro-usb": "S06", "usb-c": "S03"}
        inlet = shipped().part(board).sockets["inlet"].connector
        for supply in (outside[inlet], "S12"):
            chosen = [board, supply, "M02", case, cooler, *drive]
            yield kit(*(part for part in chosen if part))


def faults(plan: Plan) -> Iterator[str]:
    """What nobody would believe: something that slows itself above the point where it does, or
    anything above 130 °C, in a kit of which nobody is told that it cannot be cooled.
    """
    kit_of = Kit(plan, shipped(), 1)
    heat = heat_of(kit_of)
    if heat.board is None:
        return
    die_c = float(heat.nodes["die"][:, 0].max())
    # Too hot at rest with everything at once is told by HEAT-01, in a planned state by HEAT-02.
    at_rest = float(heat.speed_share[:, 0].min()) == 0.0
    if die_c > float(heat.throttle_c[0]) + _SLACK_K and heat.coolable and not at_rest:
        yield f"the processor comes to {die_c:.0f} °C"
    resting = False
    for hot in heat.hot_bodies:
        worst_c, limit_c = float(hot.held_c[:, 0].max()), float(hot.limit_c[0])
        too_hot_at_rest = float(hot.speed_share[:, 0].min()) == 0.0
        resting |= hot.slows and too_hot_at_rest
        if hot.slows and worst_c > limit_c + _SLACK_K and not too_hot_at_rest:
            yield f"{hot.item.name} comes to {worst_c:.0f} °C"
    hottest_c = max([die_c, *(float(hot.held_c[:, 0].max()) for hot in heat.hot_bodies)])
    if hottest_c > HOTTEST_C and heat.coolable and not resting:
        yield f"something comes to {hottest_c:.0f} °C"


def severities(plan: Plan) -> Counter[str]:
    """How often each rule of heat and supply stops a plan or makes it tight."""
    kit_of = Kit(plan, shipped(), 1)
    told: Counter[str] = Counter()
    for rule in RULES.values():
        if rule.family in ("heat", "power_supply"):
            for finding in rule.judge(kit_of).findings:
                told[f"{rule.id} {finding.severity}"] += 1
    return told
