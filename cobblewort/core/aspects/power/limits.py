"""What limits the current through rails and sockets: what makers state, whatever passes there."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import partial
from typing import NamedTuple

from cobblewort.core import words
from cobblewort.core.aspects.fit.assign import Assignment
from cobblewort.core.aspects.fit.model import of as fit_of
from cobblewort.core.aspects.power.forest import Forest, Node
from cobblewort.core.aspects.power.model import forest_of
from cobblewort.core.figures.arrays import Quantity
from cobblewort.core.figures.reading import Reading
from cobblewort.core.judging.item import Item
from cobblewort.core.judging.kit import derived
from cobblewort.core.judging.severity import FAILS, RIDES_BURSTS, TRIPS, Consequence
from cobblewort.core.judging.working import Sum, reading_term
from cobblewort.core.parts.model import Limits
from cobblewort.core.plans.plan import Settings
from cobblewort.core.text import EMPTY, Text, say


@dataclass(slots=True, frozen=True)
class Limited:
    """A limit on the current, or the power, that passes a node; what may be used to the `full`
    needs no spare.

    Its sentence is `part` `does` so much, and `because` tells why its limit, `called` so, is low.
    `allowed` gives the working of the limit, which
    is not written down until somebody asks for it. `lifted` names a rail of which a setting lifts
    the limit at one's own risk.
    """

    place: int
    subject: str
    label: str
    limit: Quantity
    lines: tuple[str, ...]
    part: str
    does: str
    allowed: Callable[[], Sum]
    sockets: tuple[str, ...] = ()
    in_watts: bool = False
    full: bool = False
    consequence: Consequence = FAILS
    called: str = "the limit"
    because: Text = EMPTY
    lifted: str = ""


class _Stated(NamedTuple):
    """The limit of a rail by the path of its figure, and why if it is the lower one."""

    path: str
    reading: Reading
    unit: str
    because: Text = EMPTY


@derived("settings", fit_of, forest_of)
def rail_limits_of(settings: Settings, fit: Assignment, forest: Forest) -> list[Limited]:
    """Those of rails inside a part; that of a machine beside the kit is told with all copies."""
    in_use, lifts = fit.in_use, settings.lift_port_limit
    found = []
    for place, node in enumerate(forest.nodes):
        held = _rail_limit(forest, node, lifts)
        if held is None or node.item.part.kind == "machine":
            continue
        label, item = node.rail.label, node.item
        natural = words.natural(label)
        lifted = lifts and (_is_held_down(forest, node) or node.rail.limit_lifted_a is not None)
        found.append(
            Limited(
                place,
                node.id,
                f"{words.opening(natural)} of {item.name}",
                item.compiled.quantity(held.path),
                forest.lines_through(place),
                f"The {natural} of {item.name}",
                "must deliver",
                partial(
                    _stated,
                    "the limit",
                    f"limit of {label}",
                    held.unit,
                    item,
                    held.path,
                    held.reading,
                ),
                in_use.get((item.id, node.name), ()),
                held.unit == "W",
                full=_is_for_fans(node),
                because=held.because,
                lifted=f"{label} of {item.name}" if lifted else "",
                consequence=RIDES_BURSTS if node.converter == place else _limits(node.rail.limits),
            )
        )
    return found


@derived(forest_of)
def socket_limits_of(forest: Forest) -> list[Limited]:
    """Those of single sockets, for what is plugged into them."""
    found = []
    for place, node in enumerate(forest.nodes):
        at = node.socket
        if at is None or at.socket.limit_a is None:
            continue
        path, own = f"sockets.{at.name}.limit_a", at.socket.limit_a
        label = at.socket.label or at.name
        carries = at.socket.role == "power_in" or node.item.part.cable is not None
        found.append(
            Limited(
                place,
                at.id,
                f"{label} with {node.item.name}",
                at.item.compiled.quantity(path),
                tuple(dict.fromkeys((node.item.line.id, at.item.line.id))),
                f"The {label} of {at.item.name}" if carries else words.opening(node.item.the),
                "must carry" if carries else f"draws from its {label}",
                partial(
                    _stated,
                    "the limit of the port",
                    f"limit of the {label}",
                    "A",
                    at.item,
                    path,
                    own,
                ),
                (at.id,),
                full=at.socket.connector.startswith("fan-"),
                consequence=RIDES_BURSTS
                if at.socket.role == "power_in"
                else _limits(at.socket.limits),
            )
        )
    return found


def _limits(how: Limits | None) -> Consequence:
    """What passing the limit of a port does."""
    return FAILS if how is None else TRIPS


def _is_for_fans(node: Node) -> bool:
    """Whether a rail feeds plugs made for fans and no others: a fan may take all they give."""
    sockets = [s for s in node.item.part.sockets.values() if s.rail == node.name]
    return bool(sockets) and all(s.connector.startswith("fan-") for s in sockets)


def _rail_limit(forest: Forest, node: Node, lifts: bool) -> _Stated | None:
    rail = node.rail
    if rail.limit_w is not None:
        return _Stated(f"rails.{node.name}.limit_w", rail.limit_w, "W")
    if rail.limit_a is None:
        return None
    path = f"rails.{node.name}"
    if not lifts and rail.limit_unadvertised_a is not None and _is_held_down(forest, node):
        because = say(
            ", because the power supply does not advertise {current}",
            current=words.counted(rail.advertise_a or 0.0, "A"),
        )
        return _Stated(f"{path}.limit_unadvertised_a", rail.limit_unadvertised_a, "A", because)
    if lifts and rail.limit_lifted_a is not None:
        return _Stated(f"{path}.limit_lifted_a", rail.limit_lifted_a, "A")
    return _Stated(f"{path}.limit_a", rail.limit_a, "A")


def _is_held_down(forest: Forest, node: Node) -> bool:
    """Whether a rail has a lower limit until an announcement lifts it, and there is none."""
    rail = node.rail
    advertised = forest.advertised_a.get(node.item.id, 0.0)
    return (
        rail.limit_unadvertised_a is not None
        and rail.advertise_a is not None
        and advertised < rail.advertise_a
    )


def _stated(words_for: str, label: str, unit: str, item: Item, path: str, reading: Reading) -> Sum:
    """A limit that the maker states."""
    term = reading_term("P_limit" if unit == "W" else "I_limit", label, unit, item, path, reading)
    return Sum(words_for, term.symbol, [term])
