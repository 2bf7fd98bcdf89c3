"""Why each part of a suggested kit is there, and why there is no kit."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from cobblewort.core import words
from cobblewort.core.aspects.cost.aspect import ASPECT as COST
from cobblewort.core.aspects.purpose.model import required_capacity_gb, wanted_memory_gb
from cobblewort.core.changing.suggest.search import Suggestion
from cobblewort.core.changing.suggest.shop import Shop, amount, takes
from cobblewort.core.judging.rules import RULES
from cobblewort.core.labels import ROLES
from cobblewort.core.parts.functions import FUNCTIONS, FunctionId
from cobblewort.core.parts.model import Part
from cobblewort.core.plans.patch import SwapPart, apply_patch
from cobblewort.core.plans.plan import NOT_OF_IT, Line, Plan, Role
from cobblewort.core.text import Text, as_text, joined, say
from cobblewort.core.verdict.evaluate import evaluation_of
from cobblewort.core.verdict.evaluation import Evaluation

_MOST_REASONS = 5
_COMPARED: frozenset[Role] = frozenset({"board", "power_supply", "boot_drive", "cooling", "case"})
"""Roles of which the next cheaper part is tried."""


@dataclass(slots=True, frozen=True)
class Reason:
    """Why a line was taken."""

    line: str
    text: Text


def reasons_of(shop: Shop, kit: Evaluation) -> Iterator[Reason]:
    """Why each line of a kit is there, in the order of the kit; of the main parts also what the
    next cheaper one fails at.
    """
    plan = kit.kit.plan
    told = _Telling(shop, plan)
    for line in plan.lines:
        if line.role in NOT_OF_IT:
            continue
        part = shop.catalogue.of_line(line)
        why = say("Already owned") if line.owned else told.why(line, part)
        fails = None if line.owned else _next_cheaper(shop, kit, line, part)
        yield Reason(line.id, why if fails is None else joined([why, fails], ". "))


def _next_cheaper(shop: Shop, kit: Evaluation, line: Line, part: Part) -> Text | None:
    """What the next cheaper part would do to the kit; None where there is none, or where no harm is
    seen, as it would need another cable or adapter too.
    """
    price = shop.price(part)
    if line.role not in _COMPARED or price is None:
        return None
    cheaper = [
        (own, other.id, other)
        for other in shop.on_offer(line.role)
        if other.kind == part.kind
        and (own := shop.price(other)) is not None
        and own < price
        and _plugged_alike(other, part)
    ]
    if not cheaper:
        return None
    other = max(cheaper)[2]
    swapped = apply_patch(kit.kit.plan, (SwapPart(line=line.id, part=other.id),))
    before = {finding.id for finding in kit.findings}
    for samples in (1, kit.kit.samples):
        found = evaluation_of(swapped, shop.catalogue, samples)
        for finding in found.findings:
            new = finding.id not in before and finding.severity in ("problem", "tight")
            if new and finding.family != COST.family:
                told = "With the cheaper {other}: {sentence}"
                return say(told, other=other.model, sentence=finding.sentence)
    return None


def _plugged_alike(one: Part, other: Part) -> bool:
    """Whether two parts go into the same ports."""
    first, second = (
        {connector for plug in part.plugs.values() for connector in plug.connectors}
        for part in (one, other)
    )
    return bool(first & second) or first == second


class _Telling:
    def __init__(self, shop: Shop, plan: Plan) -> None:
        self.shop, self.plan = shop, plan
        self.parts = [(line, shop.catalogue.of_line(line)) for line in plan.lines]

    def why(self, line: Line, part: Part) -> Text:
        """Why a part was taken that has to be bought."""
        if line.role == "board":
            return self._board(part)
        if line.role in ("boot_drive", "storage"):
            return self._medium(line)
        if line.role == "add_on":
            return self._add_on(part)
        if line.role == "cable":
            return self._cable(part)
        return as_text(
            {
                "power_supply": "Lowest-priced power supply within its limits all day",
                "cooling": "Keeps the processor cool in this case",
                "case": "Lowest-priced case that fits and stays cool",
                "fastener": "Standoffs and screws for the boards",
            }.get(line.role, "Completes the kit")
        )

    def _medium(self, line: Line) -> Text:
        """What a medium holds: the image, the data, or both."""
        wanted = self.shop.wanted
        data_gb = max((required_capacity_gb(n, self.plan.schedule) for n in wanted), default=0.0)
        data = words.size(data_gb)
        if line.role == "storage":
            return say("Holds {data} of data", data=data) if data_gb else say("Holds the data")
        if data_gb and not any(other.role == "storage" for other in self.plan.lines):
            return say("Holds the image and {data} of data", data=data)
        return say("Holds the image")

    def _add_on(self, part: Part) -> Text:
        """The drive that an adapter joins, or the requirement that a part meets."""
        for line, drive in self.parts:
            if line.role == "storage" and part.kind == "storage_adapter" and takes(part, drive):
                return say("Connects {drive} to the board", drive=drive.model)
        for need in self.shop.wanted:
            if need.function in part.offers and need.function is not None:
                label = FUNCTIONS[need.function].label
                told = "Provides {function} (requirement “{text}”)"
                return say(told, function=label, text=need.text)
        if part.splits_device_port:
            return say("Separates data and power at the USB device port")
        if part.kind == "hub":
            return say("Adds USB ports, with more current than those of the board")
        return say("Completes the kit")

    def _cable(self, part: Part) -> Text:
        """What a cable joins."""
        roles = {plug.role for plug in part.plugs.values()}
        if "picture_out" in roles or "picture_in" in roles:
            return say("Connects the screen to the board")
        if "power_out" in roles:
            return say("Connects the power supply to the board")
        return say("Keeps a USB part away from the board")

    def _board(self, board: Part) -> Text:
        """What every cheaper board lacks."""
        price = self.shop.price(board)
        cheaper = [
            part
            for part in self.shop.catalogue.parts(("board",))
            if part.origin != "typical" and (own := self.shop.price(part)) is not None
            if price is not None and own < price
        ]
        lacking = {self._lacks(part) for part in cheaper}
        if "" in lacking:
            return say("Lowest-priced board that works in this kit")
        told = [
            self._has(board, what)
            for what in ("cold", "heat", "memory", "interfaces")
            if what in lacking
        ]
        return joined([say("Lowest-priced board"), *told], " ")

    def _lacks(self, board: Part) -> str:
        """What of a plan's requirements a board does not meet by itself, first the location's."""
        place = self.plan.place
        if board.ambient_min_c is not None and board.ambient_min_c > place.ambient_min_c:
            return "cold"
        if board.ambient_max_c is not None and board.ambient_max_c < place.ambient_max_c:
            return "heat"
        if amount(board, "memory") < self._memory_gb():
            return "memory"
        return "interfaces" if self._interfaces() - board.offers.keys() else ""

    def _has(self, board: Part, what: str) -> Text:
        """What a board has that cheaper ones lack, as it follows its noun."""
        if what == "cold":
            return say("rated down to {temp}", temp=words.counted(board.ambient_min_c or 0, "°C"))
        if what == "heat":
            return say("rated up to {temp}", temp=words.counted(board.ambient_max_c or 0, "°C"))
        if what == "memory":
            memory = words.counted(amount(board, "memory"), "GB")
            return say("with {memory} of memory", memory=memory)
        needed = [
            FUNCTIONS[name].label
            for name in FUNCTIONS
            if name in self._interfaces() and name in board.offers
        ]
        return say("with every interface needed ({names})", names=words.listed(needed))

    def _memory_gb(self) -> float:
        image = self.plan.image
        image_gb = 0.0 if image is None else image.memory_gb
        return max([image_gb, *(wanted_memory_gb(one, image) for one in self.shop.wanted)])

    def _interfaces(self) -> set[FunctionId]:
        """Functions of the plan that boards can have themselves."""
        of_boards = {f for part in self.shop.catalogue.parts(("board",)) for f in part.offers}
        return {name for one in self.shop.wanted if (name := one.function) in of_boards}


def what_stops(found: Suggestion) -> Sequence[Text]:
    """Roles for which nothing is on offer, and the rules that stopped most kits."""
    told = [
        say(
            "{role}: no part on offer suits the location and the requirements, has a price and "
            "is not left out.",
            role=ROLES[role],
        )
        for role in found.lacking
    ]
    most = sorted(found.stopped_by.items(), key=lambda entry: (-entry[1], entry[0]))
    return told + [
        say(
            "{title} ({rule}): {kits} failed",
            rule=rule,
            title=RULES[rule].title,
            kits=words.count(count, "kit"),
        )
        for rule, count in most[:_MOST_REASONS]
    ]
